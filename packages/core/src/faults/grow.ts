import type { BinGrid } from '../earth/binGrid.ts';
import type { Shape3 } from '../numerics/block.ts';
import { heed } from '../numerics/stop.ts';
import { type Orientation, ofIndexPlane, toIndexPlane } from './orientation.ts';

/** A sheet of ridges: at most one place across for each row along and each sample. */
export interface Piece {
  along: 'inline' | 'crossline';
  /** Row, sample, place across (bins, between bins where the ridge is) and strength of each of its cells. */
  rows: Int32Array;
  samples: Int32Array;
  across: Float32Array;
  strength: Float32Array;
}

export interface GrowSpec {
  /** Strength that a sheet begins at, and that it is grown down to. */
  seed: number;
  least: number;
  /** Degrees that the best plane may turn from a cell to the next. */
  turn: number;
  /** Rows and samples that may be missing between a cell and the next. */
  gap: number;
  /** Cells below which a sheet is noise. */
  smallest: number;
}

/** Ridges with the planes that they have, trace by trace: those of trace `t` from `starts[t]` to `starts[t + 1]`. */
export interface Ridges {
  shape: Shape3;
  starts: Uint32Array;
  /** Sample of each, in order down its trace. */
  samples: Int32Array;
  strength: Float32Array;
  dip: Float32Array;
  azimuth: Float32Array;
  /** Bins from the trace to where strength is greatest, along lines and along traces. */
  offInline: Float32Array;
  offCrossline: Float32Array;
  grid: BinGrid;
  sampleM: number;
}

/** The ridge of a trace at a sample; −1 where there is none. */
function ridgeAt({ starts, samples }: Ridges, trace: number, k: number): number {
  let [low, high] = [starts[trace], starts[trace + 1]];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (samples[middle] < k) low = middle + 1;
    else high = middle;
  }
  return low < starts[trace + 1] && samples[low] === k ? low : -1;
}

/** Collects ridges line by line. */
export function ridgesCollector(shape: Shape3, grid: BinGrid, sampleM: number) {
  const [ni, nj, nk] = shape;
  const starts = new Uint32Array(ni * nj + 1);
  const rows: number[][] = [[], [], [], [], [], []];
  /** Where the parabola through three strengths has its top, bins. */
  const top = (low: number, own: number, high: number) => {
    const bend = low - 2 * own + high;
    return bend < 0 ? Math.max(-0.5, Math.min(0.5, (0.5 * (low - high)) / bend)) : 0;
  };
  return {
    /**
     * The lines from `from` to `to`, in order; `ridges`, `dip` and `azimuth` of those, `strength` of one more line on each side.
     */
    add(from: number, to: number, of: Record<'ridges' | 'strength' | 'dip' | 'azimuth', Float32Array>, least: number) {
      for (let i = 0; i < to - from; i++)
        for (let j = 0; j < nj; j++) {
          const n0 = (i * nj + j) * nk;
          for (let k = 0; k < nk; k++) {
            const v = of.ridges[n0 + k];
            if (!(v > 0 && v >= least)) continue;
            const at = (di: number, dj: number) =>
              j + dj < 0 || j + dj >= nj ? Number.NaN : of.strength[((i + 1 + di) * nj + j + dj) * nk + k];
            rows[0].push(k);
            rows[1].push(v);
            rows[2].push(of.dip[n0 + k]);
            rows[3].push(of.azimuth[n0 + k]);
            rows[4].push(top(at(-1, 0), v, at(1, 0)));
            rows[5].push(top(at(0, -1), v, at(0, 1)));
          }
          starts[(from + i) * nj + j + 1] = rows[0].length;
        }
    },
    finish: (): Ridges => ({
      shape,
      starts,
      samples: Int32Array.from(rows[0]),
      strength: Float32Array.from(rows[1]),
      dip: Float32Array.from(rows[2]),
      azimuth: Float32Array.from(rows[3]),
      offInline: Float32Array.from(rows[4]),
      offCrossline: Float32Array.from(rows[5]),
      grid,
      sampleM,
    }),
  };
}

const turnedBy = (a: number, b: number) => Math.abs(((a - b + 540) % 360) - 180);

/**
 * Grow sheets from the strongest ridges on, along strike and along dip: a neighbouring ridge belongs to a sheet where it lies within a
 * bin and a half of the sheet's plane there and its own plane is turned by no more than so much (oriented growth of fault surfaces:
 * Hale 2013, Geophysics 78, O33–O43).
 */
export function growPieces(given: Ridges, spec: GrowSpec): Piece[] {
  const { shape, strength, dip, azimuth, grid, sampleM, starts, samples } = given;
  const [ni, nj, nk] = shape;
  const traceOf = new Uint32Array(strength.length);
  for (let t = 0; t < ni * nj; t++) traceOf.fill(t, starts[t], starts[t + 1]);
  const seeds: number[] = [];
  for (let n = 0; n < strength.length; n++) if (strength[n] >= spec.seed) seeds.push(n);
  seeds.sort((a, b) => strength[b] - strength[a]);
  const taken = new Uint8Array(strength.length);
  const pieces: Piece[] = [];
  for (const [count, seed] of seeds.entries()) {
    if ((count & 1023) === 0) heed();
    if (taken[seed]) continue;
    const first: Orientation = { dip: dip[seed], azimuth: azimuth[seed] };
    const { along } = toIndexPlane(first, grid, sampleM);
    const turned = along === 'crossline';
    const [na, nb] = turned ? [nj, ni] : [ni, nj];
    const at = (a: number, b: number, k: number) => ridgeAt(given, turned ? b * nj + a : a * nj + b, k);
    const cells = new Map<number, number>();
    const queue: number[] = [];
    const add = (a: number, b: number, k: number, ridge: number) => {
      taken[ridge] = 1;
      cells.set(a * nk + k, b);
      queue.push(a * nk + k);
    };
    const trace = traceOf[seed];
    const [si, sj] = [Math.floor(trace / nj), trace % nj];
    add(turned ? sj : si, turned ? si : sj, samples[seed], seed);
    for (let q = 0; q < queue.length; q++) {
      const cell = queue[q];
      const [a, kk] = [Math.floor(cell / nk), cell % nk];
      const b = cells.get(cell) as number;
      const n = at(a, b, kk);
      const plane = toIndexPlane({ dip: dip[n], azimuth: azimuth[n] }, grid, sampleM);
      // the plane as a height across the axis that the sheet is followed along
      const perRow = plane.along === along ? plane.perRow : 1 / plane.perRow;
      const perSample = plane.along === along ? plane.perSample : -plane.perSample / plane.perRow;
      for (const [da, dk] of STEPS) {
        // the nearest ridge on the way, past what may be missing
        for (let g = 1; g <= spec.gap + 1; g++) {
          const [aa, ka] = [a + da * g, kk + dk * g];
          if (aa < 0 || aa >= na || ka < 0 || ka >= nk) break;
          if (cells.has(aa * nk + ka)) break;
          const wanted = b + perRow * da * g + perSample * dk * g;
          let [best, ridge, off] = [-1, -1, 1.5];
          for (let bb = Math.ceil(wanted - 1.5); bb <= Math.floor(wanted + 1.5); bb++) {
            if (bb < 0 || bb >= nb) continue;
            const m = at(aa, bb, ka);
            if (m < 0 || taken[m] || strength[m] < spec.least) continue;
            if (turnedBy(azimuth[m], azimuth[n]) > spec.turn || turnedBy(azimuth[m], first.azimuth) > 60) continue;
            if (Math.abs(dip[m] - dip[n]) > spec.turn) continue;
            if (Math.abs(bb - wanted) < off) [best, ridge, off] = [bb, m, Math.abs(bb - wanted)];
          }
          if (best >= 0) {
            add(aa, best, ka, ridge);
            break;
          }
        }
      }
    }
    if (cells.size < spec.smallest) {
      // what is too small may still be part of another
      for (const [cell, b] of cells) taken[at(Math.floor(cell / nk), b, cell % nk)] = 0;
      taken[seed] = 1;
      continue;
    }
    pieces.push(pieceOf(cells, along, given, at));
  }
  return pieces;
}

const STEPS = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
];

/** The cells of a sheet, each where the strength across it is greatest: by a parabola through three bins. */
function pieceOf(
  cells: Map<number, number>,
  along: Piece['along'],
  { strength, offInline, offCrossline, shape: [, , nk] }: Ridges,
  at: (a: number, b: number, k: number) => number,
): Piece {
  const piece: Piece = {
    along,
    rows: new Int32Array(cells.size),
    samples: new Int32Array(cells.size),
    across: new Float32Array(cells.size),
    strength: new Float32Array(cells.size),
  };
  const off = along === 'inline' ? offCrossline : offInline;
  let n = 0;
  for (const [cell, b] of cells) {
    const [a, k] = [Math.floor(cell / nk), cell % nk];
    const ridge = at(a, b, k);
    piece.rows[n] = a;
    piece.samples[n] = k;
    piece.across[n] = b + off[ridge];
    piece.strength[n] = strength[ridge];
    n++;
  }
  return piece;
}

/** A plane fitted to cells of a sheet, weighted by their strength: `across = c + perRow · row + perSample · sample`. */
export interface Fit {
  c: number;
  perRow: number;
  perSample: number;
  /** Root mean square of what is left over, bins. */
  off: number;
}

/** Least squares over the cells for which `use` gives a weight. */
export function fitPlane(piece: Piece, use: (n: number) => number = () => 1): Fit | null {
  const m = new Float64Array(6);
  const r = new Float64Array(3);
  let [total, ra, rk] = [0, 0, 0];
  for (let n = 0; n < piece.rows.length; n++) {
    const w = use(n);
    total += w;
    ra += w * piece.rows[n];
    rk += w * piece.samples[n];
  }
  if (!(total > 0)) return null;
  ra /= total;
  rk /= total;
  for (let n = 0; n < piece.rows.length; n++) {
    const w = use(n);
    if (w === 0) continue;
    const [x, y, v] = [piece.rows[n] - ra, piece.samples[n] - rk, piece.across[n]];
    m[0] += w;
    m[1] += w * x * x;
    m[2] += w * x * y;
    m[3] += w * y * y;
    r[0] += w * v;
    r[1] += w * v * x;
    r[2] += w * v * y;
  }
  const det = m[1] * m[3] - m[2] * m[2];
  // cells along one line do not say how the plane lies across it
  if (!(det > 1e-6 * m[1] * m[3])) return null;
  const perRow = (r[1] * m[3] - r[2] * m[2]) / det;
  const perSample = (r[2] * m[1] - r[1] * m[2]) / det;
  const c = r[0] / m[0] - perRow * ra - perSample * rk;
  let squares = 0;
  for (let n = 0; n < piece.rows.length; n++)
    squares += use(n) * (piece.across[n] - c - perRow * piece.rows[n] - perSample * piece.samples[n]) ** 2;
  return { c, perRow, perSample, off: Math.sqrt(squares / total) };
}

/** How a sheet lies on the whole. */
export function orientationOf(piece: Piece, grid: BinGrid, sampleM: number): Orientation {
  const fit = fitPlane(piece, (n) => piece.strength[n]) ?? { perRow: 0, perSample: 0.2 };
  return ofIndexPlane({ along: piece.along, perRow: fit.perRow, perSample: fit.perSample }, grid, sampleM);
}
