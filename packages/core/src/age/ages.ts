import type { Shape3 } from '../numerics/block.ts';
import { type AgeGiven, keptAt, nodesOf, problemAt, refined, type Thinning } from './problem.ts';
import { SOLVE, type SolveSpec, solveAges } from './solve.ts';

/** How far ages are solved: levels of one solve, each a finer one than the last. */
export const LEVELS = ['low', 'medium', 'full'] as const;
export type Level = (typeof LEVELS)[number];

/** Thinnings of a solve, from the coarsest: each begins with what the one before found. */
export function thinningsOf(shape: Shape3, finest: Thinning): Thinning[] {
  const out: Thinning[] = [finest];
  for (;;) {
    const next = out[0].map((t, axis) => (nodesOf(shape, out[0])[axis] > 24 ? 2 * t : t)) as Thinning;
    if (next.every((t, axis) => t === out[0][axis])) break;
    out.unshift(next);
  }
  return out;
}

export interface Solved {
  ages: Float32Array;
  thin: Thinning;
  nodes: Shape3;
  rounds: number;
  left: number;
}

/** Ages from coarse to fine; `seen` is told of each that is finished. */
export function agesOf(
  given: AgeGiven,
  finest: Thinning,
  seen?: (part: number) => void,
  spec: SolveSpec = SOLVE,
): Solved {
  const { shape, first, step } = given;
  let solved: Solved | null = null;
  const all = thinningsOf(shape, finest);
  for (const [n, thin] of all.entries()) {
    const nodes = nodesOf(shape, thin);
    const problem = problemAt(given, thin);
    const ages: Float32Array = solved
      ? refined(solved.ages, solved.thin, thin, shape)
      : Float32Array.from(
          { length: nodes[0] * nodes[1] * nodes[2] },
          (_, m) => first + (m % nodes[2]) * step * thin[2],
        );
    if (given.kept) {
      const kept = keptAt(given, given.kept, thin);
      problem.kept = Uint8Array.from(kept, (v) => (v === v ? 1 : 0));
      for (let m = 0; m < ages.length; m++) if (problem.kept[m]) ages[m] = kept[m];
    }
    // what is coarse is quick, and saves rounds of what is fine
    const { rounds, left } = solveAges(problem, ages, n === all.length - 1 ? spec : { ...spec, most: 3 * spec.most });
    solved = { ages, thin, nodes, rounds, left };
    seen?.((n + 1) / all.length);
  }
  return solved as Solved;
}
