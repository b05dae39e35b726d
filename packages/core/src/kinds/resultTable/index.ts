import type { ResultTable } from '../../earth/objects.ts';
import { csv, plain } from '../../files/out/rows.ts';
import { counted, defineKind } from '../define.ts';

export const resultTable = defineKind<ResultTable>({
  title: 'Result table',
  plural: 'Result tables',
  facts: ({ rows }) => [{ label: 'Rows', value: String(rows.length) }],
  aside: ({ rows }) => counted(rows.length, 'row'),
  moved: null,
  places: () => [],
  formats: {
    csv: { title: 'CSV', write: csv(({ columns, rows }) => [columns.map((c) => plain(c.name, c.unit)), rows]) },
  },
});
