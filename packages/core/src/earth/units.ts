import { LithagonError } from './errors.ts';

/** Factor from a unit to the SI unit of its dimension. */
const FACTORS: Record<string, Record<string, number>> = {
  length: { m: 1, ft: 0.3048, 'us-ft': 1200 / 3937, km: 1000, cm: 0.01, mm: 0.001, in: 0.0254, '0.1in': 0.00254 },
  time: { s: 1, ms: 0.001, us: 1e-6 },
  slowness: { 's/m': 1, 'us/m': 1e-6, 'us/ft': 1e-6 / 0.3048 },
  velocity: { 'm/s': 1, 'ft/s': 0.3048, 'km/s': 1000 },
  density: { 'kg/m3': 1, 'g/cm3': 1000, 'lb/ft3': 16.018463374 },
  pressure: { Pa: 1, kPa: 1e3, MPa: 1e6, bar: 1e5, psi: 6894.757293168 },
  fraction: { '1': 1, '%': 0.01 },
  volume: { m3: 1, stb: 0.158987294928, scf: 0.028316846592, 'acre-ft': 1233.48183754752, bbl: 0.158987294928 },
  angle: { rad: 1, deg: Math.PI / 180, '°': Math.PI / 180 },
  frequency: { Hz: 1 },
  gammaRay: { gAPI: 1 },
  resistivity: { 'ohm.m': 1 },
  permeability: { mD: 1, D: 1000 },
};

/** Spellings met in files, in lower case without blanks. */
const SPELLINGS: Record<string, string> = {
  metre: 'm',
  meter: 'm',
  metres: 'm',
  meters: 'm',
  mts: 'm',
  f: 'ft',
  feet: 'ft',
  foot: 'ft',
  ftus: 'us-ft',
  usft: 'us-ft',
  'us-ft': 'us-ft',
  'us/f': 'us/ft',
  'usec/ft': 'us/ft',
  'µs/ft': 'us/ft',
  'µs/m': 'us/m',
  'usec/m': 'us/m',
  'g/cc': 'g/cm3',
  'g/c3': 'g/cm3',
  'gm/cc': 'g/cm3',
  'g/cm³': 'g/cm3',
  'kg/m³': 'kg/m3',
  'k/m3': 'kg/m3',
  'v/v': '1',
  frac: '1',
  fraction: '1',
  dec: '1',
  'm3/m3': '1',
  unitless: '1',
  pu: '%',
  percent: '%',
  gapi: 'gAPI',
  api: 'gAPI',
  ohmm: 'ohm.m',
  'ohm-m': 'ohm.m',
  'ohm.m': 'ohm.m',
  ohm_m: 'ohm.m',
  'ohm m': 'ohm.m',
  ohm·m: 'ohm.m',
  '.1in': '0.1in',
  '1in': '0.1in',
  inches: 'in',
  inch: 'in',
  sec: 's',
  msec: 'ms',
  deg: 'deg',
  degrees: 'deg',
  dega: 'deg',
  hz: 'Hz',
  hertz: 'Hz',
  kpa: 'kPa',
  mpa: 'MPa',
  pa: 'Pa',
  psia: 'psi',
  millidarcy: 'mD',
  bara: 'bar',
  usfeet: 'us-ft',
  'us-survey-foot': 'us-ft',
};

/** The plain name of a unit as written in a file, or null if it is not known. */
export function unitNamed(text: string): string | null {
  const plain = text.trim().toLowerCase().replace(/\s+/g, '');
  const name = SPELLINGS[plain] ?? plain;
  return dimensionOf(name) ? name : null;
}

export function dimensionOf(unit: string): string | null {
  for (const [dimension, units] of Object.entries(FACTORS)) if (Object.hasOwn(units, unit)) return dimension;
  return null;
}

/** What a value in `from` is multiplied by to be in `to`. Refuses units of different dimensions. */
export function factor(from: string, to: string): number {
  const dimension = dimensionOf(from);
  if (!dimension || dimension !== dimensionOf(to))
    throw new LithagonError('unit', `“${from}” cannot be converted to “${to}”: they measure different things.`);
  return FACTORS[dimension][from] / FACTORS[dimension][to];
}
