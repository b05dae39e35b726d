// npm run accept [-- --seeds 1,2,3]: works up whole made-up fields by the recipe with their truth moved away, then compares.
// The figures go to docs/accuracy.md. Takes some minutes a seed.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { carried, cutSummary, faciesScores } from './acceptWells.mjs';
import { build, install, root } from './setup.mjs';

const HORIZONS = [
  ['Brack Top', 'brack-top'],
  ['Tolven Top', 'tolven-top'],
  ['Tolven Base', 'tolven-base'],
];
/** From the built core, once it is built. */
let inPlace;
let insideRings;
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

/** Error (ms) of each tie at the reservoir's tops: time of the top's depth by the tie, less the true time there. */
function ties(files, project) {
  const { objects } = JSON.parse(readFileSync(join(project, 'project.json'), 'utf8'));
  return objects
    .filter((o) => o.kind === 'time-depth relation')
    .map((tie) => {
      const errors = [
        ['Tolven Top', 'tolven-top'],
        ['Tolven Base', 'tolven-base'],
      ].flatMap(([name, file]) => {
        const out = join(project, 'tops.csv');
        cli('export', `${tie.well} tops`, out, '--project', project);
        const top = csv(out).find((t) => t.top === name);
        if (!top) return [];
        // time goes with depth: the truth's nearest bin lies a few metres higher or lower than the well's top
        const near = csv(join(files, 'truth', `${file}.csv`)).reduce((a, b) =>
          Math.hypot(b.x_m - top.x_m, b.y_m - top.y_m) < Math.hypot(a.x_m - top.x_m, a.y_m - top.y_m) ? b : a,
        );
        const slowness = 2000 / 2600;
        return [top.twt_ms - (near.twt_ms + slowness * (top.tvdss_m - near.depth_m))];
      });
      return {
        well: tie.well,
        correlation: tie.correlation,
        warnings: tie.evidence?.warnings ?? [],
        worst: errors.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0),
      };
    });
}

/** Gross rock from the truth's own depth surfaces, by the core's integration, against the truth's. */
function grossFromTruth(files, truth) {
  const [rows, columns] = [160, 200];
  const surface = (file) => {
    const values = new Float32Array(rows * columns).fill(Number.NaN);
    for (const r of csv(join(files, 'truth', `${file}.csv`)))
      values[(r.inline - 1000) * columns + r.crossline - 2000] = r.depth_m;
    return values;
  };
  const ring = JSON.parse(readFileSync(join(files, 'crest-outline.geojson'), 'utf8')).features[0].geometry
    .coordinates[0];
  const places = csv(join(files, 'truth/sea-bed.csv'));
  const at = (inline, crossline) => {
    const row = places.find((r) => r.inline === inline && r.crossline === crossline);
    return [row.x_m, row.y_m];
  };
  // far corners, since places are written to the centimetre
  const [o, p, q] = [at(1000, 2000), at(1159, 2000), at(1000, 2199)];
  const axis = (first, count) => ({ first, step: 1, count });
  const lattice = {
    inline: axis(1000, rows),
    crossline: axis(2000, columns),
    origin: o,
    perInline: [(p[0] - o[0]) / 159, (p[1] - o[1]) / 159],
    perCrossline: [(q[0] - o[0]) / 199, (q[1] - o[1]) / 199],
  };
  const whole = { netToGross: 1, porosity: 1, water: 0 };
  const rock = { gas: whole, oil: whole, oilFactor: 1, gasFactor: 1 };
  const made = inPlace(
    lattice,
    surface('tolven-top'),
    surface('tolven-base'),
    insideRings([ring]),
    { goc: truth.contacts.goc_m, owc: truth.contacts.owc_m },
    rock,
  );
  return made.grossRock / truth.grossRockVolume_m3 - 1;
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
    ties: ties(files, project),
    carried: carried(cli, files, dir),
    facies: faciesScores(cli, project),
    grossFromTruth: grossFromTruth(files, truth),
    grossRock: made.grossRockVolume_m3 / truth.grossRockVolume_m3 - 1,
    oil: made.oilInPlace_sm3 / truth.oilInPlace_sm3 - 1,
    gas: made.gasInPlace_sm3 / truth.gasInPlace_sm3 - 1,
  };
  rmSync(dir, { recursive: true, force: true });
  return result;
}

const percent = (v) => `${(100 * v).toFixed(1)} %`;
const signed = (v, places = 1) => `${v < 0 ? '−' : '+'}${Math.abs(v).toFixed(places)}`;

/** How many ties are right, and whether warnings tell those that are not. */
function tieSummary(results) {
  const checked = results.flatMap((r) => r.ties).filter((t) => ['QN-1', 'QN-2', 'QN-4'].includes(t.well));
  const right = checked.filter((t) => Math.abs(t.worst) <= 4);
  const wrong = checked.filter((t) => Math.abs(t.worst) > 4);
  const warned = (ties) => ties.filter((t) => t.warnings.length > 0).length;
  return `Of ${checked.length} automatic ties of QN-1, QN-2 and QN-4, ${right.length} are within 4 ms at Tolven Top and Base; ${warned(right)} of these carry a warning, and ${warned(wrong)} of the ${wrong.length} others do.`;
}

function page(results) {
  const lines = [
    '# Accuracy on the made-up field',
    '',
    'Made by `npm run accept`: the recipe of the demo, unchanged, on whole fields of several seeds with their truth moved away. Event times, closure and volumes are those of the truth. Net-to-gross, porosity and saturation are averages over the wells QN-1 to QN-3, which stand in better rock than the field has on average; oil and gas carry that as well.',
    '',
    '| seed | horizon | traces with an event | tracked | of those within 2 ms | cycle skips |',
    '|---|---|---|---|---|---|',
    ...results.flatMap((r) =>
      r.tracking.map(
        (t) =>
          `| ${r.seed} | ${t.name} | ${t.events} | ${percent(t.tracked)} | ${percent(t.within2ms)} | ${(100 * t.skipped).toFixed(2)} % |`,
      ),
    ),
    '',
    '| seed | tie of each well: correlation, worst error at Tolven Top and Base (ms) | gross rock from the truth’s own surfaces |',
    '|---|---|---|',
    ...results.map(
      (r) =>
        `| ${r.seed} | ${r.ties.map((t) => `${t.well}: ${t.correlation.toFixed(2)}, ${signed(t.worst)}${t.warnings.length ? ' (warned)' : ''}`).join('; ')} | ${signed(100 * r.grossFromTruth, 2)} % |`,
    ),
    '',
    tieSummary(results),
    '',
    '| seed | tops of QN-1 carried to four wells: within 2 m of the truth | beds wrongly said missing | reservoir cut out of copies of the four wells: said missing, perhaps missing, not proposed, placed | mudrock cut out: the same | blind-well accuracy of facies (always guessing the commonest; calibration error) |',
    '|---|---|---|---|---|---|',
    ...results.map(
      (r) =>
        `| ${r.seed} | ${r.carried.within2m} of ${r.carried.proposals} | ${r.carried.wronglyAbsent} | ${cutSummary(r.carried.cuts, 'Tolven Top')} | ${cutSummary(r.carried.cuts, 'Brack Top')} | ${r.facies.map((f) => `${f.method} ${percent(f.accuracy)} (${percent(f.majority)}; ${percent(f.calibrationError)})`).join('; ')} |`,
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
({ inPlace } = await import('../packages/core/dist/volumes/inPlace.js'));
({ insideRings } = await import('../packages/core/dist/numerics/rings.js'));
const results = [];
for (const seed of seeds) {
  console.log(`Seed ${seed} …`);
  results.push(acceptSeed(seed));
}
writeFileSync(join(root, 'docs/accuracy.md'), page(results));
console.log(page(results));
