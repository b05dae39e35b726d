import { HEAP_BASE, type Kernels, reserve } from './load.ts';

/** Samples taken through a kernel at a time: they stay in the processor's own cache. */
const BLOCK = 1 << 14;

/** 16^(e − 64) / 2^24 for every exponent of an IBM float. */
const IBM_SCALE = Float64Array.from({ length: 128 }, (_, e) => 16 ** (e - 64) / 16777216);

/** A word with its bytes turned round; signed, which is what an engine keeps in a register. */
const turned = (w: number) => ((w & 0xff) << 24) | ((w & 0xff00) << 8) | ((w >>> 8) & 0xff00) | (w >>> 24);

/** Words of IEEE floats, bytes turned round where the file's order is the other, into `out[at…]`, bit for bit. */
export function floatsOf(kernels: Kernels, words: Int32Array, turn: boolean, out: Float32Array, at: number): void {
  const bits = new Int32Array(out.buffer, out.byteOffset + 4 * at, words.length);
  if (!turn) bits.set(words);
  else throughBlocks(kernels, words, bits, (from, to, count) => kernels.turnFloats(from, to, count));
}

/** Words of IBM floats to the nearest float32, into `out[at…]`; what is too large becomes an infinity. */
export function ibmOf(kernels: Kernels, words: Int32Array, turn: boolean, out: Float32Array, at: number): void {
  const bits = new Int32Array(out.buffer, out.byteOffset + 4 * at, words.length);
  let outside = 0;
  throughBlocks(kernels, words, bits, (from, to, count) => {
    outside += kernels.ibmFloats(from, to, count, turn ? 1 : 0);
  });
  if (outside > 0) ibmTwin(words, turn, out, at);
}

/** The same in plain TypeScript, by way of doubles: what the kernel is held to, and what rounds what it cannot. */
export function ibmTwin(words: Int32Array, turn: boolean, out: Float32Array, at: number): void {
  for (let k = 0; k < words.length; k++) {
    const word = turn ? turned(words[k]) : words[k];
    const value = (word & 0xffffff) * IBM_SCALE[(word >>> 24) & 0x7f];
    out[at + k] = word < 0 ? -value : value;
  }
}

function throughBlocks(
  kernels: Kernels,
  words: Int32Array,
  out: Int32Array,
  run: (from: number, to: number, count: number) => void,
): void {
  const toAt = HEAP_BASE + 4 * BLOCK;
  reserve(kernels, toAt + 4 * BLOCK);
  const [from, to] = [HEAP_BASE, toAt].map((at) => new Int32Array(kernels.memory.buffer, at, BLOCK));
  for (let k = 0; k < words.length; k += BLOCK) {
    const count = Math.min(BLOCK, words.length - k);
    from.set(count === words.length ? words : words.subarray(k, k + count));
    // zeros past the end, for the last whole four
    const whole = (count + 3) & ~3;
    from.fill(0, count, whole);
    run(HEAP_BASE, toAt, whole);
    out.set(to.subarray(0, count), k);
  }
}

/** Mix whole fours of words into four running words, as a hash does: `x ← rotate(x ^ word, 13 + 2·lane) · prime`. */
export function mixWords(kernels: Kernels, state: Int32Array, data: Uint32Array): void {
  const stateAt = HEAP_BASE + 4 * BLOCK;
  reserve(kernels, stateAt + 16);
  const block = new Uint32Array(kernels.memory.buffer, HEAP_BASE, BLOCK);
  const running = new Int32Array(kernels.memory.buffer, stateAt, 4);
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
    const lane = n & 3;
    state[lane] = Math.imul(rotate(state[lane] ^ data[n], 13 + 2 * lane), primes[lane]);
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
