import type { BinGrid } from '../earth/binGrid.ts';
import { solve } from '../numerics/leastSquares.ts';
import { heed } from '../numerics/stop.ts';
import { type Curvature, curvatureOf } from './curvature.ts';

/**
 * Dip, azimuth or a curvature of a surface of bins: a parabola z = ax² + by² + cxy + dx + ey + f through the bins within `radius`, by
 * least squares weighed by a Gaussian (Roberts 2001, First Break 19, 85–100). NaN where fewer than six bins say something.
 * @param values `[inline][crossline]`, metres downwards
 */
export function surfaceAttribute(
  values: Float32Array,
  binGrid: BinGrid,
  kind: Curvature,
  radius: number,
): Float32Array {
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const { perInline: a, perCrossline: b } = binGrid;
  const out = new Float32Array(ni * nj).fill(Number.NaN);
  const sigma = Math.max(0.7, radius / 2);
  const scale = Math.max(Math.hypot(...a), Math.hypot(...b));
  for (let i = 0; i < ni; i++) {
    heed();
    for (let j = 0; j < nj; j++) {
      const here = values[i * nj + j];
      if (Number.isNaN(here)) continue;
      const [matrix, right] = [
        Array.from({ length: 6 }, () => new Array<number>(6).fill(0)),
        new Array<number>(6).fill(0),
      ];
      let count = 0;
      for (let di = -radius; di <= radius; di++)
        for (let dj = -radius; dj <= radius; dj++) {
          const [u, v] = [i + di, j + dj];
          if (u < 0 || v < 0 || u >= ni || v >= nj || Number.isNaN(values[u * nj + v])) continue;
          const [x, y] = [(di * a[0] + dj * b[0]) / scale, (di * a[1] + dj * b[1]) / scale];
          const terms = [x * x, y * y, x * y, x, y, 1];
          const w = Math.exp(-(di * di + dj * dj) / (2 * sigma * sigma));
          for (let r = 0; r < 6; r++) {
            for (let c = 0; c < 6; c++) matrix[r][c] += w * terms[r] * terms[c];
            right[r] += w * terms[r] * (values[u * nj + v] - here);
          }
          count++;
        }
      if (count < 6) continue;
      const fit = solve(matrix, right);
      if (!fit) continue;
      const s2 = scale * scale;
      out[i * nj + j] = curvatureOf(
        {
          p: fit[3] / scale,
          q: fit[4] / scale,
          px: (2 * fit[0]) / s2,
          py: fit[2] / s2,
          qx: fit[2] / s2,
          qy: (2 * fit[1]) / s2,
        },
        kind,
      );
    }
  }
  return out;
}
