import type { FluidContacts } from '@lithagon/core';
import * as THREE from 'three';
import { toScene } from '../../views/scene/planes';
import type { SceneLayer } from '../scene';
import { contactLevels } from './levels';

/** Contacts as level planes one can see through, as wide as the survey. */
export const contactsInScene: SceneLayer<FluidContacts> = {
  build(object, { frame, outline }) {
    return contactLevels(object).map(({ depth, color }) => {
      const geometry = new THREE.BufferGeometry();
      geometry.setAttribute(
        'position',
        new THREE.Float32BufferAttribute(
          outline.flatMap(([x, y]) => toScene(frame, x, y, depth)),
          3,
        ),
      );
      geometry.setIndex([0, 1, 2, 0, 2, 3]);
      return new THREE.Mesh(
        geometry,
        new THREE.MeshBasicMaterial({
          color,
          transparent: true,
          opacity: 0.3,
          side: THREE.DoubleSide,
          depthWrite: false,
        }),
      );
    });
  },
};
