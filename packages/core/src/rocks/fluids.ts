/**
 * Density and bulk modulus of brine, gas and oil in the pores, after Batzle & Wang (1992), Geophysics 57, 1396–1408.
 * Their formulae take MPa, °C and g/cm³; here pressures are Pa, temperatures °C, densities kg/m³ and moduli Pa.
 */
export interface Fluid {
  /** kg/m³. */
  density: number;
  /** Pa. */
  bulk: number;
}

/** Velocity of sound in pure water, m/s: coefficients `[power of T][power of P]` (their Table 1). */
const WATER = [
  [1402.85, 1.524, 3.437e-3, -1.197e-5],
  [4.871, -0.0111, 1.739e-4, -1.628e-6],
  [-0.04783, 2.747e-4, -2.135e-6, 1.237e-8],
  [1.487e-4, -6.503e-7, -1.455e-8, 1.327e-10],
  [-2.197e-7, 7.987e-10, 5.23e-11, -4.614e-13],
];

/** Brine at a pressure (Pa), a temperature (°C) and a salinity (mass fraction of sodium chloride, 0 to about 0.3). */
export function brine(pressurePa: number, t: number, s: number): Fluid {
  const p = pressurePa * 1e-6;
  const water =
    1 +
    1e-6 *
      (-80 * t -
        3.3 * t ** 2 +
        0.00175 * t ** 3 +
        489 * p -
        2 * t * p +
        0.016 * t ** 2 * p -
        1.3e-5 * t ** 3 * p -
        0.333 * p ** 2 -
        0.002 * t * p ** 2);
  const density =
    water +
    s * (0.668 + 0.44 * s + 1e-6 * (300 * p - 2400 * p * s + t * (80 + 3 * t - 3300 * s - 13 * p + 47 * p * s)));
  let pure = 0;
  for (let i = 0; i < 5; i++) for (let j = 0; j < 4; j++) pure += WATER[i][j] * t ** i * p ** j;
  const v =
    pure +
    s * (1170 - 9.6 * t + 0.055 * t ** 2 - 8.5e-5 * t ** 3 + 2.6 * p - 0.0029 * t * p - 0.0476 * p ** 2) +
    s ** 1.5 * (780 - 10 * p + 0.16 * p ** 2) -
    820 * s ** 2;
  return { density: 1000 * density, bulk: 1000 * density * v * v };
}

/** Gas of a gravity (its density over that of air at 15.6 °C and 1 atm). */
export function gas(pressurePa: number, t: number, gravity: number): Fluid {
  const p = pressurePa * 1e-6;
  const kelvin = t + 273.15;
  const pr = p / (4.892 - 0.4048 * gravity);
  const tr = kelvin / (94.72 + 170.75 * gravity);
  const a = 0.03 + 0.00527 * (3.5 - tr) ** 3;
  const slope = 0.45 + 8 * (0.56 - 1 / tr) ** 2;
  const bell = 0.109 * (3.85 - tr) ** 2 * Math.exp((-slope * pr ** 1.2) / tr);
  const z = a * pr + (0.642 * tr - 0.007 * tr ** 4 - 0.52) + bell;
  const dz = a - (bell * 1.2 * slope * pr ** 0.2) / tr;
  const heat = 0.85 + 5.6 / (pr + 2) + 27.1 / (pr + 3.5) ** 2 - 8.7 * Math.exp(-0.65 * (pr + 1));
  const density = (28.8 * gravity * p) / (z * 8.31441 * kelvin);
  return { density: 1000 * density, bulk: ((p * heat) / (1 - (pr / z) * dz)) * 1e6 };
}

/** Most gas (volume at the surface over volume of oil) that oil of a density can hold at a pressure. */
export function mostDissolved(pressurePa: number, t: number, oilDensity: number, gravity: number): number {
  const api = 141.5 / (oilDensity / 1000) - 131.5;
  return 2.03 * gravity * (pressurePa * 1e-6 * Math.exp(0.02878 * api - 0.00377 * t)) ** 1.205;
}

/**
 * Oil, dead or live.
 * @param surfaceDensity kg/m³ at 15.6 °C and 1 atm
 * @param ratio dissolved gas, volume at the surface over volume of oil; 0 for dead oil
 * @param gravity of that gas
 */
export function oil(pressurePa: number, t: number, surfaceDensity: number, ratio = 0, gravity = 0.7): Fluid {
  const p = pressurePa * 1e-6;
  const rho0 = surfaceDensity / 1000;
  const pressed = (rho: number) => rho + (0.00277 * p - 1.71e-7 * p ** 3) * (rho - 1.15) ** 2 + 3.49e-4 * p;
  const velocity = (rho: number) =>
    2096 * Math.sqrt(rho / (2.6 - rho)) - 3.7 * t + 4.64 * p + 0.0115 * (4.12 * Math.sqrt(1.08 / rho - 1) - 1) * t * p;
  if (ratio <= 0) {
    const density = pressed(rho0) / (0.972 + 3.81e-4 * (t + 17.78) ** 1.175);
    return { density: 1000 * density, bulk: 1000 * density * velocity(rho0) ** 2 };
  }
  const swell = 0.972 + 3.8e-4 * (2.4 * ratio * Math.sqrt(gravity / rho0) + t + 17.8) ** 1.175;
  const density = pressed((rho0 + 0.0012 * gravity * ratio) / swell);
  const pseudo = rho0 / swell / (1 + 0.001 * ratio);
  return { density: 1000 * density, bulk: 1000 * density * velocity(pseudo) ** 2 };
}

/** How fluids share the pores: evenly at the finest scale (Wood 1955), or in patches (Brie et al. 1995, SPE 30595). */
export type Mixing = { law: 'wood' } | { law: 'brie'; exponent: number };

/** Fluids in the pores together; the saturations sum to 1. `gas` tells which of them is gas, for Brie's law. */
export function mixed(parts: { fluid: Fluid; saturation: number; gas?: boolean }[], mixing: Mixing): Fluid {
  const density = parts.reduce((s, p) => s + p.saturation * p.fluid.density, 0);
  const wood = (some: typeof parts) => {
    const whole = some.reduce((s, p) => s + p.saturation, 0);
    return whole > 0 ? whole / some.reduce((s, p) => s + p.saturation / p.fluid.bulk, 0) : 0;
  };
  if (mixing.law === 'wood') return { density, bulk: wood(parts) };
  const gases = parts.filter((p) => p.gas && p.saturation > 0);
  const liquids = parts.filter((p) => !p.gas && p.saturation > 0);
  if (gases.length === 0 || liquids.length === 0) return { density, bulk: wood(parts) };
  const filled = liquids.reduce((s, p) => s + p.saturation, 0);
  const light = wood(gases);
  return { density, bulk: (wood(liquids) - light) * filled ** mixing.exponent + light };
}
