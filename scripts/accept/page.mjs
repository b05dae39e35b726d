// The figures of a run of the acceptance as a page: musts first, those that fail at the top, then every figure by seed.
const figure = (value, unit) => {
  if (!Number.isFinite(value)) return '–';
  const share = ['of it', 'of them', 'of seeds', 'right'].includes(unit);
  const shown = share
    ? `${(100 * value).toFixed(1)} %`
    : `${value.toFixed(Number.isInteger(value) ? 0 : 2)}${unit ? ` ${unit}` : ''}`;
  return shown.replace('-', '−');
};

/** `at most 0.12` of a must in the unit of its measure. */
const bound = ({ must, unit }) => {
  const words = must.split(' ');
  return `${words.slice(0, -1).join(' ')} ${figure(Number(words.at(-1)), unit)}`;
};

export function page(rows, summary, seeds, reading) {
  const held = summary.filter((r) => r.must).sort((a, b) => Number(a.pass) - Number(b.pass));
  const failed = held.filter((r) => !r.pass);
  const parts = [...new Set(rows.map((r) => r.part))];
  return [
    '# Accuracy on the made-up field',
    '',
    `Made by \`npm run accept\`: the recipe of the demo, unchanged, on whole fields of seeds ${seeds.join(', ')} with their truth moved away. A trace with an event that was not tracked is a miss; a track where the truth has no event is counted; volumes are held against all of the accumulation, not only what the drawn outline holds.`,
    '',
    ...reading,
    '',
    '## Musts',
    '',
    failed.length === 0 ? 'All are met.' : `**${failed.length} of ${held.length} fail.**`,
    '',
    '| part | measure | must | measured | |',
    '|---|---|---|---|---|',
    ...held.map(
      (r) =>
        `| ${r.part} | ${r.measure} | ${bound(r)} | ${figure(r.value, r.unit)} | ${r.pass ? 'met' : '**fails**'} |`,
    ),
    '',
    '## Reported without a must',
    '',
    '| part | measure | measured |',
    '|---|---|---|',
    ...summary.filter((r) => !r.must).map((r) => `| ${r.part} | ${r.measure} | ${figure(r.value, r.unit)} |`),
    '',
    ...parts.flatMap((part) => {
      const own = rows.filter((r) => r.part === part);
      const measures = [...new Set(own.map((r) => r.measure))];
      return [
        `## By seed: ${part}`,
        '',
        `| measure | ${seeds.map((s) => `seed ${s}`).join(' | ')} |`,
        `|---|${seeds.map(() => '---|').join('')}`,
        ...measures.map((m) => {
          const cells = seeds.map((s) => own.find((r) => r.measure === m && r.seed === s));
          return `| ${m} | ${cells.map((c) => (c ? figure(c.value, c.unit) : '–')).join(' | ')} |`;
        }),
        '',
      ];
    }),
  ].join('\n');
}
