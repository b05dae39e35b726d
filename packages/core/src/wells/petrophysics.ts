/** How shale volume follows the gamma-ray index between clean and shale, 0 to 1. */
export const SHALE_LAWS = {
  linear: (i: number) => i,
  /** Larionov (1969), Borehole Radiometry, Nedra: Tertiary rocks. */
  'Larionov, young rocks': (i: number) => 0.083 * (2 ** (3.7 * i) - 1),
  /** Larionov (1969): older rocks. */
  'Larionov, old rocks': (i: number) => 0.33 * (2 ** (2 * i) - 1),
  /** Clavier, Hoyle & Meunier (1971), Journal of Petroleum Technology 23, 743–763. */
  Clavier: (i: number) => 1.7 - Math.sqrt(3.38 - (i + 0.7) ** 2),
  /** Steiber (1970), SPWLA 11th Annual Logging Symposium. */
  Steiber: (i: number) => i / (3 - 2 * i),
} as const;
export type ShaleLaw = keyof typeof SHALE_LAWS;

/** Shale volume from gamma ray between its clean and shale values, 0 to 1. */
export function shaleVolume(gammaRay: number, clean: number, shale: number, law: ShaleLaw = 'linear'): number {
  const index = Math.max(0, Math.min(1, (gammaRay - clean) / (shale - clean)));
  return Math.max(0, Math.min(1, SHALE_LAWS[law](index)));
}

/** Porosity from bulk density (kg/m³) with grain and fluid density; not cut off at 0. */
export function densityPorosity(bulk: number, grain: number, fluid: number): number {
  return (grain - bulk) / (grain - fluid);
}

/** Porosity from slowness, Wyllie, Gregory & Gardner (1956), Geophysics 21, 41–70; all in one unit. */
export function wylliePorosity(slowness: number, matrix: number, fluid: number): number {
  return (slowness - matrix) / (fluid - matrix);
}

/**
 * Porosity from slowness, Raymer, Hunt & Gardner (1980), SPWLA 21st Symposium: v = (1 − φ)²·v_matrix + φ·v_fluid, its
 * root below 37 %. NaN where no porosity gives that slowness.
 */
export function raymerPorosity(slowness: number, matrix: number, fluid: number): number {
  const [v, vm, vf] = [1 / slowness, 1 / matrix, 1 / fluid];
  // vm·φ² + (vf − 2·vm)·φ + (vm − v) = 0
  const [b, c] = [vf - 2 * vm, vm - v];
  const root = b * b - 4 * vm * c;
  return root < 0 ? Number.NaN : (-b - Math.sqrt(root)) / (2 * vm);
}

/** Porosity from neutron and density together: their mean, or in gas, where neutron reads less, the root of their mean square. */
export function neutronDensityPorosity(neutron: number, density: number): number {
  return neutron >= density ? 0.5 * (neutron + density) : Math.sqrt(0.5 * (neutron ** 2 + density ** 2));
}

/** Porosity without the water bound in shale. @param shalePorosity total porosity of the shale itself */
export function effectivePorosity(total: number, shale: number, shalePorosity: number): number {
  return Math.max(0, total - shale * shalePorosity);
}

/** What saturation equations need besides the logs. */
export interface Electric {
  /** Resistivity of the brine at the formation's temperature, ohm·m. */
  water: number;
  /** Resistivity of the shale, ohm·m. */
  shale: number;
  a: number;
  m: number;
  n: number;
}

/** Water saturation of clean rock, Archie (1942), Transactions of the AIME 146, 54–62; 0 to 1. */
export function archie(resistivity: number, porosity: number, water: number, m = 2, n = 2, a = 1): number {
  if (!(porosity > 0) || !(resistivity > 0)) return Number.NaN;
  return Math.min(1, ((a * water) / (resistivity * porosity ** m)) ** (1 / n));
}

/** Water saturation of shaly sand, Simandoux (1963), Revue de l'Institut Français du Pétrole, supplément; n = 2; 0 to 1. */
export function simandoux(resistivity: number, porosity: number, shale: number, e: Electric): number {
  if (!(porosity > 0) || !(resistivity > 0)) return Number.NaN;
  const c = (a: number) => a / e.shale;
  const f = porosity ** e.m / (e.a * e.water);
  const shaly = c(shale);
  return Math.min(1, (Math.sqrt(shaly * shaly + (4 * f) / resistivity) - shaly) / (2 * f));
}

/** Water saturation of shaly sand with fresh brine, Poupon & Leveaux (1971), SPWLA 12th Symposium (“Indonesia”); 0 to 1. */
export function indonesia(resistivity: number, porosity: number, shale: number, e: Electric): number {
  if (!(porosity > 0) || !(resistivity > 0)) return Number.NaN;
  const conducts = shale ** (1 - shale / 2) / Math.sqrt(e.shale) + porosity ** (e.m / 2) / Math.sqrt(e.a * e.water);
  return Math.min(1, (1 / (Math.sqrt(resistivity) * conducts)) ** (2 / e.n));
}

export const SATURATIONS = {
  Archie: (rt: number, phi: number, _shale: number, e: Electric) => archie(rt, phi, e.water, e.m, e.n, e.a),
  Simandoux: simandoux,
  Indonesia: indonesia,
} as const;
export type SaturationLaw = keyof typeof SATURATIONS;

/** Porosity and water saturation that density and resistivity agree on. */
export interface PoreFill {
  porosity: number;
  water: number;
}

/**
 * Solve density porosity and Archie together: what fills the pores weighs on the density, and porosity decides the
 * saturation. The rock is taken as not invaded.
 * @param rock densities of grains, hydrocarbon and brine (kg/m³), resistivity of the brine (ohm·m), Archie's m, n and a
 */
export function poreFill(
  bulk: number,
  resistivity: number,
  rock: { grain: number; hydrocarbon: number; brine: number; waterOhmM: number; m?: number; n?: number; a?: number },
): PoreFill {
  let water = 1;
  let porosity = densityPorosity(bulk, rock.grain, rock.brine);
  for (let n = 0; n < 60; n++) {
    porosity = densityPorosity(bulk, rock.grain, water * rock.brine + (1 - water) * rock.hydrocarbon);
    const next = archie(resistivity, porosity, rock.waterOhmM, rock.m, rock.n, rock.a);
    if (Number.isNaN(next)) return { porosity: Math.max(0, porosity), water: 1 };
    if (Math.abs(next - water) < 1e-9) break;
    water = 0.5 * (water + next);
  }
  return { porosity, water };
}

/** Cutoffs that make rock reservoir, and reservoir pay. */
export interface Cutoffs {
  mostShale: number;
  leastPorosity: number;
  mostWater: number;
}

/** 0 no reservoir, 1 reservoir, 2 pay; NaN where shale volume or porosity is not known. */
export function netFlag(shale: number, porosity: number, water: number, c: Cutoffs): number {
  if (Number.isNaN(shale + porosity)) return Number.NaN;
  if (shale > c.mostShale || porosity < c.leastPorosity) return 0;
  return water <= c.mostWater ? 2 : 1;
}

/** A value below which a part of a curve lies; NaN is left out. */
export function quantile(values: ArrayLike<number>, part: number): number {
  const sorted = Float64Array.from(values)
    .filter((v) => !Number.isNaN(v))
    .sort();
  if (sorted.length === 0) return Number.NaN;
  const at = part * (sorted.length - 1);
  const n = Math.floor(at);
  return sorted[n] + (at - n) * ((sorted[n + 1] ?? sorted[n]) - sorted[n]);
}
