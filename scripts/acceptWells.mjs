// What the wells of a made-up field are to show: ties with their warnings, tops carried from one well, facies by blind wells.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const TARGETS = ['QN-2', 'QN-3', 'QN-4', 'QN-5'];

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

/** Carry the tops of QN-1 to the other wells, and to one from which the reservoir was taken out; compare with the truth. */
export function carried(cli, files, dir) {
  const project = join(dir, 'carried');
  const { head, lines } = rowsOf(join(files, 'well-tops.csv'));
  const mdOf = (well, top) => Number(lines.find(([w, t]) => w === well && t === top)?.[2] ?? Number.NaN);
  const own = join(dir, 'qn1-tops.csv');
  writeFileSync(own, `${[head, ...lines.filter(([w]) => w === 'QN-1').map((l) => l.join(','))].join('\n')}\n`);
  const heads = rowsOf(join(files, 'well-heads.csv'));
  const two = heads.lines.find(([w]) => w === 'QN-2');
  const cut = join(dir, 'cut-head.csv');
  writeFileSync(cut, `${heads.head}\n${['QN-2C', ...two.slice(1)].join(',')}\n`);
  const [from, to] = [mdOf('QN-2', 'Tolven Top'), mdOf('QN-2', 'Tolven Base')];
  const las = join(dir, 'QN-2C.las');
  writeFileSync(las, withoutBed(join(files, 'QN-2.las'), 'QN-2C', from, to));
  const names = ['well-heads.csv', 'well-surveys.csv', ...['QN-1', ...TARGETS].map((w) => `${w}.las`)];
  cli('load', ...names.map((n) => join(files, n)), own, cut, las, '--project', project, '--declare', 'crs=EPSG:32740');
  cli(
    'do',
    'wells.carry',
    '--project',
    project,
    '--in',
    'trusted=QN-1',
    ...[...TARGETS, 'QN-2C'].flatMap((w) => ['--in', `wells=${w}`]),
  );
  const { objects } = JSON.parse(readFileSync(join(project, 'project.json'), 'utf8'));
  const tables = objects.filter((o) => o.kind === 'tops' && o.madeBy.step === 'wells.carry');
  const result = { proposals: 0, within2m: 0, wronglyAbsent: 0, cutAbsent: false, cutPlaced: 0, cutWithin2m: 0 };
  const notes = tables[0]?.madeBy.warnings ?? [];
  for (const table of tables)
    for (const [top, md] of table.rows) {
      const isCut = table.well === 'QN-2C';
      const truth = mdOf(isCut ? 'QN-2' : table.well, top) - (isCut && mdOf('QN-2', top) >= to ? to - from : 0);
      if (Number.isNaN(truth) || (isCut && top === 'Tolven Top')) continue;
      const good = Math.abs(md - truth) <= 2;
      if (isCut) {
        result.cutPlaced++;
        if (good) result.cutWithin2m++;
      } else {
        result.proposals++;
        if (good) result.within2m++;
      }
    }
  result.wronglyAbsent = notes.filter((n) => / is missing at /.test(n) && !n.startsWith('QN-2C')).length;
  result.cutAbsent = notes.some((n) => n.startsWith('QN-2C: the bed below Tolven Top is missing'));
  return result;
}

/** Blind-well accuracy of each classifier, trained on the two described wells, each left out in turn. */
export function faciesScores(cli, project) {
  return ['Gaussian discriminant', 'random forest', 'neural network'].map((method) => {
    const wells = ['QN-1', 'QN-2'].flatMap((w) => ['--in', `trained=${w}`]);
    cli(
      'do',
      'wells.facies',
      '--project',
      project,
      ...wells,
      '--in',
      'wells=QN-5',
      '--set',
      `method=${method}`,
      '--name',
      method,
    );
    const { objects } = JSON.parse(readFileSync(join(project, 'project.json'), 'utf8'));
    const [{ records }] = objects
      .filter((o) => o.kind === 'result table' && o.madeBy.params.method === method)
      .slice(-1);
    const { accuracy, majority, calibrationError } = records[0];
    return { method, accuracy, majority, calibrationError };
  });
}
