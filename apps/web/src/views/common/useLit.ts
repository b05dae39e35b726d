import { type Horizon, inRing, type Plane, sameSamples, type Volume } from '@lithagon/core';
import { useMemo } from 'react';
import { type PlotSelection, usePlotSelection } from '../../state/plotSelection';
import { useProject } from '../../state/project';
import { horizonAlong, type SectionLine } from '../section/geometry';
import { type PlaneState, useArray, usePlane } from './hooks';

type Test = NonNullable<PlotSelection['samples']>;

/** Where a horizon lies at every trace of a line, or at every bin; null while it is read, or where none is named. */
function useBound(id: string | undefined, line: SectionLine | null): ArrayLike<number> | null {
  const horizon = useProject((s) => (id ? s.byId.get(id) : undefined)) as Horizon | undefined;
  const values = useArray(horizon?.id, horizon?.revision, horizon?.values);
  return useMemo(() => {
    if (!horizon || !values) return null;
    return line ? horizonAlong(line, horizon, values).map(([, value]) => value) : values;
  }, [horizon, values, line]);
}

/** What a plane has of each sample, and where it lies. */
interface Held {
  x: Float32Array;
  y: Float32Array;
  /** Of the volumes that limit the test, in its order. */
  further: (Float32Array | undefined)[];
  /** Time or depth of a sample, and which trace or bin it is of. */
  vertical(n: number): number;
  place(n: number): number;
  /** Bounds by trace or bin; nothing where the test has typed ones. */
  top: ArrayLike<number> | null;
  base: ArrayLike<number> | null;
}

/** 1 where a sample passes the test of a crossplot, NaN where it does not. */
export function litSamples(test: Test, held: Held): Float32Array {
  const value = (v: number, log: boolean) => (log ? Math.log10(v) : v);
  const { x, y, further, top, base } = held;
  const data = new Float32Array(x.length).fill(Number.NaN);
  for (let n = 0; n < data.length; n++) {
    const [at, place] = [held.vertical(n), held.place(n)];
    if (!(at >= (top ? top[place] : test.from) && at <= (base ? base[place] : test.to))) continue;
    if (
      !test.limits.every(({ range }, m) => {
        const v = further[m]?.[n] ?? Number.NaN;
        return v >= range[0] && v <= range[1];
      })
    )
      continue;
    if (inRing(test.ring, value(x[n], test.xLog), value(y[n], test.yLog))) data[n] = 1;
  }
  return data;
}

/** Samples of a plane whose values lie in the ring drawn in a crossplot of volumes; null where none is drawn. @param line traces of an inline or crossline */
export function useLit(
  shown: Volume,
  plane: Plane,
  index: number,
  line: SectionLine | null,
): { state: PlaneState; volume: Volume } | null {
  const test = usePlotSelection((s) => s.now?.samples ?? null);
  const byId = useProject((s) => s.byId);
  const volume = (id: string | undefined) => {
    const o = id ? byId.get(id) : undefined;
    // what has other lines or samples cannot be laid over this plane
    return o?.kind === 'volume' && sameSamples(o, shown) ? o : undefined;
  };
  const x = volume(test?.x);
  const [xData] = usePlane(x, plane, index);
  const [yData] = usePlane(volume(test?.y), plane, index);
  const [third] = usePlane(volume(test?.limits[0]?.of), plane, index);
  const [fourth] = usePlane(volume(test?.limits[1]?.of), plane, index);
  const top = useBound(test?.top, line);
  const base = useBound(test?.base, line);
  const { first, step, count } = shown.vertical;
  return useMemo(() => {
    if (!test || !x || !xData || !yData || xData.data.length !== yData.data.length) return null;
    if ((test.top && !top) || (test.base && !base)) return null;
    const limiting = [third, fourth].slice(0, test.limits.length);
    if (limiting.some((l) => l?.data.length !== xData.data.length)) return null;
    const slice = plane === 'slice';
    const data = litSamples(test, {
      x: xData.data,
      y: yData.data,
      further: limiting.map((l) => l?.data),
      // samples of a trace lie side by side
      vertical: slice ? () => first + index * step : (n) => first + (n % count) * step,
      place: slice ? (n) => n : (n) => Math.floor(n / count),
      top,
      base,
    });
    const key = `lit ${xData.key} ${yData.key} ${JSON.stringify(test)}`;
    return { state: { key, data, index: xData.index }, volume: x };
  }, [test, x, xData, yData, third, fourth, top, base, plane, index, first, step, count]);
}
