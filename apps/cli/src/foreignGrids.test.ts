import type { BinGrid, EarthObject, ObjectOf, Store } from '@lithagon/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readWhole } from '../../../packages/core/src/storage/arrays.ts';
import { zipOf } from '../../../packages/core/src/testing/hostileParcels.ts';
import {
  type MadeVariable,
  makeDbf,
  makeNetcdf,
  makeShp,
  makeTiff,
} from '../../../packages/core/src/testing/rasters.ts';
import { type Foreign, workplace } from './testing/foreign.ts';
import { GOOD } from './testing/good.ts';
import { expectOutcome } from './testing/outcome.ts';

const DEPTH = ['domain=depth', 'unit=m', 'sign=down'];
const [COLUMNS, ROWS] = [6, 5];
const VALUES = Array.from({ length: COLUMNS * ROWS }, (_, n) => 1500 + n);
const [X0, Y0, CELL] = [499_000, 7_650_500, 50];
const TIFF = { columns: COLUMNS, rows: ROWS, values: VALUES, corner: [X0, Y0] as [number, number], pixel: CELL };
const UTM40S = { 3072: 32740 };
const KEYS = {
  1024: 1,
  3072: 32767,
  2048: 4326,
  3074: 32767,
  3075: 1,
  3076: 9001,
  3080: 57,
  3081: 0,
  3082: 500000,
  3083: 10000000,
  3092: 0.9996,
};

const first = <K extends EarthObject['kind']>(objects: EarthObject[], kind: K) => {
  const found = objects.find((o) => o.kind === kind);
  if (!found) throw new Error(`no ${kind} among ${objects.map((o) => o.kind).join(', ')}`);
  return found as ObjectOf<K>;
};
/** Map position of the middle of the first cell, and the ways between cells. */
const near = ({ origin, perInline, perCrossline }: BinGrid, wanted: [number, number][], off = 0.01) =>
  [origin, perInline, perCrossline].forEach((found, n) => {
    expect(Math.hypot(found[0] - wanted[n][0], found[1] - wanted[n][1])).toBeLessThan(off);
  });
const CENTRES: [number, number][] = [
  [X0 + CELL / 2, Y0 - CELL / 2],
  [0, -CELL],
  [CELL, 0],
];
const surface =
  (values: number[] = VALUES, places = CENTRES) =>
  async (objects: EarthObject[], store: Store) => {
    const horizon = first(objects, 'horizon');
    near(horizon.binGrid, places);
    const found = Array.from(await readWhole(store, horizon.values));
    expect(found.length).toBe(values.length);
    found.forEach((v, n) => {
      if (Number.isNaN(values[n])) expect(v).toBeNaN();
      else expect(v).toBeCloseTo(values[n], 2);
    });
  };
const N = Number.NaN;
const hole = VALUES.map((v, n) => (n === 7 ? -9999 : v));
const holed = VALUES.map((v, n) => (n === 7 ? N : v));

const axis = (
  name: string,
  first: number,
  step: number,
  count: number,
  attributes: MadeVariable['attributes'] = {},
): MadeVariable => ({
  name,
  dimensions: [name],
  type: 'double',
  values: Array.from({ length: count }, (_, n) => first + n * step),
  attributes,
});
const XY = [axis('x', X0 + 25, 50, COLUMNS, { units: 'm' }), axis('y', Y0 - 25, -50, ROWS, { units: 'm' })];
const Z: MadeVariable = {
  name: 'z',
  dimensions: ['y', 'x'],
  type: 'float',
  values: VALUES,
  attributes: { units: 'm', long_name: 'depth' },
};
const SIZES: [string, number][] = [
  ['x', COLUMNS],
  ['y', ROWS],
];

/** The same as netCDF-4, written through HDF5. */
async function hdf5(variables: MadeVariable[]): Promise<Uint8Array> {
  const h5 = (await import('h5wasm')).default;
  const { FS } = await h5.ready;
  const file = new h5.File('made.h5', 'w');
  for (const v of variables) {
    const shape = v.dimensions.map((d) => SIZES.find(([name]) => name === d)?.[1] ?? v.values.length);
    file.create_dataset({ name: v.name, data: Float32Array.from(v.values), shape, dtype: '<f' });
    for (const [key, value] of Object.entries(v.attributes ?? {}))
      (file.get(v.name) as { create_attribute(k: string, v: unknown): void } | null)?.create_attribute(key, value);
  }
  file.close();
  const bytes = FS.readFile('made.h5').slice();
  FS.unlink('made.h5');
  return bytes;
}

/** A square grid as netCDF-4, its first axis running east where scales say so. */
async function square(scales: boolean): Promise<Uint8Array> {
  const h5 = (await import('h5wasm')).default;
  const { FS } = await h5.ready;
  const file = new h5.File('square.h5', 'w');
  const even = (start: number, step: number) => Float32Array.from({ length: 5 }, (_, n) => start + n * step);
  file.create_dataset({ name: 'x', data: even(X0 + 25, 50), shape: [5], dtype: '<f' });
  file.create_dataset({ name: 'y', data: even(Y0 - 25, -50), shape: [5], dtype: '<f' });
  const data = Float32Array.from({ length: 25 }, (_, n) => 1500 + n);
  file.create_dataset({ name: 'z', data, shape: [5, 5], dtype: '<f' });
  if (scales) {
    type Scaled = { make_scale(name: string): void; attach_scale(axis: number, name: string): void };
    const [x, y, z] = ['x', 'y', 'z'].map((name) => file.get(name) as unknown as Scaled);
    x.make_scale('x');
    y.make_scale('y');
    z.attach_scale(0, 'x');
    z.attach_scale(1, 'y');
  }
  file.close();
  const bytes = FS.readFile('square.h5').slice();
  FS.unlink('square.h5');
  return bytes;
}

const RING: [number, number][] = [
  [499_000, 7_650_000],
  [499_500, 7_650_000],
  [499_500, 7_650_500],
  [499_000, 7_650_000],
];
const POINTS: [number, number][][] = [[[499_100, 7_650_100]], [[499_200, 7_650_200]]];
const UTM40S_PRJ =
  'PROJCS["WGS_1984_UTM_Zone_40S",GEOGCS["GCS_WGS_1984",DATUM["D_WGS_1984",SPHEROID["WGS_1984",6378137.0,298.257223563]],PRIMEM["Greenwich",0.0],UNIT["Degree",0.0174532925199433]],PROJECTION["Transverse_Mercator"],PARAMETER["False_Easting",500000.0],PARAMETER["False_Northing",10000000.0],PARAMETER["Central_Meridian",57.0],PARAMETER["Scale_Factor",0.9996],PARAMETER["Latitude_Of_Origin",0.0],UNIT["Meter",1.0]]';
const feature = (geometry: object | null, name?: string) => ({
  type: 'Feature',
  properties: name ? { name } : {},
  geometry,
});
const geo = (features: object[], crs?: string) =>
  JSON.stringify({
    type: 'FeatureCollection',
    ...(crs ? { crs: { type: 'name', properties: { name: crs } } } : {}),
    features,
  });
const ascii = (head: string, rows: (number | string)[][]) => `${head}\n${rows.map((r) => r.join(' ')).join('\n')}\n`;
const HEAD = 'ncols 3\nnrows 2\nxllcorner 499000\nyllcorner 7650000\ncellsize 50\nNODATA_value -9999';

async function files(): Promise<Foreign[]> {
  const zip = async (entries: [string, string | Uint8Array][]) =>
    new Uint8Array(await (await zipOf(entries)).arrayBuffer());
  return [
    {
      file: 'plain.tif',
      is: 'a GeoTIFF with its code',
      bytes: makeTiff({ ...TIFF, keys: UTM40S }),
      declare: DEPTH,
      holds: surface(),
    },
    {
      file: 'big.tif',
      is: 'big-endian',
      bytes: makeTiff({ ...TIFF, keys: UTM40S, littleEndian: false }),
      declare: DEPTH,
      holds: surface(),
    },
    {
      file: 'point.tif',
      is: 'pixels that are points',
      bytes: makeTiff({ ...TIFF, keys: UTM40S, point: true }),
      declare: DEPTH,
      holds: surface(VALUES, [
        [X0, Y0],
        [0, -CELL],
        [CELL, 0],
      ]),
    },
    {
      file: 'hole.tif',
      is: 'a cell without a value',
      bytes: makeTiff({ ...TIFF, values: hole, keys: UTM40S, nodata: '-9999' }),
      declare: DEPTH,
      holds: surface(holed),
    },
    {
      file: 'scaled.tif',
      is: 'integers with a scale and an offset',
      bytes: makeTiff({
        ...TIFF,
        sample: 'int16',
        keys: UTM40S,
        metadata:
          '<GDALMetadata><Item name="SCALE" sample="0" role="scale">0.5</Item><Item name="OFFSET" sample="0" role="offset">100</Item></GDALMetadata>',
      }),
      declare: DEPTH,
      holds: surface(VALUES.map((v) => 0.5 * v + 100)),
      says: /Its cells were multiplied by 0\.5 and 100 was added/,
    },
    {
      file: 'feet.tif',
      is: 'a code with feet over its metres',
      bytes: makeTiff({
        ...TIFF,
        corner: [X0 / 0.3048, Y0 / 0.3048],
        pixel: CELL / 0.3048,
        keys: { ...UTM40S, 3076: 9002 },
      }),
      declare: DEPTH,
      holds: surface(),
      says: /in units of 0\.3048 m and were converted/,
    },
    {
      file: 'links.tif',
      is: 'a unit of its own',
      bytes: makeTiff({
        ...TIFF,
        corner: [X0 / 0.2, Y0 / 0.2],
        pixel: CELL / 0.2,
        keys: { ...UTM40S, 3076: 32767, 3077: 0.2 },
      }),
      declare: DEPTH,
      holds: surface(),
      says: /in units of 0\.2 m/,
    },
    {
      file: 'own-system.tif',
      is: 'a system put together from keys',
      bytes: makeTiff({ ...TIFF, keys: KEYS }),
      declare: DEPTH,
      holds: surface(),
    },
    {
      file: 'zone.tif',
      is: 'a zone of UTM on a datum',
      bytes: makeTiff({ ...TIFF, keys: { 3072: 32767, 2048: 4326, 3074: 16140 } }),
      declare: DEPTH,
      holds: surface(),
    },
    {
      file: 'cited.tif',
      is: 'a system in a citation',
      bytes: makeTiff({ ...TIFF, keys: { 3072: 32767, 3073: `ESRI PE String = ${UTM40S_PRJ}` } }),
      declare: DEPTH,
      holds: surface(),
    },
    {
      file: 'strange.tif',
      is: 'a system that is none that is known',
      bytes: makeTiff({ ...TIFF, keys: { ...KEYS, 3080: 56.1234, 3092: 0.99 } }),
      declare: DEPTH,
      asks: ['crs'],
      refused: /in a system that is not known here/,
    },
    {
      file: 'strange-told.tif',
      is: 'such a system, which is told',
      bytes: makeTiff({ ...TIFF, keys: { ...KEYS, 3080: 56.1234, 3092: 0.99 } }),
      declare: [...DEPTH, 'crs=EPSG:32740'],
      holds: surface(),
    },
    {
      file: 'degrees.tif',
      is: 'degrees',
      bytes: makeTiff({ ...TIFF, corner: [57, -21.2], pixel: 0.001, keys: { 1024: 2, 2048: 4326 } }),
      declare: DEPTH,
      holds: (objects) => {
        const { binGrid } = first(objects, 'horizon');
        expect(binGrid.origin[0]).toBeCloseTo(500_052, -1);
        expect(Math.hypot(...binGrid.perCrossline)).toBeCloseTo(103.8, 0);
      },
      says: /Converted/,
    },
    {
      file: 'nowhere.tif',
      is: 'no place',
      bytes: makeTiff({ ...TIFF, corner: null }),
      declare: DEPTH,
      refused: /does not say where on the map it lies/,
    },
    {
      file: 'cut.tif',
      is: 'cut short',
      bytes: makeTiff({ ...TIFF, keys: UTM40S }).subarray(0, 60),
      declare: DEPTH,
      refused: /cannot be read as a GeoTIFF/,
    },
    {
      file: 'undeclared.tif',
      is: 'a grid of which nothing is declared',
      bytes: makeTiff({ ...TIFF, keys: UTM40S }),
      asks: ['domain', 'unit'],
      refused: /no one has declared it/,
    },
    {
      file: 'classic.nc',
      is: 'a classic netCDF',
      bytes: makeNetcdf(SIZES, [...XY, Z]),
      declare: DEPTH,
      holds: surface(),
    },
    {
      file: 'turned.nc',
      is: 'a netCDF with its axes exchanged',
      bytes: makeNetcdf(SIZES, [
        ...XY,
        {
          ...Z,
          dimensions: ['x', 'y'],
          values: Array.from({ length: 30 }, (_, n) => VALUES[(n % ROWS) * COLUMNS + Math.floor(n / ROWS)]),
        },
      ]),
      declare: DEPTH,
      holds: (objects) => near(first(objects, 'horizon').binGrid, [CENTRES[0], CENTRES[2], CENTRES[1]]),
    },
    {
      file: 'packed.nc',
      is: 'a netCDF of integers with scale, offset and a missing value',
      bytes: makeNetcdf(SIZES, [
        ...XY,
        {
          ...Z,
          type: 'short',
          values: VALUES.map((v, n) => (n === 7 ? -32767 : 2 * (v - 1000))),
          attributes: { units: 'm', scale_factor: 0.5, add_offset: 1000, _FillValue: -32767 },
        },
      ]),
      declare: DEPTH,
      holds: surface(holed),
      says: /multiplied by 0\.5 and 1000 was added/,
    },
    {
      file: 'two.nc',
      is: 'a netCDF with two grids',
      bytes: makeNetcdf(SIZES, [...XY, { ...Z, name: 'other', values: VALUES.map((v) => v + 1) }, Z]),
      declare: [...DEPTH, 'variable=z'],
      holds: surface(),
    },
    {
      file: 'none.nc',
      is: 'a netCDF that has not what is asked for',
      bytes: makeNetcdf(SIZES, [...XY, Z]),
      declare: [...DEPTH, 'variable=w'],
      refused: /holds no grid “w”/,
    },
    {
      file: 'flat.nc',
      is: 'a netCDF without a grid',
      bytes: makeNetcdf(SIZES, XY),
      declare: DEPTH,
      refused: /holds no variable of two dimensions/,
    },
    {
      file: 'uneven.nc',
      is: 'a netCDF with uneven coordinates',
      bytes: makeNetcdf(SIZES, [{ ...XY[0], values: [0, 50, 100, 170, 200, 250] }, XY[1], Z]),
      declare: DEPTH,
      refused: /“x” are not evenly spaced/,
    },
    {
      file: 'cut.nc',
      is: 'a netCDF that is cut short',
      bytes: makeNetcdf(SIZES, [...XY, Z]).subarray(0, 60),
      declare: DEPTH,
      refused: /cannot be read as netCDF/,
    },
    {
      file: 'degrees.nc',
      is: 'a netCDF in degrees',
      bytes: makeNetcdf(
        [
          ['lon', COLUMNS],
          ['lat', ROWS],
        ],
        [
          axis('lon', 57, 0.001, COLUMNS, { units: 'degrees_east' }),
          axis('lat', -21.2, -0.001, ROWS, { units: 'degrees_north' }),
          { ...Z, dimensions: ['lat', 'lon'] },
        ],
      ),
      declare: DEPTH,
      says: /Converted/,
    },
    {
      file: 'mapped.nc',
      is: 'a netCDF with a grid mapping',
      bytes: makeNetcdf(SIZES, [
        ...XY,
        { ...Z, attributes: { ...Z.attributes, grid_mapping: 'crs' } },
        { name: 'crs', dimensions: [], type: 'float', values: [0], attributes: { crs_wkt: UTM40S_PRJ } },
      ]),
      declare: DEPTH,
      holds: surface(),
    },
    { file: 'four.nc', is: 'a netCDF-4', bytes: await hdf5([...XY, Z]), declare: DEPTH, holds: surface() },
    {
      file: 'square.nc',
      is: 'a square netCDF-4 whose axes are exchanged, with scales',
      bytes: await square(true),
      declare: DEPTH,
      holds: (objects) => near(first(objects, 'horizon').binGrid, [CENTRES[0], CENTRES[2], CENTRES[1]]),
    },
    {
      file: 'square-bare.nc',
      is: 'a square netCDF-4 without scales',
      bytes: await square(false),
      declare: DEPTH,
      holds: (objects) => near(first(objects, 'horizon').binGrid, CENTRES),
    },
    {
      file: 'four-cut.h5',
      is: 'an HDF5 file cut short',
      bytes: (await hdf5([...XY, Z])).subarray(0, 400),
      declare: DEPTH,
      refused: /four-cut\.h5/,
    },
    {
      file: 'four-other.h5',
      is: 'an HDF5 file of something else',
      bytes: await hdf5([{ name: 'a', dimensions: ['n'], type: 'float', values: [1, 2, 3] }]),
      declare: DEPTH,
      refused: /holds no variable of two dimensions/,
    },
    {
      file: 'plain.asc',
      is: 'an ASCII grid',
      bytes: ascii(HEAD, [
        [1, 2, 3],
        [4, 5, -9999],
      ]),
      declare: DEPTH,
      holds: async (objects, store) =>
        surface(
          [1, 2, 3, 4, 5, N],
          [
            [499_025, 7_650_075],
            [0, -50],
            [50, 0],
          ],
        )(objects, store),
    },
    {
      file: 'short.asc',
      is: 'an ASCII grid with a row too few',
      bytes: ascii(HEAD, [[1, 2, 3]]),
      declare: DEPTH,
      refused: /cannot be read as an ASCII grid/,
    },
    {
      file: 'words.asc',
      is: 'an ASCII grid with a word in it',
      bytes: ascii(HEAD, [
        [1, 2, 'x'],
        [4, 5, 6],
      ]),
      declare: DEPTH,
      says: /1 cell is no number \(first “x” in row 1, column 3 of the grid\)/,
    },
    {
      file: 'other.grd',
      is: 'a binary grid of another kind',
      bytes: new TextEncoder().encode(`DSBB${'\0\x01\x02'.repeat(200)}`),
      declare: DEPTH,
      refused: /grid of another kind \(it begins with “DSBB”\).*GeoTIFF/s,
    },
    {
      file: 'weather.grb',
      is: 'a GRIB grid',
      bytes: new TextEncoder().encode(`GRIB${'\0\x01\x02'.repeat(200)}`),
      declare: DEPTH,
      refused: /is a GRIB grid/,
    },
    {
      file: 'area.shp',
      is: 'a polygon with its system',
      bytes: makeShp(5, [RING]),
      beside: { 'area.prj': UTM40S_PRJ, 'area.dbf': makeDbf('NAME', ['Lease']) },
      holds: (objects) => expect(first(objects, 'polygon')).toMatchObject({ name: 'Lease', rings: [RING] }),
    },
    {
      file: 'alone.shp',
      is: 'a polygon by itself',
      bytes: makeShp(5, [RING]),
      holds: (objects) => expect(first(objects, 'polygon').rings).toEqual([RING]),
      says: /No \.prj|not said/,
    },
    {
      file: 'stations.shp',
      is: 'points',
      bytes: makeShp(1, POINTS),
      beside: { 'stations.prj': UTM40S_PRJ, 'stations.dbf': makeDbf('STATION', ['S1', 'S2']) },
      holds: (objects) =>
        expect(first(objects, 'points')).toMatchObject({ names: ['S1', 'S2'], points: POINTS.flat() }),
    },
    {
      file: 'odd-system.shp',
      is: 'a system that is none that is known',
      bytes: makeShp(5, [RING]),
      beside: { 'odd-system.prj': UTM40S_PRJ.replace('57.0', '56.1234').replace('WGS_1984_UTM_Zone_40S', 'Local') },
      asks: ['crs'],
      refused: /in a system that is not known here/,
    },
    {
      file: 'damaged.shp',
      is: 'a record that runs over the end',
      bytes: makeShp(5, [RING]).subarray(0, 140),
      refused: /cannot be read as a shapefile/,
    },
    {
      file: 'leases.zip',
      is: 'two zipped shapefiles',
      bytes: await zip([
        ['a/one.shp', makeShp(5, [RING])],
        ['a/one.prj', UTM40S_PRJ],
        ['a/one.dbf', makeDbf('NAME', ['North'])],
        ['two.shp', makeShp(1, POINTS)],
        ['two.prj', UTM40S_PRJ],
      ]),
      holds: (objects) =>
        expect(objects.map((o) => [o.kind, o.kind === 'polygon' ? o.name : '', o.madeBy.file])).toEqual([
          ['polygon', 'North', 'leases.zip'],
          ['points', '', 'leases.zip'],
        ]),
    },
    {
      file: 'others.zip',
      is: 'a zip file of something else',
      bytes: await zip([['readme.txt', 'hello']]),
      refused: /zip file without a shapefile or Zarr/,
    },
    {
      file: 'cut.zip',
      is: 'a zip file cut short',
      bytes: (await zip([['one.shp', makeShp(5, [RING])]])).subarray(0, 80),
      refused: /no zip file, or was cut short/,
    },
    {
      file: 'leads.geojson',
      is: 'points',
      bytes: geo([
        feature({ type: 'Point', coordinates: [57, -21.2] }, 'A'),
        feature({ type: 'Point', coordinates: [57.001, -21.2] }, 'B'),
      ]),
      holds: (objects) => expect(first(objects, 'points').names).toEqual(['A', 'B']),
      says: /Converted/,
    },
    {
      file: 'metres.geojson',
      is: 'metres without a system',
      bytes: geo([feature({ type: 'LineString', coordinates: RING }, 'Road')]),
      holds: (objects) => expect(first(objects, 'polygon').rings[0]).toEqual(RING),
      says: /names no coordinate system, and its coordinates are no longitude/,
    },
    {
      file: 'empty-shapes.geojson',
      is: 'features without a geometry',
      bytes: geo([feature(null)]),
      refused: /no polygon, line or point/,
    },
    {
      file: 'mixed.geojson',
      is: 'a feature that cannot be placed among others',
      bytes: geo([feature({ type: 'Polygon', coordinates: [RING] }, 'A'), feature(null)], 'EPSG:32740'),
      says: /1 feature is no polygon, line or point/,
    },
    {
      file: 'half.geojson',
      is: 'cut short',
      bytes: geo([feature({ type: 'Polygon', coordinates: [RING] })]).slice(0, -20),
      refused: /not valid JSON/,
    },
  ];
}

describe('grids and shapes of others', () => {
  let place: Awaited<ReturnType<typeof workplace>>;
  beforeAll(async () => {
    place = await workplace(GOOD);
  });
  afterAll(() => place.clear());
  test('all forty and more', async () => {
    const all = await files();
    expect(all.length).toBeGreaterThanOrEqual(40);
    const wrong: string[] = [];
    for (const given of all)
      try {
        expectOutcome(given, await place.give(given));
      } catch (cause) {
        wrong.push(`${given.file}: ${(cause as Error).message}`);
      }
    expect(wrong).toEqual([]);
  });
});
