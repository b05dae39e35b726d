import { stopIf } from '../earth/errors.ts';
import type { ArrayRef } from '../earth/objects.ts';
import { copyShared, holds, type Region, samplesIn } from '../numerics/block.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import { readChunk, writeChunk } from '../storage/arrays.ts';
import { behind } from '../storage/behind.ts';
import { type Piece, putCrosslines, putSlices } from '../storage/groups.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { evaluateRegion, type Plan, planOf, type Reader } from './evaluate.ts';
import { type LocalStep, shapeOfGrid, type Volumes } from './local.ts';

/** What a lane needs to know of a run before its first job; it crosses from one thread to another. */
export interface PlanSpec {
  /** Id of a step; empty for samples that are taken as they are. */
  step: string;
  params: unknown;
  prepared: unknown;
  volumes: Volumes;
  roles: string[];
}

/** Samples in memory that every lane sees. */
export interface Window {
  data: Float32Array;
  region: Region;
}

/** Where the lines of a group of one result are put together, in memory that every lane sees. */
export interface Room {
  inline: Float32Array;
  crossline?: Float32Array;
  slice?: Float32Array;
}

/** Read chunks of a stored copy, or work out lines of a live volume, into a window. */
export interface ReadJob {
  do: 'read';
  role: string;
  /** The copy that is read; null for a live volume. */
  ref: ArrayRef | null;
  items: { at: [number, number, number]; holds: Region }[];
  window: Window;
}

/** Work out lines of the results of a group. */
export interface EvaluateJob {
  do: 'evaluate';
  items: [i0: number, i1: number][];
  windows: Record<string, Window>;
  rooms: Record<string, Room>;
  layouts: Record<string, { crossline?: ArrayRef; slice?: ArrayRef }>;
  /** First line of the group. */
  from: number;
}

/** Write chunks that are ready. */
export interface WriteJob {
  do: 'write';
  items: { ref: ArrayRef; data: Float32Array; piece: Piece }[];
}

/** Work out whole slices, and put them aside as chunks of a copy by slices. */
export interface SliceJob {
  do: 'slices';
  items: [k0: number, k1: number][];
  refs: Record<string, ArrayRef>;
}

export type LaneJob = ReadJob | EvaluateJob | WriteJob | SliceJob;

/** What a lane found while it worked: statistics by role and by the line that they begin at, and traces without a sample. */
export interface Found {
  from: number;
  statistics: Record<string, RunningStatistics>;
  missing: Record<string, number>;
}

/** Shared by all lanes of a run: which item is next, whether to stop, and how many items are done. */
export const [NEXT, STOP, DONE] = [0, 1, 2];

export interface Lane {
  store: Store;
  plan: Plan;
  flags: Int32Array;
  /** What it is told to stop by, where it shares its thread with who gives it; else the flag. */
  signal?: AbortSignal;
  /** Called after every item, where the lane shares its thread with who waits for it. */
  tick?(): Promise<void> | void;
}

/** Samples that are taken as they are. */
const asIs = (role: string): LocalStep => ({
  volumes: ['volume'],
  fills: true,
  halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
  evaluate: ({ volume }) => ({ [role]: volume.data }),
});

export function planFrom(spec: PlanSpec, localOf: (step: string) => LocalStep | undefined): Plan {
  const local = spec.step ? localOf(spec.step) : asIs(spec.roles[0]);
  if (!local) throw new Error(`${spec.step} is no local step`);
  return planOf(local, spec.params, spec.prepared, spec.volumes, spec.roles);
}

/** A signal that a flag in shared memory gives: whoever polls it hears at once, even where no message comes through. */
export function flagged(flags: Int32Array, at = STOP, value = 1, heard?: AbortSignal): AbortSignal {
  const signal = heard ?? new AbortController().signal;
  // what the signal itself was told by a message counts as well
  let told = signal.aborted;
  signal.addEventListener('abort', () => {
    told = true;
  });
  Object.defineProperty(signal, 'aborted', { get: () => told || Atomics.load(flags, at) === value });
  return signal;
}

/** Chunks that a lane reads or writes at a time. */
const BEHIND = 8;

/** Do items of a job, the next that nobody has taken, until there are none. */
export async function work(lane: Lane, job: LaneJob): Promise<Found[]> {
  const { flags } = lane;
  const signal = lane.signal ?? flagged(flags);
  const found: Found[] = [];
  const under = behind(BEHIND);
  try {
    for (let n = Atomics.add(flags, NEXT, 1); n < job.items.length; n = Atomics.add(flags, NEXT, 1)) {
      stopIf(signal);
      // lines of a live volume are worked out, in memory that one piece has at a time
      if (job.do === 'read' && job.ref) await under.add(() => readItem(lane, job, n));
      else if (job.do === 'read') await readItem(lane, job, n);
      else if (job.do === 'evaluate') found.push(await evaluateItem(lane, job, n, signal));
      else if (job.do === 'write') await under.add(() => writeItem(lane, job, n));
      else await sliceItem(lane, job, n, signal);
      Atomics.add(flags, DONE, 1);
      await lane.tick?.();
    }
  } catch (cause) {
    // what is under way must not come to lie where the run's leavings are cleared
    await under.end().catch(() => undefined);
    throw cause;
  }
  await under.end();
  return found;
}

async function readItem({ store, plan }: Lane, { role, ref, items, window }: ReadJob, n: number): Promise<void> {
  const { at, holds: has } = items[n];
  const data = ref ? await readChunk(store, ref, at) : await readRegion(store, plan.volumes[role], has);
  copyShared(data, has, window.data, window.region);
}

/** Reads what is in a window from there, and all else from the store. */
const readerOf =
  ({ store, plan }: Lane, windows: Record<string, Window>): Reader =>
  (volume, region, room) => {
    const role = Object.keys(plan.volumes).find((r) => plan.volumes[r] === volume) as string;
    const window = windows[role];
    if (!window) return readRegion(store, volume, region);
    const out = room?.(samplesIn(region)) ?? new Float32Array(samplesIn(region));
    if (!holds(window.region, region)) out.fill(Number.NaN);
    copyShared(window.data, window.region, out, region);
    return Promise.resolve(out);
  };

async function evaluateItem(lane: Lane, job: EvaluateJob, n: number, signal: AbortSignal): Promise<Found> {
  const { windows, rooms, layouts, from } = job;
  const [i0, i1] = job.items[n];
  const [, nj, nk] = shapeOfGrid(lane.plan.grid);
  const values = await evaluateRegion(
    lane.plan,
    { i: [i0, i1], j: [0, nj], k: [0, nk] },
    readerOf(lane, windows),
    signal,
  );
  const found: Found = { from: i0, statistics: {}, missing: {} };
  for (const [role, data] of Object.entries(values)) {
    const room = rooms[role];
    room.inline.set(data, (i0 - from) * nj * nk);
    const { crossline, slice } = layouts[role];
    for (let i = i0; i < i1; i++) {
      const line = data.subarray((i - i0) * nj * nk, (i - i0 + 1) * nj * nk);
      if (crossline && room.crossline) putCrosslines(crossline, room.crossline, i - from, line);
      if (slice && room.slice) putSlices(slice, room.slice, i - from, line);
    }
    found.statistics[role] = new RunningStatistics();
    found.statistics[role].add(data);
    let missing = 0;
    for (let t = 0; t < (i1 - i0) * nj; t++) {
      let k = 0;
      while (k < nk && Number.isNaN(data[t * nk + k])) k++;
      if (k === nk) missing++;
    }
    found.missing[role] = missing;
  }
  return found;
}

async function writeItem({ store }: Lane, { items }: WriteJob, n: number): Promise<void> {
  const { ref, data, piece } = items[n];
  const samples = data.subarray(piece.from, piece.from + piece.length);
  await writeChunk(store, ref, piece.at, store.copies ? samples : samples.slice());
}

async function sliceItem(lane: Lane, { items, refs }: SliceJob, n: number, signal: AbortSignal): Promise<void> {
  const { store, plan } = lane;
  const [k0, k1] = items[n];
  const [ni, nj] = shapeOfGrid(plan.grid);
  const region: Region = { i: [0, ni], j: [0, nj], k: [k0, k1] };
  const values = await evaluateRegion(plan, region, (volume, r) => readRegion(store, volume, r), signal);
  for (const [role, data] of Object.entries(values)) {
    const ref = refs[role];
    const [lines, , thick] = ref.chunk;
    for (let g = 0; g * lines < ni; g++) {
      const of: Region = { i: [g * lines, (g + 1) * lines], j: [0, nj], k: [k0, k0 + thick] };
      const piece = new Float32Array(samplesIn(of)).fill(Number.NaN);
      copyShared(data, region, piece, of);
      await writeChunk(store, ref, [g, 0, k0 / thick], piece);
    }
  }
}
