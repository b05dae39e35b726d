import { unitsOf } from '../../earth/display.ts';
import type { Logs } from '../../earth/objects.ts';
import { csvText } from '../../formats/csv/write.ts';
import { type LasOut, writeLas } from '../../formats/las/write.ts';
import { readWhole } from '../../storage/arrays.ts';
import type { Out } from './export.ts';
import { plain, round } from './tables.ts';

/** Logs as LAS 2.0 or CSV, in the units of the project. */
export async function logsOut({ store, frame, map }: Out, logs: Logs, extension: string): Promise<string> {
  const units = unitsOf(frame);
  const { firstM, stepM, count } = logs.depth;
  const feet = units.of('m') === 'ft';
  const depths = Float64Array.from({ length: count }, (_, n) => units.to(firstM + n * stepM, 'm'));
  const curves: LasOut[] = [];
  for (const curve of logs.curves) {
    const values = await readWhole(store, curve.data);
    const unit = units.of(curve.unit).replace('³', '3').replace('µ', 'u');
    // float32 holds about seven figures; more would be noise of the conversion
    const shown = Float64Array.from(values, (v) => Number(units.to(v, curve.unit).toPrecision(8)));
    curves.push({
      mnemonic: curve.mnemonic,
      unit: unit === '1' ? 'V/V' : unit,
      description: curve.description,
      values: shown,
    });
  }
  if (extension === 'csv')
    return csvText(
      [feet ? 'md_ft' : 'md_m', ...curves.map((c) => plain(c.mnemonic, c.unit === 'V/V' ? 'fraction' : c.unit))],
      Array.from(depths, (d, n) => [round(d, 4), ...curves.map((c) => c.values[n])]),
    );
  const well = (await store.list()).find((o) => o.kind === 'well' && o.name === logs.well);
  const head = well?.kind === 'well' ? well : null;
  return writeLas({
    well: logs.well,
    depthUnit: feet ? 'FT' : 'M',
    depths,
    curves,
    facts: [
      { mnemonic: 'FLD', unit: '', value: (await store.facts()).name, description: 'FIELD' },
      ...(head
        ? [
            {
              mnemonic: 'LOC',
              unit: '',
              value: `${(head.x * map.scale).toFixed(2)} E ${(head.y * map.scale).toFixed(2)} N ${frame?.crs ?? ''}`,
              description: 'LOCATION',
            },
            {
              mnemonic: 'EKB',
              unit: feet ? 'FT' : 'M',
              value: units.to(head.kbM, 'm').toFixed(2),
              description: 'ELEVATION OF KELLY BUSHING ABOVE MEAN SEA LEVEL',
            },
          ]
        : []),
    ],
    remarks: [`Written by Lithagon from ${logs.madeBy.file ?? logs.name}`],
  });
}
