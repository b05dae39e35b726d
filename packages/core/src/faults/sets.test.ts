import { describe, expect, test } from 'vitest';
import { TURNED } from '../testing/objects.ts';
import { normal, uniform } from '../testing/random.ts';
import { kambDensity, offNet, roseOf, toNet } from './net.ts';
import {
  angleBetween,
  meanOrientation,
  type Orientation,
  ofIndexPlane,
  ofPole,
  poleOf,
  toIndexPlane,
} from './orientation.ts';
import { planeOfFault } from './plane.ts';
import { findSets } from './sets.ts';

/** Planes about a middle, their poles off by so many degrees. */
function about(middle: Orientation, count: number, spreadDeg: number, seed: number): Orientation[] {
  const random = normal(seed);
  return Array.from({ length: count }, () => {
    const [x, y, z] = poleOf(middle);
    const off = (spreadDeg * Math.PI) / 180;
    return ofPole([x + off * random(), y + off * random(), z + off * random()]);
  });
}

describe('planes and their poles', () => {
  test.each([
    { dip: 60, azimuth: 247 },
    { dip: 35, azimuth: 10 },
    { dip: 85, azimuth: 133 },
  ])('dip $dip towards $azimuth comes back from its pole and from indexes', (plane) => {
    expect(angleBetween(ofPole(poleOf(plane)), plane)).toBeLessThan(1e-5);
    const back = ofIndexPlane(toIndexPlane(plane, TURNED, 5), TURNED, 5);
    expect(back.dip).toBeCloseTo(plane.dip, 8);
    expect(back.azimuth).toBeCloseTo(plane.azimuth, 8);
  });

  test('the angle between planes is worked out by hand', () => {
    expect(angleBetween({ dip: 50, azimuth: 90 }, { dip: 70, azimuth: 90 })).toBeCloseTo(20, 6);
    // two upright planes at right angles, and one that dips 80° each way about the same strike
    expect(angleBetween({ dip: 90, azimuth: 0 }, { dip: 90, azimuth: 90 })).toBeCloseTo(90, 6);
    expect(angleBetween({ dip: 80, azimuth: 0 }, { dip: 80, azimuth: 180 })).toBeCloseTo(20, 6);
  });

  test('a fault of two upright sticks has the plane through them', () => {
    const plane = planeOfFault(
      {
        domain: 'depth',
        sticks: [
          [
            [0, 0, 1000],
            [100, 0, 1200],
          ],
          [
            [0, 500, 1000],
            [100, 500, 1200],
          ],
        ],
      },
      2500,
    );
    expect(plane?.dip).toBeCloseTo((Math.atan2(200, 100) * 180) / Math.PI, 6);
    expect(plane?.azimuth).toBeCloseTo(90, 6);
    expect(plane?.areaM2).toBeCloseTo(500 * Math.hypot(100, 200), 3);
  });
});

describe('the net', () => {
  test('equal areas of the sphere are equal areas of the disc', () => {
    const random = uniform(3);
    // even over the lower half of the sphere: even over the disc, whose inner half of area holds half of them
    let inside = 0;
    const count = 20000;
    for (let n = 0; n < count; n++) {
      const down = random();
      const turn = 2 * Math.PI * random();
      const r = Math.sqrt(1 - down * down);
      const [x, y] = toNet([r * Math.sin(turn), r * Math.cos(turn), down]);
      if (x * x + y * y < 0.5) inside++;
    }
    expect(inside / count).toBeCloseTo(0.5, 1.7);
  });

  test('a place of the net is the direction that is drawn there', () => {
    const at = offNet(0.3, -0.5);
    expect(at && toNet(at)[0]).toBeCloseTo(0.3, 8);
    expect(at && toNet(at)[1]).toBeCloseTo(-0.5, 8);
    expect(offNet(0.9, 0.9)).toBeNull();
  });

  test('poles that gather stand out by many standard deviations, and poles that do not stand out by few', () => {
    const tight = about({ dip: 60, azimuth: 250 }, 60, 4, 1);
    const kamb = kambDensity(
      tight,
      tight.map(() => 1),
    );
    expect(kamb.most).toBeGreaterThan(12);
    const peak = kamb.values.indexOf(Math.fround(kamb.most));
    const [x, y] = toNet(poleOf({ dip: 60, azimuth: 250 }));
    expect((2 * (peak % 61)) / 60 - 1).toBeCloseTo(x, 0.8);
    expect((2 * Math.floor(peak / 61)) / 60 - 1).toBeCloseTo(y, 0.8);
    const random = uniform(5);
    const spread = Array.from({ length: 200 }, () => {
      const down = random();
      const turn = 2 * Math.PI * random();
      const r = Math.sqrt(1 - down * down);
      return ofPole([r * Math.sin(turn), r * Math.cos(turn), down]);
    });
    expect(
      kambDensity(
        spread,
        spread.map(() => 1),
      ).most,
    ).toBeLessThan(6);
  });

  test('a rose counts strikes, which have no sense', () => {
    // faults that dip east and west strike the same
    const rose = roseOf(
      [
        { dip: 60, azimuth: 91 },
        { dip: 60, azimuth: 271 },
        { dip: 60, azimuth: 1 },
      ],
      [1, 1, 2],
    );
    expect(rose[0]).toBeCloseTo(0.5, 8);
    expect(rose[9]).toBeCloseTo(0.5, 8);
  });
});

describe('sets', () => {
  const [a, b, c] = [
    { dip: 60, azimuth: 250 },
    { dip: 55, azimuth: 20 },
    { dip: 75, azimuth: 130 },
  ];
  const planes = [...about(a, 30, 5, 1), ...about(b, 20, 5, 2), ...about(c, 12, 5, 3)];
  const even1 = planes.map(() => 1);

  test('are as many as there are, where they are, and hold what is theirs', () => {
    const { sets, of, bic } = findSets(planes, even1, null);
    expect(sets).toHaveLength(3);
    expect(bic.indexOf(Math.min(...bic))).toBe(2);
    for (const [n, truth] of [a, b, c].entries()) expect(angleBetween(sets[n], truth)).toBeLessThan(3);
    const own = [...of].filter((s, n) => s === (n < 30 ? 0 : n < 50 ? 1 : 2)).length;
    expect(own).toBe(planes.length);
    expect(sets[0].share).toBeCloseTo(30 / 62, 1.5);
  });

  test('are one where all lie alike, and as many as are asked for', () => {
    const alike = about(a, 40, 6, 9);
    expect(
      findSets(
        alike,
        alike.map(() => 1),
        null,
      ).sets,
    ).toHaveLength(1);
    expect(findSets(planes, even1, 2).sets).toHaveLength(2);
  });

  test('are drawn to what is large where planes count by their area', () => {
    const two = [
      { dip: 60, azimuth: 90 },
      { dip: 60, azimuth: 100 },
    ];
    const [{ azimuth }] = findSets(two, [9, 1], 1).sets;
    expect(azimuth).toBeCloseTo(91, 0);
    expect(meanOrientation(two, [1, 1]).azimuth).toBeCloseTo(95, 6);
  });
});
