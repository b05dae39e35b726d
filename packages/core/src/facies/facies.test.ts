import { describe, expect, test } from 'vitest';
import { bedded, intervals } from './beds.ts';
import { bestTemper, METHODS, noveltyOf, tempered, train, validate, winners } from './classifier.ts';
import { randomFrom, type Samples } from './samples.ts';

/** Samples of three classes about centres in two dimensions, in wells of 200; `apart` in units of their spread. */
function made(seed: number, apart: number, count = 600): { samples: Samples; wells: string[] } {
  const random = randomFrom(seed);
  const normal = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
  const labels = Int32Array.from({ length: count }, () => Math.min(2, Math.floor(random() * 3.6)));
  const features = new Float64Array(2 * count);
  labels.forEach((c, n) => {
    features[2 * n] = 100 + 10 * (apart * [0, 1, 0][c] + normal());
    features[2 * n + 1] = apart * [0, 0, 1][c] + normal();
  });
  const wells = Array.from({ length: count }, (_, n) => `W${Math.floor(n / 200)}`);
  return { samples: { features, count, width: 2, labels, classes: 3 }, wells };
}

/** Probability of a standard normal value below x, Abramowitz & Stegun (1964), 26.2.17. */
function phi(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const d = 0.3989423 * Math.exp((-x * x) / 2);
  const p = d * t * (0.3193815 + t * (-0.3565638 + t * (1.781478 + t * (-1.821256 + t * 1.330274))));
  return x > 0 ? 1 - p : p;
}

describe.each(METHODS)('%s', (method) => {
  test('reaches nearly what is possible on classes that overlap, on samples that it has not seen', () => {
    const { samples } = made(1, 3);
    const classifier = train(samples, { method, prior: 'as seen', seed: 1 });
    const other = made(2, 3).samples;
    const won = winners(classifier(other.features, other.count), 3);
    const right = won.filter((c, n) => c === other.labels[n]).length / other.count;
    // two classes three spreads apart, even priors: Φ(1.5) of them are told apart
    expect(right).toBeGreaterThan(phi(1.5) - 0.08);
  });
  test('the same seed gives the same probabilities, which sum to 1', () => {
    const { samples } = made(3, 2);
    const o = { method, prior: 'even', seed: 5 } as const;
    const [a, b] = [train(samples, o), train(samples, o)].map((c) => c(samples.features, samples.count));
    expect(a).toEqual(b);
    for (let n = 0; n < 30; n++) expect(a[3 * n] + a[3 * n + 1] + a[3 * n + 2]).toBeCloseTo(1, 9);
  });
  test('left-out wells give a score near that of new data, and no better than chance where there is nothing to learn', () => {
    const { samples, wells } = made(4, 3);
    const found = validate(samples, wells, { method, prior: 'as seen', seed: 1 });
    expect(found.byWell.map((w) => w.well)).toEqual(['W0', 'W1', 'W2']);
    expect(found.accuracy).toBeGreaterThan(0.83);
    expect(found.confusion.flat().reduce((a, b) => a + b, 0)).toBe(600);
    expect(Math.min(...found.importance)).toBeGreaterThan(0.1);
    expect(found.calibrationError).toBeLessThan(0.08);
    const noise = validate(made(5, 0).samples, wells, { method, prior: 'as seen', seed: 1 });
    expect(noise.accuracy).toBeLessThan(noise.majority + 0.05);
  });
});

test('calibration is measured on wells whose exponent was found on others', () => {
  const { samples, wells } = made(11, 5, 400);
  const names = [...new Set(wells)];
  expect(names).toHaveLength(2);
  const random = randomFrom(5);
  // one well was described carelessly: what holds in the other is far too sure there, and far too unsure the other way
  const labels = samples.labels.map((label, n) =>
    wells[n] === names[1] && random() < 0.45 ? Math.floor(3 * random()) : label,
  );
  const options = { method: 'Gaussian discriminant', prior: 'as seen', seed: 1 } as const;
  const honest = validate(samples, wells, options);
  const careless = validate({ ...samples, labels }, wells, options);
  expect(honest.calibrationError).toBeLessThan(0.06);
  expect(careless.calibrationError).toBeGreaterThan(0.1);
});

test('probabilities that are too sure are tempered to what they are worth', () => {
  const random = randomFrom(9);
  const labels = Int32Array.from({ length: 2000 }, () => (random() < 0.7 ? 0 : 1));
  const p = Float64Array.from({ length: 4000 }, (_, n) => (n % 2 === 0 ? 0.99 : 0.01));
  const worth = tempered(p, 2, bestTemper(p, labels, 2));
  expect(worth[0]).toBeGreaterThan(0.65);
  expect(worth[0]).toBeLessThan(0.75);
});

test('what lies outside what was trained on is told from what lies inside', () => {
  const { samples } = made(6, 3);
  const novelty = noveltyOf(samples);
  const inside = novelty.distance(made(7, 3).samples.features, 600);
  expect(inside.filter((d) => d > novelty.limit).length).toBeLessThan(20);
  expect(novelty.distance(Float64Array.from([300, 12]), 1)[0]).toBeGreaterThan(3 * novelty.limit);
});

describe('beds', () => {
  const sure = (classes: number[], p = 0.8) =>
    Float64Array.from(classes.flatMap((c) => [0, 1].map((k) => (c < 0 ? Number.NaN : c === k ? p : 1 - p))));
  test('none is thinner than the least, and thick ones stay where they are', () => {
    const seen = [0, 0, 0, 0, 1, 0, 0, 1, 1, 1, 1, 1, 0, 1];
    const out = bedded(sure(seen), 2, 3);
    expect([...out]).toEqual([0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1, 1]);
    expect([...bedded(sure(seen), 2, 1)]).toEqual(seen);
  });
  test('what is not known stays so and parts beds', () => {
    const out = bedded(sure([0, 0, -1, 1, 1]), 2, 2);
    expect(intervals(out)).toEqual([
      { from: 0, to: 2, class: 0 },
      { from: 3, to: 5, class: 1 },
    ]);
  });
});
