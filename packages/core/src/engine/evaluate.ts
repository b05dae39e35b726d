import { sameBins, sameSamples } from '../earth/binGrid.ts';
import { LithagonError, stopIf } from '../earth/errors.ts';
import type { Volume } from '../earth/objects.ts';
import {
  type Block,
  copyShared,
  type Halo,
  type Region,
  regionOf,
  type Shape3,
  samplesIn,
  shared,
  sizeOf,
  widened,
} from '../numerics/block.ts';
import { during } from '../numerics/stop.ts';
import { type LocalStep, shapeOfGrid, type VolumeGrid, type Volumes } from './local.ts';
import { readOnto } from './onto.ts';

/** Most samples of a block that is worked on at once, halo and all: 4 million, 16 MB. */
const MOST_IN_BLOCK = 4e6;
/** Most of one that looks by itself whether to stop. */
const MOST_AT_ONCE = 2.4e7;
/** As many at first, before it is known how long they take. */
const FIRST_IN_BLOCK = 3e4;
/** How long a piece may take before a cancel is heard again, ms. */
const PIECE_MS = 60;

/** A local step with its inputs and parameters, ready to be worked out anywhere. */
export interface Plan {
  local: LocalStep;
  params: unknown;
  ready: unknown;
  volumes: Volumes;
  /** The first input. */
  first: Volume;
  /** What comes out. */
  roles: string[];
  grid: VolumeGrid;
  halo: Halo;
  /** Along which axes a region is worked out whole. */
  whole: { lines: boolean; traces: boolean };
  /** Most samples that are worked on between two looks whether to go on; as many as the last ones say. */
  pace: { most: number };
  /** Memory of blocks that is used again for the next, by input. */
  buffers: Map<Volume, Float32Array>;
}

/**
 * Reads samples of a region of an input: `[inline][crossline][sample]`, NaN outside it; into what `room` gives, where the
 * reader has them at hand.
 */
export type Reader = (volume: Volume, region: Region, room?: (values: number) => Float32Array) => Promise<Float32Array>;

/** Bring a step together with what goes in; refuses volumes that do not lie on each other. */
export function planOf(local: LocalStep, params: unknown, prepared: unknown, volumes: Volumes, roles: string[]): Plan {
  const [[, first], ...others] = Object.entries(volumes);
  for (const [role, other] of others) {
    if (local.own?.includes(role)) {
      if (sameBins(first.binGrid, other.binGrid)) continue;
      throw new LithagonError('input', `${other.name} and ${first.name} do not lie on the same bins.`, {
        object: other.name,
        fix: 'Put one of them on the bins of the other first. Nothing was changed.',
      });
    }
    if (other.domain !== first.domain)
      throw new LithagonError('input', `${other.name} and ${first.name} are not in the same domain.`, {
        object: other.name,
        fix: 'Choose volumes that are both in time or both in depth. Nothing was changed.',
      });
    if (!local.otherGrids && !sameSamples(first, other))
      throw new LithagonError('input', `${other.name} and ${first.name} do not lie on the same bins and samples.`, {
        object: other.name,
        fix: 'Crop or resample one of them first. Nothing was changed.',
      });
  }
  const ready = local.ready ? local.ready(prepared, params, volumes) : prepared;
  const halo = local.halo(params, first);
  return {
    local,
    params,
    ready,
    volumes,
    first,
    roles,
    grid: local.grid?.(first, params, ready) ?? first,
    halo,
    whole: { lines: !Number.isFinite(halo.inline), traces: !Number.isFinite(halo.sample) },
    pace: { most: local.heeds ? MOST_AT_ONCE : FIRST_IN_BLOCK },
    buffers: new Map(),
  };
}

const none = (n: number) => (Number.isFinite(n) ? n : 0);

/** Samples of the first input that a region of the results rests on, halo left out. */
export function needed(plan: Plan, region: Region): Region {
  const { local, params, ready, first, whole } = plan;
  const of = local.needs?.(region, ready, params) ?? region;
  const all = regionOf(shapeOfGrid(first));
  return {
    i: whole.lines ? all.i : of.i,
    j: whole.lines ? all.j : of.j,
    k: whole.traces ? all.k : of.k,
  };
}

/** The finite part of a halo: an axis that is whole has nothing around it. */
export const haloOf = ({ halo }: Plan): Halo => ({
  inline: none(halo.inline),
  crossline: none(halo.crossline),
  sample: none(halo.sample),
});

/** A region with the axes that are worked out whole. */
function wholeOf({ grid, whole }: Plan, region: Region): Region {
  const all = regionOf(shapeOfGrid(grid));
  return {
    i: whole.lines ? all.i : region.i,
    j: whole.lines ? all.j : region.j,
    k: whole.traces ? all.k : region.k,
  };
}

/** Samples that are worked through for a region of the results, those around it counted. */
const worked = (plan: Plan, region: Region): number =>
  Math.max(samplesIn(widened(needed(plan, region), haloOf(plan))), samplesIn(region));

/** The two halves of a region that is too large to be worked out in one go; null where it has to be. */
function halves(plan: Plan, region: Region, most: number): [Region, Region] | null {
  if (worked(plan, region) <= most) return null;
  const [ni, nj, nk] = sizeOf(region);
  const free = { i: !plan.whole.lines && ni > 1, j: !plan.whole.lines && nj > 1, k: !plan.whole.traces && nk > 1 };
  const halo = haloOf(plan);
  const around = { i: halo.inline, j: halo.crossline, k: halo.sample };
  // what surrounds the halves is worked through twice: along the axis where that is least of what there is
  const [axis] = (['i', 'j', 'k'] as const)
    .filter((each) => free[each])
    .sort((a, b) => around[a] / (region[a][1] - region[a][0]) - around[b] / (region[b][1] - region[b][0]));
  if (!axis) return null;
  const middle = (region[axis][0] + region[axis][1]) >> 1;
  return [
    { ...region, [axis]: [region[axis][0], middle] },
    { ...region, [axis]: [middle, region[axis][1]] },
  ];
}

const roomOf =
  ({ buffers }: Plan, volume: Volume) =>
  (values: number) => {
    let buffer = buffers.get(volume);
    if (!buffer || buffer.length < values) {
      buffer = new Float32Array(values);
      buffers.set(volume, buffer);
    }
    return buffer.subarray(0, values);
  };

/** A region of a volume down its whole traces, on its own samples. */
async function ownBlock(plan: Plan, volume: Volume, { i, j }: Region, read: Reader): Promise<Block> {
  const shape = shapeOfGrid(volume);
  const region: Region = { i, j, k: [0, shape[2]] };
  return {
    data: await read(volume, region, roomOf(plan, volume)),
    size: sizeOf(region),
    halo: { inline: 0, crossline: 0, sample: 0 },
    stepMs: volume.vertical.step,
    from: [i[0], j[0], 0],
    shape,
  };
}

async function blockOf(plan: Plan, volume: Volume, of: Region, read: Reader): Promise<Block> {
  const halo = haloOf(plan);
  const region = widened(of, halo);
  const data =
    volume === plan.first || sameSamples(volume, plan.first)
      ? await read(volume, region, roomOf(plan, volume))
      : await readOnto(volume, plan.first, region, read);
  return {
    data,
    size: sizeOf(region),
    halo,
    stepMs: plan.first.vertical.step,
    from: [of.i[0], of.j[0], of.k[0]],
    shape: shapeOfGrid(plan.first),
  };
}

/** Whether every sample of a stored volume is there. */
const isFull = ({ layouts, statistics, traces }: Volume) =>
  layouts !== undefined && statistics.nulls === 0 && traces.missing === 0;

/** Samples that the input has not are none in the results either, where both lie on the same grid. */
function keepNulls(block: Block, values: Float32Array, size: Shape3): void {
  const [, mj, mk] = block.size;
  const { halo, data } = block;
  const [ni, nj, nk] = size;
  for (let i = 0, to = 0; i < ni; i++)
    for (let j = 0; j < nj; j++, to += nk) {
      const from = ((i + halo.inline) * mj + j + halo.crossline) * mk + halo.sample;
      // a sum tells in one pass whether any of a trace is missing
      let sum = 0;
      for (let k = from; k < from + nk; k++) sum += data[k];
      if (sum - sum !== 0) for (let k = 0; k < nk; k++) if (Number.isNaN(data[from + k])) values[to + k] = Number.NaN;
    }
}

/** Values of a region of the results, by role: `[inline][crossline][sample]`, NaN outside their grid. */
export async function evaluateRegion(
  plan: Plan,
  wanted: Region,
  read: Reader,
  signal?: AbortSignal,
): Promise<Record<string, Float32Array>> {
  const { local, params, ready, volumes } = plan;
  const region = shared(regionOf(shapeOfGrid(plan.grid)), wanted);
  const out: Record<string, Float32Array> = {};
  const empty = () => new Float32Array(samplesIn(wanted)).fill(Number.NaN);
  if (!region) return Object.fromEntries(plan.roles.map((role) => [role, empty()]));
  const left = [wholeOf(plan, region)];
  for (let piece = left.pop(); piece; piece = left.pop()) {
    stopIf(signal);
    const two = halves(plan, piece, plan.pace.most);
    if (two) {
      left.push(two[1], two[0]);
      continue;
    }
    const of = needed(plan, piece);
    const blocks: Record<string, Block> = {};
    for (const [role, volume] of Object.entries(volumes))
      blocks[role] = await (local.own?.includes(role) ? ownBlock : blockOf)(plan, volume, of, read);
    const began = performance.now();
    const values = local.heeds
      ? during(signal, () => local.evaluate(blocks, params, ready, piece))
      : local.evaluate(blocks, params, ready, piece);
    const perMs = worked(plan, piece) / Math.max(0.05, performance.now() - began);
    // no more than four times as many as before: what is quick at first may not stay so
    if (!local.heeds) plan.pace.most = Math.min(MOST_IN_BLOCK, 4 * plan.pace.most, Math.max(1e4, perMs * PIECE_MS));
    for (const [role, data] of Object.entries(values)) {
      if (data.length !== samplesIn(piece))
        throw new RangeError(`${role} has ${data.length} samples for a region of ${samplesIn(piece)}`);
      if (!plan.roles.includes(role)) throw new RangeError(`there is no output called ${role}`);
      // what is handed on as it is lies in memory that the next piece is read into
      const own = Object.values(blocks).some((block) => block.data.buffer === data.buffer) ? data.slice() : data;
      if (!local.grid && !local.fills && !isFull(plan.first)) keepNulls(Object.values(blocks)[0], own, sizeOf(piece));
      if (sameRegion(piece, wanted)) out[role] = own;
      else {
        out[role] ??= empty();
        copyShared(own, piece, out[role], wanted);
      }
    }
  }
  return out;
}

const sameRegion = (a: Region, b: Region) =>
  [a.i, a.j, a.k].every((axis, n) => axis.every((v, end) => v === [b.i, b.j, b.k][n][end]));
