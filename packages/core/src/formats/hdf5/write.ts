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
      const rest = parts[Symbol.asyncIterator]();
      const first = await rest.next();
      if (first.done) throw new Error(`${name} has no values`);
      const { rows, values } = first.value;
      const whole = rows === shape[0];
      const dataset = file.create_dataset({
        name,
        data: values,
        shape: [rows, ...shape.slice(1)],
        dtype: '<f4',
        // what comes in parts grows to its whole, which only a dataset in chunks can
        ...(whole ? {} : { maxshape: shape, chunks: [Math.min(chunkRows ?? rows, rows), ...shape.slice(1)] }),
      });
      if (!whole) dataset.resize(shape);
      for (let row = rows, next = await rest.next(); !next.done; next = await rest.next()) {
        const end = row + next.value.rows;
        dataset.write_slice([[row, end], ...shape.slice(1).map((n): [number, number] => [0, n])], next.value.values);
        row = end;
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
