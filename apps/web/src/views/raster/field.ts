import * as THREE from 'three';
import { type ColorMapName, colorMap } from '../../color/maps';
import { MIXED, mixUniforms } from './mix';

/** Samples that are not there: a texture need not keep a NaN. */
const NULL = 3e38;

/** Longest side of a texture that every WebGL2 device of the last years takes. */
const MOST_SIDE = 8192;

/** A plane of samples as a texture, `[row][sample]` with samples along x; one too long for a texture is thinned evenly. */
export function fieldTexture(data: Float32Array, rows: number, samples: number): THREE.DataTexture {
  const [tall, wide] = [Math.min(rows, MOST_SIDE), Math.min(samples, MOST_SIDE)];
  const values = new Float32Array(tall * wide);
  const place = (kept: number, all: number) => (kept === all ? 1 : (all - 1) / (kept - 1));
  const [down, along] = [place(tall, rows), place(wide, samples)];
  for (let r = 0, to = 0; r < tall; r++) {
    const from = Math.round(r * down) * samples;
    for (let k = 0; k < wide; k++, to++) {
      const value = data[from + (along === 1 ? k : Math.round(k * along))];
      values[to] = value - value === 0 ? value : NULL;
    }
  }
  const texture = new THREE.DataTexture(values, wide, tall, THREE.RedFormat, THREE.FloatType);
  texture.minFilter = THREE.NearestFilter;
  texture.magFilter = THREE.NearestFilter;
  texture.needsUpdate = true;
  return texture;
}

const colorTextures = new Map<string, THREE.DataTexture>();

export function colorTexture(name: ColorMapName): THREE.DataTexture {
  const known = colorTextures.get(name);
  if (known) return known;
  const rgb = colorMap(name);
  const rgba = new Uint8Array(256 * 4).fill(255);
  for (let n = 0; n < 256; n++) rgba.set(rgb.subarray(3 * n, 3 * n + 3), 4 * n);
  const texture = new THREE.DataTexture(rgba, 256, 1, THREE.RGBAFormat, THREE.UnsignedByteType);
  texture.minFilter = THREE.LinearFilter;
  texture.magFilter = THREE.LinearFilter;
  texture.needsUpdate = true;
  colorTextures.set(name, texture);
  return texture;
}

/** Values at the ends of the colour map; everything that a display change touches is a uniform. */
export interface FieldLook {
  map: ColorMapName;
  low: number;
  high: number;
  reverse: boolean;
  steps?: number;
  /** Whether values are names, between which there is nothing: the nearest is drawn. */
  whole?: boolean;
  opacity?: number;
}

const VERTEX = `
  varying vec2 at;
  void main() {
    at = uv;
    gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
  }`;

// Samples are interpolated here, since filtering float textures is an extension: a cubic along the trace, linear across.
const SAMPLED = `
  uniform vec2 size;
  varying vec2 at;
  float fetch(sampler2D field, vec2 p) {
    return texture2D(field, (clamp(p, vec2(0.0), size - 1.0) + 0.5) / size).r;
  }
  float along(sampler2D field, float k, float row, float f) {
    float a = fetch(field, vec2(k - 1.0, row));
    float b = fetch(field, vec2(k, row));
    float c = fetch(field, vec2(k + 1.0, row));
    float d = fetch(field, vec2(k + 2.0, row));
    if (max(b, c) > 1e38) return f < 0.5 ? b : c;
    if (a > 1e38) a = b;
    if (d > 1e38) d = c;
    return b + 0.5 * f * (c - a + f * (2.0 * a - 5.0 * b + 4.0 * c - d + f * (3.0 * (b - c) + d - a)));
  }
  float sampled(sampler2D field) {
    vec2 p = at * (size - 1.0);
    vec2 cell = floor(p);
    vec2 f = p - cell;
    float v0 = along(field, cell.x, cell.y, f.x);
    float v1 = along(field, cell.x, cell.y + 1.0, f.x);
    return v0 > 1e38 || v1 > 1e38 ? (f.y < 0.5 ? v0 : v1) : mix(v0, v1, f.y);
  }`;

const FRAGMENT = `
  precision highp float;
  uniform sampler2D field;
  uniform sampler2D colors;
  uniform vec2 range;
  uniform float turned;
  uniform float steps;
  uniform float whole;
  uniform float opacity;
  ${SAMPLED}
  void main() {
    float v = whole > 0.5 ? fetch(field, floor(at * (size - 1.0) + 0.5)) : sampled(field);
    if (v > 1e38) discard;
    float q = clamp((v - range.x) / (range.y - range.x), 0.0, 1.0);
    if (steps > 0.0) q = (floor(q * steps) + 0.5) / steps;
    q = turned > 0.5 ? 1.0 - q : q;
    gl_FragColor = vec4(texture2D(colors, vec2(q * 255.0 / 256.0 + 0.5 / 256.0, 0.5)).rgb, opacity);
  }`;

export function fieldMaterial(): THREE.ShaderMaterial {
  return new THREE.ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    side: THREE.DoubleSide,
    transparent: true,
    uniforms: {
      field: { value: null },
      colors: { value: null },
      size: { value: new THREE.Vector2(1, 1) },
      range: { value: new THREE.Vector2(-1, 1) },
      turned: { value: 0 },
      steps: { value: 0 },
      whole: { value: 0 },
      opacity: { value: 1 },
    },
  });
}

// a value that is not there is greater than all others
const MIX_FRAGMENT = `
  precision highp float;
  uniform sampler2D field;
  uniform sampler2D second;
  uniform sampler2D third;
  uniform sampler2D fourth;
  ${MIXED}
  ${SAMPLED}
  void main() {
    vec4 v = vec4(sampled(field), sampled(second), sampled(third), strength > 0.0 ? sampled(fourth) : 0.0);
    if (max(max(v.x, v.y), max(v.z, v.w)) > 1e38) discard;
    gl_FragColor = vec4(mixed(v), 1.0);
  }`;

/** What draws fields that are mixed. */
export function mixMaterial(): THREE.ShaderMaterial {
  return new THREE.ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader: MIX_FRAGMENT,
    side: THREE.DoubleSide,
    transparent: true,
    uniforms: {
      field: { value: null },
      second: { value: null },
      third: { value: null },
      fourth: { value: null },
      size: { value: new THREE.Vector2(1, 1) },
      ...mixUniforms(),
    },
  });
}

// of two fields, weighed and added
const SUM_FRAGMENT = FRAGMENT.replace(
  'uniform sampler2D colors;',
  'uniform sampler2D second;\n  uniform vec2 weights;\n  uniform sampler2D colors;',
).replace(
  'float v = whole > 0.5 ? fetch(field, floor(at * (size - 1.0) + 0.5)) : sampled(field);',
  'float a = sampled(field);\n    float b = sampled(second);\n    float v = max(a, b) > 1e38 ? 3e38 : weights.x * a + weights.y * b;',
);

/** What draws two fields as one. */
export function sumMaterial(): THREE.ShaderMaterial {
  const material = fieldMaterial();
  material.fragmentShader = SUM_FRAGMENT;
  material.uniforms.second = { value: null };
  material.uniforms.weights = { value: new THREE.Vector2(1, 0) };
  return material;
}

export function setField(material: THREE.ShaderMaterial, texture: THREE.DataTexture): void {
  material.uniforms.field.value = texture;
  material.uniforms.size.value.set(texture.image.width, texture.image.height);
}

export function setLook(material: THREE.ShaderMaterial, look: FieldLook): void {
  const u = material.uniforms;
  u.colors.value = colorTexture(look.map);
  u.range.value.set(look.low, look.high === look.low ? look.low + 1 : look.high);
  u.turned.value = look.reverse ? 1 : 0;
  u.steps.value = look.steps ?? 0;
  u.whole.value = look.whole ? 1 : 0;
  u.opacity.value = look.opacity ?? 1;
}
