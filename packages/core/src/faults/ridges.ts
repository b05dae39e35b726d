import type { BinGrid } from '../earth/binGrid.ts';

const RAD = Math.PI / 180;

/**
 * Where strength is greatest across a fault: a sample stays where no strength a bin away on either side, along the dip's azimuth, is
 * above its own; what does not stay is 0 (thinning: Hale 2013, Geophysics 78, O33–O43).
 * @param strength, azimuth blocks of `size` with `around` bins on every side of what is wanted
 */
export function ridgesOf(
  strength: Float32Array,
  azimuth: Float32Array,
  size: [number, number, number],
  around: number,
  grid: BinGrid,
  least: number,
): Float32Array {
  const [mi, mj, nk] = size;
  const [ni, nj] = [mi - 2 * around, mj - 2 * around];
  const out = new Float32Array(ni * nj * nk);
  const [li, lj] = [Math.hypot(...grid.perInline), Math.hypot(...grid.perCrossline)];
  const at = (i: number, j: number, k: number) => {
    const v = strength[(i * mj + j) * nk + k];
    return v === v ? v : 0;
  };
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++)
      for (let k = 0; k < nk; k++) {
        const [bi, bj] = [i + around, j + around];
        const n = (bi * mj + bj) * nk + k;
        const own = strength[n];
        if (!(own >= least) || own === 0) continue;
        const a = azimuth[n] * RAD;
        const towards = [Math.sin(a), Math.cos(a)];
        // one bin along the axis that the azimuth is nearer to, less than one along the other
        let ui = (towards[0] * grid.perInline[0] + towards[1] * grid.perInline[1]) / li;
        let uj = (towards[0] * grid.perCrossline[0] + towards[1] * grid.perCrossline[1]) / lj;
        const most = Math.max(Math.abs(ui), Math.abs(uj));
        ui /= most;
        uj /= most;
        let ridge = true;
        for (const s of [-1, 1]) {
          const [x, y] = [bi + s * ui, bj + s * uj];
          // one of the two is whole: a straight line between two bins
          const [x0, y0] = [Math.floor(x), Math.floor(y)];
          const [fx, fy] = [x - x0, y - y0];
          const [x1, y1] = [Math.min(mi - 1, x0 + (fx > 0 ? 1 : 0)), Math.min(mj - 1, y0 + (fy > 0 ? 1 : 0))];
          const side =
            (1 - fx) * ((1 - fy) * at(x0, y0, k) + fy * at(x0, y1, k)) +
            fx * ((1 - fy) * at(x1, y0, k) + fy * at(x1, y1, k));
          // of two that are alike one stays
          if (side > own || (side === own && s < 0)) ridge = false;
        }
        if (ridge) out[(i * nj + j) * nk + k] = own;
      }
  return out;
}
