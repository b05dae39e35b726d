import { type BinGrid, toMap, type Volume } from '@lithagon/core';
import * as THREE from 'three';
import { colorMap } from '../../color/maps';
import { fieldMaterial } from '../raster/field';

/** Earth coordinates to the scene's own: kilometres about the survey's middle, vertical down scaled by exaggeration. */
export interface SceneFrame {
  x: number;
  y: number;
  /** Vertical value at the scene's zero. */
  middle: number;
  /** Scene kilometres a vertical unit, before exaggeration. */
  perVertical: number;
}

export function sceneFrame(volume: Volume): SceneFrame {
  const { binGrid, vertical } = volume;
  const [x, y] = toMap(binGrid, (binGrid.inline.count - 1) / 2, (binGrid.crossline.count - 1) / 2);
  // a millisecond of two-way time stands for a metre, about what it is at 2000 m/s
  return { x, y, middle: vertical.first + (vertical.step * (vertical.count - 1)) / 2, perVertical: 0.001 };
}

export function toScene(frame: SceneFrame, x: number, y: number, vertical: number): [number, number, number] {
  return [(x - frame.x) / 1000, -(vertical - frame.middle) * frame.perVertical, -(y - frame.y) / 1000];
}

export type PlaneName = 'inline' | 'crossline' | 'slice';

/** A quad for one plane of a volume; `place` moves it to another line. */
export function planeMesh(name: PlaneName): THREE.Mesh<THREE.BufferGeometry, THREE.ShaderMaterial> {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(new Float32Array(12), 3));
  const uv = name === 'slice' ? [0, 0, 1, 0, 1, 1, 0, 1] : [0, 0, 0, 1, 1, 1, 1, 0];
  geometry.setAttribute('uv', new THREE.BufferAttribute(new Float32Array(uv), 2));
  geometry.setIndex([0, 1, 2, 0, 2, 3]);
  const mesh = new THREE.Mesh(geometry, fieldMaterial());
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

/** A horizon as a surface, without the cells that lack a corner; coloured by height as on the map. */
export function horizonGeometry(
  frame: SceneFrame,
  binGrid: BinGrid,
  values: Float32Array,
  range: [number, number],
): THREE.BufferGeometry {
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const position = new Float32Array(ni * nj * 3);
  // the lit material works in linear light
  const map = colorMap('strata').map((v) => Math.round(255 * (v / 255) ** 2.2));
  const color = new Uint8Array(ni * nj * 3);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const n = i * nj + j;
      // a bin without a value is in no triangle; it must not spoil the bounds either
      position.set(toScene(frame, ...toMap(binGrid, i, j), Number.isNaN(values[n]) ? range[0] : values[n]), 3 * n);
      const q = (values[n] - range[0]) / (range[1] - range[0] || 1);
      const c = 3 * Math.max(0, Math.min(255, Math.round(255 * (Number.isNaN(q) ? 0 : q))));
      color.set(map.subarray(c, c + 3), 3 * n);
    }
  const index: number[] = [];
  for (let i = 0; i + 1 < ni; i++)
    for (let j = 0; j + 1 < nj; j++) {
      const a = i * nj + j;
      if ([a, a + 1, a + nj, a + nj + 1].some((n) => Number.isNaN(values[n]))) continue;
      index.push(a, a + 1, a + nj, a + 1, a + nj + 1, a + nj);
    }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(position, 3));
  geometry.setAttribute('color', new THREE.BufferAttribute(color, 3, true));
  geometry.setIndex(index);
  return geometry;
}
