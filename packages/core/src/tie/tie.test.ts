import { describe, expect, test } from 'vitest';
import { even, normalApart } from '../testing/random.ts';
import { wellPath } from '../wells/path.ts';
import { twtOfDepth } from '../wells/timeDepth.ts';
import { calibrate, calibrationError, evenKnees, integrateSonic, relationFrom } from './calibrate.ts';
import { calibrateWell, type TieWell, tieChain, tieLogs } from './chain.ts';
import { commonPhase, DISAGREES } from './commonPhase.ts';
import { elasticInTime, gardner, mended } from './elastic.ts';
import { matchMap, runningMatch, type Series, seriesAt, synthetic } from './match.ts';
import { ricker, rotate, statisticalWavelet, type WaveletShape, waveletSpectrum } from './wavelet.ts';

const depths = (count: number, first = 100, step = 0.5) =>
  Float64Array.from({ length: count }, (_, n) => first + n * step);

describe('sonic and checkshots', () => {
  test('slowness is integrated, not velocity: a layered log gives the sum of its layers’ times', () => {
    const tvdss = depths(401);
    const secondsPerMetre = tvdss.map((z) => (z < 200 ? 1 / 2000 : 1 / 4000));
    const twt = integrateSonic({ tvdss, secondsPerMetre });
    // 100 m at 2000 m/s and 100 m at 4000 m/s; the trapezoid shares one sample at the boundary
    expect(twt[400]).toBeCloseTo(100 + 50, 0);
  });
  test('a drift of straight pieces is found again through noise, and the times meet the checkshots', () => {
    const tvdss = depths(2001, 400, 0.5);
    const log = { tvdss, secondsPerMetre: tvdss.map(() => 1 / 2500) };
    const sonic = integrateSonic(log);
    const knees = evenKnees(400, 1400, 250);
    expect(knees).toEqual([400, 650, 900, 1150, 1400]);
    const drift = [380, 383, 381, 386, 388];
    const at = (z: number) => {
      const k = Math.min(3, Math.floor((z - 400) / 250));
      return drift[k] + ((drift[k + 1] - drift[k]) * (z - knees[k])) / 250;
    };
    const random = even(3);
    const shots = Array.from({ length: 21 }, (_, n) => 400 + 50 * n).map((z) => ({
      tvdss: z,
      twt: (2000 * (z - 400)) / 2500 + at(z) + 0.5 * random(),
    }));
    const found = calibrate(log, shots, knees);
    expect(found).not.toBeNull();
    found?.knees.forEach((k, n) => {
      expect(Math.abs(k.driftMs - drift[n])).toBeLessThan(0.6);
    });
    const middle = tvdss.indexOf(900);
    expect(Math.abs((found?.twt[middle] ?? 0) - (sonic[middle] + 381))).toBeLessThan(0.6);
  });
  test('a knee that was moved by hand stays where it was put', () => {
    const tvdss = depths(401, 400, 1);
    const log = { tvdss, secondsPerMetre: tvdss.map(() => 1 / 2000) };
    const shots = [400, 500, 600, 700, 800].map((z) => ({ tvdss: z, twt: 400 + (z - 400) }));
    const found = calibrate(log, shots, [400, 600, 800], [{ tvdss: 600, driftMs: 405 }]);
    expect(found?.knees[1].driftMs).toBeCloseTo(405, 1);
  });
  test('a relation rises everywhere: checkshots that go back in time are left out', () => {
    const tvdss = depths(101, 500, 1);
    const log = { tvdss, secondsPerMetre: tvdss.map(() => 1 / 2000) };
    const shots = [
      { tvdss: 100, twt: 120 },
      { tvdss: 200, twt: 110 },
      { tvdss: 300, twt: 330 },
    ];
    const r = relationFrom(
      log,
      integrateSonic(log).map((t) => t + 520),
      shots,
      () => 2,
    );
    for (let n = 1; n < r.tvdss.length; n++) {
      expect(r.tvdss[n]).toBeGreaterThan(r.tvdss[n - 1]);
      expect(r.twt[n]).toBeGreaterThan(r.twt[n - 1]);
    }
    expect(twtOfDepth(r, 300)).toBeCloseTo(332, 6);
    expect(twtOfDepth(r, 550)).toBeCloseTo(520 + 50 + 2, 6);
  });
  test('without two checkshots along the sonic there is no calibration', () => {
    const tvdss = depths(101, 500, 1);
    const log = { tvdss, secondsPerMetre: tvdss.map(() => 1 / 2000) };
    expect(calibrate(log, [{ tvdss: 550, twt: 600 }], [500, 600])).toBeNull();
  });
});

describe('elastic logs', () => {
  test('thin layers act as their Backus average', () => {
    // equal thicknesses of 2000 and 3000 m/s, 2000 and 2400 kg/m³, layers far thinner than a step of time
    const count = 8001;
    const tvdss = depths(count, 1000, 0.05);
    const odd = (n: number) => Math.floor(n / 2) % 2 === 1;
    const slowness = tvdss.map((_, n) => (odd(n) ? 1 / 3000 : 1 / 2000));
    const density = tvdss.map((_, n) => (odd(n) ? 2400 : 2000));
    const twt = integrateSonic({ tvdss, secondsPerMetre: slowness });
    const { impedance, reflectivity } = elasticInTime(twt, tvdss, slowness, density);
    // samples between two layers average both, as the log between two readings does
    const pairs = [
      [2000, 1 / 2000],
      [2200, 0.5 * (1 / 2000 + 1 / 3000)],
      [2400, 1 / 3000],
      [2200, 0.5 * (1 / 2000 + 1 / 3000)],
    ];
    const rho = pairs.reduce((s, [r]) => s + r / 4, 0);
    const compliance = pairs.reduce((s, [r, p]) => s + (p * p) / r / 4, 0);
    const expected = Math.sqrt(rho / compliance);
    for (let n = 5; n < impedance.length - 5; n += 7) expect(Math.abs(impedance[n] / expected - 1)).toBeLessThan(0.01);
    for (const r of reflectivity.slice(5, -5)) expect(Math.abs(r)).toBeLessThan(0.01);
  });
  test('one boundary reflects by the textbook coefficient, once', () => {
    const tvdss = depths(801, 1000, 0.5);
    const upper = (z: number) => z < 1200;
    const slowness = tvdss.map((z) => (upper(z) ? 1 / 2500 : 1 / 3000));
    const density = tvdss.map((z) => (upper(z) ? 2200 : 2350));
    const { reflectivity } = elasticInTime(
      integrateSonic({ tvdss, secondsPerMetre: slowness }),
      tvdss,
      slowness,
      density,
    );
    const total = reflectivity.reduce((a, b) => a + b, 0);
    const [z1, z2] = [2500 * 2200, 3000 * 2350];
    expect(total).toBeCloseTo((z2 - z1) / (z2 + z1), 2);
  });
  test('spikes go, gaps are bridged by straight lines, ends that are null stay out', () => {
    const log = Float32Array.from({ length: 200 }, (_, n) => 300 + 0.2 * n + 2 * Math.sin(n));
    log[60] = 900;
    log.fill(Number.NaN, 100, 110);
    log.fill(Number.NaN, 0, 5);
    const m = mended(log, 0.15);
    expect(m.removed).toEqual([60]);
    expect(m.bridged).toBe(10);
    expect([m.first, m.last]).toEqual([5, 199]);
    expect(Math.abs(m.values[60] - 312)).toBeLessThan(4);
    expect(m.values[105]).toBeCloseTo((log[99] * 5 + log[110] * 6) / 11, 0);
  });
  test('beds are no spikes, however a log is sampled: all that is rock stays, and its edges', () => {
    for (const stepM of [0.1, 0.1524, 0.25, 0.5, 1])
      for (const bedM of [1, 1.5, 2, 3, 6]) {
        if (bedM < 2 * stepM) continue;
        const count = Math.round(120 / stepM);
        const log = Float64Array.from({ length: count }, (_, n) => {
          const z = n * stepM;
          // limestone stringers in shale: a third faster, with sharp edges
          return z % 30 > 10 && z % 30 <= 10 + bedM ? 210 : 320 + Math.sin(n);
        });
        expect(mended(log, stepM).removed, `${bedM} m at ${stepM} m`).toEqual([]);
        // and one wild reading is taken out wherever it is
        const at = Math.round(25 / stepM);
        log[at] = 900;
        expect(mended(log, stepM).removed, `a spike at ${stepM} m`).toEqual([at]);
      }
  });
  test('Gardner’s density at 3000 m/s', () => {
    expect(gardner(3000)).toBeCloseTo(2294, 0);
  });
});

describe('wavelets', () => {
  test('Ricker: unit peak at zero, largest amplitude at its frequency, no phase', () => {
    const w = ricker(28, 160);
    expect(w.samples[(w.samples.length - 1) / 2]).toBe(1);
    const s = waveletSpectrum(w, 100);
    const top = s.hz[s.amplitude.indexOf(1)];
    expect(Math.abs(top - 28)).toBeLessThan(1.2);
    s.phaseDeg.forEach((p, n) => {
      if (s.amplitude[n] > 0.2) expect(Math.abs(p)).toBeLessThan(0.5);
    });
  });
  test('a turn by 40° is read back as 40°, and four turns by 90° come home', () => {
    const w = ricker(28, 200);
    const s = waveletSpectrum(rotate(w, 40), 60);
    s.phaseDeg.forEach((p, n) => {
      if (s.amplitude[n] > 0.4) expect(Math.abs(p - 40)).toBeLessThan(3);
    });
    let home: WaveletShape = w;
    for (let n = 0; n < 4; n++) home = rotate(home, 90);
    expect(Math.max(...home.samples.map((v, n) => Math.abs(v - w.samples[n])))).toBeLessThan(0.05);
  });
  test('the spectrum of traces under white reflectivity gives the wavelet that made them', () => {
    const random = even(11);
    const true28 = ricker(28, 160);
    const traces = Array.from({ length: 60 }, () => {
      const r = Float64Array.from({ length: 1200 }, () => random() ** 3);
      const made = synthetic({ firstMs: 0, stepMs: 1, reflectivity: r }, true28);
      return Float32Array.from({ length: 300 }, (_, k) => made.values[4 * k]);
    });
    const w = statisticalWavelet(traces, 4, 120);
    let [error, power] = [0, 0];
    for (let n = 0; n < w.samples.length; n++) {
      const t = w.firstMs + n;
      const q = (Math.PI * 28 * t * 0.001) ** 2;
      const exact = (1 - 2 * q) * Math.exp(-q);
      error += (w.samples[n] - exact) ** 2;
      power += exact ** 2;
    }
    expect(Math.sqrt(error / power)).toBeLessThan(0.2);
    const s = waveletSpectrum(w, 100);
    expect(Math.abs(s.hz[s.amplitude.indexOf(1)] - 28)).toBeLessThan(4);
  });
});

describe('matching', () => {
  const random = even(5);
  const reflectivity = Float64Array.from({ length: 900 }, () => 0.2 * random() ** 3);
  const elastic = { firstMs: 200, stepMs: 1, impedance: new Float64Array(900), reflectivity };
  const made = synthetic(elastic, ricker(28, 120));
  const sampled = (series: Series, shift: number): Series => ({
    firstMs: 200,
    stepMs: 4,
    values: Float64Array.from({ length: 230 }, (_, k) => seriesAt(series, 200 + 4 * k - shift) || 0),
  });
  const options = { fromMs: 400, toMs: 900, mostShiftMs: 40, phaseDeg: 0, halfPeriodMs: 18 };
  test('a shift is found to half a millisecond', () => {
    const map = matchMap(sampled(made, 7.3), made, options);
    expect(Math.abs(map.atPhase.shiftMs - 7.3)).toBeLessThan(0.5);
    expect(map.atPhase.correlation).toBeGreaterThan(0.99);
  });
  test('shift and phase are found together, and the other polarity is worst where this is best', () => {
    const turned = synthetic(elastic, rotate(ricker(28, 120), 30));
    const map = matchMap(sampled(turned, -4), made, options);
    expect(Math.abs(map.best.phaseDeg - 30)).toBeLessThanOrEqual(5);
    expect(Math.abs(map.best.shiftMs + 4)).toBeLessThanOrEqual(1);
    const s = Array.from(map.shifts).indexOf(map.best.shiftMs);
    const opposite = Array.from(map.phases).indexOf(((map.best.phaseDeg + 360) % 360) - 180);
    expect(map.values[opposite * map.shifts.length + s]).toBeLessThan(-0.95);
  });
  test('the runner-up lies at least half a period away and is worse', () => {
    const { atPhase, runnerUp } = matchMap(sampled(made, 0), made, options);
    expect(runnerUp).not.toBeNull();
    if (!runnerUp) return;
    expect(Math.abs(runnerUp.shiftMs - atPhase.shiftMs)).toBeGreaterThan(18);
    expect(runnerUp.correlation).toBeLessThan(atPhase.correlation);
  });
  test('the running match is near one where the traces are the same, and falls where they are not', () => {
    const same = sampled(made, 0);
    const half = { ...same, values: same.values.map((v, k) => (k > 120 ? 0.05 * random() : v)) };
    const running = runningMatch(half, made, 0, 60);
    expect(running.values[60]).toBeGreaterThan(0.99);
    expect(Math.abs(running.values[180])).toBeLessThan(0.8);
  });
});

describe('a phase for several wells', () => {
  const deg = Array.from({ length: 25 }, (_, n) => -60 + 5 * n);
  const normal = (well: string, mean: number, sigma: number) => ({
    well,
    deg,
    log: deg.map((d) => -0.5 * ((d - mean) / sigma) ** 2),
  });
  test('is the mean of theirs, each weighed by how well it knows it, with the error of that mean', () => {
    const found = commonPhase([normal('A', -25, 20), normal('B', 30, 10), normal('C', 10, 14)]);
    const weights = [1 / 400, 1 / 100, 1 / 196];
    const whole = weights.reduce((a, b) => a + b);
    const mean = (-25 * weights[0] + 30 * weights[1] + 10 * weights[2]) / whole;
    expect(found.deg).toBeCloseTo(mean, 6);
    expect(found.halfDeg).toBeCloseTo(1.645 / Math.sqrt(whole), 1);
    expect(found.wells.map((w) => w.deg)).toEqual([-25, 30, 10].map((d) => expect.closeTo(d, 6)));
    expect(found.wells[0].loss).toBeCloseTo(((mean + 25) / 20) ** 2, 0);
    expect(found.wells[0].loss).toBeGreaterThan(DISAGREES);
    expect(found.wells[2].loss).toBeLessThan(DISAGREES);
  });
});

describe('the error of calibrated times', () => {
  const rms = (v: number[]) => Math.sqrt(v.reduce((a, x) => a + x * x, 0) / v.length);
  test('is that of the checkshots through the fit: held against how far calibrations lie off over many draws', () => {
    const tvdss = depths(2001, 400, 0.5);
    const log = { tvdss, secondsPerMetre: tvdss.map(() => 1 / 2500) };
    const knees = evenKnees(400, 1400, 300);
    const exact = integrateSonic(log).map((t) => t + 350);
    const [errors, stated, given]: number[][] = [[], [], []];
    for (let seed = 1; seed <= 300; seed++) {
      const random = normalApart(seed);
      const shots = Array.from({ length: 16 }, (_, n) => 400 + 65 * n).map((z) => ({
        tvdss: z,
        twt: exact[Math.round((z - 400) / 0.5)] + 1.4 * random(),
      }));
      const found = calibrate(log, shots, knees);
      if (!found) throw new Error('there are checkshots enough');
      errors.push(found.twt[1100] - exact[1100]);
      stated.push(calibrationError(found, 950, null).ms);
      given.push(calibrationError(found, 950, 1.4).ms);
    }
    // the error of a root mean square of 300 is four per cent; some draws look like wander
    for (const said of [stated, given]) {
      expect(rms(said) / rms(errors)).toBeGreaterThan(0.92);
      expect(rms(said) / rms(errors)).toBeLessThan(1.2);
    }
  });
  test('is larger where the sonic drifts unevenly from knee to knee, by about as much as that puts calibrations off', () => {
    const tvdss = depths(2001, 400, 0.5);
    const knees = evenKnees(400, 1400, 300);
    const [errors, stated]: number[][] = [[], []];
    for (let seed = 1; seed <= 300; seed++) {
      const random = normalApart(seed + 1000);
      const log = { tvdss, secondsPerMetre: tvdss.map(() => 1 / 2500) };
      // washouts: the sonic loses and gains time at random as it goes down
      let walk = 350;
      const exact = integrateSonic(log).map((t) => {
        walk += 0.09 * random();
        return t + walk;
      });
      const shots = Array.from({ length: 16 }, (_, n) => 400 + 65 * n).map((z) => ({
        tvdss: z,
        twt: exact[Math.round((z - 400) / 0.5)] + random(),
      }));
      const found = calibrate(log, shots, knees);
      if (!found) throw new Error('there are checkshots enough');
      errors.push(found.twt[1100] - exact[1100]);
      stated.push(calibrationError(found, 950, null).ms);
    }
    expect(rms(errors)).toBeGreaterThan(0.7);
    expect(rms(stated) / rms(errors)).toBeGreaterThan(0.8);
    expect(rms(stated) / rms(errors)).toBeLessThan(1.25);
  });
});

describe('the whole chain', () => {
  const random = even(21);
  const count = 6000;
  const firstM = 425;
  const stepM = 0.15;
  const velocity = Float64Array.from({ length: count }, () => 0);
  let v = 2300;
  for (let n = 0; n < count; n++) {
    if (n % 40 === 0) v = 2300 + 0.5 * n * stepM + 250 * random();
    velocity[n] = v;
  }
  const sonic = Float32Array.from(velocity, (x) => 1e6 / x);
  const density = Float32Array.from(velocity, (x) => 310 * x ** 0.25 * (1 + 0.01 * random()));
  const path = wellPath(0, 0, 25, [], 1400);
  const zs = Float64Array.from(velocity, (_, n) => firstM + n * stepM - 25);
  const drifted = sonic.map((s) => s * 1.01);
  const exact = integrateSonic({ tvdss: zs, secondsPerMetre: Float64Array.from(sonic, (s) => s * 1e-6) }).map(
    (t) => t + 380,
  );
  const shots = Array.from({ length: 12 }, (_, n) => Math.min(count - 1, 500 * n)).map((n) => ({
    tvdss: zs[n],
    twt: exact[n] + 0.7 * random(),
  }));
  const well: TieWell = { name: 'T-1', path, firstM, stepM, sonic: drifted, density, shear: null, shots };
  const truth = elasticInTime(
    exact,
    zs,
    Float64Array.from(sonic, (s) => s * 1e-6),
    Float64Array.from(density),
  );
  const trace = synthetic(truth, rotate(ricker(28, 120), 15));
  const seismic: Series = {
    firstMs: 0,
    stepMs: 4,
    values: Float64Array.from({ length: 300 }, (_, k) => {
      const s = seriesAt(trace, 4 * k);
      return 3000 * ((Number.isNaN(s) ? 0 : s) + 0.004 * random());
    }),
  };
  const settings = {
    kneeSpacingM: 300,
    moved: [],
    fromMs: 550,
    toMs: 850,
    mostShiftMs: 16,
    mostPhaseDeg: 40,
    pins: [],
    stretch: false,
    mostChange: 0.03,
    draws: 19,
    phaseDeg: 0,
    shiftMs: null,
    weighShots: true,
    shotErrorMs: null,
    ownWaveletMs: null,
  };
  test('a sonic that drifts by 1 % under checkshots of 1 ms noise ties within 2 ms, and the wavelet’s phase is found', () => {
    const logs = tieLogs(well);
    const calibration = logs && calibrateWell(well, logs, settings);
    expect(logs && calibration).toBeTruthy();
    if (!logs || !calibration) return;
    const chain = tieChain(well, logs, calibration, ricker(28, 120), seismic, settings);
    expect(chain.correlation).toBeGreaterThan(0.85);
    expect(Math.abs(chain.phaseDeg - 15)).toBeLessThanOrEqual(15);
    for (const n of [1500, 3000, 4500]) expect(Math.abs(twtOfDepth(chain.relation, zs[n]) - exact[n])).toBeLessThan(2);
  });
  test('seismic that is late against good checkshots is said, and correlation alone follows it', () => {
    const logs = tieLogs(well);
    const calibration = logs && calibrateWell(well, logs, settings);
    if (!logs || !calibration) throw new Error('the well can be tied');
    const late = { ...seismic, firstMs: 9 };
    const weighed = tieChain(well, logs, calibration, ricker(28, 120), late, settings);
    const alone = tieChain(well, logs, calibration, ricker(28, 120), late, { ...settings, weighShots: false });
    expect(Math.abs(alone.shiftMs - 9)).toBeLessThan(2.5);
    expect(weighed.evidence.byMatch.shiftMs).toBeCloseTo(alone.shiftMs, 1);
    const said = weighed.warnings.some((w) => w.startsWith('Checkshots and seismic disagree'));
    // either checkshots are overruled, or it is said that they are not
    expect(said || Math.abs(weighed.shiftMs - 9) < 2.5).toBe(true);
  });
  test('a well without density is tied with one estimated, and says so; a sonic of a few samples is refused', () => {
    const logs = tieLogs({ ...well, density: null });
    expect(logs?.densityEstimated).toBe(true);
    const short = drifted.map((s, n) => (n > 3000 && n < 3030 ? s : Number.NaN));
    expect(tieLogs({ ...well, sonic: short })).toBeNull();
  });
});
