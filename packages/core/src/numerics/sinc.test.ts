import { expect, test } from 'vitest';
import { sincAt, sincWidened } from './sinc.ts';

const sine = (hz: number, stepMs: number, count = 400) =>
  Float32Array.from({ length: count }, (_, n) => Math.sin((2 * Math.PI * hz * n * stepMs) / 1000));

test('samples that come out further apart hold what they can, and nothing else', () => {
  const largest = (values: Float32Array, ratio: number) => {
    let most = 0;
    for (let at = 100.3; at < 300; at += ratio) most = Math.max(most, Math.abs(sincWidened(values, 0, 400, at, ratio)));
    return most;
  };
  // from 2 ms to 8 ms: 62.5 Hz are the most that are held
  for (const hz of [10, 25, 40]) expect(largest(sine(hz, 2), 4)).toBeGreaterThan(0.97);
  for (const hz of [90, 120, 180, 240]) expect(largest(sine(hz, 2), 4)).toBeLessThan(0.01);
  // without it they would come out as others
  let alias = 0;
  const high = sine(120, 2);
  for (let at = 100.3; at < 300; at += 4) alias = Math.max(alias, Math.abs(sincAt(high, 0, 400, at)));
  expect(alias).toBeGreaterThan(0.9);
});

test('up to one sample for one it is the plain sinc, and a constant stays one', () => {
  const values = sine(30, 2);
  for (const at of [50.25, 133.7, 250.5]) expect(sincWidened(values, 0, 400, at, 0.8)).toBe(sincAt(values, 0, 400, at));
  const even = new Float32Array(400).fill(7);
  for (const at of [0, 3.3, 200.7, 399]) expect(sincWidened(even, 0, 400, at, 3)).toBeCloseTo(7, 5);
  expect(sincWidened(even, 0, 400, -0.1, 3)).toBeNaN();
});
