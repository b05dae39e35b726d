import type { SeismicLine, Volume } from '@lithagon/core';
import { useDisplays } from '../../../state/displays';
import { useProject } from '../../../state/project';
import { displayOf } from '../../../state/views/display';
import { lookOf } from '../../common/look';
import { Raster } from '../../raster/Raster';
import type { Frame } from '../frame';
import { type Along, useOther } from '../useAlong';

/** A second volume laid over a section, in its own colours. */
export function Over(props: {
  of: { volume: string; opacity: number };
  shown: Volume | SeismicLine;
  along: Along;
  frame: Frame;
}) {
  const { of, shown, along, frame } = props;
  const object = useProject((s) => s.byId.get(of.volume));
  const volume = object?.kind === 'volume' && object.domain === frame.domain ? object : undefined;
  const displays = useDisplays();
  const samples = useOther(volume, shown, along);
  if (!volume || !samples) return null;
  return (
    <Raster
      name="over"
      plane={samples}
      traces={frame.line.traces}
      vertical={volume.vertical}
      look={{ ...lookOf(volume, displayOf(displays, volume)), opacity: of.opacity }}
      window={frame.window}
      box={frame.box}
    />
  );
}
