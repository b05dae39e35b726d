// Depth of the reservoir's top over the accumulation and at the well that was left out: by the recipe, and by each of its parts alone,
// each beside the deviation that is stated for it.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { cli } from './field.mjs';
import { median, must, row, worst } from './score.mjs';

const part = 'depth';
const WELLS = ['QN-1', 'QN-2', 'QN-4'];
const HORIZONS = ['Brack Top', 'Tolven Top', 'Tolven Base'].map((name) => `horizon/${name}`);
const BLIND = 'QN-5';

function make(work, step, inputs, params, name) {
  const roles = Object.entries(inputs).flatMap(([role, of]) =>
    [of].flat().flatMap((one) => ['--in', `${role}=${one}`]),
  );
  const set = Object.entries(params).flatMap(([key, value]) => ['--set', `${key}=${value}`]);
  cli('do', step, '--project', work.project, ...roles, ...set, '--name', name);
}

/** The accumulation: what lies above the contact around its top, found by walking from bin to bin. */
function crestOf(work, rows) {
  const crest = work.truthJson.volumes.find((v) => v.area === 'Crest');
  const { x_m, y_m } = work.truthJson.traps.crest.top;
  const key = (inline, crossline) => inline * 10000 + crossline;
  const above = new Map(
    rows.filter((r) => r.depth_m < crest.contacts.owc_m).map((r) => [key(r.inline, r.crossline), r]),
  );
  const start = rows.reduce((a, b) =>
    Math.hypot(b.x_m - x_m, b.y_m - y_m) < Math.hypot(a.x_m - x_m, a.y_m - y_m) ? b : a,
  );
  const [inside, front] = [new Set(), [start]];
  while (front.length > 0) {
    const { inline, crossline, depth_m } = front.pop();
    const here = key(inline, crossline);
    if (inside.has(here)) continue;
    inside.add(here);
    for (const [i, j] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ]) {
      const next = above.get(key(inline + i, crossline + j));
      // a step of a bin that is deeper than this crosses a fault
      if (next && !inside.has(key(next.inline, next.crossline)) && Math.abs(next.depth_m - depth_m) < 15)
        front.push(next);
    }
  }
  return [...inside].map((k) => above.get(k)).filter(Boolean);
}

/** Values of a map on bins as a function of inline and crossline number. */
function mapOf(work, name) {
  const { values, binGrid } = work.named('map', name);
  const bytes = readFileSync(join(work.project, 'arrays', values.key, 'c/0/0'));
  const data = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
  return (inline, crossline) =>
    data[(inline - binGrid.inline.first) * binGrid.crossline.count + crossline - binGrid.crossline.first];
}

/** Models of the recipe's parts by their names: what makes them, and whether wells tell how far they may be off. */
const PARTS = [
  ['the velocity volume alone', 'depth.layers', { velocity: 'Interval velocity' }, {}, false],
  ['layers alone', 'depth.layers', { wells: WELLS }, {}, true],
  ['wells alone', 'depth.wells', { wells: WELLS }, {}, true],
];
const RECIPE = 'the recipe';

export function measure(work) {
  const rows = work.truth('tolven-top.csv');
  const bins = crestOf(work, rows);
  const head = work.table('well-heads.csv').find((w) => w.well === BLIND);
  const top = work.table('well-tops.csv').find((t) => t.well === BLIND && t.top === 'Tolven Top');
  const near = rows.reduce((a, b) =>
    Math.hypot(b.x_m - head.x_m, b.y_m - head.y_m) < Math.hypot(a.x_m - head.x_m, a.y_m - head.y_m) ? b : a,
  );
  const out = [];
  const judge = (name, surface, model, told) => {
    const at = work.gridOf(surface);
    make(
      work,
      'depth.uncertainty',
      { model, horizons: HORIZONS, ...(told ? { wells: WELLS } : {}) },
      {},
      `Deviation by ${name}`,
    );
    const stated = mapOf(work, `Deviation by ${name} of Tolven Top`);
    const judged = (list) => {
      const known = list
        .map((r) => ({ e: at(r.inline, r.crossline) - r.depth_m, s: stated(r.inline, r.crossline) }))
        .filter(({ e }) => !Number.isNaN(e));
      const mean = (of) => known.reduce((sum, k) => sum + of(k), 0) / known.length;
      return {
        bias: mean(({ e }) => e),
        rms: Math.sqrt(mean(({ e }) => e * e)),
        stated: mean(({ s }) => s),
        covered: mean(({ e, s }) => Number(Math.abs(e) <= s)),
        without: 1 - known.length / list.length,
      };
    };
    const over = judged(bins);
    const say = (what, value, unit) => out.push(row(part, `${name}: ${what}`, work.seed, value, unit));
    say('bias over the Crest', over.bias, 'm');
    say('rms over the Crest', over.rms, 'm');
    say('deviation stated there, mean', over.stated, 'm');
    say('truth within one deviation, of the bins there', over.covered, 'of them');
    say('truth within one deviation, of all bins', judged(rows).covered, 'of them');
    say('bins of the Crest without a depth', over.without, 'of them');
    say(`${BLIND}, left out`, at(near.inline, near.crossline) - (top.md_m - head.kb_m), 'm');
    say(`${BLIND}, deviation stated`, stated(near.inline, near.crossline), 'm');
  };
  judge(RECIPE, 'Tolven Top in depth', 'Velocities at wells', true);
  for (const [name, step, inputs, params, told] of PARTS) {
    const model = `By ${name}`;
    make(work, step, { horizons: HORIZONS, seaBed: 'Sea Bed', ...inputs }, params, model);
    const surface = `Tolven Top by ${name}`;
    // of the volume alone there is no model at all: the layers are only there to say how far it may be off
    const source = told ? `velocity model/${model}` : 'Interval velocity';
    make(work, 'depth.horizon', { horizon: 'horizon/Tolven Top', model: source }, {}, surface);
    judge(name, surface, `velocity model/${model}`, told);
  }
  return out;
}

export function musts(rows) {
  const of = (name, measure) => rows.filter((r) => r.measure === `${name}: ${measure}`).map((r) => r.value);
  const rms = (name) => of(name, 'rms over the Crest');
  const bias = (name) => of(name, 'bias over the Crest').map(Math.abs);
  const covered = (what) => {
    const values = of(RECIPE, `truth within one deviation, of ${what}`);
    return values.reduce((a, b) => a + b, 0) / values.length;
  };
  const best = (figures) => Math.min(...PARTS.map(([name]) => figures(name)));
  return [
    must(part, 'the recipe: rms over the Crest (median over seeds)', median(rms(RECIPE)), 'm', 'at most', 10),
    must(part, 'the recipe: rms over the Crest (worst seed)', Math.max(...rms(RECIPE)), 'm', 'at most', 15),
    must(
      part,
      'the recipe: bias over the Crest without its sign (median over seeds)',
      median(bias(RECIPE)),
      'm',
      'at most',
      4,
    ),
    must(
      part,
      'rms of the recipe over the least of its parts alone (medians over seeds)',
      median(rms(RECIPE)) / best((name) => median(rms(name))),
      '',
      'at most',
      1,
    ),
    must(
      part,
      'truth within one deviation over the Crest (mean of seeds), least',
      covered('the bins there'),
      '',
      'at least',
      0.55,
    ),
    must(
      part,
      'truth within one deviation over the Crest (mean of seeds), most',
      covered('the bins there'),
      '',
      'at most',
      0.8,
    ),
    row(part, 'truth within one deviation, all bins (mean of seeds)', null, covered('all bins'), 'of them'),
    ...PARTS.map(([name]) =>
      row(part, `${name}: rms over the Crest (median over seeds)`, null, median(rms(name)), 'm'),
    ),
    ...[RECIPE, ...PARTS.map(([name]) => name)].map((name) =>
      row(part, `${name}: ${BLIND} (worst seed)`, null, worst(of(name, `${BLIND}, left out`)), 'm'),
    ),
  ];
}
