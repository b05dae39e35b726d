// A SEG-Y of 400 MB: loaded against a plain read-and-convert loop, its planes cold; and the memory of a load of 8 GB.
import { closeSync, ftruncateSync, openSync, readFileSync, readSync, rmSync, statSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { cutPlanes, loadFile, memoryStore, readPlane } from '@lithagon/core';
import { crsTable, fileSource, folderStore } from '@lithagon/core/node';
import { median, timed } from './support.mjs';

const SAYS = { domain: 'twt', quantity: 'amplitude', crs: 'EPSG:32740' };

/** A 3D survey as IEEE floats; `real` fills in samples, else only headers are written and the file is sparse. */
export function writeSurvey(path, ni, nj, nk, real) {
  const traceBytes = 240 + 4 * nk;
  const head = Buffer.alloc(3600, 0x40);
  head.fill(0, 3200);
  head.writeInt16BE(4000, 3216);
  head.writeUInt16BE(nk, 3220);
  head.writeInt16BE(5, 3224);
  head.writeInt16BE(1, 3254);
  head.writeUInt8(1, 3500);
  head.writeInt16BE(1, 3502);
  const file = openSync(path, 'w');
  writeSync(file, head);
  ftruncateSync(file, 3600 + ni * nj * traceBytes);
  const line = Buffer.alloc(real ? nj * traceBytes : 240);
  for (let i = 0; i < ni; i++) {
    for (let j = 0; j < nj; j++) {
      const at = real ? j * traceBytes : 0;
      line.writeInt16BE(1, at + 70);
      line.writeInt32BE(500000 + 25 * j, at + 180);
      line.writeInt32BE(7600000 + 25 * i, at + 184);
      line.writeInt32BE(1000 + i, at + 188);
      line.writeInt32BE(2000 + j, at + 192);
      if (real)
        for (let k = 0; k < nk; k++) line.writeFloatBE(Math.sin(i * 0.1 + j * 0.2 + k * 0.3) * 1000, at + 240 + 4 * k);
      else writeSync(file, line, 0, 240, 3600 + (i * nj + j) * traceBytes);
    }
    if (real) writeSync(file, line, 0, line.length, 3600 + i * nj * traceBytes);
  }
  closeSync(file);
}

/** What any reader has to do: the file once, every sample converted. */
function plain(path, nk) {
  const traceBytes = 240 + 4 * nk;
  const { size } = statSync(path);
  const file = openSync(path, 'r');
  const block = Buffer.alloc(traceBytes * Math.floor((8 << 20) / traceBytes));
  const out = new Float32Array((block.length / traceBytes) * nk);
  const view = new DataView(block.buffer, block.byteOffset, block.length);
  for (let at = 3600; at < size; ) {
    const read = readSync(file, block, 0, block.length, at);
    const traces = Math.floor(read / traceBytes);
    for (let t = 0; t < traces; t++)
      for (let k = 0; k < nk; k++) out[t * nk + k] = view.getFloat32(t * traceBytes + 240 + 4 * k);
    at += traces * traceBytes;
  }
  closeSync(file);
  return out;
}

/** A store that keeps nothing but what it is told of objects. */
const nowhere = () => ({ ...memoryStore(), writeBytes: async () => undefined });

async function seconds(work) {
  const began = performance.now();
  await work();
  return (performance.now() - began) / 1000;
}

export async function measure({ dir }) {
  const results = [];
  const path = join(dir, 'large.sgy');
  writeSurvey(path, 500, 400, 500, true);
  const megabytes = statSync(path).size / 1e6;
  readFileSync(path, { flag: 'r' }).length; // both find it in the page cache
  const [loads, plains] = [[], []];
  let project;
  let store;
  let volume;
  // turn about, so that both meet the machine as it is; the first of each is not counted. What a load wrote is gone before
  // the next begins, else the disk would still be busy with it
  for (let n = 0; n < 4; n++) {
    if (project) rmSync(project, { recursive: true });
    project = join(dir, `large-${n}`);
    store = await folderStore(project, { name: 'bench' });
    const source = await fileSource(path);
    const load = async () => {
      [volume] = (await loadFile(source, SAYS, { store, crsTable })).objects;
    };
    loads.push(await seconds(load));
    await source.close();
    plains.push(await seconds(() => plain(path, 500)));
  }
  const [load, reference] = [loads, plains].map((times) => median(times.slice(1)));
  const uncut = volume;
  const cut = await timed(async () => {
    volume = await cutPlanes(store, uncut);
  }, 1);
  results.push(
    {
      what: `SEG-Y of ${megabytes.toFixed(0)} MB to stored slabs in Node, when the volume is there`,
      value: megabytes / load,
      unit: 'MB/s',
      ratio: reference / load,
      against: 'a plain read-and-convert loop',
    },
    {
      what: 'the same with its copies for crosslines and slices, which are cut behind it',
      value: megabytes / (load + cut),
      unit: 'MB/s',
      ratio: reference / (load + cut),
      against: 'the same',
    },
  );
  for (const [plane, count] of [
    ['inline', 500],
    ['crossline', 400],
    ['slice', 500],
  ]) {
    const times = [];
    for (let n = 0; n < 15; n++) {
      const began = performance.now();
      await readPlane(store, volume, plane, Math.floor((count * (n + 0.5)) / 15));
      times.push(performance.now() - began);
    }
    times.sort((a, b) => a - b);
    results.push({ what: `one ${plane} of it from the folder, slowest of 15`, value: times[14], unit: 'ms' });
  }
  rmSync(project, { recursive: true });
  rmSync(path);

  const sparse = join(dir, 'sparse.sgy');
  writeSurvey(sparse, 250, 500, 16000, false);
  const gigabytes = statSync(sparse).size / 1e9;
  let most = 0;
  const watch = setInterval(() => {
    most = Math.max(most, process.memoryUsage().rss);
  }, 50);
  const source = await fileSource(sparse);
  const sparseLoad = await seconds(() => loadFile(source, SAYS, { store: nowhere(), crsTable }));
  clearInterval(watch);
  await source.close();
  rmSync(sparse);
  results.push(
    {
      what: `memory of the process while a sparse file of ${gigabytes.toFixed(1)} GB is loaded`,
      value: most / 1e6,
      unit: 'MB',
    },
    { what: 'that file read, converted and cut, nothing kept', value: (gigabytes * 1000) / sparseLoad, unit: 'MB/s' },
  );
  return results;
}
