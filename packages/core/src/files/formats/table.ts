import { TABLES } from '../../formats/csv/tableKinds.ts';
import { guessTable, mappingOf, readTable, refuseIncomplete } from '../../formats/csv/tables.ts';
import { type ByteSource, readText } from '../../formats/source.ts';
import type { Around } from '../context.ts';
import { placementFor } from '../coordinates.ts';
import { blank, refused, sketched } from '../inspecting.ts';
import { mapUnitOf, objectsOfTable, REFERENCES, turnElevations, waveletSamples } from '../loadTable.ts';
import { wellNames, wellQuestion } from '../names.ts';
import { oddCoordinates, oddRows, unusedColumns } from '../oddRows.ts';
import type { Declarations, FileReport } from '../report.ts';
import { sketchOfTable } from '../sketch.ts';
import { defineFormat } from './define.ts';

async function inspectTable(
  source: ByteSource,
  text: string,
  declare: Declarations,
  around: Around,
): Promise<FileReport> {
  const mapping = mappingOf(declare);
  const guess = guessTable(source.name, text, mapping);
  const { spec, found, header, body } = guess;
  // columns that go by no known word say nothing of what the table is
  const known = mapping.kind !== undefined || Object.keys(found).length > 0;
  const report = blank(source, 'CSV', known ? spec.title : 'Table');
  const keyOf = new Map(Object.entries(found).map(([key, f]) => [f.column, { key, unit: f.unit }]));
  report.table = {
    kind: known ? spec.kind : '',
    title: report.takenFor,
    kinds: TABLES.map(({ kind, title }) => ({ kind, title })),
    columns: header.map((column, n) => ({
      column,
      key: keyOf.get(column)?.key ?? null,
      unit: keyOf.get(column)?.unit ?? null,
      cells: body.slice(0, 6).map((row) => (row[n] ?? '').slice(0, 60)),
    })),
    keys: (known ? spec.columns : []).map((c) => ({
      key: c.key,
      label: c.label,
      unit: c.unit ?? null,
      needed: !c.optional && !c.told,
    })),
  };
  try {
    refuseIncomplete(source.name, guess);
    const table = readTable(source.name, text, mapping);
    report.problems = [...table.warnings];
    report.facts = [
      { label: 'Rows', value: String(table.rows) },
      {
        label: 'Columns',
        value: Object.entries(table.found)
          .map(([key, f]) => `${key} from “${f.column}”${f.unit ? ` in ${f.unit}` : ''}`)
          .join(', '),
      },
    ];
    report.wells = [...new Set(table.texts.well ?? [])].filter(Boolean);
    if (guess.told.includes('well')) report.questions.push(wellQuestion(source.name, wellNames(around.objects)));
    if (guess.told.includes('kb'))
      report.questions.push({
        key: 'kb',
        label: 'Kelly bushing above sea level, m, of all wells',
        typed: true,
        options: [],
      });
    if (spec.kind === 'checkshots')
      report.questions.push({
        key: 'reference',
        label: 'Times are counted from',
        optional: true,
        options: REFERENCES.map((value) => ({
          value,
          label: { datum: 'the seismic datum', msl: 'mean sea level', kb: 'the kelly bushing' }[value],
        })),
      });
    if (spec.kind === 'wavelet') waveletSamples(source.name, table.numbers.time, table.numbers.amplitude);
    report.problems.push(...turnElevations(table));
    const { x, y } = table.numbers;
    if (x && y) {
      const says = { ...mapUnitOf(table), at: [x[0], y[0]] as [number, number] };
      const placement = await placementFor(declare, around.frame, around.crsTable, says);
      const degrees = mapUnitOf(table).degrees || declare.crs !== undefined;
      report.problems.push(...placement.notes, ...oddCoordinates(table, degrees));
      report.sketch = sketchOfTable(table);
      Object.assign(report, await sketched(report, placement, around));
      if (!placement.waits) for (let n = 0; n < x.length; n++) [x[n], y[n]] = placement.toMap(x[n], y[n]);
    }
    report.problems.push(...unusedColumns(table), ...oddRows(table, around.objects, around.frame));
    return report;
  } catch (cause) {
    return refused(report, cause);
  }
}

export const table = defineFormat({
  name: 'CSV',
  sniff({ text, extension }) {
    if (text === null || /^(DSAA|%PDF)/.test(text)) return 0;
    const known = /^(csv|txt|dat|tsv|asc|xyz)$/.test(extension);
    return known || text.split('\n', 1)[0].split(/[,;\t]/).length > 1 ? 1 : 0;
  },
  inspect: async (source, declare, { around }) => inspectTable(source, await readText(source), declare, around),
  load: async (loading) => objectsOfTable(loading, await readText(loading.source)),
});
