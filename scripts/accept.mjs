// npm run accept [-- --seeds 1,2,3]: works up whole made-up fields by the recipe with their truth moved away, then compares.
// The figures go to docs/accuracy.md. Takes some minutes a seed.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root } from './setup.mjs';

const HORIZONS = [
  ['Brack Top', 'brack-top'],
  ['Tolven Top', 'tolven-top'],
  ['Tolven Base', 'tolven-base'],
];
/** Half a period of the 28 Hz wavelet, ms: an error beyond it is a cycle skip. */
const HALF_PERIOD = 1000 / 28 / 2;

function cli(...args) {
  const done = spawnSync('node', [join(root, 'apps/cli/bin/lithagon.mjs'), ...args], { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(`lithagon ${args.join(' ')}: ${done.stderr}`);
  return done.stdout;
}

function csv(path) {
  const [head, ...lines] = readFileSync(path, 'utf8').trim().split('\n');
  const names = head.split(',');
  return lines.map((line) =>
    Object.fromEntries(
      line
        .split(',')
        .map((cell, n) => [names[n], cell === '' ? Number.NaN : Number.isNaN(Number(cell)) ? cell : Number(cell)]),
    ),
  );
}

/** A horizon of the project as a function of inline and crossline number. */
function gridOf(project, name) {
  const { objects } = JSON.parse(readFileSync(join(project, 'project.json'), 'utf8'));
  const { values, lattice } = objects.find((o) => o.kind === 'horizon' && o.name === name);
  const bytes = readFileSync(join(project, 'arrays', values.key, 'c/0/0'));
  const data = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
  return (inline, crossline) =>
    data[(inline - lattice.inline.first) * lattice.crossline.count + crossline - lattice.crossline.first];
}

function tracking(files, project) {
  return HORIZONS.map(([name, file]) => {
    const at = gridOf(project, `${name} tracked`);
    let [events, tracked, close, skipped] = [0, 0, 0, 0];
    for (const row of csv(join(files, 'truth', `${file}.csv`))) {
      if (Number.isNaN(row.event_ms)) continue;
      events++;
      const t = at(row.inline, row.crossline);
      if (Number.isNaN(t)) continue;
      tracked++;
      const error = Math.abs(t - row.event_ms);
      if (error <= 2) close++;
      if (error > HALF_PERIOD) skipped++;
    }
    return { name, events, tracked: tracked / events, within2ms: close / tracked, skipped: skipped / tracked };
  });
}

function depth(files, project, owc) {
  const ring = JSON.parse(readFileSync(join(files, 'crest-outline.geojson'), 'utf8')).features[0].geometry
    .coordinates[0];
  const inside = (x, y) => {
    let odd = false;
    for (let a = 0, b = ring.length - 1; a < ring.length; b = a++)
      if (
        ring[a][1] > y !== ring[b][1] > y &&
        x < ((ring[b][0] - ring[a][0]) * (y - ring[a][1])) / (ring[b][1] - ring[a][1]) + ring[a][0]
      )
        odd = !odd;
    return odd;
  };
  const at = gridOf(project, 'Tolven Top in depth');
  const rows = csv(join(files, 'truth/tolven-top.csv'));
  const errors = rows
    .filter((r) => r.depth_m < owc && inside(r.x_m, r.y_m))
    .map((r) => at(r.inline, r.crossline) - r.depth_m)
    .filter((e) => !Number.isNaN(e));
  const bias = errors.reduce((a, b) => a + b, 0) / errors.length;
  const rms = Math.sqrt(errors.reduce((a, b) => a + b * b, 0) / errors.length);
  const head = csv(join(files, 'well-heads.csv')).find((w) => w.well === 'QN-5');
  const top = csv(join(files, 'well-tops.csv')).find((t) => t.well === 'QN-5' && t.top === 'Tolven Top');
  const near = rows.reduce((a, b) =>
    Math.hypot(b.x_m - head.x_m, b.y_m - head.y_m) < Math.hypot(a.x_m - head.x_m, a.y_m - head.y_m) ? b : a,
  );
  return { bias, rms, blind: at(near.inline, near.crossline) - (top.md_m - head.kb_m) };
}

function acceptSeed(seed) {
  const dir = mkdtempSync(join(tmpdir(), 'lithagon-accept-'));
  const files = join(dir, 'files');
  const hidden = join(dir, 'hidden');
  const project = join(dir, 'project');
  cli('demo', files, '--seed', String(seed));
  renameSync(join(files, 'truth'), hidden);
  renameSync(join(files, 'truth.json'), `${hidden}.json`);
  cli('run', join(files, 'quillon.recipe.json'), '--project', project);
  renameSync(hidden, join(files, 'truth'));
  renameSync(`${hidden}.json`, join(files, 'truth.json'));
  const truth = JSON.parse(readFileSync(join(files, 'truth.json'), 'utf8')).volumes.find(
    (v) => v.area === 'Crest outline',
  );
  const made = JSON.parse(cli('show', 'Crest volumes', '--project', project, '--json')).records[0];
  const result = {
    seed,
    tracking: tracking(files, project),
    depth: depth(files, project, truth.contacts.owc_m),
    contacts: { goc: made.contacts.goc_m - truth.contacts.goc_m, owc: made.contacts.owc_m - truth.contacts.owc_m },
    grossRock: made.grossRockVolume_m3 / truth.grossRockVolume_m3 - 1,
    oil: made.oilInPlace_sm3 / truth.oilInPlace_sm3 - 1,
    gas: made.gasInPlace_sm3 / truth.gasInPlace_sm3 - 1,
  };
  rmSync(dir, { recursive: true, force: true });
  return result;
}

const percent = (v) => `${(100 * v).toFixed(1)} %`;
const signed = (v, places = 1) => `${v < 0 ? '−' : '+'}${Math.abs(v).toFixed(places)}`;

function page(results) {
  const lines = [
    '# Accuracy on the made-up field',
    '',
    'Made by `npm run accept`: the recipe of the demo, unchanged, on whole fields of several seeds with their truth moved away. Event times, closure and volumes are those of the truth. Net-to-gross, porosity and saturations are typed in the recipe, so oil and gas carry their error as well.',
    '',
    '| seed | horizon | traces with an event | tracked | within 2 ms of it | cycle skips |',
    '|---|---|---|---|---|---|',
    ...results.flatMap((r) =>
      r.tracking.map(
        (t) =>
          `| ${r.seed} | ${t.name} | ${t.events} | ${percent(t.tracked)} | ${percent(t.within2ms)} | ${(100 * t.skipped).toFixed(2)} % |`,
      ),
    ),
    '',
    '| seed | depth of Tolven Top over Crest: bias, rms (m) | at the blind well (m) | contacts found less true: gas–oil, oil–water (m) | gross rock | oil | gas |',
    '|---|---|---|---|---|---|---|',
    ...results.map(
      (r) =>
        `| ${r.seed} | ${signed(r.depth.bias)}, ${r.depth.rms.toFixed(1)} | ${signed(r.depth.blind)} | ${signed(r.contacts.goc)}, ${signed(r.contacts.owc)} | ${signed(100 * r.grossRock)} % | ${signed(100 * r.oil)} % | ${signed(100 * r.gas)} % |`,
    ),
    '',
  ];
  return lines.join('\n');
}

const at = process.argv.indexOf('--seeds');
const seeds = (at > 0 ? process.argv[at + 1] : '1,2,3').split(',').map(Number);
install();
build();
const results = [];
for (const seed of seeds) {
  console.log(`Seed ${seed} …`);
  results.push(acceptSeed(seed));
}
writeFileSync(join(root, 'docs/accuracy.md'), page(results));
console.log(page(results));
