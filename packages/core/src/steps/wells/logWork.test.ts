import { describe, expect, test } from 'vitest';
import type { Logs, ResultTable, WellTable } from '../../earth/objects.ts';
import { outOfDate } from '../../project/catalogue/staleness.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import { EARTH, ROCK, topM, WELL_AT } from '../../testing/layeredField.ts';
import { wellWork } from '../../testing/wellWork.ts';
import { rebuild } from '../../trail/rebuild.ts';
import { parseRecipe } from '../../trail/recipe.ts';
import { runRecipe } from '../../trail/runRecipe.ts';
import { recipeOf } from '../../trail/writeRecipe.ts';

const { work, objects, run, named, values, logsNow, change, secondWell, W } = wellWork();

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
    await rebuild(work.store, undefined);
    const after = await values('gamma ray');
    expect(outOfDate(await objects()).size).toBe(0);
    expect(after.data[1000] - before.data[1000]).toBeCloseTo(10, 4);
    // another edit beside it is no reason to make it again
    await run('wells.despike', W, { curve: 'density' });
    expect(outOfDate(await objects()).size).toBe(0);
  });
  test('shale, porosity, saturation and net flags give back the rock that the logs were made from', async () => {
    await run('wells.shale', W, { lines: 'typed', clean: 30, shale: 110 });
    await run('wells.porosity', W, { from: 'density', grain: 2650, fluid: 1030, brine: 0.06, hydrocarbon: 800 });
    const filled = (await values('porosity')).data;
    const first = (await logsNow()).depth;
    const sand = filled[Math.round((topM(WELL_AT.i, WELL_AT.j) + 5 - first.firstM) / first.stepM)];
    expect(sand).toBeCloseTo(ROCK.porosity, 3);
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
  test('brine is that of a water sample, of the well itself before the field; typed where it is asked for or none is', async () => {
    await run('wells.shale', W, { lines: 'typed', clean: 30, shale: 110 });
    const saturated = async (params: Record<string, unknown>) => {
      await run('wells.porosity', W, { ...params, brine: 0.06, hydrocarbon: 800 });
      const [made] = await run('wells.saturation', W, { ...params, law: 'Archie', water: 0.06 });
      const { depth } = made as Logs;
      const at = Math.round((topM(WELL_AT.i, WELL_AT.j) + 5 - depth.firstM) / depth.stepM);
      return { water: (await values('water saturation')).data[at], made };
    };
    const unsampled = await saturated({});
    expect(unsampled.made.madeBy.warnings.join()).toContain('no water sample gives a resistivity, so 0.06 ohm.m');
    const table = (await objects()).find((o) => o.id === 'tops-T-1') as WellTable;
    const sample = (id: string, well: string, ohmM: number): WellTable => ({
      ...table,
      id,
      kind: 'fluid samples',
      name: id,
      well,
      wellId: undefined,
      columns: ['Fluid', 'Resistivity'].map((name) => ({ name, unit: '' })),
      rows: [['water', ohmM]],
    });
    await work.store.commit({ put: [sample('field-water', 'X-9', 0.03)] });
    const sampled = await saturated({});
    expect(sampled.made.madeBy.warnings.join()).not.toContain('no water sample');
    expect(sampled.water / unsampled.water).toBeGreaterThan(0.6);
    expect(sampled.water / unsampled.water).toBeLessThan(0.75);
    await work.store.commit({ put: [sample('own-water', 'T-1', 0.06)] });
    expect((await saturated({})).water).toBeCloseTo(unsampled.water, 6);
    await work.store.commit({ put: [sample('own-water', 'T-1', 0.2)] });
    expect((await saturated({ brineFrom: 'typed' })).water).toBeCloseTo(unsampled.water, 6);
  });
  test('shear by the mudrock line, moduli and impedance; a formula says the same', async () => {
    await run('wells.shear', W, { law: 'mudrock line' });
    await run('wells.elastic', W);
    const [made] = await run('wells.formula', W, { formula: 'density / sonic', unit: 'kg/m²s', result: 'AI2' });
    const ai = (await values('P impedance')).data;
    const own = await readWhole(work.store, (made as Logs).curves[0].data);
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
    const after = await readWhole(work.store, (made as Logs).curves[0].data);
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
      curves: [{ ...logs.curves[2], data: await writeWhole(work.store, 'run-2/GR', [400], short, ['sample']) }],
    };
    await work.store.commit({ put: [run2] });
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
    await work.store.commit({ remove: [of.id, (await named('Shale of T-1')).id] });
    await runRecipe(parseRecipe('r', JSON.stringify({ ...recipe, files: [] })), {
      store: work.store,
      crsTable: async () => [],
      open: async () => {
        throw new Error('no file is named');
      },
    });
    expect((await named<Logs>('Shale of T-2')).well).toBe('T-2');
  });
});
