import { BlobWriter, configure, TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import { crosslineAt, inlineAt, toMap } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { SeismicLine, Volume } from '../../earth/objects.ts';
import { writeHdf5 } from '../../formats/hdf5/write.ts';
import { type SegyWriteFacts, segyHead, traceBytes, weightOf, writeTrace } from '../../formats/segy/write.ts';
import { VTK_TAIL, vtkHead, vtkLength } from '../../formats/vtk/write.ts';
import { pathOfLine } from '../../project/lines.ts';
import { readWhole } from '../../storage/arrays.ts';
import { readInlines, shapeOf } from '../../storage/planes.ts';
import type { Out } from './out.ts';

configure({ useWebWorkers: false });

/** Samples written at a time, at most. */
const HELD = 4e6;

/** What the trail knows, for a text header of 80 columns. */
async function textOf({ frame, map, options, store, told }: Out, object: Volume | SeismicLine): Promise<string[]> {
  const { name } = await store.facts();
  const { madeBy, vertical: v } = object;
  // broken at blanks, so that no number is cut in two
  const in80 = (text: string) => text.toUpperCase().match(/(?:^ {0,4})?\S(?:.{0,71}(?= |$)|\S{0,71})/g) ?? [];
  const polarity =
    object.polarity === undefined
      ? 'NOT DECLARED'
      : `AN INCREASE OF IMPEDANCE IS ${object.polarity === 'harder-positive' ? 'POSITIVE' : 'NEGATIVE'}`;
  const { step, params } = told(madeBy);
  const from = Object.values(madeBy.inputs)
    .flat()
    .map((ref) => ref.split('@')[0]);
  const sources = (await store.list()).filter((o) => from.includes(o.id)).map((o) => o.name);
  const lines = [
    `${object.name}, PROJECT ${name}`,
    `WRITTEN BY LITHAGON ${new Date().toISOString().slice(0, 10)}`,
    `DOMAIN ${object.domain === 'twt' ? 'TWO-WAY TIME, MS' : 'DEPTH, M'}; QUANTITY ${object.quantity}${object.unit ? ` IN ${object.unit}` : ''}`,
    `POLARITY ${polarity}`,
    `COORDINATES ${frame ? `${frame.crs} ${frame.crsName}` : 'OF NO SYSTEM THAT WAS DECLARED'}, ${map.unit}`,
    `DATUM ${frame?.datumM ? `${frame.datumM} M ABOVE MEAN SEA LEVEL` : 'MEAN SEA LEVEL'}`,
    `SAMPLES ${v.count} FROM ${v.first} BY ${v.step} ${object.domain === 'twt' ? 'MS' : 'M (IN THE PLACE OF MS)'}`,
    object.kind === 'volume'
      ? 'INLINE IN BYTES 189-192 AND 9-12, CROSSLINE IN BYTES 193-196 AND 21-24'
      : 'CDP IN BYTES 21-24, SHOTPOINT IN BYTES 197-200',
    object.kind === 'volume' && object.binGrid.local
      ? 'NO COORDINATES: THE VOLUME WAS NOT PLACED ON THE MAP'
      : 'CDP X IN BYTES 181-184 AND 73-76, CDP Y IN BYTES 185-188 AND 77-80, TIMES 100',
    ...(options.format === 'compact'
      ? [`VALUES ARE SAMPLES TIMES 2 TO THE POWER OF ${-weightOf(object.statistics)} (BYTES 169-170)`]
      : []),
    'TRACES WITHOUT SAMPLES ARE DEAD (BYTES 29-30 ARE 2) AND HOLD ZEROS',
    madeBy.file
      ? `LOADED FROM ${madeBy.file}`
      : `MADE BY ${step}, VERSION ${madeBy.version}, FROM ${sources.join(', ')}`,
    ...params.map(({ title: key, value }) => `  ${key}: ${value}`),
    `REVISION ${object.revision.slice(0, 16)}`,
  ];
  return lines.flatMap(in80).slice(0, 38);
}

/** SEG-Y of a volume, an inline at a time, or of a 2D line. */
export async function* segyOut(out: Out, object: Volume | SeismicLine): AsyncGenerator<Uint8Array> {
  const { store, map, options, signal } = out;
  const { vertical: v } = object;
  const path = object.kind === 'seismic line' ? pathOfLine(await store.list(), object) : null;
  const facts: SegyWriteFacts = {
    revision: options.revision === '2' ? 2 : 1,
    format: options.format ?? 'ieee',
    samples: v.count,
    step: v.step,
    first: v.first,
    traces:
      object.kind === 'volume' ? object.binGrid.inline.count * object.binGrid.crossline.count : object.cdps.length,
    feet: map.unit !== 'm',
    text: await textOf(out, object),
    statistics: object.statistics,
  };
  if (v.count > 65535 && facts.revision === 1)
    throw new LithagonError(
      'export',
      `${object.name} has ${v.count} samples a trace; revision 1 of SEG-Y counts to 65 535.`,
      {
        object: object.name,
        fix: 'Write revision 2.',
      },
    );
  yield segyHead(facts);
  const bytes = traceBytes(facts);
  if (object.kind === 'seismic line') {
    const data = await readWhole(store, object.samples);
    const traces = new Uint8Array(object.cdps.length * bytes);
    object.cdps.forEach((cdp, t) => {
      const [x, y] = path?.[t] ?? [0, 0];
      const numbers = {
        trace: t,
        inline: 0,
        crossline: 0,
        cdp,
        shotpoint: object.shotpoints?.[t],
        x: x * map.scale,
        y: y * map.scale,
      };
      writeTrace(traces, t * bytes, facts, numbers, data, t * v.count);
    });
    yield traces;
    return;
  }
  const [ni, nj, nk] = shapeOf(object);
  for (let i = 0; i < ni; i++) {
    stopIf(signal);
    const line = await readInlines(store, object, i, i + 1);
    const traces = new Uint8Array(nj * bytes);
    for (let j = 0; j < nj; j++) {
      // lengths on a grid of its own are no coordinates
      const [x, y] = object.binGrid.local ? [0, 0] : toMap(object.binGrid, i, j);
      const crossline = crosslineAt(object.binGrid, j);
      const numbers = {
        trace: i * nj + j,
        inline: inlineAt(object.binGrid, i),
        crossline,
        cdp: crossline,
        x: x * map.scale,
        y: y * map.scale,
      };
      writeTrace(traces, j * bytes, facts, numbers, line, j * nk);
    }
    yield traces;
  }
}

/** A few inlines at a time. */
async function* inlinesOf(
  { store, signal }: Out,
  volume: Volume,
): AsyncGenerator<{ rows: number; values: Float32Array }> {
  const [ni, nj, nk] = shapeOf(volume);
  const few = Math.max(1, Math.floor(HELD / (nj * nk)));
  for (let i = 0; i < ni; i += few) {
    stopIf(signal);
    const end = Math.min(ni, i + few);
    yield { rows: end - i, values: await readInlines(store, volume, i, end) };
  }
}

/**
 * A volume as a VTK image: its axes are samples (downwards), crosslines and inlines, turned as the survey is. Bins that
 * are no rectangle cannot be an image.
 */
export async function* volumeVtk(out: Out, volume: Volume): AsyncGenerator<Uint8Array> {
  const { map } = out;
  const { perInline: a, perCrossline: b, origin } = volume.binGrid;
  const [la, lb] = [Math.hypot(...a), Math.hypot(...b)];
  if (Math.abs(a[0] * b[0] + a[1] * b[1]) > 1e-3 * la * lb)
    throw new LithagonError('export', `The bins of ${volume.name} are no rectangles, which a VTK image cannot hold.`, {
      object: volume.name,
      fix: 'Write SEG-Y, HDF5 or Zarr. Nothing was written.',
    });
  const [ni, nj, nk] = shapeOf(volume);
  const { first, step } = volume.vertical;
  const extent = `0 ${nk - 1} 0 ${nj - 1} 0 ${ni - 1}`;
  // columns are the directions of samples, crosslines and inlines
  const direction = [0, b[0] / lb, a[0] / la, 0, b[1] / lb, a[1] / la, -1, 0, 0];
  const attributes = ` WholeExtent="${extent}" Origin="${origin[0] * map.scale} ${origin[1] * map.scale} ${-first}" Spacing="${step} ${lb * map.scale} ${la * map.scale}" Direction="${direction.join(' ')}"`;
  const bytes = 4 * ni * nj * nk;
  const { head } = vtkHead({
    kind: 'ImageData',
    attributes,
    piece: `Extent="${extent}"`,
    pointData: [{ name: volume.quantity, type: 'Float32', components: 1, bytes }],
  });
  const text = new TextEncoder();
  yield text.encode(head);
  yield vtkLength(bytes);
  for await (const { values } of inlinesOf(out, volume))
    yield new Uint8Array(values.buffer, values.byteOffset, values.byteLength);
  yield text.encode(VTK_TAIL);
}

async function* once(rows: number, values: Float32Array) {
  yield { rows, values };
}

/** A volume or 2D line with its axes and positions as HDF5. */
export async function seismicHdf5(out: Out, object: Volume | SeismicLine): Promise<Uint8Array> {
  const { store, frame, map } = out;
  const { vertical: v } = object;
  const facts = {
    name: object.name,
    quantity: object.quantity,
    unit: object.unit,
    domain: object.domain,
    polarity: object.polarity ?? '',
    crs: frame?.crs ?? '',
    map_unit: map.unit,
  };
  const axis = Float32Array.from({ length: v.count }, (_, k) => v.first + k * v.step);
  const vertical = {
    name: object.domain === 'twt' ? 'twt' : 'depth',
    shape: [v.count],
    parts: once(v.count, axis),
    attributes: { units: object.domain === 'twt' ? 'ms' : 'm' },
  };
  if (object.kind === 'seismic line') {
    const path = pathOfLine(await store.list(), object) ?? [];
    const data = await readWhole(store, object.samples);
    const n = object.cdps.length;
    const numbers = (name: string, values: number[]) => ({
      name,
      shape: [n],
      parts: once(n, Float32Array.from(values)),
      attributes: {},
    });
    return writeHdf5(
      [
        { name: 'samples', shape: [n, v.count], parts: once(n, data), attributes: { dimensions: 'trace sample' } },
        vertical,
        numbers('cdp', object.cdps),
        ...(path.length > 0
          ? [
              numbers(
                'x',
                path.map((p) => p[0] * map.scale),
              ),
              numbers(
                'y',
                path.map((p) => p[1] * map.scale),
              ),
            ]
          : []),
      ],
      facts,
    );
  }
  const [ni, nj, nk] = shapeOf(object);
  const { binGrid } = object;
  const lines = (name: string, count: number, at: (n: number) => number) => ({
    name,
    shape: [count],
    parts: once(
      count,
      Float32Array.from({ length: count }, (_, n) => at(n)),
    ),
    attributes: {},
  });
  const position = (c: 0 | 1) =>
    Float32Array.from({ length: ni * nj }, (_, n) => toMap(binGrid, Math.floor(n / nj), n % nj)[c] * map.scale);
  return writeHdf5(
    [
      {
        name: 'samples',
        shape: [ni, nj, nk],
        parts: inlinesOf(out, object),
        chunkRows: Math.max(1, Math.round(262144 / (nj * nk))),
        attributes: { dimensions: 'inline crossline sample' },
      },
      lines('inline', ni, (n) => inlineAt(binGrid, n)),
      lines('crossline', nj, (n) => crosslineAt(binGrid, n)),
      vertical,
      { name: 'x', shape: [ni, nj], parts: once(ni, position(0)), attributes: { units: map.unit } },
      { name: 'y', shape: [ni, nj], parts: once(ni, position(1)), attributes: { units: map.unit } },
    ],
    facts,
  );
}

/** A volume as a zipped Zarr v3 group: its samples by inlines, and its axes and positions as arrays beside them. */
export async function volumeZarr(out: Out, volume: Volume): Promise<Uint8Array> {
  const { store, frame, map, signal } = out;
  const writer = new ZipWriter(new BlobWriter('application/zip'), { level: 0, zip64: true, keepOrder: true });
  const [ni, nj, nk] = shapeOf(volume);
  const { binGrid, vertical: v } = volume;
  const json = (name: string, value: unknown) => writer.add(name, new TextReader(JSON.stringify(value)));
  const meta = (shape: number[], chunk: number[], type: string, dimensions: string[], attributes: object) => ({
    zarr_format: 3,
    node_type: 'array',
    shape,
    data_type: type,
    chunk_grid: { name: 'regular', configuration: { chunk_shape: chunk } },
    chunk_key_encoding: { name: 'default', configuration: { separator: '/' } },
    fill_value: 'NaN',
    codecs: [{ name: 'bytes', configuration: { endian: 'little' } }],
    dimension_names: dimensions,
    attributes,
  });
  await json('zarr.json', {
    zarr_format: 3,
    node_type: 'group',
    attributes: {
      name: volume.name,
      quantity: volume.quantity,
      unit: volume.unit,
      domain: volume.domain,
      polarity: volume.polarity ?? '',
      crs: frame?.crs ?? '',
      map_unit: map.unit,
    },
  });
  const few = Math.max(1, Math.min(ni, Math.round(262144 / (nj * nk))));
  await json(
    'samples/zarr.json',
    meta([ni, nj, nk], [few, nj, nk], 'float32', ['inline', 'crossline', 'sample'], { units: volume.unit }),
  );
  for (let i = 0; i < ni; i += few) {
    stopIf(signal);
    const values = await readInlines(store, volume, i, i + few);
    await writer.add(`samples/c/${i / few}/0/0`, new Uint8ArrayReader(new Uint8Array(values.buffer)));
  }
  const array = async (
    name: string,
    shape: number[],
    dimensions: string[],
    at: (n: number) => number,
    units: string,
  ) => {
    const values = Float64Array.from({ length: shape.reduce((p, q) => p * q, 1) }, (_, n) => at(n));
    await json(`${name}/zarr.json`, meta(shape, shape, 'float64', dimensions, { units }));
    await writer.add(`${name}/c/${shape.map(() => 0).join('/')}`, new Uint8ArrayReader(new Uint8Array(values.buffer)));
  };
  await array('inline', [ni], ['inline'], (n) => inlineAt(binGrid, n), '');
  await array('crossline', [nj], ['crossline'], (n) => crosslineAt(binGrid, n), '');
  await array('sample', [nk], ['sample'], (n) => v.first + n * v.step, volume.domain === 'twt' ? 'ms' : 'm');
  const place = (c: 0 | 1) => (n: number) => toMap(binGrid, Math.floor(n / nj), n % nj)[c] * map.scale;
  await array('x', [ni, nj], ['inline', 'crossline'], place(0), map.unit);
  await array('y', [ni, nj], ['inline', 'crossline'], place(1), map.unit);
  const blob = await writer.close();
  return new Uint8Array(await blob.arrayBuffer());
}
