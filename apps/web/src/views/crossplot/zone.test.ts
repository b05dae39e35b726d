import type { EarthObject, Volume } from '@lithagon/core';
import { FIELD, layeredField } from '@lithagon/core/testing/layeredField';
import { madeHorizon } from '@lithagon/core/testing/objects';
import { beforeEach, describe, expect, test } from 'vitest';
import { usualZone, zoneHorizons } from './zone';

let seismic: Volume;
let objects: EarthObject[];
beforeEach(async () => {
  const field = await layeredField();
  seismic = field.seismic;
  await madeHorizon(field.store, 'Base', 'twt', () => 900, FIELD);
  await madeHorizon(field.store, 'Base tracked', 'twt', () => 898, FIELD);
  await madeHorizon(field.store, 'Top', 'twt', () => 820, FIELD);
  await madeHorizon(field.store, 'Deep', 'depth', () => 1500, FIELD);
  objects = await field.store.list();
});

describe('the zone of a crossplot of volumes', () => {
  test('may lie between horizons of the volume’s domain, listed downwards', () => {
    const names = zoneHorizons(objects, seismic).map((h) => h.name);
    expect(names.slice(-3)).toEqual(['Top', 'Base tracked', 'Base']);
    expect(names).not.toContain('Deep');
  });
  test('begins between the deepest and the next that is another event', () => {
    const { top, base } = usualZone(objects, seismic);
    const name = (id: string) => objects.find((o) => o.id === id)?.name;
    expect([name(top), name(base)]).toEqual(['Top', 'Base']);
  });
  test('is the middle tenth of the samples where no horizons bound one', () => {
    const { count, first, step } = seismic.vertical;
    const zone = usualZone([], seismic);
    expect([zone.top, zone.base]).toEqual(['', '']);
    expect((zone.toVertical - zone.fromVertical) / (step * (count - 1))).toBeCloseTo(0.1, 2);
    expect((zone.toVertical + zone.fromVertical) / 2).toBeCloseTo(first + (step * (count - 1)) / 2, -1);
  });
});
