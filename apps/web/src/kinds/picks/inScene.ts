import type { Picks } from '@lithagon/core';
import * as THREE from 'three';
import { toScene } from '../../views/scene/planes';
import type { SceneLayer } from '../scene';

/** Picks as points. */
export const picksInScene: SceneLayer<Picks> = {
  build(object, { frame, color }) {
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute(
      'position',
      new THREE.Float32BufferAttribute(
        object.points.flatMap(([x, y, v]) => toScene(frame, x, y, v)),
        3,
      ),
    );
    const ink = object.color ?? (color.startsWith('#') ? color : '#1f766d');
    return [new THREE.Points(geometry, new THREE.PointsMaterial({ color: ink, size: 3, sizeAttenuation: false }))];
  },
};
