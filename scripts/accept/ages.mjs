// Relative ages of the full stack from three horizons, an unconformity and the two faults that are drawn: how far off they are, as
// time, where they are said to be valid, and how much of the Merrow Shale is there.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { folderStore } from '../../packages/core/dist/node.js';
import { readRegion } from '../../packages/core/dist/storage/regions.js';
import { cli } from './field.mjs';
import { median, must, row } from './score.mjs';

const part = 'structure';
const FAULTS = ['Osmund Fault', 'Antithetic'];
/** Layers of the truth by the number that ages of theirs begin with. */
const LAYERS = {
  2: 'Lantern Silt',
  3: 'Brack Marl',
  4: 'Merrow Shale',
  5: 'Tolven Sandstone',
  6: 'Sable Shale',
  7: 'Pell Limestone',
};
const MERROW = 4;
/** Width, in found age, over which what is found is brought to the scale of the truth by medians. */
const BIN = 8;

const given = (role, names) => names.flatMap((name) => ['--in', `${role}=${name}`]);

function track(work, top, name) {
  const wells = given('wells', ['well/QN-1', 'well/QN-2', 'well/QN-4']);
  const common = ['--project', work.project];
  cli(
    'do',
    'interpret.track',
    ...common,
    '--in',
    'seismic=Full stack',
    ...wells,
    ...given('faults', FAULTS),
    '--set',
    `top=${top}`,
    '--name',
    `${name} tracked`,
  );
  cli(
    'do',
    'interpret.close',
    ...common,
    '--in',
    `horizon=${name} tracked`,
    ...given('faults', FAULTS),
    '--name',
    name,
  );
}

/** Ages solved, and the surface down to which they are valid: their objects. */
export function findAges(work, level) {
  track(work, 'Pell Top', 'Pell event');
  track(work, 'Brack Unconformity', 'Unconformity');
  const horizons = ['Brack Top tracked', 'Tolven Base tracked', 'Pell event tracked'];
  cli(
    'do',
    'interpret.age',
    '--project',
    work.project,
    '--in',
    'seismic=Full stack',
    ...given('horizons', horizons),
    ...given('faults', FAULTS),
    '--in',
    'unconformities=Unconformity',
    '--set',
    `level=${level}`,
    '--name',
    'Age',
  );
  const last = (test) => work.objects().findLast(test);
  const age = last((o) => o.kind === 'volume' && o.quantity === 'relative age');
  const misfit = last((o) => o.kind === 'volume' && o.madeBy.output === 'misfit');
  cli(
    'do',
    'interpret.ageValid',
    '--project',
    work.project,
    '--in',
    `age=${age.name}`,
    '--in',
    `misfit=${misfit.name}`,
    '--name',
    'Valid',
  );
  return { age, valid: last((o) => o.kind === 'horizon' && o.madeBy.output === 'valid'), horizons };
}

/** Samples of the truth with the age found there and whether it is said to be valid. */
async function samplesOf(work, { age, valid }) {
  const store = await folderStore(work.project);
  const [ni, nj, nk] = [age.binGrid.inline.count, age.binGrid.crossline.count, age.vertical.count];
  const found = await readRegion(store, age, { i: [0, ni], j: [0, nj], k: [0, nk] });
  const path = join(work.hidden ?? join(work.files, 'truth'), 'ages');
  const facts = JSON.parse(readFileSync(`${path}.json`, 'utf8'));
  const bytes = readFileSync(`${path}.f32`);
  const truth = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
  const { inline, crossline, samples } = facts;
  const validTo = work.gridOf(valid.name);
  const out = [];
  for (let i = 0; i < inline.count; i++)
    for (let j = 0; j < crossline.count; j++) {
      const [il, xl] = [inline.first + i * inline.step, crossline.first + j * crossline.step];
      const deepest = validTo(il, xl);
      const trace = ((il - age.binGrid.inline.first) * nj + xl - age.binGrid.crossline.first) * nk;
      for (let k = 1; k + 1 < samples.count; k++) {
        const n = (i * crossline.count + j) * samples.count + k;
        const layer = Math.floor(truth[n]);
        const rate = (truth[n + 1] - truth[n - 1]) / (2 * samples.stepMs);
        // beside a fault or an unconformity a trace has no one rate
        if (!LAYERS[layer] || !(rate > 1e-5 && rate < 0.05)) continue;
        const ms = samples.firstMs + k * samples.stepMs;
        out.push({
          layer,
          rate,
          truth: truth[n],
          found: found[trace + Math.round((ms - age.vertical.first) / age.vertical.step)],
          valid: ms <= deepest,
        });
      }
    }
  return { samples: out, found, size: [ni, nj, nk] };
}

/** Errors as time: the scale of what was found is brought to that of the truth layer by layer. */
function withErrors(samples) {
  for (const layer of Object.keys(LAYERS).map(Number)) {
    const own = samples.filter((s) => s.layer === layer && s.valid && !Number.isNaN(s.found));
    const bins = new Map();
    for (const s of own) {
      const bin = Math.floor(s.found / BIN);
      if (!bins.has(bin)) bins.set(bin, []);
      bins.get(bin).push(s.truth);
    }
    const middle = new Map([...bins].map(([bin, values]) => [bin, median(values)]));
    for (const s of own) {
      const x = s.found / BIN - 0.5;
      const low = Math.floor(x);
      const [a, b] = [middle.get(low), middle.get(low + 1)];
      const age = a === undefined ? b : b === undefined ? a : a + (x - low) * (b - a);
      s.error = (age - s.truth) / s.rate;
    }
  }
  return samples.filter((s) => s.error !== undefined);
}

const rms = (values) => Math.sqrt(values.reduce((sum, v) => sum + v * v, 0) / values.length);

/** How far the ages along a horizon are from one, as time, over the bins that hold it. */
function heldBy(work, name, { found, size: [ni, nj, nk], age }) {
  const level = work.gridOf(name);
  const { inline, crossline } = age.binGrid;
  const at = [];
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const k = (level(inline.first + i, crossline.first + j) - age.vertical.first) / age.vertical.step;
      const low = Math.floor(k);
      if (!(low >= 0 && low + 1 < nk)) continue;
      const n = (i * nj + j) * nk + low;
      const rise = (found[n + 1] - found[n]) / age.vertical.step;
      if (rise > 0) at.push({ age: found[n] + (k - low) * (found[n + 1] - found[n]), rise });
    }
  const middle = median(at.map((p) => p.age));
  return median(at.map((p) => Math.abs(p.age - middle) / p.rise));
}

export async function measureAges(work, level = 'medium') {
  const made = findAges(work, level);
  const read = await samplesOf(work, made);
  const say = (measure, value, unit) => row(part, measure, work.seed, value, unit);
  const errors = withErrors(read.samples);
  const merrow = read.samples.filter((s) => s.layer === MERROW);
  const out = [
    say('age: error as time in the valid region, rms', rms(errors.map((s) => s.error)), 'ms'),
    say(
      'age: part of the Merrow Shale that is in the valid region',
      merrow.filter((s) => s.valid).length / merrow.length,
      '',
    ),
    say(
      'age: largest of the median distances of horizons from one age',
      Math.max(...made.horizons.map((h) => heldBy(work, h, { ...read, age: made.age }))),
      'ms',
    ),
  ];
  for (const [layer, name] of Object.entries(LAYERS)) {
    const own = errors.filter((s) => s.layer === Number(layer));
    out.push(say(`age: error as time in the ${name}, rms in the valid region`, rms(own.map((s) => s.error)), 'ms'));
  }
  return out;
}

export function agesMusts(rows) {
  const of = (measure) => median(rows.filter((r) => r.part === part && r.measure === measure).map((r) => r.value));
  const over = (measure, unit, sense, bound) =>
    must(part, `${measure} (median over seeds)`, of(measure), unit, sense, bound);
  return [
    over('age: error as time in the valid region, rms', 'ms', 'at most', 8),
    over('age: part of the Merrow Shale that is in the valid region', '', 'at least', 0.7),
    over('age: largest of the median distances of horizons from one age', 'ms', 'at most', 2),
  ];
}
