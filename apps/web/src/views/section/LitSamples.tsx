import { inRing, type Plane, type Volume } from '@lithagon/core';
import { useMemo } from 'react';
import { usePlotSelection } from '../../state/plotSelection';
import { useProject } from '../../state/project';
import { usePlane } from '../common/hooks';
import { Raster, type Window } from '../raster/Raster';

/** Samples of the line in view whose values lie in the ring drawn in a crossplot of two volumes. */
export function LitSamples(props: {
  shown: Volume;
  plane: Exclude<Plane, 'slice'>;
  index: number;
  traces: number;
  window: Window;
  box: { left: number; top: number; width: number; height: number };
}) {
  const { shown, plane, index, traces, window, box } = props;
  const test = usePlotSelection((s) => s.now?.samples ?? null);
  const byId = useProject((s) => s.byId);
  const volume = (id: string | undefined) => {
    const o = id ? byId.get(id) : undefined;
    // what has other lines or samples cannot be laid over this section
    return o?.kind === 'volume' &&
      o.domain === shown.domain &&
      o.vertical.count === shown.vertical.count &&
      o.vertical.first === shown.vertical.first &&
      o.vertical.step === shown.vertical.step &&
      o.lattice.inline.count === shown.lattice.inline.count &&
      o.lattice.crossline.count === shown.lattice.crossline.count
      ? o
      : undefined;
  };
  const x = volume(test?.x);
  const [xData] = usePlane(x, plane, index);
  const [yData] = usePlane(volume(test?.y), plane, index);
  const { first, step, count } = shown.vertical;
  const lit = useMemo(() => {
    if (!test || !xData || !yData || xData.data.length !== yData.data.length) return null;
    const value = (v: number, log: boolean) => (log ? Math.log10(v) : v);
    const data = new Float32Array(xData.data.length).fill(Number.NaN);
    // samples of a trace lie side by side
    for (let n = 0; n < data.length; n++) {
      const at = first + (n % count) * step;
      if (at < test.from || at > test.to) continue;
      if (inRing(test.ring, value(xData.data[n], test.xLog), value(yData.data[n], test.yLog))) data[n] = 1;
    }
    return { key: `lit ${xData.key} ${yData.key} ${JSON.stringify(test)}`, data, index };
  }, [test, xData, yData, index, first, step, count]);
  if (!lit || !x) return null;
  return (
    <Raster
      name="lit"
      plane={lit}
      traces={traces}
      vertical={x.vertical}
      look={{ map: 'ember', low: 0, high: 1.5, reverse: false, opacity: 0.75 }}
      window={window}
      box={box}
    />
  );
}
