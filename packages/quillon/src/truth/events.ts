import { SURVEY } from '../model/survey.ts';
import { type Imaged, meeting } from '../seismic/survey.ts';
import { MEETS } from '../seismic/traces.ts';

/** The horizons that have files, with the model's surface number. */
export const HORIZONS: { name: string; file: string; surface: number }[] = [
  { name: 'Sea Bed', file: 'sea-bed', surface: 0 },
  { name: 'Lantern Top', file: 'lantern-top', surface: 1 },
  { name: 'Brack Top', file: 'brack-top', surface: 2 },
  { name: 'Brack Unconformity', file: 'brack-unconformity', surface: 3 },
  { name: 'Tolven Top', file: 'tolven-top', surface: 5 },
  { name: 'Tolven Base', file: 'tolven-base', surface: 6 },
  { name: 'Pell Top', file: 'pell-top', surface: 7 },
  { name: 'Basement Top', file: 'basement-top', surface: 8 },
];

export interface TruthRow {
  inline: number;
  crossline: number;
  depth: number;
  twt: number;
  /** NaN where a perfect tracker would find nothing to follow. */
  event: number;
}

const NS = SURVEY.samples;

/** Half width, in samples, of the sum that stands for the continuous waveform, and steps a sample at which it is worked out. */
const REACH = 24;
const STEPS = 8;

/** Modified Bessel function of the first kind and order zero, by its series. */
function besselI0(x: number): number {
  let term = 1;
  let sum = 1;
  for (let k = 1; term > 1e-12 * sum; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

/** Weights of the samples around for each of the `STEPS` places between two: a sinc under a Kaiser window (β = 8). */
const WEIGHTS = Array.from({ length: STEPS }, (_, phase) =>
  Float64Array.from({ length: 2 * REACH }, (_, n) => {
    const x = phase / STEPS + REACH - 1 - n;
    const sinc = Math.abs(x) < 1e-12 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
    return (sinc * besselI0(8 * Math.sqrt(Math.max(0, 1 - (x / REACH) ** 2)))) / besselI0(8);
  }),
);

/** A band-limited trace at a place counted in `1/STEPS` of a sample; in error by less than 1e-4 of its peak. */
export function waveformAt(trace: Float32Array, at: number, step: number): number {
  const weights = WEIGHTS[step % STEPS];
  const from = Math.floor(step / STEPS) - REACH + 1;
  let sum = 0;
  for (let n = Math.max(0, -from); n < 2 * REACH && from + n < NS; n++) sum += trace[at + from + n] * weights[n];
  return sum;
}

/** Nearest extremum of a sign of the continuous waveform to a time; NaN if none within `reachMs`. */
function nearestExtremum(
  trace: Float32Array,
  at: number,
  sign: number,
  nearMs: number,
  reachMs: number,
): [number, number] {
  const dt = SURVEY.sampleMs;
  let best = Number.NaN;
  let amplitude = 0;
  const first = Math.max(STEPS, Math.floor(((nearMs - reachMs) / dt) * STEPS));
  const last = Math.min((NS - 2) * STEPS, Math.ceil(((nearMs + reachMs) / dt) * STEPS));
  const value = (n: number) => sign * waveformAt(trace, at, n);
  let [a, b] = [value(first - 1), value(first)];
  for (let n = first; n <= last; n++) {
    const c = value(n + 1);
    if (b > 0 && b >= a && b > c) {
      // half a millisecond apart, a parabola is as good as the waveform itself
      const shift = (0.5 * (a - c)) / (a - 2 * b + c);
      const t = ((n + shift) * dt) / STEPS;
      if (Math.abs(t - nearMs) <= reachMs && !(Math.abs(t - nearMs) >= Math.abs(best - nearMs))) {
        best = t;
        amplitude = b - 0.25 * (a - c) * shift;
      }
    }
    a = b;
    b = c;
  }
  return [best, amplitude];
}

function rms(trace: Float32Array, at: number, ms: number, half: number): number {
  const k0 = Math.max(0, Math.round((ms - half) / SURVEY.sampleMs));
  const k1 = Math.min(NS - 1, Math.round((ms + half) / SURVEY.sampleMs));
  let sum = 0;
  for (let k = k0; k <= k1; k++) sum += trace[at + k] ** 2;
  return Math.sqrt(sum / (k1 - k0 + 1));
}

/**
 * Where a horizon is, and where its event is: the extremum of the interface's own sign, continuous with it, in the
 * noise-free full stack. Empty where Tolven is thinner than 20 m or the event is weaker than twice the rms around it.
 */
export function truthRows(imaged: Imaged, surface: number): TruthRow[] {
  const { extent, clean } = imaged;
  const rows: (TruthRow & { trace: number })[] = [];
  let lean = 0;
  for (let n = 0; n < extent.inlines * extent.crosslines; n++)
    for (let m = 0; m < MEETS; m++) {
      const [depth, twt] = meeting(imaged, n, surface, m);
      if (Number.isNaN(depth)) continue;
      const k = Math.round(twt / SURVEY.sampleMs);
      if (k < NS) lean += clean[n * NS + k];
      rows.push({
        trace: n,
        inline: extent.inline0 + Math.floor(n / extent.crosslines),
        crossline: extent.crossline0 + (n % extent.crosslines),
        depth,
        twt,
        event: Number.NaN,
      });
    }
  const sign = Math.sign(lean);
  const find = (row: (typeof rows)[number], delay: number, reach: number) =>
    nearestExtremum(clean, row.trace * NS, sign, row.twt + delay, reach);
  const delays = rows.map((row) => find(row, 0, 16)[0] - row.twt).filter((d) => !Number.isNaN(d));
  delays.sort((a, b) => a - b);
  const usual = delays.length > 0 ? delays[Math.floor(delays.length / 2)] : 0;
  for (const row of rows) {
    if (row.twt + 20 > (NS - 1) * SURVEY.sampleMs) continue;
    if (surface === 5 || surface === 6) {
      const top = meeting(imaged, row.trace, 5, 0)[0];
      const base = meeting(imaged, row.trace, 6, 0)[0];
      if (!(base - top >= 20)) continue;
    }
    const [event, amplitude] = find(row, usual, 13);
    if (amplitude >= 2 * rms(clean, row.trace * NS, row.twt, 100)) row.event = event;
  }
  return rows.map(({ trace: _, ...row }) => row);
}
