import { latticeTrace, type Regional } from '../attributes/regional.ts';
import { makeBarrier } from '../faults/barrier.ts';
import type { Shape3 } from '../numerics/block.ts';
import { type AgeGiven, crossingsOf, nodesOf, type Thinning } from './problem.ts';
import type { AgeProblem } from './solve.ts';

/** What lies between nodes: where faults and unconformities part samples from the nodes around them. */
export interface Parted {
  shape: Shape3;
  thin: Thinning;
  /** Cells between eight nodes through which a fault or an unconformity goes, by their first node. */
  cells: Uint8Array;
  /** Steps from bin to bin that a fault forbids, at the level of every node; null where none does. */
  edges: (Uint8Array | null)[];
  /** Samples at which faults cross the trace of each bin: those of bin `n` from `first[n]` to `first[n + 1]`. */
  first: Int32Array;
  crossings: Float32Array;
  /** Unconformities, in samples, on the bins. */
  unconformities: Float32Array[];
  dips: Pick<Regional, 'cell' | 'size' | 'p' | 'q'>;
}

export function partedOf(given: AgeGiven, thin: Thinning, problem: AgeProblem): Parted {
  const { binGrid, shape, first, step, faults, regional } = given;
  const nodes = nodesOf(shape, thin);
  const [ni, nj, nk] = nodes;
  const { cuts, layer } = problem;
  const cells = new Uint8Array(cuts.length);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++)
      for (let k = 0; k < nk; k++) {
        const own = (i * nj + j) * nk + k;
        const [di, dj, dk] = [i + 1 < ni ? nj * nk : 0, j + 1 < nj ? nk : 0, k + 1 < nk ? 1 : 0];
        let cut = 0;
        for (const d of [0, dj, dk, dj + dk]) cut |= cuts[own + d] & 1;
        for (const d of [0, di, dk, di + dk]) cut |= cuts[own + d] & 2;
        for (const d of [0, di, dj, di + dj]) {
          cut |= cuts[own + d] & 4;
          if (layer[own + d] !== layer[own] || layer[own + d + dk] !== layer[own]) cut = 8;
        }
        if (cut) cells[own] = 1;
      }
  const spacing = step * thin[2];
  const edges: Parted['edges'] =
    faults.length > 0
      ? makeBarrier(binGrid, faults, first, first + (nk - 0.5) * spacing, spacing).levels.map((level) =>
          level.some((v) => v > 0) ? level : null,
        )
      : Array.from({ length: nk }, () => null);
  const crossed = crossingsOf(binGrid, faults, first, step);
  const from = new Int32Array(crossed.length + 1);
  for (let n = 0; n < crossed.length; n++) from[n + 1] = from[n] + crossed[n].length;
  return {
    shape,
    thin,
    cells,
    edges,
    first: from,
    crossings: Float32Array.from(crossed.flat()),
    unconformities: given.unconformities.map(({ values }) => values.map((v) => (v - first) / step)),
    dips: { cell: regional.cell, size: regional.size, p: regional.p, q: regional.q },
  };
}

/** The number of the unconformity above a sample of a bin. */
function layerAt({ unconformities }: Parted, bin: number, k: number): number {
  let layer = 0;
  for (const surface of unconformities) if (k >= surface[bin]) layer++;
  return layer;
}

/** Whether a fault crosses the trace of a bin between two samples. */
function crossedBetween({ first, crossings }: Parted, bin: number, a: number, b: number): boolean {
  const [low, high] = a < b ? [a, b] : [b, a];
  for (let n = first[bin]; n < first[bin + 1]; n++) if (crossings[n] >= low && crossings[n] < high) return true;
  return false;
}

/** Whether one can go from a bin to another at a level without crossing a fault: first along one count, then along the other. */
function reaches(edges: Uint8Array, columns: number, i: number, j: number, ti: number, tj: number): boolean {
  const alongI = (row: number, column: number, to: number) => {
    for (let n = Math.min(row, to); n < Math.max(row, to); n++) if (edges[n * columns + column] & 1) return false;
    return true;
  };
  const alongJ = (row: number, column: number, to: number) => {
    for (let n = Math.min(column, to); n < Math.max(column, to); n++) if (edges[row * columns + n] & 2) return false;
    return true;
  };
  return (alongI(i, j, ti) && alongJ(ti, j, tj)) || (alongJ(i, j, tj) && alongI(i, tj, ti));
}

/**
 * Values down a trace from those on nodes: by straight lines between the eight around a sample; beside a fault or an unconformity
 * from those on the same side alone, carried to the sample along the dips of the beds.
 * @param out values of `count` samples from `k0`, from its index `at`
 */
export function betweenNodes(
  values: Float32Array,
  parted: Parted,
  i: number,
  j: number,
  k0: number,
  out: Float32Array,
  at: number,
  count: number,
): void {
  const { thin, shape } = parted;
  const [ni, nj, nk] = nodesOf(shape, thin);
  const columns = shape[1];
  const place = (n: number, axis: number, nodes: number): [number, number] => {
    const x = n / thin[axis];
    const low = Math.max(0, Math.min(nodes - 2, Math.floor(x)));
    return [low, nodes > 1 ? x - low : 0];
  };
  const [a, fa] = place(i, 0, ni);
  const [b, fb] = place(j, 1, nj);
  const rows = [0, 1, 2, 3].map((n) => {
    const [da, db] = [Math.min(ni - 1, a + (n >> 1)), Math.min(nj - 1, b + (n & 1))];
    return {
      at: (da * nj + db) * nk,
      w: (n >> 1 ? fa : 1 - fa) * (n & 1 ? fb : 1 - fb),
      i: da * thin[0],
      j: db * thin[1],
    };
  });
  const cellRow = (a * nj + b) * nk;
  let dips: [Float32Array, Float32Array] | null = null;
  const dipsHere = () => {
    if (dips) return dips;
    dips = [new Float32Array(count), new Float32Array(count)];
    latticeTrace(parted.dips.p, parted.dips, i, j, k0, dips[0]);
    latticeTrace(parted.dips.q, parted.dips, i, j, k0, dips[1]);
    return dips;
  };
  /** The value on the trace of a node at a sample that lies on one side with it; NaN where no node does. */
  const along = (row: number, bin: number, k: number, from: number, layer: number): number => {
    const usable = (c: number) =>
      c >= 0 &&
      c < nk &&
      !crossedBetween(parted, bin, from, c * thin[2]) &&
      layerAt(parted, bin, c * thin[2]) === layer;
    const x = k / thin[2];
    const c = Math.max(0, Math.min(nk - 2, Math.floor(x)));
    const [up, down] = [usable(c), usable(c + 1)];
    if (up && down) return values[row + c] + (x - c) * (values[row + c + 1] - values[row + c]);
    // from one side alone, on by what it rises by there
    if (up) {
      const rise = usable(c - 1) ? values[row + c] - values[row + c - 1] : Number.NaN;
      return rise === rise ? values[row + c] + (x - c) * rise : Number.NaN;
    }
    if (down) {
      const rise = usable(c + 2) ? values[row + c + 2] - values[row + c + 1] : Number.NaN;
      return rise === rise ? values[row + c + 1] + (x - c - 1) * rise : Number.NaN;
    }
    return Number.NaN;
  };
  for (let n = 0; n < count; n++) {
    const k = k0 + n;
    const [c, fc] = place(k, 2, nk);
    const next = Math.min(nk - 1, c + 1);
    let sum = 0;
    for (const { at: row, w } of rows) if (w !== 0) sum += w * ((1 - fc) * values[row + c] + fc * values[row + next]);
    if (parted.cells[cellRow + c]) {
      const [p, q] = dipsHere();
      const layer = layerAt(parted, i * columns + j, k);
      const edges = parted.edges[Math.min(nk - 1, Math.round(k / thin[2]))];
      let [own, weight] = [0, 0];
      for (const row of rows) {
        if (row.w === 0) continue;
        if (edges && !reaches(edges, columns, i, j, row.i, row.j)) continue;
        const bed = k + p[n] * (row.i - i) + q[n] * (row.j - j);
        const v = along(row.at, row.i * columns + row.j, bed, k, layer);
        if (v !== v) continue;
        own += row.w * v;
        weight += row.w;
      }
      if (weight > 0) sum = own / weight;
    }
    out[at + n] = sum;
  }
}
