import { randomFor } from '../model/random.ts';
import { SURVEY } from '../model/survey.ts';
import { drawWavelets, FINE_MS, HALF, waveletAt } from './wavelet.ts';

/** A block of traces `[line][trace][sample]` of the survey's sample count. */
export interface Shape {
  lines: number;
  traces: number;
}

const NS = SURVEY.samples;

/** Full width of the image's lateral blur at a time (m): half a wavelength, 40 m near Tolven. */
function blurWidth(twtMs: number): number {
  return 14 + 26 * (twtMs / 1020);
}

/** Blur laterally as a migrated image is: a Gaussian whose width grows with time, along each direction in turn. */
export function blurLaterally(data: Float32Array, shape: Shape): Float32Array {
  const { lines, traces } = shape;
  const weights = new Float32Array(NS * 3);
  for (let k = 0; k < NS; k++) {
    const sigma = blurWidth(k * SURVEY.sampleMs) / 2.355 / SURVEY.binM;
    const g = [0, 1, 2].map((d) => Math.exp((-0.5 * d * d) / (sigma * sigma)));
    const sum = g[0] + 2 * g[1] + 2 * g[2];
    for (let d = 0; d < 3; d++) weights[k * 3 + d] = g[d] / sum;
  }
  const pass = (from: Float32Array, count: number, stride: number, others: number, otherStride: number) => {
    const to = new Float32Array(from.length);
    const at = (n: number) => Math.min(count - 1, Math.max(0, n)) * stride * NS;
    for (let o = 0; o < others; o++)
      for (let n = 0; n < count; n++) {
        const base = o * otherStride * NS;
        const c = base + at(n);
        const [l1, r1, l2, r2] = [base + at(n - 1), base + at(n + 1), base + at(n - 2), base + at(n + 2)];
        for (let k = 0; k < NS; k++)
          to[c + k] =
            weights[3 * k] * from[c + k] +
            weights[3 * k + 1] * (from[l1 + k] + from[r1 + k]) +
            weights[3 * k + 2] * (from[l2 + k] + from[r2 + k]);
      }
    return to;
  };
  return pass(pass(data, traces, 1, lines, traces), lines, traces, traces, 1);
}

/** Gaussian noise in the band of the signal, correlated from trace to trace; unit variance. */
export function bandNoise(seed: number, name: string, shape: Shape): Float32Array {
  const { lines, traces } = shape;
  const random = randomFor(seed, `noise ${name}`);
  const w = drawWavelets(seed)[1];
  const fine = waveletAt({ ...w, moveoutMs: 0, phaseDeg: 0 }, 1000, new Float64Array(2 * HALF + 1));
  const half = Math.floor((HALF * FINE_MS) / SURVEY.sampleMs);
  const filter = new Float32Array(2 * half + 1);
  for (let i = -half; i <= half; i++) filter[i + half] = fine[HALF + (i * SURVEY.sampleMs) / FINE_MS];
  const out = new Float32Array(lines * traces * NS);
  const white = new Float32Array(NS + 2 * half);
  for (let n = 0; n < lines * traces; n++) {
    for (let k = 0; k < white.length; k++) white[k] = random.normal();
    for (let k = 0; k < NS; k++) {
      let sum = 0;
      for (let i = 0; i <= 2 * half; i++) sum += filter[i] * white[k + i];
      out[n * NS + k] = sum;
    }
  }
  const mixed = mixNeighbours(mixNeighbours(out, traces, 1, lines, traces), lines, traces, traces, 1);
  let sum = 0;
  for (let i = 0; i < mixed.length; i++) sum += mixed[i] * mixed[i];
  const scale = 1 / Math.sqrt(sum / mixed.length);
  for (let i = 0; i < mixed.length; i++) mixed[i] *= scale;
  return mixed;
}

function mixNeighbours(from: Float32Array, count: number, stride: number, others: number, otherStride: number) {
  const to = new Float32Array(from.length);
  for (let o = 0; o < others; o++)
    for (let n = 0; n < count; n++) {
      const c = (o * otherStride + n * stride) * NS;
      const l = (o * otherStride + Math.max(0, n - 1) * stride) * NS;
      const r = (o * otherStride + Math.min(count - 1, n + 1) * stride) * NS;
      for (let k = 0; k < NS; k++) to[c + k] = from[c + k] + 0.6 * (from[l + k] + from[r + k]);
    }
  return to;
}

export function meanOf(stacks: Float32Array[]): Float32Array {
  const out = new Float32Array(stacks[0].length);
  for (const stack of stacks) for (let i = 0; i < out.length; i++) out[i] += stack[i] / stacks.length;
  return out;
}

/** Root mean square over a window that follows a time per trace. */
export function rmsAround(data: Float32Array, centreMs: Float32Array, halfMs: number): number {
  let sum = 0;
  let count = 0;
  for (let n = 0; n < centreMs.length; n++) {
    if (Number.isNaN(centreMs[n])) continue;
    const k0 = Math.max(0, Math.ceil((centreMs[n] - halfMs) / SURVEY.sampleMs));
    const k1 = Math.min(NS - 1, Math.floor((centreMs[n] + halfMs) / SURVEY.sampleMs));
    for (let k = k0; k <= k1; k++) {
      sum += data[n * NS + k] ** 2;
      count++;
    }
  }
  return Math.sqrt(sum / Math.max(1, count));
}

/** Power signal-to-noise of the full stack at Tolven and at the bottom of the record. */
export const SIGNAL_TO_NOISE = { tolven: 6, bottom: 2 };

/**
 * Add noise and footprint to the three clean stacks, in place. Half of each stack's noise is common to all three.
 * `tolvenMs` is the time of Tolven Top per trace (NaN where absent).
 */
export function addNoise(seed: number, stacks: Float32Array[], tolvenMs: Float32Array, shape: Shape): void {
  const clean = meanOf(stacks);
  const atTolven = rmsAround(clean, tolvenMs, 150) / Math.sqrt(SIGNAL_TO_NOISE.tolven);
  const bottom = new Float32Array(tolvenMs.length).fill(1650);
  const atBottom = rmsAround(clean, bottom, 150) / Math.sqrt(SIGNAL_TO_NOISE.bottom);
  let mean = 0;
  let n = 0;
  for (const t of tolvenMs)
    if (!Number.isNaN(t)) {
      mean += t;
      n++;
    }
  mean /= Math.max(1, n);
  // in the mean of three stacks, half common and half own noise has variance 1/2 + 1/6
  const whole = Math.sqrt(1 / 2 + 1 / 6);
  const level = new Float32Array(NS);
  for (let k = 0; k < NS; k++) {
    const f = (k * SURVEY.sampleMs - mean) / (1650 - mean);
    level[k] = Math.max(0.25 * atTolven, atTolven + f * (atBottom - atTolven)) / whole;
  }
  const add = (name: string, to: Float32Array[]) => {
    const noise = bandNoise(seed, name, shape);
    const part = Math.SQRT1_2;
    for (const stack of to)
      for (let i = 0, k = 0; i < stack.length; i++, k = k + 1 === NS ? 0 : k + 1)
        stack[i] += part * level[k] * noise[i];
  };
  add('common', stacks);
  stacks.forEach((stack, a) => {
    add(`stack ${a}`, [stack]);
  });
}

/** A weak acquisition footprint: stripes of gain along sail lines and shot lines that fade with time. */
export function addFootprint(stacks: Float32Array[], shape: Shape, inline0: number, crossline0: number): void {
  for (let i = 0; i < shape.lines; i++)
    for (let j = 0; j < shape.traces; j++) {
      const stripe =
        0.07 * Math.cos((2 * Math.PI * (i + inline0)) / 8) + 0.04 * Math.cos((2 * Math.PI * (j + crossline0)) / 12.5);
      const base = (i * shape.traces + j) * NS;
      for (const stack of stacks)
        for (let k = 0; k < NS; k++) stack[base + k] *= 1 + stripe * Math.exp((-k * SURVEY.sampleMs) / 500);
    }
}
