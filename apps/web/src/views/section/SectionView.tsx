import { crosslineAt, inlineAt, pathOfLine, type SeismicLine, type Volume } from '@lithagon/core';
import { useEffect, useMemo } from 'react';
import { finishStick } from '../../actions/draw';
import type { LiveStep } from '../../compute/planes';
import { useCursor } from '../../state/cursor';
import { displayOf, useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { offerFiles, useSelection } from '../../state/selection';
import { useUnits } from '../../state/units';
import { Button } from '../../ui/Button';
import { chooseFiles } from '../../ui/files';
import { ColorBar, quantityText } from '../common/ColorBar';
import { type PlaneState, useArray, usePlane, useSize } from '../common/hooks';
import { lookOf } from '../common/look';
import { clampLine, notShownIn, type ShownWell, shownVolume, shownWells } from '../common/survey';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import css from '../common/view.module.css';
import { Raster, type Window } from '../raster/Raster';
import { scaleOf, sectionLine, seismicLine } from './geometry';
import { LineChoice } from './LineChoice';
import { LineTools } from './LineTools';
import { LitSamples } from './LitSamples';
import { liveLook, liveText } from './live';
import { Overlay } from './Overlay';
import { useHands } from './useHands';
import { MARGIN, useWindow } from './useWindow';

/** An inline or crossline of a volume, with what has been interpreted on it. */
export function SectionView() {
  const objects = useProject((s) => s.objects);
  const chosen = useDesk((s) => s.volume);
  const domain = useDesk((s) => s.domain.section ?? 'twt');
  const lineId = useDesk((s) => s.line);
  const flat = objects.find((o): o is SeismicLine => o.id === lineId && o.kind === 'seismic line');
  const volume = flat ?? shownVolume(objects, chosen, domain);
  const path = useMemo(() => (flat ? pathOfLine(objects, flat) : null), [objects, flat]);
  const wells = useMemo(() => shownWells(objects), [objects]);
  const notShown = useMemo(() => notShownIn(objects, domain, wells), [objects, domain, wells]);
  if (!volume)
    return (
      <ViewFrame view="section" title="Section" subtitle="" notShown={[]}>
        <EmptyView title="A section shows seismic along a line.">
          <span>Drop a SEG-Y file anywhere, or choose one.</span>
          <Button onClick={() => void chooseFiles().then(offerFiles)}>Choose files…</Button>
        </EmptyView>
      </ViewFrame>
    );
  if (volume.domain !== domain)
    return (
      <ViewFrame view="section" title="Section" subtitle={volume.name} notShown={notShown}>
        <EmptyView title={`${volume.name} is in ${volume.domain === 'twt' ? 'TWT' : 'depth'}.`}>
          <span>It can be shown in {domain === 'twt' ? 'TWT' : 'depth'} once a velocity model takes it there.</span>
        </EmptyView>
      </ViewFrame>
    );
  if (flat && !path)
    return (
      <ViewFrame view="section" title="Section" subtitle={flat.name} notShown={notShown}>
        <EmptyView title={`${flat.name} waits for its navigation.`}>
          <span>Its headers hold no coordinates. Load a table or P1/90 file that names line {flat.name}.</span>
        </EmptyView>
      </ViewFrame>
    );
  return <Section key={volume.id} shown={volume} path={path} wells={wells} notShown={notShown} domain={domain} />;
}

/** Samples of what a section shows: a plane of a volume, or a 2D line. */
function useSamples(
  shown: Volume | SeismicLine,
  plane: 'inline' | 'crossline',
  index: number,
  live: LiveStep | null,
): [PlaneState | null, string | null] {
  const volume = shown.kind === 'volume' ? shown : undefined;
  const line = shown.kind === 'seismic line' ? shown : undefined;
  const ofVolume = usePlane(volume, plane, index, live);
  const data = useArray(line?.id ?? '', line?.revision ?? '', line?.samples);
  const ofLine = useMemo<PlaneState | null>(
    () => (line && data ? { key: `${line.id}@${line.revision}/line`, data, index: 0 } : null),
    [line, data],
  );
  return line ? [ofLine, null] : ofVolume;
}

function Section(props: {
  shown: Volume | SeismicLine;
  /** Where the traces of a 2D line lie. */
  path: [number, number][] | null;
  wells: ShownWell[];
  notShown: { name: string; why: string }[];
  domain: 'twt' | 'depth';
}) {
  const { shown: volume, path, wells, domain } = props;
  const objects = useProject((s) => s.objects);
  const old = useProject((s) => s.old.has(volume.id));
  const plane = useDesk((s) => s.plane);
  const lines = useDesk((s) => s.lines);
  const displays = useDesk((s) => s.display);
  const units = useUnits();
  const setup = useSelection((s) => s.setup);
  const live =
    setup?.live && volume.kind === 'volume' && Object.values(setup.inputs).flat().includes(volume.id)
      ? { step: setup.step, params: setup.params, inputs: setup.inputs }
      : null;
  const binGrid = volume.kind === 'volume' ? volume.binGrid : null;
  const index = binGrid ? clampLine(binGrid, plane, lines[plane]) : 0;
  const [data, problem] = useSamples(volume, plane, index, live);
  const [ref, element, size] = useSize<HTMLDivElement>();

  const shown = data ? data.index : index;
  const line = useMemo(
    () => (volume.kind === 'volume' ? sectionLine(volume.binGrid, plane, shown) : seismicLine(path ?? [], volume.cdps)),
    [volume, path, plane, shown],
  );
  const whole: Window = useMemo(() => {
    const { first, step, count } = volume.vertical;
    return { x0: 0, x1: line.traces - 1, y0: first, y1: first + step * (count - 1) };
  }, [volume, line.traces]);
  const { window, box, at, drag, showWhole } = useWindow(element, size, whole, volume.vertical.step);
  const look = live
    ? liveLook(live.step, data?.data, lookOf(volume, displayOf(displays, volume)))
    : lookOf(volume, displayOf(displays, volume));
  const number = binGrid ? (plane === 'inline' ? inlineAt(binGrid, index) : crosslineAt(binGrid, index)) : 0;
  const what = binGrid ? `${plane} ${number}` : '2D line';
  const name = `${volume.name}${old ? ', out of date' : ''}`;

  const { drawing, ...hands } = useHands({ volume, line, data, window, at, domain, trial: live !== null });
  // a stick belongs to one line: going to another keeps it
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a change of line ends a stick
  useEffect(() => () => void finishStick(), [plane, index]);

  const { metres, scale, perSecond } = scaleOf(line, window, box);

  return (
    <ViewFrame
      view="section"
      title="Section"
      // the tools beside it name the line of a volume
      subtitle={binGrid ? name : `${name} · ${what}`}
      summary={`${name} · ${what}`}
      notShown={props.notShown}
      extent={{
        km: metres / 1000,
        vertical: (window.y1 - window.y0) / 1000,
        domain,
        margins: [MARGIN.left + MARGIN.right, MARGIN.top + MARGIN.bottom],
      }}
      tools={
        <>
          {live && <span className={css.live}>live</span>}
          <LineChoice />
          {binGrid && <LineTools binGrid={binGrid} plane={plane} number={number} onTurn={showWhole} />}
        </>
      }
    >
      <div
        ref={ref}
        role="img"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the cursor is moved and picks are made by keys here
        tabIndex={0}
        onKeyDown={hands.key}
        aria-label={`Section along ${binGrid ? `${plane} ${number} of ` : ''}${volume.name}`}
        style={{ position: 'absolute', inset: 0, cursor: 'crosshair' }}
        onPointerMove={(event) => drag.move(event) || hands.move(event)}
        onPointerLeave={() => useCursor.setState({ at: null })}
        onPointerDown={(event) => drag.begin(event, drawing) || hands.down(event)}
        onPointerUp={drag.end}
        onContextMenu={hands.turn}
        onDoubleClick={(event) => {
          if (drawing) return void finishStick();
          if (!at(event.clientX, event.clientY).inside) showWhole();
        }}
      >
        {data && size.width > 60 && (
          <Raster
            name="section"
            plane={data}
            traces={line.traces}
            vertical={volume.vertical}
            look={look}
            window={window}
            box={box}
          />
        )}
        {volume.kind === 'volume' && size.width > 60 && (
          <LitSamples shown={volume} plane={plane} index={index} line={line} window={window} box={box} />
        )}
        {size.width > 60 && <Overlay frame={{ line, window, box, domain }} objects={objects} wells={wells} />}
        <ColorBar
          look={look}
          style={{ left: MARGIN.left }}
          unit={live ? '' : volume.unit}
          text={live ? liveText(live.step, volume) : quantityText(volume, units)}
        />
        <span
          className={`${css.colorBar} ${css.scale}`}
          data-testid="section-scale"
          style={{ right: MARGIN.right, bottom: 16 }}
        >
          1 : {scale.toLocaleString('en').replace(/,/g, '\u202f')}
          {domain === 'twt' && <span className={css.perSecond}>· {perSecond.toFixed(1)} cm/s</span>}
        </span>
        {problem && <div className={css.problem}>{problem}</div>}
      </div>
    </ViewFrame>
  );
}
