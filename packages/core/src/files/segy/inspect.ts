import { type Axis, type BinGrid, cornersOf, crosslineAt, inlineAt } from '../../earth/binGrid.ts';
import type { Crs } from '../../earth/crs.ts';
import { type Units, unitsOf } from '../../earth/display.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import { type Quantity, quantitiesOf } from '../../earth/quantities.ts';
import { coordinatesOf, degreesFrom, flattened } from '../../formats/segy/coordinates.ts';
import { openSegy, type SegyFile } from '../../formats/segy/file.ts';
import type { SubRange } from '../../formats/segy/groups.ts';
import type { SegyHeaders } from '../../formats/segy/headers.ts';
import { indexLines, type LinePositions, type LineTraces, rankLinePositions } from '../../formats/segy/line.ts';
import {
  type HeaderSample,
  type Positions,
  rankPositions,
  rankWithoutCoordinates,
  sampleHeaders,
} from '../../formats/segy/positions.ts';
import { prestackOf } from '../../formats/segy/prestack.ts';
import { FORMATS } from '../../formats/segy/samples.ts';
import { indexTraces, LOCAL_BINS, type Placing, type TraceIndex } from '../../formats/segy/traces.ts';
import type { ByteSource } from '../../formats/source.ts';
import { nearGrid } from '../../project/grids.ts';
import { kindByRun, type VelocityRun } from '../../velocity/plausible.ts';
import { type Around, NOTHING_AROUND } from '../context.ts';
import { type Placement, PROJECT_SYSTEM, placementFor, projectSystemQuestion } from '../coordinates.ts';
import { keptIndex } from '../keptIndexes.ts';
import type { Declarations, FileReport, Question, SegyNumbers, SegyReport } from '../report.ts';
import { sampleSection } from './sample.ts';
import { formatName, samplesOf, wholeRange } from './volume.ts';

/** Positions that were declared, over those that were found. */
function declared<P extends object>(found: P | undefined, keys: (keyof P & string)[], declare: Declarations): P | null {
  const out: Record<string, number> = {};
  for (const key of keys) {
    const text = declare[`byte.${key}`];
    const at = text === undefined ? (found?.[key] as number | undefined) : Number(text);
    if (at === undefined) return null;
    if (!Number.isInteger(at) || at < 0 || at > 237)
      throw new LithagonError('declare', `A byte position must be a whole number from 1 to 237, not “${text}”.`, {
        fix: 'Trace headers are 240 bytes long.',
      });
    out[key] = at;
  }
  return out as P;
}

const capital = (text: string) => `${text[0].toUpperCase()}${text.slice(1)}`;

/** Words for each kind of velocity, as people name files and fill text headers. */
const VELOCITY_WORDS: [Quantity, RegExp][] = [
  ['stacking velocity', /stack\w*[ _.-]*vel|vel\w*[ _.-]*stack|\bnmo\b|v_?stack|v_?nmo/i],
  ['RMS velocity', /rms[ _.-]*vel|vel\w*[ _.-]*rms|v_?rms/i],
  ['average velocity', /(average|avg)[ _.-]*vel|vel\w*[ _.-]*(average|avg)|v_?avg/i],
  ['interval velocity', /int(erval)?[ _.-]*vel|vel\w*[ _.-]*int|v_?int/i],
];

/**
 * What is to be asked of samples.
 * @param says name of the file and lines of its text header: numbers tell a velocity, but not which kind
 */
export function questionsFor(
  stats: { min: number; negative: number; median: number; run?: VelocityRun },
  says: string[],
): Question[] {
  const velocity = stats.negative === 0 && stats.min > 300 && stats.median > 1000 && stats.median < 7000;
  const kinds = VELOCITY_WORDS.filter(([, words]) => says.some((line) => words.test(line)));
  const named = kinds.length === 1 ? kinds[0][0] : null;
  const run = stats.run && velocity ? kindByRun(stats.run) : null;
  // how velocities run may rule out what a name says, and tell what no name does
  const said = run?.kind ?? named;
  const byName = named ? ` Its name or text header says ${named}.` : '';
  const why = run?.kind
    ? ` ${capital(run.why)}${named && named !== run.kind ? byName : ''}`
    : named
      ? byName
      : ` ${run ? `${run.why} ` : ''}Of which kind, the file does not say.`;
  return [
    {
      key: 'domain',
      label: 'Vertical axis',
      options: [
        { value: 'twt', label: 'Two-way time' },
        { value: 'depth', label: 'Depth' },
      ],
    },
    {
      key: 'quantity',
      label: 'Samples are',
      options: quantitiesOf('volume').map((value) => ({ value, label: value })),
      hint: velocity
        ? {
            value: said,
            why: `No sample is negative and half lie above ${stats.median.toFixed(0)}: they look like velocities.${why}`,
          }
        : stats.negative > 0.2
          ? { value: 'amplitude', why: 'Samples swing about zero, as amplitudes do.' }
          : undefined,
    },
  ];
}

/** Interval that was declared, ms or m. */
function declaredInterval({ interval }: Declarations, name: string): number | undefined {
  if (interval === undefined || interval === '') return undefined;
  const value = Number(interval);
  if (value > 0 && value <= 1000) return value;
  throw new LithagonError('declare', `${name}: “${interval}” is no sample interval.`, {
    object: name,
    fix: 'Give it in ms, or in m where the file is in depth: more than 0, and at most 1000.',
  });
}

const INTERVAL: Question = {
  key: 'interval',
  label: 'Sample interval, ms or m',
  typed: true,
  options: ['1', '2', '4'].map((value) => ({ value, label: value })),
};

/** Asked where bins are unlikely, and while it is answered. */
const SCALAR: Question = {
  key: 'scalar',
  label: 'Coordinates times (a negative number divides)',
  typed: true,
  optional: true,
  options: ['-10', '-100', '-1000'].map((value) => ({ value, label: value })),
};

/** Bins are rarely smaller or larger than this, m. */
const LIKELY_BIN_M = [1, 500];

/** Scalar of coordinates and bin lengths that were declared. */
function declaredPlacing({ scalar, bins }: Declarations, name: string): Pick<Placing, 'scalar' | 'bins'> {
  const refuse = (text: string, what: string, fix: string): never => {
    throw new LithagonError('declare', `${name}: “${text}” is no ${what}.`, { object: name, fix });
  };
  const factor = scalar ? Number(scalar) : undefined;
  if (factor !== undefined && (!Number.isInteger(factor) || factor === 0 || Math.abs(factor) > 1e6))
    refuse(scalar, 'scalar of coordinates', 'Give a whole number such as -100, which divides them by a hundred.');
  if (!bins) return { scalar: factor };
  const found = /^\s*([\d.]+)\s*[x×*,; ]\s*([\d.]+)\s*$/.exec(bins);
  const lengths: [number, number] = [Number(found?.[1]), Number(found?.[2])];
  if (!lengths.every((m) => m > 0 && m < 1e5)) refuse(bins, 'size of bins', 'Give it in metres, such as 25x12.5.');
  return { scalar: factor, bins: lengths };
}

/** Traces of each inline that were declared of a file without line numbers. */
function declaredLength({ lineTraces }: Declarations, name: string, traces: number): number | null {
  if (!lineTraces) return null;
  const count = Number(lineTraces);
  if (Number.isInteger(count) && count > 1 && count <= traces / 2) return count;
  throw new LithagonError('declare', `${name}: “${lineTraces}” is no number of traces in an inline.`, {
    object: name,
    fix: `It has ${traces} traces: give a whole number from 2 to ${Math.floor(traces / 2)}.`,
  });
}

/** How many traces make an inline: divisors of their number, those nearest to a square first. */
function lengthQuestion({ traces }: SegyFile): Question {
  const divisors: number[] = [];
  for (let n = 2; n * n <= traces; n++) if (traces % n === 0) divisors.push(n, traces / n);
  const off = (n: number) => Math.abs(Math.log(n / Math.sqrt(traces)));
  const likely = [...new Set(divisors)].filter((n) => n > 3 && n < traces / 3).sort((a, b) => off(a) - off(b));
  return {
    key: 'lineTraces',
    label: 'If it is a volume: traces in an inline',
    typed: true,
    options: likely.slice(0, 6).map((n) => ({ value: String(n), label: `${n} (${traces / n} inlines)` })),
  };
}

/** Whether no header place holds a number that changes, but such as count the traces. */
function withoutNumbers({ views }: HeaderSample, { littleEndian }: SegyHeaders): boolean {
  return [9, 13, 17, 21, 25, 73, 77, 81, 85, 181, 185, 189, 193, 197].every((at) => {
    const first = views[0].getInt32(at - 1, littleEndian);
    return views.every((view) => view.getInt32(at - 1, littleEndian) === first);
  });
}

/** The question which system a project is to be in that a file in degrees is the first of. */
function systemAsked(own: Crs, degrees: { x: Float64Array; y: Float64Array } | null, { crsTable }: Around) {
  const places = Array.from(degrees?.x ?? [], (x, n): [number, number] => [x, degrees?.y[n] ?? 0]);
  return projectSystemQuestion(own, places, crsTable);
}

/** How a volume without coordinates comes to its place, or else to the size of its bins. */
function placeQuestions({ objects }: Around): Question[] {
  const placed = objects.filter((o): o is Volume => o.kind === 'volume' && !o.binGrid.local);
  return [
    ...(placed.length > 0
      ? [
          {
            key: 'grid',
            label: 'Line numbers are those of',
            optional: true,
            options: placed.map(({ name }) => ({ value: name, label: name })),
          },
        ]
      : []),
    {
      key: 'bins',
      label: 'Bins, m: between inlines × between crosslines',
      typed: true,
      optional: true,
      options: [LOCAL_BINS.join('x')].map((value) => ({ value, label: value })),
    },
  ];
}

export function sketchOf(binGrid: BinGrid): [number, number][] {
  const corners = cornersOf(binGrid);
  return [...corners, corners[0]];
}

/** A range such as `120-480` of line numbers, ms or m, as indexes of an axis, ends excluded. */
function indexesOf(
  text: string | undefined,
  axis: { first: number; step: number; count: number },
  what: string,
): [number, number] {
  if (!text) return [0, axis.count];
  const found = /^\s*(-?[\d.]+)\s*(?:-|–|:|to)\s*(-?[\d.]+)\s*$/.exec(text);
  const [a, b] = found ? [Number(found[1]), Number(found[2])] : [Number.NaN, Number.NaN];
  const from = Math.max(0, Math.ceil((Math.min(a, b) - axis.first) / axis.step - 1e-6));
  const to = Math.min(axis.count, Math.floor((Math.max(a, b) - axis.first) / axis.step + 1e-6) + 1);
  if (!(to > from))
    throw new LithagonError('range', `“${text}” takes in no ${what}.`, {
      fix: `They run from ${axis.first} to ${axis.first + axis.step * (axis.count - 1)}; write two of them, such as ${axis.first}-${axis.first + axis.step * (axis.count - 1)}.`,
    });
  return [from, to];
}

/** The part of a volume that was asked for. */
export function rangeOf(file: SegyFile, index: TraceIndex, declare: Declarations): SubRange {
  const whole = wholeRange(file, index);
  const vertical = { first: index.first, step: file.intervalMs, count: whole.k[1] };
  return {
    i: indexesOf(declare.inlines, index.binGrid.inline, 'inline'),
    j: indexesOf(declare.crosslines, index.binGrid.crossline, 'crossline'),
    k: indexesOf(declare.window, vertical, 'sample'),
  };
}

export interface SegyInspection {
  report: FileReport;
  file: SegyFile;
  placement: Placement;
  /** Of a 3D volume. */
  index: TraceIndex | null;
  /** Of 2D lines. */
  lines: LineTraces[] | null;
}

const span = (a: { first: number; step: number; count: number }) =>
  `${a.first} to ${a.first + a.step * (a.count - 1)}${a.step === 1 ? '' : ` by ${a.step}`}`;

/** Everything that can be known of a SEG-Y file, or of several that are parts of one volume, without loading it. */
export async function inspectSegy(
  sources: ByteSource[],
  declare: Declarations = {},
  around: Around = NOTHING_AROUND,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<SegyInspection> {
  const file = await openSegy(sources, declaredInterval(declare, sources[0].name));
  const [source] = sources;
  const units = unitsOf(around.frame);
  const { headers } = file.parts[0];
  const { angles } = headers;
  const headerSample = await sampleHeaders(source, headers);
  const withPlaces = rankPositions(headerSample, headers);
  const ranked = withPlaces.length > 0 ? withPlaces : rankWithoutCoordinates(headerSample, headers);
  const seen = ranked[0]?.x ? coordinatesOf(headerSample, headers, ranked[0].x) : undefined;
  const placement = await placementFor(declare, around.frame, around.crsTable, {
    unit: headers.feet ? 'ft' : undefined,
    degrees: angles !== null,
    at: seen && [seen.x[0], seen.y[0]],
  });
  const degrees = angles ? coordinatesOf(headerSample, headers, ranked[0]?.x || 181) : null;
  // what cannot be placed yet is looked at as if its degrees were laid out flat
  const onMap = degrees && placement.waits ? flattened(degrees.y[0]) : placement.toMap;
  const placing: Placing = {
    ...declaredPlacing(declare, source.name),
    toMap: angles ? (x, y) => onMap(degreesFrom(angles, x), degreesFrom(angles, y)) : onMap,
  };
  const segy: SegyReport = {
    text: headers.textLines,
    binary: headers.binary,
    kind: `${headers.samples} × ${headers.intervalMs}`,
    numbers: {
      revision: headers.revision,
      format: headers.format,
      byteOrder: headers.littleEndian ? 'little' : 'big',
      textEncoding: headers.textEncoding,
      traces: file.traces,
      samples: headers.samples,
      interval: headers.intervalKnown ? headers.intervalMs : null,
      start: null,
      inlines: null,
      crosslines: null,
      bins: null,
      live: null,
      missing: null,
      duplicate: null,
      binM: null,
      residualM: null,
    },
  };
  const report: FileReport = {
    file: source.name,
    bytes: sources.reduce((n, s) => n + s.size, 0),
    format: 'SEG-Y',
    takenFor: '3D seismic volume',
    facts: [
      { label: 'Revision', value: headers.revision },
      { label: 'Samples', value: formatName(headers) },
      { label: 'Text header', value: headers.textEncoding },
      { label: 'Traces', value: String(file.traces) },
      { label: 'Trace', value: `${headers.samples} samples by ${headers.intervalMs} ms, or m where it is in depth` },
    ],
    problems: [...file.parts.flatMap((p) => p.headers.problems), ...placement.notes],
    questions: [],
    sketch: { lines: [], points: [] },
    segy,
  };
  if (sources.length > 1) report.facts.unshift({ label: 'Parts', value: sources.map((s) => s.name).join(', ') });
  const lineTraces = declaredLength(declare, source.name, file.traces);
  const prestack = declare.as || declare['byte.inline'] || lineTraces ? null : prestackOf(headerSample, headers);
  if (prestack) {
    const { kind, fold, offsets } = prestack;
    report.takenFor = `${kind[0].toUpperCase()}${kind.slice(1)}, not stacked`;
    report.refused = {
      code: 'prestack',
      message: `${source.name} holds ${kind} of about ${fold} traces${offsets ? ` with offsets from ${offsets[0]} to ${offsets[1]}` : ''}: its traces are not stacked.`,
      object: source.name,
      fix: 'Stack them, or write each range of offsets or angles as a volume of its own. If its headers mislead, declare as=volume or as=lines.',
    };
    return { report, file, placement, index: null, lines: null };
  }
  // asked for only where a grid is not plain to see
  let lineRanks: ReturnType<typeof rankLinePositions> | undefined;
  const ofLines = () => {
    lineRanks ??= rankLinePositions(headerSample, headers);
    return lineRanks;
  };
  // numbers that rise along one line make a grid that is nearly empty
  const likelyLines =
    declare.as !== 'volume' &&
    withPlaces.length >= ranked.length &&
    (ranked[0]?.score ?? 0) < 0.35 &&
    (ofLines()[0]?.score ?? 0) > 0.9;
  const asLines = declare.as === 'lines' || (likelyLines && !declare['byte.inline'] && !lineTraces);
  const counted = lineTraces ? { inline: 0, crossline: 0, x: 0, y: 0, lineTraces } : null;
  const positions =
    counted ?? (asLines ? null : declared<Positions>(ranked[0], ['inline', 'crossline', 'x', 'y'], declare));
  segy.positions = ranked;
  if (!positions || declare['byte.cdp']) {
    segy.linePositions = ofLines();
    const at = declared<LinePositions>(segy.linePositions[0], ['cdp', 'x', 'y', 'shotpoint', 'line'], declare);
    if (at) {
      const lines = await inspectLines(file, at, placing, report, units, signal, onProgress);
      if (placement.waits) report.questions.push(await systemAsked(placement.waits, degrees, around));
      return { report, file, placement, index: null, lines };
    }
    report.takenFor = 'SEG-Y without a grid or line';
    if (withoutNumbers(headerSample, headers)) {
      report.questions.push(lengthQuestion(file));
      report.problems.push('Its trace headers hold neither line numbers nor coordinates.');
      return { report, file, placement, index: null, lines: null };
    }
    report.refused = {
      code: 'segy',
      message: `${source.name}: no byte positions were found at which traces make a grid of inlines and crosslines, or a 2D line.`,
      object: source.name,
      fix: 'Say where inline, crossline, X and Y stand, or for a 2D line CDP, X and Y.',
    };
    return { report, file, placement, index: null, lines: null };
  }
  const { crs, 'unit.xy': unit } = declare;
  const { scalar, bins } = placing;
  const key = sources.every((s) => s.stamp)
    ? JSON.stringify([
        sources.map((s) => s.stamp),
        positions,
        // the project's system may be said with the file
        { crs, unit, scalar, bins, own: around.frame?.crs ?? declare[PROJECT_SYSTEM], ownUnit: around.frame?.unit },
      ])
    : null;
  const index = await keptIndex(key, () => indexTraces(file, positions, placing, signal, onProgress));
  const { binGrid } = index;
  const middle = Math.floor(binGrid.inline.count / 2) * binGrid.crossline.count;
  stopIf(signal);
  const looked = await sampleSection(file, index.traceOfBin.subarray(middle, middle + binGrid.crossline.count));
  stopIf(signal);
  report.problems.push(...index.problems);
  const binM: [number, number] = [Math.hypot(...binGrid.perInline), Math.hypot(...binGrid.perCrossline)];
  const unlikely = binM.some((m) => m > LIKELY_BIN_M[1] || m < LIKELY_BIN_M[0]);
  if (binGrid.local)
    report.problems.push(
      `It has no coordinates: it lies on a grid of its own, with bins of ${units.to(binM[0], 'm').toFixed(2)} × ${units.text(binM[1], 'm', 2)}, until it is placed on the map.`,
    );
  else if (unlikely)
    report.problems.push(
      `Its bins are ${units.to(binM[0], 'm').toPrecision(4)} × ${units.text(binM[1], 'm', 2)}: its unit, or the scalar of its coordinates (scalar=-100 divides them by a hundred), may be wrong.`,
    );
  report.questions = questionsFor(looked.stats, [report.file, ...headers.textLines]);
  if (placement.waits) report.questions.push(await systemAsked(placement.waits, degrees, around));
  if (!file.intervalKnown || declare.interval) report.questions.push(INTERVAL);
  if (binGrid.local) report.questions.push(...placeQuestions(around));
  else if (unlikely || declare.scalar) report.questions.push(SCALAR);
  if (counted) report.questions.push({ ...lengthQuestion(file), optional: true });
  segy.sample = looked.sample;
  segy.histogram = looked.histogram;
  segy.residuals = index.residualMap.map(([i, j, off]) => [inlineAt(binGrid, i), crosslineAt(binGrid, j), off]);
  const bytes = FORMATS[headers.format].bytes;
  if (bytes >= 4)
    segy.compact = { error: (looked.extent[1] - looked.extent[0]) / 65533 / 2, rms: looked.rms, saves: 0.5 };
  const nk = samplesOf(file, index);
  segy.whole = {
    inlines: [binGrid.inline.first, inlineAt(binGrid, binGrid.inline.count - 1)],
    crosslines: [binGrid.crossline.first, crosslineAt(binGrid, binGrid.crossline.count - 1)],
    window: [index.first, index.first + (nk - 1) * file.intervalMs],
  };
  const numbersOf = ({ first, step, count }: Axis) => ({ first, last: first + step * (count - 1), step, count });
  Object.assign(segy.numbers, {
    start: index.first,
    inlines: numbersOf(binGrid.inline),
    crosslines: numbersOf(binGrid.crossline),
    bins: binGrid.inline.count * binGrid.crossline.count,
    live: index.live,
    missing: index.missing,
    duplicate: index.duplicates,
    binM,
    residualM: index.residual,
  } satisfies Partial<SegyNumbers>);
  if (!binGrid.local) report.sketch.lines.push(sketchOf(binGrid));
  report.facts.push(
    { label: 'Inlines', value: span(binGrid.inline) },
    { label: 'Crosslines', value: span(binGrid.crossline) },
    {
      label: 'Bin',
      value: `${units.to(Math.hypot(...binGrid.perInline), 'm').toFixed(2)} × ${units.text(Math.hypot(...binGrid.perCrossline), 'm', 2)}`,
    },
    {
      label: 'Coordinates off the grid',
      value: `${units.text(index.residual.rms, 'm', 2)} rms, ${units.text(index.residual.max, 'm', 2)} at most`,
    },
    {
      label: 'Header bytes',
      value: counted
        ? `none: ${counted.lineTraces} traces were counted to each inline`
        : `inline ${positions.inline}, crossline ${positions.crossline}${positions.x ? `, X ${positions.x}, Y ${positions.y}` : ', no coordinates'}`,
    },
  );
  const near = nearGrid(
    binGrid,
    around.objects.filter((o): o is Volume => o.kind === 'volume'),
    units,
  );
  if (near) report.facts.push({ label: 'Grid', value: near.says });
  if (near?.relation === 'near')
    report.questions.push({
      key: 'grid',
      label: 'Its grid is nearly that of another volume',
      optional: true,
      options: [
        { value: near.volume.name, label: `take that of ${near.volume.name}` },
        { value: 'own', label: 'keep its own' },
      ],
      hint: { value: near.volume.name, why: near.says },
    });
  return { report, file, placement, index, lines: null };
}

async function inspectLines(
  file: SegyFile,
  at: LinePositions,
  placing: Placing,
  report: FileReport,
  units: Units,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<LineTraces[]> {
  const stem = file.name.replace(/\.[^.]*$/, '');
  const { lines, problems } = await indexLines(file, at, placing, stem, signal, onProgress);
  report.problems.push(...problems);
  const looked = await sampleSection(file, lines[0].traces);
  report.takenFor = lines.length === 1 ? '2D seismic line' : `${lines.length} 2D seismic lines`;
  report.questions = questionsFor(looked.stats, [report.file, ...file.parts[0].headers.textLines]);
  if (!file.intervalKnown) report.questions.push(INTERVAL);
  if (report.segy) Object.assign(report.segy, { sample: looked.sample, histogram: looked.histogram });
  report.sketch.lines = lines.map((l) => l.path);
  report.sketch.points = lines
    .filter((l) => l.path.length > 0)
    .map((l) => ({ x: l.path[0][0], y: l.path[0][1], label: l.name }));
  if (!at.x) report.questions.push({ ...lengthQuestion(file), optional: true });
  if (!at.x) report.problems.push('Its headers hold no coordinates: each line waits for navigation under its name.');
  const length = (path: [number, number][]) =>
    path.reduce((sum, p, n) => sum + (n ? Math.hypot(p[0] - path[n - 1][0], p[1] - path[n - 1][1]) : 0), 0);
  report.facts.push(
    ...lines.slice(0, 20).map((l) => ({
      label: l.name,
      value: `${l.traces.length} traces, ${l.path.length > 0 ? units.text(length(l.path), 'm', 0) : 'no positions'}, CDP ${l.cdps[0]} to ${l.cdps[l.cdps.length - 1]}${l.shotpoints ? `, shotpoint ${l.shotpoints[0]} to ${l.shotpoints[l.shotpoints.length - 1]}` : ''}`,
    })),
    {
      label: 'Header bytes',
      value: `CDP ${at.cdp}, X ${at.x}, Y ${at.y}${at.shotpoint ? `, shotpoint ${at.shotpoint}` : ''}${at.line ? `, line ${at.line}` : ''}`,
    },
  );
  return lines;
}
