import { unitsOf } from '../../earth/display.ts';
import { parseLas } from '../../formats/las/parse.ts';
import { type ByteSource, readText } from '../../formats/source.ts';
import type { Around } from '../context.ts';
import { blank } from '../inspecting.ts';
import { depthNotes, objectsOfLas } from '../loadLas.ts';
import { wellNamed, wellNames, wellQuestion } from '../names.ts';
import { oddLogs } from '../oddLogs.ts';
import type { Declarations, FileReport } from '../report.ts';
import { defineFormat } from './define.ts';

function inspectLas(source: ByteSource, text: string, declare: Declarations, around: Around): FileReport {
  const units = unitsOf(around.frame);
  const sets = parseLas(source.name, text);
  const [las] = sets;
  const report = blank(source, 'LAS', `Logs of ${las.well || 'an unnamed well'}`);
  report.facts = [
    { label: 'Well', value: las.well || '(none)' },
    { label: 'Version', value: las.version },
    ...sets.flatMap((set, n) => {
      const last = set.depthM.length - 1;
      const which = sets.length > 1 ? ` ${n + 1}` : '';
      return [
        {
          label: `Depths${which}`,
          value: `${units.to(set.depthM[0], 'm').toFixed(2)} to ${units.text(set.depthM[last], 'm', 2)}, ${last + 1} of them`,
        },
        {
          label: `Curves${which}`,
          value: set.curves.map((c) => `${c.mnemonic} (${c.unit || 'no unit'})`).join(', '),
        },
      ];
    }),
  ];
  const well = wellNamed(declare, declare.well || las.well);
  report.problems = sets.flatMap((set) => [
    ...set.warnings,
    ...depthNotes(set, units),
    ...oddLogs(set, well, around.objects, units),
  ]);
  report.wells = [declare.well || las.well].filter(Boolean);
  if (!las.well) report.questions.push(wellQuestion(source.name, wellNames(around.objects)));
  return report;
}

export const las = defineFormat({
  name: 'LAS',
  sniff: ({ text, extension }) => (text !== null && (/^(#.*\n)*~v/i.test(text) || extension === 'las') ? 6 : 0),
  inspect: async (source, declare, { around }) => inspectLas(source, await readText(source), declare, around),
  load: async (loading) => objectsOfLas(loading, await readText(loading.source)),
});
