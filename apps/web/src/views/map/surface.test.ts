import { type BinGrid, meshOfSticks, toMap } from '@lithagon/core';
import { expect, test } from 'vitest';
import { faultTrace, pathThrough, surfaceAt } from './surface';

const binGrid: BinGrid = {
  inline: { first: 1, step: 1, count: 40 },
  crossline: { first: 1, step: 1, count: 60 },
  origin: [1000, 2000],
  perInline: [0, 25],
  perCrossline: [25, 0],
};
/** A surface that goes down by 0.2 for each metre to the east. */
const values = Float32Array.from({ length: 2400 }, (_, n) => 1000 + 0.2 * 25 * (n % 60));
const surface = { binGrid, values };

test('a fault meets a surface where its own depth is that of the surface', () => {
  // sticks that lean to the east: 2 down for each metre
  const stick = (y: number): [number, number, number][] => [
    [1500, y, 800],
    [1800, y, 1400],
  ];
  const trace = faultTrace(meshOfSticks([2100, 2400, 2700].map(stick)), surface);
  expect(trace.length).toBeGreaterThan(1);
  // 800 + 2·(x − 1500) = 1000 + 0.2·(x − 1000)
  const x = (1000 - 200 - 800 + 3000) / 1.8;
  for (const [px] of trace.flat()) expect(px).toBeCloseTo(x, 6);
  const ys = trace.flat().map((p) => p[1]);
  expect([Math.min(...ys), Math.max(...ys)]).toEqual([2100, 2700]);
});

test('beside a gap a surface is as its nearest bin, and nothing far off', () => {
  const holed = values.slice();
  for (let i = 18; i < 22; i++) for (let j = 20; j < 40; j++) holed[i * 60 + j] = Number.NaN;
  const at = (i: number, j: number) => surfaceAt({ binGrid, values: holed }, ...toMap(binGrid, i, j));
  expect(at(19, 25)).toBeCloseTo(1000 + 5 * 25, 3);
  expect(at(-40, 25)).toBeNaN();
});

test('a well goes through a surface where its path first lies below', () => {
  const path = Array.from({ length: 30 }, (_, n): [number, number, number, number] => [
    1500 + 10 * n,
    2500,
    900 + 20 * n,
    Number.NaN,
  ]);
  const at = pathThrough(path, surface, 'depth');
  // 900 + 2·(x − 1500) = 1000 + 0.2·(x − 1000)
  expect(at?.[0]).toBeCloseTo((100 - 200 + 3000) / 1.8, 4);
  expect(pathThrough(path, surface, 'twt')).toBeNull();
});
