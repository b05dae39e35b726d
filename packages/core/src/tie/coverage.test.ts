import { describe, expect, test } from 'vitest';
import { normalApart } from '../testing/random.ts';
import { wellPath } from '../wells/path.ts';
import { twtOfDepth } from '../wells/timeDepth.ts';
import { integrateSonic } from './calibrate.ts';
import { calibrateWell, type TieSettings, type TieWell, tieChain, tieLogs } from './chain.ts';
import { elasticInTime } from './elastic.ts';
import { estimateWavelet, reflectivityAt } from './estimate.ts';
import { type Series, seriesAt, synthetic } from './match.ts';
import { ricker, rotate, type WaveletShape } from './wavelet.ts';

const COUNT = 4000;
const [FIRST_M, STEP_M] = [425, 0.25];

/** A well of its own for each draw, its exact times, and the trace beside it: wavelet turned by 20°, noise of a kind. */
function drawn(seed: number, kind: 'of its band' | 'white', signalToNoise: number, shotMs: number) {
  const random = normalApart(seed);
  const velocity = new Float64Array(COUNT);
  let v = 2300;
  for (let n = 0; n < COUNT; n++) {
    if (n % 24 === 0) v = 2300 + 0.5 * n * STEP_M + 130 * random();
    velocity[n] = v;
  }
  const zs = Float64Array.from(velocity, (_, n) => FIRST_M + n * STEP_M - 25);
  const slowness = velocity.map((x) => 1 / x);
  const exact = integrateSonic({ tvdss: zs, secondsPerMetre: slowness }).map((t) => t + 380);
  const density = velocity.map((x) => 310 * x ** 0.25 * (1 + 0.008 * random()));
  const wavelet = rotate(ricker(28, 120), 20);
  const trace = synthetic(elasticInTime(exact, zs, slowness, density), wavelet);
  const grid = { firstMs: 0, stepMs: 4 };
  const clean = Float64Array.from({ length: 320 }, (_, k) => seriesAt(trace, 4 * k) || 0);
  const noise =
    kind === 'white'
      ? clean.map(() => random())
      : synthetic({ firstMs: 0, stepMs: 4, reflectivity: clean.map(() => random()) }, every4(ricker(28, 120))).values;
  const power = (x: Float64Array) => x.slice(130, 230).reduce((s, y) => s + y * y, 0);
  const scale = Math.sqrt(power(clean) / power(noise) / signalToNoise);
  const seismic: Series = { ...grid, values: clean.map((x, k) => 4000 * (x + scale * noise[k])) };
  const shots = Array.from({ length: 17 }, (_, n) => Math.min(COUNT - 1, 245 * n)).map((n) => ({
    tvdss: zs[n],
    twt: exact[n] + shotMs * random(),
  }));
  const well: TieWell = {
    name: 'T-1',
    path: wellPath(0, 0, 25, [], 1500),
    firstM: FIRST_M,
    stepM: STEP_M,
    sonic: Float32Array.from(slowness, (s) => 1e6 * s),
    density: Float32Array.from(density),
    shear: null,
    shots,
  };
  return { well, seismic, zs, exact };
}

function every4(w: WaveletShape): WaveletShape {
  return { stepMs: 4, firstMs: w.firstMs, samples: w.samples.filter((_, n) => n % 4 === 0) };
}

const settings: TieSettings = {
  kneeSpacingM: 300,
  moved: [],
  fromMs: 550,
  toMs: 850,
  mostShiftMs: 16,
  mostPhaseDeg: 40,
  pins: [],
  stretch: false,
  mostChange: 0.03,
  draws: 59,
  phaseDeg: 0,
  shiftMs: null,
  weighShots: true,
  shotErrorMs: null,
  ownWaveletMs: null,
};

const DRAWS = 100;

describe('the 90 % bars of a tie', { timeout: 300_000 }, () => {
  test.each([
    ['noise of the band of the signal', 'of its band', true],
    ['white noise', 'white', true],
    ['noise of the band, by correlation alone', 'of its band', false],
    ['white noise, by correlation alone', 'white', false],
  ] as const)('%s: cover the truth 84 to 96 times in 100', (_, kind, weighShots) => {
    let [covered, phases, errors, unmoved] = [0, 0, 0, 0];
    for (let seed = 1; seed <= DRAWS; seed++) {
      const { well, seismic, zs, exact } = drawn(seed, kind, 4, weighShots ? 1 : 0);
      const logs = tieLogs(well);
      const calibration = logs && calibrateWell(well, logs, settings);
      if (!logs || !calibration) throw new Error('the well has too little of a sonic');
      const chain = tieChain(well, logs, calibration, ricker(28, 120), seismic, { ...settings, weighShots });
      const middle = exact.findIndex((t) => t > 700);
      const error = twtOfDepth(chain.relation, zs[middle]) - exact[middle];
      if (Math.abs(error) <= chain.evidence.uncertaintyMs) covered++;
      if (Math.abs(chain.phaseDeg - 20) <= chain.evidence.uncertaintyDeg) phases++;
      errors += Math.abs(error) / DRAWS;
      unmoved += Math.abs(error - chain.shiftMs) / DRAWS;
    }
    expect(covered).toBeGreaterThanOrEqual(84);
    expect(covered).toBeLessThanOrEqual(96);
    expect(phases).toBeGreaterThanOrEqual(84);
    expect(phases).toBeLessThanOrEqual(96);
    // what checkshots say is not made worse by what the correlation says
    if (weighShots) expect(errors).toBeLessThanOrEqual(unmoved);
  });
});

describe('with a wavelet that was estimated from the well itself', { timeout: 120_000 }, () => {
  /** Chance that a tie states whose wavelet was made from its own trace: of the well, or of another well's trace. */
  const chanceOf = (seed: number, related: boolean) => {
    const { well, seismic } = drawn(seed, 'of its band', related ? 3 : 1e-6, 1);
    const logs = tieLogs(well);
    const calibration = logs && calibrateWell(well, logs, settings);
    if (!logs || !calibration) throw new Error('the well has too little of a sonic');
    const { tvdss, secondsPerMetre } = logs.slowness;
    const fine = elasticInTime(calibration.twt, tvdss, secondsPerMetre, logs.density);
    const reflectivity = reflectivityAt({ ...fine, values: fine.reflectivity }, 400, 4, 151);
    const trace = seismic.values.slice(100, 251);
    const estimate = estimateWavelet([{ well: 'T-1', stepMs: 4, reflectivity, trace }], [80, 120]);
    if (!estimate) throw new Error('the window is too short');
    const own = estimate.lengthMs;
    return tieChain(well, logs, calibration, estimate.wavelet, seismic, { ...settings, ownWaveletMs: own }).evidence
      .chance;
  };
  test('noise passes for a match about as often as stated, and a match still stands out', () => {
    const noise = Array.from({ length: 50 }, (_, n) => chanceOf(n + 1, false));
    // 2.5 of 50 are expected at 0.05, and 10 at 0.2
    expect(noise.filter((c) => c <= 0.05).length).toBeLessThanOrEqual(6);
    expect(noise.filter((c) => c <= 0.2).length).toBeLessThanOrEqual(17);
    expect(noise.filter((c) => c <= 0.2).length).toBeGreaterThanOrEqual(3);
    const real = Array.from({ length: 20 }, (_, n) => chanceOf(n + 1, true));
    expect(real.filter((c) => c <= 0.05).length).toBeGreaterThanOrEqual(18);
  });
});
