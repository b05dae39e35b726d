import { describe, expect, test } from 'vitest';
import { spectraCollector } from '../attributes/spectrum.ts';
import type { Corners } from '../conditioning/filter.ts';
import { spectrum } from '../numerics/fft.ts';
import { normal } from '../testing/random.ts';
import { atBed, lagsOf, lowPassed, spreader, spreadOf, variogramOf } from './background.ts';
import { detailOf } from './detail.ts';
import { faultTrace, placeAt, sideOf } from './faultSides.ts';
import { bedAt, inOrder, layeringOf } from './layering.ts';
import { type Amplitudes, applyOperator, operatorGain, operatorInTime, powerLawOf, smoothed } from './operator.ts';
import { normalBelow, probabilityOfClass, probabilityOfRange, rockStatistics } from './probability.ts';
import { correlationOf, fitVariogram } from './variogram.ts';

describe('an operator', () => {
  const [step, nk, traces] = [4, 400, 300];
  // noise of a spectrum of its own: a sum of two running means
  const random = normal(6);
  const data = new Float32Array(nk * traces);
  for (let t = 0; t < traces; t++) {
    let [a, b] = [0, 0];
    for (let k = 0; k < nk; k++) {
      const v = random();
      data[t * nk + k] = v - 0.7 * a + 0.2 * b;
      [a, b] = [v, a];
    }
  }
  const spectrumOf = (of: Float32Array): Amplitudes => {
    const collect = spectraCollector(step, nk);
    for (let t = 0; t < traces; t++) collect.add(of.subarray(t * nk, (t + 1) * nk), false);
    const { hz, data: amplitude } = collect.finish();
    return { hz, amplitude };
  };
  const band: Corners = [5, 10, 60, 75];
  const own = smoothed(spectrumOf(data), 3);
  const made = {
    hz: own.hz,
    gain: operatorGain(own, { law: { exponent: -0.9, factor: 2 }, band, least: 0.02 }),
    phaseDeg: -90,
  };
  test('gives seismic the spectrum that is wanted within 1 dB over its band', () => {
    const after = data.slice();
    applyOperator(after, nk, step, made);
    const found = smoothed(spectrumOf(after), 3);
    for (const [n, f] of found.hz.entries()) {
      if (f < 12 || f > 58) continue;
      expect(Math.abs(20 * Math.log10(found.amplitude[n] / (2 * f ** -0.9)))).toBeLessThan(1);
    }
  });
  test('turns phase by −90° within 3°', () => {
    const samples = operatorInTime(made, step, 400);
    const half = (samples.length - 1) / 2;
    const size = 1024;
    const turned = Array.from({ length: size }, (_, n) => {
      const k = n < size / 2 ? n : n - size;
      return Math.abs(k) <= half ? samples[k + half] : 0;
    });
    const s = spectrum(turned, size);
    for (let n = 1; n < size / 2; n++) {
      const hz = (1000 * n) / (size * step);
      if (hz < 12 || hz > 58) continue;
      expect(Math.abs((Math.atan2(s[2 * n + 1], s[2 * n]) * 180) / Math.PI + 90)).toBeLessThan(3);
    }
  });
  test('has the slope that logs have', () => {
    const hz = Array.from({ length: 200 }, (_, n) => n / 2);
    const found = powerLawOf([{ hz, amplitude: hz.map((f) => 3 * f ** -1.1) }], 8, 60);
    expect(found?.exponent).toBeCloseTo(-1.1, 6);
    expect(found?.factor).toBeCloseTo(3, 6);
    expect(found?.misfitDb).toBeCloseTo(0, 6);
  });
});

describe('beds', () => {
  const layering = layeringOf([Float32Array.of(100, 140), Float32Array.of(200, 260)]);
  test('keep their part of the thickness between horizons, and run on beyond them', () => {
    const times = Float64Array.of(140, 260);
    expect(inOrder(layering, times)).toBe(0);
    expect(bedAt(layering, times, 140)).toBe(120);
    expect(bedAt(layering, times, 200)).toBeCloseTo(175, 9);
    expect(bedAt(layering, times, 100)).toBe(80);
    expect(bedAt(layering, times, 300)).toBe(270);
  });
  test('of a horizon that is missing lie as its neighbours have it, and of one that crosses are held', () => {
    const missing = Float64Array.of(130, Number.NaN);
    inOrder(layering, missing);
    expect(missing[1]).toBe(240);
    const crossed = Float64Array.of(250, 200);
    expect(inOrder(layering, crossed)).toBe(1);
    expect([...crossed]).toEqual([250, 250]);
  });
});

describe('logs spread from wells', () => {
  const axis = { first: 0, step: 4, count: 20 };
  const at = (x: number, y: number, value: number) => ({
    well: `${x}`,
    values: new Float64Array(20).fill(value),
    places: Array.from({ length: 20 }, () => [x, y]),
  });
  const logs = [at(0, 0, 1), at(3000, 0, 2), at(0, 4000, 4)];
  test('are what they are at wells, where nothing is unsure, and unsure far off', () => {
    const one = logs.map((l) => ({ ...l, values: l.values.slice() }));
    one[2].values.fill(Number.NaN, 10);
    const { at: spread } = spreader(spreadOf(one, axis, { shape: 'exponential', range: 2000, sill: 0.5 }));
    for (const { places, values } of one) {
      const { means, variances } = spread(places[0]);
      expect(means[3]).toBeCloseTo(values[3], 6);
      expect(variances[3]).toBeLessThan(1e-6);
    }
    // where its log has ended a well is as unsure as any place that far from the others
    expect(spread([0, 4000]).variances[15]).toBeGreaterThan(0.4);
    expect(spread([90000, 0]).variances[3]).toBeGreaterThan(0.5);
    expect(atBed(axis, spread([0, 0]).means, 1000)).toBeCloseTo(1, 6);
  });
  test('tell a variogram from three wells on', () => {
    const lags = lagsOf(logs, axis, 8);
    expect(lags).toHaveLength(3);
    expect(lags[0].semivariance).toBeCloseTo(0.5, 9);
    expect(variogramOf(lags, 2, 'exponential', 10000)).toBeNull();
    const wanted = { shape: 'spherical' as const, range: 2500, sill: 0.3 };
    const many = Array.from({ length: 30 }, (_, n) => ({
      distance: 120 * (n + 1),
      semivariance: wanted.sill * (1 - correlationOf('spherical', wanted.range, 120 * (n + 1))),
      pairs: 10,
    }));
    const found = fitVariogram(many, 'spherical', 20000);
    expect(found?.range).toBeGreaterThan(2300);
    expect(found?.range).toBeLessThan(2700);
    expect(found?.sill).toBeCloseTo(0.3, 2);
  });
  test('are further apart across a fault, but not beyond its tips', () => {
    const trace = faultTrace(
      [
        [
          [0, 1000, 500],
          [100, 1000, 900],
        ],
        [
          [0, -1000, 500],
          [100, -1000, 900],
        ],
      ],
      700,
    );
    expect(trace.map((p) => p[0])).toEqual([50, 50]);
    expect(Math.abs(sideOf(trace, 800, 200, 0) - sideOf(trace, 800, -200, 0))).toBe(800);
    expect(sideOf(trace, 800, 200, 1800)).toBeCloseTo(0, 9);
    expect(placeAt([trace], 800, 200, 0)).toHaveLength(3);
  });
  test('keep only frequencies below the cut', () => {
    const wave = (hz: number) => Float64Array.from({ length: 1000 }, (_, k) => Math.sin((2 * Math.PI * hz * k) / 1000));
    const size = (v: Float64Array) => Math.max(...v.subarray(300, 700).map(Math.abs));
    expect(size(lowPassed(wave(8), 1, 8))).toBeCloseTo(Math.SQRT1_2, 2);
    expect(size(lowPassed(wave(40), 1, 8))).toBeLessThan(0.01);
    expect(Number.isNaN(lowPassed([Number.NaN, 1, 1], 1, 8)[0])).toBe(true);
  });
  test('leave a detail whose spread and correlation come back', () => {
    const random = normal(3);
    const series = Array.from({ length: 6 }, () => {
      let v = 0;
      return Float64Array.from({ length: 800 }, () => {
        v = 0.7 * v + 0.05 * random();
        return v;
      });
    });
    const found = detailOf(series, 4);
    expect(found?.deviation).toBeCloseTo(0.05 / Math.sqrt(1 - 0.49), 2);
    expect(found?.correlation[1]).toBeGreaterThan(0.6);
    expect(found?.correlation[1]).toBeLessThan(0.75);
    expect(detailOf([new Float64Array(5)], 4)).toBeNull();
  });
});

describe('probabilities', () => {
  test('of a range are those of a logarithm that is normal', () => {
    expect(normalBelow(0)).toBeCloseTo(0.5, 6);
    expect(normalBelow(1.2816)).toBeCloseTo(0.9, 4);
    expect(normalBelow(-2)).toBeCloseTo(0.02275, 5);
    expect(probabilityOfRange(6e6, 0.05, 6e6 * Math.exp(-0.05), 6e6 * Math.exp(0.05))).toBeCloseTo(0.6827, 3);
    expect(probabilityOfRange(6e6, 0.05, 0, 1e12)).toBeCloseTo(1, 9);
  });
  test('of a class are right as often as they say, over draws from both', () => {
    const classes = [
      { prior: 0.3, mean: -0.06, deviation: 0.03, count: 100 },
      { prior: 0.7, mean: 0.03, deviation: 0.04, count: 100 },
    ] as const;
    const random = normal(21);
    const all = { mean: 0.3 * -0.06 + 0.7 * 0.03 };
    // what is expected of rock without knowing its class: about the model, which is nought
    const expected = Math.sqrt(0.3 * (0.06 ** 2 + 0.03 ** 2) + 0.7 * (0.03 ** 2 + 0.04 ** 2));
    expect(all.mean).toBeCloseTo(0.003, 6);
    const noise = 0.04;
    const bins = Array.from({ length: 5 }, () => [0, 0, 0]);
    for (let n = 0; n < 20000; n++) {
      const of = n % 10 < 3 ? 0 : 1;
      const m = classes[of].mean + classes[of].deviation * random();
      const d = m + noise * random();
      // the inversion of one datum under a prior about nought
      const gain = expected ** 2 / (expected ** 2 + noise ** 2);
      const p = probabilityOfClass(gain * d, Math.sqrt(gain) * noise, expected, [...classes]);
      const b = bins[Math.min(4, Math.floor(5 * p))];
      b[0]++;
      b[1] += p;
      b[2] += of === 0 ? 1 : 0;
    }
    for (const [count, sum, right] of bins)
      if (count > 300) expect(Math.abs(sum / count - right / count)).toBeLessThan(0.04);
    // where data say nothing, what was known before stays
    expect(probabilityOfClass(0, expected, expected, [...classes])).toBeCloseTo(0.3, 9);
  });
});

test('wells in a zone are witnesses, whatever they are long; beside it samples count; and the rest is told by its own first', () => {
  const samples = (well: string, inside: boolean, own: number, rest: number, value: number) => [
    ...Array.from({ length: own }, () => ({ well, inside, own: true, value: -0.06 })),
    ...Array.from({ length: rest }, () => ({ well, inside, own: false, value })),
  ];
  const { inside, beside } = rockStatistics([
    ...samples('A', true, 90, 10, 0),
    ...samples('B', true, 5, 5, 0),
    ...samples('A', false, 0, 100, 0.05),
  ]);
  expect(inside.part).toBeCloseTo((0.9 + 0.5 + 0.5) / 3, 9);
  expect(beside.part).toBeCloseTo(0.5 / 101, 9);
  // fifteen samples of the rest inside, at nought, against a hundred beside at 5 %
  const all = (100 * 0.05) / 115;
  expect(inside.classes[1].mean).toBeCloseTo((10 / 25) * all, 9);
  expect(beside.classes[1].mean).toBeCloseTo((100 / 110) * 0.05 + (10 / 110) * all, 9);
  expect(inside.classes[0].mean).toBeCloseTo(-0.06, 9);
});
