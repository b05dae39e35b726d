import { stopIf } from '../earth/errors.ts';
import type { Volume } from '../earth/objects.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import { readInlines, readPlane, shapeOf } from '../storage/planes.ts';
import { type Plane, volumeWriter } from '../storage/volumes.ts';
import type { AnyLocal, Block, Draft, Given, Halo, LocalVolume, RunContext } from './define.ts';

/** A region of bins and samples, ends excluded. */
export interface Region {
  i: [number, number];
  j: [number, number];
  k: [number, number];
}

/** Cut a region with its halo out of whole inlines that begin at `i0`; NaN outside the volume. */
function cut(
  lines: Float32Array,
  i0: number,
  shape: [number, number, number],
  region: Region,
  halo: Halo,
): Block['data'] {
  const [, nj, nk] = shape;
  const count = lines.length / (nj * nk);
  const size = sizeOf(region, halo);
  const out = new Float32Array(size[0] * size[1] * size[2]).fill(Number.NaN);
  const k0 = Math.max(0, region.k[0] - halo.sample);
  const k1 = Math.min(nk, region.k[1] + halo.sample);
  for (let a = 0; a < size[0]; a++) {
    const i = region.i[0] - halo.inline + a - i0;
    if (i < 0 || i >= count) continue;
    for (let b = 0; b < size[1]; b++) {
      const j = region.j[0] - halo.crossline + b;
      if (j < 0 || j >= nj) continue;
      const from = (i * nj + j) * nk;
      out.set(lines.subarray(from + k0, from + k1), (a * size[1] + b) * size[2] + k0 - (region.k[0] - halo.sample));
    }
  }
  return out;
}

function sizeOf(region: Region, halo: Halo): [number, number, number] {
  return [
    region.i[1] - region.i[0] + 2 * halo.inline,
    region.j[1] - region.j[0] + 2 * halo.crossline,
    region.k[1] - region.k[0] + 2 * halo.sample,
  ];
}

/** A halo in samples that are there: whole traces need none. */
function bounded(halo: Halo): { halo: Halo; whole: boolean } {
  const whole = !Number.isFinite(halo.sample);
  return { halo: whole ? { ...halo, sample: 0 } : halo, whole };
}

const fromOf = (region: Region): Block['from'] => [region.i[0], region.j[0], region.k[0]];

/** Run a local step over a whole volume, a slab of inlines at a time. */
export async function runLocal<P, X>(
  context: Pick<RunContext<never, P>, 'store' | 'params' | 'signal' | 'progress' | 'idFor'> & { inputs: Given },
  local: LocalVolume<P, X>,
  volume: Volume,
  role: string,
): Promise<Draft> {
  const { store, params, signal } = context;
  const shape = shapeOf(volume);
  const [ni, nj, nk] = shape;
  const { halo } = bounded(local.halo(params, volume));
  const extra = (await local.prepare?.(context.inputs, volume, params, store)) as X;
  const writer = await volumeWriter(store, context.idFor(role), shape);
  const statistics = new RunningStatistics();
  for (let i0 = 0; i0 < ni; i0 += writer.slab) {
    stopIf(signal);
    const i1 = Math.min(ni, i0 + writer.slab);
    const lines = await readInlines(store, volume, i0 - halo.inline, i1 + halo.inline);
    const region: Region = { i: [i0, i1], j: [0, nj], k: [0, nk] };
    const data = cut(lines, i0 - halo.inline, shape, region, halo);
    const block: Block = { data, size: sizeOf(region, halo), halo, stepMs: volume.vertical.step, from: fromOf(region) };
    const values = local.evaluate(block, params, extra);
    statistics.add(values);
    const slab = new Float32Array(writer.slab * nj * nk).fill(Number.NaN);
    slab.set(values);
    await writer.write(i0, slab);
    context.progress(i1 / ni);
  }
  await writer.finish();
  return {
    kind: 'volume',
    lattice: volume.lattice,
    domain: volume.domain,
    quantity: local.quantity ?? volume.quantity,
    unit: local.quantity ? (local.unit ?? '') : volume.unit,
    polarity: local.quantity ? undefined : volume.polarity,
    vertical: volume.vertical,
    layouts: writer.layouts,
    statistics: statistics.finish(),
    traces: volume.traces,
  };
}

/** What a local step gives on one plane: the same samples as the stored result would have there. */
export async function tryLocal<P>(
  local: AnyLocal<P>,
  params: P,
  store: Parameters<typeof readInlines>[0],
  volume: Volume,
  plane: Plane,
  index: number,
  given: Given = {},
): Promise<Float32Array> {
  const shape = shapeOf(volume);
  const [ni, nj, nk] = shape;
  const { halo, whole } = bounded(local.halo(params, volume));
  const extra = await local.prepare?.(given, volume, params, store);
  const evaluate = (data: Float32Array, region: Region) =>
    local.evaluate(
      { data, size: sizeOf(region, halo), halo, stepMs: volume.vertical.step, from: fromOf(region) },
      params,
      extra,
    );
  if (plane === 'inline') {
    const lines = await readInlines(store, volume, index - halo.inline, index + halo.inline + 1);
    const region: Region = { i: [index, index + 1], j: [0, nj], k: [0, nk] };
    return evaluate(cut(lines, index - halo.inline, shape, region, halo), region);
  }
  if (plane === 'slice' && whole) {
    // whole traces are needed for one sample of each
    const out = new Float32Array(ni * nj);
    for (let i = 0; i < ni; i++) {
      const lines = await readInlines(store, volume, i - halo.inline, i + halo.inline + 1);
      const region: Region = { i: [i, i + 1], j: [0, nj], k: [0, nk] };
      const values = evaluate(cut(lines, i - halo.inline, shape, region, halo), region);
      for (let j = 0; j < nj; j++) out[i * nj + j] = values[j * nk + index];
    }
    return out;
  }
  const axis = plane === 'crossline' ? 'crossline' : 'sample';
  const region: Region =
    plane === 'crossline'
      ? { i: [0, ni], j: [index, index + 1], k: [0, nk] }
      : { i: [0, ni], j: [0, nj], k: [index, index + 1] };
  const size = sizeOf(region, halo);
  const data = new Float32Array(size[0] * size[1] * size[2]).fill(Number.NaN);
  const most = plane === 'crossline' ? nj : nk;
  for (let d = -halo[axis]; d <= halo[axis]; d++) {
    if (index + d < 0 || index + d >= most) continue;
    const from = await readPlane(store, volume, plane, index + d);
    for (let i = 0; i < ni; i++)
      if (plane === 'crossline')
        data.set(
          from.subarray(i * nk, (i + 1) * nk),
          ((i + halo.inline) * size[1] + d + halo.crossline) * size[2] + halo.sample,
        );
      else
        for (let j = 0; j < nj; j++)
          data[((i + halo.inline) * size[1] + j + halo.crossline) * size[2] + d + halo.sample] = from[i * nj + j];
  }
  return evaluate(data, region);
}
