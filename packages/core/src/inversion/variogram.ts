/** Half the mean square difference of values at places some distance apart. */
export interface Lag {
  distance: number;
  semivariance: number;
  /** Pairs of values that it rests on. */
  pairs: number;
}

export const VARIOGRAMS = ['exponential', 'spherical', 'Gaussian'] as const;
export type VariogramShape = (typeof VARIOGRAMS)[number];

export interface Variogram {
  shape: VariogramShape;
  /** Variance at great distance, and distance (m) at which correlation has fallen to 5 %, or to nothing where it does. */
  sill: number;
  range: number;
}

/** Correlation at a distance (Chilès & Delfiner 2012, Geostatistics, chapter 2). */
export function correlationOf(shape: VariogramShape, range: number, distance: number): number {
  const h = distance / range;
  switch (shape) {
    case 'exponential':
      return Math.exp(-3 * h);
    case 'spherical':
      return h < 1 ? 1 - 1.5 * h + 0.5 * h ** 3 : 0;
    case 'Gaussian':
      return Math.exp(-3 * h * h);
  }
}

export const semivarianceAt = ({ shape, sill, range }: Variogram, distance: number): number =>
  sill * (1 - correlationOf(shape, range, distance));

/** A variogram that was fitted, and how far its sill and range may be off. */
export interface VariogramFit extends Variogram {
  /** Ranges that fit no worse than twice as badly as the best, m. */
  ranges: [number, number];
  misfit: number;
}

/**
 * A variogram through what pairs show, by weighted least squares (Cressie 1985, Mathematical Geology 17, 563–586): for each range that is
 * tried the sill follows.
 * @param farthest range (m) beyond which none is tried
 */
export function fitVariogram(lags: Lag[], shape: VariogramShape, farthest: number): VariogramFit | null {
  const known = lags.filter((l) => l.pairs > 0 && l.distance > 0);
  if (known.length < 3) return null;
  const nearest = Math.min(...known.map((l) => l.distance));
  const tried: { range: number; sill: number; misfit: number }[] = [];
  for (let range = nearest / 2; range <= farthest * 1.0001; range *= 1.08) {
    let [top, below] = [0, 0];
    const rows = known.map((l) => ({ ...l, g: 1 - correlationOf(shape, range, l.distance) }));
    for (const r of rows) {
      top += r.pairs * r.g * r.semivariance;
      below += r.pairs * r.g * r.g;
    }
    const sill = below > 0 ? top / below : 0;
    if (!(sill > 0)) continue;
    const misfit = rows.reduce((s, r) => s + r.pairs * (r.semivariance - sill * r.g) ** 2, 0);
    tried.push({ range, sill, misfit });
  }
  if (tried.length === 0) return null;
  const best = tried.reduce((a, b) => (b.misfit < a.misfit ? b : a));
  const good = tried.filter((t) => t.misfit <= 2 * best.misfit + 1e-12);
  return {
    shape,
    ...best,
    ranges: [Math.min(...good.map((g) => g.range)), Math.max(...good.map((g) => g.range))],
  };
}
