import { extentOf } from '../numerics/extent.ts';

/** Contacts where pressure gradients meet, in metres below the datum, each with the range that the data allow. */
export interface ContactFit {
  goc: number | null;
  owc: number;
  gocRange: [number, number] | null;
  owcRange: [number, number];
  /** rms misfit in Pa. */
  rms: number;
}

const G = 9.80665;

/**
 * Fit a continuous column of gas over oil over water to formation pressures: gradients come from the fluids' own
 * densities, and where they meet is found by least squares. Ranges are those of the contacts for which the misfit
 * grows by no more than four standard errors squared (about 95 %).
 * @param points depth below the datum (m) and pressure (Pa)
 * @param density of gas (or null where there is none), oil and water, kg/m³
 */
export function contactsFromPressures(
  points: { z: number; p: number }[],
  density: { gas: number | null; oil: number; water: number },
): ContactFit | null {
  if (points.length < 4) return null;
  const zs = points.map((q) => q.z);
  const [low, high] = extentOf(zs);
  const step = Math.max(0.25, (high - low) / 240);
  const grid: number[] = [];
  for (let z = low - 5; z <= high + 40; z += step) grid.push(z);
  const misfit = (goc: number | null, owc: number): number => {
    // pressure relative to that at the water contact, which is the one free number
    const shape = (z: number) => {
      if (z >= owc) return density.water * G * (z - owc);
      if (goc === null || z >= goc) return density.oil * G * (z - owc);
      return density.oil * G * (goc - owc) + (density.gas ?? 0) * G * (z - goc);
    };
    let mean = 0;
    for (const q of points) mean += (q.p - shape(q.z)) / points.length;
    let sum = 0;
    for (const q of points) sum += (q.p - shape(q.z) - mean) ** 2;
    return sum;
  };
  const all: { goc: number | null; owc: number; sum: number }[] = [];
  const gocs = density.gas === null ? [null] : grid;
  for (const goc of gocs)
    for (const owc of grid) if (goc === null || owc > goc + 1) all.push({ goc, owc, sum: misfit(goc, owc) });
  const best = all.reduce((a, b) => (b.sum < a.sum ? b : a));
  const variance = best.sum / Math.max(1, points.length - 3);
  const allowed = all.filter((a) => a.sum <= best.sum + 4 * variance);
  return {
    goc: best.goc,
    owc: best.owc,
    gocRange: best.goc === null ? null : extentOf(allowed.map((a) => a.goc as number)),
    owcRange: extentOf(allowed.map((a) => a.owc)),
    rms: Math.sqrt(best.sum / points.length),
  };
}
