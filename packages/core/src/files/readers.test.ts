import { describe, expect, test } from 'vitest';
import { toMap } from '../earth/binGrid.ts';
import { crsTable } from '../earth/crsTable.ts';
import type { Horizon, Polygon, WellTable } from '../earth/objects.ts';
import { readTable } from '../formats/csv/tables.ts';
import { geotiffOf } from '../formats/geotiff/write.ts';
import { memorySource } from '../formats/source.ts';
import { systemOfWkt } from '../formats/wkt/match.ts';
import { binGridOfPoints } from '../horizons/binGridOfPoints.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import { TURNED } from '../testing/objects.ts';
import { uniform } from '../testing/random.ts';
import { crsOf, frameFor } from './coordinates.ts';
import { inspectFile } from './inspect.ts';
import { loadFile } from './load.ts';
import { matchNames, nearestName } from './names.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
async function load(name: string, content: Uint8Array | string, declare = {}, beside: [string, Uint8Array][] = []) {
  const store = memoryStore();
  await store.commit({ facts: { frame: frameFor(await crsOf('EPSG:32740', crsTable)) } });
  const loaded = await loadFile(
    memorySource(name, typeof content === 'string' ? bytes(content) : content),
    declare,
    { store, crsTable },
    beside.map(([n, b]) => memorySource(n, b)),
  );
  return { store, ...loaded };
}

describe('tables of any dialect', () => {
  test.each([
    ['commas', 'well,top,md_m\nA-1,Brack Top,1500.5\n'],
    ['semicolons and decimal commas', 'well;top;md (m)\nA-1;Brack Top;1500,5\n'],
    ['tabs', 'well\ttop\tmd_m\nA-1\tBrack Top\t1500.5\n'],
    ['a row of units', 'Well,Top,MD\n-,-,m\nA-1,Brack Top,1500.5\n'],
    ['remarks above', '# exported\nList of tops\n\nwell,top,md_m\nA-1,Brack Top,1500.5\n'],
    ['a byte order mark and quotes', '\uFEFF"well","top","md_m"\n"A-1","Brack Top","1500.5"\n'],
    ['feet in the heading', 'Well Name,Marker,MD [ft]\nA-1,Brack Top,4922.90026\n'],
  ])('%s', (_, text) => {
    const table = readTable('tops.csv', text);
    expect(table.spec.kind).toBe('tops');
    expect(table.texts.top[0]).toBe('Brack Top');
    expect(table.numbers.md[0]).toBeCloseTo(1500.5, 4);
  });
  test('columns set apart by blanks', () => {
    const table = readTable(
      'survey.txt',
      'well   md      inc    azi\nA-1    0.0     0.0    0.0\nA-1    500.5   12.5   271\n',
    );
    expect(table.spec.kind).toBe('directional surveys');
    expect([...table.numbers.inclination]).toEqual([0, 12.5]);
  });
  test('what stands for nothing is nothing, and a real 999 stays', () => {
    const table = readTable('h.csv', 'x_m,y_m,depth_m\n0,0,999\n25,0,-999.25\n50,0,1e30\n0,25,9999\n');
    expect([...table.numbers.depth]).toEqual([999, 9999]);
  });
  test('heads under “Name” are wells where no two are alike, and else the corners of an outline', () => {
    const of = (names: string[]) =>
      readTable('t.csv', `Name,X,Y,KB\n${names.map((n, k) => `${n},${100 * k},0,25`).join('\n')}\n`).spec.kind;
    expect(of(['A-1', 'A-2', 'A-3'])).toBe('well heads');
    expect(of(['Licence', 'Licence', 'Licence'])).toBe('polygon');
  });
  test('heads in degrees, minutes and seconds are read, and known for degrees whatever their heading', () => {
    const table = readTable('heads.csv', 'well;x;y;kb\nA-1;56°58\'12"E;20°30\'00"S;25\n');
    expect(table.numbers.x[0]).toBeCloseTo(56.97, 9);
    expect(table.numbers.y[0]).toBeCloseTo(-20.5, 9);
    expect(table.found.x.unit).toBe('deg');
  });
  test('depths below the sea that are all negative are elevations, and said to be', async () => {
    const { objects, warnings } = await load('t.csv', 'well,top,tvdss_m\nA-1,Brack Top,-600\nA-1,Pell Top,-900\n');
    expect((objects[0] as WellTable).rows.map((r) => r[2])).toEqual([600, 900]);
    expect(warnings.join(' ')).toMatch(/negative throughout/);
    // a shallow top on land stays above the sea
    const land = await load('t.csv', 'well,top,tvdss_m\nA-1,Brack Top,-60\n');
    expect((land.objects[0] as WellTable).rows[0][2]).toBe(-60);
  });
  test('columns that no one could guess are told, and told units go before headings', () => {
    const text = 'Bore;Marker;Depth along hole\nA-1;Pell Top;100\n';
    expect(() => readTable('t.csv', text)).toThrow(/make up no table that is known/);
    const mapping = { kind: 'tops', columns: { well: 'Bore', md: 'Depth along hole' }, units: { md: 'ft' } };
    expect(readTable('t.csv', text, mapping).numbers.md[0]).toBeCloseTo(30.48, 9);
  });
  test('a table without names is shown with numbered columns to be told', async () => {
    const source = memorySource('points.xyz', bytes('100 200 900\n125 200 901\n100 225 902\n125 225 903\n'));
    const report = await inspectFile(source);
    expect(report.refused).toBeDefined();
    expect(report.table?.columns.map((c) => c.column)).toEqual(['Column 1', 'Column 2', 'Column 3']);
    const said = { kind: 'horizon', 'column.x': 'Column 1', 'column.y': 'Column 2', 'column.depth': 'Column 3' };
    expect((await inspectFile(source, said)).refused).toBeUndefined();
    const { objects } = await load('points.xyz', '100 200 900\n125 200 901\n100 225 902\n125 225 903\n', said);
    expect((objects[0] as Horizon).binGrid.crossline.count).toBe(2);
  });
});

test('checkshots by MD or TVD and from the kelly bushing keep what they were counted from', async () => {
  const { objects } = await load('shots.csv', 'well,md_m,twt_ms\nA-1,500,480\nA-1,900,800\n', { reference: 'kb' });
  expect(objects[0]).toMatchObject({ kind: 'checkshots', reference: 'kb' });
  expect((objects[0] as WellTable).rows[0]).toEqual([500, null, 480]);
  await expect(load('shots.csv', 'well,md_m,twt_ms\nA-1,500,480\n', { reference: 'moon' })).rejects.toThrow(
    '“moon” is no reference',
  );
});

describe('names that almost agree', () => {
  const known = ['QN-1', 'QN-2', 'QN-10', 'Lantern 3'];
  test.each([
    ['QN1', 'QN-1'],
    ['qn 1', 'QN-1'],
    ['QN-01', 'QN-1'],
    ['Well QN-2', 'QN-2'],
    ['Lantren 3', 'Lantern 3'],
    ['QN-3', null],
    ['QN-11', null],
    ['Pell 3', null],
    ['__proto__', null],
  ])('%s may be %s', (name, wanted) => expect(nearestName(name, known)).toBe(wanted));
  test('those that agree are not asked about, and nothing is merged unless it is said', async () => {
    expect(matchNames(['QN-1', 'QN1', 'Other'], known)).toEqual([{ name: 'QN1', suggested: 'QN-1', others: known }]);
    const text = 'well,top,md_m\nQN1,Brack Top,100\n';
    const own = await load('t.csv', text);
    expect(own.objects[0]).toMatchObject({ well: 'QN1' });
    const said = await load('t.csv', text, { 'well.QN1': 'QN-1' });
    expect(said.objects[0]).toMatchObject({ well: 'QN-1', name: 'QN-1 tops' });
  });
});

describe('points of a horizon', () => {
  test('on a turned grid without line numbers are found to be one', () => {
    const places = Array.from({ length: 180 }, (_, n) => toMap(TURNED, Math.floor(n / 15), n % 15));
    const found = binGridOfPoints(
      Float64Array.from(places, (p) => p[0]),
      Float64Array.from(places, (p) => p[1]),
    );
    expect(found && [found.binGrid.inline.count, found.binGrid.crossline.count].sort((a, b) => a - b)).toEqual([
      12, 15,
    ]);
    places.forEach(([x, y], n) => {
      const bin = found?.bins[n] ?? -1;
      const columns = found?.binGrid.crossline.count ?? 1;
      const [px, py] = toMap(found?.binGrid ?? TURNED, Math.floor(bin / columns), bin % columns);
      expect(Math.hypot(px - x, py - y)).toBeLessThan(0.01);
    });
  });
  test('on no grid are gridded through, and it is said', async () => {
    const random = uniform(5);
    const plane = (x: number, y: number) => 900 + 0.01 * x - 0.02 * y;
    const rows = Array.from({ length: 400 }, () => {
      const [x, y] = [5000 * random(), 4000 * random()];
      return `${x},${y},${plane(x, y)}`;
    });
    const { store, objects, warnings } = await load('bed.csv', `x_m,y_m,depth_m\n${rows.join('\n')}\n`);
    expect(warnings.join(' ')).toContain('gridded at');
    const bed = objects[0] as Horizon;
    const values = await readWhole(store, bed.values);
    let worst = 0;
    values.forEach((v, n) => {
      const [x, y] = toMap(bed.binGrid, Math.floor(n / bed.binGrid.crossline.count), n % bed.binGrid.crossline.count);
      worst = Math.max(worst, Math.abs(v - plane(x, y)));
    });
    // a point stands for its bin: half a bin of 224 m at this dip, and a little for corners beyond the points
    expect(worst).toBeLessThan(6);
  });
});

describe('grids', () => {
  const ascii = 'ncols 3\nnrows 2\nxllcorner 1000\nyllcorner 2000\ncellsize 10\nNODATA_value -9999\n1 2 3\n4 -9999 6\n';
  test('an ASCII grid lies with its first row in the north, cells by their middles', async () => {
    const { store, objects } = await load('top.asc', ascii, { domain: 'depth', unit: 'ft', sign: 'up' });
    const top = objects[0] as Horizon;
    expect(toMap(top.binGrid, 0, 0)).toEqual([1005, 2015]);
    expect(toMap(top.binGrid, 1, 2)[1]).toBeCloseTo(2005, 6);
    const values = await readWhole(store, top.values);
    expect(values[0]).toBeCloseTo(-0.3048, 6);
    expect(values[4]).toBeNaN();
  });
  test('a GeoTIFF brings its turned affine and its system, converted where the project has another', async () => {
    const values = Float32Array.from({ length: 180 }, (_, n) => n);
    const same = await load('a.tif', await geotiffOf(values, TURNED, 32740), {
      domain: 'twt',
      unit: 'ms',
      sign: 'down',
    });
    const horizon = same.objects[0] as Horizon;
    expect(toMap(horizon.binGrid, 11, 14)[0]).toBeCloseTo(toMap(TURNED, 11, 14)[0], 6);
    const other = await load('a.tif', await geotiffOf(values, TURNED, 32739), { domain: 'map', unit: 'none' });
    expect(other.warnings.join(' ')).toContain('Converted from EPSG:32739');
    expect(other.objects[0].kind).toBe('map');
  });
  test('what it holds must be said, and a guess is offered', async () => {
    const report = await inspectFile(memorySource('top.asc', bytes(ascii)));
    expect(report.questions.map((q) => [q.key, q.hint?.value])).toEqual([
      ['domain', undefined],
      ['unit', 's'],
      ['sign', 'down'],
    ]);
    await expect(load('top.asc', ascii)).rejects.toThrow('does not say what its values are');
  });
});

describe('shapefiles', () => {
  /** A polygon with a hole, as the description of 1998 has it, with a table of one name beside. */
  function made(): { shp: Uint8Array; dbf: Uint8Array } {
    const rings = [
      [
        [0, 0],
        [0, 100],
        [100, 100],
        [100, 0],
        [0, 0],
      ],
      [
        [20, 20],
        [40, 20],
        [40, 40],
        [20, 20],
      ],
    ];
    const points = rings.flat();
    const body = 44 + 4 * rings.length + 16 * points.length;
    const shp = new Uint8Array(108 + body);
    const view = new DataView(shp.buffer);
    view.setInt32(0, 9994);
    view.setInt32(24, shp.length / 2);
    view.setInt32(32, 5, true);
    view.setInt32(100, 1);
    view.setInt32(104, body / 2);
    view.setInt32(108, 5, true);
    view.setInt32(144, rings.length, true);
    view.setInt32(148, points.length, true);
    view.setInt32(156, rings[0].length, true);
    points.forEach(([x, y], n) => {
      view.setFloat64(160 + 16 * n, 500000 + x, true);
      view.setFloat64(168 + 16 * n, 7600000 + y, true);
    });
    const dbf = new Uint8Array(32 + 32 + 1 + 1 + 12);
    const table = new DataView(dbf.buffer);
    table.setUint32(4, 1, true);
    table.setUint16(8, 65, true);
    table.setUint16(10, 13, true);
    dbf.set(bytes('NAME'), 32);
    dbf[43] = 67;
    dbf[48] = 12;
    dbf[64] = 13;
    dbf.set(bytes(' Licence OS-4'), 65);
    return { shp, dbf };
  }
  test('bring their rings, and names and system from the files beside them', async () => {
    const { shp, dbf } = made();
    const prj = bytes('PROJCS["WGS_1984_UTM_Zone_39S",GEOGCS["GCS_WGS_1984"]]');
    const { objects, warnings } = await load('l.shp', shp, {}, [
      ['l.dbf', dbf],
      ['l.prj', prj],
    ]);
    const polygon = objects[0] as Polygon;
    expect(polygon.name).toBe('Licence OS-4');
    expect(polygon.rings.map((r) => r.length)).toEqual([5, 4]);
    expect(warnings.join(' ')).toContain('EPSG:32739');
  });
  test('without a system are taken for the project’s, which is said', async () => {
    const { objects, warnings } = await load('l.shp', made().shp);
    expect((objects[0] as Polygon).rings[0][2]).toEqual([500100, 7600100]);
    expect(warnings.join(' ')).toContain('No .prj file');
  });
  test.each([
    ['PROJCS["WGS 84 / UTM zone 40S",AUTHORITY["EPSG","32740"]]', 'EPSG:32740'],
    ['GEOGCS["GCS_WGS_1984",DATUM["D_WGS_1984"]]', 'EPSG:4326'],
    ['PROJCS["Somewhere else"]', undefined],
  ])('%s means %s', async (wkt, code) => expect(systemOfWkt(wkt, await crsTable())?.crs).toBe(code));
});

describe('a wavelet as a table', () => {
  const load = async (text: string) => {
    const store = memoryStore();
    const source = memorySource('source wavelet.csv', new TextEncoder().encode(text));
    return loadFile(source, {}, { store, crsTable: async () => [] });
  };
  test('in steps of two milliseconds comes back in fine time with its peak where it was', async () => {
    const rows = Array.from({ length: 41 }, (_, n) => {
      const ms = 2 * (n - 20);
      const a = (Math.PI * 30 * ms * 0.001) ** 2;
      return `${ms},${((1 - 2 * a) * Math.exp(-a)).toFixed(6)}`;
    });
    const { objects } = await load(`time_ms,amplitude\n${rows.join('\n')}\n`);
    const [wavelet] = objects;
    if (wavelet?.kind !== 'wavelet') throw new Error('no wavelet');
    expect(wavelet.stepMs).toBe(1);
    expect(wavelet.samples[Math.round(-wavelet.firstMs)]).toBeCloseTo(1, 3);
    expect(wavelet.method).toBe('imported');
  });
  test('of uneven times or too few is refused, and nothing is loaded', async () => {
    await expect(load('time_ms,amplitude\n0,1\n1,2\n5,3\n6,1\n9,2\n')).rejects.toThrow('is no wavelet');
    await expect(load('time_ms,amplitude\n0,1\n1,2\n')).rejects.toThrow('is no wavelet');
  });
});
