// Contacts and volumes of the Crest accumulation: within the outline that an interpreter drew, against all that is there.

import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { insideRings } from '../../packages/core/dist/numerics/rings.js';
import { inPlace } from '../../packages/core/dist/volumes/inPlace.js';
import { cli } from './field.mjs';
import { median, must, row, worst } from './score.mjs';

const part = 'volumes';

/** Gross rock from the truth's own depth surfaces, by the core's integration, within the outline, less the truth's there. */
function grossFromTruth(work, truth) {
  const [rows, columns] = [160, 200];
  const surface = (file) => {
    const values = new Float32Array(rows * columns).fill(Number.NaN);
    for (const r of work.truth(file)) values[(r.inline - 1000) * columns + r.crossline - 2000] = r.depth_m;
    return values;
  };
  const { features } = JSON.parse(readFileSync(join(work.files, 'crest-outline.geojson'), 'utf8'));
  const places = work.truth('sea-bed.csv');
  const at = (inline, crossline) => {
    const { x_m, y_m } = places.find((r) => r.inline === inline && r.crossline === crossline);
    return [x_m, y_m];
  };
  // far corners, since places are written to the centimetre
  const [o, p, q] = [at(1000, 2000), at(1159, 2000), at(1000, 2199)];
  const axis = (first, count) => ({ first, step: 1, count });
  const binGrid = {
    inline: axis(1000, rows),
    crossline: axis(2000, columns),
    origin: o,
    perInline: [(p[0] - o[0]) / 159, (p[1] - o[1]) / 159],
    perCrossline: [(q[0] - o[0]) / 199, (q[1] - o[1]) / 199],
  };
  const whole = { netToGross: 1, porosity: 1, water: 0 };
  const rock = { gas: whole, oil: whole, oilFactor: 1, gasFactor: 1 };
  const inside = insideRings([features[0].geometry.coordinates[0]]);
  const { goc_m: goc, owc_m: owc } = truth.contacts;
  const made = inPlace(binGrid, surface('tolven-top.csv'), surface('tolven-base.csv'), inside, { goc, owc }, rock);
  return made.grossRock / truth.grossRockVolume_m3 - 1;
}

export function measure(work) {
  const [made] = JSON.parse(cli('show', 'Crest volumes', '--project', work.project, '--json')).records;
  const contacts = work.named('contacts', 'Crest contacts');
  const of = (area) => work.truthJson.volumes.find((v) => v.area === area);
  const crest = of('Crest');
  const say = (measure, value, unit) => row(part, measure, work.seed, value, unit);
  const contact = (name, found, range, truth) => [
    say(`${name}: error`, (found ?? Number.NaN) - truth, 'm'),
    say(`${name}: inside its range`, range && truth >= range[0] && truth <= range[1] ? 1 : 0, ''),
    say(`${name}: half its range`, range ? (range[1] - range[0]) / 2 : Number.NaN, 'm'),
  ];
  const ratio = (key) => made[key] / crest[key] - 1;
  return [
    ...contact('gas–oil contact', contacts.gocM, contacts.gocRange, crest.contacts.goc_m),
    ...contact('oil–water contact', contacts.owcM, contacts.owcRange, crest.contacts.owc_m),
    say('gross rock', ratio('grossRockVolume_m3'), 'of it'),
    say('oil', ratio('oilInPlace_sm3'), 'of it'),
    say('gas', ratio('gasInPlace_sm3'), 'of it'),
    say('gross rock of the truth’s own surfaces', grossFromTruth(work, of('Crest outline')), 'of it'),
    say('the outline leaves out', 1 - of('Crest outline').grossRockVolume_m3 / crest.grossRockVolume_m3, 'of it'),
  ];
}

export function musts(rows) {
  const of = (measure) => rows.filter((r) => r.measure === measure).map((r) => r.value);
  const gross = of('gross rock').map(Math.abs);
  const held = of('gas–oil contact: error').map((goc, n) => {
    const owc = of('oil–water contact: error')[n];
    const inside = ['gas–oil', 'oil–water'].every((name) => of(`${name} contact: inside its range`)[n] === 1);
    return Math.abs(goc) <= 3 && Math.abs(owc) <= 3 && inside;
  });
  return [
    must(part, 'gross rock (median over seeds)', median(gross), 'of it', 'at most', 0.12),
    must(part, 'gross rock (worst seed)', Math.max(...gross), 'of it', 'at most', 0.25),
    must(
      part,
      'both contacts within 3 m and inside their ranges',
      held.filter(Boolean).length / held.length,
      'of seeds',
      'at least',
      0.83,
    ),
    must(
      part,
      'gross rock of the truth’s own surfaces (worst seed)',
      Math.abs(worst(of('gross rock of the truth’s own surfaces'))),
      'of it',
      'at most',
      0.01,
    ),
  ];
}
