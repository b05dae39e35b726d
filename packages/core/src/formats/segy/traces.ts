import type { Axis, BinGrid } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import { leastSquares } from '../../numerics/leastSquares.ts';
import { factorOf, scalarProblems, usualScalar } from './coordinates.ts';
import { eachHeader, type SegyFile } from './file.ts';
import { isPadding, type Positions } from './positions.ts';

/** Brings a file's coordinates into the project's, metres. */
export type ToMap = (x: number, y: number) => [number, number];

/** How numbers of trace headers become places. */
export interface Placing {
  toMap: ToMap;
  /** Scalar of coordinates that was declared, over those in the headers. */
  scalar?: number;
  /** Bin lengths (m) along inline and crossline numbers, where the headers hold no coordinates. */
  bins?: [number, number];
}

/** Which trace of the file lies in which bin, and where the bins are. */
export interface TraceIndex {
  binGrid: BinGrid;
  /** Trace number among all parts per bin `[inline][crossline]`, −1 where missing. */
  traceOfBin: Int32Array;
  live: number;
  missing: number;
  duplicates: number;
  /** First sample's time or depth: the least delay in the trace headers. */
  first: number;
  /** Samples by which each trace begins later than the first, or null where all begin together. */
  late: Int16Array | null;
  /** rms and greatest distance (m) of a trace's coordinates from its bin. */
  residual: { rms: number; max: number };
  /** The distance (m) for a spread of bins: inline and crossline indexes, then metres. */
  residualMap: [i: number, j: number, metres: number][];
  problems: string[];
}

interface Numbers {
  inline: Int32Array;
  crossline: Int32Array;
  x: Float64Array;
  y: Float64Array;
  delay: Int16Array;
  /** Traces that only fill up the file: 1 for each. */
  padding: Uint8Array;
  /** What is odd about their coordinates. */
  problems: string[];
}

/** Line numbers and coordinates of every trace. */
export async function readNumbers(
  file: SegyFile,
  positions: Positions,
  { toMap, scalar }: Placing,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<Numbers> {
  const { traces } = file;
  const inline = new Int32Array(traces);
  const crossline = new Int32Array(traces);
  const x = new Float64Array(traces);
  const y = new Float64Array(traces);
  const delay = new Int16Array(traces);
  const padding = new Uint8Array(traces);
  const scalars = new Int16Array(traces);
  await eachHeader(
    file,
    (view, at, n, le) => {
      if (isPadding(view, at)) padding[n] = 1;
      scalars[n] = view.getInt16(at + 70, le);
      if (positions.inline > 0) {
        inline[n] = view.getInt32(at + positions.inline - 1, le);
        crossline[n] = view.getInt32(at + positions.crossline - 1, le);
      }
      if (positions.x > 0) {
        x[n] = view.getInt32(at + positions.x - 1, le);
        y[n] = view.getInt32(at + positions.y - 1, le);
      }
      delay[n] = view.getInt16(at + 108, le);
    },
    (part) => {
      stopIf(signal);
      onProgress?.(part);
    },
  );
  const problems = positions.x > 0 && scalar === undefined ? scalarProblems(scalars, (n) => padding[n] === 0) : [];
  const usual = usualScalar(scalars);
  for (let n = 0; n < traces; n++) {
    if (n % 4096 === 0) stopIf(signal);
    const factor = factorOf(scalar ?? (scalars[n] || usual));
    if (positions.x > 0) [x[n], y[n]] = toMap(x[n] * factor, y[n] * factor);
  }
  return { inline, crossline, x, y, delay, padding, problems };
}

function axisOf(all: Int32Array, used: Int32Array, what: string, name: string): Axis {
  const values = used.map((n) => all[n]);
  let min = values[0];
  let max = values[0];
  for (const v of values) {
    if (v < min) min = v;
    if (v > max) max = v;
  }
  let step = 0;
  for (const v of values) {
    let [a, b] = [step, v - min];
    while (b) [a, b] = [b, a % b];
    step = a;
    if (step === 1) break;
  }
  if (step === 0) step = 1;
  const count = (max - min) / step + 1;
  if (count > 200000)
    throw new LithagonError('segy', `${name}: the ${what} numbers run from ${min} to ${max}, which is no survey.`, {
      object: name,
      fix: `Choose another byte position for the ${what}.`,
    });
  return { first: min, step, count };
}

/** Part of the traces that may lie far from all others and still be left out, and at least how many. */
const STRAY = 0.002;
const STRAYS = 5;

/** Numbers between which all but a few lie, with as much again on either side; what is beyond is far from all of them. */
function reachOf(values: Int32Array, used: Int32Array): [from: number, to: number] {
  const sorted = used.map((n) => values[n]).sort();
  const cut = Math.min(Math.max(STRAYS, Math.floor(STRAY * sorted.length)), (sorted.length - 1) >> 2);
  const [low, high] = [sorted[cut], sorted[sorted.length - 1 - cut]];
  const room = Math.max(1000, high - low);
  return [low - room, high + room];
}

/** Traces that make up the survey, the lines they lie on, and how many were left out: of padding, or with wild numbers. */
function surveyOf({ inline, crossline, padding }: Numbers, name: string) {
  const all = Int32Array.from(inline.keys());
  const live = all.filter((n) => padding[n] === 0);
  // where every number is nought, nothing is padding
  const whole = live.length > 0 ? live : all;
  const lines = (used: Int32Array) => {
    const il = axisOf(inline, used, 'inline', name);
    const xl = axisOf(crossline, used, 'crossline', name);
    if (il.count * xl.count > 60 * used.length + 1000)
      throw new LithagonError(
        'segy',
        `${name}: ${used.length} traces do not fill a grid of ${il.count} inlines and ${xl.count} crosslines.`,
        { object: name, fix: 'Choose other byte positions for inline and crossline.' },
      );
    return { used, il, xl, padded: all.length - whole.length, strays: whole.length - used.length };
  };
  try {
    return lines(whole);
  } catch (cause) {
    const [[i0, i1], [j0, j1]] = [reachOf(inline, whole), reachOf(crossline, whole)];
    const near = whole.filter((n) => inline[n] >= i0 && inline[n] <= i1 && crossline[n] >= j0 && crossline[n] <= j1);
    if (near.length === whole.length || whole.length - near.length > Math.max(STRAYS, STRAY * whole.length))
      throw cause;
    return lines(near);
  }
}

/** Bin lengths (m) that are taken, and said, where nobody gives any. */
export const LOCAL_BINS: [number, number] = [25, 25];

/** Number traces that follow each other line by line. */
function countLines({ inline, crossline, padding }: Numbers, lineTraces: number): void {
  padding.fill(0);
  for (let n = 0; n < inline.length; n++) {
    inline[n] = 1 + Math.floor(n / lineTraces);
    crossline[n] = 1 + (n % lineTraces);
  }
}

/** Give traces without coordinates places by their numbers: inlines follow each other northwards, crosslines eastwards. */
function placeOnLocalGrid({ inline, crossline, x, y }: Numbers, [alongI, alongJ]: [number, number]): void {
  const stepOf = (values: Int32Array) => {
    const sorted = Int32Array.from(new Set(values)).sort();
    return sorted.reduce(
      (step, v, n) => (n > 0 ? Math.min(step, v - sorted[n - 1]) : step),
      sorted.length > 1 ? 1e9 : 1,
    );
  };
  const [i, j] = [stepOf(inline), stepOf(crossline)];
  const [i0, j0] = [inline, crossline].map((values) => values.reduce((a, b) => Math.min(a, b), values[0]));
  for (let n = 0; n < x.length; n++) {
    x[n] = ((crossline[n] - j0) / j) * alongJ;
    y[n] = ((inline[n] - i0) / i) * alongI;
  }
}

/** Index all traces: line numbers to bins, coordinates to an affine bin grid by least squares over every trace. */
export async function indexTraces(
  file: SegyFile,
  positions: Positions,
  placing: Placing,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<TraceIndex> {
  const numbers = await readNumbers(file, positions, placing, signal, onProgress);
  if (positions.lineTraces) countLines(numbers, positions.lineTraces);
  if (positions.x === 0) placeOnLocalGrid(numbers, placing.bins ?? LOCAL_BINS);
  const { inline, crossline, x, y, delay } = numbers;
  stopIf(signal);
  const { used, il, xl, padded, strays } = surveyOf(numbers, file.name);
  const bins = il.count * xl.count;
  const traceOfBin = new Int32Array(bins).fill(-1);
  let duplicates = 0;
  let live = 0;
  // sums for the affine fit, kept small by working from the first trace
  const design: number[][] = [];
  const xs: number[] = [];
  const ys: number[] = [];
  const every = Math.max(1, Math.floor(used.length / 20000));
  const [first0] = used;
  for (let u = 0; u < used.length; u++) {
    if (u % 4096 === 0) stopIf(signal);
    const n = used[u];
    const i = (inline[n] - il.first) / il.step;
    const j = (crossline[n] - xl.first) / xl.step;
    const bin = i * xl.count + j;
    if (traceOfBin[bin] >= 0) {
      duplicates++;
      continue;
    }
    traceOfBin[bin] = n;
    live++;
    if (u % every === 0) {
      design.push([1, i, j]);
      xs.push(x[n] - x[first0]);
      ys.push(y[n] - y[first0]);
    }
  }
  stopIf(signal);
  const cx = leastSquares(design, xs);
  stopIf(signal);
  const cy = leastSquares(design, ys);
  if (!cx || !cy)
    throw new LithagonError('segy', `${file.name}: its traces lie on one line, so it is no 3D survey.`, {
      object: file.name,
      fix: 'Load it as a 2D line, or choose other byte positions.',
    });
  const binGrid: BinGrid = {
    inline: il,
    crossline: xl,
    origin: [x[first0] + cx[0], y[first0] + cy[0]],
    perInline: [cx[1], cy[1]],
    perCrossline: [cx[2], cy[2]],
    ...(positions.x === 0 ? { local: true as const } : {}),
  };
  let sum = 0;
  let max = 0;
  const residualMap: TraceIndex['residualMap'] = [];
  const shown = Math.max(1, Math.floor(design.length / 2500));
  design.forEach((row, n) => {
    const off = Math.hypot(
      cx[0] + cx[1] * row[1] + cx[2] * row[2] - xs[n],
      cy[0] + cy[1] * row[1] + cy[2] * row[2] - ys[n],
    );
    sum += off * off;
    max = Math.max(max, off);
    if (n % shown === 0) residualMap.push([row[1], row[2], off]);
  });
  const problems = [...numbers.problems];
  if (duplicates > 0)
    problems.push(`${duplicates} traces share a bin with an earlier one; the first of each was kept.`);
  if (live < bins) problems.push(`${bins - live} of ${bins} bins have no trace; they are shown as empty.`);
  if (padded > 0)
    problems.push(
      `${padded} traces have no number and no position anywhere: they only fill up the file and were left out.`,
    );
  if (strays > 0)
    problems.push(
      `${strays} ${strays === 1 ? 'trace has a line number' : 'traces have line numbers'} far from all others and ${strays === 1 ? 'was' : 'were'} left out.`,
    );
  let [first, last] = [delay[first0], delay[first0]];
  for (const n of used) {
    const d = delay[n];
    if (d < first) first = d;
    if (d > last) last = d;
  }
  let uneven = 0;
  const late =
    first === last
      ? null
      : Int16Array.from(delay, (d) => {
          const samples = (d - first) / file.intervalMs;
          if (Math.abs(samples - Math.round(samples)) > 0.01) uneven++;
          return Math.round(samples);
        });
  if (late)
    problems.push(
      `Traces start at different times, from ${first} to ${last} ms; each was put where it belongs.${uneven > 0 ? ` ${uneven} of them start between two samples and were put on the nearer.` : ''}`,
    );
  return {
    binGrid,
    traceOfBin,
    live,
    missing: bins - live,
    duplicates,
    first,
    late,
    residual: { rms: Math.sqrt(sum / design.length), max },
    residualMap,
    problems,
  };
}
