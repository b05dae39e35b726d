import type { Runs } from './bodies.ts';

/** A surface of triangles; positions are line, trace and sample, one after the other. */
export interface BodyMesh {
  positions: Float32Array;
  triangles: Uint32Array;
}

/** Samples of one body, trace by trace. */
export interface BodyRuns {
  /** Line and trace of each run, its first sample and the one after its last. */
  i: ArrayLike<number>;
  j: ArrayLike<number>;
  from: ArrayLike<number>;
  to: ArrayLike<number>;
}

/** Most cells that a surface is made of at full detail: a larger body is thinned by two along each axis, as often as it takes. */
const MOST_CELLS = 4e6;

/**
 * The surface round a body, by surface nets (Gibson 1998, MERL TR99-24): in every cell of eight samples that are not all alike a corner, in the
 * middle of where its edges are crossed, and a square through each crossed edge.
 */
export function bodyMesh(runs: BodyRuns): BodyMesh {
  const count = runs.i.length;
  const low = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  const high = [-1, -1, -1];
  for (let n = 0; n < count; n++)
    for (const [axis, a, b] of [
      [0, runs.i[n], runs.i[n]],
      [1, runs.j[n], runs.j[n]],
      [2, runs.from[n], runs.to[n] - 1],
    ]) {
      low[axis] = Math.min(low[axis], a);
      high[axis] = Math.max(high[axis], b);
    }
  if (count === 0) return { positions: new Float32Array(0), triangles: new Uint32Array(0) };
  let by = 1;
  const size = () => low.map((l, axis) => Math.floor((high[axis] - l) / by) + 3);
  while (size().reduce((a, b) => a * b, 1) > MOST_CELLS) by *= 2;
  const [ni, nj, nk] = size();
  // one empty sample all round
  const inside = new Uint8Array(ni * nj * nk);
  for (let n = 0; n < count; n++) {
    const a = Math.floor((runs.i[n] - low[0]) / by) + 1;
    const b = Math.floor((runs.j[n] - low[1]) / by) + 1;
    const from = Math.floor((runs.from[n] - low[2]) / by) + 1;
    const to = Math.floor((runs.to[n] - 1 - low[2]) / by) + 2;
    inside.fill(1, (a * nj + b) * nk + from, (a * nj + b) * nk + to);
  }
  const steps = [nj * nk, nk, 1];
  const corner = new Int32Array(inside.length).fill(-1);
  const positions: number[] = [];
  const cell = [0, 0, 0];
  for (let i = 0; i + 1 < ni; i++)
    for (let j = 0; j + 1 < nj; j++)
      for (let k = 0; k + 1 < nk; k++) {
        const own = i * steps[0] + j * steps[1] + k;
        let held = 0;
        for (let c = 0; c < 8; c++)
          held += inside[own + (c & 1 ? steps[0] : 0) + (c & 2 ? steps[1] : 0) + (c & 4 ? 1 : 0)];
        if (held === 0 || held === 8) continue;
        // middle of the crossed edges
        const sum = [0, 0, 0];
        let crossed = 0;
        for (let axis = 0; axis < 3; axis++)
          for (let c = 0; c < 4; c++) {
            const [p, q] = [0, 1, 2].filter((x) => x !== axis);
            const off = (c & 1 ? steps[p] : 0) + (c & 2 ? steps[q] : 0);
            if (inside[own + off] === inside[own + off + steps[axis]]) continue;
            cell[axis] = 0.5;
            cell[p] = c & 1 ? 1 : 0;
            cell[q] = c & 2 ? 1 : 0;
            for (let x = 0; x < 3; x++) sum[x] += cell[x];
            crossed++;
          }
        corner[own] = positions.length / 3;
        const at = [i, j, k];
        // samples stand for what is half a step around them
        for (let x = 0; x < 3; x++) positions.push(low[x] + by * (at[x] + sum[x] / crossed - 1) + (by - 1) / 2);
      }
  const triangles: number[] = [];
  for (let i = 1; i + 1 < ni; i++)
    for (let j = 1; j + 1 < nj; j++) for (let k = 1; k + 1 < nk; k++) emit(i * steps[0] + j * steps[1] + k);
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };

  /** The squares through the edges that lead on from a sample. Its outward side is where nothing is. */
  function emit(own: number): void {
    for (let axis = 0; axis < 3; axis++)
      for (const way of [1, -1]) {
        if (!inside[own] || inside[own + way * steps[axis]]) continue;
        const [p, q] = [(axis + 1) % 3, (axis + 2) % 3];
        const base = own + (way < 0 ? -steps[axis] : 0);
        const square = [base - steps[p] - steps[q], base - steps[q], base, base - steps[p]].map((n) => corner[n]);
        const [a, b, c, d] = way > 0 ? square : [...square].reverse();
        triangles.push(a, b, c, a, c, d);
      }
  }
}

/** Runs of the bodies that are kept, with the number of each. */
export function numberedRuns(
  { starts, from, to }: Runs,
  numbers: ArrayLike<number>,
  traces: number,
): { i: number; j: number; from: number; to: number; body: number }[] {
  const out: { i: number; j: number; from: number; to: number; body: number }[] = [];
  for (let t = 0; t + 1 < starts.length; t++)
    for (let n = starts[t]; n < starts[t + 1]; n++)
      if (numbers[n] > 0)
        out.push({ i: Math.floor(t / traces), j: t % traces, from: from[n], to: to[n], body: numbers[n] });
  return out;
}
