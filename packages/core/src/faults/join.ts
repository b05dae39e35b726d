import type { BinGrid } from '../earth/binGrid.ts';
import { extentOf } from '../numerics/extent.ts';
import { heed } from '../numerics/stop.ts';
import { fitPlane, orientationOf, type Piece } from './grow.ts';
import { angleBetween } from './orientation.ts';

/** When two sheets are one fault that a gap parts. */
export interface JoinRule {
  /** Metres between their nearest cells, measured in the plane. */
  gapM: number;
  /** Bins that the edge of one may lie off the plane of the other, carried on. */
  offBins: number;
  /** Degrees between their planes. */
  turn: number;
}

/** Two sheets that were joined, and why. */
export interface Joined {
  first: number;
  second: number;
  gapM: number;
  offBins: number;
  turn: number;
}

interface Scale {
  grid: BinGrid;
  sampleM: number;
}

/** A sheet followed along the other axis, where it is steep enough to be. */
export function turnedPiece(piece: Piece): Piece {
  return {
    along: piece.along === 'inline' ? 'crossline' : 'inline',
    rows: Int32Array.from(piece.across, Math.round),
    samples: piece.samples,
    across: Float32Array.from(piece.rows),
    strength: piece.strength,
  };
}

/** Metres of a row along a sheet. */
const rowOf = (piece: Piece, { grid }: Scale) =>
  Math.hypot(...(piece.along === 'inline' ? grid.perInline : grid.perCrossline));

/** How two sheets lie to each other; null where they are too far apart. */
function between(p: Piece, other: Piece, scale: Scale, rule: JoinRule): Omit<Joined, 'first' | 'second'> | null {
  const q = other.along === p.along ? other : turnedPiece(other);
  const row = rowOf(p, scale);
  const { sampleM } = scale;
  const reach = rule.gapM;
  // boxes first
  const box = (s: Piece) => [...extentOf(s.rows), ...extentOf(s.samples)];
  const [pa0, pa1, pk0, pk1] = box(p);
  const [qa0, qa1, qk0, qk1] = box(q);
  if (Math.max(pa0 - qa1, qa0 - pa1) * row > reach || Math.max(pk0 - qk1, qk0 - pk1) * sampleM > reach) return null;
  const thin = (s: Piece) => Math.max(1, Math.floor(s.rows.length / 250));
  let [gap, pn, qn] = [Number.POSITIVE_INFINITY, 0, 0];
  for (let n = 0; n < p.rows.length; n += thin(p))
    for (let m = 0; m < q.rows.length; m += thin(q)) {
      const d = Math.hypot((p.rows[n] - q.rows[m]) * row, (p.samples[n] - q.samples[m]) * sampleM);
      if (d < gap) [gap, pn, qn] = [d, n, m];
    }
  if (gap > reach) return null;
  // each carried on from the part near the other
  const wide = Math.max(300, 2 * gap);
  const near = (s: Piece, a: number, k: number) => (n: number) =>
    Math.hypot((s.rows[n] - a) * row, (s.samples[n] - k) * sampleM) < wide ? s.strength[n] : 0;
  const fp = fitPlane(p, near(p, p.rows[pn], p.samples[pn])) ?? fitPlane(p);
  const fq = fitPlane(q, near(q, q.rows[qn], q.samples[qn])) ?? fitPlane(q);
  if (!fp || !fq) return null;
  let [sum, count] = [0, 0];
  for (const [s, f, a, k] of [
    [q, fp, q.rows[qn], q.samples[qn]],
    [p, fq, p.rows[pn], p.samples[pn]],
  ] as const)
    for (let n = 0; n < s.rows.length; n++) {
      if (Math.hypot((s.rows[n] - a) * row, (s.samples[n] - k) * sampleM) > 150) continue;
      sum += Math.abs(s.across[n] - f.c - f.perRow * s.rows[n] - f.perSample * s.samples[n]);
      count++;
    }
  if (count === 0) return null;
  return {
    gapM: gap,
    offBins: sum / count,
    turn: angleBetween(orientationOf(p, scale.grid, sampleM), orientationOf(other, scale.grid, sampleM)),
  };
}

/** Cells of both, the stronger where both have one. */
function merged(p: Piece, other: Piece): { piece: Piece; clash: number } {
  const q = other.along === p.along ? other : turnedPiece(other);
  const cells = new Map<number, [across: number, strength: number]>();
  const key = (s: Piece, n: number) => s.rows[n] * 65536 + s.samples[n];
  for (let n = 0; n < p.rows.length; n++) cells.set(key(p, n), [p.across[n], p.strength[n]]);
  let clash = 0;
  for (let n = 0; n < q.rows.length; n++) {
    const own = cells.get(key(q, n));
    if (own && Math.abs(own[0] - q.across[n]) > 2) clash++;
    if (!own || own[1] < q.strength[n]) cells.set(key(q, n), [q.across[n], q.strength[n]]);
  }
  const keys = [...cells.keys()];
  const values = [...cells.values()];
  return {
    piece: {
      along: p.along,
      rows: Int32Array.from(keys, (k) => Math.floor(k / 65536)),
      samples: Int32Array.from(keys, (k) => k % 65536),
      across: Float32Array.from(values, (v) => v[0]),
      strength: Float32Array.from(values, (v) => v[1]),
    },
    clash,
  };
}

/**
 * Join sheets that are one fault by the rule, the best fit first; a pair whose cells lie apart where they overlap is left as two.
 * @returns the sheets, the largest first, with the numbers of those they came from, and what was joined
 */
export function joinPieces(
  pieces: Piece[],
  scale: Scale,
  rule: JoinRule,
): { pieces: { piece: Piece; from: number[] }[]; joined: Joined[] } {
  const held: (Piece | null)[] = [...pieces];
  const from = pieces.map((_, n) => [n]);
  const joined: Joined[] = [];
  const fits = new Map<string, Joined | null>();
  for (;;) {
    heed();
    let best: Joined | null = null;
    let worth = Number.POSITIVE_INFINITY;
    for (let a = 0; a < held.length; a++)
      for (let b = a + 1; b < held.length; b++) {
        const [p, q] = [held[a], held[b]];
        if (!p || !q) continue;
        const key = `${a} ${b}`;
        let fit = fits.get(key);
        if (fit === undefined) {
          const [large, small] = p.rows.length >= q.rows.length ? [p, q] : [q, p];
          const found = between(large, small, scale, rule);
          fit =
            found && found.offBins <= rule.offBins && found.turn <= rule.turn
              ? { first: a, second: b, ...found }
              : null;
          fits.set(key, fit);
        }
        if (!fit) continue;
        const cost = fit.gapM / rule.gapM + fit.offBins / rule.offBins + fit.turn / rule.turn;
        if (cost < worth) [best, worth] = [fit, cost];
      }
    if (!best) break;
    const [p, q] = [held[best.first] as Piece, held[best.second] as Piece];
    const [large, small] = p.rows.length >= q.rows.length ? [p, q] : [q, p];
    const both = merged(large, small);
    if (both.clash > 0.2 * small.rows.length) {
      fits.set(`${best.first} ${best.second}`, null);
      continue;
    }
    held[best.first] = both.piece;
    held[best.second] = null;
    from[best.first].push(...from[best.second]);
    joined.push(best);
    for (const key of [...fits.keys()]) if (key.split(' ').includes(String(best.first))) fits.delete(key);
  }
  const out = held
    .flatMap((piece, n) => (piece ? [{ piece, from: from[n] }] : []))
    .sort((a, b) => b.piece.rows.length - a.piece.rows.length);
  return { pieces: out, joined };
}

/** Bins within which a weaker sheet beside a stronger one is taken for its flank, and how much weaker it is. */
const FLANK = { bins: 6, part: 0.7 };

/** Leaves out sheets that run along a stronger one close by: the flanks of one fault, not faults of their own. */
export function withoutFlanks<T extends { piece: Piece }>(all: T[]): T[] {
  const mean = ({ strength }: Piece) => strength.reduce((a, b) => a + b, 0) / strength.length;
  const strong = all.map(({ piece }) => mean(piece));
  const cells = all.map(({ piece }) => {
    const held = new Map<number, number>();
    for (let n = 0; n < piece.rows.length; n++) held.set(piece.rows[n] * 65536 + piece.samples[n], piece.across[n]);
    return held;
  });
  return all.filter(({ piece }, q) => {
    for (let p = 0; p < all.length; p++) {
      if (p === q || strong[q] > FLANK.part * strong[p]) continue;
      const own = all[p].piece.along === piece.along ? piece : turnedPiece(piece);
      let beside = 0;
      for (let n = 0; n < own.rows.length; n++) {
        const across = cells[p].get(own.rows[n] * 65536 + own.samples[n]);
        if (across !== undefined && Math.abs(across - own.across[n]) <= FLANK.bins) beside++;
      }
      if (beside > 0.5 * own.rows.length) return false;
    }
    return true;
  });
}
