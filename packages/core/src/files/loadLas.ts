import { type Units, unitsOf } from '../earth/display.ts';
import { LithagonError } from '../earth/errors.ts';
import type { Logs } from '../earth/objects.ts';
import { dimensionOf, factor } from '../earth/units.ts';
import { type LasFile, parseLas } from '../formats/las/parse.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import { writeWhole } from '../storage/arrays.ts';
import { classOfCurve, curveUnit } from '../wells/curveClass.ts';
import type { Loaded, Loading } from './loading.ts';
import { wellNamed } from './names.ts';
import { oddLogs, unitOfCurve } from './oddLogs.ts';

/** Logs of a well, on a regular depth axis in metres, each curve in the unit of its class. */
export async function objectsOfLas(loading: Loading, text: string): Promise<Loaded> {
  const sets = parseLas(loading.source.name, text);
  const objects: Logs[] = [];
  for (const set of sets) objects.push(await logsOfSet(loading, text, set, sets.length, objects));
  return { objects, warnings: objects.flatMap((o) => o.madeBy.warnings) };
}

/** Samples that a regular axis may have, for each depth of the file and at least: a few close depths must not make more. */
const MOST_EACH = 20;
const MOST_ALWAYS = 200_000;

/** The regular axis that curves are worked with on: of the step that most depths have, whatever lies between. */
function axisOf({ depthM, stepM: usualM }: LasFile) {
  const firstM = depthM[0];
  const span = depthM[depthM.length - 1] - firstM;
  const stepM = Math.max(usualM, span / Math.max(MOST_ALWAYS, MOST_EACH * depthM.length));
  const count = Math.round(span / stepM) + 1;
  let [off, gaps, longestM] = [0, 0, 0];
  for (let n = 0; n < depthM.length; n++) {
    const at = (depthM[n] - firstM) / stepM;
    if (Math.abs(at - Math.round(at)) > 0.3) off++;
    const step = n > 0 ? depthM[n] - depthM[n - 1] : 0;
    if (step > GAP * stepM) {
      gaps++;
      longestM = Math.max(longestM, step);
    }
  }
  return { firstM, stepM, count, off, uneven: off > 0, gaps, longestM };
}

/** How many steps between two depths are a gap, across which nothing is drawn. */
const GAP = 3.5;

/** What is odd about the depths of a set, as sentences. */
export function depthNotes(las: LasFile, units: Units): string[] {
  const { off, uneven, gaps, longestM, stepM } = axisOf(las);
  const out: string[] = [];
  if (uneven)
    out.push(
      `${off} depths are off a regular step; curves are drawn and worked with on one of ${units.text(stepM, 'm', 4)}, and leave with the depths that they came with.`,
    );
  if (gaps > 0)
    out.push(
      `There ${gaps === 1 ? 'is a gap' : `are ${gaps} gaps`} in the depths (the longest of ${units.text(longestM, 'm', 1)}), in which the curves are empty.`,
    );
  return out;
}

/** A curve on a regular axis: the value at a depth, or between two that lie close; empty where there is none near. */
function onAxis(
  depthM: Float64Array,
  values: Float64Array,
  { firstM, stepM, count, uneven }: ReturnType<typeof axisOf>,
  scale: number,
): Float32Array {
  const out = new Float32Array(count).fill(Number.NaN);
  if (!uneven) {
    for (let n = 0; n < depthM.length; n++) out[Math.round((depthM[n] - firstM) / stepM)] = values[n] * scale;
    return out;
  }
  for (let k = 0, s = 0; k < count; k++) {
    const depth = firstM + k * stepM;
    while (s < depthM.length - 2 && depthM[s + 1] < depth) s++;
    const step = depthM[s + 1] - depthM[s];
    const f = Math.min(1, Math.max(0, (depth - depthM[s]) / step));
    if (step <= GAP * stepM)
      out[k] = (f === 0 ? values[s] : f === 1 ? values[s + 1] : values[s] * (1 - f) + values[s + 1] * f) * scale;
    else if (f * step < 0.5 * stepM) out[k] = values[s] * scale;
    else if ((1 - f) * step < 0.5 * stepM) out[k] = values[s + 1] * scale;
  }
  return out;
}

async function logsOfSet(loading: Loading, text: string, las: LasFile, sets: number, before: Logs[]): Promise<Logs> {
  const { declare, started, store, ids } = loading;
  const file = loading.source.name;
  const well = wellNamed(declare, declare.well || las.well);
  if (!well)
    throw new LithagonError('las', `${file} does not name its well.`, { object: file, fix: 'Declare well=NAME.' });
  const id = newId('logs');
  ids.push(id);
  const warnings = [...las.warnings];
  const { curveClasses: classes, frame } = await store.facts();
  const axis = axisOf(las);
  const { firstM, stepM, count: n } = axis;
  const units = unitsOf(frame);
  warnings.push(...depthNotes(las, units), ...oddLogs(las, well, loading.objects, units, classes));
  const curves: Logs['curves'] = [];
  for (const curve of las.curves) {
    const cls = classOfCurve(curve.mnemonic, curve.unit, classes);
    const from = unitOfCurve(curve, cls).unit;
    const unit = curveUnit(cls) ?? from ?? curve.unit;
    const scale = from && dimensionOf(from) === dimensionOf(unit) && dimensionOf(unit) ? factor(from, unit) : 1;
    const data = onAxis(las.depthM, curve.values, axis, scale);
    let min = Number.POSITIVE_INFINITY;
    let max = Number.NEGATIVE_INFINITY;
    let nulls = 0;
    for (const value of data) {
      if (Number.isNaN(value)) nulls++;
      else {
        min = Math.min(min, value);
        max = Math.max(max, value);
      }
    }
    const key = `${id}/${curves.length}`;
    curves.push({
      mnemonic: curve.mnemonic.slice(0, 60),
      class: cls,
      unit,
      fileUnit: curve.unit,
      description: curve.description.slice(0, 200),
      data: await writeWhole(store, key, [n], data, ['depth']),
      min: nulls === n ? 0 : min,
      max: nulls === n ? 0 : max,
      nulls,
    });
  }
  const keep = (name: string, values: Float64Array) =>
    writeWhole(store, `${id}/${name}`, [values.length], Float32Array.from(values), ['depth']);
  let uneven: Logs['uneven'];
  if (axis.uneven) {
    uneven = { depths: await keep('depths', las.depthM), curves: [] };
    for (const [k, curve] of las.curves.entries()) uneven.curves.push(await keep(`as-loaded-${k}`, curve.values));
  }
  return {
    id,
    kind: 'logs',
    name: freeName([...loading.objects, ...before], 'logs', declare.name || `${well.slice(0, 100)} logs`),
    stage: 'wells',
    revision: loadedRevision(text, sets > 1 ? { well, set: before.length } : { well }),
    well: well.slice(0, 100),
    depth: { firstM, stepM, count: n },
    curves,
    header: las.header.slice(0, 200).map(({ mnemonic, unit, value, description }) => ({
      mnemonic: mnemonic.slice(0, 60),
      unit: unit.slice(0, 40),
      value: value.slice(0, 400),
      description: description.slice(0, 200),
    })),
    depthUnit: las.depthUnit.slice(0, 20),
    ...(uneven ? { uneven } : {}),
    madeBy: madeByLoading(file, declare, started, warnings),
  };
}
