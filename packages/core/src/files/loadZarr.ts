import type { Axis, BinGrid } from '../earth/binGrid.ts';
import { LithagonError, stopIf } from '../earth/errors.ts';
import type { Volume } from '../earth/objects.ts';
import { isQuantity } from '../earth/quantities.ts';
import type { ByteSource } from '../formats/source.ts';
import { openZarrVolume, type ZarrVolume } from '../formats/zarr/read.ts';
import { hasher } from '../numerics/hash.ts';
import { leastSquares } from '../numerics/leastSquares.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import { checkRange } from '../project/redeclare.ts';
import { volumeWriter } from '../storage/volumes.ts';
import { placementFor } from './coordinates.ts';
import type { Loaded, Loading } from './loading.ts';
import type { Declarations, FileReport, Question } from './report.ts';
import { questionsFor } from './segy/inspect.ts';
import { declaredOf } from './segy/load.ts';

const text = (value: unknown) => (typeof value === 'string' ? value.slice(0, 200) : '');

/** What the file's own attributes say, over what it leaves open. */
export function zarrDeclarations({ attributes }: ZarrVolume): Declarations {
  const out: Declarations = {};
  for (const key of ['domain', 'quantity', 'unit', 'polarity', 'crs'] as const)
    if (text(attributes[key])) out[key] = text(attributes[key]);
  if (text(attributes.map_unit)) out['unit.xy'] = text(attributes.map_unit);
  if (out.quantity && !isQuantity(out.quantity)) delete out.quantity;
  if (out.domain && out.domain !== 'twt' && out.domain !== 'depth') delete out.domain;
  return out;
}

function regular(name: string, what: string, values: Float64Array): Axis {
  const step = values[1] - values[0];
  const even = values.every((v, n) => Math.abs(v - values[0] - n * step) < 1e-3 * Math.abs(step));
  if (!even || step === 0)
    throw new LithagonError('zarr', `${name}: its ${what} are not evenly spaced.`, {
      object: name,
      fix: 'Resample it where it was made.',
    });
  return { first: values[0], step, count: values.length };
}

function binGridOf(name: string, zarr: ZarrVolume, toMap: (x: number, y: number) => [number, number]): BinGrid {
  const [ni, nj] = zarr.shape;
  const inline = regular(name, 'inline numbers', zarr.axes[0]);
  const crossline = regular(name, 'crossline numbers', zarr.axes[1]);
  const { x, y } = zarr;
  if (!x || !y)
    throw new LithagonError('zarr', `${name} does not say where its bins lie.`, {
      object: name,
      fix: 'It needs arrays “x” and “y” of a position for every inline and crossline.',
    });
  const design: number[][] = [];
  const [xs, ys]: number[][] = [[], []];
  const base = toMap(x[0], y[0]);
  const every = Math.max(1, Math.floor((ni * nj) / 4000));
  for (let n = 0; n < ni * nj; n += every) {
    const [px, py] = toMap(x[n], y[n]);
    design.push([1, Math.floor(n / nj), n % nj]);
    xs.push(px - base[0]);
    ys.push(py - base[1]);
  }
  const [cx, cy] = [leastSquares(design, xs), leastSquares(design, ys)];
  if (!cx || !cy) throw new LithagonError('zarr', `${name}: its positions make no grid.`, { object: name });
  return {
    inline,
    crossline,
    origin: [base[0] + cx[0], base[1] + cy[0]],
    perInline: [cx[1], cy[1]],
    perCrossline: [cx[2], cy[2]],
  };
}

/** What a zipped Zarr holds, and what it leaves to be said. */
export async function inspectZarr(
  source: ByteSource,
): Promise<Pick<FileReport, 'takenFor' | 'facts' | 'questions' | 'sketch'>> {
  const zarr = await openZarrVolume(source);
  const said = zarrDeclarations(zarr);
  const [ni, nj, nk] = zarr.shape;
  const middle = (await zarr.inlines(Math.floor(ni / 2), Math.floor(ni / 2) + 1))
    .filter((v) => Number.isFinite(v))
    .sort();
  const negative = middle.findIndex((v) => v >= 0) / Math.max(1, middle.length);
  const questions: Question[] = questionsFor(
    {
      min: middle[0] ?? 0,
      negative: negative < 0 ? 1 : negative,
      median: middle[middle.length >> 1] ?? 0,
    },
    [source.name],
  ).filter((q) => !said[q.key]);
  const { x, y } = zarr;
  const corner = (n: number): [number, number] => [x?.[n] ?? 0, y?.[n] ?? 0];
  return {
    takenFor: 'Volume',
    facts: [
      { label: 'Samples', value: `${ni} inlines × ${nj} crosslines × ${nk}` },
      {
        label: 'It says',
        value:
          Object.entries(said)
            .map(([k, v]) => `${k} ${v}`)
            .join(', ') || 'nothing of what it holds',
      },
    ],
    questions,
    sketch: {
      points: [],
      lines: x && y ? [[corner(0), corner(nj - 1), corner(ni * nj - 1), corner((ni - 1) * nj), corner(0)]] : [],
    },
  };
}

/** A volume of a zipped Zarr, a group of inlines at a time. */
export async function objectsOfZarr(loading: Loading): Promise<Loaded> {
  const { source, store, started, ids, objects, signal, onProgress } = loading;
  const zarr = await openZarrVolume(source);
  const declare = { ...zarrDeclarations(zarr), ...loading.declare };
  const declared = declaredOf({ ...loading, declare });
  const placement = await placementFor(declare, loading.frame, loading.crsTable);
  loading.takeFrame(placement);
  const binGrid = binGridOf(source.name, zarr, placement.toMap);
  const vertical = regular(source.name, 'samples', zarr.axes[2]);
  if (vertical.step < 0)
    throw new LithagonError('zarr', `${source.name}: its samples run upwards.`, {
      object: source.name,
      fix: 'Turn them round where it was made.',
    });
  const [ni, nj, nk] = zarr.shape;
  const id = newId('volume');
  ids.push(id);
  const writer = await volumeWriter(store, id, zarr.shape);
  const statistics = new RunningStatistics();
  const hash = hasher();
  let live = 0;
  for (let i0 = 0; i0 < ni; i0 += writer.slab) {
    stopIf(signal);
    const i1 = Math.min(ni, i0 + writer.slab);
    const values = await zarr.inlines(i0, i1);
    statistics.add(values);
    hash.words(new Uint32Array(values.buffer, values.byteOffset, values.length));
    for (let b = 0; b < (i1 - i0) * nj; b++) {
      let there = false;
      for (let k = 0; k < nk && !there; k++) there = values[b * nk + k] === values[b * nk + k];
      if (there) live++;
    }
    const slab = new Float32Array(writer.slab * nj * nk).fill(Number.NaN);
    slab.set(values);
    await writer.write(i0, slab);
    onProgress?.(i1 / ni, 'Reading samples');
  }
  await writer.finish();
  const finished = statistics.finish();
  checkRange(source.name, declared.quantity, declared.unit, finished);
  const volume: Volume = {
    id,
    kind: 'volume',
    name: freeName(
      objects,
      'volume',
      declare.name || text(zarr.attributes.name) || source.name.replace(/\.zarr\.zip$|\.[^.]*$/i, ''),
    ),
    stage: 'data',
    revision: loadedRevision(hash.digest(), { ...declared, binGrid, vertical }),
    binGrid,
    ...declared,
    vertical,
    layouts: writer.layouts,
    statistics: finished,
    traces: { live, missing: ni * nj - live, duplicate: 0 },
    madeBy: madeByLoading(source.name, loading.declare, started, placement.notes),
  };
  return { objects: [volume], warnings: placement.notes };
}
