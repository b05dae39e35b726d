import { describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import { blocked, makeBarrier } from './barrier.ts';
import { cutByLine, meshOfSticks } from './surface.ts';

type Stick = [number, number, number][];
/** A plane dipping towards +x: x = 500 + (t − 500), from y = 0 to 1000. */
const stick = (y: number): Stick => [400, 500, 700].map((t) => [500 + (t - 500), y, t]);

describe('a surface of sticks', () => {
  test('is ruled between neighbours, in whatever order the sticks came', () => {
    const a = meshOfSticks([stick(0), stick(500), stick(1000)], 5);
    const b = meshOfSticks([stick(500), stick(0), stick(1000)], 5);
    expect(a.triangles.length).toBe(2 * 2 * 4 * 3);
    expect([...a.points].sort()).toEqual([...b.points].sort());
    for (let n = 0; n < a.points.length; n += 3) expect(a.points[n]).toBeCloseTo(a.points[n + 2], 6);
  });
  test('a section across it is met along its dip', () => {
    const segments = cutByLine(meshOfSticks([stick(0), stick(1000)]), [0, 250], [1000, 250]);
    expect(segments.length).toBeGreaterThan(3);
    for (const [a, va, b, vb] of segments) {
      expect(a).toBeCloseTo(va, 4);
      expect(b).toBeCloseTo(vb, 4);
    }
  });
  test('a section beside it is not met', () => {
    expect(cutByLine(meshOfSticks([stick(0), stick(1000)]), [0, 2000], [1000, 2000])).toEqual([]);
    expect(meshOfSticks([stick(0)]).triangles).toHaveLength(0);
  });
});

test('a barrier stops steps across the surface at its own level, and no others', () => {
  const axis = { first: 0, step: 1, count: 41 };
  const binGrid: BinGrid = { inline: axis, crossline: axis, origin: [0, 0], perInline: [0, 25], perCrossline: [25, 0] };
  const barrier = makeBarrier(binGrid, [meshOfSticks([stick(-10), stick(1010)])], 400, 700, 10);
  for (const t of [450, 510, 650]) {
    const at = t / 25;
    for (let i = 1; i < 40; i++) {
      for (let j = 0; j < 40; j++) {
        const crosses = j < at && at < j + 1;
        if (Math.abs(at - Math.round(at)) > 1e-9)
          expect(blocked(barrier, i, j, 0, 1, t), `${t} ${i} ${j}`).toBe(crosses);
        // and the same step backwards
        if (crosses) expect(blocked(barrier, i, j + 1, 0, -1, t)).toBe(true);
      }
      expect(blocked(barrier, i, 5, 1, 0, t)).toBe(false);
    }
  }
});
