/** S velocity of brine-filled mudrock from its P velocity (m/s), Castagna, Batzle & Eastwood (1985), Geophysics 50, 571–581. */
export function mudrockVs(vp: number): number {
  return (vp - 1360) / 1.16;
}

/** Minerals of Greenberg & Castagna (1992), Geophysical Prospecting 40, 195–209: Vs = a·Vp² + b·Vp + c in km/s. */
const TRENDS = {
  sandstone: [0, 0.80416, -0.85588],
  limestone: [-0.05508, 1.01677, -1.03049],
  dolomite: [0, 0.58321, -0.07775],
  shale: [0, 0.76969, -0.86735],
} as const;
export type Mineral = keyof typeof TRENDS;

/** S velocity (m/s) of a brine-filled mix of minerals: the mean of the arithmetic and harmonic means of their trends. */
export function greenbergCastagna(vp: number, fractions: Partial<Record<Mineral, number>>): number {
  const km = vp / 1000;
  let [sum, even, slow] = [0, 0, 0];
  for (const [mineral, part] of Object.entries(fractions) as [Mineral, number][]) {
    if (!(part > 0)) continue;
    const [a, b, c] = TRENDS[mineral];
    const vs = a * km * km + b * km + c;
    sum += part;
    even += part * vs;
    slow += part / vs;
  }
  return sum > 0 ? 500 * (even / sum + sum / slow) : Number.NaN;
}

/** Elastic moduli (Pa) and Poisson's ratio from velocities and density. */
export function moduli(vp: number, vs: number, density: number) {
  const shear = density * vs * vs;
  const bulk = density * vp * vp - (4 / 3) * shear;
  return {
    bulk,
    shear,
    lambda: bulk - (2 / 3) * shear,
    young: (9 * bulk * shear) / (3 * bulk + shear),
    poisson: (3 * bulk - 2 * shear) / (2 * (3 * bulk + shear)),
  };
}
