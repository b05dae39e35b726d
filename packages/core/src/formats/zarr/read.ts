import type { FileEntry } from '@zip.js/zip.js';
import { LithagonError } from '../../earth/errors.ts';
import type { ByteSource } from '../source.ts';
import { unzipped, zipFiles } from '../zip.ts';

const MOST_ENTRIES = 200_000;
const MOST_DESCRIPTION = 1e6;
const MOST_CHUNK = 512e6;
/** Samples that may all be empty, and bytes that there must be for each beyond that. */
const FEW = 10e6;
const SPARSEST = 0.01;

/** A zipped Zarr v3 group with a volume in it. */
export interface ZarrVolume {
  shape: [number, number, number];
  attributes: Record<string, unknown>;
  /** Axis values: inline and crossline numbers, times or depths. */
  axes: [Float64Array, Float64Array, Float64Array];
  /** Map positions `[inline][crossline]`, where the file has them. */
  x: Float64Array | null;
  y: Float64Array | null;
  /** Samples of inlines `[from, to)`. */
  inlines(from: number, to: number): Promise<Float32Array>;
}

/** Open a Zarr v3 group, zipped, that holds one array of three dimensions; its axes by the names of its dimensions. */
export async function openZarrVolume(source: ByteSource): Promise<ZarrVolume> {
  const refuse = (why: string, fix = 'Ask for the file again, or write it as SEG-Y.'): never => {
    throw new LithagonError('zarr', `${source.name} cannot be read as a zipped Zarr: ${why}.`, {
      object: source.name,
      fix,
    });
  };
  const zarr = await import('zarrita');
  const files = new Map<string, FileEntry>();
  try {
    for await (const e of zipFiles(source)) {
      if (files.size >= MOST_ENTRIES) refuse(`it has more than ${MOST_ENTRIES} entries`);
      files.set(`/${e.filename.replace(/^\/+/, '')}`, e);
    }
  } catch (cause) {
    if (cause instanceof LithagonError) throw cause;
    refuse('it is no zip file, or was cut short');
  }
  const root = [...files.keys()].filter((k) => k.endsWith('/zarr.json')).sort((a, b) => a.length - b.length)[0];
  if (!root) refuse('it holds no zarr.json (only version 3 of the format is read)');
  const prefix = root.slice(0, -'/zarr.json'.length);
  const store = {
    async get(key: string): Promise<Uint8Array | undefined> {
      const entry = files.get(prefix + key);
      // what it unpacks to is known before it is unpacked
      if (entry && entry.uncompressedSize > (key.endsWith('/zarr.json') ? MOST_DESCRIPTION : MOST_CHUNK))
        refuse(`“${key.slice(0, 80)}” in it unpacks to ${(entry.uncompressedSize / 1e6).toFixed(0)} MB`);
      return entry && unzipped(entry).catch(() => refuse(`“${key.slice(0, 80)}” in it is damaged`));
    },
  };
  const open = async (path: string) => {
    try {
      return await zarr.open.v3(zarr.root(store as never).resolve(path), { kind: 'array' });
    } catch (cause) {
      return refuse(`its array “${path}” cannot be opened (${(cause as Error).message.slice(0, 120)})`);
    }
  };
  const arrays = [...files.keys()]
    .filter((k) => k.startsWith(prefix) && k.endsWith('/zarr.json'))
    .map((k) => k.slice(prefix.length, -'/zarr.json'.length))
    .filter((k) => k !== '');
  const found = new Map<string, Awaited<ReturnType<typeof open>>>();
  for (const path of arrays.slice(0, 200)) {
    const text = await store.get(`${path}/zarr.json`);
    let meta: { node_type?: string } = {};
    try {
      meta = JSON.parse(new TextDecoder().decode(text));
    } catch {
      refuse(`the description of “${path.slice(0, 80)}” is no JSON`);
    }
    if (meta.node_type === 'array') found.set(path.replace(/^\//, ''), await open(path));
  }
  const cubes = [...found].filter(([, a]) => a.shape.length === 3);
  if (cubes.length !== 1) refuse(`it holds ${cubes.length} arrays of three dimensions, where one is read`);
  const [[name, cube]] = cubes;
  const shape = [...cube.shape] as [number, number, number];
  if (shape.some((n) => n < 2 || n > 1e6)) refuse(`its array is ${shape.join(' × ')}`);
  if (cube.chunks.reduce((a, b) => a * b, 4) > MOST_CHUNK) refuse(`its chunks are ${cube.chunks.join(' × ')}`);
  // parts that were never written stand for empty ones; where nearly all are, it is a claim and no volume
  const own = [...files.keys()].filter((k) => k.startsWith(`${prefix}/${name}/`)).length - 1;
  const samples = shape.reduce((a, b) => a * b, 1);
  if (own < 1) refuse('it has no samples, only what they would be');
  const written = [...files]
    .filter(([k]) => k.startsWith(`${prefix}/${name}/`))
    .reduce((sum, [, e]) => sum + e.uncompressedSize, 0);
  if (samples > FEW && written < samples * SPARSEST)
    refuse(`it says that it has ${samples} samples, and holds ${(written / 1e6).toFixed(1)} MB of them`);
  const numbers = async (path: string, length: number): Promise<Float64Array | null> => {
    const array = found.get(path);
    if (!array || array.shape.reduce((a, b) => a * b, 1) !== length) return null;
    const { data } = await zarr.get(array as never);
    const values = Float64Array.from(data as ArrayLike<number>, Number);
    return values.length === length ? values : null;
  };
  let dimensions: string[] = [];
  let attributes: Record<string, unknown> = {};
  try {
    const meta = JSON.parse(new TextDecoder().decode(await store.get(`/${name}/zarr.json`)));
    dimensions = meta.dimension_names ?? [];
    const group = JSON.parse(new TextDecoder().decode((await store.get('/zarr.json')) ?? new Uint8Array([123, 125])));
    attributes = { ...(group.attributes ?? {}), ...(meta.attributes ?? {}) };
  } catch {
    refuse('its description is no JSON');
  }
  const axis = async (n: number) =>
    (await numbers(dimensions[n] ?? '', shape[n])) ?? Float64Array.from({ length: shape[n] }, (_, k) => k + 1);
  return {
    shape,
    attributes,
    axes: [await axis(0), await axis(1), await axis(2)],
    x: await numbers('x', shape[0] * shape[1]),
    y: await numbers('y', shape[0] * shape[1]),
    async inlines(from, to) {
      const out = new Float32Array((to - from) * shape[1] * shape[2]);
      const counts = shape.map((n, axis) => Math.ceil(n / cube.chunks[axis]));
      const [ti, tj, tk] = cube.chunks;
      for (let ci = Math.floor(from / ti); ci * ti < to; ci++)
        for (let cj = 0; cj < counts[1]; cj++)
          for (let ck = 0; ck < counts[2]; ck++) {
            const part = await cube.getChunk([ci, cj, ck]).catch(() => null);
            // one that is too short would be read on as nothing
            if (!part || (part.data as ArrayLike<unknown>).length !== ti * tj * tk)
              refuse(`a part of its samples (inlines from number ${ci * ti + 1} on) is damaged or cut short`);
            else take(part as never, [ci * ti, cj * tj, ck * tk], out, from, to);
          }
      return out;
    },
  };

  /** Put what of a chunk lies in the inlines wanted where it belongs. */
  function take(
    part: { data: ArrayLike<number>; stride: number[] },
    [i0, j0, k0]: number[],
    out: Float32Array,
    from: number,
    to: number,
  ): void {
    const [ni, nj, nk] = shape;
    const [si, sj, sk] = part.stride;
    const ends = [i0, j0, k0].map((first, axis) => Math.min(shape[axis], first + cube.chunks[axis]));
    for (let i = Math.max(i0, from); i < Math.min(ends[0], to, ni); i++)
      for (let j = j0; j < ends[1]; j++) {
        const base = ((i - from) * nj + j) * nk;
        const at = (i - i0) * si + (j - j0) * sj;
        for (let k = k0; k < ends[2]; k++) out[base + k] = Number(part.data[at + (k - k0) * sk]);
      }
  }
}
