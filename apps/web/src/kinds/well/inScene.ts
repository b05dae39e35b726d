import type { Well } from '@lithagon/core';
import * as THREE from 'three';
import { toScene } from '../../views/scene/planes';
import type { SceneContext, SceneLayer } from '../scene';

/** A well's path in the scene, where it has a place in its domain. */
function pathOf({ frame, domain, well }: SceneContext): THREE.Vector3[] {
  return (well?.points ?? [])
    .map(([x, y, tvdss, twt]) => [x, y, domain === 'twt' ? twt : tvdss] as const)
    .filter(([, , v]) => Number.isFinite(v))
    .map(([x, y, v]) => new THREE.Vector3(...toScene(frame, x, y, v)));
}

export const wellInScene: SceneLayer<Well> = {
  build(_, context) {
    const path = pathOf(context);
    if (path.length < 2) return [];
    const tube = new THREE.TubeGeometry(new THREE.CatmullRomCurve3(path), Math.min(60, path.length), 0.014, 6);
    return [new THREE.Mesh(tube, new THREE.MeshBasicMaterial({ color: 0x17191b }))];
  },
  label(_, context) {
    const path = pathOf(context);
    return path.length < 2 ? null : [path[0].x, path[0].y, path[0].z];
  },
};
