import { type Crs, type CrsRow, crsFromRow, searchCrs } from '../earth/crs.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject, Frame, Volume } from '../earth/objects.ts';
import { isQuantity, QUANTITIES } from '../earth/units.ts';
import { loadSamples } from '../formats/segy/load.ts';
import { type ByteSource, readText } from '../formats/source.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import type { Store } from '../storage/store.ts';
import { recognise } from './inspect.ts';
import { inspectSegy } from './inspectSegy.ts';
import { objectsOfLas, objectsOfShapes, objectsOfTable } from './loadText.ts';
import type { Declarations } from './report.ts';

/** What loading needs to know besides the file. */
export interface LoadContext {
  store: Store;
  /** Rows of the table of coordinate reference systems, fetched when first needed. */
  crsTable: () => Promise<CrsRow[]>;
  signal?: AbortSignal;
  onProgress?: (part: number, what: string) => void;
}

export interface Loaded {
  objects: EarthObject[];
  warnings: string[];
}

/** The system with a code such as `EPSG:32740`, or a sentence saying what to do. */
export async function crsOf(code: string, table: () => Promise<CrsRow[]>): Promise<Crs> {
  const number = Number(/^(?:epsg:)?(\d+)$/i.exec(code.trim())?.[1]);
  const rows = await table();
  const row = rows.find((r) => r[0] === number);
  if (row) return crsFromRow(row);
  const near = searchCrs(rows, code, 3);
  throw new LithagonError('crs', `There is no coordinate reference system “${code}”.`, {
    fix:
      near.length > 0
        ? `Perhaps ${near.map((c) => `EPSG:${c.code} (${c.name})`).join(', ')}?`
        : 'Give an EPSG code, such as EPSG:32740.',
  });
}

export function frameFor(crs: Crs): Frame {
  return {
    crs: `EPSG:${crs.code}`,
    crsName: crs.name,
    unit: /us.*f/i.test(crs.unit) ? 'us-ft' : /f(oo|ee)t/i.test(crs.unit) ? 'ft' : 'm',
    seismicDatum: 'mean sea level',
    display: 'metric',
  };
}

/**
 * Load one file into a project, in one transaction: nothing of it is visible before the end, and nothing remains of
 * a load that fails or is cancelled.
 */
export async function loadFile(source: ByteSource, declare: Declarations, context: LoadContext): Promise<Loaded> {
  const { store } = context;
  const started = new Date();
  const format = await recognise(source);
  const existing = await store.list();
  const facts = await store.facts();
  let frame = facts.frame;
  if (declare.crs) {
    const wanted = frameFor(await crsOf(declare.crs, context.crsTable));
    if (frame && frame.crs !== wanted.crs)
      throw new LithagonError(
        'crs',
        `The project is in ${frame.crs} (${frame.crsName}), and ${source.name} was declared to be in ${wanted.crs}.`,
        {
          object: source.name,
          fix: 'Seismic in another system is not converted; load it into a project of its own.',
        },
      );
    frame = wanted;
  }
  let loaded: Loaded;
  const ids: string[] = [];
  try {
    if (format === 'SEG-Y') loaded = await loadVolume(source, declare, existing, started, context, ids);
    else if (format === 'LAS')
      loaded = await objectsOfLas(source.name, await readText(source), declare, started, store, ids);
    else if (format === 'CSV')
      loaded = await objectsOfTable(source.name, await readText(source), declare, existing, started, store, ids);
    else if (format === 'GeoJSON')
      loaded = await objectsOfShapes(source.name, await readText(source), declare, existing, started, frame, (code) =>
        crsOf(code, context.crsTable),
      );
    else
      throw new LithagonError('format', `${source.name} is of no kind that is known.`, {
        object: source.name,
        fix: 'SEG-Y, LAS, CSV and GeoJSON files are read.',
      });
  } catch (cause) {
    for (const id of ids) await store.removeArrays(`${id}/`);
    throw cause;
  }
  const at = new Date().toISOString();
  await store.commit({
    put: loaded.objects,
    facts: frame !== facts.frame ? { frame } : undefined,
    ledger: loaded.objects.map((o) => ({
      at,
      what: 'in' as const,
      object: o.id,
      name: o.name,
      note: `from ${source.name}`,
    })),
  });
  return loaded;
}

async function loadVolume(
  source: ByteSource,
  declare: Declarations,
  existing: EarthObject[],
  started: Date,
  context: LoadContext,
  ids: string[],
): Promise<Loaded> {
  const { store, signal, onProgress } = context;
  const missing = ['domain', 'quantity'].filter((key) => !declare[key]);
  if (missing.length > 0)
    throw new LithagonError(
      'undeclared',
      `${source.name} does not say what its ${missing.map((m) => (m === 'domain' ? 'vertical axis is (time or depth)' : 'samples are')).join(' nor what its ')}, and no one has declared it.`,
      {
        object: source.name,
        fix: `Declare ${missing.map((m) => (m === 'domain' ? 'domain=twt or domain=depth' : 'quantity=amplitude (or another quantity)')).join(' and ')}.`,
      },
    );
  const { domain, quantity } = declare;
  if (domain !== 'twt' && domain !== 'depth')
    throw new LithagonError('declare', `“${domain}” is no vertical domain.`, {
      object: source.name,
      fix: 'Declare domain=twt or domain=depth.',
    });
  if (!isQuantity(quantity))
    throw new LithagonError('declare', `“${quantity}” is no quantity that is known.`, {
      object: source.name,
      fix: `One of: ${Object.keys(QUANTITIES).join(', ')}.`,
    });
  const { report, headers, index } = await inspectSegy(source, declare, signal, (p) =>
    onProgress?.(0.15 * p, 'Indexing traces'),
  );
  if (report.refused || !index)
    throw new LithagonError('segy', report.refused?.message ?? `${source.name} cannot be loaded.`, report.refused);
  const id = newId('volume');
  ids.push(id);
  const samples = await loadSamples(source, headers, index, store, id, signal, (p) =>
    onProgress?.(0.15 + 0.85 * p, 'Reading samples'),
  );
  const range = QUANTITIES[quantity].range;
  const { statistics } = samples;
  if (statistics.count > 0 && (statistics.percentiles[1] < range[0] || statistics.percentiles[99] > range[1]))
    throw new LithagonError(
      'range',
      `${source.name} was declared ${quantity}, but its samples run from ${statistics.percentiles[1].toPrecision(4)} to ${statistics.percentiles[99].toPrecision(4)}; ${quantity} lies between ${range[0]} and ${range[1]} ${QUANTITIES[quantity].unit}.`,
      { object: source.name, fix: 'Declare another quantity. Nothing was loaded.' },
    );
  const warnings = [...report.problems, ...samples.warnings];
  const polarity =
    declare.polarity === 'harder-negative'
      ? 'harder-negative'
      : declare.polarity === 'harder-positive'
        ? 'harder-positive'
        : undefined;
  const lattice = index.lattice;
  const volume: Volume = {
    id,
    kind: 'volume',
    name: freeName(existing, 'volume', declare.name ?? source.name.replace(/\.[^.]*$/, '')),
    stage: 'data',
    revision: loadedRevision(samples.hash, { domain, quantity, unit: declare.unit, polarity, lattice }),
    lattice,
    domain,
    quantity,
    unit: declare.unit ?? QUANTITIES[quantity].unit,
    polarity,
    vertical: { first: index.first, step: headers.intervalMs, count: headers.samples },
    layouts: samples.layouts,
    statistics,
    traces: { live: index.live, missing: index.missing, duplicate: index.duplicates },
    text: headers.textLines,
    madeBy: madeByLoading(source.name, declare, started, warnings),
  };
  return { objects: [volume], warnings };
}
