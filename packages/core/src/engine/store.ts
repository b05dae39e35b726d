import { stopIf } from '../earth/errors.ts';
import type { ArrayRef, Volume } from '../earth/objects.ts';
import { type Region, type Shape3, sizeOf } from '../numerics/block.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import { createArray } from '../storage/arrays.ts';
import { piecesOfGroup, roomFor } from '../storage/groups.ts';
import { chunksIn } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import {
  coarseBy,
  coarseWriter,
  DIMENSIONS,
  groupsOf,
  type Layouts,
  layoutFor,
  PLANES,
  remakePlanes,
} from '../storage/volumes.ts';
import { haloOf, needed, type Plan } from './evaluate.ts';
import { type Found, type PlanSpec, planFrom, type Room, type Window } from './lanes.ts';
import { shapeOfGrid, type VolumeGrid } from './local.ts';
import type { JobRunner } from './runner.ts';

/** Samples of a volume that a run has stored, and what there is to say of them. */
export interface Stored {
  layouts: Layouts;
  statistics: ReturnType<RunningStatistics['finish']>;
  traces: Volume['traces'];
}

export interface StoreWork {
  store: Store;
  runner: JobRunner;
  /** Where the arrays of an output go. */
  idFor(role: string): string;
  signal?: AbortSignal;
  progress(part: number): void;
}

/** Samples that a lane works on at a time: 1 million, a few hundredths of a second. */
const ITEM = 1e6;

/**
 * Work out the results of a local step and store them, in groups of inlines. Lanes read every chunk once, work on lines of
 * the group, and write its chunks; what lies in memory is the group, the lines around it, and nothing else: about 64 MB for each
 * input and three times that for each result.
 */
export async function storeResults(spec: PlanSpec, plan: Plan, work: StoreWork): Promise<Record<string, Stored>> {
  return plan.whole.lines ? storeBySlices(spec, plan, work) : storeByLines(spec, plan, work);
}

/** A view of shared memory that grows when it must. */
function roomy(runner: JobRunner) {
  let buffer = runner.room(0);
  return (values: number): Float32Array => {
    if (buffer.length < values) buffer = runner.room(values);
    return buffer.subarray(0, values);
  };
}

async function storeByLines(spec: PlanSpec, plan: Plan, work: StoreWork): Promise<Record<string, Stored>> {
  const { store, runner, idFor, signal, progress } = work;
  const shape = shapeOfGrid(plan.grid);
  const [ni, nj, nk] = shape;
  const { group } = groupsOf(shape, runner.held);
  const layouts: Record<string, Layouts> = {};
  const coarse: Record<string, Awaited<ReturnType<typeof coarseWriter>>> = {};
  for (const role of plan.roles) {
    const of = Object.fromEntries(
      PLANES.map((plane) => [plane, layoutFor(idFor(role), shape, plane, undefined, runner.held)]),
    );
    for (const plane of PLANES) await createArray(store, of[plane], DIMENSIONS);
    coarse[role] = await coarseWriter(store, idFor(role), shape, undefined, coarseBy(shape));
    layouts[role] = { ...(of as unknown as Layouts), ...(coarse[role] ? { coarse: coarse[role].layouts } : {}) };
  }
  // lines around an item are worked through again for the next, so that an item has more of its own
  const about = Math.max(1, Math.round(ITEM / (nj * nk)), 6 * haloOf(plan).inline);
  const windows = windowsOf(plan, runner);
  const rooms: Record<string, Room> = {};
  for (const role of plan.roles) {
    const { inline, crossline, slice } = layouts[role];
    const slabs = piecesOfGroup(inline, 0, group).length;
    rooms[role] = {
      inline: runner.room(slabs * inline.chunk[0] * nj * nk),
      crossline: runner.room(roomFor(crossline as ArrayRef)),
      slice: runner.room(roomFor(slice as ArrayRef)),
    };
  }
  let done = 0;
  let weigh = (items: number) => items;
  const session = await runner.begin(spec, store, signal, (items) => progress(Math.min(1, done + weigh(items))));
  const found: Found[] = [];
  /** A job whose items are so much of the whole. */
  const part = async (job: Parameters<typeof session.do>[0], of: number) => {
    stopIf(signal);
    weigh = (items) => (job.items.length > 0 ? (of * items) / job.items.length : 0);
    found.push(...(await session.do(job)));
    done += of;
    stopIf(signal);
    progress(Math.min(1, done));
  };
  try {
    for (let i0 = 0; i0 < ni; i0 += group) {
      const i1 = Math.min(ni, i0 + group);
      const share = (i1 - i0) / ni;
      const of = needed(plan, { i: [i0, i1], j: [0, nj], k: [0, nk] });
      for (const job of windows.onto(of)) await part(job, (0.15 * share) / windows.count);
      // past the last line there is nothing
      for (const role of plan.roles)
        if (i1 - i0 < group) for (const data of Object.values(rooms[role])) (data as Float32Array).fill(Number.NaN);
        else fillEdges(rooms[role], layouts[role].crossline as ArrayRef);
      // what needs much around it is cut into no more parts than work at once, and into no fewer
      const perItem = plan.local.heeds ? Math.ceil((i1 - i0) / runner.lanes) : evenly(i1 - i0, about);
      const items: [number, number][] = [];
      for (let i = i0; i < i1; i += perItem) items.push([i, Math.min(i1, i + perItem)]);
      await part({ do: 'evaluate', items, windows: windows.now, rooms, layouts, from: i0 }, 0.65 * share);
      const pieces = plan.roles.flatMap((role) =>
        PLANES.flatMap((plane) => {
          const ref = layouts[role][plane] as ArrayRef;
          const data = rooms[role][plane] as Float32Array;
          return piecesOfGroup(ref, i0, i1 - i0).map((piece) => ({ ref, data, piece }));
        }),
      );
      await part({ do: 'write', items: pieces }, 0.2 * share);
      for (const role of plan.roles) await coarse[role]?.take(i0, rooms[role].inline.subarray(0, (i1 - i0) * nj * nk));
    }
  } finally {
    session.end();
  }
  for (const role of plan.roles) await coarse[role]?.finish();
  found.sort((a, b) => a.from - b.from);
  const same = plan.grid === (plan.first as VolumeGrid);
  return Object.fromEntries(
    plan.roles.map((role) => {
      const statistics = new RunningStatistics();
      let missing = 0;
      for (const each of found) {
        statistics.merge(RunningStatistics.from(each.statistics[role]));
        missing += each.missing[role];
      }
      const traces = same ? plan.first.traces : { live: ni * nj - missing, missing, duplicate: 0 };
      return [role, { layouts: layouts[role], statistics: statistics.finish(), traces }];
    }),
  );
}

/**
 * Lines of an item, about so many, such that two lanes or four have as many items each. How many lanes there are does not
 * count: statistics are summed by item, and must not hang on the machine.
 */
function evenly(lines: number, about: number): number {
  const items = 4 * Math.max(1, Math.round(lines / (4 * about)));
  return lines < about ? lines : Math.max(1, Math.ceil(lines / items));
}

/** Chunks that a full group does not fill to their far edge: crosslines in the last of them. */
function fillEdges(room: Room, ref: ArrayRef): void {
  const thick = ref.chunk[1];
  if (ref.shape[1] % thick !== 0 && room.crossline) {
    const length = ref.chunk[0] * thick * ref.chunk[2];
    room.crossline.fill(Number.NaN, room.crossline.length - length);
  }
}

/** Lines of the inputs in memory: those around the group that is worked on, each read once. */
function windowsOf(plan: Plan, runner: JobRunner) {
  const now: Record<string, Window> = {};
  const { first, volumes } = plan;
  const roles = Object.keys(volumes).filter((role) => volumes[role] === first || sameGrid(volumes[role], first));
  const rooms = Object.fromEntries(roles.map((role) => [role, roomy(runner)]));
  const halo = haloOf(plan);
  const shape = shapeOfGrid(first);
  const [ni, nj, nk] = shape;
  return {
    now,
    count: roles.length,
    /** Bring the windows to where a region and what surrounds it lie; gives the jobs that read what is new. */
    *onto(of: Region) {
      for (const role of roles) {
        const volume = volumes[role];
        const ref = volume.layouts?.inline;
        const thick = ref?.chunk[0] ?? Math.max(1, Math.round(ITEM / (nj * nk)));
        const before = now[role];
        const low = Math.max(0, of.i[0] - halo.inline);
        // whole chunks, so that none is read again for the next group
        const high = Math.min(ni, Math.ceil(Math.min(ni, of.i[1] + halo.inline) / thick) * thick);
        const keepFrom = before ? Math.max(low, before.region.i[0]) : low;
        const keepTo = before ? Math.min(high, before.region.i[1]) : low;
        const kept = Math.max(0, keepTo - keepFrom);
        const from = before && kept > 0 ? low : Math.floor(low / thick) * thick;
        const region: Region = { i: [from, Math.max(high, from + 1)], j: [0, nj], k: [0, nk] };
        const held = kept > 0 && before ? before.data : null;
        const data = rooms[role]((region.i[1] - from) * nj * nk);
        if (held && before) {
          const at = (keepFrom - before.region.i[0]) * nj * nk;
          // where both lie in one buffer, this goes by way of a copy only where they overlap
          data.set(held.subarray(at, at + kept * nj * nk), (keepFrom - from) * nj * nk);
        }
        now[role] = { data, region };
        const fresh: Region = { ...region, i: [kept > 0 ? keepTo : from, region.i[1]] };
        if (sizeOf(fresh)[0] <= 0) continue;
        const items = ref
          ? chunksIn(ref, fresh)
          : linesIn(fresh, thick, shape).map((holds) => ({ at: [0, 0, 0] as [number, number, number], holds }));
        yield { do: 'read' as const, role, ref: ref ?? null, items, window: { data, region } };
      }
    },
  };
}

function linesIn({ i }: Region, thick: number, [, nj, nk]: Shape3): Region[] {
  const out: Region[] = [];
  for (let a = i[0]; a < i[1]; a += thick) out.push({ i: [a, Math.min(i[1], a + thick)], j: [0, nj], k: [0, nk] });
  return out;
}

const sameGrid = (a: VolumeGrid, b: VolumeGrid) =>
  JSON.stringify([a.binGrid, a.vertical]) === JSON.stringify([b.binGrid, b.vertical]);

/** Work by whole slices: they are put aside as they come, and the results put together from them by lines. */
async function storeBySlices(spec: PlanSpec, plan: Plan, work: StoreWork): Promise<Record<string, Stored>> {
  const { store, runner, idFor, signal, progress } = work;
  const shape = shapeOfGrid(plan.grid);
  const own = `${idFor(plan.roles[0])}/source`;
  const cut = await cutForSlices(spec, plan, store, own, signal);
  const refs = Object.fromEntries(
    plan.roles.map((role) => [role, layoutFor(`${idFor(role)}/scratch`, shape, 'slice', undefined, runner.held)]),
  );
  for (const role of plan.roles) await createArray(store, refs[role], DIMENSIONS);
  const thick = refs[plan.roles[0]].chunk[2];
  const items: [number, number][] = [];
  for (let k = 0; k < shape[2]; k += thick) items.push([k, Math.min(shape[2], k + thick)]);
  const session = await runner.begin(cut, store, signal, (n) => progress((0.6 * n) / items.length));
  try {
    await session.do({ do: 'slices', items, refs });
  } finally {
    session.end();
  }
  stopIf(signal);
  await store.removeArrays(`${own}/`);
  const out: Record<string, Stored> = {};
  for (const [n, role] of plan.roles.entries()) {
    const aside: Volume = { ...plan.first, layouts: { inline: refs[role] } };
    const asIs: PlanSpec = { step: '', params: {}, prepared: null, volumes: { volume: aside }, roles: [role] };
    const stored = await storeByLines(
      asIs,
      planFrom(asIs, () => undefined),
      {
        ...work,
        progress: (part) => progress(0.6 + (0.4 * (n + part)) / plan.roles.length),
      },
    );
    out[role] = { ...stored[role], traces: plan.first.traces };
    await store.removeArrays(`${idFor(role)}/scratch/`);
  }
  return out;
}

/** The inputs with copies for slices, made for this run where they have none: slices through inlines would read all for each. */
async function cutForSlices(
  spec: PlanSpec,
  plan: Plan,
  store: Store,
  key: string,
  signal?: AbortSignal,
): Promise<PlanSpec> {
  const volumes = { ...spec.volumes };
  for (const [role, volume] of Object.entries(volumes)) {
    if (!volume.layouts || volume.layouts.slice) continue;
    const { inline } = volume.layouts;
    const layouts = { inline, slice: layoutFor(`${key}/${role}`, shapeOfGrid(plan.first), 'slice', inline.scaled) };
    await remakePlanes(store, layouts, signal);
    volumes[role] = { ...volume, layouts };
  }
  return { ...spec, volumes };
}
