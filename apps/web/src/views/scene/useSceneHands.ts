import { type Domain, toMap, type Volume } from '@lithagon/core';
import { useRef } from 'react';
import * as THREE from 'three';
import { useCursor } from '../../state/cursor';
import { useHere } from '../../state/here';
import { takeTool, useTool } from '../../state/tool';
import { goTo } from '../../state/views';
import type { PlaneState, Size } from '../common/hooks';
import { placeAt } from '../common/survey';
import { type PlaneName, type SceneFrame, toScene } from './planes';
import type { World } from './world';

/** How near to a line or point a ray meets it, kilometres. */
const NEAR = 0.04;

const NAMES: PlaneName[] = ['inline', 'crossline', 'slice'];

/** What hands do in a scene: drag planes along their axis, read samples out, measure; the rest turns it. */
export function useSceneHands(scene: {
  element: HTMLElement | null;
  volume: Volume;
  frame: SceneFrame;
  world: World;
  camera: THREE.Camera;
  /** Whether hands hold a plane, so that the scene does not turn. */
  hold(held: boolean): void;
  data: Record<PlaneName, PlaneState | null>;
  index: Record<PlaneName, number>;
  counts: Record<PlaneName, number>;
  size: Size;
  exaggeration: number;
  domain: Domain;
}) {
  const { element, volume, frame, world, camera, data, index, counts, size, exaggeration, domain } = scene;
  const here = useHere();
  const tool = useTool((s) => s.tool);
  const held = useRef<{ name: PlaneName; start: number; x: number; y: number; perLine: THREE.Vector2 } | null>(null);

  /** What the pointer is on: the nearest of planes, or with them of what stands in the scene. */
  const hitAt = (event: React.PointerEvent, all = false) => {
    const rect = element?.getBoundingClientRect();
    if (!rect) return undefined;
    const pointer = new THREE.Vector2(
      ((event.clientX - rect.left) / rect.width) * 2 - 1,
      1 - ((event.clientY - rect.top) / rect.height) * 2,
    );
    const ray = new THREE.Raycaster();
    // lines and points are met where they nearly are
    ray.params.Line.threshold = ray.params.Points.threshold = NEAR;
    ray.setFromCamera(pointer, camera);
    const planes = NAMES.map((n) => world.planes[n]).filter((p) => p.visible);
    const standing = all ? [...world.built.values()].map(({ group }) => group) : [];
    return ray.intersectObjects([...planes, ...standing], true)[0];
  };
  /** Where a ray meets a plane, in the earth. */
  const placeOf = ({ point }: THREE.Intersection): [number, number, number] => [
    point.x * 1000 + frame.x,
    frame.y - point.z * 1000,
    frame.middle - point.y / exaggeration / frame.perVertical,
  ];
  /** Put the cursor where the pointer meets a plane, with the sample there. */
  const follow = (event: React.PointerEvent) => {
    const hit = hitAt(event, true);
    if (!hit) return useCursor.setState({ at: null });
    const [x, y, vertical] = placeOf(hit);
    const name = NAMES.find((n) => world.planes[n] === hit.object);
    // in front of the planes stands something else: its place is read out
    if (!name)
      return useCursor.setState({ at: { x, y, vertical, domain, value: null, quantity: '', unit: '', from: here } });
    const plane = data[name];
    let value: number | null = null;
    if (hit.uv && plane && !plane.coarse) {
      const [rows, samples] =
        name === 'slice'
          ? [counts.inline, counts.crossline]
          : [name === 'inline' ? counts.crossline : counts.inline, counts.slice];
      const at = Math.round(hit.uv.y * (rows - 1)) * samples + Math.round(hit.uv.x * (samples - 1));
      value = Number.isNaN(plane.data[at]) ? null : (plane.data[at] ?? null);
    }
    useCursor.setState({
      at: { x, y, vertical, domain, value, quantity: volume.quantity, unit: volume.unit, from: here },
    });
  };
  /** A place of the scene's axes on the screen, from its middle. */
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
  return {
    /** The object that stands in front at the pointer; null where that is a plane of the volume, or nothing. */
    objectAt(event: React.PointerEvent): string | null {
      for (let part: THREE.Object3D | null = hitAt(event, true)?.object ?? null; part; part = part.parent)
        if (typeof part.userData.object === 'string') return part.userData.object;
      return null;
    },
    /** A place of the scene's axes on the screen. */
    project(p: [number, number, number]): { x: number; y: number } {
      const v = onScreen(p);
      return { x: v.x + size.width / 2, y: v.y + size.height / 2 };
    },
    down(event: React.PointerEvent) {
      const hit = event.button === 0 && !event.altKey ? hitAt(event) : undefined;
      scene.hold(hit !== undefined);
      if (!hit) return;
      if (tool?.kind === 'measure') {
        const begun = tool.view === here && tool.points.length === 1 ? tool.points : [];
        return takeTool({ ...tool, view: here, domain, points: [...begun, placeOf(hit)] });
      }
      event.currentTarget.setPointerCapture(event.pointerId);
      const name = hit.object.name as PlaneName;
      held.current = { name, start: index[name], x: event.clientX, y: event.clientY, perLine: axisOnScreen(name) };
    },
    move(event: React.PointerEvent) {
      const h = held.current;
      if (!h) {
        if (event.buttons === 0) follow(event);
        return;
      }
      const moved = new THREE.Vector2(event.clientX - h.x, event.clientY - h.y);
      const steps = moved.dot(h.perLine) / Math.max(1e-6, h.perLine.lengthSq());
      const next = Math.max(0, Math.min(counts[h.name] - 1, Math.round(h.start + steps)));
      if (next !== index[h.name]) goTo(here, placeAt(volume, h.name, next));
    },
    up() {
      held.current = null;
      scene.hold(false);
    },
  };
}
