export const CURVATURES = [
  'most positive',
  'most negative',
  'mean',
  'Gaussian',
  'maximum',
  'minimum',
  'shape index',
  'curvedness',
  'dip',
  'azimuth',
] as const;
export type Curvature = (typeof CURVATURES)[number];

/** Slopes of a surface z(x, y), z down, and their derivatives along map axes x and y. */
export interface SurfaceBend {
  p: number;
  q: number;
  px: number;
  py: number;
  qx: number;
  qy: number;
}

/**
 * A curvature of a surface from its slopes and their derivatives, of z positive down; positive where it bulges up, as an anticline
 * does. Per metre where slopes are metres a metre; angles in degrees, azimuth clockwise from the y axis towards where it dips.
 * Source: Roberts (2001), First Break 19, 85–100; from slopes in volumes Al-Dossary & Marfurt (2006), Geophysics 71, P41–P51.
 */
export function curvatureOf({ p, q, px, py, qx, qy }: SurfaceBend, kind: Curvature): number {
  if (kind === 'dip') return (Math.atan(Math.hypot(p, q)) * 180) / Math.PI;
  if (kind === 'azimuth') return ((Math.atan2(p, q) * 180) / Math.PI + 360) % 360;
  // z = ax² + by² + cxy + dx + ey + f, both mixed derivatives by their mean
  const [a, b, c] = [px / 2, qy / 2, (py + qx) / 2];
  const [d, e] = [p, q];
  if (kind === 'most positive') return a + b + Math.hypot(a - b, c);
  if (kind === 'most negative') return a + b - Math.hypot(a - b, c);
  const g = 1 + d * d + e * e;
  const mean = (a * (1 + e * e) + b * (1 + d * d) - c * d * e) / g ** 1.5;
  const gauss = (4 * a * b - c * c) / (g * g);
  if (kind === 'mean') return mean;
  if (kind === 'Gaussian') return gauss;
  const root = Math.sqrt(Math.max(0, mean * mean - gauss));
  const [most, least] = [mean + root, mean - root];
  if (kind === 'maximum') return Math.abs(most) >= Math.abs(least) ? most : least;
  if (kind === 'minimum') return Math.abs(most) >= Math.abs(least) ? least : most;
  if (kind === 'curvedness') return Math.hypot(most, least) / Math.SQRT2;
  return most === least ? Math.sign(mean) : (2 / Math.PI) * Math.atan2(most + least, most - least);
}
