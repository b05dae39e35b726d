import type { CurveClass } from '../earth/objects.ts';
import { dimensionOf, unitNamed } from '../earth/units.ts';

const BY_NAME: [CurveClass, RegExp][] = [
  ['shear sonic', /^(dts|acs|shear|vs|dtsm?)/],
  ['gamma ray', /^(gr|gam|cgr|sgr)/],
  ['sonic', /^(dt|ac|sonic|son|dtc)/],
  ['density', /^(rhob|den|rho|zden)/],
  ['neutron', /^(nphi|neut|npor|cn|tnph)/],
  ['caliper', /^(cal)/],
  ['density correction', /^(drho|dcor|hdra|zcor)/],
  ['resistivity', /^(rt|rd|res|ild|lld|rdeep)/],
];

/** Units that a class of curve may have; a name alone is not believed against its unit. */
const DIMENSION: Partial<Record<CurveClass, string[]>> = {
  sonic: ['slowness'],
  'shear sonic': ['slowness'],
  density: ['density'],
  neutron: ['fraction'],
  caliper: ['length'],
  'density correction': ['density'],
  resistivity: ['resistivity'],
  'gamma ray': ['gammaRay'],
};

/**
 * What a curve is, from its mnemonic and unit together.
 * @param given classes that people gave to mnemonics, which go before
 */
export function classOfCurve(mnemonic: string, unit: string, given?: Record<string, CurveClass>): CurveClass {
  const name = mnemonic.toLowerCase();
  if (given && Object.hasOwn(given, name)) return given[name];
  const known = unitNamed(unit);
  const dimension = known ? dimensionOf(known) : null;
  for (const [curve, pattern] of BY_NAME)
    if (pattern.test(name) && (dimension === null || DIMENSION[curve]?.includes(dimension))) return curve;
  return 'other';
}

/** The unit in which a class of curve is kept. */
export const CURVE_UNIT: Partial<Record<CurveClass, string>> = {
  sonic: 'us/m',
  'shear sonic': 'us/m',
  density: 'kg/m3',
  neutron: '1',
  caliper: 'm',
  resistivity: 'ohm.m',
  'gamma ray': 'gAPI',
  'density correction': 'kg/m3',
  'shale volume': '1',
  porosity: '1',
  'effective porosity': '1',
  'water saturation': '1',
  'P impedance': 'kg/m²s',
  'S impedance': 'kg/m²s',
};
