import { expect, test } from 'vitest';
import { layeredField } from '../testing/layeredField.ts';
import { readCoarseCube } from './cube.ts';
import { readInlines, shapeOf } from './planes.ts';

test('a volume is thinned to few samples, each the greatest of its block or its mean', async () => {
  const { store, seismic } = await layeredField();
  const [ni, nj, nk] = shapeOf(seismic);
  const all = await readInlines(store, seismic, 0, ni);
  const most: [number, number, number] = [5, 7, 31];
  const strong = await readCoarseCube(store, seismic, most, true);
  const mean = await readCoarseCube(store, seismic, most, false);
  const by = [ni, nj, nk].map((n, axis) => Math.ceil(n / most[axis]));
  expect(strong.shape).toEqual([Math.ceil(ni / by[0]), Math.ceil(nj / by[1]), Math.ceil(nk / by[2])]);
  expect(strong.shape.every((n, axis) => n <= most[axis])).toBe(true);
  const block = (a: number, b: number, c: number) => {
    const values: number[] = [];
    for (let i = a * by[0]; i < Math.min(ni, (a + 1) * by[0]); i++)
      for (let j = b * by[1]; j < Math.min(nj, (b + 1) * by[1]); j++)
        for (let k = c * by[2]; k < Math.min(nk, (c + 1) * by[2]); k++) values.push(all[(i * nj + j) * nk + k]);
    return values.filter((v) => !Number.isNaN(v));
  };
  for (const [a, b, c] of [
    [0, 0, 0],
    [2, 3, 9],
    [strong.shape[0] - 1, strong.shape[1] - 1, strong.shape[2] - 1],
  ]) {
    const at = (a * strong.shape[1] + b) * strong.shape[2] + c;
    const values = block(a, b, c);
    const greatest = values.reduce((m, v) => (Math.abs(v) > Math.abs(m) ? v : m), 0);
    expect(strong.data[at]).toBe(Math.fround(greatest));
    expect(mean.data[at]).toBeCloseTo(values.reduce((s, v) => s + v, 0) / values.length, 5);
  }
});
