import { beforeAll, describe, expect, test } from 'vitest';
import { toMap } from '../earth/binGrid.ts';
import type {
  FluidContacts,
  Horizon,
  Picks,
  Polygon,
  ResultTable,
  TimeDepthRelation,
  VelocityModel,
  Volume,
} from '../earth/objects.ts';
import { newDrawn } from '../project/given.ts';
import { readWhole } from '../storage/arrays.ts';
import { readPlane } from '../storage/planes.ts';
import type { Store } from '../storage/store.ts';
import { EARTH, FIELD, layeredField, ROCK, topM, twtOf, WELL_AT } from '../testing/layeredField.ts';
import { named } from '../testing/objects.ts';
import { twtOfDepth } from '../wells/timeDepth.ts';
import { runStep } from './index.ts';

const COLUMNS = FIELD.crossline.count;
const BINS = FIELD.inline.count * COLUMNS;
const place = (n: number): [number, number] => [Math.floor(n / COLUMNS), n % COLUMNS];

let store: Store;
const ids = async (...names: string[]) => Promise.all(names.map(async (name) => (await named(store, name)).id));
const run = async (step: string, name: string, inputs: Record<string, string[]>, params = {}) =>
  runStep({ step, name, inputs, params }, store);

/** Largest departure of a horizon from what it should be, over the bins that have it. */
async function worst(name: string, truth: (i: number, j: number) => number): Promise<number> {
  const horizon = await named<Horizon>(store, name);
  const values = await readWhole(store, horizon.values);
  return values.reduce((m, v, n) => (Number.isNaN(v) ? m : Math.max(m, Math.abs(v - truth(...place(n))))), 0);
}

beforeAll(async () => {
  store = (await layeredField()).store;
});

// each part goes on from what the one before it made, as the work does
describe('the work on an earth in closed form', () => {
  test('a wavelet from the traces, and a tie that is right to a millisecond', async () => {
    await run('tie.wavelet', 'W', { seismic: await ids('Seismic') }, { fromMs: 200, toMs: 1000 });
    const [seismic, well, wavelet] = await ids('Seismic', 'T-1', 'W');
    await run('tie.well', 'T-1 tie', { well: [well], seismic: [seismic], wavelet: [wavelet] }, { top: 'Top' });
    const tie = await named<TimeDepthRelation>(store, 'T-1 tie');
    expect(tie.correlation).toBeGreaterThan(0.85);
    expect(Math.abs(tie.shiftMs)).toBeLessThan(1.5);
    const relation = {
      tvdss: Float64Array.from(tie.pairs, (p) => p[0]),
      twt: Float64Array.from(tie.pairs, (p) => p[1]),
    };
    const { i, j } = WELL_AT;
    for (const z of [500, topM(i, j), topM(i, j) + 60, 900])
      expect(Math.abs(twtOfDepth(relation, z) - twtOf(i, j, z))).toBeLessThan(2);
    expect(tie.madeBy.inputs['well.checkshots']).toEqual(['checkshots-T-1@1']);
  });

  test('both reflectors are tracked from the tied well over every bin, and the tie is part of their trail', async () => {
    const inputs = { seismic: await ids('Seismic'), wells: await ids('T-1') };
    for (const [top, event] of [
      ['Top', 'peak'],
      ['Base', 'peak'],
    ]) {
      await run('interpret.track', top, inputs, { top, event, stack: 1 });
      const horizon = await named<Horizon>(store, top);
      expect(horizon.filled).toBe(1);
      expect(Object.keys(horizon.madeBy.inputs)).toContain('wells.time-depth relation');
    }
    expect(await worst('Top', (i, j) => twtOf(i, j, topM(i, j)))).toBeLessThan(2);
    expect(await worst('Base', (i, j) => twtOf(i, j, topM(i, j) + EARTH.zoneM))).toBeLessThan(4);
  });

  test('the same horizon from one pick; a part that was erased stays empty until it is picked inside', async () => {
    const at = (i: number, j: number): Picks['points'][number] => [...toMap(FIELD, i, j), twtOf(i, j, topM(i, j))];
    const ring = [
      [3, 3],
      [3, 9],
      [8, 9],
      [8, 3],
    ].map(([i, j]) => toMap(FIELD, i - 0.5, j - 0.5));
    const picks = newDrawn<Picks>({
      kind: 'picks',
      name: 'P',
      domain: 'twt',
      event: 'peak',
      points: [at(14, 20)],
      erased: [],
    });
    const track = async (points: Picks['points'], erased: Picks['erased']) => {
      await store.commit({ put: [{ ...picks, points, erased }] });
      const [made] = await run(
        'interpret.track',
        'Picked',
        { seismic: await ids('Seismic'), picks: [picks.id] },
        { stack: 1 },
      );
      await store.commit({ put: [{ ...made, name: 'Picked' }] });
      const filled = (made as Horizon).filled;
      const error = await worst('Picked', (i, j) => twtOf(i, j, topM(i, j)));
      await store.commit({ remove: [made.id] });
      return { filled, error };
    };
    const whole = await track([at(14, 20)], []);
    expect(whole.filled).toBe(1);
    expect(whole.error).toBeLessThan(2);
    expect((await track([at(14, 20)], [ring])).filled).toBeCloseTo(1 - 30 / BINS, 9);
    expect((await track([at(14, 20), at(5, 5)], [ring])).filled).toBe(1);
    await store.commit({ remove: [picks.id] });
  });

  test('nothing to begin from is refused, saying what to do', async () => {
    await expect(run('interpret.track', 'X', { seismic: await ids('Seismic') })).rejects.toThrow(
      'nothing to begin from',
    );
  });

  test('velocities are those of the layers; typed ones stand as typed', async () => {
    const inputs = { horizons: await ids('Top', 'Base'), wells: await ids('T-1') };
    await run('depth.layers', 'Model', inputs);
    const model = await named<VelocityModel>(store, 'Model');
    const { i, j } = WELL_AT;
    const top = topM(i, j);
    const [first, second] = model.layers;
    expect(first.v0 + first.k * 0.5 * (100 + top)).toBeGreaterThan(1770);
    expect(first.v0 + first.k * 0.5 * (100 + top)).toBeLessThan(1830);
    expect(Math.abs(second.v0 + second.k * (top + 30) - 2500)).toBeLessThan(120);
    // with no sea bed layers begin at the datum
    const [sea] = await ids('Sea Bed');
    const under = { ...inputs, seaBed: [sea] };
    const [typed] = await run('depth.layers', 'Under the sea', under, { layers: [{ base: 'Top', v0: 1800, k: 0 }] });
    const honoured = { model: await ids('Under the sea'), wells: await ids('T-1') };
    await run('depth.correct', 'Honoured', honoured);
    expect((typed as VelocityModel).layers[0]).toMatchObject({ base: 'Top', v0: 1800, k: 0, points: 0 });
    expect((typed as VelocityModel).layers[0].rms).toBeLessThan(1.5);
  });

  test('horizons come to depth within a few metres everywhere, and honour the well', async () => {
    const [model] = await ids('Honoured');
    const layers = await ids('Top', 'Base');
    for (const [n, name] of ['Top', 'Base'].entries()) {
      await run(
        'depth.horizon',
        `${name} in depth`,
        { horizon: [layers[n]], model: [model], wells: await ids('T-1') },
        {},
      );
      expect(await worst(`${name} in depth`, (i, j) => topM(i, j) + (n ? EARTH.zoneM : 0))).toBeLessThan(4);
      const horizon = await named<Horizon>(store, `${name} in depth`);
      const values = await readWhole(store, horizon.values);
      const { i, j } = WELL_AT;
      expect(Math.abs(values[i * COLUMNS + j] - topM(i, j) - (n ? EARTH.zoneM : 0))).toBeLessThan(0.1);
    }
  });

  test('the seismic in depth has its reflector where the earth has it', async () => {
    const [volume, model] = await ids('Seismic', 'Honoured');
    await run('depth.volume', 'Seismic in depth', { volume: [volume], model: [model] }, { stepM: 2, deepestM: 1000 });
    const made = await named<Volume>(store, 'Seismic in depth');
    expect(made).toMatchObject({ domain: 'depth', vertical: { first: 0, step: 2, count: 501 } });
    for (const i of [0, 9, 17]) {
      const line = await readPlane(store, made, 'inline', i);
      for (const j of [0, 12, 23]) {
        const near = Math.round(topM(i, j) / 2);
        let best = near - 10;
        for (let k = near - 10; k <= near + 10; k++) if (line[j * 501 + k] > line[j * 501 + best]) best = k;
        expect(Math.abs(2 * best - topM(i, j))).toBeLessThanOrEqual(4);
      }
    }
  });

  test('rock averaged in the well, and volumes that agree with the closed form', async () => {
    await expect(run('volumes.contacts', 'C', {}, { source: 'typed', gocM: 800, owcM: 700 })).rejects.toThrow(
      'lies below',
    );
    await run('volumes.contacts', 'Contacts', {}, { source: 'typed', owcM: EARTH.owcM });
    expect(await named<FluidContacts>(store, 'Contacts')).toMatchObject({
      gocM: null,
      owcM: EARTH.owcM,
      owcRange: null,
    });
    const corners = [
      [0, 0],
      [0, 23],
      [17, 23],
      [17, 0],
      [0, 0],
    ].map(([i, j]) => toMap(FIELD, i, j));
    const area = newDrawn<Polygon>({ kind: 'polygon', name: 'All', closed: true, rings: [corners] });
    const samples = {
      id: 'fluids',
      kind: 'fluid samples' as const,
      name: 'Fluids',
      revision: '1',
      stage: 'wells',
      madeBy: area.madeBy,
      well: 'T-1',
      columns: ['Fluid', 'Density', 'Formation volume factor'].map((name) => ({ name, unit: '' })),
      rows: [
        ['oil', ROCK.oil, 1.25],
        ['water', ROCK.brine, 1.01],
      ] as [string, number, number][],
    };
    await store.commit({ put: [area, samples] });
    const [top, base, contacts, well] = await ids('Top in depth', 'Base in depth', 'Contacts', 'T-1');
    const inputs = {
      top: [top],
      base: [base],
      area: [area.id],
      contacts: [contacts],
      wells: [well],
      fluids: [samples.id],
    };
    const zone = { topName: 'Top', baseName: 'Base' };
    await expect(run('volumes.inPlace', 'X', inputs, zone)).rejects.toThrow(/T-1 has no interpreted porosity/);
    await run('wells.shale', 'Shale', { wells: [well] }, { lines: 'typed', clean: 30, shale: 110 });
    await run(
      'wells.porosity',
      'Porosity',
      { wells: [well] },
      { grain: 2650, fluid: ROCK.brine, brine: ROCK.waterOhmM },
    );
    await run('wells.saturation', 'Saturation', { wells: [well] }, { law: 'Archie', water: ROCK.waterOhmM });
    await run('wells.net', 'Net', { wells: [well] }, { mostShale: 0.4, leastPorosity: 0.1, mostWater: 0.6 });
    await run('volumes.inPlace', 'Volumes', inputs, zone);
    const table = await named<ResultTable>(store, 'Volumes');
    const value = (quantity: string) => Number(table.rows.find((r) => r[0] === quantity)?.[1]);
    // the oil leg of the well alone: from Top to the contact, of which the sand is the upper part
    const zoneTop = topM(WELL_AT.i, WELL_AT.j);
    const leg = EARTH.owcM - zoneTop;
    expect(value('Net-to-gross, oil leg')).toBeCloseTo(Math.min(1, (0.75 * EARTH.zoneM) / leg), 1);
    expect(value('Porosity, oil leg')).toBeCloseTo(ROCK.porosity, 3);
    expect(value('Water saturation, oil leg')).toBeCloseTo(ROCK.water, 2);
    expect(value('T-1, oil leg: thickness')).toBeCloseTo(Math.min(leg, EARTH.zoneM), 0);
    expect(value('Oil formation volume factor')).toBe(1.25);
    // gross rock above the contact, bin by bin in fine steps
    let gross = 0;
    for (let i = 0; i < 17; i += 0.1)
      for (let j = 0; j < 23; j += 0.1) {
        const z = topM(i + 0.05, j + 0.05);
        gross += 6.25 * Math.max(0, Math.min(z + EARTH.zoneM, EARTH.owcM) - z);
      }
    expect(Math.abs(value('Gross rock') / gross - 1)).toBeLessThan(0.06);
    expect(value('Oil in place')).toBeCloseTo((value('Hydrocarbon pore') as number) / 1.25, 0);
    const map = (await store.list()).find((o) => o.kind === 'map');
    expect(map?.name).toContain('Hydrocarbon thickness');
    // interpreted anew by another law, the saturation and the oil change with it
    const before = value('Oil in place');
    await run('wells.saturation', 'Saturation again', { wells: [well] }, { law: 'Archie', water: 2 * ROCK.waterOhmM });
    await run('volumes.inPlace', 'Volumes again', inputs, zone);
    const again = await named<ResultTable>(store, 'Volumes again');
    const oil = Number(again.rows.find((r) => r[0] === 'Oil in place')?.[1]);
    expect(oil / before).toBeCloseTo((1 - Math.SQRT2 * ROCK.water) / (1 - ROCK.water), 1);
  });

  test('a well without sonic, without checkshots, or outside the survey is refused by name, each with its reason', async () => {
    const [seismic, well, wavelet] = await ids('Seismic', 'T-1', 'W');
    const tie = (params = {}) => run('tie.well', 'X', { well: [well], seismic: [seismic], wavelet: [wavelet] }, params);
    await expect(tie({ top: 'Nowhere' })).rejects.toThrow('T-1 has no top “Nowhere”');
    const before = await store.list();
    const logs = before.find((o) => o.kind === 'logs');
    const shots = before.find((o) => o.kind === 'checkshots');
    if (logs?.kind !== 'logs' || !shots) throw new Error('the field has no logs or checkshots');
    await store.commit({ put: [{ ...logs, curves: logs.curves.filter((c) => c.class !== 'sonic') }] });
    await expect(tie({ top: 'Top' })).rejects.toThrow('T-1 has no sonic log');
    await store.commit({ put: [logs], remove: [shots.id] });
    await expect(tie({ top: 'Top' })).rejects.toThrow('T-1 has no checkshots');
    const head = await named(store, 'T-1');
    await store.commit({ put: [shots, { ...head, x: 90000 } as typeof head] });
    await expect(tie({ top: 'Top' })).rejects.toThrow('lies outside Seismic');
    await store.commit({ put: [head] });
    expect((await store.list()).filter((o) => o.name === 'X')).toEqual([]);
  });
});
