import { describe, expect, test } from 'vitest';
import { readTable } from './csv/tables.ts';
import { parseGeoJson } from './geojson/parse.ts';
import { parseLas } from './las/parse.ts';

const header = (more = '', version = '2.0', wrap = 'NO') => `~Version
 VERS. ${version} : v
 WRAP. ${wrap} : w
~Well
 STRT.M 100.0 : s
 STOP.M 101.0 : s
 STEP.M 0.5 : s
 NULL. -999.25 : n
 WELL. ${version === '1.2' ? 'WELL' : 'QN-9'} : ${version === '1.2' ? 'QN-9' : 'well'}
~Curve
 DEPT.M : depth
 GR.GAPI : gamma
 DT.US/FT : sonic
${more}~Ascii
`;

describe('LAS', () => {
  test.each(['1.2', '2.0'])('version %s is read with nulls as NaN', (version) => {
    const [las] = parseLas('a.las', `${header('', version)}100 50 -999.25\n100.5 60 90\n101 70 91\n`);
    expect(las.well).toBe('QN-9');
    expect([...las.depthM]).toEqual([100, 100.5, 101]);
    expect(las.curves.map((c) => c.mnemonic)).toEqual(['GR', 'DT']);
    expect(las.curves[1].values[0]).toBeNaN();
    expect(las.curves[1].values[2]).toBe(91);
    expect(las.warnings).toEqual([]);
  });
  test('wrapped data, falling depth and doubled names', () => {
    const [las] = parseLas(
      'a.las',
      `${header(' GR.GAPI : again\n', '2.0', 'YES')}101\n70 91\n3\n100.5\n60 90\n2\n100\n50 89\n1\n`,
    );
    expect([...las.depthM]).toEqual([100, 100.5, 101]);
    expect(las.curves.map((c) => c.mnemonic)).toEqual(['GR', 'DT', 'GR:2']);
    expect([...las.curves[2].values]).toEqual([1, 2, 3]);
  });
  test('feet become metres, and a step that the header has wrong is said', () => {
    const text = header().replaceAll('.M ', '.FT ').replace('0.5 : s', '2 : s');
    const [las] = parseLas('a.las', `${text}1000 1 2\n1001 1 2\n1002 1 2\n`);
    expect(las.depthM[0]).toBeCloseTo(304.8, 9);
    expect(las.warnings[0]).toContain('the depths themselves step by 1.0000 ft');
  });
  test.each([
    ['nothing after ~A', header(), /data section is empty/],
    ['no ~A', header().replace('~Ascii\n', ''), /no data section/],
    ['no curves', '~V\n VERS. 2.0 :\n~W\n WELL. A :\n~A\n1 2\n', /no curve section/],
    ['depths that jump back', `${header()}100 1 1\n99 1 1\n101 1 1\n`, /do not rise steadily/],
    ['a letter', 'Dear colleague', /neither a ~V nor a ~W part/],
  ])('%s is refused', (_, text, reason) => {
    expect(() => parseLas('a.las', text)).toThrow(reason);
  });
});

describe('CSV tables', () => {
  test.each([
    ['well,x_m,y_m,kb_m\nQN-1,1,2,25\n', 'well heads'],
    ['Well;MD (m);Inclination [deg];Azimuth [deg]\nQN-1;0;0;0\n', 'directional surveys'],
    ['well\tmd_m\ttvdss_m\towt_ms\nQN-1\t100\t75\t50\n', 'checkshots'],
    ['well,top,md_ft\nQN-1,Brack Top,1000\n', 'tops'],
    ['well,md_m,tvdss_m,pressure_psi\nQN-1,1000,975,1500\n', 'pressures'],
    ['fault,stick,x_m,y_m,twt_s\nA,0,1,2,0.9\n', 'fault sticks'],
    ['inline,crossline,x_m,y_m,depth_m\n1,1,0,0,80\n', 'horizon'],
  ])('%j is %s', (text, kind) => {
    expect(readTable('a.csv', text).spec.kind).toBe(kind);
  });
  test('units are converted by their names', () => {
    expect(readTable('a.csv', 'well,top,md_ft\nQN-1,B,1000\n').numbers.md[0]).toBeCloseTo(304.8, 9);
    expect(readTable('a.csv', 'well,md_m,tvdss_m,pressure_bar\nQN-1,1,1,100\n').numbers.pressure[0]).toBe(1e7);
    expect(readTable('a.csv', 'fault,stick,x_m,y_m,twt_s\nA,0,1,2,0.9\n').numbers.twt[0]).toBeCloseTo(900, 9);
  });
  test('rows without numbers are left out and counted', () => {
    const table = readTable('a.csv', 'well,top,md_m\nQN-1,A,100\nQN-1,B,deep\nQN-1,C,300\n');
    expect([...table.numbers.md]).toEqual([100, 300]);
    expect(table.texts.top).toEqual(['A', 'C']);
    expect(table.warnings[0]).toContain('1 of 3 rows');
  });
  test('a missing column is named', () => {
    expect(() => readTable('a.csv', 'well,x_m,kb_m\nQN-1,1,2\n')).toThrow(/for well heads it lacks Y/);
    expect(() => readTable('a.csv', 'one\n1\n')).toThrow(/no row of column names/);
  });
  test('names from files are only ever text', () => {
    const table = readTable('a.csv', 'well,top,md_m\n__proto__,<b>x</b>,1\nconstructor,../../etc,2\n');
    expect(table.texts.well).toEqual(['__proto__', 'constructor']);
    expect(({} as Record<string, unknown>).top).toBeUndefined();
  });
});

describe('GeoJSON', () => {
  const polygon = {
    type: 'Feature',
    properties: { name: 'A' },
    geometry: {
      type: 'Polygon',
      coordinates: [
        [
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 0],
        ],
      ],
    },
  };
  test('polygons and lines with the system that the file names', () => {
    const crs = { type: 'name', properties: { name: 'urn:ogc:def:crs:EPSG::32740' } };
    const line = {
      type: 'Feature',
      properties: null,
      geometry: {
        type: 'LineString',
        coordinates: [
          [0, 0],
          [2, 2],
        ],
      },
    };
    const read = parseGeoJson(
      'a.geojson',
      JSON.stringify({ type: 'FeatureCollection', name: 'set', crs, features: [polygon, line] }),
    );
    expect(read.crs).toBe('EPSG:32740');
    expect(read.shapes.map((s) => [s.name, s.closed])).toEqual([
      ['A', true],
      ['set', false],
    ]);
  });
  test('a feature or a geometry by itself, and several in one', () => {
    const ring = polygon.geometry.coordinates;
    const bare = (geometry: unknown) => parseGeoJson('cape.geojson', JSON.stringify(geometry)).shapes;
    expect(bare(polygon).map((s) => s.name)).toEqual(['A']);
    expect(bare({ type: 'Polygon', coordinates: ring })).toMatchObject([{ name: 'cape', closed: true, rings: ring }]);
    const line = { type: 'LineString', coordinates: ring[0] };
    const point = { type: 'Point', coordinates: [0, 0] };
    const read = parseGeoJson(
      'cape.geojson',
      JSON.stringify({ type: 'GeometryCollection', geometries: [line, point, { type: 'Polygon', coordinates: ring }] }),
    );
    expect(read.shapes.map((s) => s.closed)).toEqual([false, true]);
    expect(read.points).toEqual([{ name: '', at: [0, 0] }]);
    expect(read.skipped).toBe(0);
  });
  test('points are read with their names', () => {
    const at = (name: string, coordinates: number[]) => ({
      type: 'Feature',
      properties: { name },
      geometry: { type: 'Point', coordinates },
    });
    const text = JSON.stringify({ type: 'FeatureCollection', features: [at('A', [1, 2]), at('B', [3, 4, 5])] });
    expect(parseGeoJson('a', text).points).toEqual([
      { name: 'A', at: [1, 2] },
      { name: 'B', at: [3, 4] },
    ]);
  });
  test('nothing that can be placed, other JSON and broken JSON are refused', () => {
    const empty = { type: 'Feature', properties: {}, geometry: null };
    expect(() => parseGeoJson('a', JSON.stringify({ type: 'FeatureCollection', features: [empty] }))).toThrow(
      /no polygon, line or point/,
    );
    expect(() => parseGeoJson('a', '{"a":1}')).toThrow(/not GeoJSON/);
    expect(() => parseGeoJson('a', '{"a":')).toThrow(/not valid JSON/);
  });
});
