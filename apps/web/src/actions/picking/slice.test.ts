import { type Picks, readAlong, readPlane, type Store, toMap, type Volume } from '@lithagon/core';
import { layeredField, topM, twtOf } from '@lithagon/core/testing/layeredField';
import { beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { takeTool, useTool } from '../../state/tool';
import { done, objectsNow, openWith } from '../../testing/field';
import { beginPicking, changePicking } from './picks';
import { drawOnSlice, type PickedSlice, pickOnSlice, rubOnSlice, sameSide, unpickOnSlice } from './slice';

let store: Store;
vi.mock('../../compute/planes', () => ({
  readAlong: (_project: string, volume: Volume, _key: string, points: [number, number][]) =>
    readAlong(store, volume, points),
}));

const BIN: [number, number] = [4, 9];
let seismic: Volume;
let values: Float32Array;
let k = 0;
beforeAll(async () => {
  const field = await layeredField(0.01);
  [store, seismic] = [field.store, field.seismic];
  const { first, step } = seismic.vertical;
  k = Math.round((twtOf(...BIN, topM(...BIN)) - first) / step);
  values = await readPlane(store, seismic, 'slice', k);
});
beforeEach(async () => {
  takeTool(null);
  await openWith([seismic]);
});

const on = (): PickedSlice => ({
  volume: seismic,
  time: seismic.vertical.first + k * seismic.vertical.step,
  values,
  walls: [],
});
const tool = () => {
  const { tool: now } = useTool.getState();
  if (now?.kind !== 'pick') throw new Error('no picking');
  return now;
};
const picks = () => objectsNow().filter((o): o is Picks => o.kind === 'picks');
const at = (i: number, j: number) => toMap(seismic.binGrid, i, j);

describe('picks on a slice', () => {
  test('drawn free-hand stand in the bins that are passed, at the time of the slice, in one edit', async () => {
    beginPicking();
    await changePicking(tool(), { how: 'free-hand' });
    await drawOnSlice(tool(), on(), [at(4, 5), at(4, 9), at(6, 9)]);
    const [{ points, event }] = picks();
    expect(event).toBe('free-hand');
    expect(points.map(([x, y]) => [x, y])).toEqual([...[5, 6, 7, 8, 9].map((j) => at(4, j)), at(5, 9), at(6, 9)]);
    expect(new Set(points.map((p) => p[2]))).toEqual(new Set([on().time]));
    expect(done()).toHaveLength(1);
  });

  test('snapped go to the event of their own trace nearest to the slice', async () => {
    beginPicking();
    await changePicking(tool(), { event: 'peak' });
    await pickOnSlice(tool(), on(), ...at(...BIN));
    const [{ points }] = picks();
    expect(points[0].slice(0, 2)).toEqual(at(...BIN));
    expect(points[0][2]).not.toBe(on().time);
    expect(Math.abs(points[0][2] - twtOf(...BIN, topM(...BIN)))).toBeLessThan(5);
    // nothing is picked off the survey, nor where no event is near
    await pickOnSlice(tool(), on(), ...at(-3, 4));
    await pickOnSlice({ ...tool(), snapMs: 0.01 }, on(), ...at(2, 2));
    expect(picks()[0].points).toHaveLength(1);
  });

  test('followed lead from the last pick, by bins that touch', async () => {
    beginPicking();
    await changePicking(tool(), { how: 'followed', event: 'peak' });
    // where the top of the zone goes through the slice
    const off = (i: number, j: number) => Math.abs(twtOf(i, j, topM(i, j)) - on().time);
    const { inline, crossline } = seismic.binGrid;
    const cut = Array.from({ length: inline.count }, (_, i): [number, number] => [
      i,
      Array.from({ length: crossline.count }, (_, j) => j).reduce((a, j) => (off(i, j) < off(i, a) ? j : a), 0),
    ]).filter(([i, j]) => off(i, j) < 4);
    expect(cut.length).toBeGreaterThan(5);
    await pickOnSlice(tool(), on(), ...at(...cut[0]));
    await pickOnSlice(tool(), on(), ...at(...cut[cut.length - 1]));
    const { points } = picks()[0];
    expect(points.length).toBeGreaterThanOrEqual(cut.length);
    for (const [x, y, t] of points) {
      expect(Math.abs(t - on().time)).toBeLessThanOrEqual(tool().snapMs);
      expect(Number.isFinite(x + y)).toBe(true);
    }
  });

  test('are taken away near the slice alone', async () => {
    beginPicking();
    await changePicking(tool(), { how: 'free-hand' });
    await drawOnSlice(tool(), on(), [at(4, 5), at(4, 9)]);
    await drawOnSlice(tool(), { ...on(), time: on().time + 40 }, [at(5, 5), at(5, 9)]);
    await unpickOnSlice(tool(), on(), ...at(4, 7), 5);
    expect(picks()[0].points).toHaveLength(9);
    await rubOnSlice(tool(), on(), () => true);
    expect(picks()[0].points.map((p) => p[2])).toEqual(Array(5).fill(on().time + 40));
  });

  test('know on which side of a fault they stand', () => {
    const faulted = { ...on(), walls: [[-1, 7.5, 100, 7.5]] as PickedSlice['walls'] };
    expect(sameSide(faulted, at(4, 5), at(6, 7))).toBe(true);
    expect(sameSide(faulted, at(4, 5), at(4, 9))).toBe(false);
  });
});
