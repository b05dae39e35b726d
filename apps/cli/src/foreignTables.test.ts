import type { EarthObject, ObjectOf } from '@lithagon/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { uniform } from '../../../packages/core/src/testing/random.ts';
import { type Foreign, workplace } from './testing/foreign.ts';
import { GOOD } from './testing/good.ts';
import { expectOutcome } from './testing/outcome.ts';

const kinds = (objects: EarthObject[]) => objects.map((o) => o.kind).sort();
const first = <K extends EarthObject['kind']>(objects: EarthObject[], kind: K) => {
  const found = objects.find((o) => o.kind === kind);
  if (!found) throw new Error(`no ${kind} among ${kinds(objects).join(', ')}`);
  return found as ObjectOf<K>;
};
const points = (wanted: [string, number, number][]) => (objects: EarthObject[]) => {
  const found = first(objects, 'points');
  expect(found.names).toEqual(wanted.map((w) => w[0]));
  found.points.forEach(([x, y], n) => {
    expect(Math.abs(x - wanted[n][1])).toBeLessThan(0.02);
    expect(Math.abs(y - wanted[n][2])).toBeLessThan(0.02);
  });
};
const well = (wanted: Partial<ObjectOf<'well'>>) => (objects: EarthObject[]) =>
  expect(first(objects, 'well')).toMatchObject(wanted);
const rows =
  (kind: 'tops' | 'checkshots' | 'directional surveys' | 'pressures', wanted: unknown[][]) =>
  (objects: EarthObject[]) =>
    expect(first(objects, kind).rows).toEqual(wanted);
const lines = (...all: string[]) => `${all.join('\n')}\n`;

/** Well heads in the dialects of tables: separators, decimal signs, quotes, ends of lines, rows of units. */
function variants(): Foreign[] {
  const next = uniform(71);
  const pick = <T>(of: readonly T[]) => of[Math.floor(next() * of.length)];
  return Array.from({ length: 16 }, (_, n) => {
    const separator = pick([',', ';', '\t']);
    const decimal = separator === ',' ? '.' : pick(['.', ',']);
    const end = pick(['\n', '\r\n', '\r']);
    const unitRow = next() < 0.3;
    const quote = next() < 0.4;
    const name = (k: number) => (quote ? `"Bore ${n}-${k}"` : `Bore ${n}-${k}`);
    const value = (v: number) => v.toFixed(2).replace('.', decimal);
    const heads = [pick(['Well', 'WELL', 'well_name']), 'X', 'Y', pick(['KB', 'Kelly Bushing', 'kb_elev'])];
    const titled = unitRow ? heads : [heads[0], 'X (m)', 'Y [m]', `${heads[3]} (m)`];
    const table = [
      titled,
      ...(unitRow ? [['', 'm', 'm', 'm']] : []),
      ...[1, 2, 3].map((k) => [name(k), value(499_000.25 + k), value(7_650_000.5 + k), value(20 + k)]),
    ];
    const text = table.map((row) => row.join(separator)).join(end) + end;
    return {
      file: `heads-${n}.${pick(['csv', 'txt', 'dat'])}`,
      is: `separated by ${JSON.stringify(separator)}, decimals with “${decimal}”${unitRow ? ', a row of units' : ''}`,
      bytes: next() < 0.3 ? `\uFEFF${text}` : text,
      holds: (objects) => {
        expect(kinds(objects)).toEqual(['well', 'well', 'well']);
        well({ name: `Bore ${n}-1`, x: 499_001.25, y: 7_650_001.5, kbM: 21 })(objects);
      },
    };
  });
}

const SURVEY = 'well,md_m,inc_deg,azi_deg';
const FILES: Foreign[] = [
  ...variants(),
  {
    file: 'leads.csv',
    is: 'names and places',
    bytes: lines('name,x,y', 'A,499100,7650100', 'B,499200,7650200', 'C,499300,7650300'),
    holds: points([
      ['A', 499_100, 7_650_100],
      ['B', 499_200, 7_650_200],
      ['C', 499_300, 7_650_300],
    ]),
  },
  {
    file: 'many.csv',
    is: '741 names and places',
    bytes: lines('name,x,y', ...Array.from({ length: 741 }, (_, n) => `P${n},${499_000 + n},${7_650_000 + n}`)),
    holds: (objects) => expect(first(objects, 'points').points.length).toBe(741),
  },
  {
    file: 'bare.csv',
    is: 'places without names',
    bytes: lines('x,y', '499100,7650100', '499200,7650200'),
    holds: points([
      ['', 499_100, 7_650_100],
      ['', 499_200, 7_650_200],
    ]),
  },
  {
    file: 'lonlat.csv',
    is: 'longitude and latitude',
    bytes: lines('station,lon,lat', 'S1,57,-21.2', 'S2,57.001,-21.2'),
    holds: (objects) => expect(first(objects, 'points').points[0][0]).toBeCloseTo(500_000, -1),
    says: /Converted/,
  },
  {
    file: 'dms.csv',
    is: 'degrees, minutes and seconds',
    bytes: lines('station,lon,lat', 'S1,57°00\'00"E,21°12\'00"S'),
    holds: (objects) => expect(first(objects, 'points').points[0][0]).toBeCloseTo(500_000, -1),
    says: /Converted/,
  },
  {
    file: 'outline.csv',
    is: 'an outline by name',
    bytes: lines('name,x,y', ...[0, 1, 2, 3].map((n) => `Lake,${499_000 + 100 * n},${7_650_000 + 50 * n * n}`)),
    holds: (objects) => expect(first(objects, 'polygon').rings[0].length).toBe(4),
  },
  {
    file: 'two-outlines.csv',
    is: 'two outlines by polygon',
    bytes: lines(
      'polygon,x,y',
      'A,499000,7650000',
      'A,499100,7650000',
      'A,499100,7650100',
      'B,499500,7650000',
      'B,499600,7650000',
      'B,499600,7650100',
    ),
    holds: (objects) => expect(kinds(objects)).toEqual(['polygon', 'polygon']),
  },
  {
    file: 'extra.csv',
    is: 'points with a column more',
    bytes: lines('name,x,y,colour', 'A,499100,7650100,red'),
    says: /“colour” was left out/,
  },
  {
    file: 'no-kb.csv',
    is: 'wells without a kelly bushing',
    bytes: lines('well,x,y', 'Bore 9,499100,7650100'),
    asks: ['kb'],
    refused: /how high the kelly bushings/,
  },
  {
    file: 'told-kb.csv',
    is: 'wells without a kelly bushing, which is told',
    bytes: lines('well,x,y', 'Bore 9,499100,7650100'),
    declare: ['kb=31'],
    holds: well({ name: 'Bore 9', kbM: 31 }),
  },
  {
    file: 'as-points.csv',
    is: 'wells without a kelly bushing, told to be points',
    bytes: lines('well,x,y', 'Bore 9,499100,7650100'),
    declare: ['kind=points', 'column.point=well'],
    holds: points([['Bore 9', 499_100, 7_650_100]]),
  },
  {
    file: 'feet.csv',
    is: 'places in feet',
    bytes: lines('well,x_ft,y_ft,kb_ft', `Bore 9,${499_100 / 0.3048},${7_650_100 / 0.3048},100`),
    holds: (objects) => expect(first(objects, 'well').kbM).toBeCloseTo(30.48, 3),
    says: /in feet and were converted/,
  },
  {
    file: 'moved.csv',
    is: 'a well elsewhere than the project has it',
    bytes: lines('well,x,y,kb', 'Good 1,499950,7650050,25'),
    says: /already, 900 m from where row 2 puts it/,
  },
  {
    file: 'two-places.csv',
    is: 'one well at two places',
    bytes: lines('well,x,y,kb', 'Bore 9,499100,7650100,25', 'Bore 9,499400,7650100,25'),
    says: /Bore 9 stands at two places 300 m apart \(rows 2 and 3\)/,
  },
  {
    file: 'stands-twice.csv',
    is: 'one well twice',
    bytes: lines('well,x,y,kb', 'Bore 9,499100,7650100,25', 'Bore 9,499100,7650100,25'),
    says: /Bore 9 stands 2 times/,
  },
  {
    file: 'far-off.csv',
    is: 'a well in another part of the world',
    bytes: lines('well,x,y,kb', 'Bore 9,200000,1000000,25'),
    says: /from what the project holds/,
  },
  {
    file: 'swapped.csv',
    is: 'X and Y exchanged',
    bytes: lines('well,x,y,kb', 'Bore 9,7650100,499100,25'),
    says: /from what the project holds/,
  },
  {
    file: 'degrees-in-metres.csv',
    is: 'degrees under X and Y',
    bytes: lines('well,x,y,kb', 'Bore 9,57.003,-21.204,25'),
    says: /read like longitude and latitude/,
  },
  {
    file: 'survey.csv',
    is: 'a directional survey',
    bytes: lines(SURVEY, 'Bore 1,0,0,0', 'Bore 1,500,10,45'),
    holds: (objects) => expect(first(objects, 'directional surveys').rows.length).toBe(2),
  },
  {
    file: 'survey-back.csv',
    is: 'a survey whose depths go back',
    bytes: lines(SURVEY, 'Bore 1,0,0,0', 'Bore 1,500,10,45', 'Bore 1,400,12,50'),
    says: /depths? go(es)? back|not in order|goes back/i,
  },
  {
    file: 'survey-over.csv',
    is: 'a hole that is bent over',
    bytes: lines(SURVEY, 'Bore 1,0,0,0', 'Bore 1,500,190,45'),
    says: /inclination/i,
  },
  {
    file: 'survey-azimuth.csv',
    is: 'an azimuth of more than a round',
    bytes: lines(SURVEY, 'Bore 1,0,0,0', 'Bore 1,500,10,405'),
    says: /azimuth/i,
  },
  {
    file: 'checkshots.csv',
    is: 'checkshots',
    bytes: lines('well,md_m,twt_ms', 'Bore 1,500,600', 'Bore 1,1000,1000'),
    holds: (objects) => expect(first(objects, 'checkshots').rows.length).toBe(2),
  },
  {
    file: 'checkshots-back.csv',
    is: 'times that go back with depth',
    bytes: lines('well,md_m,twt_ms', 'Bore 1,500,600', 'Bore 1,1000,1000', 'Bore 1,1200,900'),
    says: /the time goes back with depth once \(first: row 4\)/,
  },
  {
    file: 'one-way.csv',
    is: 'one-way times',
    bytes: lines('well,md_m,owt_ms', 'Bore 1,500,300'),
    holds: (objects) => expect(first(objects, 'checkshots').rows[0]).toContain(600),
  },
  {
    file: 'seconds.csv',
    is: 'times in seconds',
    bytes: lines('well,md_m,twt_s', 'Bore 1,500,0.6'),
    holds: (objects) => expect(first(objects, 'checkshots').rows[0]).toContain(600),
  },
  {
    file: 'seconds-unsaid.csv',
    is: 'times that can only be seconds',
    bytes: lines('well,md_m,twt', 'Bore 1,500,0.6', 'Bore 1,1000,1.02', 'Bore 1,1500,1.4'),
    says: /seconds/,
  },
  {
    file: 'tops.csv',
    is: 'tops',
    bytes: lines('well,top,md_m', 'Good 1,Sand,700'),
    holds: rows('tops', [['Sand', 700]]),
  },
  {
    file: 'tops-below.csv',
    is: 'a top below total depth',
    bytes: lines('well,top,md_m', 'Good 1,Sand,700', 'Good 1,Deep,2600'),
    says: /1 top of Good 1 lies below its total depth of 2000\.0 m MD \(first: row 3\)/,
  },
  {
    file: 'tops-text.csv',
    is: 'a text among depths',
    bytes: lines('well,top,md_m', 'Good 1,Sand,700', 'Good 1,Clay,deep'),
    says: /“md_m” has 1 cell that is no number \(first: “deep” in row 3\)/,
  },
  {
    file: 'tops-nan.csv',
    is: 'NaN among depths',
    bytes: lines('well,top,md_m', 'Good 1,Sand,700', 'Good 1,Clay,NaN'),
    says: /1 of 2 rows lack a number|row 3/,
  },
  {
    file: 'tops-wide.csv',
    is: 'a row with too many cells',
    bytes: lines('well,top,md_m', 'Good 1,Sand,700,5,6', 'Good 1,Clay,800', 'Good 1,Lime,900'),
    says: /more cells than there are columns \(first: row 2\)/,
  },
  {
    file: 'tops-short.csv',
    is: 'a row with too few cells',
    bytes: lines('well,top,md_m', 'Good 1,Sand,700', 'Good 1,Clay'),
    says: /row 3/,
  },
  {
    file: 'tops-far.csv',
    is: 'tops of a well that is not there',
    bytes: lines('well,top,md_m', 'Nowhere 7,Sand,700'),
    holds: (objects) => expect(first(objects, 'tops').well).toBe('Nowhere 7'),
  },
  {
    file: 'tops-unnamed.csv',
    is: 'tops without a well',
    bytes: lines('top,md_m', 'Sand,700'),
    asks: ['well'],
    refused: /does not say of which well/,
  },
  {
    file: 'tops-told.csv',
    is: 'tops without a well, which is told',
    bytes: lines('top,md_m', 'Sand,700'),
    declare: ['well=Good 1'],
    holds: (objects) => expect(first(objects, 'tops').well).toBe('Good 1'),
  },
  {
    file: 'tops-twice.csv',
    is: 'one top at two depths',
    bytes: lines('well,top,md_m', 'Good 1,Sand,700', 'Good 1,Sand,760'),
    says: /Sand.*(twice|two depths|2 times)/i,
  },
  {
    file: 'elevations.csv',
    is: 'depths below the sea as elevations',
    bytes: lines('well,top,tvdss_m,md_m', 'Good 1,Sand,-1700,1725', 'Good 1,Clay,-1800,1825'),
    says: /taken for elevations, and turned/,
  },
  {
    file: 'pressures.csv',
    is: 'pressures in psi',
    bytes: lines('well,md_m,pressure_psi', 'Good 1,1000,1450.377'),
    holds: (objects) => expect(Number(first(objects, 'pressures').rows[0].at(-1)) / 1e7).toBeCloseTo(1, 3),
  },
  {
    file: 'unit.csv',
    is: 'a unit that is none',
    bytes: lines('well,top,md (furlongs)', 'Good 1,Sand,700'),
    says: /furlongs/,
  },
  {
    file: 'unknown.csv',
    is: 'columns that make up nothing',
    bytes: lines('fruit,weight', 'apple,3'),
    refused: /make up no table that is known/,
  },
  {
    file: 'one-column.csv',
    is: 'one column',
    bytes: lines('depth', '1', '2'),
    refused: /no row of column names|make up no table/,
  },
  { file: 'heads-only.csv', is: 'column names and no row', bytes: lines('well,top,md_m'), refused: /no rows?/ },
  { file: 'empty.csv', is: 'nothing', bytes: '', refused: /empty/ },
  { file: 'blank.csv', is: 'blank lines', bytes: '\n\n\n', refused: /no row|empty|no kind/ },
  {
    file: 'all-bad.csv',
    is: 'no number where numbers must be',
    bytes: lines('well,top,md_m', 'Good 1,Sand,a', 'Good 1,Clay,b'),
    refused: /no row with a number in every column/,
  },
  {
    file: 'workbook.csv',
    is: 'a workbook that claims to be a table',
    bytes: Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0, ...new Uint8Array(4000)]),
    refused: /office program.*Save its sheets as CSV/s,
  },
  { file: 'wide.csv', is: 'a line of megabytes', bytes: `well,top,md_m\n${'x'.repeat(5e6)}\n`, refused: /line/ },
  {
    file: 'utf16.csv',
    is: 'two bytes a letter',
    bytes: Uint8Array.from([
      0xff,
      0xfe,
      ...[...lines('well,top,md_m', 'Good 1,Sand,700')].flatMap((c) => [c.charCodeAt(0), 0]),
    ]),
    holds: rows('tops', [['Sand', 700]]),
  },
  {
    file: 'latin.csv',
    is: 'letters of an old code page',
    bytes: Uint8Array.from([...lines('well,top,md_m', 'Good 1,S\xe4nd,700')].map((c) => c.charCodeAt(0))),
    holds: rows('tops', [['Sänd', 700]]),
  },
  {
    file: 'formula.csv',
    is: 'a name that a spreadsheet would run',
    bytes: lines('well,top,md_m', 'Good 1,"=HYPERLINK(""http://x"")",700'),
    holds: (objects) => expect(first(objects, 'tops').rows[0][0]).toBe('=HYPERLINK("http://x")'),
  },
  {
    file: 'control.csv',
    is: 'control characters in a name',
    bytes: lines('well,top,md_m', 'Good 1,Sa\u202End,700'),
    holds: (objects) => expect(String(first(objects, 'tops').rows[0][0])).not.toContain('\u202E'),
  },
  {
    file: 'faults.csv',
    is: 'fault sticks',
    bytes: lines(
      'fault,stick,x,y,twt_ms',
      'F1,1,499000,7650000,500',
      'F1,1,499010,7650000,700',
      'F1,2,499000,7650100,500',
      'F1,2,499012,7650100,700',
    ),
    holds: (objects) => expect(first(objects, 'fault').sticks.length).toBe(2),
  },
  {
    file: 'horizon.csv',
    is: 'a horizon on a grid',
    bytes: lines(
      'x,y,twt_ms',
      ...Array.from(
        { length: 30 },
        (_, n) => `${499_000 + 25 * (n % 6)},${7_650_000 + 25 * Math.floor(n / 6)},${900 + n}`,
      ),
    ),
    holds: (objects) =>
      expect(first(objects, 'horizon').binGrid.crossline.count * first(objects, 'horizon').binGrid.inline.count).toBe(
        30,
      ),
  },
  {
    file: 'navigation.csv',
    is: 'navigation of a line',
    bytes: lines('line,shotpoint,x,y', 'L1,1,499000,7650000', 'L1,2,499025,7650000'),
    holds: (objects) => expect(first(objects, 'navigation').points.length).toBe(2),
  },
  {
    file: 'wavelet.csv',
    is: 'a wavelet at uneven times',
    bytes: lines('time_ms,amplitude', '-8,0', '-4,1', '0,2', '1,1', '8,0'),
    refused: /no wavelet/,
  },
];

describe('tables of others', () => {
  let place: Awaited<ReturnType<typeof workplace>>;
  beforeAll(async () => {
    place = await workplace(GOOD);
  });
  afterAll(() => place.clear());
  test('there are sixty', () => {
    expect(FILES.length).toBeGreaterThanOrEqual(60);
  });
  test.each(FILES.map((f) => [f.file, f.is, f] as const))('%s: %s', async (_, __, given) => {
    expectOutcome(given, await place.give(given));
  });
});
