// Tops correlated from one well of a made-up field to the others, and to copies of them that miss a bed.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const TARGETS = ['QN-2', 'QN-3', 'QN-4', 'QN-5'];
/** Beds that are cut out of copies of the wells, each by its top and that of the next. */
const CUTS = [
  { bed: 'Tolven Top', next: 'Tolven Base', mark: 'C' },
  { bed: 'Brack Top', next: 'Brack Unconformity', mark: 'B' },
];

/** Lines of a CSV file by well. */
function rowsOf(path) {
  const [head, ...lines] = readFileSync(path, 'utf8').trim().split('\n');
  return { head, lines: lines.map((line) => line.split(',')) };
}

/** A copy of a LAS file in which a well of another name misses the rock between two depths. */
function withoutBed(path, name, fromM, toM) {
  const text = readFileSync(path, 'utf8');
  const at = text.indexOf('~ASCII');
  const head = text.slice(0, text.indexOf('\n', at) + 1).replace(/^WELL.*$/m, (line) => line.replace(/QN-\d/, name));
  const perM = /^STRT\.FT/m.test(text) ? 1 / 0.3048 : 1;
  const [from, to] = [fromM * perM, toM * perM];
  const rows = text
    .slice(head.length)
    .trim()
    .split('\n')
    .map((line) => line.trim().split(/\s+/).map(Number));
  const step = rows[1][0] - rows[0][0];
  const kept = rows.filter(([depth]) => depth < from || depth >= to);
  return `${head}${kept.map((row, n) => [(rows[0][0] + n * step).toFixed(4), ...row.slice(1)].join(' ')).join('\n')}\n`;
}

/**
 * Carry the tops of QN-1 to the other wells, and to copies of them out of which a bed was taken: the reservoir, and a
 * mudrock between mudrocks; compare with the truth.
 */
export function carried(cli, files, dir) {
  const project = join(dir, 'carried');
  const { head, lines } = rowsOf(join(files, 'well-tops.csv'));
  const mdOf = (well, top) => Number(lines.find(([w, t]) => w === well && t === top)?.[2] ?? Number.NaN);
  const own = join(dir, 'qn1-tops.csv');
  writeFileSync(own, `${[head, ...lines.filter(([w]) => w === 'QN-1').map((l) => l.join(','))].join('\n')}\n`);
  const copies = TARGETS.flatMap((well) =>
    CUTS.map(({ bed, next, mark }) => ({
      well,
      bed,
      name: `${well}${mark}`,
      from: mdOf(well, bed),
      to: mdOf(well, next),
    })),
  ).filter(({ from, to }) => to - from > 8);
  for (const { well, name, from, to } of copies)
    writeFileSync(join(dir, `${name}.las`), withoutBed(join(files, `${well}.las`), name, from, to));
  const ofCopies = (file) => {
    const table = rowsOf(join(files, file));
    const rows = copies.flatMap(({ well, name }) =>
      table.lines.filter(([w]) => w === well).map(([, ...cells]) => [name, ...cells].join(',')),
    );
    const path = join(dir, `cut-${file}`);
    writeFileSync(path, `${table.head}\n${rows.join('\n')}\n`);
    return path;
  };
  const tables = ['well-heads.csv', 'well-surveys.csv'];
  const logs = [
    ...['QN-1', ...TARGETS].map((w) => join(files, `${w}.las`)),
    ...copies.map((c) => join(dir, `${c.name}.las`)),
  ];
  cli(
    'load',
    ...tables.map((f) => join(files, f)),
    ...tables.map(ofCopies),
    own,
    ...logs,
    '--project',
    project,
    '--declare',
    'crs=EPSG:32740',
  );
  const into = [...TARGETS, ...copies.map((c) => c.name)].flatMap((w) => ['--in', `wells=${w}`]);
  cli('do', 'wells.carry', '--project', project, '--in', 'trusted=QN-1', ...into);
  const { objects } = JSON.parse(readFileSync(join(project, 'project.json'), 'utf8'));
  const made = objects.filter((o) => o.kind === 'tops' && o.madeBy.step === 'wells.carry');
  const notes = made[0]?.madeBy.warnings ?? [];
  const result = { proposals: 0, within2m: 0, wronglyAbsent: 0, cuts: [] };
  for (const table of made.filter((t) => TARGETS.includes(t.well)))
    for (const [top, md] of table.rows) {
      const truth = mdOf(table.well, top);
      if (Number.isNaN(truth)) continue;
      result.proposals++;
      if (Math.abs(md - truth) <= 2) result.within2m++;
    }
  result.wronglyAbsent = notes.filter(
    (n) => TARGETS.some((w) => n.startsWith(`${w}: `)) && / is missing at /.test(n),
  ).length;
  for (const { name, bed } of copies) {
    const placed = made.find((t) => t.well === name)?.rows.some(([top]) => top === bed) ?? false;
    const said = notes.some((n) => n.startsWith(`${name}: the bed below ${bed} is missing`));
    const perhaps = notes.some(
      (n) =>
        n.startsWith(`${name}: no place stands out for `) &&
        n.endsWith(' may be missing.') &&
        n.split(/ for |, /).includes(bed),
    );
    result.cuts.push({ bed, outcome: placed ? 'placed' : said ? 'missing' : perhaps ? 'perhaps' : 'none' });
  }
  return result;
}
