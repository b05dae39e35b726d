import { toMap, type Volume } from '@lithagon/core';
import * as THREE from 'three';
import { type SceneFrame, toScene } from './planes';

/** Parts of a survey, from and to: inlines, crosslines, samples. */
export type Crop = [number, number, number, number, number, number];

export const isWhole = (crop: Crop) => crop.every((part, n) => part === n % 2);

/** Planes in the world between which a crop lies; they look inwards. The scene is stretched by the exaggeration. */
export function cropPlanes(volume: Volume, frame: SceneFrame, crop: Crop, exaggeration: number): THREE.Plane[] {
  const { binGrid, vertical } = volume;
  const counts = [binGrid.inline.count - 1, binGrid.crossline.count - 1, vertical.count - 1];
  const at = (i: number, j: number, k: number) => {
    const [x, y, z] = toScene(
      frame,
      ...toMap(binGrid, i * counts[0], j * counts[1]),
      vertical.first + k * counts[2] * vertical.step,
    );
    return new THREE.Vector3(x, y * exaggeration, z);
  };
  const [i0, i1, j0, j1, k0, k1] = crop;
  const middle = at((i0 + i1) / 2, (j0 + j1) / 2, (k0 + k1) / 2);
  const through = (a: THREE.Vector3, b: THREE.Vector3, c: THREE.Vector3) => {
    const plane = new THREE.Plane().setFromCoplanarPoints(a, b, c);
    return plane.distanceToPoint(middle) < 0 ? plane.negate() : plane;
  };
  return [
    ...[i0, i1].map((i) => through(at(i, 0, 0), at(i, 1, 0), at(i, 0, 1))),
    ...[j0, j1].map((j) => through(at(0, j, 0), at(1, j, 0), at(0, j, 1))),
    ...[k0, k1].map((k) => through(at(0, 0, k), at(1, 0, k), at(0, 1, k))),
  ];
}
