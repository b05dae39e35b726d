import type { Volume } from '@lithagon/core';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { useLit } from '../common/useLit';
import { sectionLine } from '../section/geometry';
import type { PlaneName } from './planes';
import { planeMaterial, planeTexture, setPlane, setPlaneLook } from './planeTexture';
import type { World } from './world';

/** Light up on a plane of a scene what lies in the ring that is drawn in a crossplot of volumes. @returns what changes with the picture */
export function useLitPlane(world: World, name: PlaneName, volume: Volume, index: number): string {
  const line = useMemo(
    () => (name === 'slice' ? null : sectionLine(volume.binGrid, name, index)),
    [volume.binGrid, name, index],
  );
  const lit = useLit(volume, name, index, line);
  const data = lit?.state.data;
  useEffect(() => {
    if (!data) return;
    const { binGrid, vertical } = volume;
    const [rows, samples] =
      name === 'slice'
        ? [binGrid.inline.count, binGrid.crossline.count]
        : [binGrid[name === 'inline' ? 'crossline' : 'inline'].count, vertical.count];
    const { texture, unit } = planeTexture(data, rows, samples, true);
    const material = planeMaterial();
    // over the plane that it lies on
    material.polygonOffset = true;
    material.polygonOffsetFactor = -1;
    material.polygonOffsetUnits = -1;
    material.clippingPlanes = world.planes[name].material.clippingPlanes;
    setPlane(material, texture, unit);
    setPlaneLook(material, { map: 'ember', low: 0, high: 1.5, reverse: false, opacity: 0.8 });
    const mesh = new THREE.Mesh(world.planes[name].geometry, material);
    mesh.frustumCulled = false;
    mesh.renderOrder = 1;
    world.root.add(mesh);
    return () => {
      mesh.removeFromParent();
      texture.dispose();
      material.dispose();
    };
  }, [world, name, volume, data]);
  return lit?.state.key ?? '';
}
