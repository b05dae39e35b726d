import { LithagonError } from '../earth/errors.ts';
import type { ArrayRef } from '../earth/objects.ts';
import type { Store } from './store.ts';

/**
 * Float32 arrays in chunks, as Zarr v3 keeps them (uncompressed, little-endian, C order, `c/0/0/0` keys), so that a
 * folder project opens in any reader of that standard.
 */
export async function createArray(store: Store, ref: ArrayRef, dimensions: string[]): Promise<ArrayRef> {
  const meta = {
    zarr_format: 3,
    node_type: 'array',
    shape: ref.shape,
    data_type: 'float32',
    chunk_grid: { name: 'regular', configuration: { chunk_shape: ref.chunk } },
    chunk_key_encoding: { name: 'default', configuration: { separator: '/' } },
    fill_value: 'NaN',
    codecs: [{ name: 'bytes', configuration: { endian: 'little' } }],
    dimension_names: dimensions,
    attributes: {},
  };
  await store.writeBytes(`${ref.key}/zarr.json`, new TextEncoder().encode(JSON.stringify(meta)));
  return ref;
}

function chunkKey(ref: ArrayRef, at: number[]): string {
  return `${ref.key}/c/${at.join('/')}`;
}

export function chunkLength(ref: ArrayRef): number {
  return ref.chunk.reduce((a, b) => a * b, 1);
}

/** Write one chunk; `data` is a whole chunk, padded with NaN at the far edges. */
export async function writeChunk(store: Store, ref: ArrayRef, at: number[], data: Float32Array): Promise<void> {
  if (data.length !== chunkLength(ref))
    throw new Error(`a chunk of ${ref.key} has ${chunkLength(ref)} values, not ${data.length}`);
  await store.writeBytes(chunkKey(ref, at), new Uint8Array(data.buffer, data.byteOffset, data.byteLength));
}

export async function readChunk(store: Store, ref: ArrayRef, at: number[]): Promise<Float32Array> {
  const bytes = await store.readBytes(chunkKey(ref, at));
  if (!bytes)
    throw new LithagonError(
      'storage',
      `A part of the data is missing from the project's storage (${chunkKey(ref, at)}).`,
      {
        fix: 'Load or compute the object again.',
      },
    );
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

export async function readWhole(store: Store, ref: ArrayRef): Promise<Float32Array> {
  return readChunk(
    store,
    ref,
    ref.shape.map(() => 0),
  );
}
