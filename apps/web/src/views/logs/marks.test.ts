import { describe, expect, test } from 'vitest';
import type { CurveStyle } from '../../state/logsTemplate';
import { type DrawnCurve, EVERY, extremes } from './columns';
import { across, faciesColor, polylines, type TrackBox } from './marks';
import { rockOf } from './patterns';

const linear: CurveStyle = { from: 0, to: 100, log: false, color: '#000' };

/** A box whose pixels are `perPixel` samples of 0.1 m tall. */
function box(count: number, height: number): TrackBox {
  const metres = count * 0.1;
  return {
    left: 10,
    width: 100,
    top: 0,
    height,
    y: (md) => (md / metres) * height,
    mdAt: (y) => (y / height) * metres,
    from: 0,
    to: metres,
  };
}

function curve(values: number[]): DrawnCurve {
  const data = Float32Array.from(values);
  const [low, high] = extremes(data);
  return { values: data, low, high, firstM: 0, stepM: 0.1 } as DrawnCurve;
}

const xs = (line: Float32Array) =>
  Array.from(
    line.filter((_, n) => n % 2 === 0),
    Math.round,
  );

describe('a curve down a track', () => {
  test('is drawn sample by sample where there is room', () => {
    const lines = polylines(curve([10, 20, 30, 40]), linear, box(4, 400));
    expect(lines).toHaveLength(1);
    expect(xs(lines[0])).toEqual([20, 30, 40, 50]);
  });
  test('is parted where samples are missing', () => {
    const lines = polylines(curve([1, 2, Number.NaN, 4, 5, 6]), linear, box(6, 600));
    expect(lines.map((l) => l.length / 2)).toEqual([2, 3]);
  });
  test.each([
    3,
    11,
    EVERY,
    50,
  ])('keeps every extreme at %i samples a pixel, with at most two points a row', (perPixel) => {
    const height = 200;
    const values = Array.from(
      { length: height * perPixel },
      (_, n) => 50 + 30 * Math.sin(n * 1.7) + 10 * Math.sin(n / 90),
    );
    const spikes = [Math.floor(values.length / 3), Math.floor(values.length / 2)];
    values[spikes[0]] = 99;
    values[spikes[1]] = 1;
    const lines = polylines(curve(values), linear, box(values.length, height));
    expect(lines).toHaveLength(1);
    const [line] = lines;
    expect(line.length / 2).toBeLessThanOrEqual(2 * (height + 3));
    const all = xs(line);
    expect(Math.max(...all)).toBe(109);
    expect(Math.min(...all)).toBe(11);
    // rows stay in order, and the spike is within a pixel of where it belongs
    for (let n = 3; n < line.length; n += 2) expect(line[n]).toBeGreaterThanOrEqual(line[n - 2]);
    const at = all.indexOf(109);
    expect(Math.abs(line[2 * at + 1] - spikes[0] / perPixel)).toBeLessThanOrEqual(1.5);
  });
});

test('values take their part of the width, linear or by decades, and wait just outside beyond the limits', () => {
  expect(across(linear, 25)).toBe(0.25);
  expect(across({ ...linear, from: 100, to: 0 }, 25)).toBe(0.75);
  expect(across({ from: 0.2, to: 200, log: true, color: '' }, 2)).toBeCloseTo(1 / 3, 9);
  expect([across(linear, 900), across(linear, -900)]).toEqual([1.02, -0.02]);
});

test('a facies has one colour whatever well it is in, by its place among all names', () => {
  const names = ['lime', 'sand', 'shale'];
  expect(new Set(names.map((n) => faciesColor(n, names))).size).toBe(3);
  expect(faciesColor('sand', names)).toBe(faciesColor('sand', [...names, 'silt']));
});

test.each([
  ['Channel sand', 'sand'],
  ['Sandy shale', 'shale'],
  ['Brack Marl', 'marl'],
  ['Siltstone', 'silt'],
  ['Pell Limestone', 'limestone'],
  ['Weathered granite', 'basement'],
  ['Tight streak', undefined],
])('%s is drawn as rock of its name', (facies, pattern) => {
  expect(rockOf(facies)).toBe(pattern);
});
