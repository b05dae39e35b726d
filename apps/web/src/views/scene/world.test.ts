import '../../testing/browser';
import type { EarthObject, Fault, Volume } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { MADE } from '@lithagon/core/testing/objects';
import type { Mesh } from 'three';
import { beforeAll, describe, expect, test } from 'vitest';
import { shownWells } from '../common/survey';
import { sceneFrame } from './planes';
import { furnish, makeWorld } from './world';

let seismic: Volume;
let objects: EarthObject[];
beforeAll(async () => {
  const field = await layeredField();
  seismic = field.seismic;
  objects = await field.store.list();
});

const fault = (domain: 'twt' | 'depth'): Fault => ({
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

const laidOut = (domain: 'twt' | 'depth', more: EarthObject[] = [], world = makeWorld()) => {
  const all = [...objects, ...more];
  return {
    world,
    labels: furnish(world, sceneFrame(seismic), seismic, all, shownWells(all), new Map(), domain),
  };
};

describe('what stands in the scene', () => {
  test('is the survey’s box and the wells that have a place in its domain, named at their heads', () => {
    const { world, labels } = laidOut('twt');
    expect(labels.map((l) => l.name)).toEqual(['T-1']);
    expect(world.culture.children).toHaveLength(2);
    // the head is the highest point of the path
    const tube = world.culture.children[1] as Mesh;
    tube.geometry.computeBoundingBox();
    expect(labels[0].at.y).toBeCloseTo(tube.geometry.boundingBox?.max.y ?? 0, 1);
  });
  test('leaves out in time a well that has none, and shows it in depth', () => {
    const kept = objects;
    objects = kept.filter((o) => o.kind !== 'checkshots' && o.kind !== 'time-depth relation');
    expect(laidOut('twt').labels).toEqual([]);
    expect(laidOut('depth').labels.map((l) => l.name)).toEqual(['T-1']);
    objects = kept;
  });
  test('has the faults of its own domain only', () => {
    const before = laidOut('twt').world.culture.children.length;
    expect(laidOut('twt', [fault('twt')]).world.culture.children).toHaveLength(before + 1);
    expect(laidOut('twt', [fault('depth')]).world.culture.children).toHaveLength(before);
  });
  test('is cleared, and what it took given back, before it is laid out again', () => {
    const { world } = laidOut('twt', [fault('twt')]);
    const gone = new Set<unknown>();
    for (const child of world.culture.children)
      (child as Mesh).geometry.addEventListener('dispose', () => gone.add(child));
    const old = world.culture.children.length;
    laidOut('twt', [], world);
    expect(gone.size).toBe(old);
    expect(world.culture.children).toHaveLength(old - 1);
  });
});
