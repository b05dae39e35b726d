import { describe, expect, test } from 'vitest';
import { crsOf } from '../files/coordinates.ts';
import { crsTable } from './crsTable.ts';
import { DATUM_SHIFTS } from './datumShifts.ts';
import { datumOf, datumRoute } from './datums.ts';
import { transformBetween } from './transform.ts';

const between = async (from: number, to: number, at: [number, number]) =>
  transformBetween(await crsOf(`EPSG:${from}`, crsTable), await crsOf(`EPSG:${to}`, crsTable), at);

describe('conversions between datums, as PROJ 9.1 has them', () => {
  test.each([
    // method with rotations of the coordinate frame, of the position vector, in microradians, about a pivot
    [28992, 4258, [155000, 463000], [5.387203504508, 52.155172293544], 0.25],
    [31370, 4258, [150000, 170000], [4.368752140904, 50.840411284051], 0.2],
    [28412, 4326, [12_500_000, 6_500_000], [68.998823793994, 58.616482962826], 3],
    [20353, 4326, [500_000, 6_500_000], [135.001356799893, -31.633637787336], 3],
    [26715, 4326, [500_000, 3_300_000], [-93.000168762327, 29.832316920938], 7],
    [27572, 4326, [600_000, 2_200_000], [2.336533608362, 46.799948781127], 2],
    [27200, 4326, [2_510_000, 6_023_000], [173.000142946209, -40.999627441146], 4],
    [27700, 4326, [400_000, 300_000], [-2.001433115511, 52.597792430834], 2],
    [31467, 4326, [3_500_000, 5_600_000], [8.998955964079, 50.535741942921], 3],
    // axes to the west and south
    [2048, 4326, [-50_000, 3_500_000], [19.526982032515, -31.62146763984], 1],
    [5513, 4326, [1_050_000, 740_000], [14.473397872311, 50.02866129625], 1],
  ] as [
    number,
    number,
    [number, number],
    [number, number],
    number,
  ][])('EPSG:%i to EPSG:%i at %j', async (from, to, at, wanted, error) => {
    const { convert, says } = await between(from, to, at);
    const [lon, lat] = convert(...at);
    // a metre is some 1e-5°: to a centimetre where the operation is the same, else within its stated error
    const off = Math.hypot((lon - wanted[0]) * 111e3 * Math.cos((lat * Math.PI) / 180), (lat - wanted[1]) * 111e3);
    expect(off).toBeLessThan(Math.max(0.02, from === 5513 ? 3 : 0));
    expect(Number(/stated as good to ([\d.]+) m/.exec(says)?.[1])).toBe(error);
  });
  test('there and back is one place, for every hundredth system', async () => {
    const rows = (await crsTable()).filter((row, n) => n % 100 === 0 && row[4]);
    const world = await crsOf('EPSG:4326', crsTable);
    let tried = 0;
    for (const row of rows) {
      const crs = await crsOf(`EPSG:${row[0]}`, crsTable);
      const [north, west, south, east] = crs.bounds ?? [0, 0, 0, 0];
      const at: [number, number] = [(west + east) / 2, (south + north) / 2];
      if (datumOf(crs) === null || east < west) continue;
      try {
        const there = transformBetween(world, crs, at).convert(...at);
        const back = transformBetween(crs, world, there).convert(...there);
        tried++;
        expect(Math.hypot(back[0] - at[0], back[1] - at[1]), `EPSG:${row[0]}`).toBeLessThan(1e-6);
      } catch (cause) {
        expect((cause as Error).message, `EPSG:${row[0]}`).toMatch(/No transformation is known|lies outside/);
      }
    }
    expect(tried).toBeGreaterThan(30);
  });
});

describe('the operation for a place', () => {
  test('is the one with the least stated error whose area holds it', () => {
    const norway = datumRoute(4230, 4326, [3, 56]);
    const spain = datumRoute(4230, 4326, [-4, 40]);
    expect(norway?.inArea).toBe(true);
    expect(spain?.inArea).toBe(true);
    expect(norway?.says).not.toBe(spain?.says);
    for (const [route, [lon, lat]] of [
      [norway, [3, 56]],
      [spain, [-4, 40]],
    ] as const) {
      const others = DATUM_SHIFTS.filter(
        ([, from, to, , [south, west, north, east]]) =>
          from === 4230 && to === 4326 && lat >= south && lat <= north && lon >= west && lon <= east,
      );
      expect(route?.accuracyM).toBe(Math.min(...others.map((o) => o[3])));
    }
  });
  test('outside every area it is the nearest one, and is said to be for another', async () => {
    const { says } = await between(4203, 4326, [2, 48]);
    expect(says).toContain('though not for this place');
  });
  test('of two datums without a formula there is none', () => {
    expect(datumRoute(4326, 4608, [-80, 50])).toBeNull();
  });
});
