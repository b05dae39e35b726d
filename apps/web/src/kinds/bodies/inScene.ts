import { type Bodies, bodyMesh, byBody, toMap } from '@lithagon/core';
import * as THREE from 'three';
import { toScene } from '../../views/scene/planes';
import type { SceneLayer } from '../scene';
import { bodyColor, MOST_DRAWN } from './shapes';

/** Each body as a surface that is lit. */
export const bodiesInScene: SceneLayer<Bodies> = {
  values: ({ runs }) => runs,
  build(object, { frame, values }) {
    if (!values) return [];
    const { binGrid, vertical } = object;
    return [...byBody(values)].slice(0, MOST_DRAWN).map(([body, runs]) => {
      const { positions, triangles } = bodyMesh(runs);
      const placed = new Float32Array(positions.length);
      for (let n = 0; n < positions.length; n += 3) {
        const [x, y] = toMap(binGrid, positions[n], positions[n + 1]);
        placed.set(toScene(frame, x, y, vertical.first + positions[n + 2] * vertical.step), n);
      }
      const geometry = new THREE.BufferGeometry();
      geometry.setAttribute('position', new THREE.BufferAttribute(placed, 3));
      geometry.setIndex(new THREE.BufferAttribute(triangles, 1));
      geometry.computeVertexNormals();
      return new THREE.Mesh(
        geometry,
        new THREE.MeshLambertMaterial({
          color: bodyColor(body),
          side: THREE.DoubleSide,
          transparent: true,
          opacity: 0.96,
        }),
      );
    });
  },
};
