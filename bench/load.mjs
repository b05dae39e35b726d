// SEG-Y to stored slabs in Node, against a plain loop that reads the file and converts its samples.
import { readFileSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { loadFile } from '@lithagon/core';
import { crsTable, fileSource, folderStore } from '@lithagon/core/node';
import { timed } from './support.mjs';

function plain(path) {
  const bytes = readFileSync(path);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const samples = view.getUint16(3220);
  const trace = 240 + 4 * samples;
  const count = (bytes.length - 3600) / trace;
  const out = new Float32Array(count * samples);
  for (let t = 0; t < count; t++)
    for (let k = 0; k < samples; k++) {
      const word = view.getUint32(3600 + t * trace + 240 + 4 * k);
      const fraction = (word & 0xffffff) / 0x1000000;
      const value = fraction * 16 ** (((word >>> 24) & 0x7f) - 64);
      out[t * samples + k] = word >>> 31 ? -value : value;
    }
  return out;
}

export async function measure({ files, dir }) {
  const path = join(files, 'quillon-full.sgy');
  const megabytes = statSync(path).size / 1e6;
  let n = 0;
  const load = await timed(async () => {
    const project = join(dir, `load-${n++}`);
    const source = await fileSource(path);
    await loadFile(
      source,
      { domain: 'twt', quantity: 'amplitude', crs: 'EPSG:32740' },
      {
        store: await folderStore(project, { name: 'bench' }),
        crsTable,
      },
    );
    await source.close();
    rmSync(project, { recursive: true });
  }, 3);
  const reference = await timed(() => plain(path), 3);
  return [
    {
      what: 'SEG-Y of IBM floats to stored slabs in Node, when the volume is there',
      value: megabytes / load,
      unit: 'MB/s',
      ratio: reference / load,
      against: 'a plain read-and-convert loop',
    },
  ];
}
