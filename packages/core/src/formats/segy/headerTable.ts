import type { ByteSource } from '../source.ts';
import { openSegy } from './file.ts';
import { traceOffset } from './headers.ts';
import { sampleHeaders } from './positions.ts';

/** A header field of many traces, for a table of them. */
export interface HeaderColumn {
  byte: number;
  size: 2 | 4;
  meaning: string;
}

// SEG-Y rev 1, table 3: what each place of a trace header is for
export const TRACE_FIELDS: HeaderColumn[] = (
  [
    [1, 4, 'Trace in line'],
    [5, 4, 'Trace in file'],
    [9, 4, 'Field record'],
    [13, 4, 'Trace in record'],
    [17, 4, 'Source point'],
    [21, 4, 'CDP'],
    [25, 4, 'Trace in CDP'],
    [29, 2, 'Trace kind'],
    [35, 2, 'Data use'],
    [37, 4, 'Offset'],
    [41, 4, 'Receiver elevation'],
    [45, 4, 'Source elevation'],
    [69, 2, 'Scalar of elevations'],
    [71, 2, 'Scalar of coordinates'],
    [73, 4, 'Source X'],
    [77, 4, 'Source Y'],
    [81, 4, 'Receiver X'],
    [85, 4, 'Receiver Y'],
    [89, 2, 'Unit of coordinates'],
    [103, 2, 'Total static'],
    [105, 2, 'Lag A'],
    [109, 2, 'Delay'],
    [115, 2, 'Samples'],
    [117, 2, 'Sample interval'],
    [181, 4, 'CDP X'],
    [185, 4, 'CDP Y'],
    [189, 4, 'Inline'],
    [193, 4, 'Crossline'],
    [197, 4, 'Shotpoint'],
    [201, 2, 'Scalar of shotpoint'],
    [203, 2, 'Unit of values'],
    [205, 4, ''],
    [209, 4, ''],
    [213, 4, ''],
    [217, 4, ''],
    [221, 4, ''],
    [225, 4, ''],
    [229, 4, ''],
    [233, 4, ''],
    [237, 4, ''],
  ] as [number, 2 | 4, string][]
).map(([byte, size, meaning]) => ({ byte, size, meaning }));

/** Values of all fields for a run of traces, with the spread of each over the file. */
export interface HeaderTable {
  traces: number;
  from: number;
  rows: number[][];
  /** Least and greatest of each field over traces from all over the file, and how many differ. */
  spread: { min: number; max: number; distinct: number }[];
}

export async function headerTable(source: ByteSource, from: number, count: number): Promise<HeaderTable> {
  const file = await openSegy([source]);
  const { headers } = file.parts[0];
  const read = (view: DataView) =>
    TRACE_FIELDS.map(({ byte, size }) =>
      size === 4 ? view.getInt32(byte - 1, headers.littleEndian) : view.getInt16(byte - 1, headers.littleEndian),
    );
  const rows: number[][] = [];
  for (let n = from; n < Math.min(headers.traces, from + count); n++) {
    const bytes = await source.read(traceOffset(headers, n), 240);
    rows.push(read(new DataView(bytes.buffer, bytes.byteOffset, 240)));
  }
  const sample = (await sampleHeaders(source, headers)).views.map(read);
  const spread = TRACE_FIELDS.map((_, c) => {
    const values = sample.map((row) => row[c]);
    return {
      min: values.reduce((a, b) => Math.min(a, b), values[0]),
      max: values.reduce((a, b) => Math.max(a, b), values[0]),
      distinct: new Set(values).size,
    };
  });
  return { traces: headers.traces, from, rows, spread };
}
