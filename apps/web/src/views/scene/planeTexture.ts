import * as THREE from 'three';
import { colorTexture, type FieldLook } from '../raster/field';
import { MIXED, mixUniforms } from '../raster/mix';

const MOST_SIDE = 4096;

/**
 * A plane of samples as a texture that the graphics can filter, so that it is calm when it is small: half floats, in the first
 * channel the sample as a part of `unit`, in the second whether there is one. What is filtered is the first over the second.
 * @param whole whether samples are names, of which the nearest is shown
 */
export function planeTexture(
  data: Float32Array,
  rows: number,
  samples: number,
  whole = false,
): { texture: THREE.DataTexture; unit: number } {
  const [tall, wide] = [Math.min(rows, MOST_SIDE), Math.min(samples, MOST_SIDE)];
  let unit = 0;
  for (const v of data) if (v - v === 0 && Math.abs(v) > unit) unit = Math.abs(v);
  unit ||= 1;
  const one = THREE.DataUtils.toHalfFloat(1);
  const halves = new Uint16Array(2 * tall * wide);
  for (let r = 0, to = 0; r < tall; r++) {
    const from = (tall === rows ? r : Math.round((r * (rows - 1)) / (tall - 1))) * samples;
    for (let k = 0; k < wide; k++, to += 2) {
      const v = data[from + (wide === samples ? k : Math.round((k * (samples - 1)) / (wide - 1)))];
      if (v - v !== 0) continue;
      halves[to] = THREE.DataUtils.toHalfFloat(v / unit);
      halves[to + 1] = one;
    }
  }
  const texture = new THREE.DataTexture(halves, wide, tall, THREE.RGFormat, THREE.HalfFloatType);
  // between names there is nothing
  texture.minFilter = whole ? THREE.NearestFilter : THREE.LinearMipmapLinearFilter;
  texture.magFilter = whole ? THREE.NearestFilter : THREE.LinearFilter;
  texture.anisotropy = whole ? 1 : 4;
  texture.generateMipmaps = !whole;
  texture.needsUpdate = true;
  return { texture, unit };
}

const VERTEX = `
  #include <clipping_planes_pars_vertex>
  varying vec2 at;
  void main() {
    at = uv;
    vec4 mvPosition = modelViewMatrix * vec4(position, 1.0);
    gl_Position = projectionMatrix * mvPosition;
    #include <clipping_planes_vertex>
  }`;

const FRAGMENT = `
  precision highp float;
  uniform sampler2D field;
  uniform sampler2D colors;
  uniform vec2 size;
  uniform vec2 range;
  uniform float unit;
  uniform float turned;
  uniform float opacity;
  varying vec2 at;
  #include <clipping_planes_pars_fragment>
  void main() {
    #include <clipping_planes_fragment>
    // samples stand at the middles of texels
    vec2 sampled = texture2D(field, (at * (size - 1.0) + 0.5) / size).rg;
    if (sampled.g < 0.5) discard;
    float v = sampled.r / sampled.g * unit;
    float q = clamp((v - range.x) / (range.y - range.x), 0.0, 1.0);
    q = turned > 0.5 ? 1.0 - q : q;
    gl_FragColor = vec4(texture2D(colors, vec2(q * 255.0 / 256.0 + 0.5 / 256.0, 0.5)).rgb, opacity);
  }`;

export function planeMaterial(): THREE.ShaderMaterial {
  return new THREE.ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    side: THREE.DoubleSide,
    transparent: true,
    clipping: true,
    uniforms: {
      field: { value: null },
      colors: { value: null },
      size: { value: new THREE.Vector2(1, 1) },
      range: { value: new THREE.Vector2(-1, 1) },
      unit: { value: 1 },
      turned: { value: 0 },
      opacity: { value: 1 },
    },
  });
}

const MIX_FRAGMENT = `
  precision highp float;
  uniform sampler2D fields[4];
  uniform float units[4];
  uniform vec2 size;
  uniform float opacity;
  varying vec2 at;
  ${MIXED}
  #include <clipping_planes_pars_fragment>
  void main() {
    #include <clipping_planes_fragment>
    vec2 p = (at * (size - 1.0) + 0.5) / size;
    vec2 a = texture2D(fields[0], p).rg;
    vec2 b = texture2D(fields[1], p).rg;
    vec2 c = texture2D(fields[2], p).rg;
    vec2 d = strength > 0.0 ? texture2D(fields[3], p).rg : vec2(0.0, 1.0);
    if (min(min(a.g, b.g), min(c.g, d.g)) < 0.5) discard;
    vec4 v = vec4(a.r / a.g * units[0], b.r / b.g * units[1], c.r / c.g * units[2], d.r / d.g * units[3]);
    gl_FragColor = vec4(mixed(v), opacity);
  }`;

/** What draws planes of several volumes that are mixed. */
export function planeMixMaterial(): THREE.ShaderMaterial {
  return new THREE.ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader: MIX_FRAGMENT,
    side: THREE.DoubleSide,
    transparent: true,
    clipping: true,
    uniforms: {
      fields: { value: [null, null, null, null] },
      units: { value: [1, 1, 1, 1] },
      size: { value: new THREE.Vector2(1, 1) },
      opacity: { value: 1 },
      ...mixUniforms(),
    },
  });
}

export function setPlane(material: THREE.ShaderMaterial, texture: THREE.DataTexture, unit: number): void {
  material.uniforms.field.value = texture;
  material.uniforms.unit.value = unit;
  material.uniforms.size.value.set(texture.image.width, texture.image.height);
}

export function setPlaneLook(material: THREE.ShaderMaterial, look: FieldLook): void {
  const u = material.uniforms;
  u.colors.value = colorTexture(look.map);
  u.range.value.set(look.low, look.high === look.low ? look.low + 1 : look.high);
  u.turned.value = look.reverse ? 1 : 0;
  u.opacity.value = look.opacity ?? 1;
}
