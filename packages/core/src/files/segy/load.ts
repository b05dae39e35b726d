import type { BinGrid } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, SeismicLine, Volume } from '../../earth/objects.ts';
import { isQuantity, type Quantity, quantitiesOf, quantityFacts } from '../../earth/quantities.ts';
import type { LineTraces } from '../../formats/segy/line.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../../project/make.ts';
import { placedLike } from '../../project/place.ts';
import { checkRange, toSi } from '../../project/redeclare.ts';
import { doubtOf, runOfVelocities } from '../../velocity/plausible.ts';
import type { Loaded, Loading } from '../loading.ts';
import { inspectSegy, rangeOf, type SegyInspection } from './inspect.ts';
import { loadLineSamples } from './line.ts';
import { loadSamples } from './volume.ts';

interface Declared {
  domain: 'twt' | 'depth';
  quantity: Quantity;
  unit: string;
  polarity: Volume['polarity'];
}

/** What a person has to say of seismic, checked; refuses what is missing or no quantity. */
export function declaredOf({ source, declare }: Pick<Loading, 'source' | 'declare'>): Declared {
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
  const { domain, quantity, polarity } = declare;
  if (domain !== 'twt' && domain !== 'depth')
    throw new LithagonError('declare', `“${domain}” is no vertical domain.`, {
      object: source.name,
      fix: 'Declare domain=twt or domain=depth.',
    });
  if (!isQuantity(quantity))
    throw new LithagonError('declare', `“${quantity}” is no quantity that is known.`, {
      object: source.name,
      fix: `One of: ${quantitiesOf('volume').join(', ')}.`,
    });
  return {
    domain,
    quantity,
    unit: declare.unit || quantityFacts(quantity).unit,
    polarity: polarity === 'harder-negative' || polarity === 'harder-positive' ? polarity : undefined,
  };
}

/** A volume, or the 2D lines, of a SEG-Y file. */
export async function objectsOfSegy(loading: Loading): Promise<Loaded> {
  const { source, beside, declare, signal, onProgress } = loading;
  const declared = declaredOf(loading);
  const looked = await inspectSegy([source, ...beside], declare, loading, signal, (p) =>
    onProgress?.(0.15 * p, 'Indexing traces'),
  );
  const { report } = looked;
  if (report.refused) throw new LithagonError(report.refused.code, report.refused.message, report.refused);
  if (!looked.file.intervalKnown)
    throw new LithagonError(
      'undeclared',
      `${source.name} does not say its sample interval, and no one has declared it.`,
      {
        object: source.name,
        fix: 'Declare interval=4 (ms, or m where it is in depth), or what it is.',
      },
    );
  loading.takeFrame(looked.placement);
  if (looked.lines) return linesOf(loading, looked, looked.lines, declared);
  return volumeOf(loading, looked, declared);
}

/** What the run of the samples that were looked at says against what they were declared to be. */
function doubtAbout({ file, report }: SegyInspection, { quantity, unit, domain }: Declared): string | null {
  const looked = report.segy?.sample;
  if (!looked || domain !== 'twt') return null;
  const scale = toSi(quantity, unit);
  const run = runOfVelocities(
    looked.data.map((v) => v * scale),
    looked.samples,
    0,
    file.intervalMs,
  );
  return doubtOf(file.name, quantity, run);
}

/** The bin grid with the bins of another that has as many. */
function onBinsOf(binGrid: BinGrid, { origin, perInline, perCrossline }: BinGrid): BinGrid {
  return { ...binGrid, origin, perInline, perCrossline };
}

async function volumeOf(loading: Loading, looked: SegyInspection, declared: Declared): Promise<Loaded> {
  const { source, beside, declare, store, started, ids, objects, signal, onProgress } = loading;
  const { file, index, report } = looked;
  if (!index)
    throw new LithagonError(
      'undeclared',
      `${source.name} has neither line numbers nor coordinates in its trace headers.`,
      {
        object: source.name,
        fix: 'Say how many of its traces make an inline (lineTraces=200), if it is a volume.',
      },
    );
  const id = newId('volume');
  ids.push(id);
  const samples = await loadSamples(
    file,
    index,
    rangeOf(file, index, declare),
    store,
    id,
    declare.storage === 'compact',
    signal,
    (p) => onProgress?.(0.15 + 0.85 * p, 'Reading samples'),
  );
  checkRange(source.name, declared.quantity, declared.unit, samples.statistics);
  const warnings = [...report.problems, ...samples.warnings];
  const doubt = doubtAbout(looked, declared);
  if (doubt) warnings.push(doubt);
  const taken = objects.find((o): o is Volume => o.kind === 'volume' && o.name === declare.grid);
  let { binGrid } = samples;
  if (taken) {
    binGrid = binGrid.local ? placedLike(binGrid, taken.binGrid) : onBinsOf(binGrid, taken.binGrid);
    warnings.push(
      samples.binGrid.local
        ? `It was placed by its line numbers on the grid of ${taken.name}.`
        : `Its bins were taken to be those of ${taken.name}.`,
    );
  }
  const volume: Volume = {
    id,
    kind: 'volume',
    name: freeName(objects, 'volume', declare.name || source.name.replace(/\.[^.]*$/, '')),
    stage: 'data',
    revision: loadedRevision(samples.hash, { ...declared, binGrid, vertical: samples.vertical }),
    binGrid,
    ...declared,
    vertical: samples.vertical,
    layouts: samples.layouts,
    statistics: samples.statistics,
    traces: samples.traces,
    text: file.parts[0].headers.textLines,
    madeBy: madeByLoading([source, ...beside].map((s) => s.name).join(', '), declare, started, warnings),
  };
  return { objects: [volume], warnings };
}

async function linesOf(
  loading: Loading,
  looked: SegyInspection,
  lines: LineTraces[],
  declared: Declared,
): Promise<Loaded> {
  const { source, declare, store, started, ids, objects, signal, onProgress } = loading;
  const { file, report } = looked;
  const warnings = [...report.problems];
  const taken: EarthObject[] = [...objects];
  const made: SeismicLine[] = [];
  for (const [n, line] of lines.entries()) {
    const id = newId('seismic line');
    ids.push(id);
    const samples = await loadLineSamples(file, line, store, id, signal, (p) =>
      onProgress?.(0.15 + (0.85 * (n + p)) / lines.length, `Reading ${line.name}`),
    );
    checkRange(source.name, declared.quantity, declared.unit, samples.statistics);
    const object: SeismicLine = {
      id,
      kind: 'seismic line',
      name: freeName(taken, 'seismic line', lines.length === 1 && declare.name ? declare.name : line.name),
      stage: 'data',
      revision: loadedRevision(samples.hash, { ...declared, path: line.path, first: line.first }),
      ...declared,
      vertical: { first: line.first, step: file.intervalMs, count: file.samples },
      path: line.path,
      cdps: line.cdps,
      shotpoints: line.shotpoints,
      samples: samples.ref,
      statistics: samples.statistics,
      text: file.parts[0].headers.textLines,
      madeBy: madeByLoading(source.name, declare, started, warnings),
    };
    taken.push(object);
    made.push(object);
  }
  return { objects: made, warnings };
}
