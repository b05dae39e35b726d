import { describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import { contourSegments, joinedSegments } from './contour.ts';
import { relief } from './relief.ts';

const turned = (degrees: number): BinGrid => {
  const a = (degrees * Math.PI) / 180;
  return {
    inline: { first: 1, step: 1, count: 20 },
    crossline: { first: 1, step: 1, count: 30 },
    origin: [5000, 7000],
    perInline: [25 * Math.sin(a), 25 * Math.cos(a)],
    perCrossline: [12.5 * Math.cos(a), -12.5 * Math.sin(a)],
  };
};

/** Depth of a plane that goes down by so much for each metre to the east and north. */
function plane(binGrid: BinGrid, east: number, north: number): Float32Array {
  const out = new Float32Array(600);
  for (let i = 0; i < 20; i++)
    for (let j = 0; j < 30; j++) {
      const x = i * binGrid.perInline[0] + j * binGrid.perCrossline[0];
      const y = i * binGrid.perInline[1] + j * binGrid.perCrossline[1];
      out[i * 30 + j] = 2000 + east * x + north * y;
    }
  return out;
}

describe('relief', () => {
  test.each([0, 31, 118])('is lit from the north-west, however the bins lie (turned by %s degrees)', (degrees) => {
    const grid = turned(degrees);
    const lit = (east: number, north: number) => relief(plane(grid, east, north), grid, 1)[10 * 30 + 15];
    expect(lit(0, 0)).toBeCloseTo(Math.SQRT1_2, 6);
    // a slope that faces north-west at 45 degrees is lit full on; it deepens to the north-west
    expect(lit(-Math.SQRT1_2, Math.SQRT1_2)).toBeCloseTo(1, 4);
    expect(lit(Math.SQRT1_2, -Math.SQRT1_2)).toBeCloseTo(0, 4);
    // one that faces north-east lies askew to the light: cos 45° · cos 45°
    expect(lit(Math.SQRT1_2, Math.SQRT1_2)).toBeCloseTo(0.5, 4);
  });
  test('is nothing where there is nothing, and stands beside a gap', () => {
    const grid = turned(0);
    const values = plane(grid, 0.1, 0);
    values[10 * 30 + 15] = Number.NaN;
    const lit = relief(values, grid, 1);
    expect(lit[10 * 30 + 15]).toBeNaN();
    expect(lit[10 * 30 + 16]).toBeCloseTo(lit[5 * 30 + 5], 4);
  });
});

test('contours are joined to lines: one round a dome, one across a plane', () => {
  const dome = new Float32Array(41 * 41);
  for (let r = 0; r < 41; r++) for (let c = 0; c < 41; c++) dome[r * 41 + c] = Math.hypot(r - 20, c - 20);
  const [line, ...others] = joinedSegments(contourSegments(dome, 41, 41, 10).get(10) ?? []);
  expect(others).toEqual([]);
  expect(Math.hypot(line[0][0] - line[line.length - 1][0], line[0][1] - line[line.length - 1][1])).toBeLessThan(1e-3);
  expect(line.length).toBeGreaterThan(60);
  const slope = Float32Array.from({ length: 400 }, (_, n) => Math.floor(n / 20) + 0.5);
  const lines = joinedSegments(contourSegments(slope, 20, 20, 10).get(10) ?? []);
  expect(lines.map((l) => l.length)).toEqual([20]);
});
