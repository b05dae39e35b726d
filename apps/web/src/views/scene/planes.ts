import { toMap, type Volume } from '@lithagon/core';
import * as THREE from 'three';
import { planeMaterial } from './planeTexture';

/** Earth coordinates to the scene's own: kilometres about the survey's middle, vertical down scaled by exaggeration. */
export interface SceneFrame {
  x: number;
  y: number;
  /** Vertical value at the scene's zero. */
  middle: number;
  /** Vertical value of the top of the survey. */
  top: number;
  /** Scene kilometres a vertical unit, before exaggeration. */
  perVertical: number;
}

export function sceneFrame(volume: Volume): SceneFrame {
  const { binGrid, vertical } = volume;
  const [x, y] = toMap(binGrid, (binGrid.inline.count - 1) / 2, (binGrid.crossline.count - 1) / 2);
  // a millisecond of two-way time stands for a metre, about what it is at 2000 m/s
  return {
    x,
    y,
    middle: vertical.first + (vertical.step * (vertical.count - 1)) / 2,
    top: vertical.first,
    perVertical: 0.001,
  };
}

export function toScene(frame: SceneFrame, x: number, y: number, vertical: number): [number, number, number] {
  return [(x - frame.x) / 1000, -(vertical - frame.middle) * frame.perVertical, -(y - frame.y) / 1000];
}

/** How far the corners of a survey lie from the middle of the scene, scene kilometres. */
export function radiusOf(frame: SceneFrame, { binGrid, vertical }: Volume, exaggeration: number): number {
  const [ni, nj] = [binGrid.inline.count - 1, binGrid.crossline.count - 1];
  const far = [
    [0, 0],
    [ni, 0],
    [0, nj],
    [ni, nj],
  ].map(([i, j]) => {
    const [x, y, z] = toScene(frame, ...toMap(binGrid, i, j), vertical.first);
    return Math.hypot(x, y * exaggeration, z);
  });
  return Math.max(...far);
}

export type PlaneName = 'inline' | 'crossline' | 'slice';

/** A quad for one plane of a volume; `place` moves it to another line. */
export function planeMesh(name: PlaneName): THREE.Mesh<THREE.BufferGeometry, THREE.ShaderMaterial> {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(new Float32Array(12), 3));
  const uv = name === 'slice' ? [0, 0, 1, 0, 1, 1, 0, 1] : [0, 0, 0, 1, 1, 1, 1, 0];
  geometry.setAttribute('uv', new THREE.BufferAttribute(new Float32Array(uv), 2));
  geometry.setIndex([0, 1, 2, 0, 2, 3]);
  const mesh = new THREE.Mesh(geometry, planeMaterial());
  mesh.frustumCulled = false;
  mesh.name = name;
  return mesh;
}

export function placePlane(mesh: THREE.Mesh, frame: SceneFrame, volume: Volume, index: number): void {
  const name = mesh.name as PlaneName;
  const { binGrid, vertical } = volume;
  const [ni, nj] = [binGrid.inline.count - 1, binGrid.crossline.count - 1];
  const top = vertical.first;
  const base = vertical.first + vertical.step * (vertical.count - 1);
  const at = (i: number, j: number, v: number) => toScene(frame, ...toMap(binGrid, i, j), v);
  const corners =
    name === 'inline'
      ? [at(index, 0, top), at(index, nj, top), at(index, nj, base), at(index, 0, base)]
      : name === 'crossline'
        ? [at(0, index, top), at(ni, index, top), at(ni, index, base), at(0, index, base)]
        : [0, 1, 2, 3].map((c) => at(c > 1 ? ni : 0, c === 1 || c === 2 ? nj : 0, top + index * vertical.step));
  const position = mesh.geometry.getAttribute('position') as THREE.BufferAttribute;
  position.array.set(corners.flat());
  position.needsUpdate = true;
  mesh.geometry.computeBoundingSphere();
}

/** The edges of the survey's box. */
export function boxLines(frame: SceneFrame, volume: Volume): THREE.BufferGeometry {
  const { binGrid, vertical } = volume;
  const [ni, nj] = [binGrid.inline.count - 1, binGrid.crossline.count - 1];
  const levels = [vertical.first, vertical.first + vertical.step * (vertical.count - 1)];
  const ring = [
    [0, 0],
    [0, nj],
    [ni, nj],
    [ni, 0],
  ];
  const points: number[] = [];
  const add = (a: number[], b: number[], va: number, vb: number) =>
    points.push(
      ...toScene(frame, ...toMap(binGrid, a[0], a[1]), va),
      ...toScene(frame, ...toMap(binGrid, b[0], b[1]), vb),
    );
  for (let n = 0; n < 4; n++) {
    for (const v of levels) add(ring[n], ring[(n + 1) % 4], v, v);
    add(ring[n], ring[n], levels[0], levels[1]);
  }
  return new THREE.BufferGeometry().setAttribute('position', new THREE.Float32BufferAttribute(points, 3));
}
