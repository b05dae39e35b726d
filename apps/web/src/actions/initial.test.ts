import { allSteps, curveNames, type EarthObject, newTable, topNames } from '@lithagon/core';
import { MADE } from '@lithagon/core/testing/objects';
import { describe, expect, test } from 'vitest';
import { useSelection } from '../state/selection';
import { fieldOnTheDesk, show, step } from '../testing/field';
import { initialInputs, initialParams } from './initial';
import { prepare } from './steps';

const field = fieldOnTheDesk();

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
    const tie = initialParams(step('tie.well'), field.objects);
    const names = topNames(field.objects, ['T-1']);
    expect(names).not.toContain('Tolven Base');
    expect(names).toContain(tie.top);
    const zone = initialParams(step('volumes.inPlace'), field.objects);
    expect(names).toEqual(expect.arrayContaining([zone.topName, zone.baseName]));
    expect(zone.topName).not.toBe(zone.baseName);
    expect(initialParams(step('wells.carry'), field.objects).curves).toBe(
      ['gamma ray', 'sonic', 'density'].filter((c) => curveNames(field.objects, ['T-1']).includes(c)).join(', '),
    );
    expect(initialParams(step('tie.well'), []).top).toBe('');
    const tied: EarthObject = { ...field.seismic, madeBy: { ...MADE, step: 'tie.well', params: { top: names[0] } } };
    expect(initialParams(step('tie.well'), [...field.objects, tied]).top).toBe(names[0]);
  });
  test('done one by one begins with the next, and no object is chosen twice', () => {
    const well = field.objects.find((o) => o.kind === 'well') as EarthObject;
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
    const begun = (id: string, more: EarthObject[], second = other) => {
      const all = [...field.objects, second, ...['upper', 'middle', 'lower'].map(horizon), ...more];
      show(all);
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
      columns: [],
      rows: [],
      curves: [],
    }));
    expect(begun('tie.well', [tied, ...(its.map((o) => ({ ...o, madeBy: MADE })) as never[])]).well).toEqual(['other']);
    const far = { ...other, x: -1e6 } as EarthObject;
    expect(begun('tie.well', [tied, ...(its.map((o) => ({ ...o, madeBy: MADE })) as never[])], far).well).toEqual([
      well.id,
    ]);
    // a head beside the survey is no hindrance where its well comes into it
    const along = {
      ...its[0],
      rows: [
        [0, 0, 90],
        [300, 60, 90],
        [900, 60, 90],
      ],
    };
    const beside = { ...other, x: -600 } as EarthObject;
    const all = [along, ...its.slice(1)].map((o) => ({ ...o, madeBy: MADE })) as never[];
    expect(begun('tie.well', [tied, ...all], beside).well).toEqual(['other']);
    const both = [tied, made('b', 'tie.well', { well: ['other@1'], like: [`${well.id}@1`] }, '2026-01-02')];
    expect(begun('tie.well', both)).toMatchObject({ well: [well.id], like: [] });
    const near: EarthObject = { ...field.seismic, id: 'near', name: 'Near' };
    const tracked = made('t', 'interpret.track', { seismic: ['seismic@1'] }, '2026-01-01');
    expect(begun('interpret.track', [near, tracked]).seismic).toEqual(['seismic']);
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
    const well = field.objects.find((o) => o.kind === 'well') as EarthObject;
    const other: EarthObject = { ...well, id: 'other', name: 'Other' };
    const chosen = (more: EarthObject[]) => {
      const all = [...field.objects, other, ...more];
      show(all);
      prepare(step('wells.facies'));
      return useSelection.getState().setup?.inputs;
    };
    const painted = newTable('facies', 'Other');
    const predicted: EarthObject = { ...newTable('facies', 'T-1'), madeBy: { ...MADE, step: 'wells.facies' } };
    expect(chosen([])?.trained).toEqual([well.id, 'other']);
    expect(chosen([painted, predicted])).toMatchObject({ trained: ['other'], wells: [well.id, 'other'] });
  });
});

describe('a step of depth', () => {
  const like = (part: Partial<Record<string, unknown>>): EarthObject =>
    ({ ...field.seismic, ...part, revision: '1', madeBy: { ...MADE, step: part.made ?? MADE.step } }) as never;
  const horizon = (name: string, domain: string, range: [number, number], made?: string) =>
    like({ id: name, name, kind: 'horizon', domain, range, made });
  const chosen = (id: string, objects: EarthObject[]) => initialInputs(step(id), objects, null);

  test('begins with the sea bed: the shallowest surface in depth that nobody converted', () => {
    const objects = [
      horizon('Deep', 'depth', [900, 1000]),
      horizon('Sea', 'depth', [80, 100]),
      horizon('Converted', 'depth', [40, 50], 'depth.horizon'),
      horizon('Top', 'twt', [700, 800]),
    ];
    expect(chosen('depth.layers', objects)).toMatchObject({ seaBed: ['Sea'], horizons: ['Top'], line: [] });
    expect(chosen('depth.layers', objects.slice(2)).seaBed).toEqual([]);
  });
  test('takes picks and the 2D line that they lie on where there is no horizon', () => {
    const picks = like({ id: 'Picks', name: 'Picks', kind: 'picks', domain: 'twt', points: [[0, 0, 500]] });
    const line = like({ id: 'Line', name: 'Line', kind: 'seismic line', domain: 'twt', path: [] });
    expect(chosen('depth.layers', [picks, line])).toMatchObject({ horizons: ['Picks'], line: ['Line'] });
    const both = [picks, line, horizon('Top', 'twt', [700, 800])];
    expect(chosen('depth.layers', both)).toMatchObject({ horizons: ['Top'], line: [] });
  });
  test('goes by the latest velocity model, and by a velocity volume where there is none', () => {
    const cube = like({ id: 'Cube', name: 'Cube', quantity: 'interval velocity', unit: 'm/s' });
    const model = (id: string) => {
      const {
        quantity: _,
        domain: __,
        ...rest
      } = like({ id, name: id, kind: 'velocity model', layers: [] }) as Record<string, unknown>;
      return rest as never as EarthObject;
    };
    expect(chosen('depth.volume', [field.seismic, cube]).model).toEqual(['Cube']);
    expect(chosen('depth.volume', [field.seismic, cube, model('First'), model('Second')]).model).toEqual(['Second']);
    // what is in time goes to depth and the other way round: both fit
    expect(chosen('depth.volume', [field.seismic, cube]).volume).toEqual([field.seismic.id]);
  });
});
