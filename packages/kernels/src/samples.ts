import { HEAP_BASE, type Kernels, reserve } from './load.ts';

/** Samples taken through a kernel at a time: they stay in the processor's own cache. */
const BLOCK = 1 << 14;

/** 16^(e − 64) / 2^24 for every exponent of an IBM float. */
const IBM_SCALE = Float64Array.from({ length: 128 }, (_, e) => 16 ** (e - 64) / 16777216);

/** A word with its bytes turned round; signed, which is what an engine keeps in a register. */
const turned = (w: number) => ((w & 0xff) << 24) | ((w & 0xff00) << 8) | ((w >>> 8) & 0xff00) | (w >>> 24);

/** Traces in a block of a file: `traces` of them `stride` words apart, `count` samples each. */
export interface TraceRun {
  traces: number;
  stride: number;
  count: number;
}

/**
 * Traces of IEEE floats, bytes turned round where the file's order is the other, laid one after the other into
 * `out[at…]`, bit for bit. `words` begins at the first trace's first sample.
 */
export function floatsOf(
  kernels: Kernels,
  words: Int32Array,
  run: TraceRun,
  turn: boolean,
  out: Float32Array,
  at: number,
): void {
  const bits = new Int32Array(out.buffer, out.byteOffset + 4 * at, run.traces * run.count);
  if (turn)
    throughBlocks(kernels, words, run, bits, (f, t, n) => kernels.turnTraces(f, t, n.traces, n.stride, n.count));
  else
    for (let t = 0; t < run.traces; t++)
      bits.set(words.subarray(t * run.stride, t * run.stride + run.count), t * run.count);
}

/** Traces of IBM floats to the nearest float32, laid out as `floatsOf` does; what is too large becomes an infinity. */
export function ibmOf(
  kernels: Kernels,
  words: Int32Array,
  run: TraceRun,
  turn: boolean,
  out: Float32Array,
  at: number,
): void {
  const bits = new Int32Array(out.buffer, out.byteOffset + 4 * at, run.traces * run.count);
  let outside = 0;
  throughBlocks(kernels, words, run, bits, (f, t, n) => {
    outside += kernels.ibmTraces(f, t, n.traces, n.stride, n.count, turn ? 1 : 0);
  });
  if (outside > 0)
    for (let t = 0; t < run.traces; t++)
      ibmTwin(words.subarray(t * run.stride, t * run.stride + run.count), turn, out, at + t * run.count);
}

/** The same in plain TypeScript, by way of doubles: what the kernel is held to, and what rounds what it cannot. */
export function ibmTwin(words: Int32Array, turn: boolean, out: Float32Array, at: number): void {
  for (let k = 0; k < words.length; k++) {
    const word = turn ? turned(words[k]) : words[k];
    const value = (word & 0xffffff) * IBM_SCALE[(word >>> 24) & 0x7f];
    out[at + k] = word < 0 ? -value : value;
  }
}

/** Take traces through the kernels' memory, as many whole ones at a time as a block holds, or parts of a long one. */
function throughBlocks(
  kernels: Kernels,
  words: Int32Array,
  { traces, stride, count }: TraceRun,
  out: Int32Array,
  run: (from: number, to: number, part: TraceRun) => void,
): void {
  // a last four may run over the end on both sides
  const toAt = HEAP_BASE + 4 * (BLOCK + 4);
  reserve(kernels, toAt + 4 * (BLOCK + 4));
  const [from, to] = [HEAP_BASE, toAt].map((at) => new Int32Array(kernels.memory.buffer, at, BLOCK + 4));
  const take = (first: number, part: TraceRun, at: number) => {
    const span = (part.traces - 1) * stride + part.count;
    from.set(words.subarray(first, first + span));
    // no sample of an earlier block is taken for one of this
    from.fill(0, span, span + 4);
    run(HEAP_BASE, toAt, part);
    out.set(to.subarray(0, part.traces * part.count), at);
  };
  const whole = Math.max(1, Math.floor(BLOCK / stride));
  for (let t = 0; t < traces; t += whole)
    if (count <= BLOCK) take(t * stride, { traces: Math.min(whole, traces - t), stride, count }, t * count);
    else
      for (let k = 0; k < count; k += BLOCK)
        take(t * stride + k, { traces: 1, stride, count: Math.min(BLOCK, count - k) }, t * count + k);
}

/** Words that are mixed side by side. */
export const LANES = 16;

/**
 * Mix whole sixteens of words into sixteen running words, as a hash does: `x ← rotate(x ^ word, 13 + 2·(lane mod 4)) ·
 * prime`.
 */
export function mixWords(kernels: Kernels, state: Int32Array, data: Uint32Array): void {
  const stateAt = HEAP_BASE + 4 * BLOCK;
  reserve(kernels, stateAt + 4 * LANES);
  const block = new Uint32Array(kernels.memory.buffer, HEAP_BASE, BLOCK);
  const running = new Int32Array(kernels.memory.buffer, stateAt, LANES);
  running.set(state);
  for (let n = 0; n < data.length; n += BLOCK) {
    const count = Math.min(BLOCK, data.length - n);
    block.set(data.subarray(n, n + count));
    kernels.mixWords(HEAP_BASE, count, stateAt);
  }
  state.set(running);
}

/** The same in plain TypeScript. */
export function mixWordsTwin(state: Int32Array, data: Uint32Array): void {
  const rotate = (x: number, n: number) => (x << n) | (x >>> (32 - n));
  const primes = [0x85ebca77, 0xc2b2ae3d, 0x27d4eb2f, 0x165667b1];
  for (let n = 0; n < data.length; n++) {
    const lane = n % LANES;
    state[lane] = Math.imul(rotate(state[lane] ^ data[n], 13 + 2 * (lane & 3)), primes[lane & 3]);
  }
}

/** What a part of a volume adds up to. */
export interface Sums {
  /** Samples that are finite. */
  count: number;
  /** Samples that are not there; infinities count as neither. */
  nulls: number;
  sum: number;
  squares: number;
  min: number;
  max: number;
}

/** Sums over samples by the compiled kernel. */
export function sums(kernels: Kernels, data: Float32Array): Sums {
  const outAt = HEAP_BASE + 4 * BLOCK;
  reserve(kernels, outAt + 48);
  const block = new Float32Array(kernels.memory.buffer, HEAP_BASE, BLOCK);
  const found = new Float64Array(kernels.memory.buffer, outAt, 6);
  const all: Sums = {
    count: 0,
    nulls: 0,
    sum: 0,
    squares: 0,
    min: Number.POSITIVE_INFINITY,
    max: Number.NEGATIVE_INFINITY,
  };
  for (let k = 0; k < data.length; k += BLOCK) {
    const count = Math.min(BLOCK, data.length - k);
    block.set(data.subarray(k, k + count));
    const whole = (count + 3) & ~3;
    // an infinity counts as nothing
    block.fill(Number.POSITIVE_INFINITY, count, whole);
    kernels.sums(HEAP_BASE, whole, outAt);
    all.count += found[0];
    all.nulls += found[1];
    all.sum += found[2];
    all.squares += found[3];
    all.min = Math.min(all.min, found[4]);
    all.max = Math.max(all.max, found[5]);
  }
  return all;
}

/** Traces of one inline in pieces `thick` samples tall, `[piece][traces][thick]`. */
export interface CutLine {
  /** A view of the kernels' memory that lasts until the next line; past the last sample it holds NaN. */
  pieces: Float32Array;
  /** Floats in a piece. */
  length: number;
}

/** Cut an inline `[traces][samples]` into pieces for slices, by the compiled kernel. */
export function cutSlices(kernels: Kernels, line: Float32Array, traces: number, thick: number): CutLine {
  const samples = line.length / traces;
  const toAt = (HEAP_BASE + line.byteLength + 15) & ~15;
  const length = traces * thick;
  const total = Math.ceil(samples / thick) * length;
  reserve(kernels, toAt + 4 * total);
  new Float32Array(kernels.memory.buffer, HEAP_BASE, line.length).set(line);
  const pieces = new Float32Array(kernels.memory.buffer, toAt, total);
  if (samples % thick !== 0) pieces.fill(Number.NaN, total - length);
  kernels.cutSlices(HEAP_BASE, toAt, traces, samples, thick);
  return { pieces, length };
}
