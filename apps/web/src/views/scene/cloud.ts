import { type CoarseCube, toMap, type Volume } from '@lithagon/core';
import * as THREE from 'three';
import { colorTexture, type FieldLook } from '../raster/field';
import type { Crop } from './crop';
import { type SceneFrame, toScene } from './planes';

const VERTEX = `
  uniform vec3 eye;
  uniform vec3 ahead;
  uniform float parallel;
  varying vec3 place;
  varying vec3 ray;
  void main() {
    place = position;
    ray = parallel > 0.5 ? ahead : position - eye;
    gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
  }`;

// Samples are gathered front to back along the ray through the box (Levoy 1988, IEEE CG&A 8(3), 29–37).
const FRAGMENT = `
  precision highp float;
  precision highp sampler3D;
  uniform sampler3D cube;
  uniform sampler2D colors;
  uniform sampler2D transfer;
  uniform vec2 range;
  uniform vec3 low;
  uniform vec3 high;
  uniform float unit;
  uniform float turned;
  uniform float steps;
  uniform float parallel;
  varying vec3 place;
  varying vec3 ray;
  void main() {
    vec3 dir = normalize(ray);
    vec3 inverse = 1.0 / dir;
    vec3 a = (low - place) * inverse;
    vec3 b = (high - place) * inverse;
    vec3 near = min(a, b);
    vec3 far = max(a, b);
    // the back faces are drawn: the ray goes from where it enters to this place
    float begin = max(max(near.x, near.y), near.z);
    float end = min(min(far.x, far.y), min(far.z, 0.0));
    // nothing behind the eye is seen
    if (parallel < 0.5) begin = max(begin, -length(ray));
    if (begin >= end) discard;
    float stride = 1.732 / steps;
    vec4 seen = vec4(0.0);
    for (float t = begin; t < end; t += stride) {
      vec2 sampled = texture(cube, place + t * dir).rg;
      if (sampled.g < 0.5) continue;
      float q = clamp((sampled.r / sampled.g * unit - range.x) / (range.y - range.x), 0.0, 1.0);
      float opacity = texture(transfer, vec2(q, 0.5)).r;
      // opacity is told for a hundredth of the box
      float alpha = 1.0 - pow(1.0 - min(opacity, 0.995), stride * 100.0);
      vec3 color = texture(colors, vec2((turned > 0.5 ? 1.0 - q : q) * 255.0 / 256.0 + 0.5 / 256.0, 0.5)).rgb;
      seen.rgb += (1.0 - seen.a) * alpha * color;
      seen.a += (1.0 - seen.a) * alpha;
      if (seen.a > 0.98) break;
    }
    if (seen.a < 0.004) discard;
    gl_FragColor = seen;
  }`;

/** A volume that is looked through, in the box of its survey. */
export interface Cloud {
  mesh: THREE.Mesh<THREE.BoxGeometry, THREE.ShaderMaterial>;
  setCube(cube: CoarseCube): void;
  setLook(look: FieldLook, transfer: [number, number][]): void;
  /** Where it is seen from, what of it is shown and how finely rays are followed. */
  setView(camera: THREE.Camera, crop: Crop, steps: number): void;
  free(): void;
}

/** Opacity over the colour range as a row of 256, straight between control points. */
export function transferRow(points: [number, number][]): Uint8Array {
  const sorted = [...points].sort((a, b) => a[0] - b[0]);
  return Uint8Array.from({ length: 256 }, (_, n) => {
    const q = n / 255;
    const next = sorted.findIndex(([at]) => at >= q);
    if (next < 0) return Math.round(255 * sorted[sorted.length - 1][1]);
    if (next === 0) return Math.round(255 * sorted[0][1]);
    const [[a, va], [b, vb]] = [sorted[next - 1], sorted[next]];
    return Math.round(255 * (b === a ? vb : va + ((q - a) / (b - a)) * (vb - va)));
  });
}

/** Half floats of a cube, samples along x: the sample as a part of the greatest, and whether there is one. */
function cubeTexture({ data, shape: [ni, nj, nk] }: CoarseCube): { texture: THREE.Data3DTexture; unit: number } {
  let unit = 0;
  for (const v of data) if (v - v === 0 && Math.abs(v) > unit) unit = Math.abs(v);
  unit ||= 1;
  const one = THREE.DataUtils.toHalfFloat(1);
  const halves = new Uint16Array(2 * data.length);
  for (let n = 0; n < data.length; n++) {
    if (data[n] - data[n] !== 0) continue;
    halves[2 * n] = THREE.DataUtils.toHalfFloat(data[n] / unit);
    halves[2 * n + 1] = one;
  }
  const texture = new THREE.Data3DTexture(halves, nk, nj, ni);
  texture.format = THREE.RGFormat;
  texture.type = THREE.HalfFloatType;
  texture.minFilter = THREE.LinearFilter;
  texture.magFilter = THREE.LinearFilter;
  texture.unpackAlignment = 4;
  texture.needsUpdate = true;
  return { texture, unit };
}

export function makeCloud(volume: Volume, frame: SceneFrame): Cloud {
  const geometry = new THREE.BoxGeometry(1, 1, 1).translate(0.5, 0.5, 0.5);
  const transfer = new THREE.DataTexture(new Uint8Array(256), 256, 1, THREE.RedFormat);
  transfer.minFilter = THREE.LinearFilter;
  transfer.magFilter = THREE.LinearFilter;
  const material = new THREE.ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    side: THREE.BackSide,
    transparent: true,
    premultipliedAlpha: true,
    depthWrite: false,
    uniforms: {
      cube: { value: null },
      colors: { value: null },
      transfer: { value: transfer },
      range: { value: new THREE.Vector2(-1, 1) },
      low: { value: new THREE.Vector3(0, 0, 0) },
      high: { value: new THREE.Vector3(1, 1, 1) },
      eye: { value: new THREE.Vector3() },
      ahead: { value: new THREE.Vector3(0, 0, -1) },
      parallel: { value: 0 },
      unit: { value: 1 },
      turned: { value: 0 },
      steps: { value: 96 },
    },
  });
  const mesh = new THREE.Mesh(geometry, material);
  mesh.matrixAutoUpdate = false;
  mesh.frustumCulled = false;
  // the unit cube laid on the survey: samples along x, crosslines along y, inlines along z
  const { binGrid, vertical } = volume;
  const [ni, nj, nk] = [binGrid.inline.count - 1, binGrid.crossline.count - 1, vertical.count - 1];
  const at = (i: number, j: number, k: number) =>
    new THREE.Vector3(...toScene(frame, ...toMap(binGrid, i, j), vertical.first + k * vertical.step));
  const origin = at(0, 0, 0);
  const [x, y, z] = [at(0, 0, nk), at(0, nj, 0), at(ni, 0, 0)].map((p) => p.sub(origin));
  mesh.matrix.makeBasis(x, y, z).setPosition(origin);
  mesh.matrixWorldNeedsUpdate = true;
  const u = material.uniforms;
  return {
    mesh,
    setCube(cube) {
      u.cube.value?.dispose();
      const { texture, unit } = cubeTexture(cube);
      u.cube.value = texture;
      u.unit.value = unit;
    },
    setLook(look, points) {
      u.colors.value = colorTexture(look.map);
      u.range.value.set(look.low, look.high === look.low ? look.low + 1 : look.high);
      u.turned.value = look.reverse ? 1 : 0;
      (transfer.image.data as Uint8Array).set(transferRow(points));
      transfer.needsUpdate = true;
    },
    setView(camera, [i0, i1, j0, j1, k0, k1], steps) {
      mesh.updateWorldMatrix(true, false);
      camera.updateMatrixWorld();
      const inverse = mesh.matrixWorld.clone().invert();
      u.eye.value.setFromMatrixPosition(camera.matrixWorld).applyMatrix4(inverse);
      u.ahead.value
        .set(0, 0, -1)
        .transformDirection(camera.matrixWorld)
        .applyMatrix3(new THREE.Matrix3().setFromMatrix4(inverse));
      u.parallel.value = camera instanceof THREE.OrthographicCamera ? 1 : 0;
      u.low.value.set(k0, j0, i0);
      u.high.value.set(k1, j1, i1);
      u.steps.value = steps;
    },
    free() {
      u.cube.value?.dispose();
      transfer.dispose();
      geometry.dispose();
      material.dispose();
    },
  };
}
