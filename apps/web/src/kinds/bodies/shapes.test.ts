import type { Bodies } from '@lithagon/core';
import { describe, expect, test } from 'vitest';
import { sectionLine } from '../../views/section/geometry';
import { alongSection, footprints, outlinesOf, runsByTrace } from './shapes';

const OBJECT = {
  binGrid: {
    inline: { first: 1, step: 1, count: 6 },
    crossline: { first: 1, step: 1, count: 8 },
    origin: [0, 0],
    perInline: [0, 25],
    perCrossline: [25, 0],
  },
  vertical: { first: 100, step: 4, count: 20 },
} as unknown as Bodies;
// a block of 2 × 3 bins and 4 samples, and one bin at the corner of the survey
const RUNS = Float32Array.from([
  ...[2, 3].flatMap((i) => [3, 4, 5].flatMap((j) => [i, j, 8, 12, 1])),
  ...[0, 0, 0, 2, 2],
]);

describe('outlines of bodies', () => {
  test('go half a step round what they hold, and are closed at the border', () => {
    const [line] = outlinesOf(Uint8Array.of(1, 1, 0, 0), 2, 2);
    expect(line[0]).toEqual(line.at(-1));
    expect(Math.min(...line.map((p) => p[0]))).toBe(-0.5);
    expect(Math.max(...line.map((p) => p[1]))).toBe(1.5);
  });
  test('are cut by a section where it goes', () => {
    const byTrace = runsByTrace(RUNS, OBJECT);
    const [own, ...none] = alongSection(RUNS, byTrace, OBJECT, sectionLine(OBJECT.binGrid, 'inline', 2));
    expect(none).toEqual([]);
    expect(own.body).toBe(1);
    const points = own.lines.flat();
    expect([Math.min(...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))]).toEqual([2.5, 5.5]);
    expect([Math.min(...points.map((p) => p[1])), Math.max(...points.map((p) => p[1]))]).toEqual([7.5, 11.5]);
    expect(alongSection(RUNS, byTrace, OBJECT, sectionLine(OBJECT.binGrid, 'inline', 5))).toEqual([]);
  });
  test('from above are their footprints, the largest first', () => {
    const seen = footprints(runsByTrace(RUNS, OBJECT), RUNS, OBJECT);
    expect(seen.map((s) => s.body)).toEqual([1, 2]);
    expect(Math.max(...seen[0].lines.flat().map((p) => p[0]))).toBe(3.5);
    expect(seen[1].lines.length).toBe(1);
  });
});
