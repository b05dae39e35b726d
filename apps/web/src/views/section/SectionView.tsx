import {
  domainName,
  type Fault,
  pathOfLine,
  type SeismicLine,
  stepOf,
  turned as turnedTo,
  type Volume,
} from '@lithagon/core';
import { useEffect, useMemo, useRef } from 'react';
import { finishStick } from '../../actions/draw';
import { accept, carriedOver } from '../../actions/picking/section';
import { faultIn } from '../../kinds/fault/look';
import { givesWay, useConversion } from '../../state/conversion';
import { useCursor } from '../../state/cursor';
import { useDesk } from '../../state/desk';
import { useDisplays } from '../../state/displays';
import { useFaultFilter } from '../../state/faultFilter';
import { useHere } from '../../state/here';
import { seriesOf, turnPages, usePages } from '../../state/pages';
import { useProject } from '../../state/project';
import { offerFiles, useSelection } from '../../state/selection';
import { useTool } from '../../state/tool';
import { useUnits } from '../../state/units';
import { useSettings } from '../../state/views';
import { displayOf } from '../../state/views/display';
import { viewIn } from '../../state/views/index';
import { Button } from '../../ui/Button';
import { chooseFiles } from '../../ui/files';
import { ColorBar, quantityText } from '../common/ColorBar';
import { ConvertedBy, WaysInto } from '../common/Converted';
import { cannotShow, layersOf, rowsOf } from '../common/contents';
import { useSize } from '../common/hooks';
import { LayerList } from '../common/LayerList';
import { LabelBoard, Labels } from '../common/labels/Labels';
import { lookOf } from '../common/look';
import { Pager } from '../common/Pager';
import { convertedOf, type NotShown, type ShownWell, shownLine, shownVolume, shownWells } from '../common/survey';
import { useDropped } from '../common/useDropped';
import { objectAt, useObjectMenu } from '../common/useObjectMenu';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import css from '../common/view.module.css';
import type { Window } from '../raster/Raster';
import { CompareTool, otherOf } from './CompareTool';
import type { Frame } from './frame';
import { Ground } from './Ground';
import { faultAlong, scaleOf } from './geometry';
import { JoinTool } from './JoinTool';
import { LineTools } from './LineTools';
import { LitSamples } from './LitSamples';
import { Axes } from './layers/Axes';
import { ClosingPair } from './layers/ClosingPair';
import { Compared, SwipeEdge } from './layers/Compared';
import { Crossings } from './layers/Crossings';
import { Cursor } from './layers/Cursor';
import { Handwork } from './layers/Handwork';
import { Joints } from './layers/Joints';
import { Objects } from './layers/Objects';
import { Over } from './layers/Over';
import { Seismic } from './layers/Seismic';
import { SetupFan } from './layers/SetupFan';
import { SetupWindow } from './layers/SetupWindow';
import { Smear } from './layers/Smear';
import { liveLook, liveText } from './live';
import { SectionMenu } from './SectionMenu';
import { useHands } from './tools/useHands';
import { useAlong } from './useAlong';
import { useClosed } from './useClosed';
import { useTurnedSamples, useTurning } from './useTurned';
import { MARGIN, useWindow } from './useWindow';

const layerOf = layersOf('section');

/** A vertical section of a volume, along one of its lines or one's own, or of a 2D line, with what was interpreted on it. */
export function SectionView() {
  const objects = useProject((s) => s.objects);
  const desk = useDesk((s) => s.volume);
  const [settings, change] = useSettings('section');
  const { domain } = settings;
  usePages();
  // with what turns one domain into the other, a view of either shows both
  const model = useConversion((s) => s.model);
  const turns = model !== null && domain !== 'age';
  const flat = shownLine(objects, settings);
  // what is stored in the other domain may give way to what it would be
  useConversion((s) => `${s.trial !== null} ${s.chosen}`);
  const stored = shownVolume(objects, settings.volume ?? desk, domain);
  const volume =
    flat ??
    ((givesWay(stored) && objects.find((o): o is Volume => o.id === convertedOf(stored) && o.kind === 'volume')) ||
      stored);
  const wells = useMemo(() => shownWells(objects, model), [objects, model]);
  const notShown = useMemo(
    () => cannotShow(objects, layerOf, turns ? [] : ['volume', 'seismic line'], domain, wells),
    [objects, domain, wells, turns],
  );
  const empty = (title: string, more: React.ReactNode) => (
    <ViewFrame
      subtitle={volume?.name ?? ''}
      notShown={volume ? notShown : []}
      domain={{ value: domain, set: (value) => change({ domain: value }) }}
      tools={volume && <LineTools shown={volume} />}
      links
    >
      <EmptyView title={title}>{more}</EmptyView>
    </ViewFrame>
  );
  if (!volume)
    return empty(
      'A section shows seismic along a line.',
      <>
        <span>Drop a SEG-Y file anywhere, or choose one.</span>
        <Button onClick={() => void chooseFiles().then(offerFiles)}>Choose files…</Button>
      </>,
    );
  if (volume.domain !== domain && !turns)
    return empty(
      `${volume.name} is in ${domainName(volume.domain)}.`,
      <WaysInto domain={domain} from={volume.domain} back={() => change({ domain: volume.domain })} />,
    );
  if (flat && !pathOfLine(objects, flat))
    return empty(
      `${flat.name} waits for its navigation.`,
      <span>Its headers hold no coordinates. Load a table or P1/90 file that names line {flat.name}.</span>,
    );
  // pages of one series keep the window
  const series = volume.kind === 'volume' ? seriesOf(volume, objects) : [];
  return (
    <Section
      key={series.length > 0 ? series[0].id : volume.id}
      shown={volume}
      series={series}
      wells={wells}
      notShown={notShown}
    />
  );
}

function Section(props: {
  shown: Volume | SeismicLine;
  /** Realizations of which it is one. */
  series: Volume[];
  wells: ShownWell[];
  notShown: NotShown[];
}) {
  const { shown, series, wells, notShown } = props;
  const viewId = useHere();
  const objects = useProject((s) => s.objects);
  const old = useProject((s) => s.old.has(shown.id));
  const displays = useDisplays();
  const contents = useDesk((s) => viewIn(s, viewId).contents);
  const [settings, change] = useSettings('section');
  const { domain } = settings;
  const units = useUnits();
  const setup = useSelection((s) => s.setup);
  const live =
    setup?.live &&
    stepOf(setup.step)?.local &&
    shown.kind === 'volume' &&
    Object.values(setup.inputs).flat().includes(shown.id)
      ? { step: setup.step, params: setup.params, inputs: setup.inputs }
      : null;
  const along = useAlong(shown, settings, live);
  const { line } = along;
  const turning = useTurning(line, domain);
  const turned = useTurnedSamples(shown, line, along.samples, domain, turning);
  const converted = shown.domain !== domain;
  const verticalHere = turned?.vertical;
  // as it is shown: in the domain of the view
  const here = useMemo(
    () => (converted && verticalHere ? { ...shown, domain, vertical: verticalHere } : shown),
    [converted, shown, domain, verticalHere],
  );
  const closed = useClosed(shown, line, converted ? null : along.samples);
  const samples = converted ? (turned?.samples ?? null) : closed;
  const [ref, element, size] = useSize<HTMLDivElement>();
  const whole: Window = useMemo(() => {
    const { first, step, count } = here.vertical;
    return { x0: 0, x1: line.traces - 1, y0: first, y1: first + step * (count - 1) };
  }, [here.vertical, line.traces]);
  const middle = turning?.columns[Math.floor(line.traces / 2)] ?? null;
  const otherWay = domain === 'depth' ? 'twt' : 'depth';
  const { window, box, at, drag, showWhole } = useWindow(
    element,
    size,
    whole,
    here,
    along,
    turning && middle ? { domain: otherWay, of: (value) => turnedTo(middle, otherWay, value) } : null,
  );
  // pages of one series are drawn in the same colours, so that what differs between them is seen
  const drawnAs = series[0] ?? shown;
  const own = lookOf(drawnAs, displayOf(displays, drawnAs));
  const look = live ? liveLook(live, shown as Volume, samples?.data, own) : own;

  const filter = useFaultFilter();
  const { turned: pageTurned } = usePages();
  // biome-ignore lint/correctness/useExhaustiveDependencies: why a fault is not drawn follows from the filter too
  const rows = useMemo(
    () => rowsOf(contents, objects, layerOf, domain, wells),
    [contents, objects, domain, wells, filter, pageTurned, turning],
  );
  const cuts = useMemo(
    () =>
      rows.flatMap(({ object, eye, why }) =>
        object.kind === 'fault' && eye && !why ? faultAlong(line, faultIn(object as Fault, domain, turning)) : [],
      ),
    [rows, line, domain, turning],
  );
  const frame: Frame = { line, window, box, domain, cuts, turning };
  const { drawing, ...hands } = useHands({ volume: here, frame, data: samples, at, trial: live !== null });
  const menu = useObjectMenu();
  const dropped = useDropped('section');

  // a stick belongs to one line: going to another keeps it
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a change of line ends a stick
  useEffect(() => () => void finishStick(), [along.what]);
  const { metres, scale, perSecond } = scaleOf(line, window, box);
  const names = along.joints.map((j) => j.name);
  const name = `${names.length > 0 ? names.join(' – ') : shown.name}${old ? ', out of date' : ''}`;
  const other = otherOf(settings.compare, objects, shown);
  const svg = useRef<SVGSVGElement>(null);
  // the line before, by which picks are carried over, lies as far off as the wheel steps
  const neighbour =
    shown.kind === 'volume' && along.plane
      ? 1.2 * settings.increment * Math.hypot(...shown.binGrid[along.plane === 'inline' ? 'perInline' : 'perCrossline'])
      : 0;
  return (
    <ViewFrame
      subtitle={other ? `${name} · ${other.name}` : name}
      summary={`${name} · ${along.what}`}
      notShown={notShown}
      links
      domain={{ value: domain, set: (value) => change({ domain: value }) }}
      list={{
        open: settings.listed,
        toggle: () => change({ listed: !settings.listed }),
        content: <LayerList rows={rows} contents={contents} ground={<Ground shown={shown} />} />,
      }}
      extent={{
        km: metres / 1000,
        vertical: (window.y1 - window.y0) / 1000,
        domain,
        margins: [MARGIN.left + MARGIN.right, MARGIN.top + MARGIN.bottom],
      }}
      menu={<SectionMenu shown={shown} onWhole={showWhole} />}
      tools={
        <>
          {live && <span className={css.live}>live</span>}
          {converted && <ConvertedBy />}
          <LineTools shown={shown} number={along.number} onTurn={showWhole} />
          {shown.kind === 'seismic line' && <JoinTool shown={shown} />}
          <CompareTool shown={shown} />
          {series.length > 0 && <Pager series={series} />}
        </>
      }
    >
      <div
        ref={ref}
        role="img"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the cursor is moved and picks are made by keys here
        tabIndex={0}
        {...dropped}
        onKeyDown={(event) => {
          const tool = useTool.getState().tool;
          if (event.key === 'Enter' && event.shiftKey && tool?.kind === 'pick' && hands.on) {
            event.preventDefault();
            const places = carriedOver(tool, hands.on, neighbour);
            if (places.length > 0) void accept(tool, line, places);
            return;
          }
          if (series.length > 0 && (event.key === 'PageDown' || event.key === 'PageUp')) {
            event.preventDefault();
            return void turnPages(series, event.key === 'PageDown' ? 1 : -1);
          }
          hands.key(event);
        }}
        aria-label={`Section along ${along.plane ? `${along.what} of ` : along.what.startsWith('through') ? `a line ${along.what} of ` : ''}${shown.name}`}
        style={{ position: 'absolute', inset: 0, cursor: hands.cursor, touchAction: 'none' }}
        onPointerMove={(event) => drag.move(event) || hands.move(event)}
        onPointerLeave={() => useCursor.setState({ at: null })}
        onPointerDown={(event) => drag.begin(event, drawing) || hands.down(event)}
        onPointerUp={(event) => drag.end() || hands.up(event)}
        onContextMenu={(event) => {
          event.preventDefault();
          if (!hands.turn(event)) menu.open(event, objectAt(svg.current, event.clientX, event.clientY));
        }}
        onDoubleClick={(event) => {
          if (drawing) return hands.end();
          if (!at(event.clientX, event.clientY).inside) showWhole();
        }}
      >
        {samples && size.width > 60 && (
          <Seismic shown={here} samples={samples} frame={frame} look={look} traces={settings.traces} />
        )}
        {settings.over && size.width > 60 && (
          <Over host={element?.parentElement ?? null} of={settings.over} shown={shown} along={along} frame={frame} />
        )}
        {settings.compare && other && samples && size.width > 60 && (
          <Compared compare={settings.compare} {...{ other, shown: here, samples, along, frame, look }} />
        )}
        {shown.kind === 'volume' && !converted && along.plane && size.width > 60 && (
          <LitSamples shown={shown} plane={along.plane} index={along.index} line={line} window={window} box={box} />
        )}
        {size.width > 60 && (
          <LabelBoard>
            <svg ref={svg} className={css.overlay} aria-hidden="true" style={{ pointerEvents: 'none' }}>
              <defs>
                <clipPath id={`${viewId}-box`}>
                  <rect x={box.left} y={box.top} width={box.width} height={box.height} />
                </clipPath>
              </defs>
              <g clipPath={`url(#${viewId}-box)`}>
                <Objects rows={rows} frame={frame} objects={objects} wells={wells} />
                <SetupWindow frame={frame} />
                <SetupFan frame={frame} />
                <ClosingPair frame={frame} />
                {along.joints.length > 1 && <Joints frame={frame} joints={along.joints} />}
                <Crossings frame={frame} />
                <Labels room={box} />
                <Handwork frame={frame} on={hands.on} stroke={hands.stroke} neighbour={neighbour} />
                <Cursor frame={frame} />
                {live?.step === 'attributes.frequency' && <Smear frame={frame} params={live.params} />}
              </g>
              <Axes frame={frame} axis={settings.axis} />
            </svg>
          </LabelBoard>
        )}
        {along.problem && <div className={css.problem}>{along.problem}</div>}
      </div>
      <ColorBar
        look={look}
        of={live ? undefined : shown}
        style={{ left: MARGIN.left }}
        unit={live ? '' : shown.unit}
        text={live ? liveText(live, shown as Volume) : quantityText(shown, units)}
      />
      <span
        className={`${css.colorBar} ${css.scale}`}
        data-testid="section-scale"
        style={{ right: MARGIN.right, bottom: 16 }}
      >
        1 : {scale.toLocaleString('en').replace(/,/g, '\u202f')}
        {domain === 'twt' && <span className={css.perSecond}>· {perSecond.toFixed(1)} cm/s</span>}
      </span>
      {settings.compare?.mode === 'swipe' && other && (
        <SwipeEdge
          compare={settings.compare}
          names={[shown.name, other.name]}
          box={box}
          onChange={(part) => settings.compare && change({ compare: { ...settings.compare, ...part } })}
        />
      )}
      {menu.element}
    </ViewFrame>
  );
}
