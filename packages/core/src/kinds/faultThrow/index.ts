import { cornersOf, toMap } from '../../earth/binGrid.ts';
import { domainUnit, type FaultThrow } from '../../earth/objects.ts';
import type { Out } from '../../files/out/out.ts';
import { round } from '../../files/out/rows.ts';
import { readWhole } from '../../storage/arrays.ts';
import { defineKind } from '../define.ts';

const ends = ['first', 'last'];

/** A row for each place of the surface that has a throw. */
async function throwCsv({ store }: Out, object: FaultThrow): Promise<string> {
  const [values, match, places] = [
    await readWhole(store, object.values),
    await readWhole(store, object.match),
    await readWhole(store, object.places),
  ];
  const [rows, levels] = object.values.shape;
  const unit = object.domain === 'depth' ? 'm' : 'ms';
  const lines = [`along_m,x_m,y_m,${object.domain === 'depth' ? 'depth_m' : 'twt_ms'},throw_${unit},match`];
  for (let r = 0; r < rows; r++)
    for (let k = 0; k < levels; k++) {
      const n = r * levels + k;
      if (Number.isNaN(values[n])) continue;
      const [x, y] = toMap(object.binGrid, places[2 * n], places[2 * n + 1]);
      lines.push(
        [
          round((object.alongM * r) / Math.max(1, rows - 1), 1),
          round(x, 2),
          round(y, 2),
          round(object.first + k * object.step, 2),
          round(values[n], 2),
          round(match[n], 3),
        ].join(','),
      );
    }
  return `${lines.join('\n')}\n`;
}

export const faultThrow = defineKind<FaultThrow>({
  title: 'Throw',
  plural: 'Throws',
  facts: ({ of, greatest, alongM, tapers, domain }, units) => [
    { label: 'Of', value: of },
    { label: 'Greatest', value: greatest === null ? 'not known' : `${greatest.toFixed(0)} ${domainUnit(domain)}` },
    { label: 'Along strike', value: units.text(alongM, 'm', 0) },
    {
      label: 'Dies out',
      value:
        greatest === null
          ? 'not known'
          : tapers.every(Boolean)
            ? 'at both ends'
            : `not at the ${tapers.flatMap((dies, n) => (dies ? [] : [ends[n]])).join(' and the ')} end`,
    },
  ],
  aside: ({ greatest, domain }) => (greatest === null ? 'no match' : `${greatest.toFixed(0)} ${domainUnit(domain)}`),
  moved: (object, { binGrid }) => ({ ...object, binGrid: binGrid(object.binGrid) }),
  places: ({ binGrid }) => (binGrid.local ? [] : cornersOf(binGrid)),
  formats: { csv: { title: 'CSV, a row a place', write: throwCsv } },
});
