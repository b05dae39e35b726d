import {
  type Blend,
  type EarthObject,
  rotationWeights,
  type SeismicLine,
  type TurnedPair,
  type Volume,
} from '@lithagon/core';
import { createPortal } from 'react-dom';
import { useBlends, useDrawnBlend } from '../../../state/blends';
import { useDisplays } from '../../../state/displays';
import { useProject } from '../../../state/project';
import { useTurnedAngle, volumesOfPair } from '../../../state/turning';
import { displayOf } from '../../../state/views/display';
import { BlendLegend } from '../../blend/BlendLegend';
import type { InCube } from '../../blend/cube';
import { mixOf, placeInCube } from '../../blend/mixOf';
import { useChannelsOf } from '../../blend/useFields';
import { ColorBar } from '../../common/ColorBar';
import { lookOf } from '../../common/look';
import { useLinkedCursor } from '../../common/useLinkedCursor';
import { Raster } from '../../raster/Raster';
import { lookOfPair } from '../../turn/look';
import type { Frame } from '../frame';
import { type Along, useOther } from '../useAlong';
import { useTurnedSamples } from '../useTurned';

interface OverProps {
  /** What the view stands in: the legend of a blend is beside the picture, not in it. */
  host: HTMLElement | null;
  of: { volume: string; opacity: number };
  shown: Volume | SeismicLine;
  along: Along;
  frame: Frame;
}

/** What is laid over a section: a second volume in its own colours, or a blend of several. */
export function Over(props: OverProps) {
  const object = useProject((s) => s.byId.get(props.of.volume));
  if (object?.kind === 'blend')
    return object.domain === props.frame.domain && <OverBlend {...props} of={object} opacity={props.of.opacity} />;
  if (object?.kind === 'turned pair')
    return object.domain === props.frame.domain && <OverPair {...props} of={object} opacity={props.of.opacity} />;
  return <OverVolume {...props} object={object} />;
}

/** A blend of volumes over a section, with its cube. */
function OverBlend(props: Omit<OverProps, 'of'> & { of: Blend; opacity: number }) {
  const { shown, along, frame, opacity } = props;
  const blend = useDrawnBlend(props.of);
  const lit = useBlends((s) => s.lit);
  const volumes = useChannelsOf(blend, 'volume');
  const a = useOther(volumes[0], shown, along);
  const b = useOther(volumes[1], shown, along);
  const c = useOther(volumes[2], shown, along);
  const d = useOther(volumes[3], shown, along);
  const planes = [a, b, c, d];
  const cursor = useLinkedCursor();
  const [first] = volumes;
  if (!first || !a) return null;
  // what is still of the line before is not mixed with what is of this one
  const fields = planes.map((p) => (p && p.index === a.index && !p.coarse ? p.data : null));
  const mix = mixOf(blend, fields, lit);
  if (!mix) return null;
  const at = (): InCube | null => {
    if (!cursor || cursor.vertical === null || cursor.domain !== frame.domain) return null;
    const [near] = frame.line.nearest(cursor.x, cursor.y);
    const k = Math.round((cursor.vertical - first.vertical.first) / first.vertical.step);
    if (k < 0 || k >= first.vertical.count) return null;
    return placeInCube(blend, fields, Math.round(near) * first.vertical.count + k);
  };
  return (
    <>
      <div style={{ opacity }}>
        <Raster
          name="blend"
          plane={a}
          traces={frame.line.traces}
          vertical={first.vertical}
          look={lookOf(first, displayOf({}, first))}
          mix={mix}
          window={frame.window}
          box={frame.box}
        />
      </div>
      {props.host &&
        createPortal(
          <BlendLegend
            blend={blend}
            at={at()}
            here={null}
            small={frame.box.width < 700 || frame.box.height < 340}
            style={{ right: 10, top: frame.box.top + 6, zIndex: 2 }}
          />,
          props.host,
        )}
    </>
  );
}

/** Intercept and gradient turned by an angle over a section: turning draws again and reads nothing. */
function OverPair(props: Omit<OverProps, 'of'> & { of: TurnedPair; opacity: number }) {
  const { host, of: pair, shown, along, frame, opacity } = props;
  const objects = useProject((s) => s.objects);
  const angle = useTurnedAngle(pair);
  const volumes = volumesOfPair(pair, objects);
  const a = useOther(volumes?.[0], shown, along);
  const b = useOther(volumes?.[1], shown, along);
  if (!volumes || !a || !b || a.index !== b.index || a.coarse || b.coarse) return null;
  const look = lookOfPair(pair, angle);
  return (
    <>
      <Raster
        name="turned"
        plane={a}
        traces={frame.line.traces}
        vertical={volumes[0].vertical}
        look={{ ...look, opacity }}
        sum={{ second: b.data, weights: rotationWeights(angle) }}
        window={frame.window}
        box={frame.box}
      />
      {host &&
        createPortal(
          <ColorBar
            look={look}
            unit={volumes[0].unit}
            text={`${pair.name} at ${angle}°`}
            style={{
              left: frame.box.left,
              top: frame.box.top + 6,
              bottom: 'auto',
              background: 'var(--chalk)',
              padding: 4,
              zIndex: 2,
            }}
          />,
          host,
        )}
    </>
  );
}

/** A second volume laid over a section, in its own colours. */
function OverVolume(props: OverProps & { object: EarthObject | undefined }) {
  const { of, shown, along, frame, object } = props;
  const volume = object?.kind === 'volume' ? object : undefined;
  const displays = useDisplays();
  const own = useOther(volume, shown, along);
  const turned = useTurnedSamples(volume, frame.line, own, frame.domain, frame.turning);
  if (!volume || !turned?.samples) return null;
  const { samples, vertical } = turned;
  return (
    <Raster
      name="over"
      plane={samples}
      traces={frame.line.traces}
      vertical={vertical}
      look={{ ...lookOf(volume, displayOf(displays, volume)), opacity: of.opacity }}
      window={frame.window}
      box={frame.box}
    />
  );
}
