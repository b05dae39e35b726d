import { columnAt, emptyPoint, type Field, pointAt } from '../model/field.ts';
import type { Rock } from '../model/rocks.ts';
import { SURVEY } from '../model/survey.ts';
import { ANGLES, drawWavelets, FINE_MS, HALF, waveletTable } from './wavelet.ts';
import { reflection } from './zoeppritz.ts';

/** Depth step of the fine column and its greatest depth, metres. */
const DZ = 0.5;
const DEEPEST = 3950;
const FINE = Math.ceil((SURVEY.samples * SURVEY.sampleMs) / FINE_MS) + HALF + 4;

/** Up to this many times may one trace meet a horizon (a reverse fault repeats it). */
export const MEETS = 2;
/** Surfaces whose depth and time are kept: all but the notional Merrow top. */
export const KEPT = [0, 1, 2, 3, 5, 6, 7, 8];

export interface TraceSet {
  /** `[trace][sample]` for near, mid and far, without noise. */
  stacks: Float32Array[];
  /** `[trace][kept surface][meeting][depth, twt]`, NaN where absent. */
  horizons: Float32Array;
}

/** Depth (m) against two-way time for a column at fine steps: `twt[i]` in ms at depth `i·DZ`. */
export interface TimeColumn {
  dz: number;
  twt: Float64Array;
  count: number;
}

/** Interpolate the time (ms) at a depth. */
export function twtAt(column: TimeColumn, z: number): number {
  const x = z / column.dz;
  const i = Math.min(column.count - 2, Math.max(0, Math.floor(x)));
  return column.twt[i] + (x - i) * (column.twt[i + 1] - column.twt[i]);
}

/** Depths (m) between which a column is sampled at every step; elsewhere one sample stands for two steps. */
const FINEST_FROM = 480;
const FINEST_TO = 1500;

/** Steps that the next sample of a column stands for. */
function spanAt(i: number): number {
  const z = i * DZ;
  return z >= FINEST_FROM && z < FINEST_TO ? 1 : 2;
}

/** Time against depth at a place, for wells, truth and velocity files. */
export function timeColumn(field: Field, u: number, v: number, toMs = 1900): TimeColumn {
  const column = columnAt(field, u, v, DEEPEST);
  const point = emptyPoint();
  const twt = new Float64Array(Math.floor(DEEPEST / DZ) + 1);
  let i = 0;
  while (i < twt.length - 2 && twt[i] < toMs) {
    const span = spanAt(i);
    pointAt(column, (i + span / 2) * DZ, point);
    for (const end = i + span; i < end; i++) twt[i + 1] = twt[i] + (2000 * DZ) / point.vp;
  }
  return { dz: DZ, twt, count: i + 1 };
}

/** Each output sample with the wavelet of its own time: `out[k] = Σ r(t_k − lag)·w_k(lag)`. */
function convolve(r: Float32Array, table: Float32Array, out: Float32Array, at: number): void {
  const ns = SURVEY.samples | 0;
  const lags = (2 * HALF + 1) | 0;
  const step = (SURVEY.sampleMs / FINE_MS) | 0;
  for (let k = 0; k < ns; k = (k + 1) | 0) {
    // the table's lags run from −HALF to HALF; reflectors before time zero do not exist
    let from = (k * step + HALF) | 0;
    const w = (k * lags) | 0;
    let sum = 0;
    const most = (from < lags ? from + 1 : lags) | 0;
    for (let l = 0; l < most; l = (l + 1) | 0) {
      sum += r[from] * table[w + l];
      from = (from - 1) | 0;
    }
    out[at + k] = sum;
  }
}

/**
 * Noise-free angle stacks under the places given: fine elastic columns in depth, averaged over each fine time step
 * (travel time for velocity, thickness for density), exact reflection coefficients, time-varying wavelets.
 */
export function modelTraces(field: Field, places: Float64Array, onTrace?: (done: number) => void): TraceSet {
  const traces = places.length / 2;
  const ns = SURVEY.samples;
  const tables = drawWavelets(field.seed).map(waveletTable);
  const stacks = tables.map(() => new Float32Array(traces * ns));
  const horizons = new Float32Array(traces * KEPT.length * MEETS * 2).fill(Number.NaN);
  const count = Math.floor(DEEPEST / DZ) + 1;
  const twt = new Float64Array(count);
  const mass = new Float64Array(count);
  const shear = new Float64Array(count);
  const point = emptyPoint();
  const series = ANGLES.map(() => new Float32Array(FINE + HALF));
  const upper: Rock = { vp: 0, vs: 0, rho: 0 };
  const lower: Rock = { vp: 0, vs: 0, rho: 0 };
  const lastMs = FINE * FINE_MS;

  for (let n = 0; n < traces; n++) {
    const column = columnAt(field, places[2 * n], places[2 * n + 1], DEEPEST);
    let i = 0;
    while (i < count - 2 && twt[i] < lastMs + 2) {
      const span = spanAt(i);
      pointAt(column, (i + span / 2) * DZ, point);
      const stepMs = (2000 * DZ) / point.vp;
      const stepMass = point.rho * DZ;
      const stepShear = DZ / Math.max(1, point.vs);
      for (const end = i + span; i < end; i++) {
        twt[i + 1] = twt[i] + stepMs;
        mass[i + 1] = mass[i] + stepMass;
        shear[i + 1] = shear[i] + stepShear;
      }
    }
    if (twt[i] < lastMs)
      throw new Error(`the column at ${places[2 * n]}, ${places[2 * n + 1]} ends before the record does`);
    // average over fine time steps, then reflect between neighbours
    let j = 0;
    let z0 = 0;
    let m0 = 0;
    let s0 = 0;
    for (const s of series) s.fill(0);
    for (let k = 0; k < FINE; k++) {
      const edge = (k + 1) * FINE_MS;
      while (twt[j + 1] < edge) j++;
      const f = (edge - twt[j]) / (twt[j + 1] - twt[j]);
      const z1 = (j + f) * DZ;
      const m1 = mass[j] + f * (mass[j + 1] - mass[j]);
      const s1 = shear[j] + f * (shear[j + 1] - shear[j]);
      lower.vp = (2000 * (z1 - z0)) / FINE_MS;
      lower.rho = (m1 - m0) / (z1 - z0);
      lower.vs = (z1 - z0) / (s1 - s0);
      if (lower.vs < 60) lower.vs = 0;
      if (k > 0) for (let a = 0; a < ANGLES.length; a++) series[a][k] = reflection(upper, lower, ANGLES[a].sin);
      upper.vp = lower.vp;
      upper.vs = lower.vs;
      upper.rho = lower.rho;
      z0 = z1;
      m0 = m1;
      s0 = s1;
    }
    for (let a = 0; a < ANGLES.length; a++) convolve(series[a], tables[a], stacks[a], n * ns);
    column.blocks.forEach((block) => {
      KEPT.forEach((surface, h) => {
        const z = block.surfaces[surface];
        if (z < block.top || z >= block.base) return;
        if (surface === 6 && block.surfaces[6] - block.surfaces[5] < 0.5) return;
        if (surface === 5 && block.surfaces[6] - block.surfaces[5] < 0.5) return;
        const x = z / DZ;
        const q = Math.floor(x);
        if (q >= i) return;
        for (let m = 0; m < MEETS; m++) {
          const o = ((n * KEPT.length + h) * MEETS + m) * 2;
          if (!Number.isNaN(horizons[o])) continue;
          horizons[o] = z;
          horizons[o + 1] = twt[q] + (x - q) * (twt[q + 1] - twt[q]);
          break;
        }
      });
    });
    onTrace?.(n + 1);
  }
  return { stacks, horizons };
}
