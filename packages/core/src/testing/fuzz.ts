import { crsTable } from '../earth/crsTable.ts';
import { asLithagonError, LithagonError } from '../earth/errors.ts';
import { objectSchema } from '../earth/objects.ts';
import { crsOf, frameFor } from '../files/coordinates.ts';
import { inspectFile } from '../files/inspect.ts';
import { loadFile } from '../files/load.ts';
import { exportObject } from '../files/out/export.ts';
import { writeHdf5 } from '../formats/hdf5/write.ts';
import { memorySource } from '../formats/source.ts';
import { damagesOf } from '../storage/damage.ts';
import { memoryStore } from '../storage/memory.ts';
import { readProject, writtenProject } from '../storage/projectFile.ts';
import { zipOf } from './hostileParcels.ts';
import { madeHorizon } from './objects.ts';
import { uniform } from './random.ts';
import { makeNetcdf } from './rasters.ts';
import { makeSegy, PLAIN_SEGY } from './segyWriter.ts';
import { madeVolume } from './volume.ts';

const text = (t: string) => new TextEncoder().encode(t);

/** A shapefile of one polygon, byte by byte as its description of 1998 has it. */
function shapefile(): Uint8Array {
  const ring = [
    [0, 0],
    [0, 100],
    [100, 100],
    [0, 0],
  ];
  const body = 44 + 4 + 16 * ring.length;
  const out = new Uint8Array(100 + 8 + body);
  const view = new DataView(out.buffer);
  view.setInt32(0, 9994);
  view.setInt32(24, out.length / 2);
  view.setInt32(28, 1000, true);
  view.setInt32(32, 5, true);
  view.setInt32(100, 1);
  view.setInt32(104, body / 2);
  view.setInt32(108, 5, true);
  view.setInt32(108 + 36, 1, true);
  view.setInt32(108 + 40, ring.length, true);
  ring.forEach(([x, y], n) => {
    view.setFloat64(108 + 48 + 16 * n, x, true);
    view.setFloat64(108 + 56 + 16 * n, y, true);
  });
  return out;
}

const even = (name: string, first: number, step: number, count: number) => ({
  name,
  dimensions: [name],
  type: 'double' as const,
  values: Array.from({ length: count }, (_, n) => first + n * step),
});
const CELLS = Array.from({ length: 20 }, (_, n) => 900 + n);

/** A grid as a classic netCDF. */
const netcdf = () =>
  makeNetcdf(
    [
      ['x', 5],
      ['y', 4],
    ],
    [even('x', 0, 10, 5), even('y', 30, -10, 4), { name: 'z', dimensions: ['y', 'x'], type: 'float', values: CELLS }],
  );

/** The same as HDF5. */
async function hdf5(): Promise<Uint8Array> {
  const part = (name: string, values: number[], shape: number[]) => ({
    name,
    shape,
    attributes: {},
    parts: (async function* () {
      yield { rows: shape[0], values: Float32Array.from(values) };
    })(),
  });
  const [x, y] = [even('x', 0, 10, 5), even('y', 30, -10, 4)];
  return writeHdf5([part('x', x.values, [5]), part('y', y.values, [4]), part('z', CELLS, [4, 5])], {});
}

/** A good file of every kind that is read, with what has to be declared of it. */
export async function goodFiles(): Promise<{ name: string; bytes: Uint8Array; declare: Record<string, string> }[]> {
  const seismic = { domain: 'twt', quantity: 'attribute' };
  const store = memoryStore();
  const frame = frameFor(await crsOf('EPSG:32740', crsTable));
  const volume = await madeVolume(store, (i, j, k) => i + j * k, { samples: 8 });
  const bed = await madeHorizon(store, 'Bed', 'depth', (i, j) => 900 + i + j);
  const inOrder = (n: number) => Array.from({ length: n }, (_, k) => k);
  return [
    { name: 'a.sgy', bytes: makeSegy({ ...PLAIN_SEGY, samples: 12 }, inOrder), declare: seismic },
    {
      name: 'b.sgy',
      bytes: makeSegy({ ...PLAIN_SEGY, format: 3, littleEndian: true, revision: 2, samples: 12 }, inOrder),
      declare: seismic,
    },
    { name: 'c.zarr.zip', bytes: await exportObject(store, volume, 'zarr.zip', frame), declare: {} },
    {
      name: 'd.tif',
      bytes: await exportObject(store, bed, 'tif', frame),
      declare: { domain: 'depth', unit: 'm', sign: 'down' },
    },
    { name: 'e.csv', bytes: await exportObject(store, bed, 'csv', frame), declare: {} },
    {
      name: 'f.las',
      bytes: text(
        '~V\n VERS. 2.0 :\n WRAP. NO :\n~W\n NULL. -999.25 :\n WELL. A-1 :\n~C\n DEPT.M :\n DT.US/M :\n~A\n100 300\n101 310\n102 -999.25\n',
      ),
      declare: {},
    },
    { name: 'g.csv', bytes: text('well,x_m,y_m,kb_m\nA-1,1000,2000,25\nA-2,1500,2500,20\n'), declare: {} },
    { name: 'h.txt', bytes: text('# tops\nWell;Top;MD\n;;m\nA-1;Brack Top;1500,5\nA-2;Pell Top;1600\n'), declare: {} },
    {
      name: 'i.csv',
      bytes: text('fault,stick,x_m,y_m,twt_ms\nF,0,0,0,900\nF,0,10,0,700\nF,1,0,500,700\n'),
      declare: {},
    },
    {
      name: 'j.geojson',
      bytes: text(
        '{"type":"FeatureCollection","crs":{"type":"name","properties":{"name":"EPSG:32740"}},"features":[{"type":"Feature","properties":{"name":"L"},"geometry":{"type":"Polygon","coordinates":[[[0,0],[0,9],[9,9],[0,0]]]}}]}',
      ),
      declare: {},
    },
    {
      name: 'k.asc',
      bytes: text('ncols 3\nnrows 2\nxllcorner 0\nyllcorner 0\ncellsize 10\nNODATA_value -9999\n1 2 3\n4 -9999 6\n'),
      declare: { domain: 'depth', unit: 'm', sign: 'down' },
    },
    { name: 'l.shp', bytes: shapefile(), declare: {} },
    {
      name: 'n.zip',
      bytes: new Uint8Array(await (await zipOf([['a/one.shp', shapefile()]])).arrayBuffer()),
      declare: {},
    },
    { name: 'o.nc', bytes: netcdf(), declare: { domain: 'depth', unit: 'm', sign: 'down' } },
    { name: 'p.nc', bytes: await hdf5(), declare: { domain: 'depth', unit: 'm', sign: 'down' } },
    { name: 'q.geojson', bytes: text('{"type":"MultiPoint","coordinates":[[57,-21],[57.1,-21]]}'), declare: {} },
    { name: 'r.csv', bytes: text('name,x,y\nA,1000,2000\nB,1500,2500\n'), declare: {} },
    {
      name: 'm.p190',
      bytes: text(
        `H0100Survey\nH0200Date\n${[1, 2, 3].map((n) => `S${'QL-3'.padEnd(18)}${String(n).padStart(6)}${'212233.00S'.padStart(10)}${'0571010.00E'.padStart(11)}${String(1000 * n).padStart(9)}${'2000.0'.padStart(9)}`).join('\n')}\n`,
      ),
      declare: {},
    },
  ];
}

/** Words that a file may smuggle in: none may be believed, run or written anywhere. */
const HOSTILE = [
  '__proto__',
  'constructor',
  '<img src=x onerror=alert(1)>',
  '../../etc/passwd',
  '=1+1',
  '\u0000',
  'NaN',
  '1e999',
  '-',
  'ß'.repeat(5000),
];

/** A seeded generator of numbers from 0 to below 1. */
export function seeded(seed: number): () => number {
  return uniform(seed * 2654435761 + 1);
}

/** A file with something wrong: bytes changed, cut, doubled, moved, or words put in. */
export function mutated(bytes: Uint8Array, random: () => number): Uint8Array {
  let out = bytes.slice();
  const times = 1 + Math.floor(random() * 4);
  const at = () => Math.floor(random() * Math.max(1, out.length));
  for (let n = 0; n < times; n++)
    switch (Math.floor(random() * 7)) {
      case 0:
        for (let m = 0; m < 1 + random() * 30; m++) out[at()] = Math.floor(random() * 256);
        break;
      case 1:
        out = out.slice(0, at());
        break;
      case 2: {
        const [a, b] = [at(), at()].sort((p, q) => p - q);
        out = new Uint8Array([...out.subarray(0, b), ...out.subarray(a, Math.min(b, a + 4000)), ...out.subarray(b)]);
        break;
      }
      case 3: {
        const a = at();
        out = new Uint8Array([
          ...out.subarray(0, a),
          ...out.subarray(Math.min(out.length, a + 1 + Math.floor(random() * 200))),
        ]);
        break;
      }
      case 4: {
        const word = text(HOSTILE[Math.floor(random() * HOSTILE.length)]);
        const a = at();
        out = new Uint8Array([...out.subarray(0, a), ...word, ...out.subarray(a)]);
        break;
      }
      case 5:
        // the numbers that sizes are read from
        for (let m = 0; m < 4; m++)
          out[Math.min(out.length - 1, 3200 + Math.floor(random() * 400))] = random() < 0.5 ? 255 : 0;
        break;
      default: {
        // one field of a text swapped for another
        const words = new TextDecoder().decode(out.subarray(0, 20000)).split(/([\s,;:]+)/);
        if (words.length > 4) {
          const [a, b] = [Math.floor(random() * words.length), Math.floor(random() * words.length)];
          [words[a], words[b]] = [words[b], words[a]];
          out = new Uint8Array([...text(words.join('')), ...out.subarray(20000)]);
        }
      }
    }
  return out;
}

/** What a mutated file must never do, as sentences; empty where all is well. */
export async function complaints(name: string, bytes: Uint8Array, declare: Record<string, string>): Promise<string[]> {
  const out: string[] = [];
  const store = memoryStore();
  await store.commit({ facts: { frame: frameFor(await crsOf('EPSG:32740', crsTable)) } });
  const source = memorySource(name, bytes);
  const around = { objects: [], frame: (await store.facts()).frame, crsTable };
  const began = Date.now();
  const report = await inspectFile(source, declare, { around }).catch((cause: unknown) => {
    out.push(`looking into it threw: ${String(cause)}`);
    return null;
  });
  if (report?.refused?.code === 'unexpected')
    out.push(`looking into it met what was not foreseen: ${report.refused.message}`);
  if (report?.refused && !/[.?]$/.test(report.refused.message)) out.push(`no sentence: ${report.refused.message}`);
  try {
    const { objects } = await loadFile(source, declare, { store, crsTable });
    for (const object of objects) {
      const parsed = objectSchema.safeParse(object);
      if (!parsed.success)
        out.push(
          `loaded an object that is not whole: ${parsed.error.issues[0].path.join('.')} ${parsed.error.issues[0].message}`,
        );
    }
  } catch (cause) {
    const error = asLithagonError(cause);
    if (!(cause instanceof LithagonError)) out.push(`loading met what was not foreseen: ${error.message}`);
    else if (!/[.?]$/.test(error.message)) out.push(`no sentence: ${error.message}`);
    if ((await store.list()).length > 0) out.push('a refused load left an object');
    if ((await store.arrayOwners()).length > 0) out.push('a refused load left arrays');
  }
  // whatever came of it, the project opens anew and is whole
  const objects = await store.list();
  const kept = { facts: await store.facts(), objects, ledger: await store.ledger(), aside: [] };
  const opened = readProject(JSON.parse(writtenProject(kept)));
  if (!opened) out.push('the project does not open anew');
  for (const { name: which, why } of opened?.aside ?? [])
    out.push(`${which} cannot be read when the project is opened anew: ${why}`);
  for (const object of objects) for (const each of await damagesOf(store, object)) out.push(each.message);
  if (Date.now() - began > 10000) out.push(`it took ${Date.now() - began} ms`);
  if (({} as Record<string, unknown>).polluted !== undefined || Object.keys(Object.prototype).length > 0)
    out.push('it changed the prototype of all objects');
  return out;
}
