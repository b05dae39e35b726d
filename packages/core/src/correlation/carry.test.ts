import { describe, expect, test } from 'vitest';
import { normal } from '../testing/random.ts';
import { CARRY, type CarriedTop, carryTops, halfWavelength, type KnownTop } from './carry.ts';
import type { CorrelatedWell } from './wells.ts';

/** A column of formations, each with its own level in every curve and fine beds about it. */
interface Formation {
  name: string;
  thickM: number;
  levels: number[];
}

const COLUMN: Formation[] = [
  { name: 'A', thickM: 140, levels: [0.6, 1.4, -1.2] },
  { name: 'B', thickM: 60, levels: [0.9, 0.5, -0.4] },
  { name: 'C', thickM: 150, levels: [0.4, 0.2, 0.1] },
  { name: 'D', thickM: 45, levels: [-1.8, -0.5, -0.2] },
  { name: 'E', thickM: 120, levels: [0.5, -0.9, 0.9] },
];

/** The same beds in every well, `texture` of the fine ones; thickness and level differ a little from well to well. */
function drill(column: Formation[], seed: number, { shift = 0, texture = 0.25, vary = 0.1 } = {}) {
  const own = normal(seed);
  const curves: number[][] = [[], [], []];
  const tops: KnownTop[] = [];
  let depth = 1000 + shift;
  for (const f of column) {
    tops.push({ name: f.name, tvdss: depth });
    const fine = normal(f.name.charCodeAt(0));
    const thick = Math.round(f.thickM * (1 + vary * Math.max(-2, Math.min(2, own()))));
    const beds = f.levels.map(() => Array.from({ length: 40 }, () => fine()));
    for (let k = 0; k < thick; k++)
      for (const [c, level] of f.levels.entries())
        curves[c].push(level + texture * beds[c][Math.floor((40 * k) / thick)] + 0.08 * own());
    depth += thick;
  }
  const well: CorrelatedWell = { firstM: 1000 + shift, stepM: 1, curves: curves.map((c) => Float32Array.from(c)) };
  return { well, tops };
}

const carry = (reference: ReturnType<typeof drill>, target: CorrelatedWell) =>
  new Map(carryTops(reference.well, target, reference.tops, { ...CARRY, weights: [1, 1, 1] }).map((t) => [t.name, t]));
const without = (name: string) => COLUMN.filter((f) => f.name !== name);

describe('tops carried by the shape of curves', () => {
  test('fall where they are in wells of other thickness that lie higher or lower', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const reference = drill(COLUMN, 100 + seed);
      const target = drill(COLUMN, seed, { shift: 30 * seed - 100 });
      const found = carry(reference, target.well);
      // the first begins with the log, which holds it from one side only
      expect([...found.keys()]).toEqual(['B', 'C', 'D', 'E']);
      for (const top of target.tops.slice(1)) {
        const there = found.get(top.name) as CarriedTop;
        expect(there.absent).toBe(false);
        expect(Math.abs(there.tvdss - top.tvdss)).toBeLessThan(2);
        expect(there.confidence).toBeGreaterThan(0.25);
      }
    }
  });

  test.each([
    'B',
    'C',
    'D',
  ])('bed %s, thick or thin, is said missing where it is, and the others are placed', (name) => {
    for (let seed = 1; seed <= 4; seed++) {
      const reference = drill(COLUMN, 100 + seed);
      const target = drill(without(name), seed, { shift: 40 });
      const found = carry(reference, target.well);
      const gone = found.get(name) as CarriedTop;
      expect(gone.absent).toBe(true);
      expect(gone.missing).toBeGreaterThan(0.8);
      expect(gone.confidence).toBeGreaterThan(0.25);
      for (const top of target.tops.slice(1)) {
        const there = found.get(top.name) as CarriedTop;
        expect(there.absent).toBe(false);
        expect(Math.abs(there.tvdss - top.tvdss)).toBeLessThan(3);
      }
    }
  });

  test('a bed whose rock has changed is not taken for a missing one', () => {
    const changed = COLUMN.map((f) => (f.name === 'D' ? { ...f, levels: [-0.7, -0.1, 0.4] } : f));
    for (let seed = 1; seed <= 4; seed++) {
      const target = drill(changed, seed);
      const found = carry(drill(COLUMN, 100 + seed), target.well);
      const there = found.get('D') as CarriedTop;
      expect(there.absent).toBe(false);
      expect(Math.abs(there.tvdss - (target.tops[3]?.tvdss ?? 0))).toBeLessThan(2);
    }
  });

  test('a bed in quite other rock is neither said missing nor surely placed', () => {
    // as far from its own rock in every curve as any other bed is
    const other = COLUMN.map((f) => (f.name === 'D' ? { ...f, levels: [1.6, 1.2, 1.3] } : f));
    for (let seed = 1; seed <= 3; seed++) {
      const target = drill(other, seed, { vary: 0.03 });
      const found = carry(drill(COLUMN, 100 + seed, { vary: 0.03 }), target.well);
      const there = found.get('D') as CarriedTop;
      expect(there.absent).toBe(false);
      expect(there.missing).toBeGreaterThan(0.5);
      expect(there.confidence).toBeLessThan(0.25);
      expect(Math.abs(there.tvdss - (target.tops[3]?.tvdss ?? 0))).toBeLessThan(3);
    }
  });

  test('a bed among others like it is never placed where it is missing, and never missed where it is there', () => {
    const alike = COLUMN.map((f) => (f.name === 'B' ? { ...f, levels: [0.55, 0.9, -0.5] } : f));
    let said = 0;
    for (let seed = 1; seed <= 4; seed++) {
      const reference = drill(alike, 100 + seed);
      const there = carry(reference, drill(alike, seed).well).get('B') as CarriedTop;
      expect(there.missing).toBeLessThan(0.5);
      const gone = carry(
        reference,
        drill(
          alike.filter((f) => f.name !== 'B'),
          seed,
        ).well,
      ).get('B') as CarriedTop;
      expect(gone.missing).toBeGreaterThan(0.5);
      if (gone.absent) said++;
      else expect(gone.confidence).toBeLessThan(0.25);
    }
    expect(said).toBeGreaterThanOrEqual(3);
  });

  test('a bed thicker than what may be left out is placed, and not thought missing', () => {
    const thick = COLUMN.map((f) => (f.name === 'C' ? { ...f, thickM: CARRY.mostShiftM + 70 } : f));
    for (let seed = 1; seed <= 3; seed++) {
      const target = drill(thick, seed, { vary: 0.05 });
      const there = carry(drill(thick, 100 + seed, { vary: 0.05 }), target.well).get('C') as CarriedTop;
      expect(there.absent).toBe(false);
      expect(there.missing).toBeLessThan(0.5);
      expect(there.confidence).toBeGreaterThan(0.25);
      expect(Math.abs(there.tvdss - (target.tops[2]?.tvdss ?? 0))).toBeLessThan(2);
    }
  });

  test('where every place looks alike, nothing is sure', () => {
    const flat = COLUMN.map((f) => ({ ...f, levels: [0, 0, 0] }));
    const found = carry(drill(flat, 7, { texture: 0 }), drill(flat, 8, { texture: 0 }).well);
    for (const top of found.values()) expect(top.confidence).toBeLessThan(0.25);
  });

  test('of what lies beyond the end of a log nothing is said', () => {
    const reference = drill(COLUMN, 101);
    const { well } = drill(COLUMN, 1);
    const short = { ...well, curves: well.curves.map((c) => c.slice(0, 260)) };
    expect([...carry(reference, short).keys()]).toEqual(['B', 'C']);
  });

  test('a place half a wavelength of the curves away is another place', () => {
    const wave = Float32Array.from({ length: 600 }, (_, k) => Math.sin((2 * Math.PI * k) / 60));
    expect(halfWavelength([wave])).toBeGreaterThan(25);
    expect(halfWavelength([wave])).toBeLessThan(35);
  });
});
