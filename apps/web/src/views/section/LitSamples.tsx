import type { Plane, Volume } from '@lithagon/core';
import { useLit } from '../common/useLit';
import { Raster, type Window } from '../raster/Raster';
import type { SectionLine } from './geometry';

/** Samples of the line in view whose values lie in the ring drawn in a crossplot of volumes. */
export function LitSamples(props: {
  shown: Volume;
  plane: Exclude<Plane, 'slice'>;
  index: number;
  line: SectionLine;
  window: Window;
  box: { left: number; top: number; width: number; height: number };
}) {
  const { shown, plane, index, line, window, box } = props;
  const lit = useLit(shown, plane, index, line);
  if (!lit) return null;
  return (
    <Raster
      name="lit"
      plane={lit.state}
      traces={line.traces}
      vertical={lit.volume.vertical}
      look={{ map: 'ember', low: 0, high: 1.5, reverse: false, opacity: 0.75 }}
      window={window}
      box={box}
    />
  );
}
