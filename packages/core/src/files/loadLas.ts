import { unitsOf } from '../earth/display.ts';
import { LithagonError } from '../earth/errors.ts';
import type { Logs } from '../earth/objects.ts';
import { dimensionOf, factor, unitNamed } from '../earth/units.ts';
import { type LasFile, parseLas } from '../formats/las/parse.ts';
import { freeName, loadedRevision, madeByLoading, newId } from '../project/make.ts';
import { writeWhole } from '../storage/arrays.ts';
import { CURVE_UNIT, classOfCurve } from '../wells/curveClass.ts';
import type { Loaded, Loading } from './load.ts';
import { wellNamed } from './names.ts';

/** Logs of a well, on a regular depth axis in metres, each curve in the unit of its class. */
export async function objectsOfLas(loading: Loading, text: string): Promise<Loaded> {
  const sets = parseLas(loading.source.name, text);
  const objects: Logs[] = [];
  for (const set of sets) objects.push(await logsOfSet(loading, text, set, sets.length, objects));
  return { objects, warnings: objects.flatMap((o) => o.madeBy.warnings) };
}

async function logsOfSet(loading: Loading, text: string, las: LasFile, sets: number, before: Logs[]): Promise<Logs> {
  const { declare, started, store, ids } = loading;
  const file = loading.source.name;
  const well = wellNamed(declare, declare.well || las.well);
  if (!well)
    throw new LithagonError('las', `${file} does not name its well.`, { object: file, fix: 'Declare well=NAME.' });
  const id = newId('logs');
  ids.push(id);
  const n = las.depthM.length;
  const firstM = las.depthM[0];
  const stepM = (las.depthM[n - 1] - firstM) / (n - 1);
  const warnings = [...las.warnings];
  const { curveClasses: classes, frame } = await store.facts();
  let uneven = 0;
  for (let k = 0; k < n; k++) if (Math.abs(las.depthM[k] - (firstM + k * stepM)) > 0.3 * stepM) uneven++;
  if (uneven > 0)
    warnings.push(
      `${uneven} depths are off a regular step; curves were interpolated onto one of ${unitsOf(frame).text(stepM, 'm', 4)}.`,
    );
  const curves: Logs['curves'] = [];
  for (const curve of las.curves) {
    const cls = classOfCurve(curve.mnemonic, curve.unit, classes);
    const from = unitNamed(curve.unit);
    const unit = CURVE_UNIT[cls] ?? from ?? curve.unit;
    const scale = from && dimensionOf(from) === dimensionOf(unit) && dimensionOf(unit) ? factor(from, unit) : 1;
    const data = new Float32Array(n);
    let min = Number.POSITIVE_INFINITY;
    let max = Number.NEGATIVE_INFINITY;
    let nulls = 0;
    for (let k = 0, s = 0; k < n; k++) {
      const depth = firstM + k * stepM;
      while (uneven > 0 && s < n - 2 && las.depthM[s + 1] < depth) s++;
      const f = uneven > 0 ? (depth - las.depthM[s]) / (las.depthM[s + 1] - las.depthM[s]) : 0;
      const raw = uneven > 0 ? curve.values[s] * (1 - f) + curve.values[s + 1] * f : curve.values[k];
      const value = raw * scale;
      data[k] = value;
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
  return {
    id,
    kind: 'logs',
    name: freeName([...loading.objects, ...before], 'logs', declare.name || `${well.slice(0, 100)} logs`),
    stage: 'wells',
    revision: loadedRevision(text, sets > 1 ? { well, set: before.length } : { well }),
    well: well.slice(0, 100),
    depth: { firstM, stepM, count: n },
    curves,
    madeBy: madeByLoading(file, declare, started, warnings),
  };
}
