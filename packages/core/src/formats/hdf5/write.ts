/** A dataset to be written in parts along its first axis. */
export interface H5Data {
  name: string;
  shape: number[];
  /** Parts in order: how many rows of the first axis each has, and its values. */
  parts: AsyncIterable<{ rows: number; values: Float32Array }>;
  /** Rows of the first axis in a chunk. */
  chunkRows?: number;
  attributes: Record<string, string | number>;
}

/** An HDF5 file of float32 datasets with attributes, through h5wasm. */
export async function writeHdf5(datasets: H5Data[], attributes: Record<string, string | number>): Promise<Uint8Array> {
  const h5 = (await import('h5wasm')).default;
  const { FS } = await h5.ready;
  const path = `out-${crypto.randomUUID()}.h5`;
  const file = new h5.File(path, 'w');
  const note = (
    target: { create_attribute(name: string, value: string | number): void },
    facts: H5Data['attributes'],
  ) => {
    for (const [key, value] of Object.entries(facts)) target.create_attribute(key, value);
  };
  try {
    note(file as never, attributes);
    for (const { name, shape, parts, chunkRows, attributes: own } of datasets) {
      const dataset = file.create_dataset({
        name,
        shape,
        dtype: '<f4',
        ...(chunkRows ? { chunks: [Math.min(chunkRows, shape[0]), ...shape.slice(1)] } : {}),
      } as Parameters<typeof file.create_dataset>[0]);
      let row = 0;
      for await (const { rows, values } of parts) {
        dataset.write_slice([[row, row + rows], ...shape.slice(1).map((n) => [0, n])] as [number, number][], values);
        row += rows;
      }
      note(dataset as never, own);
    }
    file.close();
    return FS.readFile(path) as Uint8Array;
  } finally {
    try {
      FS.unlink(path);
    } catch {
      // it may not have been written at all
    }
  }
}
