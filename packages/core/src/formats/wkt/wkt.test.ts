import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { beforeAll, describe, expect, test } from 'vitest';
import type { CrsRow } from '../../earth/crs.ts';
import { crsTable } from '../../earth/crsTable.ts';
import { systemOfWkt } from './match.ts';
import { parseWkt } from './parse.ts';

let rows: CrsRow[];
/** Systems as .prj files have them, listed by who made that format; every so many of them. */
let listed: { wkid: number; latestWkid: number; authority: string; wkt: string; wkt2: string }[];
beforeAll(async () => {
  rows = await crsTable();
  const known = new Set(rows.map((row) => row[0]));
  const path = createRequire(import.meta.url).resolve('@esri/proj-codes/pe_list_projcs.json');
  const all = JSON.parse(readFileSync(path, 'utf8')).ProjectedCoordinateSystems as typeof listed;
  listed = all
    .filter((each) => each.authority === 'EPSG' && known.has(each.latestWkid))
    .filter((_, n) => n % Number(process.env.WKT_EVERY ?? 40) === 0);
});
const rowOf = (crs: string) => rows.find((row) => `EPSG:${row[0]}` === crs) as CrsRow;
/** Whether two entries of the table are of one projection, in one unit. */
const alike = (a: CrsRow, b: CrsRow) => {
  const key = (row: CrsRow) => row[5].replace(/\s*\+(towgs84|nadgrids|type|no_defs|datum|ellps)\S*/g, '');
  return a[0] === b[0] || (key(a) === key(b) && a[7] === b[7]);
};

describe('a system that a .prj file means', () => {
  test.each([
    ['as it is written there', (each: (typeof listed)[number]) => each.wkt, 0.97],
    ['in WKT 2', (each: (typeof listed)[number]) => each.wkt2, 0.97],
    [
      'by its numbers alone',
      (each: (typeof listed)[number]) => each.wkt.replace(/^PROJCS\["[^"]*"/, 'PROJCS["no name"'),
      0.9,
    ],
  ])('is found %s, and never another', (_how, textOf, least) => {
    let found = 0;
    const wrong: string[] = [];
    for (const each of listed) {
      const { crs } = systemOfWkt(textOf(each), rows) ?? {};
      if (!crs) continue;
      if (alike(rowOf(crs), rowOf(`EPSG:${each.latestWkid}`))) found++;
      else wrong.push(`${each.latestWkid} taken for ${crs}`);
    }
    expect(wrong).toEqual([]);
    expect(found / listed.length).toBeGreaterThan(least);
  });

  const UTM = (zone: number, name = `WGS_1984_UTM_Zone_${zone}S`) =>
    `PROJCS["${name}",GEOGCS["GCS_WGS_1984",DATUM["D_WGS_1984",SPHEROID["WGS_1984",6378137.0,298.257223563]],PRIMEM["Greenwich",0.0],UNIT["Degree",0.0174532925199433]],PROJECTION["Transverse_Mercator"],PARAMETER["False_Easting",500000.0],PARAMETER["False_Northing",10000000.0],PARAMETER["Central_Meridian",${6 * zone - 183}.0],PARAMETER["Scale_Factor",0.9996],PARAMETER["Latitude_Of_Origin",0.0],UNIT["Meter",1.0]]`;
  test('whose name says another than its numbers is that of its numbers, and it is said', () => {
    const found = systemOfWkt(UTM(40, 'WGS_1984_UTM_Zone_39S'), rows);
    expect(found).toMatchObject({ crs: 'EPSG:32740', note: expect.stringContaining('its numbers are not those') });
    const coded = UTM(40).replace(/\]$/, ',AUTHORITY["EPSG","32739"]]');
    expect(systemOfWkt(coded, rows)).toMatchObject({ crs: 'EPSG:32740' });
  });
  test('that is nobody’s is nobody’s: it is not guessed', () => {
    const moved = UTM(40, 'Local grid').replace('500000.0', '512345.0');
    expect(systemOfWkt(moved, rows)).toEqual({ name: 'Local grid', candidates: [], note: undefined });
    const otherDatum = UTM(40, 'Mystery').replace('GCS_WGS_1984', 'GCS_Mystery').replace('D_WGS_1984', 'D_Mystery');
    const found = systemOfWkt(otherDatum, rows);
    expect(found?.crs).toBeUndefined();
    expect(found?.candidates).toContain('EPSG:32740');
  });
  test('with heights, in brackets of the other kind, in feet, or geographic', () => {
    const heights = `COMPD_CS["both",${UTM(40)},VERT_CS["MSL height",VERT_DATUM["MSL",2005],UNIT["metre",1]]]`;
    expect(systemOfWkt(heights, rows)?.crs).toBe('EPSG:32740');
    expect(systemOfWkt(UTM(40).replaceAll('[', '(').replaceAll(']', ')'), rows)?.crs).toBe('EPSG:32740');
    const geographic =
      'GEOGCS["GCS_WGS_1984",DATUM["D_WGS_1984",SPHEROID["WGS_1984",6378137.0,298.257223563]],PRIMEM["Greenwich",0.0],UNIT["Degree",0.0174532925199433]]';
    expect(systemOfWkt(geographic, rows)?.crs).toBe('EPSG:4326');
    // the same projection in feet is no system of the table
    const inFeet = UTM(40).replace('UNIT["Meter",1.0]', 'UNIT["Foot_US",0.3048006096012192]');
    expect(systemOfWkt(inFeet, rows)?.crs).toBeUndefined();
  });
  test('that is cut short or no system at all is none', () => {
    const whole = UTM(40);
    for (const text of [
      '',
      'WGS 84',
      '{}',
      'PROJCS[',
      whole.slice(0, 60),
      whole.slice(0, -1),
      'PROJCS["a",1]',
      `${'A['.repeat(500)}`,
    ])
      expect(systemOfWkt(text, rows)?.crs, text).toBeUndefined();
    expect(parseWkt('A["x ""y""",-1.5e3,B[east]]')).toEqual({
      keyword: 'A',
      texts: ['x "y"'],
      numbers: [-1500],
      children: [{ keyword: 'B', texts: [], numbers: [], children: [] }],
    });
  });
});
