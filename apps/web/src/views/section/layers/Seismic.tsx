import type { SeismicLine, Volume } from '@lithagon/core';
import type { Settings } from '../../../state/views';
import type { PlaneState } from '../../common/hooks';
import type { FieldLook } from '../../raster/field';
import { Raster } from '../../raster/Raster';
import type { Frame } from '../frame';
import { Wiggles } from './Wiggles';

/** Samples of a section in colours, as curves, or both. */
export function Seismic(props: {
  shown: Volume | SeismicLine;
  samples: PlaneState;
  frame: Frame;
  look: FieldLook;
  traces: Settings['section']['traces'];
}) {
  const { shown, samples, frame, look, traces } = props;
  const { line, window, box } = frame;
  const drawn = { plane: samples, traces: line.traces, vertical: shown.vertical, look, window, box };
  const curves = traces !== 'density';
  return (
    <>
      {(traces === 'density' || traces === 'both') && <Raster name="section" {...drawn} />}
      {curves && <Wiggles {...drawn} filled={traces !== 'wiggle'} />}
    </>
  );
}
