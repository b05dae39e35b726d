import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import type { EarthObject, Fault, Horizon, Polygon, VelocityModel } from '../earth/objects.ts';
import { memorySource } from '../formats/source.ts';
import { canonicalJson } from '../numerics/hash.ts';
import { outOfDate } from '../project/catalogue/staleness.ts';
import { renameTop } from '../project/wells/tops.ts';
import { companionsOf, topsOf, waitingFor } from '../project/wells/wells.ts';
import { memoryStore } from '../storage/memory.ts';
import { readParcel, writeParcel } from '../storage/parcel.ts';
import type { Store } from '../storage/store.ts';
import { EARTH, FIELD, topM, twtOf } from '../testing/layeredField.ts';
import { madeHorizon } from '../testing/objects.ts';
import { wellWork } from '../testing/wellWork.ts';
import { rebuild } from './rebuild.ts';
import { parseRecipe } from './recipe.ts';
import { followTop, renamed } from './rename.ts';
import { runRecipe } from './runRecipe.ts';
import { runsOf } from './runs.ts';
import { projectRecipe } from './writeRecipe.ts';

const { work, objects, run, named, secondWell } = wellWork();

async function horizons(store: Store): Promise<string[]> {
  const at = (down: number) => (i: number, j: number) => twtOf(i, j, topM(i, j) + down);
  return [
    (await madeHorizon(store, 'Top', 'twt', at(0), FIELD)).id,
    (await madeHorizon(store, 'Base', 'twt', at(EARTH.zoneM), FIELD)).id,
  ];
}
const rename = async (name: string, to: string) =>
  work.store.commit({ put: renamed(await objects(), await named(name), to) });
/** What belongs to a well of a name, by kind. */
const ownedBy = async (name: string) =>
  (['logs', 'tops', 'checkshots', 'time-depth relation'] as const).map(
    (kind) => [kind, companionsByName(name, kind, allNow).length] as const,
  );
let allNow: EarthObject[] = [];
const companionsByName = (name: string, kind: EarthObject['kind'], all: EarthObject[]) => companionsOf(all, name, kind);

describe('a renamed well', () => {
  test('keeps its logs, tops, checkshots and ties, and what was made for it is made again in its place', async () => {
    await secondWell('T-2', 100);
    await run('wells.shale', { wells: ['well-1', 'T-2'] }, {}, 'Shale');
    allNow = await objects();
    const before = await ownedBy('T-1');
    expect(before[0][1]).toBe(2);
    await rename('T-1', 'Fell-1');
    allNow = await objects();
    expect(await ownedBy('Fell-1')).toEqual(before);
    expect(topsOf(allNow, 'Fell-1').length).toBeGreaterThan(0);
    expect(waitingFor(allNow).size).toBe(0);
    expect(outOfDate(allNow).size).toBe(0);
    // as read one by one as well
    expect(await work.store.get('logs-T-1')).toMatchObject({ well: 'Fell-1' });
    const logs = await work.store.get('logs-T-1');
    await work.store.commit({ put: [{ ...logs, revision: 'other' } as EarthObject] });
    const ids = (await objects()).map((o) => o.id).sort();
    expect(await rebuild(work.store, undefined)).toHaveLength(1);
    expect((await objects()).map((o) => o.id).sort()).toEqual(ids);
    expect(outOfDate(await objects()).size).toBe(0);
  });
  test('is found by the name that it had before by what comes later, and a name that another has is refused', async () => {
    await secondWell('T-2', 100);
    await rename('T-1', 'Fell-1');
    const tops = (await named('T-1 tops')) as EarthObject;
    await work.store.commit({
      put: [{ ...tops, id: 'later', name: 'Later tops', well: 'T-1', wellId: undefined } as EarthObject],
    });
    expect(await named('Later tops')).toMatchObject({ well: 'Fell-1', wellId: 'well-1' });
    allNow = await objects();
    expect(() => renamed(allNow, allNow.find((o) => o.name === 'T-2') as EarthObject, 'Fell-1')).toThrow(
      'Another well is called Fell-1.',
    );
  });
  test('that is deleted leaves what waits for it, and finds it when it comes again', async () => {
    const well = await named('T-1');
    await work.store.commit({ remove: [well.id] });
    expect(waitingFor(await objects()).size).toBeGreaterThan(0);
    await work.store.commit({ put: [{ ...well, id: 'again' }] });
    expect(waitingFor(await objects()).size).toBe(0);
    expect(await named('T-1 logs')).toMatchObject({ wellId: 'again' });
  });
});

test('a renamed horizon stays the top that it is, in layers, in what was typed for them, and when they are made again', async () => {
  const ids = await horizons(work.store);
  const typed = [{ base: 'Base', law: 'v0 + k·z from the datum', use: 'typed', v0: 2500, k: 0, vBase: 2500 }];
  const [model] = (await run(
    'depth.layers',
    { horizons: ids, wells: ['well-1'] },
    { layers: typed },
    'Layers',
  )) as VelocityModel[];
  const [honoured] = await run('depth.correct', { model: [model.id], wells: ['well-1'] }, {}, 'Honoured');
  await run('depth.horizon', { horizon: [ids[1]], model: [honoured.id], wells: ['well-1'] }, {}, 'In depth');
  const depth = ((await named('In depth')) as Horizon).range;
  await rename('Base', 'Foot');
  const now = (await named('Layers')) as VelocityModel;
  expect(now.layers.map((l) => l.base)).toEqual(['Top', 'Foot']);
  expect(((await named('Honoured')) as VelocityModel).layers.map((l) => l.base)).toEqual(['Top', 'Foot']);
  expect(now.madeBy.params.layers).toEqual([{ ...typed[0], base: 'Foot' }]);
  expect(outOfDate(await objects()).size).toBe(0);
  for (const id of ids) {
    const horizon = (await work.store.get(id)) as Horizon;
    await work.store.commit({ put: [{ ...horizon, revision: `${horizon.revision}x` }] });
  }
  await rebuild(work.store, undefined);
  const again = (await named('Layers')) as VelocityModel;
  expect(again.layers.map((l) => [l.base, l.v0, l.points])).toEqual(now.layers.map((l) => [l.base, l.v0, l.points]));
  expect(((await named('In depth')) as Horizon).range).toEqual(depth);
});

test('a renamed top takes steps, columns and horizons that name it along', async () => {
  const ids = await horizons(work.store);
  await run('tie.wavelet', { seismic: ['seismic'] }, { method: 'Ricker', peakHz: 28 }, 'Ricker');
  const wavelet = (await named('Ricker')).id;
  const tie = { well: ['well-1'], seismic: ['seismic'], wavelet: [wavelet] };
  await run('tie.well', tie, { top: 'Top' }, 'Tie');
  const edits = renameTop(await objects(), 'Top', 'Crown');
  const all = await objects();
  await work.store.commit({ put: [...edits.map((e) => e.after), ...followTop(all, 'Top', 'Crown')] });
  expect((await named('Tie')).madeBy.params.top).toBe('Crown');
  expect(((await work.store.get(ids[0])) as Horizon).top).toBe('Crown');
  await rebuild(work.store, undefined);
  expect(outOfDate(await objects()).size).toBe(0);
});

test('runs are told by their id, each with all that it made', async () => {
  await secondWell('T-2', 100);
  await run('wells.shale', { wells: ['well-1', 'T-2'] }, {}, 'Shale');
  await run('wells.shale', { wells: ['well-1'] }, {}, 'Again');
  const runs = runsOf(await objects());
  expect(runs.map((r) => [r.step, Object.keys(r.outputs).sort()])).toEqual([
    ['wells.shale', ['logs/T-2', 'logs/well-1']],
    ['wells.shale', ['logs/well-1']],
  ]);
  expect(new Set(runs.map((r) => r.id)).size).toBe(2);
});

test('a project of the version before opens: what belonged by name belongs by id, and outputs are those of their runs', async () => {
  const bytes = readFileSync(new URL('./fixtures/version-1.parcel', import.meta.url));
  const store = memoryStore();
  await readParcel('version-1.parcel', new Blob([new Uint8Array(bytes)]), async () => store);
  const all = await store.list();
  expect(all.map((o) => o.name)).toContain('Shale of T-1');
  for (const o of all) if ('well' in o) expect(o.wellId, o.name).toBe(o.well === 'T-1' ? 'well-1' : 'well-2');
  const [shale] = runsOf(all).filter((r) => r.step === 'wells.shale');
  expect(Object.keys(shale.outputs)).toEqual(['logs/well-1']);
  expect(outOfDate(all).size).toBe(0);
  await store.commit({ put: renamed(all, all.find((o) => o.id === 'well-1') as EarthObject, 'Fell-1') });
  const logs = (await store.get('logs-T-1')) as EarthObject;
  await store.commit({ put: [{ ...logs, revision: 'other' }] });
  await rebuild(store, undefined);
  const now = await store.list();
  expect(now.map((o) => o.id).sort()).toEqual(all.map((o) => o.id).sort());
  expect(now.find((o) => o.name === 'Shale of T-1')).toMatchObject({ well: 'Fell-1', wellId: 'well-1' });
});

describe('a project written as a recipe alone', () => {
  const FILES: Record<string, string> = {
    'heads.csv': 'well,x,y,kb_m,td_m\nA-1,500000,7600000,20,1500\nA-2,500400,7600000,20,1500\n',
    'tops.csv': 'well,top,md_m\nA-1,Crown,900\nA-2,Crown,910\nA-1,Foot,1000\nA-2,Foot,1010\n',
    'logs.csv': '',
  };
  const las = (well: string, bump: number) =>
    `~Version\nVERS. 2.0 :\nWRAP. NO :\n~Well\nSTRT.M 800 :\nSTOP.M 1100 :\nSTEP.M 1 :\nNULL. -999.25 :\nWELL. ${well} :\n~Curve\nDEPT.M :\nGR.gAPI :\n~ASCII\n${Array.from(
      { length: 301 },
      (_, n) => `${800 + n} ${40 + bump + 50 * Math.abs(Math.sin(n / 17))}`,
    ).join('\n')}\n`;
  const open = async (file: string) => {
    const text = file.endsWith('.las') ? las(file.slice(0, 3), file.startsWith('A-2') ? 8 : 0) : FILES[file];
    return memorySource(file, new TextEncoder().encode(text));
  };
  const context = (store: Store) => ({ store, crsTable: async () => (await import('../node.ts')).crsTable(), open });
  const empty = { lithagon: 'recipe', version: 1, title: 'T', steps: [] };
  /** What a project says, without ids and times. */
  const said = (all: EarthObject[]) => {
    const nameOf = new Map(all.map((o) => [o.id, `${o.kind}/${o.name}`]));
    return all
      .map((o) => {
        const text = canonicalJson({
          ...o,
          revision: '',
          madeBy: { ...o.madeBy, started: '', tookMs: 0, run: '', inputs: Object.keys(o.madeBy.inputs).sort() },
        });
        let plain = text.replace(/"activated":"[^"]*"/, '"activated":""');
        for (const [id, name] of nameOf) plain = plain.replaceAll(id, name);
        return plain.replace(/"called":"[^"]*",?/, '');
      })
      .sort();
  };

  test('is the same project: names, hand-picked tops, painted facies, picks, faults, outlines, looks and several outputs', async () => {
    const store = memoryStore('Before');
    const declare = { crs: 'EPSG:32740' };
    const files = ['heads.csv', 'tops.csv', 'A-1.las', 'A-2.las'].map((file) => ({ file, declare }));
    await runRecipe(parseRecipe('r', JSON.stringify({ ...empty, files })), context(store));
    const { newDrawn, newTable, putTop, paintFacies, runStep } = await import('../index.ts');
    const list = () => store.list();
    const find = async (kind: string, name: string) =>
      (await list()).find((o) => o.kind === kind && o.name === name) as EarthObject;
    // a well renamed, a loaded top moved, a new one picked, facies painted
    await store.commit({ put: renamed(await list(), await find('well', 'A-1'), 'Ridge-1') });
    const top = (name: string, md: number) => ({
      name,
      md,
      confidence: 0.8,
      kind: 'top' as const,
      missingM: null,
      how: 'picked',
    });
    const was = topsOf(await list(), 'Ridge-1').find((t) => t.name === 'Crown');
    await store.commit({ put: [putTop(await list(), 'Ridge-1', top('Crown', 905), was).after] });
    await store.commit({ put: [putTop(await list(), 'A-2', top('Middle', 960)).after] });
    await store.commit({ put: [paintFacies(newTable('facies', 'Ridge-1'), 900, 950, 'sand')] });
    // drawn things
    const ring: [number, number][] = [
      [0, 0],
      [100, 0],
      [0, 100],
    ];
    await store.commit({
      put: [
        newDrawn<Polygon>({ kind: 'polygon', name: 'Outline', closed: true, rings: [ring] }),
        newDrawn<Fault>({
          kind: 'fault',
          name: 'F1',
          domain: 'twt',
          sticks: [
            [
              [0, 0, 500],
              [0, 0, 700],
            ],
          ],
        }),
        newDrawn({
          kind: 'picks',
          name: 'P',
          domain: 'twt',
          event: 'peak',
          points: [[5, 5, 600]],
          erased: [ring],
        } as never),
      ],
    });
    const wells = (await list()).filter((o) => o.kind === 'well').map((o) => o.id);
    const made = await runStep({ step: 'wells.shale', inputs: { wells }, params: {}, name: 'Clay' }, store);
    // one of two outputs is called otherwise, another run's is thrown away
    await store.commit({ put: [{ ...made[0], name: 'My clay', color: '#aa3322', note: 'look here' }] });
    const gone = await runStep(
      { step: 'wells.shale', inputs: { wells }, params: { method: 'Clavier' }, name: 'Other' },
      store,
    ).catch(() => runStep({ step: 'wells.shale', inputs: { wells }, params: {}, name: 'Other' }, store));
    await store.commit({ remove: [gone[1].id] });
    const recipe = projectRecipe(await list(), await store.facts());
    expect(recipe.given.map((o) => o.kind).sort()).toEqual(['facies', 'fault', 'picks', 'polygon', 'tops', 'tops']);
    const again = memoryStore('After');
    await runRecipe(parseRecipe('r', JSON.stringify(recipe)), context(again));
    expect(said(await again.list())).toEqual(said(await list()));
    expect((await again.facts()).frame).toEqual((await store.facts()).frame);
    expect(outOfDate(await again.list()).size).toBe(0);
    // and so it is once more, and as a parcel
    const twice = memoryStore('Twice');
    await runRecipe(projectRecipe(await again.list(), await again.facts()), context(twice));
    expect(said(await twice.list())).toEqual(said(await list()));
    const opened = memoryStore('Opened');
    await readParcel('p.parcel', await writeParcel(store), async () => opened);
    expect(said(await opened.list())).toEqual(said(await list()));
  });
});
