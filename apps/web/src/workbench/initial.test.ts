import '../testing/browser';
import {
  type AnyStep,
  allSteps,
  curveNames,
  type EarthObject,
  newTable,
  stepOf,
  topNames,
  type Volume,
} from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { MADE } from '@lithagon/core/testing/objects';
import { beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { useDesk } from '../state/desk';
import { useProject } from '../state/project';
import { useSelection } from '../state/selection';
import { initialParams } from './initial';
import { prepare } from './steps';

let objects: EarthObject[];
let seismic: Volume;
const step = (id: string): AnyStep => {
  const found = stepOf(id);
  if (!found) throw new Error(`there is no step ${id}`);
  return found;
};

beforeAll(async () => {
  const field = await layeredField();
  objects = await field.store.list();
  seismic = field.seismic;
});
beforeEach(() => {
  useProject.setState({ objects, byId: new Map(objects.map((o) => [o.id, o])) });
  useDesk.setState({ volume: null });
  useSelection.setState({ setup: null, object: null });
});

describe('a step', () => {
  test('of every kind begins with values of its own declaration', () => {
    for (const each of allSteps()) {
      const params = initialParams(each);
      const read = each.params.safeParse(params);
      // what has no usual value is asked for; all else must pass as it stands
      if (!read.success) for (const issue of read.error.issues) expect(params[String(issue.path[0])] ?? '').toBe('');
    }
  });
  test('begins with tops and curves that the wells have, and with its own names where they have none', () => {
    const tie = initialParams(step('tie.well'), objects);
    const names = topNames(objects, ['T-1']);
    expect(names).not.toContain('Tolven Base');
    expect(names).toContain(tie.top);
    const zone = initialParams(step('volumes.inPlace'), objects);
    expect(names).toEqual(expect.arrayContaining([zone.topName, zone.baseName]));
    expect(zone.topName).not.toBe(zone.baseName);
    expect(initialParams(step('wells.carry'), objects).curves).toBe(
      ['gamma ray', 'sonic', 'density'].filter((c) => curveNames(objects, ['T-1']).includes(c)).join(', '),
    );
    expect(initialParams(step('tie.well'), []).top).toBe('');
    const tied: EarthObject = { ...seismic, madeBy: { ...MADE, step: 'tie.well', params: { top: names[0] } } };
    expect(initialParams(step('tie.well'), [...objects, tied]).top).toBe(names[0]);
  });
  test('done one by one begins with the next, and no object is chosen twice', () => {
    const well = objects.find((o) => o.kind === 'well') as EarthObject;
    const other: EarthObject = { ...well, id: 'other', name: 'Other' };
    const horizon = (id: string): EarthObject =>
      ({ id, kind: 'horizon', name: id, domain: 'depth', madeBy: MADE }) as unknown as EarthObject;
    const made = (id: string, by: string, inputs: Record<string, string[]>, started: string): EarthObject =>
      ({
        id,
        kind: 'result table',
        name: id,
        madeBy: { ...MADE, step: by, inputs, started },
      }) as unknown as EarthObject;
    const begun = (id: string, more: EarthObject[]) => {
      const all = [...objects, other, ...['upper', 'middle', 'lower'].map(horizon), ...more];
      useProject.setState({ objects: all, byId: new Map(all.map((o) => [o.id, o])) });
      prepare(step(id));
      return useSelection.getState().setup?.inputs ?? {};
    };
    expect(begun('tie.well', []).well).toEqual([well.id]);
    const tied = made('a', 'tie.well', { well: [`${well.id}@1`] }, '2026-01-01');
    // the other has neither logs nor checkshots yet
    expect(begun('tie.well', [tied]).well).toEqual([well.id]);
    const its = ['directional surveys', 'logs', 'checkshots', 'tops'].map((kind) => ({
      kind,
      id: kind,
      name: kind,
      well: 'Other',
      rows: [],
      curves: [],
    }));
    expect(begun('tie.well', [tied, ...(its.map((o) => ({ ...o, madeBy: MADE })) as never[])]).well).toEqual(['other']);
    const both = [tied, made('b', 'tie.well', { well: ['other@1'], like: [`${well.id}@1`] }, '2026-01-02')];
    expect(begun('tie.well', both)).toMatchObject({ well: [well.id], like: [] });
    const { top, base } = begun('volumes.inPlace', []);
    expect(top).not.toEqual(base);
    // a zone has two horizons, and a second run is of the same as the last
    const zone = (inputs: Record<string, string[]>, at: string) => made(`z${at}`, 'volumes.inPlace', inputs, at);
    const runs = [
      zone({ top: ['middle@1'], base: ['lower@1'] }, '2026-01-02'),
      zone({ top: ['upper@1'], base: ['middle@1'] }, '2026-01-01'),
    ];
    expect(begun('volumes.inPlace', runs)).toMatchObject({ top: ['middle'], base: ['lower'] });
  });
  test('of facies begins with the wells that are described, and with all where none is', () => {
    const well = objects.find((o) => o.kind === 'well') as EarthObject;
    const other: EarthObject = { ...well, id: 'other', name: 'Other' };
    const chosen = (more: EarthObject[]) => {
      const all = [...objects, other, ...more];
      useProject.setState({ objects: all, byId: new Map(all.map((o) => [o.id, o])) });
      prepare(step('wells.facies'));
      return useSelection.getState().setup?.inputs;
    };
    const painted = newTable('facies', 'Other');
    const predicted: EarthObject = { ...newTable('facies', 'T-1'), madeBy: { ...MADE, step: 'wells.facies' } };
    expect(chosen([])?.trained).toEqual([well.id, 'other']);
    expect(chosen([painted, predicted])).toMatchObject({ trained: ['other'], wells: [well.id, 'other'] });
  });
});
