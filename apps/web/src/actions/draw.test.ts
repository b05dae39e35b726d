import type { Fault, Volume } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { undo } from '../state/history';
import { useSelection } from '../state/selection';
import { takeTool, useTool } from '../state/tool';
import { done, objectsNow, openWith } from '../testing/field';
import { placeOf, sectionLine } from '../views/section/geometry';
import { beginFault, finishStick, keepArea } from './draw';

const INLINE = 4;
let seismic: Volume;
beforeAll(async () => {
  ({ seismic } = await layeredField());
});
beforeEach(async () => {
  takeTool(null);
  await openWith([seismic]);
});

const line = () => sectionLine(seismic.binGrid, 'inline', INLINE);
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
