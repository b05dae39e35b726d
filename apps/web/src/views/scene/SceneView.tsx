import { type EarthObject, type Horizon, toMap, type Volume } from '@lithagon/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import * as THREE from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { readArray } from '../../compute/planes';
import { displayOf, useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { offerFiles } from '../../state/selection';
import { Button } from '../../ui/Button';
import { chooseFiles } from '../../ui/files';
import { usePlane, useSize } from '../common/hooks';
import { lookOf } from '../common/look';
import { type NotShown, notShownIn, onOneMap, type ShownWell, shownVolume, shownWells } from '../common/survey';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import css from '../common/view.module.css';
import { fieldTexture, setField, setLook } from '../raster/field';
import { drawInto, whenRestored } from '../raster/renderer';
import { type PlaneName, placePlane, sceneFrame, toScene } from './planes';
import { furnish, makeWorld } from './world';

/** Kinds of object that a scene is built from, beside the volume whose planes it shows. */
const DRAWN = new Set(['horizon', 'fault', 'well', 'directional surveys', 'checkshots', 'tops', 'time-depth relation']);

/** The survey in three dimensions: planes that are dragged along their axis, faults, horizons, wells. */
export function SceneView() {
  const all = useProject((s) => s.objects);
  // what is drawn is built anew only where something of it changed: that takes long in software
  const drawn = all
    .filter((o) => DRAWN.has(o.kind))
    .map((o) => `${o.id}@${o.revision}${o.color ?? ''}${o.name}`)
    .join();
  const chosen = useDesk((s) => s.volume);
  const domain = useDesk((s) => s.domain.scene ?? 'twt');
  const volume = shownVolume(all, chosen, domain);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the names, colours and revisions of what is drawn stand for it
  const objects = useMemo(() => onOneMap(all, volume).together, [drawn, volume?.binGrid.local]);
  const wells = useMemo(() => shownWells(objects), [objects]);
  const notShown = useMemo(() => notShownIn(all, domain, wells), [all, domain, wells]);
  if (!volume || volume.domain !== domain)
    return (
      <ViewFrame view="scene" title="Scene" subtitle={volume?.name ?? ''} notShown={volume ? notShown : []}>
        {volume ? (
          <EmptyView title={`${volume.name} is in ${volume.domain === 'twt' ? 'TWT' : 'depth'}.`}>
            <span>It can be shown in {domain === 'twt' ? 'TWT' : 'depth'} once a velocity model takes it there.</span>
          </EmptyView>
        ) : (
          <EmptyView title="The scene shows planes, horizons, faults and wells together.">
            <Button onClick={() => void chooseFiles().then(offerFiles)}>Choose files…</Button>
          </EmptyView>
        )}
      </ViewFrame>
    );
  return <Scene key={volume.id} volume={volume} objects={objects} wells={wells} notShown={notShown} domain={domain} />;
}

const NAMES: PlaneName[] = ['inline', 'crossline', 'slice'];

function Scene(props: {
  volume: Volume;
  objects: EarthObject[];
  wells: ShownWell[];
  notShown: NotShown[];
  domain: 'twt' | 'depth';
}) {
  const { volume, objects, wells, domain } = props;
  const projectId = useProject((s) => s.id);
  const lines = useDesk((s) => s.lines);
  const plane = useDesk((s) => s.plane);
  const displays = useDesk((s) => s.display);
  const exaggeration = useDesk((s) => s.exaggeration);
  const theme = useDesk((s) => s.theme);
  const [ref, element, size] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const world = useMemo(makeWorld, []);
  const frame = useMemo(() => sceneFrame(volume), [volume]);
  const camera = useMemo(() => new THREE.PerspectiveCamera(34, 1, 0.1, 100), []);
  const [labels, setLabels] = useState<{ name: string; at: THREE.Vector3 }[]>([]);
  const [surfaces, setSurfaces] = useState(new Map<string, Float32Array>());
  const [view, setView] = useState(0);
  const counts = {
    inline: volume.binGrid.inline.count,
    crossline: volume.binGrid.crossline.count,
    slice: volume.vertical.count,
  };
  const index = Object.fromEntries(NAMES.map((n) => [n, Math.max(0, Math.min(counts[n] - 1, lines[n]))])) as Record<
    PlaneName,
    number
  >;
  const [inlineData] = usePlane(volume, 'inline', index.inline);
  const [crosslineData] = usePlane(volume, 'crossline', index.crossline);
  const [sliceData] = usePlane(volume, 'slice', index.slice);
  const look = lookOf(volume, displayOf(displays, volume));

  const draw = () => {
    if (!canvas.current || size.width < 20) return;
    const target = canvas.current;
    world.root.scale.y = exaggeration;
    camera.aspect = size.width / size.height;
    camera.updateProjectionMatrix();
    for (const n of NAMES) setLook(world.planes[n].material, look);
    drawInto(
      target,
      world.scene,
      camera,
      Math.round(size.width * devicePixelRatio),
      Math.round(size.height * devicePixelRatio),
    );
    setView((v) => v + 1);
  };
  const latest = useRef(draw);
  latest.current = draw;

  const controls = useRef<OrbitControls | null>(null);
  useEffect(() => {
    if (!element) return;
    const orbit = new OrbitControls(camera, element);
    orbit.mouseButtons = { LEFT: THREE.MOUSE.ROTATE, MIDDLE: THREE.MOUSE.PAN, RIGHT: THREE.MOUSE.ROTATE };
    orbit.maxPolarAngle = Math.PI * 0.62;
    camera.position.set(4.2, 4.6, 7.4);
    orbit.target.set(0, -0.15, 0);
    orbit.update();
    orbit.addEventListener('change', () => latest.current());
    controls.current = orbit;
    return () => orbit.dispose();
  }, [camera, element]);

  useEffect(() => {
    let wanted = true;
    const horizons = objects.filter((o): o is Horizon => o.kind === 'horizon' && o.domain === domain);
    void Promise.all(
      horizons.map(async (h) => [h.id, await readArray(projectId, `${h.id}@${h.revision}`, h.values)] as const),
    ).then((all) => wanted && setSurfaces(new Map(all)));
    return () => {
      wanted = false;
    };
  }, [objects, domain, projectId]);
  useEffect(
    () => setLabels(furnish(world, frame, volume, objects, wells, surfaces, domain)),
    [world, frame, volume, objects, wells, surfaces, domain],
  );

  usePlaneTexture(world, 'inline', inlineData?.data, counts.crossline, counts.slice);
  usePlaneTexture(world, 'crossline', crosslineData?.data, counts.inline, counts.slice);
  usePlaneTexture(world, 'slice', sliceData?.data, counts.inline, counts.crossline);
  useEffect(() => {
    const accent = new THREE.Color(theme === 'dark' ? '#58b5a9' : '#1f766d');
    for (const n of NAMES) {
      const data = { inline: inlineData, crossline: crosslineData, slice: sliceData }[n];
      placePlane(world.planes[n], frame, volume, data?.index ?? index[n]);
      world.planes[n].visible = data !== null;
      world.edges[n].material.color = n === plane ? accent : new THREE.Color(0x5d656c);
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
    size,
    exaggeration,
    plane,
    theme,
  ]);
  useEffect(() => whenRestored(() => latest.current()), []);

  const grab = (event: React.PointerEvent): { name: PlaneName } | null => {
    const rect = element?.getBoundingClientRect();
    if (!rect) return null;
    const pointer = new THREE.Vector2(
      ((event.clientX - rect.left) / rect.width) * 2 - 1,
      1 - ((event.clientY - rect.top) / rect.height) * 2,
    );
    const ray = new THREE.Raycaster();
    ray.setFromCamera(pointer, camera);
    const hit = ray.intersectObjects(
      NAMES.map((n) => world.planes[n]),
      false,
    )[0];
    return hit ? { name: hit.object.name as PlaneName } : null;
  };
  const held = useRef<{ name: PlaneName; start: number; x: number; y: number; perLine: THREE.Vector2 } | null>(null);
  const onScreen = (p: [number, number, number]) => {
    const v = new THREE.Vector3(p[0], p[1] * exaggeration, p[2]).project(camera);
    return new THREE.Vector2((v.x * size.width) / 2, (-v.y * size.height) / 2);
  };
  const axisOnScreen = (name: PlaneName): THREE.Vector2 => {
    const { binGrid, vertical } = volume;
    const at = (n: number): [number, number, number] => {
      const [i, j] =
        name === 'inline'
          ? [n, counts.crossline / 2]
          : name === 'crossline'
            ? [counts.inline / 2, n]
            : [counts.inline / 2, counts.crossline / 2];
      const v =
        name === 'slice' ? vertical.first + n * vertical.step : vertical.first + (vertical.step * counts.slice) / 2;
      return toScene(frame, ...toMap(binGrid, i, j), v);
    };
    const last = counts[name] - 1;
    return onScreen(at(last))
      .sub(onScreen(at(0)))
      .divideScalar(last || 1);
  };

  return (
    <ViewFrame
      view="scene"
      title="Scene"
      subtitle={volume.name}
      notShown={props.notShown}
      tools={
        <label title="How much steeper than true the scene is drawn, taking 1 ms of TWT as 1 m">
          <span className={css.wideOnly}>vertical </span>×{' '}
          <input
            className={css.line}
            style={{ width: 44 }}
            type="number"
            aria-label="Vertical exaggeration"
            min={0.5}
            max={20}
            step={0.5}
            value={exaggeration}
            onChange={(e) =>
              useDesk.setState({ exaggeration: Math.max(0.5, Math.min(20, Number(e.target.value) || 1)) })
            }
          />
        </label>
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
        onPointerDownCapture={(event) => {
          const hit = event.button === 0 && !event.altKey ? grab(event) : null;
          if (controls.current) controls.current.enabled = !hit;
          if (!hit) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          held.current = {
            name: hit.name,
            start: index[hit.name],
            x: event.clientX,
            y: event.clientY,
            perLine: axisOnScreen(hit.name),
          };
        }}
        onPointerMove={(event) => {
          const h = held.current;
          if (!h) return;
          const moved = new THREE.Vector2(event.clientX - h.x, event.clientY - h.y);
          const steps = moved.dot(h.perLine) / Math.max(1e-6, h.perLine.lengthSq());
          const next = Math.max(0, Math.min(counts[h.name] - 1, Math.round(h.start + steps)));
          if (next !== lines[h.name]) useDesk.setState((s) => ({ lines: { ...s.lines, [h.name]: next } }));
        }}
        onPointerUp={() => {
          held.current = null;
          if (controls.current) controls.current.enabled = true;
        }}
        onContextMenu={(e) => e.preventDefault()}
      >
        <canvas
          ref={canvas}
          className={css.canvas}
          data-testid="scene-canvas"
          style={{ width: size.width, height: size.height }}
        />
        <SceneLabels labels={labels} project={onScreen} size={size} view={view} />
      </div>
    </ViewFrame>
  );
}

function usePlaneTexture(
  world: ReturnType<typeof makeWorld>,
  name: PlaneName,
  data: Float32Array | undefined,
  rows: number,
  samples: number,
) {
  useEffect(() => {
    if (!data) return;
    const texture = fieldTexture(data, rows, samples);
    setField(world.planes[name].material, texture);
    return () => texture.dispose();
  }, [world, name, data, rows, samples]);
}

function SceneLabels(props: {
  labels: { name: string; at: THREE.Vector3 }[];
  project(p: [number, number, number]): THREE.Vector2;
  size: { width: number; height: number };
  view: number;
}) {
  return (
    <svg className={css.overlay} aria-hidden="true" style={{ pointerEvents: 'none' }} data-view={props.view}>
      {props.labels.map(({ name, at }) => {
        const p = props.project([at.x, at.y, at.z]);
        return (
          <text
            key={name}
            x={p.x + props.size.width / 2}
            y={p.y + props.size.height / 2 - 5}
            textAnchor="middle"
            style={{
              fill: 'var(--ink)',
              stroke: 'var(--vellum)',
              strokeWidth: 3,
              paintOrder: 'stroke',
              fontWeight: 620,
            }}
          >
            {name}
          </text>
        );
      })}
    </svg>
  );
}
