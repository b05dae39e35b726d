import { beforeEach, describe, expect, test } from 'vitest';
import type {
  EarthObject,
  Logs,
  ResultTable,
  SyntheticGather,
  TimeDepthRelation,
  Wavelet,
  Well,
  WellTable,
} from '../earth/objects.ts';
import { curveOf } from '../project/curves.ts';
import { activeRelation } from '../project/wells.ts';
import { readWhole, writeChunk, writeWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';
import { EARTH, layeredField, topM, twtOf, WELL_AT } from '../testing/layeredField.ts';
import { FRAME } from '../testing/objects.ts';
import { even } from '../testing/random.ts';
import { rebuild } from '../trail/rebuild.ts';
import { parseRecipe, recipeOf, runRecipe } from '../trail/recipe.ts';
import { outOfDate } from '../trail/staleness.ts';
import { runStep } from './index.ts';

let store: Store;
beforeEach(async () => {
  store = (await layeredField(0.02)).store;
});

const objects = () => store.list();
const run = (step: string, inputs: Record<string, string[]>, params: Record<string, unknown> = {}, name?: string) =>
  runStep({ step, inputs, params, name }, store);
const W = { wells: ['well-1'] };
const named = async <T extends EarthObject>(name: string) => (await objects()).find((o) => o.name === name) as T;
const values = async (name: string) => {
  const held = curveOf(await objects(), 'T-1', name);
  if (!held) throw new Error(`no ${name}`);
  return { logs: held.logs, data: await readWhole(store, held.curve.data) };
};
const logsNow = async () => (await objects()).find((o): o is Logs => o.id === 'logs-T-1') as Logs;
/** Put other values into a loaded curve. */
async function change(cls: string, at: (v: number, n: number) => number) {
  const logs = await logsNow();
  const curves = await Promise.all(
    logs.curves.map(async (c) => {
      if (c.class !== cls) return c;
      const old = await readWhole(store, c.data);
      return {
        ...c,
        data: await writeWhole(store, `${logs.id}/${c.mnemonic}-2`, [old.length], old.map(at), ['sample']),
      };
    }),
  );
  await store.commit({ put: [{ ...logs, revision: `${logs.revision}x`, curves }] });
}

/** A second well two hundred metres away, with the same rocks. */
async function secondWell(name: string, x: number, more: Partial<Well> = {}) {
  const well = (await named<Well>('T-1')) as Well;
  const logs = await logsNow();
  const other: EarthObject[] = [
    { ...well, id: name, name, x, ...more },
    { ...logs, id: `logs-${name}`, name: `${name} logs`, well: name },
  ];
  for (const o of await objects())
    if ((o.kind === 'tops' || o.kind === 'checkshots') && o.well === 'T-1')
      other.push({ ...o, id: `${o.kind}-${name}`, name: `${name} ${o.kind}`, well: name });
  await store.commit({ put: other });
}

describe('log steps', () => {
  test('despike takes out a spike and bridges it; the edit is what the well is worked with, and the trail names the logs', async () => {
    await change('sonic', (v, n) => (n === 900 ? 3 * v : v));
    const [made] = await run('wells.despike', W, { curve: 'sonic' });
    expect(made.name).toBe('Despiked logs of T-1');
    const { logs, data } = await values('sonic');
    expect(logs.id).toBe(made.id);
    expect(data[900]).toBeCloseTo(data[899], 3);
    expect(made.madeBy.inputs['wells.logs']).toEqual([`logs-T-1@${(await logsNow()).revision}`]);
  });
  test('an edit made again is made from what is beneath it, not from itself, and other curves leave it valid', async () => {
    const [made] = await run('wells.shift', W, { curve: 'gamma ray', byM: 5 });
    const before = await values('gamma ray');
    await change('gamma ray', (v) => v + 10);
    expect(outOfDate(await objects()).has(made.id)).toBe(true);
    await rebuild(store, undefined);
    const after = await values('gamma ray');
    expect(outOfDate(await objects()).size).toBe(0);
    expect(after.data[1000] - before.data[1000]).toBeCloseTo(10, 4);
    // another edit beside it is no reason to make it again
    await run('wells.despike', W, { curve: 'density' });
    expect(outOfDate(await objects()).size).toBe(0);
  });
  test('shale, porosity, saturation and net flags give back the rock that the logs were made from', async () => {
    await run('wells.shale', W, { lines: 'typed', clean: 30, shale: 110 });
    await run('wells.porosity', W, { from: 'density', grain: 2650, fluid: 1030 });
    await run('wells.saturation', W, { law: 'Archie', water: 0.06 });
    const [, table] = await run('wells.net', W, { mostShale: 0.4, leastPorosity: 0.1, mostWater: 0.6 });
    const rows = (table as ResultTable).rows;
    const zone = rows.find((r) => r[1] === 'Top');
    // three quarters of the zone are sand
    expect(Number(zone?.[2])).toBeCloseTo(EARTH.zoneM, 1);
    expect(Number(zone?.[4])).toBeCloseTo(0.75, 2);
    const flag = (await values('net flag')).data;
    const { depth } = await logsNow();
    const at = (z: number) => flag[Math.round((z - depth.firstM) / depth.stepM)];
    const top = topM(WELL_AT.i, WELL_AT.j);
    expect(at(top + 5)).toBe(2);
    expect(at(EARTH.owcM + 3)).toBeLessThan(2);
    expect(at(top - 5)).toBe(0);
  });
  test('shear by the mudrock line, moduli and impedance; a formula says the same', async () => {
    await run('wells.shear', W, { law: 'mudrock line' });
    await run('wells.elastic', W);
    const [made] = await run('wells.formula', W, { formula: 'density / sonic', unit: 'kg/m²s', result: 'AI2' });
    const ai = (await values('P impedance')).data;
    const own = await readWhole(store, (made as Logs).curves[0].data);
    for (const n of [10, 800, 2000]) expect(own[n] / ai[n]).toBeCloseTo(1, 5);
    const vs = (await values('shear sonic')).data;
    expect(1e6 / vs[10]).toBeCloseTo((EARTH.v[0] - 1360) / 1.16, 2);
  });
  test('fluid substitution changes sand only, and is taken only where it is asked for', async () => {
    await run('wells.shale', W, { lines: 'typed', clean: 30, shale: 110 });
    await run('wells.porosity', W, { grain: 2650, fluid: 1030 });
    await run('wells.saturation', W, { law: 'Archie', water: 0.06 });
    await run('wells.shear', W, { law: 'Greenberg–Castagna' });
    const [made] = await run('wells.substitute', W, { now: 'oil', instead: 'gas' });
    const after = await readWhole(store, (made as Logs).curves[0].data);
    const { logs, data: before } = await values('sonic');
    expect(logs.id).toBe('logs-T-1');
    const { depth } = logs;
    const index = (z: number) => Math.round((z - depth.firstM) / depth.stepM);
    const top = topM(WELL_AT.i, WELL_AT.j);
    expect(after[index(top + 8)]).toBeGreaterThan(1.02 * before[index(top + 8)]);
    expect(after[index(top - 20)]).toBe(before[index(top - 20)]);
  });
  test('runs are spliced by a rule that is said, whatever order they are in', async () => {
    const logs = await logsNow();
    const short = new Float32Array(400).fill(77);
    const run2: Logs = {
      ...logs,
      id: 'run-2',
      name: 'Run 2',
      depth: { firstM: 1000, stepM: 0.25, count: 400 },
      curves: [{ ...logs.curves[2], data: await writeWhole(store, 'run-2/GR', [400], short, ['sample']) }],
    };
    await store.commit({ put: [run2] });
    const [made] = await run('wells.splice', { runs: ['logs-T-1', 'run-2'] }, { rule: 'deepest run' });
    expect(made.madeBy.warnings.join()).toMatch(
      /gamma ray: 300\.0 to 999\.8 m from T-1 logs, 1000\.0 to 1099\.8 m from Run 2/,
    );
    expect((made as Logs).depth.count).toBe(Math.round((1099.75 - 300) / 0.25) + 1);
    await expect(run('wells.splice', { runs: ['logs-T-1'] })).rejects.toThrow('two or more');
  });
  test('wells that lack a curve are left out by name; if all do, nothing is made', async () => {
    const [made] = await run('wells.shale', W);
    expect(made.kind).toBe('logs');
    const before = (await objects()).length;
    await expect(run('wells.badHole', W)).rejects.toThrow('T-1 has no caliper');
    await expect(run('wells.saturation', W)).rejects.toThrow('T-1 has no porosity');
    expect((await objects()).length).toBe(before);
  });
  test('what is made for several wells goes into a recipe and comes back', async () => {
    await secondWell('T-2', 100);
    await run('wells.shale', { wells: ['well-1', 'T-2'] }, {}, 'Shale');
    const of = await named<Logs>('Shale of T-2');
    const recipe = recipeOf(await objects(), of);
    expect(recipe.steps.map((s) => [s.step, s.name])).toEqual([['wells.shale', 'Shale']]);
    await store.commit({ remove: [of.id, (await named('Shale of T-1')).id] });
    await runRecipe(parseRecipe('r', JSON.stringify({ ...recipe, files: [] })), {
      store,
      crsTable: async () => [],
      open: async () => {
        throw new Error('no file is named');
      },
    });
    expect((await named<Logs>('Shale of T-2')).well).toBe('T-2');
  });
});

const tie = (params: Record<string, unknown> = {}, inputs: Record<string, string[]> = {}) =>
  run(
    'tie.well',
    { well: ['well-1'], seismic: ['seismic'], wavelet: ['wavelet'], ...inputs },
    { top: 'Top', ...params },
  );

async function wavelet(): Promise<void> {
  const [made] = await run('tie.wavelet', { seismic: ['seismic'] }, { method: 'Ricker', peakHz: 28 });
  await store.commit({ remove: [made.id], put: [{ ...made, id: 'wavelet' }] });
}

describe('ties', () => {
  beforeEach(wavelet);
  test('a good tie stands far above chance, in its own polarity, without a warning', async () => {
    const [made] = (await tie()) as TimeDepthRelation[];
    expect(made.evidence?.chance).toBeLessThan(0.02);
    expect(made.evidence?.asDeclared).toBeGreaterThan(made.evidence?.turnedOver ?? 1);
    expect(made.evidence?.warnings).toEqual([]);
  });
  test('ties are versions: the last is active, an older one can be, and what rests on the other is then out of date', async () => {
    const [first] = await tie();
    const [second] = await tie({ shift: 'typed', shiftMs: 2 });
    expect(activeRelation(await objects(), 'T-1')?.id).toBe(second.id);
    const [horizon] = await run(
      'interpret.track',
      { seismic: ['seismic'], wells: ['well-1'] },
      { top: 'Top', event: 'peak', stack: 1 },
    );
    expect(outOfDate(await objects()).has(horizon.id)).toBe(false);
    await store.commit({ put: [{ ...(first as TimeDepthRelation), activated: '2099-01-01T00:00:00Z' }] });
    expect(activeRelation(await objects(), 'T-1')?.id).toBe(first.id);
    expect(outOfDate(await objects()).get(horizon.id)).toContain('is the active tie of T-1');
  });
  test('pins stretch the tie; a velocity out of bounds is refused without a reason, and kept with one', async () => {
    const pins = [
      { twt: 500, shiftMs: 0 },
      { twt: 560, shiftMs: 8 },
    ];
    await expect(tie({ stretch: 'pins', pins })).rejects.toThrow('beyond the bound of 3 %');
    const [made] = (await tie({
      stretch: 'pins',
      pins,
      reason: 'the sonic is washed out there',
    })) as TimeDepthRelation[];
    expect(made.reason).toBe('the sonic is washed out there');
    expect(made.evidence?.warnings.join()).toContain('Velocity is changed by');
    const [small] = (await tie({ stretch: 'pins', pins: [pins[0], { twt: 700, shiftMs: 2 }] })) as TimeDepthRelation[];
    expect(Math.abs(small.evidence?.velocityChange ?? 1)).toBeLessThan(0.03);
  });
  test('automatic stretch stays within its bound and takes nothing away from a tie that is right', async () => {
    const [made] = (await tie({ stretch: 'automatic', mostChange: 2 })) as TimeDepthRelation[];
    expect(Math.abs(made.evidence?.velocityChange ?? 1)).toBeLessThanOrEqual(0.02);
    const { i, j } = WELL_AT;
    const top = made.pairs.reduce((a, b) => (Math.abs(b[0] - topM(i, j)) < Math.abs(a[0] - topM(i, j)) ? b : a));
    expect(Math.abs(top[1] - twtOf(i, j, top[0]))).toBeLessThan(3);
  });
  test('without checkshots the times of another well are taken, and it is said', async () => {
    await secondWell('T-2', 200);
    const shots = (await objects()).find((o) => o.id === 'checkshots-T-2');
    await store.commit({ remove: [shots?.id ?? ''] });
    await expect(tie({}, { well: ['T-2'] })).rejects.toThrow('T-2 has no checkshots');
    const [made] = await tie({ mostShiftMs: 30 }, { well: ['T-2'], like: ['well-1'] });
    expect(made.madeBy.warnings.join()).toContain('its times begin as those of T-1');
    await store.commit({ remove: ['checkshots-T-1', made.id] });
    await expect(tie({}, { well: ['T-2'], like: ['well-1'] })).rejects.toThrow('Neither T-2 nor T-1');
  });
  test('a tie whose best match is a cycle away from the truth is not silent: it warns of the other event, of chance, or of the edge', async () => {
    // the seismic is replaced by noise of its own band, so that whatever matches best is wrong
    let warned = 0;
    for (let seed = 1; seed <= 5; seed++) {
      const field = await layeredField(0.02);
      store = field.store;
      await wavelet();
      const { layouts } = field.seismic;
      const random = even(seed * 7919);
      const data = await readWhole(store, layouts.inline);
      const noisy = new Float32Array(data.length);
      for (let t = 0; t < data.length; t += 301)
        for (let n = 0; n < 40; n++) {
          const at = Math.floor(150.5 * (1 + random()));
          const size = 3000 * random();
          for (let k = -12; k <= 12; k++) {
            const q = ((Math.PI * 28 * 4 * k) / 1000) ** 2;
            if (at + k >= 0 && at + k < 301) noisy[t + at + k] += size * (1 - 2 * q) * Math.exp(-q);
          }
        }
      const chunk = layouts.inline.chunk.reduce((a, b) => a * b, 1);
      for (let c = 0; c * chunk < noisy.length; c++) {
        const piece = new Float32Array(chunk).fill(Number.NaN);
        piece.set(noisy.subarray(c * chunk, (c + 1) * chunk));
        await writeChunk(store, layouts.inline, [c, 0, 0], piece);
      }
      const [made] = (await tie({ mostShiftMs: 60 })) as TimeDepthRelation[];
      if ((made.evidence?.warnings.length ?? 0) > 0) warned++;
    }
    expect(warned).toBe(5);
  });

  describe('bad data has its sentence', () => {
    test('a sonic with a long gap', async () => {
      await change('sonic', (v, n) => (n > 800 && n < 900 ? Number.NaN : v));
      const [made] = (await tie()) as TimeDepthRelation[];
      expect(made.evidence?.warnings.join()).toContain('The sonic has a gap of 25 m');
    });
    test('and in feet where the project shows feet', async () => {
      await change('sonic', (v, n) => (n > 800 && n < 900 ? Number.NaN : v));
      await store.commit({ facts: { frame: { ...FRAME, display: 'field' } } });
      const [made] = (await tie()) as TimeDepthRelation[];
      expect(made.evidence?.warnings.join()).toContain('The sonic has a gap of 81 ft');
    });
    test('no density', async () => {
      const logs = await logsNow();
      await store.commit({ put: [{ ...logs, curves: logs.curves.filter((c) => c.class !== 'density') }] });
      const [made] = await tie();
      expect(made.madeBy.warnings.join()).toContain('T-1 has no density; it was estimated from velocity');
    });
    test('checkshots that go backwards in time', async () => {
      const shots = (await objects()).find((o): o is WellTable => o.id === 'checkshots-T-1') as WellTable;
      const rows = shots.rows.map((r, n) => (n === 6 ? [r[0], r[1], Number(r[2]) - 200] : r));
      await store.commit({ put: [{ ...shots, rows }] });
      const [made] = await tie();
      expect(made.madeBy.warnings.join()).toContain('1 checkshots of T-1 go back in time');
    });
    test('logs that start far below the datum are hung from the checkshots above them', async () => {
      const logs = await logsNow();
      await change('sonic', (v, n) => (n < 1000 ? Number.NaN : v));
      expect(logs.depth.firstM).toBe(300);
      const [made] = (await tie()) as TimeDepthRelation[];
      expect(made.correlation).toBeGreaterThan(0.8);
      expect(made.pairs[1][0]).toBeLessThan(300);
    });
    test('a deviated well that leaves the survey', async () => {
      const survey: WellTable = {
        ...((await objects()).find((o) => o.id === 'tops-T-1') as WellTable),
        id: 'survey',
        kind: 'directional surveys',
        name: 'T-1 directional surveys',
        rows: [
          [0, 0, 90],
          [500, 0, 90],
          [760, 62, 90],
          [1400, 62, 90],
        ],
      };
      await store.commit({ put: [survey] });
      const outcome = await tie({ windowMs: 400 }).then(
        ([made]) => made.madeBy.warnings.join(),
        (cause: Error) => cause.message,
      );
      expect(outcome).toMatch(/leaves Seismic|outside Seismic/);
    });
    test('a well with one curve', async () => {
      const logs = await logsNow();
      await store.commit({ put: [{ ...logs, curves: logs.curves.filter((c) => c.class === 'gamma ray') }] });
      await expect(tie()).rejects.toThrow('T-1 has no sonic log');
    });
    test('two wells on one trace are no independent witnesses of a wavelet', async () => {
      const { x } = (await named<Well>('T-1')) as Well;
      await secondWell('T-2', x + 3);
      const [made] = await run('tie.estimate', { seismic: ['seismic'], wells: ['well-1', 'T-2'] }, { top: 'Top' });
      expect(made.madeBy.warnings.join()).toContain('T-1 and T-2 stand on one trace');
    });
  });
});

describe('wavelets and gathers', () => {
  beforeEach(wavelet);
  test('least squares finds the wavelet that the field was made with', async () => {
    await tie();
    const [made] = (await run(
      'tie.estimate',
      { seismic: ['seismic'], wells: ['well-1'] },
      { top: 'Top' },
    )) as Wavelet[];
    // the field has noise, and reflectors beside the well that its log does not know
    expect(made.estimate?.predictability).toBeGreaterThan(0.8);
    const zero = Math.round(-made.firstMs / made.stepMs);
    const most = made.samples.reduce((a, b) => Math.max(a, Math.abs(b)), 0);
    expect(Math.abs(made.samples.indexOf(Math.max(...made.samples)) - zero)).toBeLessThanOrEqual(2);
    expect(made.samples[zero] / most).toBeGreaterThan(0.95);
    const [mean] = (await run('tie.shape', { wavelets: [made.id] }, { phaseDeg: 90 })) as Wavelet[];
    expect(Math.abs(mean.samples[zero] / most)).toBeLessThan(0.2);
  });
  test('a gather at angles needs shear; straight down every form is the same trace, with another fluid it is not', async () => {
    await tie();
    const gather = (params: Record<string, unknown>, logs: string[] = []) =>
      run('tie.angles', { well: ['well-1'], wavelet: ['wavelet'], logs }, params) as Promise<SyntheticGather[]>;
    await expect(gather({})).rejects.toThrow('T-1 has no shear log');
    await run('wells.shale', W, { lines: 'typed', clean: 30, shale: 110 });
    await run('wells.porosity', W, { grain: 2650, fluid: 1030 });
    await run('wells.saturation', W, { law: 'Archie', water: 0.06 });
    await run('wells.shear', W);
    const [exact] = await gather({ toDeg: 30, stepDeg: 10 });
    const [linear] = await gather({ toDeg: 30, stepDeg: 10, form: 'Shuey' });
    expect(exact.anglesDeg).toEqual([0, 10, 20, 30]);
    const count = exact.samples.shape[1];
    const [a, b] = [await readWhole(store, exact.samples), await readWhole(store, linear.samples)];
    const rms = (from: number) => Math.sqrt(a.subarray(from, from + count).reduce((s, v) => s + v * v, 0) / count);
    for (let n = 0; n < count; n++) expect(Math.abs(a[n] - b[n])).toBeLessThan(0.02 * rms(0) + 0.002);
    const [other] = await run('wells.substitute', W, { now: 'oil', instead: 'gas' });
    const [gassy] = await gather({ toDeg: 30, stepDeg: 10 }, [other.id]);
    const c = await readWhole(store, gassy.samples);
    expect(Math.max(...c.subarray(0, count).map((v, n) => Math.abs(v - a[n])))).toBeGreaterThan(0.3 * rms(0));
  });
});

describe('facies and carried tops', () => {
  const facies = (well: string): WellTable => {
    const top = topM(WELL_AT.i, WELL_AT.j);
    return {
      id: `facies-${well}`,
      kind: 'facies',
      name: `${well} facies`,
      revision: '1',
      stage: 'wells',
      madeBy: {
        step: 'data.load',
        version: 1,
        params: {},
        inputs: {},
        file: 'f.csv',
        started: '',
        tookMs: 0,
        warnings: [],
        engine: '',
      },
      well,
      columns: [],
      rows: [
        [600, top, 'Shale'],
        [top, top + 45, 'Sand'],
        [top + 45, 900, 'Shale'],
      ],
    };
  };
  test('learned in two wells, known in each from the other, predicted in a third, and said to be outside where it is', async () => {
    await secondWell('T-2', 100);
    await secondWell('T-3', 150);
    await store.commit({ put: [facies('T-1'), facies('T-2')] });
    const inputs = { trained: ['well-1', 'T-2'], wells: ['T-3'] };
    const made = await run('wells.facies', inputs, { curves: 'gamma ray, density', leastBedM: 2 });
    const table = made.find((o) => o.kind === 'facies') as WellTable;
    expect(table.rows.some((r) => r[2] === 'Sand' && Math.abs(Number(r[0]) - topM(WELL_AT.i, WELL_AT.j)) < 0.6)).toBe(
      true,
    );
    const report = made.find((o) => o.kind === 'result table') as ResultTable;
    expect((report.records?.[0] as { accuracy: number }).accuracy).toBeGreaterThan(0.95);
    const probabilities = made.find((o) => o.kind === 'logs') as Logs;
    expect(probabilities.curves.map((c) => c.mnemonic)).toEqual(['P(Sand)', 'P(Shale)', 'FAR']);
    // rock that nothing was learned from
    const logs = await logsNow();
    const strange = (await readWhole(store, logs.curves[1].data)).map((v) => v + 1200);
    await store.commit({
      put: [{ ...logs, id: 'logs-T-3', well: 'T-3', name: 'T-3 logs', curves: logs.curves }],
    });
    const data = await writeWhole(store, 'logs-T-3/RHOB', [strange.length], strange, ['sample']);
    await store.commit({
      put: [
        {
          ...logs,
          id: 'logs-T-3',
          well: 'T-3',
          name: 'T-3 logs',
          curves: logs.curves.map((c) => (c.class === 'density' ? { ...c, data } : c)),
        },
      ],
    });
    const again = await run('wells.facies', inputs, { curves: 'gamma ray, density' });
    expect(again[0].madeBy.warnings.join()).toMatch(/T-3: 100 % of its samples lie outside/);
    expect((again.find((o) => o.kind === 'facies') as WellTable).rows).toEqual([]);
  });
  test('one described well says nothing of how well facies are known elsewhere', async () => {
    await secondWell('T-2', 100);
    await store.commit({ put: [facies('T-1')] });
    const made = await run('wells.facies', { trained: ['well-1'], wells: ['T-2'] }, { curves: 'gamma ray, density' });
    expect(made.some((o) => o.kind === 'result table')).toBe(false);
    expect(made[0].madeBy.warnings.join()).toContain('described in one well only');
    await store.commit({ remove: ['facies-T-1'] });
    await expect(run('wells.facies', { trained: ['well-1'], wells: ['T-2'] })).rejects.toThrow(
      'There are samples of no facies',
    );
  });
  test('tops are carried to a well without any, each saying how it came; refused for one that has them', async () => {
    await secondWell('T-2', 100);
    await expect(run('wells.carry', { trusted: ['well-1'], wells: ['well-1'] })).rejects.toThrow(
      'Every well chosen is trusted',
    );
    await store.commit({ remove: ['tops-T-2'] });
    const made = (await run(
      'wells.carry',
      { trusted: ['well-1'], wells: ['T-2'] },
      { curves: 'gamma ray, density' },
    )) as WellTable[];
    const row = made[0].rows.find((r) => r[0] === 'Top');
    expect(Math.abs(Number(row?.[1]) - topM(WELL_AT.i, WELL_AT.j))).toBeLessThan(0.6);
    expect(row?.[5]).toContain('carried from T-1');
    await expect(run('wells.carry', { trusted: ['well-1'], wells: ['T-2'] })).rejects.toThrow(
      'does not have it already',
    );
  });
});
