import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Axis, Lattice } from '../../earth/lattice.ts';
import { leastSquares } from '../../numerics/leastSquares.ts';
import type { ByteSource } from '../source.ts';
import type { SegyHeaders } from './headers.ts';
import { coordinateScale, type Positions } from './positions.ts';

/** Which trace of the file lies in which bin, and where the bins are. */
export interface TraceIndex {
  lattice: Lattice;
  /** Trace number in the file per bin `[inline][crossline]`, −1 where missing. */
  traceOfBin: Int32Array;
  live: number;
  missing: number;
  duplicates: number;
  /** First sample's time or depth, from the delay in the trace headers. */
  first: number;
  /** rms and greatest distance (m) of a trace's coordinates from its bin. */
  residual: { rms: number; max: number };
  problems: string[];
}

const BLOCK = 4 << 20;

/** Read the line numbers and coordinates of every trace, a few megabytes at a time. */
async function readNumbers(
  source: ByteSource,
  headers: SegyHeaders,
  positions: Positions,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
) {
  const { traces, traceBytes, firstTrace, littleEndian: le } = headers;
  const inline = new Int32Array(traces);
  const crossline = new Int32Array(traces);
  const x = new Float64Array(traces);
  const y = new Float64Array(traces);
  const delay = new Int16Array(traces);
  const each = Math.max(1, Math.floor(BLOCK / traceBytes));
  let scale = 1;
  for (let n0 = 0; n0 < traces; n0 += each) {
    stopIf(signal);
    const count = Math.min(each, traces - n0);
    const bytes = await source.read(firstTrace + n0 * traceBytes, (count - 1) * traceBytes + 240);
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    if (n0 === 0) scale = coordinateScale(view, le);
    for (let m = 0, at = 0; m < count; m++, at += traceBytes) {
      inline[n0 + m] = view.getInt32(at + positions.inline - 1, le);
      crossline[n0 + m] = view.getInt32(at + positions.crossline - 1, le);
      x[n0 + m] = view.getInt32(at + positions.x - 1, le) * scale;
      y[n0 + m] = view.getInt32(at + positions.y - 1, le) * scale;
      delay[n0 + m] = view.getInt16(at + 108, le);
    }
    onProgress?.((n0 + count) / traces);
  }
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
  source: ByteSource,
  headers: SegyHeaders,
  positions: Positions,
  signal?: AbortSignal,
  onProgress?: (part: number) => void,
): Promise<TraceIndex> {
  const { inline, crossline, x, y, delay } = await readNumbers(source, headers, positions, signal, onProgress);
  const il = axisOf(inline, 'inline', source.name);
  const xl = axisOf(crossline, 'crossline', source.name);
  const bins = il.count * xl.count;
  if (bins > 60 * headers.traces + 1000)
    throw new LithagonError(
      'segy',
      `${source.name}: ${headers.traces} traces do not fill a grid of ${il.count} inlines and ${xl.count} crosslines.`,
      { object: source.name, fix: 'Choose other byte positions for inline and crossline.' },
    );
  const traceOfBin = new Int32Array(bins).fill(-1);
  let duplicates = 0;
  let live = 0;
  const toFeet = headers.feet ? 0.3048 : 1;
  // sums for the affine fit, kept small by working from the first trace
  const design: number[][] = [];
  const xs: number[] = [];
  const ys: number[] = [];
  const every = Math.max(1, Math.floor(headers.traces / 20000));
  for (let n = 0; n < headers.traces; n++) {
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
      xs.push((x[n] - x[0]) * toFeet);
      ys.push((y[n] - y[0]) * toFeet);
    }
  }
  const cx = leastSquares(design, xs);
  const cy = leastSquares(design, ys);
  if (!cx || !cy)
    throw new LithagonError('segy', `${source.name}: its traces lie on one line, so it is no 3D survey.`, {
      object: source.name,
      fix: 'Load it as a 2D line, or choose other byte positions.',
    });
  const lattice: Lattice = {
    inline: il,
    crossline: xl,
    origin: [x[0] * toFeet + cx[0], y[0] * toFeet + cy[0]],
    perInline: [cx[1], cy[1]],
    perCrossline: [cx[2], cy[2]],
  };
  let sum = 0;
  let max = 0;
  design.forEach((row, n) => {
    const d2 =
      (cx[0] + cx[1] * row[1] + cx[2] * row[2] - xs[n]) ** 2 + (cy[0] + cy[1] * row[1] + cy[2] * row[2] - ys[n]) ** 2;
    sum += d2;
    max = Math.max(max, d2);
  });
  const problems: string[] = [];
  if (duplicates > 0)
    problems.push(`${duplicates} traces share a bin with an earlier one; the first of each was kept.`);
  if (live < bins) problems.push(`${bins - live} of ${bins} bins have no trace; they are shown as empty.`);
  let mixed = false;
  for (const d of delay) if (d !== delay[0]) mixed = true;
  if (mixed) problems.push('Traces start at different times; the first trace’s start was used for all.');
  return {
    lattice,
    traceOfBin,
    live,
    missing: bins - live,
    duplicates,
    first: delay[0],
    residual: { rms: Math.sqrt(sum / design.length), max: Math.sqrt(max) },
    problems,
  };
}
