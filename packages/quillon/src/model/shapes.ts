import type { Random } from './random.ts';

/** A smooth function of the survey's own coordinates `u` (along inlines) and `v` (across them), both in metres. */
export type Field = (u: number, v: number) => number;

/** A sum of plane waves with random azimuths and phases; standard deviation about `amplitude`. */
export function wavyField(random: Random, amplitude: number, shortestM: number, longestM: number, terms = 7): Field {
  const ku = new Float64Array(terms);
  const kv = new Float64Array(terms);
  const phase = new Float64Array(terms);
  for (let n = 0; n < terms; n++) {
    const k = (2 * Math.PI) / random.between(shortestM, longestM);
    const azimuth = random.between(0, Math.PI);
    ku[n] = k * Math.cos(azimuth);
    kv[n] = k * Math.sin(azimuth);
    phase[n] = random.between(0, 2 * Math.PI);
  }
  const scale = amplitude * Math.sqrt(2 / terms);
  return (u, v) => {
    let sum = 0;
    for (let n = 0; n < terms; n++) sum += Math.cos(ku[n] * u + kv[n] * v + phase[n]);
    return scale * sum;
  };
}

/** A Gaussian bump of height 1. */
export function bump(du: number, dv: number, su: number, sv: number): number {
  return Math.exp(-0.5 * ((du / su) ** 2 + (dv / sv) ** 2));
}

/** 0 below `lo`, 1 above `hi`, with continuous slope between. */
export function ramp(x: number, lo: number, hi: number): number {
  const t = Math.min(1, Math.max(0, (x - lo) / (hi - lo)));
  return t * t * (3 - 2 * t);
}

/** A smooth max(0, x): rounds the corner over about `width`. */
export function softPlus(x: number, width: number): number {
  const q = x / width;
  return q > 30 ? x : width * Math.log1p(Math.exp(q));
}
