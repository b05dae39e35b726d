import type { Domain, EarthObject, Horizon, Volume, Well } from '@lithagon/core';
import { FIELD, layeredField, topM, twtOf, WELL_AT } from '@lithagon/core/testing/layeredField';
import { MADE, madeHorizon } from '@lithagon/core/testing/objects';
import { beforeAll, describe, expect, test } from 'vitest';
import { NOWHERE } from '../../state/views/view';
import { cannotShow, layersOf } from './contents';
import { firstPlace, indexAt, placeAt, placeOver, shownHorizons, shownVolume, shownWells } from './survey';

let objects: EarthObject[];
let seismic: Volume;
let well: Well;

beforeAll(async () => {
  const field = await layeredField();
  objects = await field.store.list();
  ({ seismic, well } = field);
});

const inDepth = (id: string, from: string): Volume => ({
  ...seismic,
  id,
  name: id,
  domain: 'depth',
  madeBy: { ...MADE, step: 'depth.stretch', inputs: { volume: [`${from}@1`] } },
});

describe('what a view shows', () => {
  test('is the volume chosen, else the first of amplitudes', () => {
    const velocity: Volume = { ...seismic, id: 'v', quantity: 'interval velocity' };
    expect(shownVolume([velocity, seismic], null)?.id).toBe('seismic');
    expect(shownVolume([velocity, seismic], 'v')?.id).toBe('v');
    expect(shownVolume([velocity], 'gone')?.id).toBe('v');
    expect(shownVolume([], null)).toBeUndefined();
  });
  test('is its stretched counterpart in the other domain, there and back', () => {
    const deep = inDepth('deep', 'seismic');
    expect(shownVolume([seismic, deep], 'seismic', 'depth')?.id).toBe('deep');
    expect(shownVolume([seismic, deep], 'deep', 'twt')?.id).toBe('seismic');
    // without one it stays, and the view says that it is in the other domain
    expect(shownVolume([seismic], 'seismic', 'depth')?.domain).toBe('twt');
  });
  test('begins at lines through the first well inside the survey, else through its middle', () => {
    const at = (i: number, j: number) => ({
      inline: FIELD.inline.first + i * FIELD.inline.step,
      crossline: FIELD.crossline.first + j * FIELD.crossline.step,
    });
    expect(firstPlace(objects, seismic)).toMatchObject(at(WELL_AT.i, WELL_AT.j));
    const outside = { ...well, id: 'far', x: -9000 };
    expect(firstPlace([outside], seismic)).toMatchObject(
      at(Math.round(FIELD.inline.count / 2), Math.round(FIELD.crossline.count / 2)),
    );
  });
  test('never leaves the survey', () => {
    const { first, step, count } = FIELD.inline;
    const index = (n: number) => indexAt(seismic, 'inline', { ...NOWHERE, inline: first + n * step });
    expect([-4, 3.4, 999].map(index)).toEqual([0, 3, count - 1]);
    expect(placeAt(seismic, 'inline', 999)).toEqual({ inline: first + (count - 1) * step });
    expect(placeOver(seismic, -1e6, -1e6)).toMatchObject({ inline: expect.any(Number), crossline: expect.any(Number) });
    // a time says nothing of where a slice in depth lies
    expect(indexAt({ ...seismic, domain: 'depth' }, 'slice', { ...NOWHERE, twt: 40 })).toBe(
      Math.round(seismic.vertical.count / 2),
    );
    expect(indexAt(seismic, 'slice', { ...NOWHERE, twt: seismic.vertical.first + 7 * seismic.vertical.step })).toBe(7);
  });
  test('of horizons is the closed one in place of that which it was closed from', async () => {
    const { store } = await layeredField();
    const tracked = await madeHorizon(store, 'Top', 'twt', () => 800, FIELD);
    const closed: Horizon = {
      ...tracked,
      id: 'closed',
      madeBy: { ...MADE, step: 'interpret.close', inputs: { horizon: [`${tracked.id}@1`] } },
    };
    expect(shownHorizons([tracked, closed], 'twt').map((h) => h.id)).toEqual(['closed']);
    expect(shownHorizons([tracked, closed], 'depth')).toEqual([]);
  });
});

describe('wells as they are shown', () => {
  test('have their tops at the depth and time of the earth they were made from', () => {
    const [shown] = shownWells(objects);
    const { i, j } = WELL_AT;
    const top = shown.tops.reduce((a, b) => (Math.abs(a.tvdss - topM(i, j)) < Math.abs(b.tvdss - topM(i, j)) ? a : b));
    expect(top.tvdss).toBeCloseTo(topM(i, j), 6);
    // the velocity changes at Top, halfway between two checkshots 50 m apart at worst
    expect(Math.abs(top.twt - twtOf(i, j, top.tvdss))).toBeLessThan(2000 * 12.5 * (1 / 1800 - 1 / 2500));
    expect(shown.points[0].slice(0, 2)).toEqual([well.x, well.y]);
  });
});

describe('what cannot be shown', () => {
  test('is listed with its reason', () => {
    const wells = shownWells(objects.filter((o) => o.kind !== 'checkshots'));
    const shown = (all: EarthObject[], domain: Domain, of = wells) =>
      cannotShow(all, layersOf('section'), ['volume', 'seismic line'], domain, of);
    const inTime = shown([seismic, inDepth('deep', 'seismic'), well], 'twt');
    expect(inTime).toEqual([
      { name: 'deep', why: 'is in depth; convert it, or switch this view' },
      { name: well.name, why: 'has no checkshots or tie that give it time, and no velocity model reaches it' },
    ]);
    expect(shown([seismic, well], 'depth').map((n) => n.why)).toEqual(['is in TWT; convert it, or switch this view']);
  });
});
