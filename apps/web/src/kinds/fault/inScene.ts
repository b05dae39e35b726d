import { type Fault, meshOfSticks } from '@lithagon/core';
import * as THREE from 'three';
import { toScene } from '../../views/scene/planes';
import type { SceneLayer } from '../scene';
import { sceneColor } from './look';

/** A fault's sticks joined to a surface one can see through. */
export const faultInScene: SceneLayer<Fault> = {
  build(object, { frame, objects }) {
    const mesh = meshOfSticks(object.sticks);
    const position = new Float32Array(mesh.points.length);
    for (let n = 0; n < position.length; n += 3)
      position.set(toScene(frame, mesh.points[n], mesh.points[n + 1], mesh.points[n + 2]), n);
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(position, 3));
    geometry.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
    geometry.computeVertexNormals();
    return [
      new THREE.Mesh(
        geometry,
        new THREE.MeshLambertMaterial({
          color: sceneColor(object, objects),
          transparent: true,
          opacity: 0.55,
          side: THREE.DoubleSide,
          depthWrite: false,
        }),
      ),
    ];
  },
};
