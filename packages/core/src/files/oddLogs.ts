import type { Units } from '../earth/display.ts';
import type { CurveClass, EarthObject, Well } from '../earth/objects.ts';
import { dimensionOf, unitNamed } from '../earth/units.ts';
import type { LasCurve, LasFile } from '../formats/las/parse.ts';
import { classOfCurve, curveUnit } from '../wells/curveClass.ts';

/** No well is deeper than this along its path, m. */
const DEEPEST_M = 16_000;
/** How much deeper than its well logs may go without its being said, m. */
const BELOW_M = 5;

/** The unit that a curve's numbers are read in, and what is to be said of that. */
export interface CurveUnit {
  unit: string | null;
  says: string | null;
}

const median = (values: Float64Array) => {
  const known = values.filter((v) => !Number.isNaN(v)).sort();
  return known[known.length >> 1] ?? Number.NaN;
};

/** What numbers without a unit can only be: densities about two are in g/cm³, porosities about twenty in per cent. */
function unitByValues(wanted: string, values: Float64Array): string | null {
  const middle = median(values);
  if (wanted === 'kg/m3' && middle > 0.8 && middle < 6) return 'g/cm3';
  if (wanted === '1' && middle > 1.5) return '%';
  return null;
}

/** In which unit the numbers of a curve are, by what it says, and by its values where it says nothing. */
export function unitOfCurve({ mnemonic, unit, values }: LasCurve, cls: CurveClass): CurveUnit {
  const wanted = curveUnit(cls);
  const said = unitNamed(unit);
  if (!wanted || (said && dimensionOf(said) === dimensionOf(wanted))) return { unit: said, says: null };
  const found = unitByValues(wanted, values);
  const shown = wanted === '1' ? 'fractions' : wanted;
  if (unit.trim() === '')
    return {
      unit: found,
      says: `${mnemonic} has no unit: its numbers were taken as ${found ?? shown}${found ? ', by their size' : ''}.`,
    };
  return {
    unit: null,
    says: `${mnemonic} is in “${unit}”, which is no unit of ${cls} that is known: its numbers were taken as ${shown}.`,
  };
}

/** What is odd about a set of logs: units, and depths that no well has, or that its own has not. */
export function oddLogs(
  las: LasFile,
  well: string,
  objects: EarthObject[],
  units: Units,
  classes?: Record<string, CurveClass>,
): string[] {
  const out: string[] = [];
  for (const curve of las.curves) {
    const { says } = unitOfCurve(curve, classOfCurve(curve.mnemonic, curve.unit, classes));
    if (says) out.push(says);
  }
  const deepest = las.depthM[las.depthM.length - 1];
  const total = objects.find((o): o is Well => o.kind === 'well' && o.name === well)?.totalMdM;
  if (deepest > DEEPEST_M)
    out.push(
      `Its depths go to ${units.text(deepest, 'm', 0)}, deeper than any well: their unit (${las.depthUnit}) may be wrong.`,
    );
  else if (total !== undefined && deepest > total + BELOW_M)
    out.push(
      `Its depths go to ${units.text(deepest, 'm', 1)}, below the total depth of ${well}, ${units.text(total, 'm', 1)} MD.`,
    );
  return out;
}
