import type { Volume } from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import * as THREE from 'three';
import { useProject } from '../../state/project';
import { activeOf, usePlace, useSettings } from '../../state/views';
import { shownLine } from '../common/survey';
import type { FieldLook } from '../raster/field';
import { spacedAlong } from '../section/geometry';
import { cornersAlong, useTraces } from '../section/useAlong';
import { type SceneFrame, toScene } from './planes';
import { planeMaterial, planeTexture, setPlane, setPlaneLook } from './planeTexture';
import type { World } from './world';

/** A curtain of a volume along places on the map, samples along u and places along v of its texture. */
export function fenceGeometry(frame: SceneFrame, volume: Volume, places: [number, number][]): THREE.BufferGeometry {
  const { first, step, count } = volume.vertical;
  const [top, base] = [first, first + step * (count - 1)];
  const position: number[] = [];
  const uv: number[] = [];
  const index: number[] = [];
  for (const [n, [x, y]] of places.entries()) {
    position.push(...toScene(frame, x, y, top), ...toScene(frame, x, y, base));
    const v = n / Math.max(1, places.length - 1);
    uv.push(0, v, 1, v);
    if (n > 0) index.push(2 * n - 2, 2 * n - 1, 2 * n, 2 * n - 1, 2 * n + 1, 2 * n);
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.Float32BufferAttribute(position, 3));
  geometry.setAttribute('uv', new THREE.Float32BufferAttribute(uv, 2));
  geometry.setIndex(index);
  return geometry;
}

/** The volume along the line that the section in front runs along, where that is one's own or a 2D line. */
export function useFence(
  world: World,
  volume: Volume,
  frame: SceneFrame,
  look: FieldLook,
  wanted: boolean,
): THREE.Mesh | null {
  const objects = useProject((s) => s.objects);
  const [section] = useSettings('section', activeOf('section'));
  const flat = shownLine(objects, section);
  const bent = flat !== undefined || section.along === 'path';
  const place = usePlace(activeOf('section'));
  const places = useMemo(() => {
    const corners = wanted && bent ? cornersAlong(flat ?? volume, section, place, objects) : null;
    if (!corners || corners.length < 2) return null;
    const { perInline, perCrossline } = volume.binGrid;
    return spacedAlong(corners, Math.min(Math.hypot(...perInline), Math.hypot(...perCrossline)));
  }, [wanted, bent, flat, section, place, objects, volume]);
  const [traces] = useTraces(places ? volume : undefined, places);
  const [mesh, setMesh] = useState<THREE.Mesh<THREE.BufferGeometry, THREE.ShaderMaterial> | null>(null);
  useEffect(() => {
    if (!traces || !places) return;
    const { texture, unit } = planeTexture(traces.data, places.length, volume.vertical.count, look.whole);
    const made = new THREE.Mesh(fenceGeometry(frame, volume, places), planeMaterial());
    setPlane(made.material, texture, unit);
    made.frustumCulled = false;
    world.root.add(made);
    setMesh(made);
    return () => {
      made.removeFromParent();
      made.geometry.dispose();
      made.material.dispose();
      texture.dispose();
      setMesh(null);
    };
  }, [traces, places, world, frame, volume, look.whole]);
  if (mesh) setPlaneLook(mesh.material, look);
  return mesh;
}
