import { type EarthObject, type Fault, meshOfSticks, type Volume } from '@lithagon/core';
import * as THREE from 'three';
import { type ShownWell, shownHorizons } from '../common/survey';
import { boxLines, horizonGeometry, type PlaneName, planeMesh, type SceneFrame, toScene } from './planes';

/** The things of a scene that are built once and then moved or recoloured. */
export interface World {
  scene: THREE.Scene;
  /** Scaled vertically by the exaggeration. */
  root: THREE.Group;
  planes: Record<PlaneName, ReturnType<typeof planeMesh>>;
  /** Outline of each plane, verdigris for the section in view. */
  edges: Record<PlaneName, THREE.LineLoop<THREE.BufferGeometry, THREE.LineBasicMaterial>>;
  culture: THREE.Group;
}

export function makeWorld(): World {
  const scene = new THREE.Scene();
  const root = new THREE.Group();
  scene.add(root, new THREE.HemisphereLight(0xffffff, 0x8a8478, 2));
  const sun = new THREE.DirectionalLight(0xffffff, 1.2);
  sun.position.set(-4, 6, 3);
  scene.add(sun);
  const names: PlaneName[] = ['inline', 'crossline', 'slice'];
  const planes = Object.fromEntries(names.map((n) => [n, planeMesh(n)])) as World['planes'];
  const edges = Object.fromEntries(
    names.map((n) => [
      n,
      new THREE.LineLoop(new THREE.BufferGeometry(), new THREE.LineBasicMaterial({ color: 0x5d656c })),
    ]),
  ) as World['edges'];
  for (const n of names) {
    edges[n].geometry.setAttribute('position', planes[n].geometry.getAttribute('position'));
    edges[n].frustumCulled = false;
    root.add(planes[n], edges[n]);
  }
  const culture = new THREE.Group();
  root.add(culture);
  return { scene, root, planes, edges, culture };
}

function empty(group: THREE.Group): void {
  for (const child of [...group.children]) {
    group.remove(child);
    const drawn = child as THREE.Mesh;
    drawn.geometry?.dispose();
    (drawn.material as THREE.Material | undefined)?.dispose?.();
  }
}

/** Lay out box, faults, wells and horizons of a project in a domain. */
export function furnish(
  world: World,
  frame: SceneFrame,
  volume: Volume,
  objects: EarthObject[],
  wells: ShownWell[],
  surfaces: Map<string, Float32Array>,
  domain: 'twt' | 'depth',
): { name: string; at: THREE.Vector3 }[] {
  const { culture } = world;
  empty(culture);
  culture.add(new THREE.LineSegments(boxLines(frame, volume), new THREE.LineBasicMaterial({ color: 0xa9a294 })));
  for (const fault of objects.filter((o): o is Fault => o.kind === 'fault' && o.domain === domain)) {
    const mesh = meshOfSticks(fault.sticks);
    const geometry = new THREE.BufferGeometry();
    const position = new Float32Array(mesh.points.length);
    for (let n = 0; n < position.length; n += 3)
      position.set(toScene(frame, mesh.points[n], mesh.points[n + 1], mesh.points[n + 2]), n);
    geometry.setAttribute('position', new THREE.BufferAttribute(position, 3));
    geometry.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
    geometry.computeVertexNormals();
    culture.add(
      new THREE.Mesh(
        geometry,
        new THREE.MeshLambertMaterial({
          color: fault.color ?? '#6f6a62',
          transparent: true,
          opacity: 0.55,
          side: THREE.DoubleSide,
          depthWrite: false,
        }),
      ),
    );
  }
  shownHorizons(objects, domain).forEach((horizon) => {
    const values = surfaces.get(horizon.id);
    if (!values) return;
    const geometry = horizonGeometry(frame, horizon.binGrid, values, horizon.range);
    geometry.computeVertexNormals();
    culture.add(
      new THREE.Mesh(
        geometry,
        new THREE.MeshLambertMaterial({
          vertexColors: true,
          side: THREE.DoubleSide,
          transparent: true,
          opacity: 0.9,
        }),
      ),
    );
  });
  const labels: { name: string; at: THREE.Vector3 }[] = [];
  for (const { well, points } of wells) {
    const path = points
      .map(([x, y, tvdss, twt]) => [x, y, domain === 'twt' ? twt : tvdss] as const)
      .filter(([, , v]) => Number.isFinite(v))
      .map(([x, y, v]) => new THREE.Vector3(...toScene(frame, x, y, v)));
    if (path.length < 2) continue;
    const tube = new THREE.TubeGeometry(new THREE.CatmullRomCurve3(path), Math.min(60, path.length), 0.014, 6);
    culture.add(new THREE.Mesh(tube, new THREE.MeshBasicMaterial({ color: 0x17191b })));
    labels.push({ name: well.name, at: path[0] });
  }
  return labels;
}
