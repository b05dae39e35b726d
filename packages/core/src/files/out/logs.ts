import { unitsOf } from '../../earth/display.ts';
import type { Logs } from '../../earth/objects.ts';
import { dimensionOf, factor, unitNamed } from '../../earth/units.ts';
import { csvText } from '../../formats/csv/write.ts';
import { type LasOut, type LasWriteFacts, writeLas } from '../../formats/las/write.ts';
import { readWhole } from '../../storage/arrays.ts';
import type { Out } from './export.ts';
import { plain, round } from './tables.ts';

// Spellings of units that readers of LAS know, for those whose own has a character that the line's grammar uses.
const SPELT: Record<string, string> = {
  'ohm.m': 'OHMM',
  gAPI: 'GAPI',
  'us/m': 'US/M',
  'us/ft': 'US/F',
  'kg/m3': 'K/M3',
  'g/cm3': 'G/C3',
  '1': 'V/V',
};

/** What logs are written as: their depths, and each curve with its unit; of a file, as it had them. */
async function written({ store, frame }: Out, logs: Logs, asInFile: boolean) {
  const units = unitsOf(frame);
  const { firstM, stepM, count } = logs.depth;
  const { uneven } = logs;
  const own = asInFile ? unitNamed(logs.depthUnit ?? '') : null;
  const toOwn = own ? factor('m', own) : units.to(1, 'm');
  const depthsM = uneven
    ? await readWhole(store, uneven.depths)
    : Float64Array.from({ length: count }, (_, n) => firstM + n * stepM);
  const curves: LasOut[] = [];
  for (const [n, curve] of logs.curves.entries()) {
    const file = asInFile ? unitNamed(curve.fileUnit) : null;
    const back = file && dimensionOf(file) === dimensionOf(curve.unit) ? factor(curve.unit, file) : null;
    const shown = units.of(curve.unit).replace('³', '3').replace('µ', 'u');
    const values = uneven ? await readWhole(store, uneven.curves[n]) : await readWhole(store, curve.data);
    // what was kept as it was loaded is in the file's own unit
    const scale = uneven ? (back === null || asInFile ? 1 : 1 / back) : 1;
    const out = (v: number) =>
      uneven && asInFile
        ? v
        : back !== null
          ? v * back
          : asInFile && !unitNamed(curve.fileUnit)
            ? v
            : units.to(v * scale, curve.unit);
    curves.push({
      mnemonic: curve.mnemonic,
      unit: asInFile && (back !== null || !unitNamed(curve.fileUnit)) ? curve.fileUnit : (SPELT[shown] ?? shown),
      description: curve.description,
      // float32 holds about seven figures; more would be noise of the conversion
      values: Float64Array.from(values, (v) => Number(out(v).toPrecision(7))),
    });
  }
  const depthUnit = own ? (logs.depthUnit as string) : units.of('m') === 'ft' ? 'FT' : 'M';
  return {
    depths: Float64Array.from(depthsM, (m) => Number((m * toOwn).toPrecision(uneven ? 8 : 12))),
    curves,
    depthUnit,
    even: !uneven,
  };
}

/** Logs as LAS 2.0, with units, depths and facts of the well as a file had them; or as CSV, in the units of the project. */
export async function logsOut(out: Out, logs: Logs, extension: string): Promise<string> {
  const { store, frame, map } = out;
  const units = unitsOf(frame);
  const feet = units.of('m') === 'ft';
  if (extension === 'csv') {
    const { depths, curves } = await written(out, { ...logs, uneven: undefined }, false);
    return csvText(
      [feet ? 'md_ft' : 'md_m', ...curves.map((c) => plain(c.mnemonic, c.unit === 'V/V' ? 'fraction' : c.unit))],
      Array.from(depths, (d, n) => [round(d, 4), ...curves.map((c) => c.values[n])]),
    );
  }
  const well = (await store.list()).find((o) => o.kind === 'well' && o.name === logs.well);
  const head = well?.kind === 'well' ? well : null;
  const facts: LasWriteFacts['facts'] = [...(logs.header ?? [])];
  // what is not empty in the file's own lines is not written over
  const add = (mnemonic: string, unit: string, value: string, description: string) => {
    const own = facts.findIndex((f) => f.mnemonic.toUpperCase() === mnemonic);
    if (own < 0) facts.push({ mnemonic, unit, value, description });
    else if (facts[own].value.trim() === '') facts[own] = { ...facts[own], unit, value };
  };
  add('FLD', '', (await store.facts()).name, 'FIELD');
  if (head) {
    const place = `${(head.x * map.scale).toFixed(2)} E ${(head.y * map.scale).toFixed(2)} N ${frame?.crs ?? ''}`;
    add('LOC', '', place, 'LOCATION');
    add(
      'EKB',
      feet ? 'FT' : 'M',
      units.to(head.kbM, 'm').toFixed(2),
      'ELEVATION OF KELLY BUSHING ABOVE MEAN SEA LEVEL',
    );
  }
  return writeLas({
    well: logs.well,
    ...(await written(out, logs, logs.header !== undefined)),
    facts,
    remarks: [`Written by Lithagon from ${logs.madeBy.file ?? logs.name}`],
  });
}
