import type { Frame } from './objects.ts';

/** The unit that a quantity kept in an SI unit is shown in, and what its values are multiplied by. */
interface Shown {
  unit: string;
  factor: number;
}

const FOOT = 0.3048;
const BARREL = 0.158987294928;
const CUBIC_FOOT = 0.028316846592;

/** Units for each unit that is kept inside; what is not here is shown as it is kept. */
const METRIC: Record<string, Shown> = {
  'us/m': { unit: 'µs/m', factor: 1 },
  'kg/m3': { unit: 'kg/m³', factor: 1 },
  Pa: { unit: 'MPa', factor: 1e-6 },
};
/** Units of the trade. */
const FIELD: Record<string, Shown> = {
  m: { unit: 'ft', factor: 1 / FOOT },
  'm TVDSS': { unit: 'ft TVDSS', factor: 1 / FOOT },
  'm MD': { unit: 'ft MD', factor: 1 / FOOT },
  'm/s': { unit: 'ft/s', factor: 1 / FOOT },
  'us/m': { unit: 'µs/ft', factor: FOOT },
  'kg/m3': { unit: 'g/cm³', factor: 1e-3 },
  'kg/m³': { unit: 'g/cm³', factor: 1e-3 },
  'kg/m²s': { unit: 'ft/s·g/cm³', factor: 1e-3 / FOOT },
  Pa: { unit: 'psi', factor: 1 / 6894.757293168 },
  'm²': { unit: 'acre', factor: 1 / 4046.8564224 },
  'm³': { unit: 'acre-ft', factor: 1 / 1233.48183754752 },
  'Sm³': { unit: 'stb', factor: 1 / BARREL },
  'Sm³ oil': { unit: 'stb', factor: 1 / BARREL },
  'Sm³ gas': { unit: 'scf', factor: 1 / CUBIC_FOOT },
};

/** How quantities read on screens and in text: SI inside, these at the edge. */
export interface Units {
  /** The unit that values kept in an SI unit are shown in. */
  of(si: string): string;
  /** A value for the screen. */
  to(value: number, si: string): number;
  /** A value from the screen, back in the SI unit. */
  from(shown: number, si: string): number;
  /** A value with its unit. */
  text(value: number, si: string, places?: number): string;
}

export function unitsOf(frame: Pick<Frame, 'display'> | null): Units {
  const table = frame?.display === 'field' ? FIELD : METRIC;
  const shown = (si: string): Shown => (Object.hasOwn(table, si) ? table[si] : { unit: si, factor: 1 });
  return {
    of: (si) => shown(si).unit,
    to: (value, si) => value * shown(si).factor,
    from: (value, si) => value / shown(si).factor,
    text: (value, si, places = 1) =>
      `${(value * shown(si).factor).toFixed(places).replace('-', '−')} ${shown(si).unit}`.trim(),
  };
}
