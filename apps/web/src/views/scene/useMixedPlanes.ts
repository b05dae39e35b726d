import type { Blend, Volume } from '@lithagon/core';
import { useEffect } from 'react';
import type * as THREE from 'three';
import { useBlends, useDrawnBlend } from '../../state/blends';
import type { Place } from '../../state/views';
import { mixOf } from '../blend/mixOf';
import { usePlaneFields } from '../blend/useFields';
import { indexAt } from '../common/survey';
import { setMix } from '../raster/mix';
import type { PlaneName } from './planes';
import { planeMixMaterial, planeTexture } from './planeTexture';
import type { World } from './world';

/**
 * Draw a plane of a scene in the colours of a blend of volumes, where one is chosen and read; its samples become textures once, and
 * ends that move are uniforms. @returns what changes with the picture
 */
export function useMixedPlane(
  world: World,
  name: PlaneName,
  chosen: Blend | undefined,
  volume: Volume,
  place: Place,
  shown: number | undefined,
): string {
  const blend = useDrawnBlend(chosen);
  const lit = useBlends((s) => s.lit);
  const { volumes, fields, index } = usePlaneFields(blend, name, (v) => indexAt(v, name, place));
  const [first] = volumes;
  const alike = first !== undefined && shown === index && sameSamples(first, volume);
  const mix = blend && alike ? mixOf(blend, fields, lit) : null;
  const [a, b, c, d] = fields;
  const ready = mix !== null;
  useEffect(() => {
    if (!ready || !a || !b || !c) return;
    const { binGrid, vertical } = volume;
    const [rows, samples] =
      name === 'slice'
        ? [binGrid.inline.count, binGrid.crossline.count]
        : [binGrid[name === 'inline' ? 'crossline' : 'inline'].count, vertical.count];
    const mesh = world.planes[name];
    const plain = mesh.material;
    const material = planeMixMaterial();
    material.clippingPlanes = plain.clippingPlanes;
    const made = [a, b, c, ...(d ? [d] : [])].map((data) => planeTexture(data, rows, samples));
    const textures: THREE.Texture[] = made.map((m) => m.texture);
    material.uniforms.fields.value = [0, 1, 2, 3].map((n) => textures[n] ?? textures[0]);
    material.uniforms.units.value = [0, 1, 2, 3].map((n) => made[n]?.unit ?? 1);
    material.uniforms.size.value.set(made[0].texture.image.width, made[0].texture.image.height);
    mesh.material = material;
    return () => {
      mesh.material = plain;
      for (const texture of textures) texture.dispose();
      material.dispose();
    };
  }, [world, name, volume, ready, a, b, c, d]);
  useEffect(() => {
    const { material } = world.planes[name];
    if (mix && 'fields' in material.uniforms) setMix(material, mix);
  });
  return mix ? JSON.stringify([mix.ends, mix.primaries, mix.strength, mix.lit, index]) : '';
}

const sameSamples = (a: Volume, b: Volume) =>
  JSON.stringify([a.binGrid, a.vertical, a.domain]) === JSON.stringify([b.binGrid, b.vertical, b.domain]);
