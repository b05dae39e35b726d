import '../../testing/browser';
import {
  bytesOf,
  type EarthObject,
  type Logs,
  readPlane,
  readWhole,
  type Store,
  type TieParams,
  type TimeDepthRelation,
  type Volume,
  writeParcel,
  writeWhole,
} from '@lithagon/core';
import { twinOf } from '@lithagon/core/testing/objects';
import { beforeEach, describe, expect, test } from 'vitest';
import { PLOT_DESK } from '../../state/plotDesk';
import { idbStore } from '../../storage/idbStore';
import { type Tied, tiedField } from '../../testing/tied';
import { filesJobs } from './files';
import { planesJobs } from './planes';
import { projectJobs } from './project';
import { cancel, type Outcome } from './task';
import { wellsJobs } from './wells';

const got = <T>(outcome: Outcome<T>): T => {
  if (outcome.ok) return outcome.value;
  throw new Error(outcome.error.message);
};
const refused = (outcome: Outcome<unknown>) => (outcome.ok ? null : outcome.error);
const silent = () => undefined;
let tasks = 0;
const next = () => ++tasks;

let field: Tied;
/** A project of the browser that holds the field, as a parcel brings it. */
let project: string;
let store: Store;
beforeEach(async () => {
  field ??= await tiedField();
  const parcel = new File([await writeParcel(field.store)], 'field.parcel');
  project = got(await projectJobs.openParcel(next(), parcel, silent)).id;
  store = await idbStore(project);
});
const named = async (name: string) => (await store.list()).find((o) => o.name === name) as EarthObject;

describe('files', () => {
  const tops = () => new File(['well,top,md_m\nT-1,Marker,640\n'], 'more tops.csv');
  test('are looked into without a trace, and loaded into the project', async () => {
    const before = (await store.list()).length;
    const report = got(await filesJobs.inspect(next(), project, tops(), [], {}));
    expect(report.refused).toBeUndefined();
    expect(report.takenFor).toContain('Tops');
    expect(await store.list()).toHaveLength(before);
    const loaded = got(await filesJobs.load(next(), project, tops(), [], {}, silent));
    expect(loaded.ids).toHaveLength(1);
    expect(await store.get(loaded.ids[0])).toMatchObject({ kind: 'tops', well: 'T-1' });
  });
  test('that are broken cross as one sentence, and leave nothing', async () => {
    const before = (await store.list()).length;
    const broken = new File([new Uint8Array(100)], 'broken.sgy');
    const error = refused(await filesJobs.load(next(), project, broken, [], {}, silent));
    expect(error?.message).toContain('broken.sgy');
    expect(await store.list()).toHaveLength(before);
  });
});

describe('what changes a project', () => {
  const crop = async () => ({
    step: 'data.decimate',
    inputs: { seismic: [(await named('Seismic')).id] },
    params: {},
    name: 'Thinned',
  });
  test('runs with progress, and what it makes is there for every thread', async () => {
    const parts: number[] = [];
    const [id] = got(await projectJobs.run(next(), project, await crop(), (part) => parts.push(part), silent));
    expect(await store.get(id)).toMatchObject({ kind: 'volume', name: 'Thinned' });
    expect(parts.length).toBeGreaterThan(0);
    expect([...parts].sort((a, b) => a - b)).toEqual(parts);
  });
  test('stops when it is cancelled, and leaves nothing', async () => {
    const before = (await store.list()).length;
    const owners = (await store.arrayOwners()).length;
    const task = next();
    const running = projectJobs.run(task, project, await crop(), () => cancel(task), silent);
    expect(refused(await running)?.code).toBe('cancelled');
    expect(await store.list()).toHaveLength(before);
    expect(await store.arrayOwners()).toHaveLength(owners);
  });
  test('takes an object out in an open format, or as the recipe that makes it again', async () => {
    const { id } = await named('T-1 tops');
    const csv = got(await projectJobs.export(next(), project, id, 'csv', {}));
    expect(await csv.text()).toMatch(/^well,top,md_m,/);
    const [made] = got(await projectJobs.run(next(), project, await crop(), silent, silent));
    const recipe = JSON.parse(await got(await projectJobs.export(next(), project, made, 'json', {})).text());
    expect(recipe.steps).toHaveLength(1);
    expect(refused(await projectJobs.export(next(), project, 'gone', 'csv', {}))?.message).toBe('The object is gone.');
  });
  test('makes what is out of date again, in order', async () => {
    const [id] = got(await projectJobs.run(next(), project, await crop(), silent, silent));
    const seismic = (await named('Seismic')) as Volume;
    await store.commit({ put: [{ ...seismic, revision: 'another' }] });
    const before = await store.get(id);
    got(await projectJobs.rebuild(next(), project, undefined, silent));
    expect((await store.get(id))?.revision).not.toBe(before?.revision);
  });
  test('is carried whole by a parcel; one cut short makes no project', async () => {
    const parcel = got(await projectJobs.parcel(next(), project, silent));
    const other = got(await projectJobs.openParcel(next(), new File([parcel], 'whole.parcel'), silent));
    const copy = await (await idbStore(other.id)).list();
    expect(copy.map((o) => [o.id, o.revision]).sort()).toEqual(
      (await store.list()).map((o) => [o.id, o.revision]).sort(),
    );
    expect(copy.reduce((sum, o) => sum + bytesOf(o), 0)).toBeGreaterThan(0);
    const short = new File([parcel.slice(0, parcel.size >> 1)], 'short.parcel');
    expect(refused(await projectJobs.openParcel(next(), short, silent))?.message).toContain('short.parcel');
  });
});

describe('what views draw', () => {
  test('is planes of volumes, as the store holds them, and traces along a path', async () => {
    const seismic = (await named('Seismic')) as Volume;
    const plane = got(await planesJobs.plane(project, seismic, 'crossline', 7));
    expect([...plane]).toEqual([...(await readPlane(field.store, field.seismic, 'crossline', 7))]);
    const { origin } = seismic.binGrid;
    const along = got(await planesJobs.along(project, seismic, [origin as [number, number]]));
    const inline = got(await planesJobs.plane(project, seismic, 'inline', 0));
    expect([...along]).toEqual([...inline.subarray(0, seismic.vertical.count)]);
  });
  test('is a trial, which gives what the stored result holds there', async () => {
    const seismic = (await named('Seismic')) as Volume;
    const request = { step: 'attributes.variance', inputs: { seismic: [seismic.id] }, params: { windowMs: 40 } };
    const trial = got(
      await planesJobs.trial(next(), project, request.step, request.params, request.inputs, seismic, 'inline', 5),
    );
    const [id] = got(await projectJobs.run(next(), project, request, silent, silent));
    const stored = got(await planesJobs.plane(project, (await store.get(id)) as Volume, 'inline', 5));
    stored.forEach((v, n) => {
      if (!Number.isNaN(v)) expect(Math.abs(v - trial.data[n])).toBeLessThan(1e-6);
    });
    expect(trial.evaluateMs).toBeGreaterThan(0);
  });
});

describe('what views of wells ask for', () => {
  test('is a tie as its parameters stand, or why there is none', async () => {
    const { well, seismic, wavelet, params } = field;
    const tie = got(await wellsJobs.tie(project, well.id, seismic.id, wavelet.id, null, params, 4));
    expect(tie.chain.correlation).toBeCloseTo((await field.tie()).chain.correlation, 6);
    const none = { ...params, top: 'Nowhere' } as TieParams;
    expect(refused(await wellsJobs.tie(project, well.id, seismic.id, wavelet.id, null, none, 4))?.message).toContain(
      'Nowhere',
    );
    expect(refused(await wellsJobs.tie(project, 'gone', seismic.id, wavelet.id, null, params, 4))?.fix).toBe(
      'Choose all three in the Sheet.',
    );
    // nothing of it is kept
    const relations = (await store.list()).filter((o): o is TimeDepthRelation => o.kind === 'time-depth relation');
    expect(relations).toEqual([]);
  });
  test('is a crossplot that stays in the worker, and what of it lies in a ring', async () => {
    const facts = got(await wellsJobs.plotGather(project, { ...PLOT_DESK, wells: [field.well.id] }));
    const { x0, x1, y0, y1 } = facts.window;
    const raster = got(await wellsJobs.plotRaster(facts.key, facts.window, [], 60, 40));
    expect(raster?.counts).toHaveLength(60 * 40);
    const all = got(
      await wellsJobs.plotSelect(
        facts.key,
        [
          [x0, y0],
          [x1, y0],
          [x1, y1],
          [x0, y1],
        ],
        [],
      ),
    );
    expect(all?.count).toBe(raster?.inside);
    // of a plot that is gone there is nothing
    expect(got(await wellsJobs.plotRaster('gone', facts.window, [], 60, 40))).toBeNull();
    expect(got(await wellsJobs.plotSelect('gone', [], []))).toBeNull();
  });
  test('is tops correlated from one well to another that is like it', async () => {
    const twin = { ...field.well, id: 'T-2', name: 'T-2', x: field.well.x + 100 };
    const logs = (await store.list()).find((o): o is Logs => o.kind === 'logs') as Logs;
    const its = { ...twinOf(logs, 'its'), name: 'T-2 logs', well: 'T-2', wellId: undefined };
    for (const [n, { data }] of logs.curves.entries())
      await writeWhole(store, its.curves[n].data.key, data.shape, await readWhole(store, data), ['depth']);
    await store.commit({ put: [twin, its] });
    const parts: number[] = [];
    const { proposals, notes } = got(
      await wellsJobs.carry(next(), project, [field.well.id], ['T-2'], {}, (part) => parts.push(part)),
    );
    expect(proposals.length + notes.length).toBeGreaterThan(0);
    // the same logs in a vertical well: what is proposed lies where it lies in the first
    for (const p of proposals) {
      const own = (await named('T-1 tops')) as EarthObject & { rows: [string, number][] };
      const [, md] = own.rows.find(([name]) => name === p.name) ?? [];
      expect(Math.abs(p.md - (md ?? 0))).toBeLessThan(1);
    }
    expect(parts.at(-1)).toBe(1);
  });
});
