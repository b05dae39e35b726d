import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { toMap } from '../earth/binGrid.ts';
import type { EarthObject, Navigation, SeismicLine, Volume } from '../earth/objects.ts';
import { MADE, TURNED } from '../testing/objects.ts';
import { crossings, distances, meetings, pathOfLine } from './lines.ts';

type Path = [number, number][];

const line = (name: string, path: Path, more: Partial<SeismicLine> = {}): SeismicLine =>
  ({
    id: name,
    kind: 'seismic line',
    name,
    revision: '1',
    stage: 'data',
    madeBy: MADE,
    path,
    cdps: path.map((_, n) => n + 1),
    ...more,
  }) as SeismicLine;
const navigation = (name: string, by: 'cdp' | 'shotpoint', points: [number, number, number][]): Navigation => ({
  id: `${name} navigation`,
  kind: 'navigation',
  name: `${name} navigation`,
  revision: '1',
  stage: 'data',
  madeBy: MADE,
  line: name,
  by,
  points,
});
const straight = (from: [number, number], to: [number, number], count: number): Path =>
  Array.from({ length: count }, (_, n) => {
    const f = n / (count - 1);
    return [from[0] + f * (to[0] - from[0]), from[1] + f * (to[1] - from[1])];
  });

describe('where the traces of a line lie', () => {
  const bent: [number, number, number][] = [
    [100, 0, 0],
    [110, 100, 0],
    [120, 100, 100],
  ];
  test('is what its file says, before any table', () => {
    const own = straight([0, 0], [10, 0], 3);
    expect(pathOfLine([navigation('L', 'cdp', bent)], line('L', own))).toBe(own);
  });
  test('follows the bends of its navigation, whichever way its traces count', () => {
    const cdps = [100, 105, 110, 115, 120];
    const objects = [navigation('L', 'cdp', bent)];
    const found = pathOfLine(objects, line('L', [], { cdps }));
    expect(found).toEqual([
      [0, 0],
      [50, 0],
      [100, 0],
      [100, 50],
      [100, 100],
    ]);
    expect(pathOfLine(objects, line('L', [], { cdps: [...cdps].reverse() }))).toEqual([...(found ?? [])].reverse());
  });
  test('goes straight on beyond the ends of a table', () => {
    const objects = [navigation('L', 'cdp', bent)];
    expect(pathOfLine(objects, line('L', [], { cdps: [90, 130] }))).toEqual([
      [-100, 0],
      [100, 200],
    ]);
  });
  test('shares out the way between shotpoints among the traces of each', () => {
    const objects = [
      navigation('L', 'shotpoint', [
        [1, 0, 0],
        [2, 100, 0],
        [3, 200, 0],
      ]),
    ];
    const shotpoints = [1, 1, 2, 2, 3, 3];
    const found = pathOfLine(objects, line('L', [], { cdps: [1, 2, 3, 4, 5, 6], shotpoints }));
    expect(found?.map(([x]) => x)).toEqual([0, 50, 100, 150, 200, 250]);
  });
  test('is nowhere without coordinates, or with a table of another line or of one point', () => {
    const lost = line('L', [], { cdps: [1, 2] });
    expect(pathOfLine([], lost)).toBeNull();
    expect(pathOfLine([navigation('M', 'cdp', bent)], lost)).toBeNull();
    expect(pathOfLine([navigation('L', 'cdp', bent.slice(0, 1))], lost)).toBeNull();
    expect(pathOfLine([navigation('L', 'shotpoint', bent)], lost)).toBeNull();
  });
  test('is as long as the steps between its points', () => {
    expect([
      ...distances([
        [0, 0],
        [3, 4],
        [3, 10],
      ]),
    ]).toEqual([0, 5, 11]);
  });
});

describe('where lines cross', () => {
  test('is where two straight lines do, in fractions of both, however finely they are cut', () => {
    const coordinate = fc.integer({ min: -1000, max: 1000 }).map((n) => n * 1.37);
    const point = fc.tuple(coordinate, coordinate);
    fc.assert(
      fc.property(point, point, point, point, fc.integer({ min: 2, max: 90 }), (a, b, c, d, count) => {
        const det = (b[0] - a[0]) * (d[1] - c[1]) - (b[1] - a[1]) * (d[0] - c[0]);
        fc.pre(Math.abs(det) > 1000);
        const s = ((c[0] - a[0]) * (d[1] - c[1]) - (c[1] - a[1]) * (d[0] - c[0])) / det;
        const t = ((c[0] - a[0]) * (b[1] - a[1]) - (c[1] - a[1]) * (b[0] - a[0])) / det;
        const clear = (f: number) => Math.abs(f) > 1e-6 && Math.abs(f - 1) > 1e-6;
        fc.pre(clear(s) && clear(t));
        const found = meetings(straight(a, b, count), straight(c, d, 47));
        const meet = s > 0 && s < 1 && t > 0 && t < 1;
        expect(found).toHaveLength(meet ? 1 : 0);
        if (!meet) return;
        expect(found[0].s).toBeCloseTo(s * (count - 1), 4);
        expect(found[0].t).toBeCloseTo(t * 46, 4);
        expect(found[0].x).toBeCloseTo(a[0] + s * (b[0] - a[0]), 4);
        expect(found[0].y).toBeCloseTo(a[1] + s * (b[1] - a[1]), 4);
      }),
      { seed: 21 },
    );
  });
  test('at a point that both have counts once', () => {
    const [a, b] = [straight([-10, 0], [10, 0], 21), straight([0, -10], [0, 10], 21)];
    expect(meetings(a, b)).toEqual([{ s: 10, t: 10, x: 0, y: 0 }]);
  });
  test('is every time that a bent line comes back', () => {
    const zigzag: Path = Array.from({ length: 9 }, (_, n) => [100 * n, n % 2 === 0 ? -50 : 50]);
    expect(meetings(straight([-10, 0], [900, 0], 300), zigzag)).toHaveLength(8);
  });
  test('is listed for lines with each other and with volumes, each survey once', () => {
    const at = (i: number, j: number) => toMap(TURNED, i, j);
    const volume = (id: string): EarthObject =>
      ({ id, kind: 'volume', name: id, binGrid: TURNED }) as unknown as Volume;
    const through = line('Through', straight(at(-5, 7), at(20, 7), 26));
    const across = line('Across', straight(at(5, -6), at(5, 20), 27));
    const apart = line('Apart', straight(at(40, 0), at(40, 9), 10));
    const lost = line('Lost', []);
    const found = crossings([volume('Full'), volume('Near'), through, across, apart, lost]);
    const lines = found.filter((c) => 'trace' in c.at);
    expect(lines.map((c) => [c.line, c.with])).toEqual([['Through', 'Across']]);
    expect(lines[0].trace).toBeCloseTo(10, 6);
    const surveys = found.filter((c) => 'inline' in c.at);
    expect(surveys.map((c) => [c.line, c.with])).toEqual([
      ['Through', 'Full'],
      ['Through', 'Full'],
      ['Across', 'Full'],
      ['Across', 'Full'],
    ]);
    // where a line enters and where it leaves, by the numbers of the survey
    const { inline, crossline } = TURNED;
    const ends = surveys.slice(0, 2).map((c) => c.at as { inline: number; crossline: number });
    for (const end of ends) {
      expect(end.crossline).toBe(crossline.first + 7);
      expect([inline.first, inline.first + inline.count - 1].some((n) => Math.abs(n - end.inline) <= 1)).toBe(true);
    }
  });
});
