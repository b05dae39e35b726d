import type { ArrayRef } from '../earth/objects.ts';
import { damage, wrongLength } from './damage.ts';
import { chunkKey, chunkLength } from './keys.ts';
import type { Store } from './store.ts';

/** What stands for a sample that is not there in an array of 16 bits. */
const NULL_16 = -32768;

/**
 * Float32 arrays in chunks, as Zarr v3 keeps them (uncompressed, little-endian, C order, `c/0/0/0` or `c.0.0.0` keys), so that a
 * folder project opens in any reader of that standard. A compact one holds 16-bit integers, with the factor and offset
 * under the names that the CF conventions give them.
 */
export async function createArray(store: Store, ref: ArrayRef, dimensions: string[]): Promise<ArrayRef> {
  const meta = {
    zarr_format: 3,
    node_type: 'array',
    shape: ref.shape,
    data_type: ref.scaled ? 'int16' : 'float32',
    chunk_grid: { name: 'regular', configuration: { chunk_shape: ref.chunk } },
    chunk_key_encoding: { name: 'default', configuration: { separator: ref.flat ? '.' : '/' } },
    fill_value: ref.scaled ? NULL_16 : 'NaN',
    codecs: [{ name: 'bytes', configuration: { endian: 'little' } }],
    dimension_names: dimensions,
    attributes: ref.scaled
      ? { scale_factor: ref.scaled.factor, add_offset: ref.scaled.offset, _FillValue: NULL_16 }
      : {},
  };
  await store.writeBytes(`${ref.key}/zarr.json`, new TextEncoder().encode(JSON.stringify(meta)));
  return ref;
}

/** Write one chunk; `data` is a whole chunk, padded with NaN at the far edges. */
export async function writeChunk(store: Store, ref: ArrayRef, at: number[], data: Float32Array): Promise<void> {
  if (data.length !== chunkLength(ref))
    throw new Error(`a chunk of ${ref.key} has ${chunkLength(ref)} values, not ${data.length}`);
  if (!ref.scaled) {
    await store.writeBytes(chunkKey(ref, at), new Uint8Array(data.buffer, data.byteOffset, data.byteLength));
    return;
  }
  const { factor, offset } = ref.scaled;
  const small = new Int16Array(data.length);
  for (let n = 0; n < data.length; n++) {
    const value = data[n];
    small[n] = value === value ? Math.max(-32767, Math.min(32767, Math.round((value - offset) / factor))) : NULL_16;
  }
  await store.writeBytes(chunkKey(ref, at), new Uint8Array(small.buffer));
}

/** How samples between two values are kept in 16 bits; none is off by more than half of `factor`. */
export function scaledFor(min: number, max: number): { factor: number; offset: number } {
  const factor = (max - min) / 65533;
  return { factor: factor > 0 ? factor : 1, offset: (min + max) / 2 };
}

/** Read one chunk, whole; one that is missing or of another length is an error that names the object and the part. */
export async function readChunk(store: Store, ref: ArrayRef, at: number[]): Promise<Float32Array> {
  const bytes = await store.readBytes(chunkKey(ref, at));
  const wrong = wrongLength(ref, bytes);
  if (!bytes || wrong) throw await damage(store, ref, at, wrong as string);
  if (ref.scaled) {
    const small =
      bytes.byteOffset % 2 === 0
        ? new Int16Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 2)
        : new Int16Array(bytes.slice().buffer);
    const { factor, offset } = ref.scaled;
    const out = new Float32Array(small.length);
    for (let n = 0; n < small.length; n++) out[n] = small[n] === NULL_16 ? Number.NaN : offset + factor * small[n];
    return out;
  }
  if (bytes.byteOffset % 4 === 0) return new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4);
  return new Float32Array(bytes.slice().buffer);
}

/** Write an array that is one chunk. */
export async function writeWhole(
  store: Store,
  key: string,
  shape: number[],
  data: Float32Array,
  dimensions: string[],
): Promise<ArrayRef> {
  const ref = await createArray(store, { key, shape, chunk: shape }, dimensions);
  await writeChunk(
    store,
    ref,
    shape.map(() => 0),
    data,
  );
  return ref;
}

/** A whole array that is one chunk, or cut along its first axis only. */
export async function readWhole(store: Store, ref: ArrayRef): Promise<Float32Array> {
  const chunks = Math.ceil(ref.shape[0] / ref.chunk[0]);
  const at = (n: number) => ref.shape.map((_, axis) => (axis === 0 ? n : 0));
  if (chunks === 1 && ref.chunk[0] === ref.shape[0]) return readChunk(store, ref, at(0));
  const row = ref.shape.slice(1).reduce((a, b) => a * b, 1);
  const out = new Float32Array(ref.shape[0] * row);
  for (let n = 0; n < chunks; n++) {
    const data = await readChunk(store, ref, at(n));
    const from = n * ref.chunk[0] * row;
    out.set(data.subarray(0, Math.min(data.length, out.length - from)), from);
  }
  return out;
}

/** The same values under another key. */
export async function copyWhole(store: Store, ref: ArrayRef, key: string): Promise<ArrayRef> {
  const names = ['inline', 'crossline', 'sample'].slice(0, ref.shape.length);
  return writeWhole(store, key, ref.shape, await readWhole(store, ref), ref.shape.length === 1 ? ['trace'] : names);
}
