import { type Fault, type Picks, readPlane, type Volume } from '@lithagon/core';
import { layeredField, topM, twtOf } from '@lithagon/core/testing/layeredField';
import { beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { undo } from '../state/history';
import { useSelection } from '../state/selection';
import { takeTool, useTool } from '../state/tool';
import { done, objectsNow, openWith } from '../testing/field';
import { placeOf, sectionLine } from '../views/section/geometry';
import { beginFault, beginPicking, changeEvent, finishStick, keepArea, pickAt, unpickAt } from './draw';

const INLINE = 4;
let seismic: Volume;
let data: Float32Array;
beforeAll(async () => {
  const field = await layeredField(0.01);
  seismic = field.seismic;
  data = await readPlane(field.store, seismic, 'inline', INLINE);
});
beforeEach(async () => {
  takeTool(null);
  await openWith([seismic]);
});

const line = () => sectionLine(seismic.binGrid, 'inline', INLINE);
const tool = () => {
  const { tool: now } = useTool.getState();
  if (now?.kind !== 'pick') throw new Error('picks are being made');
  return now;
};
const pick = (trace: number, time: number) => pickAt(tool(), line(), seismic, data, trace, time);
const picks = () => objectsNow().filter((o): o is Picks => o.kind === 'picks');
/** TWT of the top of the zone on a trace of the line. */
const topAt = (j: number) => twtOf(INLINE, j, topM(INLINE, j));

describe('picks', () => {
  test('lie on the event nearest to the click, at the trace’s own place', async () => {
    beginPicking();
    await changeEvent(tool(), 'peak');
    await pick(7.3, topAt(7) + 6);
    const [{ points, event, domain }] = picks();
    expect([event, domain]).toEqual(['peak', 'twt']);
    expect(points).toHaveLength(1);
    const [x, y, t] = points[0];
    expect([x, y]).toEqual(placeOf(line(), 7));
    // the bedding about the top moves its peak a little
    expect(Math.abs(t - topAt(7))).toBeLessThan(5);
  });
  test('of one horizon go into one object, however quickly they are made', async () => {
    beginPicking();
    await changeEvent(tool(), 'peak');
    const first = tool();
    // the view has not been drawn anew between these clicks
    await Promise.all([3, 9, 15].map((j) => pickAt(first, line(), seismic, data, j, topAt(j))));
    expect(picks()).toHaveLength(1);
    expect(picks()[0].points).toHaveLength(3);
    expect(done()).toHaveLength(3);
  });
  test('on a trace that has one move it, and the one nearest to a click is taken off', async () => {
    beginPicking();
    await changeEvent(tool(), 'peak');
    await pick(5, topAt(5));
    await pick(12, topAt(12));
    await pick(5, topAt(5) + 3);
    expect(picks()[0].points).toHaveLength(2);
    await unpickAt(tool(), line(), 12, topAt(12));
    expect(picks()[0].points.map((p) => p.slice(0, 2))).toEqual([placeOf(line(), 5)]);
    // nothing is near enough to this one
    await unpickAt(tool(), line(), 22, topAt(22));
    expect(picks()[0].points).toHaveLength(1);
    await undo();
    expect(picks()[0].points).toHaveLength(2);
  });
  test('are not made where there is no such event, or off the line', async () => {
    beginPicking();
    takeTool({ ...tool(), event: 'peak', snapMs: 2 });
    const quiet = new Float32Array(data.length);
    await pickAt(tool(), line(), seismic, quiet, 5, 700);
    await pick(-3, 700);
    await pick(line().traces + 2, 700);
    expect(picks()).toEqual([]);
    expect(done()).toEqual([]);
  });
});

describe('sticks of a fault', () => {
  const faults = () => objectsNow().filter((o): o is Fault => o.kind === 'fault');
  const draw = (points: [number, number][]) => {
    const { tool: now } = useTool.getState();
    if (now?.kind !== 'fault') throw new Error('a fault is being drawn');
    takeTool({ ...now, stick: points.map(([trace, t]) => [...placeOf(line(), trace), t]) });
  };
  test('are kept from the top down, one after the other in one fault, and single points are none', async () => {
    beginFault();
    draw([
      [8, 900],
      [6, 500],
      [7, 700],
    ]);
    await finishStick();
    expect(faults()[0].sticks[0].map((p) => p[2])).toEqual([500, 700, 900]);
    draw([[3, 400]]);
    await finishStick();
    expect(faults()[0].sticks).toHaveLength(1);
    draw([
      [10, 450],
      [11, 800],
    ]);
    await finishStick();
    expect(faults()).toHaveLength(1);
    expect(faults()[0].sticks).toHaveLength(2);
    expect(done()).toEqual(['Stick of Drawn fault', 'Stick of Drawn fault']);
    await undo();
    expect(faults()[0].sticks).toHaveLength(1);
  });
});

test('a ring drawn on the map becomes an area that ends where it began, under a name of its own, and is selected', async () => {
  const ring: [number, number][] = [
    [0, 0],
    [100, 0],
    [100, 80],
  ];
  await keepArea('Prospect', ring);
  await keepArea('Prospect', ring);
  await keepArea('Nothing', ring.slice(0, 2));
  const areas = objectsNow().filter((o) => o.kind === 'polygon');
  expect(areas).toHaveLength(2);
  expect(new Set(areas.map((a) => a.name)).size).toBe(2);
  for (const area of areas) if (area.kind === 'polygon') expect(area.rings[0]).toEqual([...ring, ring[0]]);
  expect(areas.map((a) => a.id)).toContain(useSelection.getState().object);
});
