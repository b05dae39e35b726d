import {
  type Blend,
  CHANNELS,
  type CurveClass,
  channelsOf,
  cornersOf,
  type Domain,
  type EarthObject,
  type QuantityMap,
  quantityFacts,
  type Volume,
} from '@lithagon/core';
import * as THREE from 'three';
import { type Painting, type SceneContext, sceneLayerOf } from '../../kinds/scene';
import type { Lit } from '../../state/blends';
import { mixOf } from '../blend/mixOf';
import type { Row } from '../common/contents';
import type { ShownWell } from '../common/survey';
import { boxLines, type PlaneName, planeMesh, type SceneFrame } from './planes';
import { onSurface } from './useLayerValues';

/** The things of a scene that are built once and then moved or recoloured. */
export interface World {
  scene: THREE.Scene;
  /** Scaled vertically by the exaggeration. */
  root: THREE.Group;
  planes: Record<PlaneName, ReturnType<typeof planeMesh>>;
  /** Outline of each plane, verdigris for the section in view. */
  edges: Record<PlaneName, THREE.LineLoop<THREE.BufferGeometry, THREE.LineBasicMaterial>>;
  box: THREE.LineSegments<THREE.BufferGeometry, THREE.LineBasicMaterial>;
  /** What stands in it, by the id of its object, and what it was built from. */
  built: Map<string, { from: string; group: THREE.Group }>;
}

export function makeWorld(): World {
  const scene = new THREE.Scene();
  const root = new THREE.Group();
  scene.add(root, new THREE.HemisphereLight(0xffffff, 0x8a8478, 2));
  const sun = new THREE.DirectionalLight(0xffffff, 1.2);
  sun.position.set(-4, 6, 3);
  scene.add(sun);
  const names: PlaneName[] = ['inline', 'crossline', 'slice'];
  const planes = Object.fromEntries(names.map((n) => [n, planeMesh(n)])) as World['planes'];
  const edges = Object.fromEntries(
    names.map((n) => [
      n,
      new THREE.LineLoop(new THREE.BufferGeometry(), new THREE.LineBasicMaterial({ color: 0x5d656c })),
    ]),
  ) as World['edges'];
  for (const n of names) {
    edges[n].geometry.setAttribute('position', planes[n].geometry.getAttribute('position'));
    edges[n].frustumCulled = false;
    root.add(planes[n], edges[n]);
  }
  const box = new THREE.LineSegments(new THREE.BufferGeometry(), new THREE.LineBasicMaterial({ color: 0xa9a294 }));
  root.add(box);
  return { scene, root, planes, edges, box, built: new Map() };
}

function free(group: THREE.Object3D): void {
  group.traverse((part) => {
    const drawn = part as THREE.Mesh;
    drawn.geometry?.dispose();
    (drawn.material as THREE.Material | undefined)?.dispose?.();
  });
  group.removeFromParent();
}

/** Let go of everything that stands in a scene. */
export function clearWorld(world: World): void {
  for (const { group } of world.built.values()) free(group);
  world.built.clear();
}

/** How strong a material is by itself: what the list says is laid on that. */
function strengthen(group: THREE.Group, opacity: number): void {
  group.traverse((part) => {
    const material = (part as THREE.Mesh).material as THREE.Material | undefined;
    if (!material || Array.isArray(material)) return;
    material.userData.own ??= material.opacity;
    material.opacity = material.userData.own * opacity;
    if (opacity < 1) material.transparent = true;
  });
}

/** A name in a scene, at a place of its own axes. */
export interface SceneLabel {
  id: string;
  name: string;
  at: [number, number, number];
}

/**
 * Lay out what the list of a scene holds. What was built before and has not changed is kept.
 * `values` are those of horizons and logs, by object, as far as they are read.
 * @returns names to be written
 */
export function furnish(given: {
  world: World;
  frame: SceneFrame;
  volume: Volume;
  rows: Row[];
  wells: ShownWell[];
  values: Map<string, Float32Array>;
  domain: Domain;
  objects: EarthObject[];
  log: CurveClass | null;
  lit: Lit | null;
}): SceneLabel[] {
  const { world, frame, volume, rows, wells, values, domain, objects, log, lit } = given;
  const survey = `${volume.id}@${volume.revision}`;
  world.box.geometry.dispose();
  world.box.geometry = boxLines(frame, volume);
  const outline = cornersOf(volume.binGrid);
  const labels: SceneLabel[] = [];
  const wanted = new Set<string>();
  for (const { object, color, opacity, eye, why, paint } of rows) {
    const layer = sceneLayerOf(object);
    if (!layer || !eye || why) continue;
    const by = paint ? objects.find((o) => o.id === paint) : undefined;
    const map = by && (by.kind === 'map' || by.kind === 'volume') ? paintingOf(by, object) : undefined;
    const painted = map && values.get(map.id);
    const context: SceneContext = {
      frame,
      domain,
      color,
      values: values.get(object.id) ?? null,
      objects,
      paint: map && painted ? { map, values: painted } : null,
      blended: by?.kind === 'blend' ? blendedOf(by, object, objects, values, lit) : null,
      log,
      well: wells.find((w) => w.well.id === object.id),
      outline,
    };
    wanted.add(object.id);
    const from = `${survey} ${object.revision} ${color} ${domain} ${context.values?.length ?? 0} ${object.kind === 'well' ? log : ''} ${context.paint ? `${map?.id}@${map?.revision}` : ''} ${context.blended?.key ?? ''} ${pathKey(object, context)}`;
    let built = world.built.get(object.id);
    if (built?.from !== from) {
      if (built) free(built.group);
      const group = new THREE.Group();
      group.userData.object = object.id;
      for (const part of layer.build(object, context)) group.add(part);
      world.root.add(group);
      built = { from, group };
      world.built.set(object.id, built);
    }
    strengthen(built.group, opacity);
    layer.restyle?.(built.group, context);
    const at = layer.label?.(object, context);
    if (at) labels.push({ id: object.id, name: object.name, at });
  }
  for (const [id, { group }] of world.built)
    if (!wanted.has(id)) {
      free(group);
      world.built.delete(id);
    }
  return labels;
}

/** A map as it is, or a volume on a surface, as what colours that. */
function paintingOf(by: QuantityMap | Volume, surface: EarthObject): Painting {
  if (by.kind === 'map') return by;
  const { percentiles, absolute } = by.statistics;
  const range: [number, number] = quantityFacts(by.quantity).symmetric
    ? [-absolute['98'], absolute['98']]
    : [percentiles['1'], percentiles['99']];
  const binGrid = 'binGrid' in surface && surface.binGrid ? surface.binGrid : by.binGrid;
  return { id: onSurface(surface, by), revision: by.revision, binGrid, quantity: by.quantity, range };
}

/** A blend that colours a surface, once all that it is of is read. */
function blendedOf(
  blend: Blend,
  object: EarthObject,
  objects: EarthObject[],
  values: Map<string, Float32Array>,
  lit: Lit | null,
): SceneContext['blended'] {
  const channels = channelsOf(blend, objects);
  if (!channels) return null;
  const maps = CHANNELS.flatMap((c) => channels[c] ?? []).map((o) => paintingOf(o, object));
  const fields = maps.map((m) => values.get(m.id) ?? null);
  const mix = mixOf(blend, fields, lit);
  if (!mix) return null;
  return { mix, maps, fields: fields as Float32Array[], key: maps.map((m) => `${m.id}@${m.revision}`).join() };
}

/** A well's path rests on tables of its own. */
const pathKey = (object: EarthObject, { well }: SceneContext) =>
  object.kind === 'well' && well ? well.points.map((p) => Math.round(p[0] + p[2] + (p[3] || 0))).join() : '';

/** Show what lies between planes alone; all of it where there are none. */
export function clip(world: World, planes: THREE.Plane[] | null): void {
  world.root.traverse((part) => {
    const material = (part as THREE.Mesh).material as THREE.Material | undefined;
    if (!material || part === world.box) return;
    // an edge on the crop is part of it
    if (material.clippingPlanes?.length !== planes?.length) material.needsUpdate = true;
    material.clippingPlanes = planes;
  });
}
