import type { WellTable } from '../../earth/objects.ts';
import { csv, plain, type Rows, type RowsOut, round } from '../../files/out/rows.ts';
import { relationOf } from '../../project/wells/seeds.ts';
import { pathOf, topsOfTable } from '../../project/wells/wells.ts';
import { pointAtMd } from '../../wells/path.ts';
import { twtOfDepth } from '../../wells/timeDepth.ts';
import { counted, defineKind } from '../define.ts';

const rowsOf = ({ columns, rows }: WellTable): Rows => [columns.map((c) => plain(c.name, c.unit)), rows];

/** Tops with where they are, and when they come where the well has a relation. */
async function topRows(object: WellTable, { store, xy, at }: RowsOut): Promise<Rows> {
  const objects = await store.list();
  const well = objects.find((o) => o.kind === 'well' && o.name === object.well);
  if (well?.kind !== 'well') return rowsOf(object);
  const path = pathOf(objects, well);
  const relation = relationOf(objects, well.name);
  return [
    ['well', 'top', 'md_m', ...xy, 'tvdss_m', 'twt_ms'],
    topsOfTable(objects, object).map(({ name, md }) => {
      const p = pointAtMd(path, md);
      const twt = relation ? round(twtOfDepth(relation, p.tvdss), 2) : null;
      return [object.well, name, round(md, 3), at(p.x), at(p.y), round(p.tvdss, 3), twt];
    }),
  ];
}

const table = (title: string, write = csv<WellTable>(rowsOf)) =>
  defineKind<WellTable>({
    title,
    plural: title,
    facts: ({ well, rows }) => [
      { label: 'Well', value: well || '(field)' },
      { label: 'Rows', value: String(rows.length) },
    ],
    aside: ({ rows }) => counted(rows.length, 'row'),
    moved: null,
    places: () => [],
    formats: { csv: { title: 'CSV', write } },
  });

/** Tables about one well, each a kind of its own. */
export const wellTables = {
  'directional surveys': table('Directional surveys'),
  tops: table('Tops', csv(topRows)),
  checkshots: table('Checkshots'),
  pressures: table('Pressures'),
  'fluid samples': table('Fluid samples'),
  'core points': table('Core points'),
  facies: table('Facies'),
};
