import {
  type Column,
  columnsAlong,
  columnsOver,
  type Domain,
  type Even,
  evenIn,
  type Model,
  turned,
  turnedTraces,
  type Volume,
} from '@lithagon/core';
import { useMemo } from 'react';
import { useConversion } from '../../state/conversion';
import type { PlaneState } from '../common/hooks';
import type { SectionLine } from './geometry';

/** Positions of another domain in that of a section, at traces of it. */
export interface Turning {
  key: string;
  model: Model;
  /** At each trace of the line; null where the model does not reach. */
  columns: (Column | null)[];
  to: 'twt' | 'depth';
  /** Whether a velocity is being dragged: pictures come quickly rather than finely. */
  quick: boolean;
}

const places = (line: SectionLine): [number, number][] => Array.from({ length: line.traces }, (_, t) => line.place(t));

let turns = 0;
const keys = new WeakMap<Model, string>();
const keyOf = (model: Model): string => {
  const key = keys.get(model) ?? `model ${++turns}`;
  keys.set(model, key);
  return key;
};

/** What turns positions into the domain of a section along its line; null where nothing does. */
export function useTurning(line: SectionLine, domain: Domain): Turning | null {
  const model = useConversion((s) => s.model);
  const quick = useConversion((s) => s.trial !== null);
  return useMemo(() => {
    if (!model || domain === 'age') return null;
    const columns = places(line).map(([x, y]) => model.column(x, y));
    return { key: `${keyOf(model)} to ${domain}`, model, columns, to: domain, quick };
  }, [model, line, domain, quick]);
}

/** A position of the other domain at a trace, between traces too. */
export function turnAt({ model, columns, to }: Turning, line: SectionLine, trace: number, value: number): number {
  const column = Number.isInteger(trace) ? columns[trace] : model.column(...line.place(trace));
  return turned(column ?? null, to, value);
}

type Sampled = Pick<Volume, 'id' | 'name' | 'domain' | 'vertical'> & Partial<Pick<Volume, 'binGrid'>>;

/** Samples that keep what a trial has changed lately: nothing is worked out twice for one picture. */
const evens = new WeakMap<Model, Map<string, Even | null>>();

/** Where samples of something lie in the other domain: the same on every line of it. */
export function evenFor(model: Model, shown: Sampled, line: SectionLine): Even | null {
  const known = evens.get(model) ?? new Map<string, Even | null>();
  evens.set(model, known);
  const { first, step, count } = shown.vertical;
  const key = `${shown.id} ${first} ${step} ${count} ${shown.binGrid ? '' : `${line.place(0)} ${line.traces}`}`;
  const found = known.get(key);
  if (found !== undefined) return found;
  // as many samples as before, to a half of a metre or millisecond
  const fine = {
    stepM: Math.max(0.5, Math.round(2 * 0.9 * step) / 2),
    stepMs: Math.max(0.5, Math.round(2 * 0.9 * step) / 2),
  };
  let even: Even | null = null;
  try {
    const columns = shown.binGrid ? columnsOver(model, shown.binGrid) : columnsAlong(model, places(line));
    even = evenIn(shown, columns, model.parts.above.datumM ?? 0, { ...fine, deepestM: 0, latestMs: 0 });
  } catch {
    // the model lies elsewhere: there is nothing to show
  }
  known.set(key, even);
  return even;
}

/** Samples of a section in its own domain: as they are, or turned on the fly. */
export function useTurnedSamples(
  shown: Sampled | undefined,
  line: SectionLine,
  samples: PlaneState | null,
  domain: Domain,
  turning: Turning | null,
): { samples: PlaneState | null; vertical: Even } | null {
  const even = useMemo(
    () => (shown && shown.domain !== domain && turning ? evenFor(turning.model, shown, line) : null),
    [shown, domain, turning, line],
  );
  const traces = shown && samples ? samples.data.length / shown.vertical.count : 0;
  const data = useMemo(() => {
    // samples of the line before are not drawn by the columns of this one
    if (!shown || !samples || !even || !turning || traces !== turning.columns.length) return null;
    return turnedTraces(
      samples.data,
      shown.vertical,
      turning.columns,
      turning.to,
      even,
      turning.quick || samples.coarse,
    );
  }, [shown, samples, even, turning, traces]);
  if (!shown) return null;
  if (shown.domain === domain) return { samples, vertical: shown.vertical };
  if (!even || !turning) return null;
  return {
    samples:
      data && samples
        ? { ...samples, key: `${samples.key}/${turning.key}${turning.quick ? '/quick' : ''}`, data }
        : null,
    vertical: even,
  };
}
