import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type BinGrid, toMap } from '../earth/binGrid.ts';
import { TURNED } from '../testing/objects.ts';
import { fillGaps } from './fill.ts';
import { gridAt } from './grid.ts';

const [NI, NJ] = [TURNED.inline.count, TURNED.crossline.count];
const grid = (at: (i: number, j: number) => number) =>
  Float32Array.from({ length: NI * NJ }, (_, n) => at(Math.floor(n / NJ), n % NJ));
const onMap = (i: number, j: number) => toMap(TURNED, i, j);

describe('a value between the bins of a grid', () => {
  test('of a bilinear surface is exact anywhere inside', () => {
    const surface = (i: number, j: number) => 900 + 4 * i - 3 * j + 0.5 * i * j;
    const values = grid(surface);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: NI - 1, noNaN: true }),
        fc.double({ min: 0, max: NJ - 1, noNaN: true }),
        (i, j) => {
          expect(Math.abs(gridAt(values, TURNED, ...onMap(i, j)) - surface(i, j))).toBeLessThan(2e-3);
        },
      ),
      { seed: 1 },
    );
  });
  test('is the bin’s own where it lies on one, though its neighbours are missing', () => {
    const values = grid((i, j) => ((i + j) % 2 === 0 ? 10 * i + j : Number.NaN));
    for (let i = 0; i < NI; i++)
      for (let j = 0; j < NJ; j++) {
        const value = gridAt(values, TURNED, ...onMap(i, j));
        if ((i + j) % 2 === 0) expect(value).toBe(10 * i + j);
        else expect(value).toBeNaN();
      }
  });
  test('is missing between a bin and one that is', () => {
    const values = grid((i, j) => (i === 5 && j === 5 ? Number.NaN : 1));
    expect(gridAt(values, TURNED, ...onMap(4.5, 5))).toBeNaN();
    expect(gridAt(values, TURNED, ...onMap(4.5, 4.5))).toBeNaN();
    expect(gridAt(values, TURNED, ...onMap(4.5, 4))).toBe(1);
  });
  test('is that of the edge just beyond it, and missing farther out', () => {
    const values = grid((i) => i);
    expect(gridAt(values, TURNED, ...onMap(-0.5, 3))).toBeCloseTo(0, 6);
    expect(gridAt(values, TURNED, ...onMap(NI - 0.5, 3))).toBeCloseTo(NI - 1, 6);
    for (const at of [onMap(-2, 3), onMap(NI + 1, 3), onMap(3, -2), onMap(3, NJ + 1)])
      expect(gridAt(values, TURNED, ...at)).toBeNaN();
  });
  test('does not depend on which way round the bin grid runs', () => {
    const mirrored: BinGrid = {
      ...TURNED,
      origin: toMap(TURNED, NI - 1, 0),
      perInline: [-TURNED.perInline[0], -TURNED.perInline[1]],
    };
    const values = grid((i, j) => 7 * i + j);
    const turned = grid((i, j) => 7 * (NI - 1 - i) + j);
    for (const [i, j] of [
      [2.25, 3.5],
      [8.8, 11.1],
    ])
      expect(gridAt(turned, mirrored, ...onMap(i, j))).toBeCloseTo(gridAt(values, TURNED, ...onMap(i, j)), 4);
  });
});

test('a block between faults that holds nothing stays empty; what is beside it is filled', () => {
  const [rows, columns] = [12, 16];
  const values = new Float32Array(rows * columns).fill(Number.NaN);
  for (let i = 0; i < rows; i += 3) for (let j = 0; j < 8; j += 3) values[i * columns + j] = 100 + i + j;
  const cuts = new Uint8Array(rows * columns);
  for (let i = 0; i < rows; i++) cuts[i * columns + 9] |= 2;
  const filled = fillGaps(values, rows, columns, 0.25, cuts);
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++)
      if (i <= 9 && j <= 6) expect(Math.abs(filled[i * columns + j] - (100 + i + j))).toBeLessThan(1);
      else if (j <= 9) expect(Number.isFinite(filled[i * columns + j])).toBe(true);
      else expect(filled[i * columns + j]).toBeNaN();
});
