import { latticeAt, latticeTrace, type Regional } from '../attributes/regional.ts';
import { type BinGrid, toIndex } from '../earth/binGrid.ts';
import { makeBarrier } from '../faults/barrier.ts';
import type { Mesh } from '../faults/surface.ts';
import type { Shape3 } from '../numerics/block.ts';
import type { AgeProblem, Links } from './solve.ts';

/** A surface on the bins of the volume, `[inline][crossline]`, in TWT or depth; NaN where there is none. */
export interface AgeSurface {
  values: Float32Array;
  /** Its age, where it is of one; an unconformity has none. */
  age?: number;
}

/** What ages are solved from, before nodes are chosen. */
export interface AgeGiven {
  binGrid: BinGrid;
  shape: Shape3;
  /** TWT or depth of the first sample, and from one to the next. */
  first: number;
  step: number;
  regional: Regional;
  horizons: AgeSurface[];
  unconformities: AgeSurface[];
  faults: Mesh[];
  throws?: AgeThrow[];
  kept?: KeptAges;
}

/** Ages of an earlier solution that stay as they are down to a surface. */
export interface KeptAges {
  /** On the nodes of the finest thinning; NaN where there is none. */
  ages: Float32Array;
  thin: Thinning;
  /** The surface, in TWT or depth, on the bins; NaN where nothing is kept. */
  above: Float32Array;
}

/** The kept ages at the nodes of a thinning that the finest divides, NaN where nothing is kept. */
export function keptAt({ shape, first, step }: AgeGiven, kept: KeptAges, thin: Thinning): Float32Array {
  const [ni, nj, nk] = nodesOf(shape, thin);
  const [, fj, fk] = nodesOf(shape, kept.thin);
  const by = thin.map((t, axis) => t / kept.thin[axis]);
  const out = new Float32Array(ni * nj * nk).fill(Number.NaN);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const deepest = kept.above[i * thin[0] * shape[1] + j * thin[1]];
      for (let k = 0; k < nk && first + k * thin[2] * step <= deepest; k++)
        out[(i * nj + j) * nk + k] = kept.ages[(i * by[0] * fj + j * by[1]) * fk + k * by[2]];
    }
  return out;
}

/** Throw over a fault, in samples of the volume: what it says lies at one age on its two sides. */
export interface AgeThrow {
  rows: number;
  levels: number;
  /** Bins and samples of each place, `[row][level][3]`. */
  places: Float32Array;
  /** Bins from each place into the hanging wall, of the length of one bin, `[row][level][2]`. */
  towards: Float32Array;
  /** Samples by which the hanging wall lies deeper; NaN where it is not known. */
  values: Float32Array;
  match: Float32Array;
}

/** Nodes at every so many lines, traces and samples. */
export type Thinning = Shape3;

export const nodesOf = (shape: Shape3, thin: Thinning): Shape3 =>
  shape.map((n, axis) => Math.floor((n - 1) / thin[axis]) + 1) as Shape3;

/** Samples, as parts of nodes, at which a surface of triangles crosses each trace: `[trace]`, from the top down. */
export function crossingsOf(grid: BinGrid, meshes: Mesh[], first: number, step: number): number[][] {
  const [ni, nj] = [grid.inline.count, grid.crossline.count];
  const out: number[][] = Array.from({ length: ni * nj }, () => []);
  for (const { points, triangles } of meshes) {
    const at = new Float64Array(points.length);
    for (let n = 0; n < points.length; n += 3) {
      const [i, j] = toIndex(grid, points[n], points[n + 1]);
      at.set([i, j, (points[n + 2] - first) / step], n);
    }
    for (let t = 0; t < triangles.length; t += 3) {
      const [a, b, c] = [triangles[t], triangles[t + 1], triangles[t + 2]].map((v) => 3 * v);
      const is = [at[a], at[b], at[c]];
      const js = [at[a + 1], at[b + 1], at[c + 1]];
      const det = (is[1] - is[0]) * (js[2] - js[0]) - (is[2] - is[0]) * (js[1] - js[0]);
      if (Math.abs(det) < 1e-12) continue;
      for (let i = Math.max(0, Math.ceil(Math.min(...is))); i <= Math.min(ni - 1, Math.floor(Math.max(...is))); i++)
        for (let j = Math.max(0, Math.ceil(Math.min(...js))); j <= Math.min(nj - 1, Math.floor(Math.max(...js))); j++) {
          const u = ((i - is[0]) * (js[2] - js[0]) - (is[2] - is[0]) * (j - js[0])) / det;
          const v = ((is[1] - is[0]) * (j - js[0]) - (i - is[0]) * (js[1] - js[0])) / det;
          if (u < -1e-9 || v < -1e-9 || u + v > 1 + 1e-9) continue;
          out[i * nj + j].push(at[a + 2] + u * (at[b + 2] - at[a + 2]) + v * (at[c + 2] - at[a + 2]));
        }
    }
  }
  for (const trace of out) trace.sort((a, b) => a - b);
  return out;
}

/** Bins beside a fault whose dips are those of beds further out: the window of their own reaches across it. */
const BESIDE = 5;
/** Samples above and below an unconformity of which the same is true. */
const BELOW = 10;

/** The problem on nodes at a thinning. */
export function problemAt(given: AgeGiven, thin: Thinning): AgeProblem {
  const { binGrid, shape, first, step, regional } = given;
  const nodes = nodesOf(shape, thin);
  const [ni, nj, nk] = nodes;
  const size = ni * nj * nk;
  const scaled = (v: [number, number], by: number): [number, number] => [v[0] * by, v[1] * by];
  const grid: BinGrid = {
    ...binGrid,
    inline: { ...binGrid.inline, step: binGrid.inline.step * thin[0], count: ni },
    crossline: { ...binGrid.crossline, step: binGrid.crossline.step * thin[1], count: nj },
    perInline: scaled(binGrid.perInline, thin[0]),
    perCrossline: scaled(binGrid.perCrossline, thin[1]),
  };
  const spacing = step * thin[2];
  const problem: AgeProblem = {
    shape: nodes,
    p: new Float32Array(size),
    q: new Float32Array(size),
    trust: new Float32Array(size),
    cuts: new Uint8Array(size),
    layer: new Uint8Array(size),
    known: { node: new Int32Array(0), part: new Float32Array(0), value: new Float32Array(0) },
    links: linksOf(given, thin, nodes),
    step: spacing,
  };
  const line = new Float32Array(shape[2]);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const own = (i * nj + j) * nk;
      for (const [values, to, by] of [
        [regional.p, problem.p, thin[0] / thin[2]],
        [regional.q, problem.q, thin[1] / thin[2]],
        [regional.plane, problem.trust, 1],
      ] as const) {
        latticeTrace(values, regional, i * thin[0], j * thin[1], 0, line);
        for (let k = 0; k < nk; k++) to[own + k] = by * line[k * thin[2]];
      }
      for (let k = 0; k < nk; k++) problem.trust[own + k] = Math.max(0.02, problem.trust[own + k] ** 2);
    }
  if (given.faults.length > 0) {
    const barrier = makeBarrier(grid, given.faults, first, first + (nk - 1) * spacing + 0.5 * spacing, spacing);
    for (let k = 0; k < nk; k++) {
      const edges = barrier.levels[k];
      if (!edges) continue;
      for (let t = 0; t < ni * nj; t++) if (edges[t]) problem.cuts[t * nk + k] |= edges[t];
    }
    const crossings = crossingsOf(grid, given.faults, first, spacing);
    for (let t = 0; t < crossings.length; t++)
      for (const k of crossings[t]) {
        const low = Math.floor(k);
        if (low >= 0 && low < nk - 1) problem.cuts[t * nk + low] |= 4;
      }
    carryDips(problem, Math.max(1, Math.round(BESIDE / Math.max(thin[0], thin[1]))));
  }
  const at = (surface: AgeSurface, i: number, j: number) =>
    (surface.values[i * thin[0] * shape[1] + j * thin[1]] - first) / spacing;
  for (const surface of given.unconformities)
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++) {
        const k = at(surface, i, j);
        if (Number.isNaN(k)) continue;
        for (let n = Math.max(0, Math.ceil(k)); n < nk; n++) problem.layer[(i * nj + j) * nk + n]++;
      }
  if (given.unconformities.length > 0) carryDown(problem, Math.max(1, Math.round(BELOW / thin[2])));
  const [node, part, value]: number[][] = [[], [], []];
  for (const surface of given.horizons) {
    if (surface.age === undefined) continue;
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++) {
        const k = at(surface, i, j);
        if (!(k >= 0 && k <= nk - 1)) continue;
        const low = Math.min(nk - 2, Math.floor(k));
        // between two samples that a fault parts there is no age to be had
        if (problem.cuts[(i * nj + j) * nk + low] & 4) continue;
        node.push((i * nj + j) * nk + low);
        part.push(k - low);
        value.push(surface.age);
      }
  }
  problem.known = { node: Int32Array.from(node), part: Float32Array.from(part), value: Float32Array.from(value) };
  return problem;
}

/** Bins from a fault at which its two sides are tied: beyond the blur of its plane. */
const TIED = 3;
/** Weight of a tie of two sides that match wholly, beside dips that are trusted wholly: a throw is known to a sample at best. */
const TIE = 0.2;
/** Match below which two places are not tied. */
const LEAST_MATCH = 0.4;

/** Places on the two sides of faults that are of one age, brought to the nearest nodes along the dip on each side. */
function linksOf({ regional, throws = [] }: AgeGiven, thin: Thinning, [ni, nj, nk]: Shape3): Links {
  const [from, fromPart, to, toPart, weight]: number[][] = [[], [], [], [], []];
  const away = Math.max(TIED, thin[0], thin[1]);
  for (const { rows, levels, places, towards, values, match } of throws)
    for (let r = 0; r < rows; r += Math.max(1, Math.round(Math.min(thin[0], thin[1]))))
      for (let l = 0; l < levels; l += thin[2]) {
        const n = r * levels + l;
        if (!(match[n] >= LEAST_MATCH) || Number.isNaN(values[n])) continue;
        const ends = [-1, 1].map((side) => {
          const [i, j, k] = [places[3 * n], places[3 * n + 1], places[3 * n + 2] + (side * values[n]) / 2];
          const [ti, tj] = [side * away * towards[2 * n], side * away * towards[2 * n + 1]];
          const [a, b] = [Math.round((i + ti) / thin[0]), Math.round((j + tj) / thin[1])];
          if (a < 0 || b < 0 || a >= ni || b >= nj) return null;
          const p = latticeAt(regional.p, regional, i + ti, j + tj, k);
          const q = latticeAt(regional.q, regional, i + ti, j + tj, k);
          const at = (k + p * (a * thin[0] - i) + q * (b * thin[1] - j)) / thin[2];
          const low = Math.floor(at);
          return low >= 0 && low + 1 < nk ? { node: (a * nj + b) * nk + low, part: at - low } : null;
        });
        const [foot, hanging] = ends;
        if (!foot || !hanging) continue;
        from.push(foot.node);
        fromPart.push(foot.part);
        to.push(hanging.node);
        toPart.push(hanging.part);
        weight.push(TIE * match[n] ** 2);
      }
  return {
    from: Int32Array.from(from),
    fromPart: Float32Array.from(fromPart),
    to: Int32Array.from(to),
    toPart: Float32Array.from(toPart),
    weight: Float32Array.from(weight),
  };
}

/** Dips within so many nodes of a cut are those further out on the same side, and trusted less. */
function carryDips({ shape: [ni, nj, nk], p, q, trust, cuts }: AgeProblem, reach: number): void {
  const from = new Int32Array(trust.length).fill(-1);
  const far = new Uint8Array(trust.length).fill(255);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++)
      for (let k = 0; k < nk; k++) {
        const c = cuts[(i * nj + j) * nk + k];
        for (const bit of [1, 2]) {
          if (!(c & bit)) continue;
          const [at, count] = bit === 1 ? [i, ni] : [j, nj];
          const node = (n: number) => (bit === 1 ? (n * nj + j) * nk + k : (i * nj + n) * nk + k);
          // this side runs down from here, the other up from the next
          for (const [first, way] of [
            [at, -1],
            [at + 1, 1],
          ]) {
            const source = Math.max(0, Math.min(count - 1, first + way * reach));
            for (let d = 0; d < reach; d++) {
              const n = first + way * d;
              if (n < 0 || n >= count || d >= far[node(n)]) continue;
              far[node(n)] = d;
              from[node(n)] = node(source);
            }
          }
        }
      }
  const [ps, qs] = [p.slice(), q.slice()];
  for (let n = 0; n < from.length; n++) {
    if (from[n] < 0) continue;
    p[n] = ps[from[n]];
    q[n] = qs[from[n]];
    trust[n] = Math.min(trust[n], 0.3);
  }
}

/** Dips within so many nodes of an unconformity are those further from it, on the same side. */
function carryDown({ shape: [, , nk], p, q, layer }: AgeProblem, reach: number): void {
  for (let t = 0; t < p.length; t += nk)
    for (let n = t; n < t + nk - 1; n++) {
      if (layer[n] === layer[n + 1]) continue;
      for (const [first, way] of [
        [n, -1],
        [n + 1, 1],
      ]) {
        let source = first;
        for (let d = 1; d <= reach; d++) {
          const m = first + way * d;
          if (m < t || m >= t + nk || layer[m] !== layer[first]) break;
          source = m;
        }
        for (let m = first; m !== source; m += way) {
          p[m] = p[source];
          q[m] = q[source];
        }
      }
    }
}

/** Ages of a coarser solution at the nodes of a finer one, between nodes by straight lines. */
export function refined(from: Float32Array, coarse: Thinning, fine: Thinning, shape: Shape3): Float32Array {
  const [ci, cj, ck] = nodesOf(shape, coarse);
  const [ni, nj, nk] = nodesOf(shape, fine);
  const out = new Float32Array(ni * nj * nk);
  const place = (n: number, axis: number, count: number): [number, number] => {
    const at = (n * fine[axis]) / coarse[axis];
    const low = Math.max(0, Math.min(count - 2, Math.floor(at)));
    // beyond the last node straight on
    return [low, count > 1 ? at - low : 0];
  };
  for (let i = 0; i < ni; i++) {
    const [a, fa] = place(i, 0, ci);
    for (let j = 0; j < nj; j++) {
      const [b, fb] = place(j, 1, cj);
      for (let k = 0; k < nk; k++) {
        const [c, fc] = place(k, 2, ck);
        let sum = 0;
        for (let corner = 0; corner < 8; corner++) {
          const [da, db, dc] = [(corner >> 2) & 1, (corner >> 1) & 1, corner & 1];
          const w = (da ? fa : 1 - fa) * (db ? fb : 1 - fb) * (dc ? fc : 1 - fc);
          if (w !== 0)
            sum += w * from[(Math.min(ci - 1, a + da) * cj + Math.min(cj - 1, b + db)) * ck + Math.min(ck - 1, c + dc)];
        }
        out[(i * nj + j) * nk + k] = sum;
      }
    }
  }
  return out;
}
