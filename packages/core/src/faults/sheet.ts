import { type BinGrid, toMap } from '../earth/binGrid.ts';
import { extentOf } from '../numerics/extent.ts';
import type { Piece } from './grow.ts';

/** A sheet made smooth: place across on `[row][sample]` from the first of each, NaN where there is none. */
export interface Sheet {
  along: Piece['along'];
  row: number;
  rows: number;
  sample: number;
  samples: number;
  across: Float32Array;
}

/** Cells on each side that a place is fitted over: rows, and samples. */
const OVER = { rows: 5, samples: 10 };

/**
 * A sheet as a smooth surface: at each place a plane fitted to the cells around it, weighted by strength and nearness (local linear
 * regression: Cleveland 1979, J. Am. Stat. Assoc. 74, 829–836). Gaps that it reaches across are closed.
 */
export function smoothSheet(piece: Piece): Sheet {
  // a sheet of a large survey has more cells than a call takes values
  const [row, last] = extentOf(piece.rows);
  const [sample, lowest] = extentOf(piece.samples);
  const [rows, samples] = [last - row + 1, lowest - sample + 1];
  const value = new Float32Array(rows * samples);
  const weight = new Float32Array(rows * samples);
  for (let n = 0; n < piece.rows.length; n++) {
    const at = (piece.rows[n] - row) * samples + piece.samples[n] - sample;
    value[at] = piece.across[n];
    weight[at] = Math.max(1e-3, piece.strength[n]);
  }
  const across = new Float32Array(rows * samples).fill(Number.NaN);
  for (let a = 0; a < rows; a++)
    for (let k = 0; k < samples; k++) {
      let [w0, wx, wy, wxx, wxy, wyy, v0, vx, vy, cells] = [0, 0, 0, 0, 0, 0, 0, 0, 0, 0];
      // how many quarters around have a cell: a place that is not among its cells is not of the sheet
      let quarters = 0;
      for (let da = Math.max(-OVER.rows, -a); da <= Math.min(OVER.rows, rows - 1 - a); da++)
        for (let dk = Math.max(-OVER.samples, -k); dk <= Math.min(OVER.samples, samples - 1 - k); dk++) {
          const at = (a + da) * samples + k + dk;
          if (weight[at] === 0) continue;
          const [x, y] = [da / OVER.rows, dk / OVER.samples];
          const w = weight[at] * Math.exp(-2 * (x * x + y * y));
          cells++;
          quarters |=
            (da <= 0 ? (dk <= 0 ? 1 : 0) | (dk >= 0 ? 2 : 0) : 0) |
            (da >= 0 ? (dk <= 0 ? 4 : 0) | (dk >= 0 ? 8 : 0) : 0);
          const v = value[at];
          w0 += w;
          wx += w * x;
          wy += w * y;
          wxx += w * x * x;
          wxy += w * x * y;
          wyy += w * y * y;
          v0 += w * v;
          vx += w * v * x;
          vy += w * v * y;
        }
      const own = weight[a * samples + k] > 0;
      if (cells < 4 || (!own && quarters !== 15)) continue;
      // a little ridge keeps it from tipping where its cells lie along a line
      const e = 0.02 * w0;
      const [mx, my] = [wx / w0, wy / w0];
      const [sxx, sxy, syy] = [wxx - w0 * mx * mx + e, wxy - w0 * mx * my, wyy - w0 * my * my + e];
      const [sx, sy] = [vx - v0 * mx, vy - v0 * my];
      const det = sxx * syy - sxy * sxy;
      const [gx, gy] = [(sx * syy - sy * sxy) / det, (sy * sxx - sx * sxy) / det];
      across[a * samples + k] = v0 / w0 - gx * mx - gy * my;
    }
  return { along: piece.along, row, rows, sample, samples, across };
}

/** Place in bins of a cell of a sheet. */
export const binsOf = (
  { along, row }: Pick<Sheet, 'along' | 'row'>,
  a: number,
  across: number,
): [i: number, j: number] => (along === 'inline' ? [row + a, across] : [across, row + a]);

/** Rows between sticks, and samples between their points. */
const EVERY = { rows: 2, samples: 5 };

/** Sticks down a sheet, from row to row: map coordinates and TWT or depth. */
export function sticksOf(
  sheet: Sheet,
  grid: BinGrid,
  { first, step }: { first: number; step: number },
): [number, number, number][][] {
  const out: [number, number, number][][] = [];
  const { rows, samples, across } = sheet;
  for (let a = 0; a < rows; a += a + EVERY.rows < rows ? EVERY.rows : Math.max(1, rows - 1 - a)) {
    const known: number[] = [];
    for (let k = 0; k < samples; k++) if (!Number.isNaN(across[a * samples + k])) known.push(k);
    if (known.length >= 3) {
      const stick: [number, number, number][] = [];
      for (let n = 0; n < known.length; n++) {
        if (n % EVERY.samples !== 0 && n !== known.length - 1) continue;
        const k = known[n];
        const [x, y] = toMap(grid, ...binsOf(sheet, a, across[a * samples + k]));
        stick.push([x, y, first + (sheet.sample + k) * step]);
      }
      out.push(stick);
    }
    if (a === rows - 1) break;
  }
  return out;
}

/** Area of a sheet in m², along strike and dip. */
export function areaOf(sheet: Sheet, grid: BinGrid, sampleM: number): number {
  const { rows, samples, across } = sheet;
  const [row, other] =
    sheet.along === 'inline' ? [grid.perInline, grid.perCrossline] : [grid.perCrossline, grid.perInline];
  let area = 0;
  for (let a = 0; a + 1 < rows; a++)
    for (let k = 0; k + 1 < samples; k++) {
      const v = across[a * samples + k];
      const [dr, dk] = [across[(a + 1) * samples + k] - v, across[a * samples + k + 1] - v];
      if (Number.isNaN(dr) || Number.isNaN(dk)) continue;
      const u = [row[0] + dr * other[0], row[1] + dr * other[1], 0];
      const w = [dk * other[0], dk * other[1], sampleM];
      area += Math.hypot(u[1] * w[2] - u[2] * w[1], u[2] * w[0] - u[0] * w[2], u[0] * w[1] - u[1] * w[0]);
    }
  return area;
}
