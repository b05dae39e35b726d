import { BYTES } from './generated/bytes.ts';

/** The compiled kernels with a memory of their own. Offsets are bytes. */
export interface Kernels {
  memory: WebAssembly.Memory;
  liveSamples(at: number, count: number): number;
  withoutNulls(at: number, mask: number, count: number): void;
  rowCounts(masks: number, traces: number, samples: number, radius: number, out: number): void;
  rowSums(data: number, traces: number, samples: number, radius: number, sums: number, squares: number): void;
  slidingRatio(
    sums: number,
    squares: number,
    counts: number,
    sampleCounts: number,
    scratch: number,
    out: number,
    traces: number,
    samples: number,
    lines: number,
    first: number,
    half: number,
    from: number,
    count: number,
  ): void;
  turnTraces(from: number, to: number, traces: number, stride: number, count: number): void;
  ibmTraces(from: number, to: number, traces: number, stride: number, count: number, turn: number): number;
  sums(at: number, count: number, out: number): void;
  mixWords(at: number, count: number, state: number): void;
  cutSlices(from: number, to: number, traces: number, samples: number, thick: number): void;
  weigh(from: number, to: number, length: number, stride: number, weights: number, count: number): void;
  products(x: number, y: number, z: number, out: number, length: number): void;
  normals(tensors: number, p: number, q: number, chaos: number, length: number, row: number): void;
  moved(from: number, p: number, q: number, di: number, dj: number, to: number, count: number): void;
  foldRows(rows: number, count: number, samples: number, sums: number, squares: number, live: number): void;
  pairProducts(rows: number, count: number, samples: number, out: number): void;
  firstPart(
    pairs: number,
    count: number,
    samples: number,
    from: number,
    wanted: number,
    scratch: number,
    out: number,
  ): void;
  medianRows(rows: number, count: number, samples: number, out: number): void;
  calmest(rows: number, samples: number, sets: number, count: number, size: number, out: number): void;
  diffuse(u: number, rows: number, count: number, samples: number, trust: number, rate: number, to: number): void;
  slantedMeans(
    image: number,
    stride: number,
    rows: number,
    width: number,
    slope: number,
    first: number,
    half: number,
    low: number,
    high: number,
    wide: number,
    scratch: number,
    out: number,
    outStride: number,
  ): void;
  keepBest(values: number, best: number, which: number, number: number, count: number): void;
  fieldPicture(
    data: number,
    rows: number,
    samples: number,
    out: number,
    scratch: number,
    width: number,
    height: number,
    k0: number,
    kx: number,
    ky: number,
    r0: number,
    rx: number,
    ry: number,
    colors: number,
    count: number,
    low: number,
    scale: number,
  ): void;
  pathRow(
    rings: number,
    ways: number,
    i: number,
    low: number,
    high: number,
    stride: number,
    steps: number,
    count: number,
    endSample: number,
    gapOpen: number,
    gapSample: number,
    start: number,
  ): void;
}

/** Bytes below this belong to the module itself. */
export const HEAP_BASE = 1024;

let module: WebAssembly.Module | null = null;

/** Instantiate the kernels; compiled once a thread. */
export function loadKernels(): Kernels {
  module ??= new WebAssembly.Module(Uint8Array.from(atob(BYTES), (ch) => ch.charCodeAt(0)));
  const memory = new WebAssembly.Memory({ initial: 2, maximum: 65536 });
  const instance = new WebAssembly.Instance(module, {
    env: {
      memory,
      abort: () => {
        throw new Error('a kernel stopped');
      },
    },
  });
  return { ...(instance.exports as unknown as Omit<Kernels, 'memory'>), memory };
}

let own: Kernels | null = null;

/** The thread's own kernels, for work that leaves nothing in their memory from one call to the next. */
export function threadKernels(): Kernels {
  own ??= loadKernels();
  return own;
}

/** Make sure that a kernel memory has at least `bytes`. */
export function reserve(kernels: Kernels, bytes: number): void {
  const short = bytes - kernels.memory.buffer.byteLength;
  if (short > 0) kernels.memory.grow(Math.ceil(short / 65536));
}
