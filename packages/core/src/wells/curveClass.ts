import type { CurveClass } from '../earth/objects.ts';
import { quantityFacts } from '../earth/quantities.ts';
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

/**
 * What a curve is, from its mnemonic and unit together.
 * @param given classes that people gave to mnemonics, which go before
 */
export function classOfCurve(mnemonic: string, unit: string, given?: Record<string, CurveClass>): CurveClass {
  const name = mnemonic.toLowerCase();
  if (given && Object.hasOwn(given, name)) return given[name];
  const known = unitNamed(unit);
  const dimension = known ? dimensionOf(known) : null;
  // a name alone is not believed against its unit
  for (const [curve, pattern] of BY_NAME)
    if (pattern.test(name) && (dimension === null || dimensionOf(quantityFacts(curve).unit) === dimension))
      return curve;
  return 'other';
}

/** The unit in which a class of curve is kept, where it has one. */
export const curveUnit = (cls: CurveClass): string | undefined =>
  (cls === 'other' ? '' : quantityFacts(cls).unit) || undefined;
