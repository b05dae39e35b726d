import { cubicBetween } from '../numerics/cubic.ts';
/** Events of the waveform that a horizon can follow through a volume. */
export const EVENT_KINDS = ['trough', 'peak', 'zero rising', 'zero falling'] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/** Traces of a volume in memory: `[trace][sample]`, time of sample 0 and step in the vertical unit (ms or m). */
export interface Traces {
  data: Float32Array;
  samples: number;
  first: number;
  step: number;
}

/** Cubic interpolation (Catmull–Rom) of a trace at a fractional sample; NaN outside. */
export function sampleAt(traces: Traces, trace: number, k: number): number {
  const n = traces.samples;
  const i = Math.floor(k);
  if (i < 1 || i > n - 3) return Number.NaN;
  const o = trace * n + i;
  const f = k - i;
  const { data } = traces;
  const [a, b, c, d] = [data[o - 1], data[o], data[o + 1], data[o + 2]];
  return cubicBetween(a, b, c, d, f);
}

/**
 * Events of a kind in a window of samples, as fractional samples: extrema by a parabola through three samples,
 * zero crossings by a straight line.
 */
export function eventsIn(value: (k: number) => number, kind: EventKind, from: number, to: number): number[] {
  const out: number[] = [];
  const sign = kind === 'trough' || kind === 'zero falling' ? -1 : 1;
  const k0 = Math.max(1, Math.floor(from));
  const k1 = Math.ceil(to);
  for (let k = k0; k <= k1; k++) {
    const a = sign * value(k - 1);
    const b = sign * value(k);
    const c = sign * value(k + 1);
    let at = Number.NaN;
    if (kind === 'peak' || kind === 'trough') {
      if (b > 0 && b >= a && b > c) at = k + (0.5 * (a - c)) / (a - 2 * b + c);
    } else if (b < 0 && c >= 0) at = k + b / (b - c);
    if (at >= from && at <= to) out.push(at);
  }
  return out;
}

/** The event of a kind nearest to a time, within `reach`; NaN where there is none. Times in the vertical unit. */
export function snap(traces: Traces, trace: number, time: number, kind: EventKind, reach: number): number {
  const at = (time - traces.first) / traces.step;
  const r = reach / traces.step;
  const base = trace * traces.samples;
  const value = (k: number) => (k < 0 || k >= traces.samples ? Number.NaN : traces.data[base + k]);
  let best = Number.NaN;
  for (const k of eventsIn(value, kind, at - r, at + r))
    if (Number.isNaN(best) || Math.abs(k - at) < Math.abs(best - at)) best = k;
  return traces.first + best * traces.step;
}
