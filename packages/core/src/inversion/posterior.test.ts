import { describe, expect, test } from 'vitest';
import { cholesky } from '../numerics/cholesky.ts';
import { solve } from '../numerics/leastSquares.ts';
import { normal, normalApart } from '../testing/random.ts';
import { ricker } from '../tie/wavelet.ts';
import { krigerOf } from './kriging.ts';
import {
  angleResponse,
  factorOf,
  forwardOf,
  impedanceResponse,
  likeliestNoise,
  noiseShape,
  posteriorOf,
  powerOfWavelet,
  stationary,
} from './posterior.ts';
import { averageWeights, smoothNoise } from './realizations.ts';
import { addGain, between, conditioner, responseOf, seen } from './traceInversion.ts';
import { honouredBy, likeliestLogError } from './wellError.ts';

const STEP = 4;
const WAVELET = { ...ricker(25, 100), samples: ricker(25, 100).samples.map((v) => 1000 * v) };
const along = (lag: number) => Math.exp(-0.3 * lag);

/** Inverse of a matrix, a column at a time, by elimination. */
const inverse = (a: number[][]): number[][] => {
  const columns = a.map(
    (_, c) =>
      solve(
        a,
        a.map((__, r) => (r === c ? 1 : 0)),
      ) as number[],
  );
  return a.map((_, r) => columns.map((column) => column[r]));
};
const rows = (a: Float64Array, n: number, m = n) =>
  Array.from({ length: n }, (_, r) => Array.from(a.subarray(r * m, (r + 1) * m)));
const times = (a: number[][], b: number[][]) =>
  a.map((row) => b[0].map((_, c) => row.reduce((s, v, k) => s + v * b[k][c], 0)));
const turned = (a: number[][]) => a[0].map((_, c) => a.map((row) => row[c]));

describe('the posterior in closed form', () => {
  test.each([1, 3])('of %i unknowns is that of a dense solve by the other formula', (kinds) => {
    const count = 24;
    const stacks =
      kinds === 1
        ? [impedanceResponse(WAVELET)]
        : [10, 20, 30].map((deg) => angleResponse(WAVELET, deg, (k) => 0.45 + 0.002 * k));
    const forward = forwardOf(stacks, count, STEP);
    const covariances =
      kinds === 1
        ? [[0.004]]
        : [
            [0.004, 0.003, 0.001],
            [0.003, 0.006, 0.001],
            [0.001, 0.001, 0.002],
          ];
    const prior = stationary(covariances, along, count);
    const noise = noiseShape(
      stacks,
      count,
      STEP,
      0.3,
      stacks.map(() => 6),
      stacks.map(() => 2),
    );
    const found = posteriorOf(forward, prior, noise);
    if (!found) throw new Error('it is regular');
    const g = rows(forward.matrix, forward.data, forward.unknowns);
    const precision = inverse(rows(noise, forward.data));
    const gtp = times(turned(g), precision);
    const normalMatrix = times(gtp, g);
    const before = inverse(rows(prior, forward.unknowns));
    const covariance = inverse(normalMatrix.map((row, r) => row.map((v, c) => v + before[r][c])));
    const gain = times(covariance, gtp);
    const random = normal(4);
    const data = Float64Array.from({ length: forward.data }, () => 40 * random());
    const mean = new Float64Array(forward.unknowns);
    addGain(found.gain, data, 1, mean);
    for (let u = 0; u < forward.unknowns; u++) {
      expect(found.covariance[u * forward.unknowns + u]).toBeCloseTo(covariance[u][u], 9);
      expect(Math.abs(mean[u] - gain[u].reduce((s, v, d) => s + v * data[d], 0))).toBeLessThan(1e-6);
    }
  });

  test('has draws whose mean and covariance tend to it, down the trace and from trace to trace', () => {
    const count = 16;
    const stacks = [impedanceResponse(WAVELET)];
    const prior = stationary([[0.004]], along, count);
    const found = posteriorOf(forwardOf(stacks, count, STEP), prior, noiseShape(stacks, count, STEP, 0.2, [20], [0]));
    if (!found) throw new Error('it is regular');
    const factor = factorOf(found, count);
    const weights = averageWeights(8);
    const draws = 3000;
    const [sums, squares] = [new Float64Array(count), new Float64Array(count * count)];
    let beside = 0;
    for (let r = 0; r < draws; r++) {
      const noise = smoothNoise(3, r, [5, 6], [9, 14], count, weights, weights);
      const z = [0, 4].map((j) =>
        Float64Array.from({ length: count }, (_, u) => {
          let sum = 0;
          for (let k = 0; k <= u; k++) sum += factor[u * count + k] * noise[j * count + k];
          return sum;
        }),
      );
      for (let a = 0; a < count; a++) {
        sums[a] += z[0][a];
        for (let b = 0; b < count; b++) squares[a * count + b] += z[0][a] * z[0][b];
      }
      beside += z[0][3] * z[1][3];
    }
    for (let a = 0; a < count; a++) {
      const own = found.covariance[a * count + a];
      // within four standard errors
      expect(Math.abs(sums[a] / draws)).toBeLessThan(4 * Math.sqrt(own / draws));
      for (let b = 0; b < count; b++) {
        const other = found.covariance[b * count + b];
        const wanted = found.covariance[a * count + b];
        const error = Math.sqrt((own * other + wanted ** 2) / draws);
        expect(Math.abs(squares[a * count + b] / draws - wanted)).toBeLessThan(4.5 * error);
      }
    }
    // four bins apart at a range of eight: exp(−3/4)
    const own = found.covariance[3 * count + 3];
    expect(Math.abs(beside / draws / own - Math.exp(-0.75))).toBeLessThan(0.1);
  });

  test('finds the noise that traces were made with', () => {
    const count = 80;
    const stacks = [impedanceResponse(WAVELET)];
    const forward = forwardOf(stacks, count, STEP);
    const prior = stationary([[0.004]], along, count);
    const rock = factorOf({ covariance: prior }, count);
    const [first, second] = [normalApart(8), normalApart(9)];
    const level = 60;
    const shape = cholesky(noiseShape(stacks, count, STEP, 0.1, [level], [0]), count) as Float64Array;
    const traces = 30;
    const residuals = new Float64Array(traces * count);
    for (let t = 0; t < traces; t++) {
      const [a, b] = [first, second].map((random) => Float64Array.from({ length: count }, () => random()));
      const m = Float64Array.from({ length: count }, (_, u) => {
        let sum = 0;
        for (let k = 0; k <= u; k++) sum += rock[u * count + k] * a[k];
        return sum;
      });
      for (let d = 0; d < count; d++) {
        let sum = 0;
        for (let u = 0; u < count; u++) sum += forward.matrix[d * count + u] * m[u];
        for (let k = 0; k <= d; k++) sum += shape[d * count + k] * b[k];
        residuals[t * count + d] = sum;
      }
    }
    const found = likeliestNoise(forward, prior, stacks, residuals, count, STEP, [0]);
    expect(found.level[0] / level).toBeGreaterThan(0.75);
    expect(found.level[0] / level).toBeLessThan(1.3);
    expect(found.white).toBe(0.1);
  });
});

test('what is convolved trace by trace is what the matrix makes', () => {
  const count = 40;
  const stacks = [15, 30].map((deg) => angleResponse(WAVELET, deg, () => 0.5));
  const forward = forwardOf(stacks, count, STEP);
  const random = normal(2);
  const logs = Float64Array.from({ length: 3 * count }, () => random());
  const out = new Float64Array(2 * count);
  seen(
    stacks.map((s) => responseOf(s, count, STEP)),
    logs,
    count,
    out,
  );
  for (let d = 0; d < forward.data; d++) {
    let sum = 0;
    for (let u = 0; u < forward.unknowns; u++) sum += forward.matrix[d * forward.unknowns + u] * logs[u];
    expect(out[d]).toBeCloseTo(sum, 6);
  }
});

test('a wavelet without error bars is taken to be off by a part of its energy', () => {
  const energy = (WAVELET.samples.reduce((s, v) => s + v * v, 0) * WAVELET.stepMs) / STEP;
  expect(powerOfWavelet(WAVELET, undefined, 0.01, STEP)).toBeCloseTo(0.05 * 0.01 * energy, 6);
  expect(powerOfWavelet(WAVELET, [1.645, 3.29], 0.01, STEP)).toBeCloseTo(0.01 * 5, 9);
});

test('between two levels of how unsure a model is the nearer counts more', () => {
  const levels = [0.01, 0.03, 0.05].map((background) => ({
    background,
    gain: new Float32Array(0),
    deviation: new Float32Array(0),
  }));
  expect(between(levels, 0)).toEqual([0, 0]);
  expect(between(levels, 0.09)).toEqual([2, 0]);
  const [n, f] = between(levels, 0.035);
  expect(n).toBe(1);
  expect(f).toBeCloseTo(0.25, 9);
});

describe('wells', () => {
  const count = 12;
  const covariance = stationary([[0.003]], along, count);
  test('of logs that are right are honoured at their place, and count for nothing far off', () => {
    const residual = Float64Array.from({ length: count }, (_, k) => (k < 3 ? Number.NaN : 0.05 * Math.sin(k)));
    const found = honouredBy(residual, covariance, count, 1e-5);
    for (let k = 3; k < count; k++) {
      expect(found.values[k]).toBeCloseTo(residual[k], 4);
      expect(found.certainty[k]).toBeGreaterThan(0.999);
    }
    // above the log it fades by the covariance down the trace
    expect(Math.abs(found.values[0])).toBeLessThan(Math.abs(found.values[2]));
    expect(found.certainty[0]).toBeLessThan(found.certainty[2]);
    const around = conditioner([{ ...found, well: 'W', place: [0, 0], bins: [] }], 500);
    around.to([0, 0]);
    expect(around.sum(() => found.values, 5)).toBeCloseTo(residual[5], 4);
    expect(around.left(5)).toBeLessThan(1e-3);
    around.to([2000, 0]);
    expect(around.sum(() => found.values, 5)).toBeCloseTo(0, 6);
    expect(around.left(5)).toBeCloseTo(1, 6);
  });
  test('tell by how much their logs are off', () => {
    const factor = cholesky(covariance, count) as Float64Array;
    const random = normal(12);
    const wells = Array.from({ length: 40 }, () => {
      const white = Float64Array.from({ length: count }, () => random());
      const residual = Float64Array.from({ length: count }, (_, u) => {
        let sum = 0.03 * random();
        for (let k = 0; k <= u; k++) sum += factor[u * count + k] * white[k];
        return sum;
      });
      return { residual, covariance };
    });
    expect(likeliestLogError(wells, count)).toBeGreaterThan(0.022);
    expect(likeliestLogError(wells, count)).toBeLessThan(0.04);
  });
});

test('kriging is exact at places, sums to one, and has its full variance far away', () => {
  const places = [
    [0, 0],
    [800, 100],
    [300, 900],
  ];
  const kriger = krigerOf(places, { shape: 'exponential', range: 2000 }, 'unknown');
  const out = new Float64Array(3);
  for (const [n, place] of places.entries()) {
    expect(kriger.at(place, out)).toBeLessThan(1e-6);
    expect(out[n]).toBeCloseTo(1, 5);
  }
  expect(kriger.at([50000, 0], out)).toBeGreaterThan(1);
  expect(out.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
});
