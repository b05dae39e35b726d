// Ties: their error at the reservoir, against calibrated sonics that no correlation moved, and what they say of it.
import { cli } from './field.mjs';
import { must, row, worst } from './score.mjs';

const part = 'tie';
/** Wells with checkshots. */
const CHECKED = ['QN-1', 'QN-2', 'QN-4'];
const TOPS = ['Tolven Top', 'Tolven Base'];
/** How far a tie may be off, ms. */
const RIGHT_MS = 4;

const along = (x, y, at) => {
  const n = Math.min(x.length - 2, Math.max(0, x.findIndex((v) => v > at) - 1));
  return y[n] + ((at - x[n]) * (y[n + 1] - y[n])) / (x[n + 1] - x[n]);
};

/** Errors (ms) of a relation at the reservoir's tops of its well: its time of their depth less the true time there. */
function errorsOf(relation, truth, tops) {
  const own = truth.filter((r) => r.well === relation.well);
  return TOPS.flatMap((name) => {
    const top = tops.find((t) => t.well === relation.well && t.top === name);
    if (!top) return [];
    const [md, z, twt] = ['md_m', 'tvdss_m', 'twt_ms'].map((key) => own.map((r) => r[key]));
    const depth = along(md, z, top.md_m);
    const [zs, ts] = [relation.pairs.map((p) => p[0]), relation.pairs.map((p) => p[1])];
    return [along(zs, ts, depth) - along(md, twt, top.md_m)];
  });
}

export function measure(work) {
  const truth = work.truth('wells.csv');
  const tops = work.table('well-tops.csv');
  const rows = [];
  for (const tie of work.objects().filter((o) => o.kind === 'time-depth relation')) {
    const errors = errorsOf(tie, truth, tops);
    const error = worst(errors);
    const say = (measure, value, unit) => rows.push(row(part, `${tie.well}: ${measure}`, work.seed, value, unit));
    say('error', error, 'ms');
    say('error at Tolven Top, the middle of the window', errors[0] ?? Number.NaN, 'ms');
    say('correlation', tie.correlation, '');
    say('phase', tie.phaseDeg, '°');
    say('warnings', tie.evidence.warnings.length, '');
    say('90 % bar', tie.evidence.uncertaintyMs, 'ms');
    if (!CHECKED.includes(tie.well)) continue;
    const name = `${tie.well} unmoved`;
    const roles = ['well', 'seismic', 'wavelet'].flatMap((role) => [
      '--in',
      `${role}=${tie.madeBy.inputs[role][0].split('@')[0]}`,
    ]);
    const set = ['shift=typed', 'shiftMs=0', 'top=Tolven Top'].flatMap((s) => ['--set', s]);
    cli('do', 'tie.well', '--project', work.project, ...roles, ...set, '--name', name);
    const unmoved = work.named('time-depth relation', name);
    say('error unmoved', worst(errorsOf(unmoved, truth, tops)), 'ms');
  }
  return rows;
}

export function musts(rows) {
  const of = (measure) =>
    rows.filter((r) => CHECKED.some((w) => r.measure === `${w}: ${measure}`)).map((r) => Math.abs(r.value));
  const mean = (values) => values.reduce((a, b) => a + b, 0) / values.length;
  const errors = of('error');
  const middle = of('error at Tolven Top, the middle of the window');
  const bars = of('90 % bar');
  return [
    must(
      part,
      `ties from checkshots within ${RIGHT_MS} ms`,
      errors.filter((e) => e <= RIGHT_MS).length / errors.length,
      'of them',
      'at least',
      0.888,
    ),
    must(
      part,
      'mean error, less that without correlation',
      mean(errors) - mean(of('error unmoved')),
      'ms',
      'at most',
      0,
    ),
    row(
      part,
      'ties from checkshots inside their 90 % bar',
      null,
      middle.filter((e, n) => e <= bars[n]).length / middle.length,
      'of them',
    ),
  ];
}
