import * as THREE from 'three';

/** More fields of one shape, with which the first makes a colour: a primary for each, the fourth as shade. */
export interface Mix {
  /** The second and third, and the shade where there is one. */
  more: Float32Array[];
  /** Where each is absent and full, the first field included. */
  ends: { from: number; to: number }[];
  /** What each of three gives to red, green and blue, `[channel][primary]`. */
  primaries: readonly number[];
  /** How dark the shade makes what is nought in it, 0 to 1. */
  strength: number;
  /** Colours, as parts of the three, that stand out against all that lie further than `reach` from them. */
  lit: { at: [number, number, number]; reach: number } | null;
}

/** How much of its colour keeps what is not lit. */
export const PALE = 0.22;
/** What it pales to. */
export const PALE_TO = 0.86;

/** What a mix is besides its samples: a change of it draws again and computes nothing. */
export const mixKey = ({ more: _, ...rest }: Mix): string => JSON.stringify(rest);

/** In a shader: the colour of values of the four channels, as `setMix` has set it. */
export const MIXED = `
  uniform vec2 ends[4];
  uniform vec3 primaries[3];
  uniform float strength;
  uniform vec4 lit;
  float part(float v, vec2 e) {
    return clamp((v - e.x) / (e.y - e.x), 0.0, 1.0);
  }
  vec3 mixed(vec4 v) {
    vec3 q = vec3(part(v.x, ends[0]), part(v.y, ends[1]), part(v.z, ends[2]));
    float light = strength > 0.0 ? 1.0 - strength * (1.0 - part(v.w, ends[3])) : 1.0;
    vec3 color = light * (q.x * primaries[0] + q.y * primaries[1] + q.z * primaries[2]);
    vec3 off = abs(q - lit.xyz);
    if (lit.w > 0.0 && max(off.x, max(off.y, off.z)) > lit.w) color = mix(vec3(${PALE_TO}), color, ${PALE});
    return color;
  }`;

/** What such a shader is set with. */
export const mixUniforms = () => ({
  ends: { value: [0, 1, 2, 3].map(() => new THREE.Vector2(0, 1)) },
  primaries: { value: [0, 1, 2].map(() => new THREE.Vector3()) },
  strength: { value: 0 },
  lit: { value: new THREE.Vector4() },
});

/** All of a mix but its samples. */
export function setMix(material: THREE.ShaderMaterial, { more, ends, primaries, strength, lit }: Mix): void {
  const u = material.uniforms;
  // ends that are one value are a step there
  for (const [n, { from, to }] of ends.entries()) u.ends.value[n].set(from, from === to ? to + 1e-6 : to);
  for (let n = 0; n < 3; n++) u.primaries.value[n].set(...primaries.slice(3 * n, 3 * n + 3));
  u.strength.value = more.length > 2 ? strength : 0;
  u.lit.value.set(...(lit?.at ?? [0, 0, 0]), lit?.reach ?? 0);
}
