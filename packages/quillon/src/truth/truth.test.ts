import { beforeAll, describe, expect, test } from 'vitest';
import { along, planeAt } from '../model/faults.ts';
import { columnAt, emptyPoint, type Field, makeField, pointAt } from '../model/field.ts';
import { fromMap, SURVEY, toMap } from '../model/survey.ts';
import { timeColumn, twtAt } from '../seismic/traces.ts';
import { velocityError } from '../seismic/velocities.ts';
import { surfaceMet } from '../wells/paths.ts';
import { waveformAt } from './events.ts';
import { crestOutline, faultSticks } from './outline.ts';
import { insideRing, type Volume, volumesOnColumns } from './volumes.ts';

describe('a ring', () => {
  const square = [
    [0, 0],
    [100, 0],
    [100, 100],
    [50, 20],
    [0, 100],
    [0, 0],
  ].map(([u, v]) => toMap(u, v));
  test('holds what is inside it, and not what lies in its notch', () => {
    const inside = insideRing(square);
    expect([inside(10, 50), inside(90, 50), inside(50, 10)]).toEqual([true, true, true]);
    expect([inside(50, 50), inside(-1, 50), inside(101, 50), inside(50, -1)]).toEqual([false, false, false, false]);
  });
});

test('a trace between its samples is the waveform that it was sampled from', () => {
  const of = (ms: number) =>
    [8, 17, 29, 44, 71].reduce((sum, hz, n) => sum + Math.cos((2 * Math.PI * hz * ms) / 1000 + n) / (n + 2), 0);
  const trace = Float32Array.from({ length: 3 * SURVEY.samples }, (_, k) => of((k - SURVEY.samples) * SURVEY.sampleMs));
  for (let step = 8 * 40; step < 8 * 400; step += 7)
    expect(Math.abs(waveformAt(trace, SURVEY.samples, step) - of((step * SURVEY.sampleMs) / 8))).toBeLessThan(4e-4);
});

test('the interval velocity is off by a few per cent that vary smoothly', () => {
  const errors = [1, 2, 3, 4, 5, 6].map((seed) => {
    const error = velocityError(seed);
    const values: number[] = [];
    for (let u = 0; u < 4975; u += 250)
      for (let v = 0; v < 3975; v += 250)
        for (let ms = 0; ms < 1800; ms += 100) {
          values.push(error(u, v, ms));
          expect(Math.abs(error(u + 250, v, ms) - error(u, v, ms))).toBeLessThan(0.03);
          expect(Math.abs(error(u, v, ms + 20) - error(u, v, ms))).toBeLessThan(0.01);
        }
    return Math.sqrt(values.reduce((sum, e) => sum + e * e, 0) / values.length);
  });
  for (const rms of errors) {
    expect(rms).toBeGreaterThan(0.01);
    expect(rms).toBeLessThan(0.045);
  }
});

describe.each([1, 3])('the truth of seed %i', (seed) => {
  let field: Field;
  beforeAll(() => {
    field = makeField(seed);
  });
  test('the outline is that of the contact on the reservoir as a hand draws it: now inside, now outside', () => {
    const ring = crestOutline(field);
    expect(ring).toHaveLength(73);
    expect(ring[0]).toEqual(ring[72]);
    const owc = field.contacts.Crest.owc as number;
    const { topU, topV } = field.traps.crest;
    let [inside, outside] = [0, 0];
    for (const [x, y] of ring.slice(1)) {
      const [u, v] = fromMap(x, y);
      const r = Math.hypot(u - topU, v - topV);
      // what stops the reservoir may be a fault, too
      const above = (by: number) => {
        const f = Math.max(0, (r + by) / r);
        return surfaceMet(columnAt(field, topU + f * (u - topU), topV + f * (v - topV)), 5) < owc;
      };
      expect(above(-70)).toBe(true);
      if (above(0)) inside++;
      else outside++;
    }
    expect(inside).toBeGreaterThan(14);
    expect(outside).toBeGreaterThan(14);
  });
  test('sticks lie on their faults within what a hand misses, in the time of their depth', () => {
    const sticks = faultSticks(field, field.structure.faults);
    expect(new Set(sticks.map((s) => s.fault)).size).toBeGreaterThanOrEqual(3);
    for (const s of sticks.filter((_, n) => n % 7 === 0)) {
      const fault = field.structure.faults.find((f) => f.name === s.fault);
      if (!fault) throw new Error(`there is no fault ${s.fault}`);
      const [u, v] = fromMap(s.x, s.y);
      const [n, t] = along(fault, u, v);
      const column = timeColumn(field, u, v);
      // the depth whose time the stick has
      let [low, high] = [100, 1700];
      for (let k = 0; k < 40; k++) {
        const z = 0.5 * (low + high);
        if (twtAt(column, z) < s.twt) low = z;
        else high = z;
      }
      expect(Math.abs(n - planeAt(fault, low, t))).toBeLessThan(26);
    }
  });
  test('volumes are sums of their parts, and of nothing below the contact', () => {
    const inside = insideRing(crestOutline(field));
    const [crest, , , outlined] = volumesOnColumns(field, inside, 100, 4);
    const parts = (v: Volume) => [
      v.grossRockVolume_m3,
      v.netRockVolume_m3,
      v.poreVolume_m3,
      v.hydrocarbonPoreVolume_m3,
    ];
    for (const v of [crest, outlined])
      parts(v).forEach((part, n, all) => {
        expect(part).toBeGreaterThan(0);
        if (n > 0) expect(part).toBeLessThan(all[n - 1]);
      });
    parts(outlined).forEach((part, n) => {
      expect(part).toBeLessThanOrEqual(parts(crest)[n]);
    });
    // nothing of the closure lies outside a ring that is everywhere
    const everywhere = volumesOnColumns(field, () => true, 100, 4);
    expect(everywhere[3].grossRockVolume_m3).toBeCloseTo(everywhere[0].grossRockVolume_m3, 3);
    expect(volumesOnColumns(field, () => false, 100, 4)[3].grossRockVolume_m3).toBe(0);
  });
  test('fluids lie in the order of their weight, brine below the contact', () => {
    const { topU, topV, topM } = field.traps.crest;
    const column = columnAt(field, topU, topV);
    const { goc, owc } = field.contacts.Crest;
    const point = emptyPoint();
    const order = { gas: 0, oil: 1, brine: 2 };
    let last = 0;
    for (let z = topM; z < topM + 120; z += 0.5) {
      pointAt(column, z, point);
      if (!point.net) continue;
      expect(order[point.fluid]).toBeGreaterThanOrEqual(last);
      last = order[point.fluid];
      if (owc !== null && z > owc) expect(point.fluid).toBe('brine');
      if (goc !== null && z < goc - 1) expect(point.fluid).toBe('gas');
      expect(point.water).toBeGreaterThan(0);
      expect(point.water).toBeLessThanOrEqual(1);
    }
    expect(last).toBeGreaterThan(0);
  });
});
