/** Shale volume from gamma ray, linear between clean and shale, 0 to 1. */
export function shaleVolume(gammaRay: number, clean: number, shale: number): number {
  return Math.max(0, Math.min(1, (gammaRay - clean) / (shale - clean)));
}

/** Porosity from bulk density (kg/m³) with grain and fluid density; not cut off at 0. */
export function densityPorosity(bulk: number, grain: number, fluid: number): number {
  return (grain - bulk) / (grain - fluid);
}

/** Water saturation of clean rock, Archie (1942), Transactions of the AIME 146, 54–62, with a = 1; 0 to 1. */
export function archie(resistivity: number, porosity: number, water: number, m = 2, n = 2): number {
  if (!(porosity > 0) || !(resistivity > 0)) return Number.NaN;
  return Math.min(1, (water / (resistivity * porosity ** m)) ** (1 / n));
}

/** Porosity and water saturation that density and resistivity agree on. */
export interface PoreFill {
  porosity: number;
  water: number;
}

/**
 * Solve density porosity and Archie together: what fills the pores weighs on the density, and porosity decides the
 * saturation. The rock is taken as not invaded.
 * @param hydrocarbon, brine densities, kg/m³; @param waterOhmM resistivity of the brine
 */
export function poreFill(
  bulk: number,
  resistivity: number,
  rock: { grain: number; hydrocarbon: number; brine: number; waterOhmM: number },
): PoreFill {
  let water = 1;
  let porosity = densityPorosity(bulk, rock.grain, rock.brine);
  for (let n = 0; n < 60; n++) {
    porosity = densityPorosity(bulk, rock.grain, water * rock.brine + (1 - water) * rock.hydrocarbon);
    const next = archie(resistivity, porosity, rock.waterOhmM);
    if (Number.isNaN(next)) return { porosity: Math.max(0, porosity), water: 1 };
    if (Math.abs(next - water) < 1e-9) break;
    water = 0.5 * (water + next);
  }
  return { porosity, water };
}
