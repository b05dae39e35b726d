import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { uniform } from '../testing/random.ts';
import { mdAtTvdss, pointAtMd, wellPath } from './path.ts';
import { depthOfTwt, fromCheckshots, startOf, twtOfDepth } from './timeDepth.ts';

describe('minimum curvature', () => {
  test('a vertical well goes straight down from its kelly bushing', () => {
    const path = wellPath(100, 200, 25, [], 1000);
    expect(pointAtMd(path, 500)).toEqual({ x: 100, y: 200, tvdss: 475 });
  });
  test('a quarter circle from vertical to horizontal, towards the east', () => {
    const r = 300;
    const length = (Math.PI / 2) * r;
    const path = wellPath(0, 0, 0, [
      [0, 0, 90],
      [length, 90, 90],
    ]);
    const end = pointAtMd(path, length);
    expect(end.x).toBeCloseTo(r, 6);
    expect(end.tvdss).toBeCloseTo(r, 6);
    // interpolation follows the arc, not the chord
    const middle = pointAtMd(path, length / 2);
    expect(middle.x).toBeCloseTo(r * (1 - Math.SQRT1_2), 6);
    expect(middle.tvdss).toBeCloseTo(r * Math.SQRT1_2, 6);
  });
  test('azimuth is clockwise from grid north', () => {
    const path = wellPath(0, 0, 0, [
      [0, 30, 45],
      [1000, 30, 45],
    ]);
    const end = pointAtMd(path, 1000);
    expect(end.x).toBeCloseTo(1000 * 0.5 * Math.SQRT1_2, 6);
    expect(end.y).toBeCloseTo(1000 * 0.5 * Math.SQRT1_2, 6);
    expect(end.tvdss).toBeCloseTo(1000 * Math.cos(Math.PI / 6), 6);
  });
  test('a turn is as long as it says: stations far apart agree with stations close together', () => {
    const turn = (n: number) =>
      Array.from({ length: n + 1 }, (_, k) => [(900 * k) / n, 40, (60 * k) / n] as [number, number, number]);
    const end = (n: number) => pointAtMd(wellPath(0, 0, 0, turn(n)), 900);
    const exact = end(4000);
    const error = (n: number) => {
      const p = end(n);
      return Math.hypot(p.x - exact.x, p.y - exact.y, p.tvdss - exact.tvdss);
    };
    expect(error(12)).toBeLessThan(0.5);
    // second order: twice the stations, a quarter of the error
    expect(error(12) / error(24)).toBeGreaterThan(3.5);
  });
  /** The tangent along an arc, integrated by Gauss and Legendre at ten points of many pieces. */
  const integrated = (from: [number, number], to: [number, number], length: number, part: number) => {
    const rad = Math.PI / 180;
    const unit = ([inc, azi]: [number, number]) => [
      Math.sin(inc * rad) * Math.sin(azi * rad),
      Math.sin(inc * rad) * Math.cos(azi * rad),
      Math.cos(inc * rad),
    ];
    const [a, b] = [unit(from), unit(to)];
    // the direction at right angles to the first in their plane, where they have one
    const dot = a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    const off = b.map((v, n) => v - dot * a[n]);
    const size = Math.hypot(...off);
    const bend = Math.atan2(size, dot);
    const nodes = [0.1488743389816312, 0.4333953941292472, 0.6794095682990244, 0.8650633666889845, 0.9739065285171717];
    const weights = [
      0.2955242247147529, 0.2692667193099963, 0.2190863625159821, 0.1494513491505806, 0.0666713443086881,
    ];
    const sum = [0, 0, 0];
    const pieces = 40;
    for (let piece = 0; piece < pieces; piece++)
      nodes.forEach((node, n) => {
        for (const sign of [-1, 1]) {
          const f = (part * (piece + 0.5 + 0.5 * sign * node)) / pieces;
          for (let c = 0; c < 3; c++) {
            const t = size < 1e-14 ? a[c] : Math.cos(f * bend) * a[c] + (Math.sin(f * bend) / size) * off[c];
            sum[c] += (weights[n] / 2) * (part / pieces) * length * t;
          }
        }
      });
    return sum;
  };
  test('holds, builds of a millionth of a degree and circles are right to a millimetre between stations', () => {
    const next = uniform(408);
    const worst = { hold: 0, build: 0, turn: 0 };
    for (let n = 0; n < 1200; n++) {
      const kind = (['hold', 'build', 'turn'] as const)[n % 3];
      const from: [number, number] = [Math.round(9e3 * next()) / 100, Math.round(36e3 * next()) / 100];
      const to: [number, number] =
        kind === 'hold'
          ? from
          : kind === 'build'
            ? [from[0] + 1e-6 * 10 ** (3 * next()), from[1] + 1e-6]
            : [170 * next(), 360 * next()];
      const length = 10 + 3000 * next();
      const path = wellPath(0, 0, 0, [
        [0, ...from],
        [length, ...to],
      ]);
      for (const part of [0.01, 0.31, 0.5, 0.77, 1]) {
        const found = pointAtMd(path, part * length);
        const wanted = integrated(from, to, length, part);
        const off = Math.hypot(found.x - wanted[0], found.y - wanted[1], found.tvdss - wanted[2]);
        worst[kind] = Math.max(worst[kind], off);
      }
    }
    for (const [kind, off] of Object.entries(worst)) expect(off, kind).toBeLessThan(1e-3);
  });
  test('beyond the last station it goes straight on', () => {
    const path = wellPath(0, 0, 10, [
      [0, 0, 0],
      [100, 60, 0],
    ]);
    const a = pointAtMd(path, 100);
    const b = pointAtMd(path, 200);
    expect(b.y - a.y).toBeCloseTo(100 * Math.sin(Math.PI / 3), 6);
    expect(b.tvdss - a.tvdss).toBeCloseTo(50, 6);
  });
});

describe('the measured depth of a TVDSS', () => {
  test('on a quarter circle is the length of its arc', () => {
    const r = 300;
    const path = wellPath(0, 0, 25, [
      [0, 0, 90],
      [(Math.PI / 2) * r, 90, 90],
    ]);
    for (const angle of [0.1, 0.7, 1.4]) expect(mdAtTvdss(path, r * Math.sin(angle) - 25)).toBeCloseTo(r * angle, 6);
    // it runs level from there, and comes no deeper; nor does it begin above its kelly bushing
    expect(mdAtTvdss(path, r - 25 + 1)).toBeNaN();
    expect(mdAtTvdss(path, -26)).toBeNaN();
  });
  test('there and back in any well that goes down', () => {
    const station = fc.tuple(fc.double({ min: 0, max: 80, noNaN: true }), fc.double({ min: 0, max: 360, noNaN: true }));
    fc.assert(
      fc.property(
        fc.array(station, { minLength: 1, maxLength: 8 }),
        fc.double({ min: 0, max: 4000, noNaN: true }),
        (stations, md) => {
          const path = wellPath(
            0,
            0,
            20,
            stations.map(([inclination, azimuth], n) => [300 * (n + 1), inclination, azimuth]),
          );
          const { tvdss } = pointAtMd(path, md);
          expect(pointAtMd(path, mdAtTvdss(path, tvdss)).tvdss).toBeCloseTo(tvdss, 6);
        },
      ),
      { seed: 3, numRuns: 300 },
    );
  });
  test('in a well that rises again is the first that it comes to', () => {
    const path = wellPath(0, 0, 0, [
      [0, 0, 0],
      [500, 0, 0],
      [900, 120, 0],
      [1500, 120, 0],
    ]);
    const first = mdAtTvdss(path, 600);
    expect(first).toBeLessThan(900);
    expect(pointAtMd(path, first).tvdss).toBeCloseTo(600, 6);
  });
});

describe('time and depth from checkshots', () => {
  const rows = [
    { tvdss: 1000, twt: 1000 },
    { tvdss: 500, twt: 560 },
    { tvdss: 700, twt: 550 },
  ];
  test('pairs are sorted, begin at the datum, and those that go back in time are left out', () => {
    const relation = fromCheckshots(rows);
    expect([...(relation?.twt ?? [])]).toEqual([0, 560, 1000]);
  });
  test('there and back', () => {
    const relation = fromCheckshots(rows);
    if (!relation) throw new Error('no relation');
    for (const z of [10, 499, 700, 1000, 1200]) expect(depthOfTwt(relation, twtOfDepth(relation, z))).toBeCloseTo(z, 9);
    expect(twtOfDepth(relation, -5)).toBeNaN();
  });
  test('with a datum above the sea times begin there, with the replacement velocity down to the well', () => {
    // a datum at 300 m, ground and bushing at 260 m, rock of 2400 m/s below
    const twt = (tvdss: number) => (2000 * 40) / 2000 + (2000 * (tvdss + 260)) / 2400;
    const shots = [-100, 200, 500, 900].map((tvdss) => ({ tvdss, twt: twt(tvdss) }));
    const relation = fromCheckshots(shots, startOf(300, 2000, 260));
    if (!relation) throw new Error('no relation');
    for (const z of [-250, -100, 0, 50, 400, 900]) expect(twtOfDepth(relation, z)).toBeCloseTo(twt(z), 6);
    expect(twtOfDepth(relation, -300)).toBe(0);
    expect(depthOfTwt(relation, 20)).toBeCloseTo(-280, 6);
    // from the sea those would be off by the time from the datum down
    const naive = fromCheckshots(shots);
    expect(Math.abs(twtOfDepth(naive as never, 50) - twt(50))).toBeGreaterThan(50);
  });
  test('too few pairs are no relation', () => {
    expect(fromCheckshots([{ tvdss: 500, twt: 500 }])).toBeNull();
  });
});
