import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Axis, Lattice } from '../../earth/lattice.ts';
import { leastSquares } from '../../numerics/leastSquares.ts';
import { eachHeader, type SegyFile } from './file.ts';
import { coordinateScale, type Positions } from './positions.ts';

/** Brings a file's coordinates into the project's, metres. */
export type ToMap = (x: number, y: number) => [number, number];

/** Which trace of the file lies in which bin, and where the bins are. */
export interface TraceIndex {
  lattice: Lattice;
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
}

/** Line numbers and coordinates of every trace. */
export async function readNumbers(
  file: SegyFile,
  positions: Positions,
  toMap: ToMap,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<Numbers> {
  const { traces } = file;
  const inline = new Int32Array(traces);
  const crossline = new Int32Array(traces);
  const x = new Float64Array(traces);
  const y = new Float64Array(traces);
  const delay = new Int16Array(traces);
  let scale = 0;
  await eachHeader(
    file,
    (view, at, n, le) => {
      // one scalar for the file: single traces with a zero in its place are common
      if (scale === 0) scale = coordinateScale(new DataView(view.buffer, view.byteOffset + at, 240), le);
      inline[n] = view.getInt32(at + positions.inline - 1, le);
      crossline[n] = view.getInt32(at + positions.crossline - 1, le);
      [x[n], y[n]] = toMap(
        view.getInt32(at + positions.x - 1, le) * scale,
        view.getInt32(at + positions.y - 1, le) * scale,
      );
      delay[n] = view.getInt16(at + 108, le);
    },
    (part) => {
      stopIf(signal);
      onProgress?.(part);
    },
  );
  return { inline, crossline, x, y, delay };
}

function axisOf(values: Int32Array, what: string, name: string): Axis {
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

/** Index all traces: line numbers to bins, coordinates to an affine lattice by least squares over every trace. */
export async function indexTraces(
  file: SegyFile,
  positions: Positions,
  toMap: ToMap,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<TraceIndex> {
  const { inline, crossline, x, y, delay } = await readNumbers(file, positions, toMap, signal, onProgress);
  const il = axisOf(inline, 'inline', file.name);
  const xl = axisOf(crossline, 'crossline', file.name);
  const bins = il.count * xl.count;
  if (bins > 60 * file.traces + 1000)
    throw new LithagonError(
      'segy',
      `${file.name}: ${file.traces} traces do not fill a grid of ${il.count} inlines and ${xl.count} crosslines.`,
      { object: file.name, fix: 'Choose other byte positions for inline and crossline.' },
    );
  const traceOfBin = new Int32Array(bins).fill(-1);
  let duplicates = 0;
  let live = 0;
  // sums for the affine fit, kept small by working from the first trace
  const design: number[][] = [];
  const xs: number[] = [];
  const ys: number[] = [];
  const every = Math.max(1, Math.floor(file.traces / 20000));
  for (let n = 0; n < file.traces; n++) {
    const i = (inline[n] - il.first) / il.step;
    const j = (crossline[n] - xl.first) / xl.step;
    const bin = i * xl.count + j;
    if (traceOfBin[bin] >= 0) {
      duplicates++;
      continue;
    }
    traceOfBin[bin] = n;
    live++;
    if (n % every === 0) {
      design.push([1, i, j]);
      xs.push(x[n] - x[0]);
      ys.push(y[n] - y[0]);
    }
  }
  const cx = leastSquares(design, xs);
  const cy = leastSquares(design, ys);
  if (!cx || !cy)
    throw new LithagonError('segy', `${file.name}: its traces lie on one line, so it is no 3D survey.`, {
      object: file.name,
      fix: 'Load it as a 2D line, or choose other byte positions.',
    });
  const lattice: Lattice = {
    inline: il,
    crossline: xl,
    origin: [x[0] + cx[0], y[0] + cy[0]],
    perInline: [cx[1], cy[1]],
    perCrossline: [cx[2], cy[2]],
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
  const problems: string[] = [];
  if (duplicates > 0)
    problems.push(`${duplicates} traces share a bin with an earlier one; the first of each was kept.`);
  if (live < bins) problems.push(`${bins - live} of ${bins} bins have no trace; they are shown as empty.`);
  let [first, last] = [delay[0], delay[0]];
  for (const d of delay) {
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
    lattice,
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
