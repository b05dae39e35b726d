// Writes objects of a small made-up field in every format and opens them with readers that share nothing with Lithagon:
// Debian's segyio, GDAL, VTK and h5py, installed when missing.
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  crosslineAt,
  exportParts,
  inlineAt,
  loadFile,
  memoryStore,
  readInlines,
  readWhole,
  toMap,
} from '@lithagon/core';
import { crsTable, fileSource } from '@lithagon/core/node';
import { writeField } from '@lithagon/quillon';
import { writeDatumCases } from '../interop/datums.mjs';

// Debian's own: packages of the system are not seen by another
const PYTHON = '/usr/bin/python3';
const has = (module) => spawnSync(PYTHON, ['-c', `import ${module}`]).status === 0;
const missing = [
  ['segyio', 'python3-segyio'],
  ['vtk', 'python3-vtk9'],
  ['h5py', 'python3-h5py'],
  ['numpy', 'python3-numpy'],
  ['pyproj', 'python3-pyproj'],
]
  .filter(([module]) => !has(module))
  .map(([, name]) => name);
if (spawnSync('gdalinfo', ['--version']).status !== 0) missing.push('gdal-bin');
if (missing.length > 0) {
  console.log(`Installing ${missing.join(', ')} …`);
  execFileSync('apt-get', ['install', '-y', '--no-install-recommends', ...missing], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
}

const dir = mkdtempSync(join(tmpdir(), 'lithagon-interop-'));
const files = join(dir, 'files');
mkdirSync(files);
console.log('Making a small field …');
await writeField(files, { seed: 1, size: 'small' });

const store = memoryStore('Interop');
async function load(name, declare = {}) {
  const source = await fileSource(join(files, name));
  const { objects } = await loadFile(source, { crs: 'EPSG:32740', ...declare }, { store, crsTable });
  await source.close();
  return objects;
}
const [volume] = await load('quillon-full.sgy', { domain: 'twt', quantity: 'amplitude', polarity: 'harder-positive' });
const [horizon] = await load('sea-bed.csv');
const wells = await load('well-heads.csv');
await load('well-surveys.csv');
const [outline] = await load('crest-outline.geojson', {});
const { frame } = await store.facts();

async function write(object, name, extension, options) {
  const parts = [];
  for await (const part of exportParts(store, object, extension, frame, options)) parts.push(part);
  writeFileSync(join(dir, name), Buffer.concat(parts));
}
for (const [format, revision] of [
  ['ieee', '1'],
  ['ieee', '2'],
  ['ibm', '1'],
  ['compact', '1'],
])
  await write(volume, `${format}-${revision}.sgy`, 'sgy', { format, revision });
await write(volume, 'volume.h5', 'h5');
await write(volume, 'volume.vti', 'vti');
await write(horizon, 'horizon.h5', 'h5');
await write(horizon, 'horizon.vtp', 'vtp');
await write(horizon, 'horizon.tif', 'tif');
await write(wells[0], 'well.vtp', 'vtp');
await write(outline, 'outline.geojson', 'geojson');

const { binGrid, vertical } = volume;
const [ni, nj, nk] = [binGrid.inline.count, binGrid.crossline.count, vertical.count];
const raw = (name, values) =>
  writeFileSync(join(dir, name), new Uint8Array(values.buffer, values.byteOffset, values.byteLength));
raw('samples.f32', await readInlines(store, volume, 0, ni));
const place = (c) => Float64Array.from({ length: ni * nj }, (_, n) => toMap(binGrid, Math.floor(n / nj), n % nj)[c]);
raw('x.f64', place(0));
raw('y.f64', place(1));
raw('horizon.f32', await readWhole(store, horizon.values));
writeFileSync(
  join(dir, 'expected.json'),
  JSON.stringify({
    shape: [ni, nj, nk],
    inlines: Array.from({ length: ni }, (_, n) => inlineAt(binGrid, n)),
    crosslines: Array.from({ length: nj }, (_, n) => crosslineAt(binGrid, n)),
    times: Array.from({ length: nk }, (_, n) => vertical.first + n * vertical.step),
    horizon: [horizon.binGrid.inline.count, horizon.binGrid.crossline.count],
    origin: horizon.binGrid.origin,
  }),
);
const { status } = spawnSync(PYTHON, [join(import.meta.dirname, '../interop/check.py'), dir], { stdio: 'inherit' });

console.log('Holding conversions between datums against PROJ …');
const cases = join(dir, 'datums.json');
const written = writeDatumCases(cases, await crsTable());
const judged = JSON.parse(
  execFileSync(PYTHON, [join(import.meta.dirname, '../interop/datums.py'), cases], {
    encoding: 'utf8',
    maxBuffer: 1 << 28,
    stdio: ['ignore', 'pipe', 'inherit'],
  }),
);
console.log(
  `${judged.operations} operations, the furthest ${judged.worst.toFixed(4)} m from PROJ’s; ${judged.checked} conversions of ${judged.systems} systems, ${judged.bad.length} further from every operation of PROJ than stated; ${written.refused} datums without a formula.`,
);
for (const { code, off } of judged.wrong) console.log(`  EPSG:${code} is off by ${off} m`);
for (const { says, off } of judged.bad) console.log(`  off by ${off} m: ${says}`);
const datums = judged.wrong.length === 0 && judged.bad.length === 0 && judged.checked > 1000;
rmSync(dir, { recursive: true, force: true });
process.exitCode = status || (datums ? 0 : 1);
