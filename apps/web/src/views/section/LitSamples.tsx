import { type Horizon, inRing, type Plane, sameSamples, type Volume } from '@lithagon/core';
import { useMemo } from 'react';
import { usePlotSelection } from '../../state/plotSelection';
import { useProject } from '../../state/project';
import { useArray, usePlane } from '../common/hooks';
import { Raster, type Window } from '../raster/Raster';
import { horizonAlong, type SectionLine } from './geometry';

/** Where a horizon lies at every trace of a line; null while it is read, or where none is named. */
function useBound(id: string | undefined, line: SectionLine): number[] | null {
  const horizon = useProject((s) => (id ? s.byId.get(id) : undefined)) as Horizon | undefined;
  const values = useArray(horizon?.id, horizon?.revision, horizon?.values);
  return useMemo(
    () => (horizon && values ? horizonAlong(line, horizon, values).map(([, value]) => value) : null),
    [horizon, values, line],
  );
}

/** Samples of the line in view whose values lie in the ring drawn in a crossplot of two volumes. */
export function LitSamples(props: {
  shown: Volume;
  plane: Exclude<Plane, 'slice'>;
  index: number;
  line: SectionLine;
  window: Window;
  box: { left: number; top: number; width: number; height: number };
}) {
  const { shown, plane, index, line, window, box } = props;
  const test = usePlotSelection((s) => s.now?.samples ?? null);
  const byId = useProject((s) => s.byId);
  const volume = (id: string | undefined) => {
    const o = id ? byId.get(id) : undefined;
    // what has other lines or samples cannot be laid over this section
    return o?.kind === 'volume' && sameSamples(o, shown) ? o : undefined;
  };
  const x = volume(test?.x);
  const [xData] = usePlane(x, plane, index);
  const [yData] = usePlane(volume(test?.y), plane, index);
  const top = useBound(test?.top, line);
  const base = useBound(test?.base, line);
  const { first, step, count } = shown.vertical;
  const lit = useMemo(() => {
    if (!test || !xData || !yData || xData.data.length !== yData.data.length) return null;
    if ((test.top && !top) || (test.base && !base)) return null;
    const value = (v: number, log: boolean) => (log ? Math.log10(v) : v);
    const data = new Float32Array(xData.data.length).fill(Number.NaN);
    // samples of a trace lie side by side
    for (let n = 0; n < data.length; n++) {
      const at = first + (n % count) * step;
      const trace = Math.floor(n / count);
      if (!(at >= (top ? top[trace] : test.from) && at <= (base ? base[trace] : test.to))) continue;
      if (inRing(test.ring, value(xData.data[n], test.xLog), value(yData.data[n], test.yLog))) data[n] = 1;
    }
    return { key: `lit ${xData.key} ${yData.key} ${JSON.stringify(test)}`, data, index };
  }, [test, xData, yData, top, base, index, first, step, count]);
  if (!lit || !x) return null;
  return (
    <Raster
      name="lit"
      plane={lit}
      traces={line.traces}
      vertical={x.vertical}
      look={{ map: 'ember', low: 0, high: 1.5, reverse: false, opacity: 0.75 }}
      window={window}
      box={box}
    />
  );
}
