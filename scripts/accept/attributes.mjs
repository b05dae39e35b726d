// Attributes: the channel belt by classes of waveforms, and the gas sand's body with its edge; steps and parameters are the same for all.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { cli } from './field.mjs';
import { median, must, row } from './score.mjs';

const part = 'attributes';
const [NI, NJ, NK] = [160, 200, 451];
const [INLINE, CROSSLINE, MS] = [1000, 2000, 4];

/** Run a step of the project on what is named. */
function make(work, step, inputs, params, name) {
  const roles = Object.entries(inputs).flatMap(([role, of]) => ['--in', `${role}=${of}`]);
  const set = Object.entries(params).flatMap(([key, value]) => ['--set', `${key}=${value}`]);
  cli('do', step, '--project', work.project, ...roles, ...set, '--name', name);
}

/** The one chunk of an array. */
function array(work, ref) {
  const bytes = readFileSync(join(work.project, 'arrays', ref.key, 'c', ...ref.shape.map(() => '0')));
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
}

/** How far two ways to part the same things agree, less what chance gives (Hubert & Arabie 1985). */
function randIndex(a, b) {
  const pairs = (n) => (n * (n - 1)) / 2;
  const counts = (keys) => {
    const out = new Map();
    for (const key of keys) out.set(key, (out.get(key) ?? 0) + 1);
    return [...out.values()].reduce((sum, n) => sum + pairs(n), 0);
  };
  const both = counts(a.map((v, n) => `${v} ${b[n]}`));
  const [one, other] = [counts(a), counts(b)];
  const chance = (one * other) / pairs(a.length);
  return (both - chance) / ((one + other) / 2 - chance);
}

/** Channel belt against background, where there is reservoir, by two classes of waveforms between its top and base. */
function belt(work) {
  make(work, 'attributes.smooth', { seismic: 'Full stack' }, { way: 'median', radius: 2 }, 'Full smoothed');
  make(
    work,
    'attributes.waveforms',
    { volume: 'Full smoothed', horizon: 'Tolven Top', base: 'Tolven Base' },
    { way: 'mixture', classes: 2, above: 8, below: 8 },
    'Belt',
  );
  const { values } = work.named('map', 'Belt');
  const made = array(work, values);
  const [classes, truth] = [[], []];
  for (const { inline, crossline, channel } of work.truth('reservoir.csv')) {
    const c = made[(inline - INLINE) * NJ + crossline - CROSSLINE];
    if (Number.isNaN(c)) continue;
    classes.push(c);
    truth.push(channel > 0.5);
  }
  return randIndex(classes, truth);
}

/** Table of bodies as records. */
function tableOf(work, name) {
  const { columns, rows } = work.named('result table', `Table of bodies of ${name}`);
  return rows.map((r) => Object.fromEntries(columns.map((c, n) => [c.name, r[n]])));
}

/**
 * The gas sand by the envelope of the smoothed far stack: first what is brightest just under the top, whose edge tells where it ends down
 * dip; then what is bright between the top and a level base at that edge.
 */
function gasSand(work) {
  make(work, 'attributes.smooth', { seismic: 'Far stack' }, { way: 'median', radius: 2 }, 'Far smoothed');
  make(work, 'attributes.trace', { seismic: 'Far smoothed' }, { kind: 'envelope' }, 'Far envelope');
  const depth = { depth: 'Tolven Top in depth' };
  make(
    work,
    'attributes.bodies',
    { volume: 'Far envelope', top: 'Tolven Top', ...depth },
    { test: 'percentiles', from: 94, to: 100, below: 16, most: 1 },
    'Brightest',
  );
  const [brightest] = tableOf(work, 'Far envelope');
  const flat = `in(Tolven_Top, "ms") + 2000 * (${brightest.Edge} - in(Tolven_Top_in_depth, "m")) / 2400`;
  const named = { horizons: ['Tolven Top', 'Tolven Base', 'Tolven Top in depth'] };
  cli(
    'do',
    'attributes.mapFormula',
    '--project',
    work.project,
    ...named.horizons.flatMap((h) => ['--in', `horizons=${h}`]),
    '--set',
    `formula=min(in(Tolven_Base, "ms"), ${flat})`,
    '--set',
    'unit=ms',
    '--name',
    'Level base',
  );
  make(
    work,
    'attributes.bodies',
    { volume: 'Far envelope', top: 'Tolven Top', base: 'Level base', ...depth },
    { test: 'percentiles', from: 30, to: 100, most: 1 },
    'Gas sand',
  );
  const sets = work.objects().filter((o) => o.kind === 'bodies');
  const body = sets.at(-1);
  const runs = array(work, body.runs);
  const inside = new Uint8Array(NI * NJ * NK);
  for (let n = 0; n < runs.length; n += 5)
    inside.fill(1, (runs[n] * NJ + runs[n + 1]) * NK + runs[n + 2], (runs[n] * NJ + runs[n + 1]) * NK + runs[n + 3]);
  let [both, either, contact] = [0, inside.reduce((a, b) => a + b, 0), 0];
  for (const { inline, crossline, gas_top_ms: top, gas_base_ms: base, gas_base_m: deepest } of work.truth(
    'reservoir.csv',
  )) {
    if (Number.isNaN(top)) continue;
    contact = Math.max(contact, deepest);
    const trace = ((inline - INLINE) * NJ + crossline - CROSSLINE) * NK;
    // a sample stands for half a step around it
    for (let k = Math.ceil(top / MS - 0.5); k <= Math.floor(base / MS + 0.5); k++)
      if (inside[trace + k]) both++;
      else either++;
  }
  const { edgeM, lowestM, spreadM, chance } = body.bodies[0];
  return { overlap: both / either, edge: edgeM - contact, lowest: lowestM - contact, spread: spreadM, chance };
}

export function measure(work) {
  const say = (measure, value, unit) => row(part, measure, work.seed, value, unit);
  const gas = gasSand(work);
  return [
    say('channel belt: adjusted Rand index', belt(work), ''),
    say('gas sand: overlap of its body with the truth (Jaccard)', gas.overlap, ''),
    say('gas sand: middle of its edge, from the contact', gas.edge, 'm'),
    say('gas sand: lowest of its edge, from the contact', gas.lowest, 'm'),
    say('gas sand: spread of its edge', gas.spread, 'm'),
    say('gas sand: as flat by chance', gas.chance, ''),
  ];
}

export function musts(rows) {
  const of = (measure) => rows.filter((r) => r.part === part && r.measure === measure).map((r) => r.value);
  return [
    must(
      part,
      'channel belt: adjusted Rand index (median over seeds)',
      median(of('channel belt: adjusted Rand index')),
      '',
      'at least',
      0.4,
    ),
    must(
      part,
      'gas sand: overlap of its body with the truth (median over seeds)',
      median(of('gas sand: overlap of its body with the truth (Jaccard)')),
      '',
      'at least',
      0.5,
    ),
    must(
      part,
      'gas sand: lowest of its edge, off the contact without its sign (median over seeds)',
      median(of('gas sand: lowest of its edge, from the contact').map(Math.abs)),
      'm',
      'at most',
      10,
    ),
  ];
}
