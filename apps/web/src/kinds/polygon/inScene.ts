import type { Polygon } from '@lithagon/core';
import * as THREE from 'three';
import { toScene } from '../../views/scene/planes';
import type { SceneLayer } from '../scene';

/** An outline laid on the top of the survey's box. */
export const polygonInScene: SceneLayer<Polygon> = {
  build(object, { frame }) {
    return object.rings.map((ring) => {
      const geometry = new THREE.BufferGeometry();
      geometry.setAttribute(
        'position',
        new THREE.Float32BufferAttribute(
          ring.flatMap(([x, y]) => toScene(frame, x, y, frame.top)),
          3,
        ),
      );
      const material = new THREE.LineBasicMaterial({ color: object.color ?? (object.closed ? '#7f6a2f' : '#2f6db0') });
      return object.closed ? new THREE.LineLoop(geometry, material) : new THREE.Line(geometry, material);
    });
  },
};
