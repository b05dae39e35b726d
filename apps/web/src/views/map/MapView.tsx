import { cornersOf, relief, toIndex, toMap, type Volume } from '@lithagon/core';
import { Route, Ruler } from 'lucide-react';
import { type CSSProperties, useEffect, useMemo, useRef } from 'react';
import { beginLine } from '../../actions/line';
import { stepLine } from '../../actions/lines';
import { beginMeasuring } from '../../actions/measure';
import { pathText } from '../../picture/path';
import { useCursor } from '../../state/cursor';
import { useDesk } from '../../state/desk';
import { useFaultFilter } from '../../state/faultFilter';
import { useHere } from '../../state/here';
import { turnPages, usePages } from '../../state/pages';
import { useProject } from '../../state/project';
import { useRuns } from '../../state/runs';
import { offerFiles } from '../../state/selection';
import { useTool } from '../../state/tool';
import { goTo, lookAt, usePlace, useSettings, useWindowOf } from '../../state/views';
import { viewIn } from '../../state/views/index';
import { Button, IconButton } from '../../ui/Button';
import { Select } from '../../ui/Field';
import { chooseFiles } from '../../ui/files';
import { BlendLegend } from '../blend/BlendLegend';
import { placeInCube } from '../blend/mixOf';
import { ColorBar } from '../common/ColorBar';
import { cannotShow, layersOf, rowsOf } from '../common/contents';
import { useSize } from '../common/hooks';
import { LayerList } from '../common/LayerList';
import { LabelBoard, Labels } from '../common/labels/Labels';
import { Pager } from '../common/Pager';
import { indexAt, onOneMap, placeOver, shownVolume, shownWells } from '../common/survey';
import { useDropped } from '../common/useDropped';
import { useLinkedCursor } from '../common/useLinkedCursor';
import { objectAt, useObjectMenu } from '../common/useObjectMenu';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import css from '../common/view.module.css';
import { farOff, fitAll, type MapFrame, toEarth, toScreen } from './frame';
import { type Ground, useGround } from './ground';
import { Contours } from './layers/Contours';
import { Cursor } from './layers/Cursor';
import { Furniture } from './layers/Furniture';
import { DegreeGraticule, MapGraticule, useLonLat } from './layers/Graticule';
import { Handwork } from './layers/Handwork';
import { LitUp, WellLine } from './layers/Linked';
import { Objects } from './layers/Objects';
import { Sections } from './layers/Sections';
import { SetupFan } from './layers/SetupFan';
import { MapMenu } from './MapMenu';
import { MapRaster } from './MapRaster';
import { levelAt, surfaceAt } from './surface';
import { useHands } from './tools/useHands';
import { usePickedSlice } from './usePickedSlice';

const layerOf = layersOf('map');
/** Relief over colours: shadow darkens them, light leaves them as they are. */
const RELIEF = { map: 'ink' as const, low: 0, high: Math.SQRT1_2, reverse: false };

/** Colours over the range of a map in the making. */
function rangeLook(values: Float32Array) {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return { map: 'strata' as const, low, high, reverse: false };
}

/** The cube of a blend, with the colours at the pointer and at the place that sections run through. */
function MapCube(props: {
  blended: NonNullable<Ground['blended']>;
  binAt(x: number, y: number): number;
  volume: Volume;
  small: boolean;
  style: CSSProperties;
}) {
  const { blended, binAt, volume, small, style } = props;
  const { blend, fields } = blended;
  const cursor = useLinkedCursor();
  const place = usePlace();
  const [i, j] = [indexAt(volume, 'inline', place), indexAt(volume, 'crossline', place)];
  const inCube = (x: number, y: number) => placeInCube(blend, fields, binAt(x, y));
  return (
    <BlendLegend
      blend={blend}
      at={cursor && inCube(cursor.x, cursor.y)}
      here={inCube(...toMap(volume.binGrid, i, j))}
      small={small}
      style={style}
    />
  );
}

/** The survey from above: wells, faults, outlines, and a horizon, map or slice under them. A click moves the section there. */
export function MapView() {
  const here = useHere();
  const all = useProject((s) => s.objects);
  const { together: objects, apart } = useMemo(() => onOneMap(all), [all]);
  const deskVolume = useDesk((s) => s.volume);
  const contents = useDesk((s) => viewIn(s, here).contents);
  const [settings, change] = useSettings('map');
  const { domain } = settings;
  const volume = shownVolume(objects, settings.volume ?? deskVolume, domain);
  const wells = useMemo(() => shownWells(objects), [objects]);
  const notShown = useMemo(
    () => [
      ...apart,
      ...cannotShow(objects, layerOf, ['volume', 'seismic line', 'horizon'], domain, []),
      ...farOff(objects).map(({ name, why }) => ({ name, why })),
    ],
    [objects, apart, domain],
  );
  const filter = useFaultFilter();
  usePages();
  // biome-ignore lint/correctness/useExhaustiveDependencies: why a fault is not drawn follows from the filter too
  const rows = useMemo(() => rowsOf(contents, objects, layerOf, domain, []), [contents, objects, domain, filter]);
  const [ref, element, size] = useSize<HTMLDivElement>();
  const kept = useWindowOf('map');
  const frame: MapFrame | null =
    kept?.length === 3 ? { x: kept[0], y: kept[1], perPixel: kept[2] } : fitAll(objects, size);
  const setFrame = (f: MapFrame | null) => lookAt(here, { map: f && [f.x, f.y, f.perPixel] });
  const { ground, problem, options, chosen, slice, at, horizon, series, upon } = useGround(objects, volume);
  const tool = useTool((s) => s.tool);
  const preview = useRuns((s) => s.preview);
  const previewLook = preview ? rangeLook(preview.values) : null;
  const lit = useMemo(
    () => (settings.light && ground?.interval ? relief(ground.values, ground.binGrid) : null),
    [settings.light, ground?.interval, ground?.values, ground?.binGrid],
  );
  const level = typeof ground?.vertical === 'number' ? ground.vertical : null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a slice is level, whatever its samples
  const surface = useMemo(() => {
    if (!ground) return null;
    if (level !== null) return levelAt(ground.binGrid, level);
    return ground.surface ?? null;
  }, [level, ground?.surface?.values, ground?.binGrid]);
  const picked = usePickedSlice(slice, ground, surface, rows);
  const lonLat = useLonLat(settings.graticule === 'degrees');
  const menu = useObjectMenu();
  const dropped = useDropped('map');
  const svg = useRef<SVGSVGElement>(null);

  useEffect(() => {
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      if (slice && !event.ctrlKey) return stepLine(Math.sign(event.deltaY), here);
      if (series.length > 0 && !event.ctrlKey) return void turnPages(series, Math.sign(event.deltaY));
      if (!frame) return;
      const rect = element.getBoundingClientRect();
      const [px, py] = [event.clientX - rect.left, event.clientY - rect.top];
      const [x, y] = toEarth(frame, size, px, py);
      const f = Math.exp(Math.max(-60, Math.min(60, event.deltaY)) * 0.003);
      setFrame({ x: x + (frame.x - x) * f, y: y + (frame.y - y) * f, perPixel: frame.perPixel * f });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });

  /** Which bin of the ground a place lies in; −1 beside it. */
  const binAt = (x: number, y: number): number => {
    if (!ground) return -1;
    const [i, j] = toIndex(ground.binGrid, x, y).map(Math.round);
    const { inline, crossline } = ground.binGrid;
    return i >= 0 && j >= 0 && i < inline.count && j < crossline.count ? i * crossline.count + j : -1;
  };
  const valueAt = (x: number, y: number): number | null => {
    if (!ground || ground.plane?.coarse) return null;
    const value = ground.values[binAt(x, y)] ?? Number.NaN;
    return Number.isNaN(value) ? null : value;
  };
  const follow = (x: number, y: number) => {
    const value = valueAt(x, y);
    useCursor.setState({
      at: {
        x,
        y,
        vertical: ground?.vertical === 'values' ? value : (ground?.vertical ?? null),
        domain,
        value,
        quantity: ground?.quantity ?? '',
        unit: ground?.unit ?? '',
        from: here,
      },
    });
  };
  const hands = useHands({
    element,
    frame,
    size,
    domain,
    wells,
    picked,
    setFrame,
    follow,
    verticalAt(x, y) {
      const value = surface ? surfaceAt(surface, x, y) : Number.NaN;
      return Number.isNaN(value) ? null : value;
    },
    goThere: (x, y) => volume && goTo(here, placeOver(volume, x, y)),
  });

  if (objects.length === 0)
    return (
      <ViewFrame subtitle="" notShown={[]} links>
        <EmptyView title="The map shows surveys, wells, faults and outlines.">
          <span>Drop SEG-Y, CSV or GeoJSON files anywhere, or choose them.</span>
          <Button onClick={() => void chooseFiles().then(offerFiles)}>Choose files…</Button>
        </EmptyView>
      </ViewFrame>
    );

  const place = (x: number, y: number) => (frame ? toScreen(frame, size, x, y) : ([0, 0] as [number, number]));
  const chooser = (
    <Select label="What the map shows" value={chosen} options={options} onChange={(shows) => change({ shows })} />
  );
  return (
    <ViewFrame
      subtitle={<em>{at}</em>}
      summary={ground ? `${options.find((o) => o.value === chosen)?.label ?? ''}: ${ground.legend}` : 'Outlines'}
      notShown={notShown}
      links
      domain={{ value: domain, set: (value) => change({ domain: value }) }}
      list={{
        open: settings.listed,
        toggle: () => change({ listed: !settings.listed }),
        content: <LayerList rows={rows} contents={contents} ground={null} />,
      }}
      menu={<MapMenu onWhole={() => setFrame(null)} upon={horizon ? upon : []} />}
      tools={
        <>
          <div className={css.chooser}>{chooser}</div>
          {series.length > 0 && <Pager series={series} />}
          {horizon && upon.length > 1 && (
            <div className={`${css.upon} ${css.fits}`}>
              <Select
                label="Coloured by"
                value={upon.some((u) => u.value === settings.upon) ? (settings.upon ?? '') : ''}
                options={upon}
                onChange={(value) => change({ upon: value === '' ? null : value })}
              />
            </div>
          )}
          <IconButton
            className={`${css.camera} ${series.length > 0 ? css.roomy : ''}`}
            label="Draw a line for the section"
            onClick={() => beginLine()}
          >
            <Route size={14} />
          </IconButton>
          <IconButton className={`${css.camera} ${css.roomy}`} label="Measure" onClick={beginMeasuring}>
            <Ruler size={14} />
          </IconButton>
        </>
      }
    >
      <div
        ref={ref}
        role="img"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: rings and lines are drawn by keys here
        tabIndex={0}
        {...dropped}
        onKeyDown={(event) => {
          if (series.length > 0 && (event.key === 'PageDown' || event.key === 'PageUp')) {
            event.preventDefault();
            turnPages(series, event.key === 'PageDown' ? 1 : -1);
          } else hands.key(event);
        }}
        aria-label="Map"
        style={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
        onPointerMove={hands.move}
        onPointerDown={hands.down}
        onPointerUp={hands.up}
        onPointerLeave={() => useCursor.setState({ at: null })}
        onDoubleClick={hands.double}
        onContextMenu={(event) => {
          event.preventDefault();
          if (!hands.turn(event) && !hands.drawing)
            menu.open(event, objectAt(svg.current, event.clientX, event.clientY));
        }}
      >
        {frame && ground && (
          <MapRaster
            values={ground.values}
            binGrid={ground.binGrid}
            look={ground.look}
            mix={ground.blended?.mix}
            sum={ground.sum}
            frame={frame}
            size={size}
            plane={ground.plane?.key}
          />
        )}
        {frame && ground && lit && (
          <MapRaster
            name="relief"
            values={lit}
            binGrid={ground.binGrid}
            look={RELIEF}
            frame={frame}
            size={size}
            multiply
          />
        )}
        {frame && preview && previewLook && (
          <MapRaster values={preview.values} binGrid={preview.binGrid} look={previewLook} frame={frame} size={size} />
        )}
        {frame && (
          <LabelBoard>
            <svg ref={svg} className={css.overlay} aria-hidden="true" style={{ pointerEvents: 'none' }}>
              {settings.graticule === 'map' && <MapGraticule frame={frame} size={size} />}
              {settings.graticule === 'degrees' && lonLat && <DegreeGraticule frame={frame} size={size} way={lonLat} />}
              {settings.contours && ground?.interval && (
                <Contours
                  values={ground.values}
                  binGrid={ground.binGrid}
                  interval={ground.interval}
                  unit={ground.unit}
                  place={place}
                />
              )}
              {volume && (
                <path
                  d={pathText(
                    cornersOf(volume.binGrid).map((p) => place(...p)),
                    true,
                  )}
                  fill="none"
                  stroke="var(--slate)"
                  strokeWidth={1.1}
                />
              )}
              <Objects {...{ rows, objects, wells, size, domain, surface, place }} />
              <Sections place={place} />
              <Cursor place={place} />
              <Handwork place={place} size={size} picked={picked} stroke={hands.stroke} />
              <Labels room={{ left: 2, top: 26, width: size.width - 20, height: size.height - 44 }} />
              <Furniture frame={frame} size={size} />
              <SetupFan size={size} />
            </svg>
          </LabelBoard>
        )}
        {frame && <LitUp frame={frame} size={size} wells={wells} />}
        {frame && tool?.kind === 'wells' && <WellLine frame={frame} size={size} wells={wells} />}
        {ground && !ground.blended && (
          <ColorBar
            unit={ground.unit}
            look={ground.look}
            names={ground.names}
            of={slice}
            style={{
              left: 40,
              top: 4,
              bottom: 'auto',
              padding: '2px 6px',
              background: 'color-mix(in oklab, var(--vellum) 86%, transparent)',
            }}
            text={ground.legend}
          />
        )}
        {problem && <div className={css.problem}>{problem}</div>}
      </div>
      {ground?.blended && volume && (
        <MapCube
          key={ground.blended.blend.id}
          blended={ground.blended}
          binAt={binAt}
          volume={volume}
          small={size.width < 520 || size.height < 420}
          style={{ right: 4, top: 4 }}
        />
      )}
      {menu.element}
    </ViewFrame>
  );
}
