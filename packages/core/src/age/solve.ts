import type { Shape3 } from '../numerics/block.ts';
import { heed } from '../numerics/stop.ts';

/** Where ages are known: at `node` and `part` of the way to the next sample down its trace, the age is `value`. */
export interface KnownAges {
  node: Int32Array;
  part: Float32Array;
  value: Float32Array;
}

/** Pairs of places that are of one age: `from` and `to` are nodes, the parts how far each place lies on the way to the next sample. */
export interface Links {
  from: Int32Array;
  fromPart: Float32Array;
  to: Int32Array;
  toPart: Float32Array;
  weight: Float32Array;
}

/** What ages follow from, on nodes `[inline][crossline][sample]`. */
export interface AgeProblem {
  shape: Shape3;
  /** Samples that beds drop to the next line and to the next trace. */
  p: Float32Array;
  q: Float32Array;
  /** How far the dips are trusted, from 0 to 1. */
  trust: Float32Array;
  /** Which steps a fault forbids: 1 to the next line, 2 to the next trace, 4 to the next sample. */
  cuts: Uint8Array;
  /** Number of the unconformity above each node, from 0: beds of two do not touch. */
  layer: Uint8Array;
  known: KnownAges;
  /** Places on the two sides of faults that were matched. */
  links: Links;
  /** Nodes whose ages are kept as they are; none where it is missing. */
  kept?: Uint8Array;
  /** Age of a sample where nothing else is known: that of the one above and this. */
  step: number;
}

export interface SolveSpec {
  /** Weight of known ages, of even rates down a trace, and of the usual rate. */
  known: number;
  even: number;
  usual: number;
  most: number;
  /** Part of the first residual at which it is enough. */
  enough: number;
}

export const SOLVE: SolveSpec = { known: 10, even: 0.3, usual: 0.02, most: 200, enough: 1e-4 };

/** Rows of the least-squares problem in groups: what each row adds up, four nodes at most. */
interface Rows {
  /** Visit every lateral row: two nodes and the part of the second on each side, and its weight. */
  lateral(visit: (a: number, fa: number, b: number, fb: number, w: number) => void): void;
}

/** Lateral rows: a bed is of one age where it leaves a trace and where it comes to the next, half of the drop above and below; and on both sides of a fault. */
function rowsOf({ shape: [ni, nj, nk], p, q, trust, cuts, layer, links }: AgeProblem): Rows {
  return {
    lateral(visit) {
      for (let i = 0; i < ni; i++)
        for (let j = 0; j < nj; j++)
          for (let axis = 0; axis < 2; axis++) {
            if (axis === 0 ? i + 1 >= ni : j + 1 >= nj) continue;
            const own = (i * nj + j) * nk;
            const other = own + (axis === 0 ? nj * nk : nk);
            const slope = axis === 0 ? p : q;
            const bit = axis === 0 ? 1 : 2;
            for (let k = 0; k < nk; k++) {
              if (cuts[own + k] & bit) continue;
              const w = 0.5 * (trust[own + k] + trust[other + k]);
              if (w === 0) continue;
              const drop = 0.5 * (slope[own + k] + slope[other + k]);
              const [ka, kb] = [k - drop / 2, k + drop / 2];
              let [na, nb] = [Math.floor(ka), Math.floor(kb)];
              // on the last sample from the one before it
              if (na === nk - 1 && ka === na) na--;
              if (nb === nk - 1 && kb === nb) nb--;
              if (na < 0 || nb < 0 || na + 1 >= nk || nb + 1 >= nk) continue;
              const [a, b] = [own + na, other + nb];
              if (cuts[a] & 4 || cuts[b] & 4) continue;
              const of = layer[a];
              if (layer[a + 1] !== of || layer[b] !== of || layer[b + 1] !== of) continue;
              visit(a, ka - na, b, kb - nb, w);
            }
          }
      for (let n = 0; n < links.from.length; n++) {
        const [a, b] = [links.from[n], links.to[n]];
        if (cuts[a] & 4 || cuts[b] & 4 || layer[a] !== layer[b]) continue;
        visit(a, links.fromPart[n], b, links.toPart[n], links.weight[n]);
      }
    },
  };
}

/**
 * Ages by least squares: a bed is of one age along its dips, known ages hold, rates change little down a trace (horizon volumes with
 * interpreted constraints: Wu & Hale 2015, Geophysics 80, IM21–IM33; with faults 2016, Geophysics 81, IM25–IM33), by conjugate gradients
 * with a diagonal preconditioner (Hestenes & Stiefel 1952).
 * @param start ages to begin with; they are changed in place
 * @returns how often it went round, and what part of the first residual is left
 */
export function solveAges(
  problem: AgeProblem,
  start: Float32Array,
  spec: SolveSpec = SOLVE,
): { rounds: number; left: number } {
  const { shape, cuts, layer, known, kept, step } = problem;
  const nk = shape[2];
  const size = start.length;
  const rows = rowsOf(problem);
  // rows are gone through many times: they are worked out once
  const packed = pack(rows);
  const vertical = new Uint8Array(size);
  for (let n = 0; n < size; n++) if (n % nk < nk - 1 && !(cuts[n] & 4) && layer[n] === layer[n + 1]) vertical[n] = 1;
  const diagonal = new Float32Array(size).fill(1e-6);
  const { a, b, fa, fb, w, count } = packed;
  for (let n = 0; n < count; n++) {
    const ww = w[n] * w[n];
    diagonal[a[n]] += ww * (1 - fa[n]) ** 2;
    diagonal[a[n] + 1] += ww * fa[n] ** 2;
    diagonal[b[n]] += ww * (1 - fb[n]) ** 2;
    diagonal[b[n] + 1] += ww * fb[n] ** 2;
  }
  const [e2, u2, k2] = [spec.even ** 2, spec.usual ** 2, spec.known ** 2];
  for (let n = 0; n < size; n++)
    if (vertical[n]) {
      diagonal[n] += u2;
      diagonal[n + 1] += u2;
      if (n > 0 && vertical[n - 1] && n % nk > 0) {
        diagonal[n - 1] += e2;
        diagonal[n] += 4 * e2;
        diagonal[n + 1] += e2;
      }
    }
  for (let n = 0; n < known.node.length; n++) {
    diagonal[known.node[n]] += k2 * (1 - known.part[n]) ** 2;
    diagonal[known.node[n] + 1] += k2 * known.part[n] ** 2;
  }
  /** The operator AᵀA; with what is known, AᵀA·x − Aᵀb. */
  const apply = (x: Float32Array, out: Float32Array, whole: boolean) => {
    out.fill(0);
    for (let n = 0; n < count; n++) {
      const [na, nb, ga, gb] = [a[n], b[n], fa[n], fb[n]];
      const r = (1 - gb) * x[nb] + gb * x[nb + 1] - (1 - ga) * x[na] - ga * x[na + 1];
      const v = w[n] * w[n] * r;
      out[nb] += (1 - gb) * v;
      out[nb + 1] += gb * v;
      out[na] -= (1 - ga) * v;
      out[na + 1] -= ga * v;
    }
    const rate = whole ? step : 0;
    for (let n = 0; n < size; n++) {
      if (!vertical[n]) continue;
      const d = u2 * (x[n + 1] - x[n] - rate);
      out[n + 1] += d;
      out[n] -= d;
      if (n > 0 && vertical[n - 1] && n % nk > 0) {
        const v = e2 * (x[n - 1] - 2 * x[n] + x[n + 1]);
        out[n - 1] += v;
        out[n] -= 2 * v;
        out[n + 1] += v;
      }
    }
    for (let n = 0; n < known.node.length; n++) {
      const [m, f] = [known.node[n], known.part[n]];
      const v = k2 * ((1 - f) * x[m] + f * x[m + 1] - (whole ? known.value[n] : 0));
      out[m] += (1 - f) * v;
      out[m + 1] += f * v;
    }
    for (let n = 0; n < size; n++) out[n] += 1e-6 * (x[n] - (whole ? start0[n] : 0));
    // what is kept does not answer, so that no step is taken along it
    if (kept) for (let n = 0; n < size; n++) if (kept[n]) out[n] = 0;
  };
  // what nothing holds stays where it was
  const start0 = start.slice();
  const residual = new Float32Array(size);
  apply(start, residual, true);
  const direction = new Float32Array(size);
  const turned = new Float32Array(size);
  let rho = 0;
  for (let n = 0; n < size; n++) {
    residual[n] = -residual[n];
    direction[n] = residual[n] / diagonal[n];
    rho += residual[n] * direction[n];
  }
  const first = rho;
  let rounds = 0;
  for (; rounds < spec.most && rho > spec.enough ** 2 * first && rho > 1e-20; rounds++) {
    heed();
    apply(direction, turned, false);
    let along = 0;
    for (let n = 0; n < size; n++) along += direction[n] * turned[n];
    const alpha = rho / along;
    let next = 0;
    for (let n = 0; n < size; n++) {
      start[n] += alpha * direction[n];
      residual[n] -= alpha * turned[n];
      next += (residual[n] * residual[n]) / diagonal[n];
    }
    const beta = next / rho;
    rho = next;
    for (let n = 0; n < size; n++) direction[n] = residual[n] / diagonal[n] + beta * direction[n];
  }
  return { rounds, left: first > 0 ? Math.sqrt(rho / first) : 0 };
}

/** Lateral rows in arrays. */
function pack(rows: Rows) {
  let count = 0;
  rows.lateral(() => count++);
  const a = new Int32Array(count);
  const b = new Int32Array(count);
  const fa = new Float32Array(count);
  const fb = new Float32Array(count);
  const w = new Float32Array(count);
  let n = 0;
  rows.lateral((na, ga, nb, gb, weight) => {
    a[n] = na;
    b[n] = nb;
    fa[n] = ga;
    fb[n] = gb;
    w[n++] = weight;
  });
  return { a, b, fa, fb, w, count };
}
