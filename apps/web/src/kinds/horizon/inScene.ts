import { type BinGrid, extentOf, gridAt, type Horizon, quantityFacts, sameBins, toMap } from '@lithagon/core';
import * as THREE from 'three';
import { type ColorMapName, colorMap } from '../../color/maps';
import { MIXED, mixUniforms, setMix } from '../../views/raster/mix';
import { type SceneFrame, toScene } from '../../views/scene/planes';
import type { Painting, SceneContext, SceneLayer } from '../scene';

/** What a surface is coloured by, bin by bin, between the ends of its colours. */
interface Paint {
  values: Float32Array;
  range: [number, number];
  colors: ColorMapName;
  reverse: boolean;
}

/** Grey of what has no value to be coloured by. */
const BARE = 120;

/** The values of a map at the bins of a horizon. */
function onBins({ binGrid }: Horizon, map: Painting, values: Float32Array): Float32Array {
  if (sameBins(binGrid, map.binGrid)) return values;
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  return Float32Array.from({ length: ni * nj }, (_, n) =>
    gridAt(values, map.binGrid, ...toMap(binGrid, Math.floor(n / nj), n % nj)),
  );
}

/** The values of a map at the bins of a horizon, and the colours of its quantity. */
function paintOf(horizon: Horizon, { map, values }: { map: Painting; values: Float32Array }): Paint {
  const { colors, symmetric } = quantityFacts(map.quantity);
  const [low, high] = map.range;
  const end = Math.max(Math.abs(low), Math.abs(high));
  return {
    values: onBins(horizon, map, values),
    range: symmetric ? [-end, end] : [low, high],
    colors: colors.map,
    reverse: colors.reverse,
  };
}

/** A horizon as a surface, without the cells that lack a corner; coloured by height as on the map, or by what is given. */
export function horizonGeometry(
  frame: SceneFrame,
  binGrid: BinGrid,
  values: Float32Array,
  range: [number, number],
  paint: Paint = { values, range, colors: 'strata', reverse: false },
): THREE.BufferGeometry {
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const position = new Float32Array(ni * nj * 3);
  // the lit material works in linear light
  const map = colorMap(paint.colors).map((v) => Math.round(255 * (v / 255) ** 2.2));
  const color = new Uint8Array(ni * nj * 3);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const n = i * nj + j;
      // a bin without a value is in no triangle; it must not spoil the bounds either
      position.set(toScene(frame, ...toMap(binGrid, i, j), Number.isNaN(values[n]) ? range[0] : values[n]), 3 * n);
      const q = (paint.values[n] - paint.range[0]) / (paint.range[1] - paint.range[0] || 1);
      if (Number.isNaN(q)) {
        color.fill(BARE, 3 * n, 3 * n + 3);
        continue;
      }
      const c = 3 * Math.max(0, Math.min(255, Math.round(255 * (paint.reverse ? 1 - q : q))));
      color.set(map.subarray(c, c + 3), 3 * n);
    }
  const index: number[] = [];
  for (let i = 0; i + 1 < ni; i++)
    for (let j = 0; j + 1 < nj; j++) {
      const a = i * nj + j;
      if ([a, a + 1, a + nj, a + nj + 1].some((n) => Number.isNaN(values[n]))) continue;
      index.push(a, a + 1, a + nj, a + 1, a + nj + 1, a + nj);
    }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(position, 3));
  geometry.setAttribute('color', new THREE.BufferAttribute(color, 3, true));
  geometry.setIndex(index);
  return geometry;
}

const MIX_VERTEX = `
  #include <clipping_planes_pars_vertex>
  attribute vec4 channels;
  varying vec4 held;
  varying vec3 facing;
  void main() {
    held = channels;
    facing = normalize(normalMatrix * normal);
    vec4 mvPosition = modelViewMatrix * vec4(position, 1.0);
    gl_Position = projectionMatrix * mvPosition;
    #include <clipping_planes_vertex>
  }`;

// lit from above and from where one stands, no darker than its colours can still be told apart
const MIX_FRAGMENT = `
  precision highp float;
  uniform float opacity;
  varying vec4 held;
  varying vec3 facing;
  ${MIXED}
  #include <clipping_planes_pars_fragment>
  void main() {
    #include <clipping_planes_fragment>
    float slope = abs(normalize(facing).z);
    vec3 color = max(max(held.x, held.y), max(held.z, held.w)) > 1e37 ? vec3(0.47) : mixed(held);
    gl_FragColor = vec4(color * (0.72 + 0.28 * slope), opacity);
  }`;

/** A surface in the colours of a blend: what its bins hold is in its corners, and how that is mixed in uniforms. */
function blendedSurface(
  horizon: Horizon,
  geometry: THREE.BufferGeometry,
  { maps, fields, mix }: NonNullable<SceneContext['blended']>,
) {
  const on = maps.map((map, n) => onBins(horizon, map, fields[n]));
  const channels = new Float32Array(4 * on[0].length);
  for (let n = 0; n < on[0].length; n++)
    for (let c = 0; c < on.length; c++) channels[4 * n + c] = Number.isNaN(on[c][n]) ? 3e38 : on[c][n];
  geometry.setAttribute('channels', new THREE.BufferAttribute(channels, 4));
  const material = new THREE.ShaderMaterial({
    vertexShader: MIX_VERTEX,
    fragmentShader: MIX_FRAGMENT,
    side: THREE.DoubleSide,
    transparent: true,
    clipping: true,
    uniforms: { opacity: { value: 1 }, ...mixUniforms() },
  });
  setMix(material, mix);
  return new THREE.Mesh(geometry, material);
}

/** A horizon coloured by its time or depth or by a map, lit from above. */
export const horizonInScene: SceneLayer<Horizon> = {
  values: ({ values }) => values,
  build(object, { frame, values, paint, blended, domain }) {
    if (!values) return [];
    // of one that was turned into another domain its values alone say between which it lies
    const range = object.domain === domain ? object.range : extentOf(values);
    if (!(range[0] <= range[1])) return [];
    if (blended) {
      const plain = horizonGeometry(frame, object.binGrid, values, range);
      plain.computeVertexNormals();
      return [blendedSurface(object, plain, blended)];
    }
    const by = paint ? paintOf(object, paint) : undefined;
    const geometry = horizonGeometry(frame, object.binGrid, values, range, by);
    geometry.computeVertexNormals();
    return [
      new THREE.Mesh(
        geometry,
        new THREE.MeshLambertMaterial({ vertexColors: true, side: THREE.DoubleSide, transparent: true, opacity: 0.95 }),
      ),
    ];
  },
  restyle(group, { blended }) {
    if (!blended) return;
    group.traverse((part) => {
      const { material } = part as THREE.Mesh;
      if (!(material instanceof THREE.ShaderMaterial)) return;
      setMix(material, blended.mix);
      material.uniforms.opacity.value = material.opacity;
    });
  },
};
