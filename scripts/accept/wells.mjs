// Tops correlated from one well to the others, and facies learned from two wells: told apart inside the reservoir too.
import { carried } from './carry.mjs';
import { cli } from './field.mjs';
import { median, row } from './score.mjs';

const part = 'wells';
const METHODS = ['Gaussian discriminant', 'random forest', 'neural network'];
const RESERVOIR = ['Channel sand', 'Heterolithic sand', 'Shale'];
/** Wells whose facies nobody described, with the truth of them. */
const BLIND = ['QN-3', 'QN-4', 'QN-5'];

/** How often a method is right at every half metre of the blind wells, in all rock and in the reservoir's alone. */
function faciesScores(work, truth, method) {
  const chosen = [...['QN-1', 'QN-2'].map((w) => `trained=${w}`), ...BLIND.map((w) => `wells=${w}`)];
  const inputs = chosen.flatMap((c) => ['--in', c]);
  cli('do', 'wells.facies', '--project', work.project, ...inputs, '--set', `method=${method}`, '--name', method);
  const made = work.objects().filter((o) => o.kind === 'facies' && o.name.startsWith(method));
  let [all, right, reservoir, found] = [0, 0, 0, 0];
  for (const { well, md_m, facies } of truth.filter((r) => BLIND.includes(r.well))) {
    const said = made.find((o) => o.well === well)?.rows.find(([from, to]) => md_m >= from && md_m < to)?.[2];
    if (said === undefined) continue;
    all++;
    if (said === facies) right++;
    if (!RESERVOIR.includes(facies)) continue;
    reservoir++;
    if (said === facies) found++;
  }
  const [report] = work
    .objects()
    .filter((o) => o.kind === 'result table' && o.madeBy.params.method === method)
    .slice(-1);
  return { all: right / all, reservoir: found / reservoir, calibration: report.records[0].calibrationError };
}

export function measure(work) {
  const say = (measure, value, unit) => row(part, measure, work.seed, value, unit);
  const tops = carried(cli, work.files, work.dir);
  const cut = (bed, outcome) => tops.cuts.filter((c) => c.bed === bed && c.outcome === outcome).length;
  const rows = [
    say('tops carried: proposed', tops.proposals, ''),
    say('tops carried: within 2 m', tops.within2m / tops.proposals, 'of them'),
    say('beds wrongly said missing', tops.wronglyAbsent, ''),
    ...['Tolven Top', 'Brack Top'].flatMap((bed) => [
      say(`bed below ${bed} cut out: said or perhaps missing`, cut(bed, 'missing') + cut(bed, 'perhaps'), ''),
      say(`bed below ${bed} cut out: placed all the same`, cut(bed, 'placed'), ''),
    ]),
  ];
  const truth = work.truth('wells.csv');
  const inside = truth.filter((r) => BLIND.includes(r.well) && RESERVOIR.includes(r.facies));
  const commonest = Math.max(...RESERVOIR.map((name) => inside.filter((r) => r.facies === name).length));
  rows.push(say('facies of the reservoir: always the commonest', commonest / inside.length, 'right'));
  for (const method of METHODS) {
    const { all, reservoir, calibration } = faciesScores(work, truth, method);
    rows.push(say(`${method}: all rock of blind wells`, all, 'right'));
    rows.push(say(`${method}: reservoir of blind wells`, reservoir, 'right'));
    rows.push(say(`${method}: calibration error, wells left out in turn`, calibration, ''));
  }
  return rows;
}

export function musts(rows) {
  const of = (measure) => rows.filter((r) => r.measure === measure).map((r) => r.value);
  const middle = (measure, unit) => row(part, `${measure} (median over seeds)`, null, median(of(measure)), unit);
  return [
    middle('tops carried: within 2 m', 'of them'),
    middle('facies of the reservoir: always the commonest', 'right'),
    ...METHODS.map((method) => middle(`${method}: reservoir of blind wells`, 'right')),
  ];
}
