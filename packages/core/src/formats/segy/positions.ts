import { leastSquares } from '../../numerics/leastSquares.ts';
import type { ByteSource } from '../source.ts';
import { flatCoordinates, scalarsOf } from './coordinates.ts';
import { type SegyHeaders, traceOffset } from './headers.ts';

/** Where the numbers of a trace stand in its header: byte positions from 1, four-byte integers. */
export interface Positions {
  inline: number;
  crossline: number;
  /** 0, as `y`, where the headers hold no coordinates. */
  x: number;
  y: number;
  /** Traces that are counted to each inline, where the headers hold no line numbers either; these are then 0. */
  lineTraces?: number;
}

export interface RankedPositions extends Positions {
  /** 0 to 1. */
  score: number;
  why: string;
}

// Positions at which some file or other keeps a line number or a coordinate.
const NUMBERS = [1, 5, 9, 13, 17, 21, 25, 181, 185, 189, 193, 197, 201, 205, 209, 213, 217, 221, 225, 229, 233, 237];
const COORDINATES = [73, 81, 181, 189, 193, 197, 201, 205, 209, 213, 217, 221, 225, 229, 233];
const USUAL = new Set([9, 21, 189, 193]);
/** Crossline numbers that go with an inline number: pairs of one custom are not mixed. */
const CROSSLINE_OF: Record<number, number> = { 9: 21, 189: 193 };
const USUAL_XY = new Set([73, 81, 181]);

/** Trace headers taken here and there: runs of neighbours spread over the file. */
export interface HeaderSample {
  traces: Int32Array;
  views: DataView[];
}

export async function sampleHeaders(
  source: ByteSource,
  headers: SegyHeaders,
  runs = 24,
  run = 96,
): Promise<HeaderSample> {
  const picked = new Set<number>();
  const most = headers.traces;
  if (most <= runs * run) for (let n = 0; n < most; n++) picked.add(n);
  else
    for (let r = 0; r < runs; r++) {
      const from = Math.round((r / (runs - 1)) * (most - run));
      for (let n = 0; n < run; n++) picked.add(from + n);
    }
  const traces = Int32Array.from(picked).sort();
  const views: DataView[] = [];
  for (let a = 0; a < traces.length; ) {
    let b = a;
    while (b + 1 < traces.length && traces[b + 1] === traces[b] + 1 && b - a < 400) b++;
    const offset = traceOffset(headers, traces[a]);
    const bytes = await source.read(offset, traceOffset(headers, traces[b]) + 240 - offset);
    for (let n = a; n <= b; n++)
      views.push(new DataView(bytes.buffer, bytes.byteOffset + traceOffset(headers, traces[n]) - offset, 240));
    a = b + 1;
  }
  // traces of padding say nothing of where they lie, and nothing of where the others do
  const kept = views.map((view, n) => (isPadding(view) ? -1 : n)).filter((n) => n >= 0);
  if (kept.length === views.length || kept.length < 2) return { traces, views };
  return { traces: Int32Array.from(kept, (n) => traces[n]), views: kept.map((n) => views[n]) };
}

/** Whether a trace header has no number and no position anywhere that one may stand: a trace that only fills up. */
export function isPadding(view: DataView, at = 0): boolean {
  for (const byte of [9, 13, 17, 21, 25, 73, 77, 81, 85, 181, 185, 189, 193, 197, 201])
    if (view.getInt32(at + byte - 1) !== 0) return false;
  return true;
}

interface Column {
  at: number;
  values: Float64Array;
  step: number;
  count: number;
}

function greatestDivisor(a: number, b: number): number {
  while (b) [a, b] = [b, a % b];
  return a;
}

function columnsOf(sample: HeaderSample, headers: SegyHeaders): Column[] {
  const out: Column[] = [];
  for (const at of NUMBERS) {
    const values = Float64Array.from(sample.views, (view) => view.getInt32(at - 1, headers.littleEndian));
    let min = values[0];
    let max = values[0];
    let step = 0;
    for (const v of values) {
      min = Math.min(min, v);
      max = Math.max(max, v);
    }
    if (max - min > 2e6 || min < -2e6) continue;
    for (const v of values) step = greatestDivisor(step, v - min);
    out.push({ at, values, step: Math.max(1, step), count: step === 0 ? 1 : (max - min) / step + 1 });
  }
  return out;
}

/** Most traces whose numbers may be wild without their saying anything of the others. */
const MOST_STRAYS = 5;

/** The sample without single traces whose numbers lie far from those of all others: they would hide where lines stand. */
function withoutStrays(sample: HeaderSample, headers: SegyHeaders): HeaderSample {
  const strays = new Set<number>();
  if (sample.views.length < 4 * MOST_STRAYS) return sample;
  for (const at of NUMBERS) {
    const values = sample.views.map((view) => view.getInt32(at - 1, headers.littleEndian));
    const sorted = Int32Array.from(values).sort();
    const [low, high] = [sorted[MOST_STRAYS], sorted[sorted.length - 1 - MOST_STRAYS]];
    const room = Math.max(1000, 10 * (high - low));
    values.forEach((v, n) => {
      if (v < low - room || v > high + room) strays.add(n);
    });
  }
  if (strays.size === 0 || strays.size > MOST_STRAYS) return sample;
  const kept = sample.views.map((_, n) => n).filter((n) => !strays.has(n));
  return { traces: Int32Array.from(kept, (n) => sample.traces[n]), views: kept.map((n) => sample.views[n]) };
}

/** Line numbers are small; numbers such as these are coordinates. */
function large(column: Column): boolean {
  return Math.abs(column.values[0]) > 60000;
}

interface Fit {
  residual: number;
  binI: number;
  binJ: number;
}

/** Fit map coordinates by an affine function of two line numbers; residual is rms in coordinate units. */
function fitAffine(a: Column, b: Column, x: Float64Array, y: Float64Array): Fit | null {
  const rows: number[][] = [];
  const xs: number[] = [];
  const ys: number[] = [];
  const every = Math.max(1, Math.floor(x.length / 300));
  for (let n = 0; n < x.length; n += every) {
    rows.push([1, (a.values[n] - a.values[0]) / a.step, (b.values[n] - b.values[0]) / b.step]);
    xs.push(x[n] - x[0]);
    ys.push(y[n] - y[0]);
  }
  const cx = leastSquares(rows, xs);
  const cy = leastSquares(rows, ys);
  if (!cx || !cy) return null;
  let sum = 0;
  rows.forEach((row, n) => {
    sum +=
      (cx[0] + cx[1] * row[1] + cx[2] * row[2] - xs[n]) ** 2 + (cy[0] + cy[1] * row[1] + cy[2] * row[2] - ys[n]) ** 2;
  });
  const area = Math.abs(cx[1] * cy[2] - cx[2] * cy[1]);
  const binI = Math.hypot(cx[1], cy[1]);
  const binJ = Math.hypot(cx[2], cy[2]);
  // line numbers that both run the same way span no area
  if (area < 0.05 * binI * binJ || binI < 0.5 || binJ < 0.5) return null;
  return { residual: Math.sqrt(sum / rows.length), binI, binJ };
}

interface GridPair {
  a: Column;
  b: Column;
  /** Traces for each bin of the grid. */
  filled: number;
  worth: number;
}

/** Pairs of numbers that make a grid of distinct bins, the fullest first. */
function gridPairs(columns: Column[], traces: number): GridPair[] {
  const pairs: GridPair[] = [];
  for (const a of columns)
    for (const b of columns) {
      if (a.at >= b.at) continue;
      const bins = a.count * b.count;
      const filled = traces / bins;
      if (filled > 1.3 || filled < 0.02) continue;
      const seen = new Set<number>();
      for (let n = 0; n < a.values.length; n++) seen.add(a.values[n] * 4e6 + b.values[n]);
      const distinct = seen.size / a.values.length;
      if (distinct < 0.9) continue;
      // a number that counts traces makes every pair distinct and no grid
      const counter = Math.max(a.count, b.count) > 0.9 * traces && Math.min(a.count, b.count) > 1 ? 0.2 : 1;
      pairs.push({ a, b, filled, worth: Math.min(1, filled) * distinct * counter });
    }
  return pairs.sort((p, q) => q.worth - p.worth);
}

/**
 * Rank where inline, crossline, X and Y may stand: line numbers must make a full grid of distinct bins, and
 * coordinates must be an affine function of them, to a quarter of a bin.
 */
export function rankPositions(whole: HeaderSample, headers: SegyHeaders): RankedPositions[] {
  const sample = withoutStrays(whole, headers);
  const columns = columnsOf(sample, headers).filter((c) => c.count > 1);
  const pairs = gridPairs(columns, headers.traces);
  const scalars = scalarsOf(sample, headers.littleEndian);
  const coordinates = COORDINATES.map((at) => ({ at, ...flatCoordinates(sample, headers, at, scalars) })).filter(
    ({ x, y }) => x.some((v) => v !== x[0]) && y.some((v) => v !== y[0]),
  );
  const out: RankedPositions[] = [];
  for (const { a, b, worth, filled } of pairs.slice(0, 24))
    for (const { at, x, y } of coordinates) {
      if (at === a.at || at === b.at || at + 4 === a.at || at + 4 === b.at) continue;
      const fit = fitAffine(a, b, x, y);
      if (!fit) continue;
      const bin = Math.min(fit.binI, fit.binJ);
      if (fit.residual > 0.25 * bin) continue;
      // on a survey along the axes, coordinates would do for line numbers: bins tell which is which
      const plausible = (bin >= 3 && bin <= 1000 ? 1 : 0.6) * (large(a) || large(b) ? 0.8 : 1);
      const usual =
        (USUAL.has(a.at) ? 0.006 : 0) +
        (USUAL.has(b.at) ? 0.006 : 0) +
        (CROSSLINE_OF[a.at] === b.at ? 0.008 : 0) +
        (USUAL_XY.has(at) ? 0.01 : 0);
      const score = 0.97 * Math.min(1, worth) * plausible * (1 - 2 * (fit.residual / bin)) + usual;
      out.push({
        inline: a.at,
        crossline: b.at,
        x: at,
        y: at + 4,
        score,
        why: `${a.count} × ${b.count} lines hold ${(100 * Math.min(1, filled)).toFixed(0)} % of the bins; bins of ${fit.binI.toFixed(1)} × ${fit.binJ.toFixed(1)}; coordinates fit to ${fit.residual.toFixed(2)}`,
      });
    }
  return out.sort((p, q) => q.score - p.score).slice(0, 8);
}

/** Places at which nothing but coordinates stand. */
const PLACES_OF_COORDINATES = [73, 81, 181];

/**
 * Where inline and crossline may stand in a file whose headers hold no coordinates: numbers that fill a grid, each trace
 * in a bin of its own. X and Y are then 0.
 */
export function rankWithoutCoordinates(whole: HeaderSample, headers: SegyHeaders): RankedPositions[] {
  const sample = withoutStrays(whole, headers);
  const placed = PLACES_OF_COORDINATES.some((at) => {
    const { x, y } = flatCoordinates(sample, headers, at);
    return x.some((v) => v !== x[0]) || y.some((v) => v !== y[0]);
  });
  if (placed) return [];
  const columns = columnsOf(sample, headers).filter((c) => c.count > 1);
  return gridPairs(columns, headers.traces)
    .filter(({ a, b, filled, worth }) => worth > 0.5 && filled > 0.5 && Math.min(a.count, b.count) > 2)
    .map(({ a, b, filled, worth }) => ({
      inline: a.at,
      crossline: b.at,
      x: 0,
      y: 0,
      score:
        0.9 * worth +
        (USUAL.has(a.at) ? 0.02 : 0) +
        (USUAL.has(b.at) ? 0.02 : 0) +
        (CROSSLINE_OF[a.at] === b.at ? 0.05 : 0),
      why: `${a.count} × ${b.count} lines hold ${(100 * Math.min(1, filled)).toFixed(0)} % of the bins; no coordinates stand in the headers`,
    }))
    .sort((p, q) => q.score - p.score)
    .slice(0, 8);
}
