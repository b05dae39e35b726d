import { type BinGrid, type Horizon, toMap } from '@lithagon/core';
import * as THREE from 'three';
import { colorMap } from '../../color/maps';
import { type SceneFrame, toScene } from '../../views/scene/planes';
import type { SceneLayer } from '../scene';

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

/** A horizon coloured by its time or depth, lit from above. */
export const horizonInScene: SceneLayer<Horizon> = {
  values: ({ values }) => values,
  build(object, { frame, values }) {
    if (!values) return [];
    const geometry = horizonGeometry(frame, object.binGrid, values, object.range);
    geometry.computeVertexNormals();
    return [
      new THREE.Mesh(
        geometry,
        new THREE.MeshLambertMaterial({ vertexColors: true, side: THREE.DoubleSide, transparent: true, opacity: 0.95 }),
      ),
    ];
  },
};
