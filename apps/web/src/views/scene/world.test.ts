import '../../testing/browser';
import type { Domain, EarthObject, Fault, Volume } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { MADE } from '@lithagon/core/testing/objects';
import type { Group, Mesh } from 'three';
import { beforeAll, describe, expect, test } from 'vitest';
import { layersOf, rowsOf } from '../common/contents';
import { shownWells } from '../common/survey';
import { sceneFrame } from './planes';
import { clearWorld, furnish, makeWorld, type World } from './world';

let seismic: Volume;
let objects: EarthObject[];
beforeAll(async () => {
  const field = await layeredField();
  seismic = field.seismic;
  objects = await field.store.list();
});

const fault = (domain: Domain): Fault => ({
  id: `fault-${domain}`,
  kind: 'fault',
  name: 'Made-up fault',
  revision: '1',
  stage: 'interpret',
  madeBy: MADE,
  domain,
  sticks: [0, 1].map((n) => [
    [512500, 7642000 + 100 * n, 200],
    [512600, 7642000 + 100 * n, 800],
  ]),
});

const laidOut = (domain: Domain, more: EarthObject[] = [], world = makeWorld()) => {
  const all = [...objects, ...more];
  const wells = shownWells(all);
  const contents = { shown: [], out: [], follows: true };
  const rows = rowsOf(contents, all, layersOf('scene'), domain, wells);
  return {
    world,
    labels: furnish({
      world,
      frame: sceneFrame(seismic),
      volume: seismic,
      rows,
      wells,
      values: new Map(),
      domain,
      objects: all,
      log: null,
      lit: null,
    }),
  };
};
const partsOf = (world: World) => [...world.built.values()].flatMap(({ group }) => group.children as Mesh[]);

describe('what stands in the scene', () => {
  test('is the survey’s box and the wells that have a place in its domain, named at their heads', () => {
    const { world, labels } = laidOut('twt');
    expect(labels.map((l) => l.name)).toEqual(['T-1']);
    expect(world.box.geometry.getAttribute('position').count).toBe(24);
    // the head is the highest point of the path
    const [tube] = partsOf(world);
    tube.geometry.computeBoundingBox();
    expect(labels[0].at[1]).toBeCloseTo(tube.geometry.boundingBox?.max.y ?? 0, 1);
  });
  test('leaves out in time a well that has none, and shows it in depth', () => {
    const kept = objects;
    objects = kept.filter((o) => o.kind !== 'checkshots' && o.kind !== 'time-depth relation');
    expect(laidOut('twt').labels).toEqual([]);
    expect(laidOut('depth').labels.map((l) => l.name)).toEqual(['T-1']);
    objects = kept;
  });
  test('has the faults of its own domain only', () => {
    const before = partsOf(laidOut('twt').world).length;
    expect(partsOf(laidOut('twt', [fault('twt')]).world)).toHaveLength(before + 1);
    expect(partsOf(laidOut('twt', [fault('depth')]).world)).toHaveLength(before);
  });
  test('is kept where it has not changed, and what it took is given back where it goes', () => {
    const { world } = laidOut('twt', [fault('twt')]);
    const [well, surface] = ['T-1', 'Made-up fault'].map((name) => {
      const id = [...objects, fault('twt')].find((o) => o.name === name)?.id ?? '';
      return world.built.get(id)?.group as Group;
    });
    const gone: string[] = [];
    for (const [name, group] of [['well', well] as const, ['fault', surface] as const])
      (group.children[0] as Mesh).geometry.addEventListener('dispose', () => gone.push(name));
    laidOut('twt', [], world);
    expect(gone).toEqual(['fault']);
    expect(well.parent).toBe(world.root);
    expect(surface.parent).toBeNull();
    // another domain is another path
    laidOut('depth', [], world);
    expect(gone).toEqual(['fault', 'well']);
    clearWorld(world);
    expect(world.built.size).toBe(0);
  });
});
