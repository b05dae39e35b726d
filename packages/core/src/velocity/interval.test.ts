import { describe, expect, test } from 'vitest';
import { normal } from '../testing/random.ts';
import { intervalFromMean, meanFromInterval, withoutSpikes } from './interval.ts';

const [STEP, COUNT] = [20, 91];
const layered = Float64Array.from({ length: COUNT }, (_, k) => (k < 8 ? 1500 : k < 30 ? 1900 : k < 52 ? 2400 : 4300));
const free = { least: 300, most: 9000, smooth: 0 };

describe('interval velocities', () => {
  test.each([
    ['RMS', 2],
    ['average', 1],
  ] as const)('of a layered model come back from its %s velocities', (_, power) => {
    for (const first of [0, 20, 100]) {
      const means = meanFromInterval(layered, first, STEP, power);
      const found = intervalFromMean(means, first, STEP, power, free);
      for (let k = 1; k < COUNT; k++) expect(Math.abs(found[k] / layered[k] - 1)).toBeLessThan(1e-3);
    }
  });
  test('stay positive and bounded whatever the noise, and nearer to the model when they are smooth', () => {
    const random = normal(7);
    const means = meanFromInterval(layered, 0, STEP, 2).map((v) => v * (1 + 0.02 * random()));
    const [least, most] = [1400, 5500];
    const error = (found: Float64Array) => {
      let sum = 0;
      for (let k = 1; k < COUNT; k++) {
        expect(found[k]).toBeGreaterThanOrEqual(least - 1e-6);
        expect(found[k]).toBeLessThanOrEqual(most + 1e-6);
        sum += (found[k] / layered[k] - 1) ** 2;
      }
      return Math.sqrt(sum / COUNT);
    };
    const rough = error(intervalFromMean(means, 0, STEP, 2, { least, most, smooth: 0 }));
    const smooth = error(intervalFromMean(means, 0, STEP, 2, { least, most, smooth: 20 }));
    expect(smooth).toBeLessThan(0.6 * rough);
    // what is measured is still met on the whole
    const again = meanFromInterval(intervalFromMean(means, 0, STEP, 2, { least, most, smooth: 20 }), 0, STEP, 2);
    expect(Math.abs(again[COUNT - 1] / means[COUNT - 1] - 1)).toBeLessThan(0.04);
  });
  test('are told past samples that are nothing, less or not there; of a trace without any there are none', () => {
    const means = meanFromInterval(layered, 0, STEP, 2);
    means[40] = 0;
    means[41] = Number.NaN;
    means[42] = -5;
    const found = intervalFromMean(means, 0, STEP, 2, free);
    for (let k = 36; k < 48; k++) expect(Math.abs(found[k] / 2400 - 1)).toBeLessThan(0.05);
    expect(intervalFromMean(new Float64Array(COUNT), 0, STEP, 2, free).every(Number.isNaN)).toBe(true);
  });
});

test('a spike is the median of what lies around it, and what lies around it stays', () => {
  const [mi, mj, nk] = [5, 5, 3];
  const data = Float32Array.from({ length: mi * mj * nk }, (_, n) => 2000 + 10 * (n % nk) + Math.floor(n / nk));
  data[(2 * mj + 2) * nk + 1] = 5000;
  const out = withoutSpikes(data, [mi, mj, nk], 1);
  expect(out).toHaveLength(3 * 3 * nk);
  expect(out[(1 * 3 + 1) * nk + 1]).toBeLessThan(2100);
  expect(out[(1 * 3 + 1) * nk]).toBe(data[(2 * mj + 2) * nk]);
});
