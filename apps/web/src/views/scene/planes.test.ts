import type { Volume } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { TURNED } from '@lithagon/core/testing/objects';
import type { BufferGeometry } from 'three';
import { beforeAll, describe, expect, test } from 'vitest';
import { horizonGeometry } from '../../kinds/horizon/inScene';
import { boxLines, type PlaneName, placePlane, planeMesh, sceneFrame, toScene } from './planes';

let seismic: Volume;
beforeAll(async () => {
  ({ seismic } = await layeredField());
});

type Point = [number, number, number];
function pointsOf(geometry: BufferGeometry): Point[] {
  const { array } = geometry.getAttribute('position');
  return Array.from({ length: array.length / 3 }, (_, n) => [...array.slice(3 * n, 3 * n + 3)] as Point);
}
const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

describe('the scene’s own axes', () => {
  test('are kilometres east, up and south about the middle of the survey', () => {
    const frame = sceneFrame(seismic);
    expect(toScene(frame, frame.x, frame.y, frame.middle).map(Math.abs)).toEqual([0, 0, 0]);
    const [east] = toScene(frame, frame.x + 2000, frame.y, frame.middle);
    const [, down] = toScene(frame, frame.x, frame.y, frame.middle + 500);
    const [, , north] = toScene(frame, frame.x, frame.y + 3000, frame.middle);
    expect([east, down, north]).toEqual([2, -0.5, -3]);
  });
});

describe('a plane of a volume', () => {
  const corners = (name: PlaneName, index: number) => {
    const mesh = planeMesh(name);
    placePlane(mesh, sceneFrame(seismic), seismic, index);
    return pointsOf(mesh.geometry as BufferGeometry);
  };
  test.each(['inline', 'crossline'] as PlaneName[])('along an %s hangs from the first sample to the last', (name) => {
    const [a, b, c, d] = corners(name, 3);
    const height = (seismic.vertical.step * (seismic.vertical.count - 1)) / 1000;
    expect(apart(a, d)).toBeCloseTo(height, 5);
    expect(apart(b, c)).toBeCloseTo(height, 5);
    // first above last, and both ends of one height
    expect(a[1]).toBeGreaterThan(d[1]);
    expect(a[1]).toBeCloseTo(b[1], 6);
    const { binGrid } = seismic;
    const along = name === 'inline' ? binGrid.perCrossline : binGrid.perInline;
    const others = (name === 'inline' ? binGrid.crossline : binGrid.inline).count - 1;
    expect(apart(a, b)).toBeCloseTo((others * Math.hypot(...along)) / 1000, 4);
  });
  test('of one time is level, and lies lower for a later one', () => {
    const [early, late] = [corners('slice', 5), corners('slice', 40)];
    for (const p of early) expect(p[1]).toBeCloseTo(early[0][1], 6);
    expect(early[0][1] - late[0][1]).toBeCloseTo((35 * seismic.vertical.step) / 1000, 5);
  });
  test('moves with its line by one spacing of the lines', () => {
    const [a, b] = [corners('inline', 2)[0], corners('inline', 3)[0]];
    expect(apart(a, b)).toBeCloseTo(Math.hypot(...seismic.binGrid.perInline) / 1000, 5);
  });
});

test('the survey’s box has twelve edges, four of them upright', () => {
  const points = pointsOf(boxLines(sceneFrame(seismic), seismic));
  const edges = Array.from({ length: points.length / 2 }, (_, n) => [points[2 * n], points[2 * n + 1]]);
  expect(edges).toHaveLength(12);
  const upright = edges.filter(([a, b]) => Math.abs(a[0] - b[0]) + Math.abs(a[2] - b[2]) < 1e-6);
  expect(upright).toHaveLength(4);
});

describe('a horizon as a surface', () => {
  const [ni, nj] = [TURNED.inline.count, TURNED.crossline.count];
  const values = Float32Array.from({ length: ni * nj }, (_, n) => 1000 + (n % nj));
  const frame = { x: 0, y: 0, middle: 1000, top: 0, perVertical: 0.001 };
  test('has two triangles a cell, none where a corner has no value', () => {
    const count = (v: Float32Array) => horizonGeometry(frame, TURNED, v, [1000, 1014]).getIndex()?.count;
    expect(count(values)).toBe((ni - 1) * (nj - 1) * 6);
    const holed = values.slice();
    holed[5 * nj + 5] = Number.NaN;
    expect(count(holed)).toBe(((ni - 1) * (nj - 1) - 4) * 6);
  });
  test('lies at its values, and what has none does not spoil its bounds', () => {
    const holed = values.slice();
    holed[0] = Number.NaN;
    const geometry = horizonGeometry(frame, TURNED, holed, [1000, 1014]);
    expect(pointsOf(geometry)[nj + 7][1]).toBeCloseTo(-0.007, 6);
    geometry.computeBoundingSphere();
    expect(geometry.boundingSphere?.radius).toBeGreaterThan(0);
  });
  test('is coloured from one end of its range to the other, and no further', () => {
    const color = (range: [number, number]) => {
      const { array } = horizonGeometry(frame, TURNED, values, range).getAttribute('color');
      return (n: number) => [...array.slice(3 * n, 3 * n + 3)];
    };
    const [own, narrow] = [color([1000, 1014]), color([1003, 1004])];
    expect(own(0)).not.toEqual(own(14));
    expect(narrow(0)).toEqual(own(0));
    expect(narrow(14)).toEqual(own(14));
  });
});
