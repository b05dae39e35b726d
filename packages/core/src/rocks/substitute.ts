import type { Fluid } from './fluids.ts';

/** A rock as logs see it: m/s and kg/m³. */
export interface Elastic {
  vp: number;
  vs: number;
  density: number;
}

/** Bulk modulus of a saturated rock from its dry frame, Gassmann (1951), Vierteljahrsschrift der Naturforschenden Gesellschaft in Zürich 96, 1–23. Pa; porosity 0 to 1. */
export function saturated(dry: number, mineral: number, fluid: number, porosity: number): number {
  const stiff = 1 - dry / mineral;
  return dry + (stiff * stiff) / (porosity / fluid + (1 - porosity) / mineral - dry / mineral ** 2);
}

/** The dry frame of a saturated rock: Gassmann turned round. Pa. */
export function dryFrame(whole: number, mineral: number, fluid: number, porosity: number): number {
  const a = (porosity * mineral) / fluid;
  return (whole * (a + 1 - porosity) - mineral) / (a + whole / mineral - 1 - porosity);
}

/**
 * The rock with another fluid in its pores: shear modulus and frame stay. Null where the frame that the logs imply is
 * no rock (a bulk modulus below zero or above its mineral's).
 */
export function substituted(
  rock: Elastic,
  porosity: number,
  mineral: number,
  before: Fluid,
  after: Fluid,
): Elastic | null {
  if (!(porosity > 0.005)) return rock;
  const shear = rock.density * rock.vs ** 2;
  const whole = rock.density * rock.vp ** 2 - (4 / 3) * shear;
  const dry = dryFrame(whole, mineral, before.bulk, porosity);
  if (!(dry > 0) || !(dry < mineral)) return null;
  const density = rock.density + porosity * (after.density - before.density);
  const bulk = saturated(dry, mineral, after.bulk, porosity);
  return { vp: Math.sqrt((bulk + (4 / 3) * shear) / density), vs: Math.sqrt(shear / density), density };
}

/** Bulk modulus of a mix of two minerals: the mean of Voigt's and Reuss's bounds (Hill 1952, Proceedings of the Physical Society A 65, 349–354). */
export function hill(a: number, b: number, partOfB: number): number {
  const voigt = a * (1 - partOfB) + b * partOfB;
  const reuss = 1 / ((1 - partOfB) / a + partOfB / b);
  return 0.5 * (voigt + reuss);
}
