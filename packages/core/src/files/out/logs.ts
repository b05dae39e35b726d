import { unitsOf } from '../../earth/display.ts';
import type { Logs } from '../../earth/objects.ts';
import { dimensionOf, factor, unitNamed } from '../../earth/units.ts';
import { csvText } from '../../formats/csv/write.ts';
import { type LasOut, type LasWriteFacts, writeLas } from '../../formats/las/write.ts';
import { readWhole } from '../../storage/arrays.ts';
import type { Out } from './out.ts';
import { plain, round } from './rows.ts';

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

interface Written {
  depths: Float64Array;
  depthUnit: string;
  /** Whether depths are a regular axis. */
  even: boolean;
  curves: LasOut[];
}
// float32 holds about seven figures; more would be noise of the conversion
const rounded = (values: ArrayLike<number>, scale: (v: number) => number, figures = 7) =>
  Float64Array.from(values, (v) => Number(scale(v).toPrecision(figures)));
const axisM = ({ depth: { firstM, stepM, count } }: Logs) =>
  Float64Array.from({ length: count }, (_, n) => firstM + n * stepM);

/** Depths and curves in the units of the project, spelt as a format wants them. */
async function inProject({ store, frame }: Out, logs: Logs, spelt: Record<string, string>): Promise<Written> {
  const units = unitsOf(frame);
  const curves: LasOut[] = [];
  for (const { mnemonic, unit, description, data } of logs.curves) {
    const shown = units.of(unit).replace('³', '3').replace('µ', 'u');
    const values = rounded(await readWhole(store, data), (v) => units.to(v, unit));
    curves.push({ mnemonic, unit: spelt[shown] ?? shown, description, values });
  }
  const depths = rounded(axisM(logs), (m) => units.to(m, 'm'), 12);
  return { depths, depthUnit: units.of('m') === 'ft' ? 'FT' : 'M', even: true, curves };
}

/** Depths and curves as the file had them that they came from: its units, and its depths where they were no regular axis. */
async function asTheyCame({ store }: Out, logs: Logs): Promise<Written> {
  const { uneven } = logs;
  const curves: LasOut[] = [];
  for (const [n, { mnemonic, unit, fileUnit, description, data }] of logs.curves.entries()) {
    const own = unitNamed(fileUnit);
    const back = own && dimensionOf(own) === dimensionOf(unit) ? factor(unit, own) : 1;
    const values = uneven
      ? rounded(await readWhole(store, uneven.curves[n]), (v) => v)
      : rounded(await readWhole(store, data), (v) => v * back);
    curves.push({ mnemonic, unit: fileUnit, description, values });
  }
  const own = unitNamed(logs.depthUnit ?? '');
  const toOwn = own ? factor('m', own) : 1;
  const depths = rounded(
    uneven ? await readWhole(store, uneven.depths) : axisM(logs),
    (m) => m * toOwn,
    uneven ? 8 : 12,
  );
  return { depths, depthUnit: own ? (logs.depthUnit as string) : 'M', even: !uneven, curves };
}

/** Logs as LAS 2.0, with units, depths and facts of the well as a file had them; or as CSV, in the units of the project. */
export async function logsOut(out: Out, logs: Logs, extension: string): Promise<string> {
  const { store, frame, map } = out;
  const units = unitsOf(frame);
  const feet = units.of('m') === 'ft';
  if (extension === 'csv') {
    const { depths, curves } = await inProject(out, logs, {});
    return csvText(
      [feet ? 'md_ft' : 'md_m', ...curves.map((c) => plain(c.mnemonic, c.unit === '1' ? 'fraction' : c.unit))],
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
    ...(await (logs.header ? asTheyCame(out, logs) : inProject(out, logs, SPELT))),
    facts,
    remarks: [`Written by Lithagon from ${logs.madeBy.file ?? logs.name}`],
  });
}
