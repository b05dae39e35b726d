import { type Blend, type Domain, domainName, type QuantityMap, type Volume } from '@lithagon/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import * as THREE from 'three';
import { useBlends } from '../../state/blends';
import { useConversion } from '../../state/conversion';
import { useCursor } from '../../state/cursor';
import { useDesk } from '../../state/desk';
import { useDisplays } from '../../state/displays';
import { useFaultFilter } from '../../state/faultFilter';
import { useHere } from '../../state/here';
import { seriesOf, usePages } from '../../state/pages';
import { useProject } from '../../state/project';
import { offerFiles } from '../../state/selection';
import { useUnits } from '../../state/units';
import { activeOf, usePlace, useSettings } from '../../state/views';
import { displayOf } from '../../state/views/display';
import { viewIn } from '../../state/views/index';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import { chooseFiles } from '../../ui/files';
import { BlendLegend } from '../blend/BlendLegend';
import { ColorBar, quantityText } from '../common/ColorBar';
import { ConvertedBy, WaysInto } from '../common/Converted';
import { cannotShow, layersOf, type Row, rowsOf } from '../common/contents';
import { domainTitle } from '../common/domains';
import { usePlane, useSize } from '../common/hooks';
import { LayerList } from '../common/LayerList';
import { LabelBoard, Labels, useLabels } from '../common/labels/Labels';
import { lookOf } from '../common/look';
import { Pager } from '../common/Pager';
import { indexAt, type NotShown, onOneMap, type ShownWell, shownVolume, shownWells } from '../common/survey';
import { useDropped } from '../common/useDropped';
import { useObjectMenu } from '../common/useObjectMenu';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import css from '../common/view.module.css';
import { drawing } from '../raster/drawing';
import { drawInto, whenRestored } from '../raster/renderer';
import { cropPlanes, isWhole } from './crop';
import { type PlaneName, placePlane, radiusOf, sceneFrame } from './planes';
import { planeTexture, setPlane, setPlaneLook } from './planeTexture';
import { SceneAxes } from './SceneAxes';
import { SceneMeasure } from './SceneMeasure';
import { SceneMenu } from './SceneMenu';
import { useTurnedPlane, useTurnedRows, useVolumeIn } from './turned';
import { useCameras } from './useCameras';
import { useCloud } from './useCloud';
import { useFence } from './useFence';
import { useLayerValues } from './useLayerValues';
import { useLitPlane } from './useLitPlane';
import { useMixedPlane } from './useMixedPlanes';
import { useSceneHands } from './useSceneHands';
import { clearWorld, clip, furnish, makeWorld, type SceneLabel } from './world';

const layerOf = layersOf('scene');

/** The survey in three dimensions: planes that are dragged along their axis, faults, horizons, wells. */
export function SceneView() {
  const here = useHere();
  const all = useProject((s) => s.objects);
  const desk = useDesk((s) => s.volume);
  const contents = useDesk((s) => viewIn(s, here).contents);
  const [settings, change] = useSettings('scene');
  const { domain } = settings;
  const volume = shownVolume(all, settings.volume ?? desk, domain);
  const objects = useMemo(() => onOneMap(all, volume).together, [all, volume]);
  const wells = useMemo(() => shownWells(objects), [objects]);
  const filter = useFaultFilter();
  const { turned } = usePages();
  // biome-ignore lint/correctness/useExhaustiveDependencies: why a fault is not drawn follows from the filter too
  const rows = useMemo(
    () => rowsOf(contents, objects, layerOf, domain, wells),
    [contents, objects, domain, wells, filter, turned],
  );
  const turns = useConversion((s) => s.model !== null) && domain !== 'age';
  const notShown = useMemo(
    () => cannotShow(all, layerOf, turns ? [] : ['volume'], domain, wells),
    [all, domain, wells, turns],
  );
  const shown = useVolumeIn(volume, domain);
  const set = (value: Domain) => change({ domain: value });
  if (!volume || !shown)
    return (
      <ViewFrame subtitle={volume?.name ?? ''} notShown={volume ? notShown : []} domain={{ value: domain, set }} links>
        {volume ? (
          <EmptyView title={`${volume.name} is in ${domainName(volume.domain)}.`}>
            <WaysInto domain={domain} from={volume.domain} back={() => set(volume.domain)} />
          </EmptyView>
        ) : (
          <EmptyView title="The scene shows planes, horizons, faults and wells together.">
            <Button onClick={() => void chooseFiles().then(offerFiles)}>Choose files…</Button>
          </EmptyView>
        )}
      </ViewFrame>
    );
  return <Scene key={volume.id} source={volume} volume={shown} rows={rows} wells={wells} notShown={notShown} />;
}

/** A press that moves less than this is a click, pixels. */
const CLICK = 4;

/** Samples along a ray through the box, while the scene is turned and when it stands. */
const STEPS = { turning: 40, still: 140 };

/** What has not moved for this long stands, ms. */
const STANDS_MS = 220;

const NAMES: PlaneName[] = ['inline', 'crossline', 'slice'];

/** @param props `volume` is as it lies in the domain of the scene, `source` as it is stored */
function Scene(props: { source: Volume; volume: Volume; rows: Row[]; wells: ShownWell[]; notShown: NotShown[] }) {
  const { source, volume, wells } = props;
  const converted = source !== volume;
  const here = useHere();
  const objects = useProject((s) => s.objects);
  const place = usePlace();
  const contents = useDesk((s) => viewIn(s, here).contents);
  const [settings, change] = useSettings('scene');
  const { domain, exaggeration } = settings;
  const { upon } = settings;
  // the pages of a series are coloured alike, so that one turns through them
  const painted = useMemo(
    () =>
      props.rows.map((row) =>
        row.paint || !upon || seriesOf(row.object, objects).length === 0 ? row : { ...row, paint: upon },
      ),
    [props.rows, upon, objects],
  );
  const rows = useTurnedRows(painted, domain);
  const series = useMemo(() => {
    const page = rows.find((r) => r.eye && !r.why && seriesOf(r.object, objects).length > 0);
    return page ? seriesOf(page.object, objects) : [];
  }, [rows, objects]);
  const [section] = useSettings('section', activeOf('section'));
  const displays = useDisplays();
  const theme = useDesk((s) => s.theme);
  const units = useUnits();
  const [ref, element, size] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const world = useMemo(makeWorld, []);
  const frame = useMemo(() => sceneFrame(volume), [volume]);
  const [labels, setLabels] = useState<SceneLabel[]>([]);
  const [view, setView] = useState(0);
  const counts = {
    inline: volume.binGrid.inline.count,
    crossline: volume.binGrid.crossline.count,
    slice: volume.vertical.count,
  };
  const index = Object.fromEntries(NAMES.map((n) => [n, indexAt(volume, n, place)])) as Record<PlaneName, number>;
  const inlineData = useTurnedPlane(settings.planes.inline ? source : undefined, 'inline', index.inline, domain);
  const crosslineData = useTurnedPlane(
    settings.planes.crossline ? source : undefined,
    'crossline',
    index.crossline,
    domain,
  );
  // a slice of another domain would be of all of the volume: it is there once that is stored
  const [sliceData] = usePlane(settings.planes.slice && !converted ? source : undefined, 'slice', index.slice);
  const data = { inline: inlineData, crossline: crosslineData, slice: sliceData };
  const look = lookOf(volume, displayOf(displays, volume));
  const paints = useMemo(
    () =>
      objects.filter(
        (o): o is QuantityMap | Blend | Volume =>
          o.kind === 'map' ||
          (o.kind === 'volume' && o.domain === domain) ||
          (o.kind === 'blend' && (o.of === 'map' || o.domain === domain)),
      ),
    [objects, domain],
  );
  const lit = useBlends((s) => s.lit);
  const draft = useBlends((s) => s.draft);
  // a blend as it is while its ends are dragged
  const drawn = useMemo(
    () => (draft ? objects.map((o) => (o.id === draft.id ? draft : o)) : objects),
    [objects, draft],
  );
  const dropped = useDropped('scene');
  const menu = useObjectMenu();
  const pressed = useRef({ x: 0, y: 0 });

  const draw = (still = false) => {
    if (!canvas.current || size.width < 20) return;
    const target = canvas.current;
    world.root.scale.y = exaggeration;
    clip(world, isWhole(settings.crop) ? null : cropPlanes(volume, frame, settings.crop, exaggeration));
    cameras.shape(size.width / size.height);
    for (const n of NAMES)
      if ('colors' in world.planes[n].material.uniforms) setPlaneLook(world.planes[n].material, look);
    if (cloud) {
      cloud.setLook(look, settings.transfer);
      world.root.updateMatrixWorld();
      cloud.setView(cameras.camera, settings.crop, still ? STEPS.still : STEPS.turning);
    }
    // where graphics are emulated, what moves is drawn at half size, and whole once it stands
    const fine = still || drawing() === 'graphics card' ? devicePixelRatio : devicePixelRatio / 2;
    drawInto(target, world.scene, cameras.camera, Math.round(size.width * fine), Math.round(size.height * fine));
    setView((v) => v + 1);
    clearTimeout(standing.current);
    if (fine < devicePixelRatio) standing.current = setTimeout(() => latest.current(true), STANDS_MS);
  };
  const standing = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(standing.current), []);
  const latest = useRef(draw);
  latest.current = draw;
  const cameras = useCameras(element, settings.perspective, radiusOf(frame, volume, exaggeration), () =>
    latest.current(),
  );

  const values = useLayerValues(rows, objects, settings.log, domain);
  const fence = useFence(world, volume, frame, look, settings.fence && !converted);
  useEffect(
    () =>
      setLabels(furnish({ world, frame, volume, rows, wells, values, domain, objects: drawn, log: settings.log, lit })),
    [world, frame, volume, rows, wells, values, domain, drawn, settings.log, lit],
  );
  useEffect(() => () => clearWorld(world), [world]);

  const cloud = useCloud(world, volume, frame, settings.cloud && !converted, () => latest.current());

  const whole = look.whole ?? false;
  usePlaneTexture(world, 'inline', inlineData?.data, counts.crossline, counts.slice, whole);
  usePlaneTexture(world, 'crossline', crosslineData?.data, counts.inline, counts.slice, whole);
  usePlaneTexture(world, 'slice', sliceData?.data, counts.inline, counts.crossline, whole);
  const chosen = objects.find((o): o is Blend => o.id === settings.blend && o.kind === 'blend');
  const blended = chosen?.domain === domain ? chosen : undefined;
  const mixed = [
    useMixedPlane(world, 'inline', blended, volume, place, inlineData?.index),
    useMixedPlane(world, 'crossline', blended, volume, place, crosslineData?.index),
    useMixedPlane(world, 'slice', blended, volume, place, sliceData?.index),
  ].join();
  const litPlanes = [
    useLitPlane(world, 'inline', volume, inlineData?.index ?? index.inline),
    useLitPlane(world, 'crossline', volume, crosslineData?.index ?? index.crossline),
    useLitPlane(world, 'slice', volume, sliceData?.index ?? index.slice),
  ].join();
  useEffect(() => {
    const accent = new THREE.Color(theme === 'dark' ? '#58b5a9' : '#1f766d');
    for (const n of NAMES) {
      placePlane(world.planes[n], frame, volume, data[n]?.index ?? index[n]);
      world.planes[n].visible = data[n] !== null;
      world.edges[n].visible = settings.planes[n];
      world.edges[n].material.color = n === section.along ? accent : new THREE.Color(0x5d656c);
      world.edges[n].geometry.setAttribute('position', world.planes[n].geometry.getAttribute('position'));
    }
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn again whenever anything that it shows has changed
  useEffect(() => {
    // the heaviest picture comes last: section and map are shown first
    let timer: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => latest.current());
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [
    inlineData,
    crosslineData,
    sliceData,
    look.low,
    look.high,
    look.map,
    look.reverse,
    labels,
    fence,
    size,
    exaggeration,
    settings.planes,
    settings.crop,
    settings.cloud,
    settings.transfer,
    section.along,
    theme,
    mixed,
    lit,
    litPlanes,
  ]);
  useEffect(() => whenRestored(() => latest.current()), []);

  const hands = useSceneHands({
    element,
    volume,
    frame,
    world,
    camera: cameras.camera,
    hold: (held) => {
      if (cameras.controls.current) cameras.controls.current.enabled = !held;
    },
    data,
    index,
    counts,
    size,
    exaggeration,
    domain,
  });

  return (
    <ViewFrame
      subtitle={volume.name}
      notShown={props.notShown}
      links
      domain={{ value: domain, set: (value) => change({ domain: value }) }}
      list={{
        open: settings.listed,
        toggle: () => change({ listed: !settings.listed }),
        content: <LayerList rows={rows} contents={contents} ground={null} paints={paints} />,
      }}
      menu={<SceneMenu look={look} onStand={cameras.stand} />}
      tools={
        <>
          {converted && <ConvertedBy />}
          {series.length > 0 && (
            <>
              <Pager series={series} />
              <div className={css.upon}>
                <Select
                  label="Coloured by"
                  value={paints.some((p) => p.id === settings.upon) ? (settings.upon ?? '') : ''}
                  options={[
                    { value: '', label: domainTitle(domain) },
                    ...paints.map((p) => ({ value: p.id, label: p.name })),
                  ]}
                  onChange={(value) => change({ upon: value === '' ? null : value })}
                />
              </div>
            </>
          )}
        </>
      }
    >
      <div
        ref={ref}
        role="img"
        aria-label={`Scene of ${volume.name}`}
        title="Drag a plane to move it; drag beside it, or with the right button, to turn"
        style={{
          position: 'absolute',
          inset: 0,
          background: 'linear-gradient(var(--vellum), var(--wash))',
          touchAction: 'none',
        }}
        {...dropped}
        onPointerDownCapture={(event) => {
          pressed.current = { x: event.clientX, y: event.clientY };
          hands.down(event);
        }}
        onPointerMove={hands.move}
        onPointerUp={(event) => {
          hands.up();
          // what was dragged with the right button has turned the scene
          const { x, y } = pressed.current;
          if (event.button === 2 && Math.hypot(event.clientX - x, event.clientY - y) < CLICK)
            menu.open(event, hands.objectAt(event));
        }}
        onPointerLeave={() => useCursor.setState({ at: null })}
        onContextMenu={(e) => e.preventDefault()}
      >
        <canvas
          ref={canvas}
          className={css.canvas}
          data-testid="scene-canvas"
          data-view={view}
          style={{ width: size.width, height: size.height }}
        />
        {size.width > 20 && (
          <LabelBoard>
            <svg className={css.overlay} aria-hidden="true" style={{ pointerEvents: 'none' }}>
              {size.width > 20 && <SceneAxes {...{ volume, frame, domain, size }} project={hands.project} />}
              <SceneMeasure project={hands.project} frame={frame} />
              {labels.map((label) => (
                <SceneName key={label.id} label={label} project={hands.project} />
              ))}
              <Labels room={{ left: 0, top: 0, width: size.width, height: size.height }} />
            </svg>
          </LabelBoard>
        )}
      </div>
      {blended && size.width > 520 && (
        <BlendLegend blend={blended} at={null} here={null} style={{ right: 4, top: 4 }} />
      )}
      <ColorBar
        look={look}
        of={volume}
        style={{ left: 10, top: 6, bottom: 'auto' }}
        unit={volume.unit}
        text={quantityText(volume, units)}
      />
      {menu.element}
      <span className={`${css.colorBar} ${css.scale}`} style={{ right: 9, bottom: 16 }}>
        vertical × {exaggeration}
      </span>
    </ViewFrame>
  );
}

function usePlaneTexture(
  world: ReturnType<typeof makeWorld>,
  name: PlaneName,
  data: Float32Array | undefined,
  rows: number,
  samples: number,
  whole: boolean,
) {
  useEffect(() => {
    if (!data) return;
    const { texture, unit } = planeTexture(data, rows, samples, whole);
    setPlane(world.planes[name].material, texture, unit);
    return () => texture.dispose();
  }, [world, name, data, rows, samples, whole]);
}

/** A name that stands at a place of the scene, as it turns. */
function SceneName(props: { label: SceneLabel; project(p: [number, number, number]): { x: number; y: number } }) {
  const { label } = props;
  const { x, y } = props.project(label.at);
  useLabels(label.id, [
    {
      id: label.id,
      text: label.name,
      color: '#17191b',
      bold: true,
      anchor: 'middle',
      rank: 5,
      at: [
        [x, y - 5],
        [x, y - 19],
        [x + 24, y + 4],
        [x - 24, y + 4],
        [x, y - 33],
      ],
    },
  ]);
  return null;
}
