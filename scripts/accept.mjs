// npm run accept [-- --seeds 1,2,3 --only tie,depth --json]: works up whole made-up fields by the recipe with their truth
// moved away, then compares. Exits with 1 where a must falls short. Takes some minutes a seed. With all six seeds and all
// parts the figures go to docs/accuracy.md; with --json they go to stdout as one array.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildPackages, install, keepStdoutForFigures, root } from './setup.mjs';

const PARTS = ['tie', 'wells', 'horizons', 'attributes', 'structure', 'inversion', 'depth', 'volumes'];
const SEEDS = [1, 2, 3, 4, 5, 6];

const option = (name) => {
  const at = process.argv.indexOf(`--${name}`);
  return at > 0 ? process.argv[at + 1].split(',') : null;
};
const seeds = option('seeds')?.map(Number) ?? SEEDS;
const only = option('only') ?? PARTS;
const asJson = process.argv.includes('--json');
const unknown = only.filter((name) => !PARTS.includes(name));
if (unknown.length > 0 || seeds.some((s) => !Number.isInteger(s))) {
  console.error(`Parts are ${PARTS.join(', ')}, and seeds are whole numbers. Nothing was run.`);
  process.exit(2);
}
if (asJson) keepStdoutForFigures();
install();
buildPackages();
const { workUp } = await import('./accept/field.mjs');
const parts = await Promise.all(only.map((name) => import(`./accept/${name}.mjs`)));

const rows = [];
for (const seed of seeds) {
  console.error(`Seed ${seed} …`);
  const work = workUp(seed);
  try {
    for (const part of parts) rows.push(...(await part.measure(work)));
  } finally {
    work.remove();
  }
}
const summary = parts.flatMap((part) => part.musts(rows));
if (asJson) process.stdout.write(`${JSON.stringify([...rows, ...summary], null, 1)}\n`);
else {
  const { page } = await import('./accept/page.mjs');
  const reading = join(root, 'docs/accuracy-reading.md');
  const text = page(rows, summary, seeds, existsSync(reading) ? readFileSync(reading, 'utf8').trim().split('\n') : []);
  console.log(text);
  if (SEEDS.every((s) => seeds.includes(s)) && only.length === PARTS.length)
    writeFileSync(join(root, 'docs/accuracy.md'), text);
}
const failed = summary.filter((r) => r.must && !r.pass);
for (const r of failed) console.error(`Falls short: ${r.part}: ${r.measure} is ${r.value}, must be ${r.must}.`);
process.exit(failed.length > 0 ? 1 : 0);
