import { hilbert } from '../numerics/fft.ts';
import { type EventKind, eventsIn, type Traces } from './event.ts';

/** What of a waveform picks go to: an event that can be tracked, or where amplitude changes most or is greatest. */
export const PICK_EVENTS = ['trough', 'peak', 'zero rising', 'zero falling', 'largest gradient', 'envelope'] as const;
export type PickEvent = (typeof PICK_EVENTS)[number];

/** A trace as one whose events of a kind are sought: itself, its slope, or its envelope (Taner et al. 1979, Geophysics 44, 1041–1063). */
function seekingIn(traces: Traces, trace: number, event: PickEvent): { value(k: number): number; kind: EventKind } {
  const { data, samples } = traces;
  const base = trace * samples;
  const value = (k: number) => (k < 0 || k >= samples ? Number.NaN : data[base + k]);
  if (event === 'largest gradient') return { value: (k) => Math.abs(value(k + 1) - value(k - 1)) / 2, kind: 'peak' };
  if (event !== 'envelope') return { value, kind: event };
  const real = Float64Array.from(data.subarray(base, base + samples), (v) => (Number.isNaN(v) ? 0 : v));
  const turned = hilbert(real);
  return {
    value: (k) => (Number.isNaN(value(k)) ? Number.NaN : Math.hypot(real[k], turned[k])),
    kind: 'peak',
  };
}

/** An event on a trace. */
export interface PickedEvent {
  /** In the vertical unit of the traces. */
  time: number;
  /** How strong it is: the size of what is sought there, its slope at a zero crossing. */
  strength: number;
}

/** Events of a kind on a trace between two times, in their order. */
export function pickableIn(traces: Traces, trace: number, event: PickEvent, from: number, to: number): PickedEvent[] {
  const { first, step } = traces;
  const { value, kind } = seekingIn(traces, trace, event);
  const crossing = kind === 'zero rising' || kind === 'zero falling';
  return eventsIn(value, kind, (from - first) / step, (to - first) / step).map((k) => {
    const near = Math.round(k);
    const strength = crossing ? Math.abs(value(Math.ceil(k)) - value(Math.ceil(k) - 1)) : Math.abs(value(near));
    return { time: first + k * step, strength };
  });
}

/** The event of a kind nearest to a time, within `reach`; NaN where there is none. Times in the vertical unit. */
export function snapTo(traces: Traces, trace: number, time: number, event: PickEvent, reach: number): number {
  let best = Number.NaN;
  for (const { time: at } of pickableIn(traces, trace, event, time - reach, time + reach))
    if (Number.isNaN(best) || Math.abs(at - time) < Math.abs(best - time)) best = at;
  return best;
}
