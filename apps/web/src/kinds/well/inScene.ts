import { curvesOf, type Well } from '@lithagon/core';
import * as THREE from 'three';
import { styleOfClass } from '../../state/logsTemplate';
import { toScene } from '../../views/scene/planes';
import type { SceneContext, SceneLayer } from '../scene';

/** Radius of a path, and of a log at the upper end of its scale, scene kilometres. */
const [THIN, THICK] = [0.014, 0.075];
/** Rings along a log at most, and corners of a ring. */
const [RINGS, CORNERS] = [400, 7];

/** A well's path in the scene, where it has a place in its domain. */
function pathOf({ frame, domain, well }: SceneContext): THREE.Vector3[] {
  return (well?.points ?? [])
    .map(([x, y, tvdss, twt]) => [x, y, domain === 'twt' ? twt : tvdss] as const)
    .filter(([, , v]) => Number.isFinite(v))
    .map(([x, y, v]) => new THREE.Vector3(...toScene(frame, x, y, v)));
}

/** A log as a tube about the path, as thick as its value; nothing where it has none. */
export function logTube(object: Well, context: SceneContext): THREE.Mesh | null {
  const { objects, log, values, well, frame, domain } = context;
  const held = log ? curvesOf(objects, object.name).get(log) : undefined;
  if (!held || !values || !well || !log) return null;
  const style = styleOfClass(log);
  const [from, to] = style ? [style.from, style.to] : [held.curve.min, held.curve.max];
  const { firstM, stepM } = held.logs.depth;
  const every = Math.max(1, Math.ceil(values.length / RINGS));
  const position: number[] = [];
  const index: number[] = [];
  let before = false;
  for (let n = 0; n < values.length; n += every) {
    const [x, y, tvdss, twt] = well.at(firstM + n * stepM);
    const v = domain === 'twt' ? twt : tvdss;
    if (Number.isNaN(values[n]) || !Number.isFinite(v)) {
      before = false;
      continue;
    }
    const part = style?.log ? Math.log(values[n] / from) / Math.log(to / from) : (values[n] - from) / (to - from);
    const radius = THIN + (THICK - THIN) * Math.max(0, Math.min(1, part));
    const [cx, cy, cz] = toScene(frame, x, y, v);
    const first = position.length / 3;
    for (let c = 0; c < CORNERS; c++) {
      const a = (2 * Math.PI * c) / CORNERS;
      position.push(cx + radius * Math.cos(a), cy, cz + radius * Math.sin(a));
    }
    if (before)
      for (let c = 0; c < CORNERS; c++) {
        const [p, q] = [first + c, first + ((c + 1) % CORNERS)];
        index.push(p - CORNERS, q - CORNERS, p, q - CORNERS, q, p);
      }
    before = true;
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.Float32BufferAttribute(position, 3));
  geometry.setIndex(index);
  geometry.computeVertexNormals();
  return new THREE.Mesh(
    geometry,
    new THREE.MeshLambertMaterial({ color: style?.color ?? '#4f5d6b', side: THREE.DoubleSide }),
  );
}

export const wellInScene: SceneLayer<Well> = {
  values: (object, { objects, log }) => (log ? curvesOf(objects, object.name).get(log)?.curve.data : undefined),
  build(object, context) {
    const path = pathOf(context);
    if (path.length < 2) return [];
    const tube = new THREE.TubeGeometry(new THREE.CatmullRomCurve3(path), Math.min(60, path.length), THIN, 6);
    const log = logTube(object, context);
    return [new THREE.Mesh(tube, new THREE.MeshBasicMaterial({ color: 0x17191b })), ...(log ? [log] : [])];
  },
  label(_, context) {
    const path = pathOf(context);
    return path.length < 2 ? null : [path[0].x, path[0].y, path[0].z];
  },
};
