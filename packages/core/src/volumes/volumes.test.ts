import { describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import { insideRings } from '../numerics/rings.ts';
import { normal } from '../testing/random.ts';
import { contactsFromPressures } from './contacts.ts';
import { hydrocarbonThickness, inPlace, type Rock } from './inPlace.ts';

const N = 121;
const BIN = 25;
const axis = { first: 0, step: 1, count: N };
const binGrid: BinGrid = { inline: axis, crossline: axis, origin: [0, 0], perInline: [0, BIN], perCrossline: [BIN, 0] };
const surface = (f: (x: number, y: number) => number) =>
  Float32Array.from({ length: N * N }, (_, n) => f((n % N) * BIN - 1500, Math.floor(n / N) * BIN - 1500));
const rock: Rock = {
  gas: { netToGross: 0.8, porosity: 0.25, water: 0.2 },
  oil: { netToGross: 0.8, porosity: 0.25, water: 0.3 },
  oilFactor: 1.25,
  gasFactor: 0.01,
};
const everywhere = () => true;

describe('volumes against closed forms', () => {
  test('a paraboloid dome cut by a contact, to a thousandth', () => {
    // top = 1000 + r²/8000; above 1100 m the cap has volume π·R⁴/(2·8000)·… = π·a·h²/2 with a = 8000
    const top = surface((x, y) => 1000 + (x * x + y * y) / 8000);
    const base = surface(() => 3000);
    const v = inPlace(binGrid, top, base, everywhere, { goc: null, owc: 1100 }, rock);
    const exact = (Math.PI * 8000 * 100 ** 2) / 2;
    expect(Math.abs(v.grossRock / exact - 1)).toBeLessThan(1e-3);
    expect(v.oil).toBeCloseTo((v.grossRock * 0.8 * 0.25 * 0.7) / 1.25, 3);
    expect(v.gas).toBe(0);
  });
  test('gas over oil: the parts add up, each to its own closed form', () => {
    const top = surface((x, y) => 1000 + (x * x + y * y) / 8000);
    const v = inPlace(
      binGrid,
      top,
      surface(() => 3000),
      everywhere,
      { goc: 1040, owc: 1100 },
      rock,
    );
    expect(v.grossGas / ((Math.PI * 8000 * 40 ** 2) / 2)).toBeCloseTo(1, 2);
    expect(v.grossGas + v.grossOil).toBeCloseTo(v.grossRock, 3);
  });
  test('a tilted plane over a flat base, cut by an area half way through bins', () => {
    const top = surface((x) => 1000 + 0.05 * (x + 1500));
    const base = surface((x) => 1050 + 0.05 * (x + 1500));
    const ring: [number, number][] = [
      [500.0, 500.0],
      [2010, 500],
      [2010, 1990],
      [500, 1990],
      [500, 500],
    ];
    const v = inPlace(binGrid, top, base, insideRings([ring]), { goc: null, owc: 5000 }, rock);
    expect(Math.abs(v.grossRock / (1510 * 1490 * 50) - 1)).toBeLessThan(0.004);
  });
  test('hydrocarbon thickness sums to the hydrocarbon pore volume, and is nothing outside the area', () => {
    const top = surface((x, y) => 1000 + (x * x + y * y) / 20000);
    const base = surface((x, y) => 1060 + (x * x + y * y) / 20000);
    const contacts = { goc: 1020, owc: 1070 };
    const v = inPlace(binGrid, top, base, everywhere, contacts, rock);
    const thick = hydrocarbonThickness(binGrid, top, base, everywhere, contacts, rock);
    const sum = thick.reduce((a, b) => a + b, 0) * BIN * BIN;
    expect(Math.abs(sum / v.hydrocarbonPore - 1)).toBeLessThan(2e-3);
    const middle = 60 * N + 60;
    expect(thick[middle]).toBeCloseTo(0.8 * 0.25 * (20 * 0.8 + 40 * 0.7), 3);
    expect(hydrocarbonThickness(binGrid, top, base, () => false, contacts, rock)[middle]).toBeNaN();
  });
  test('what is missing is counted, not guessed', () => {
    const top = surface(() => 1000);
    top[60 * N + 60] = Number.NaN;
    const v = inPlace(
      binGrid,
      top,
      surface(() => 1010),
      everywhere,
      { goc: null, owc: 2000 },
      rock,
    );
    expect(v.missing).toBeCloseTo(4, 6);
  });
});

describe('contacts from pressures', () => {
  const G = 9.80665;
  const column = (goc: number | null, owc: number) => (z: number) => {
    const water = 1e5 + 1030 * G * z;
    if (z > owc) return water;
    const atOwc = 1e5 + 1030 * G * owc;
    if (goc === null || z > goc) return atOwc - 780 * G * (owc - z);
    return atOwc - 780 * G * (owc - goc) - 120 * G * (goc - z);
  };
  const points = (f: (z: number) => number, from: number, to: number, noise: number) =>
    Array.from({ length: 24 }, (_, n) => {
      const z = from + ((to - from) * n) / 23;
      return { z, p: f(z) + noise * Math.sin(n * 7.3) };
    });
  const known = (gas: number | null, oil: number | null, water: number | null) => ({
    density: { gas, oil, water },
    densityError: 10,
    pressureError: 1000,
  });
  const ALL = known(120, 780, 1030);
  test('gas, oil and water are parted where their gradients meet', () => {
    const fit = contactsFromPressures(points(column(1013, 1067), 980, 1085, 2000), ALL);
    expect(fit?.fluids).toEqual(['gas', 'oil', 'water']);
    expect(Math.abs((fit?.gasOil?.z ?? 0) - 1013)).toBeLessThan(1.5);
    expect(Math.abs((fit?.base?.z ?? 0) - 1067)).toBeLessThan(2.5);
    for (const [c, truth] of [
      [fit?.gasOil, 1013],
      [fit?.base, 1067],
    ] as const) {
      expect(c?.kind).toBe('seen');
      expect(c?.range[0]).toBeLessThanOrEqual(truth);
      expect(c?.range[1]).toBeGreaterThanOrEqual(truth);
    }
  });
  test('oil alone over water: no gas is made up, though its density is known', () => {
    const fit = contactsFromPressures(points(column(null, 1050), 1000, 1080, 500), ALL);
    expect(fit?.fluids).toEqual(['oil', 'water']);
    expect(fit?.gasOil).toBeNull();
    expect(Math.abs((fit?.base?.z ?? 0) - 1050)).toBeLessThan(1.5);
  });
  test('oil points alone give no contact, but the depth at or below which it lies', () => {
    const fit = contactsFromPressures(points(column(null, 1100), 980, 1060, 500), ALL);
    expect(fit?.fluids).toEqual(['oil']);
    expect(fit?.base).toEqual({ z: 1060, range: [1060, Number.POSITIVE_INFINITY], kind: 'at or below' });
    expect(fit?.gasOil).toBeNull();
  });
  test('against water that is assumed they give one, and its range holds the truth', () => {
    const fit = contactsFromPressures(points(column(null, 1100), 980, 1060, 500), { ...ALL, assumedWaterPa: 1e5 });
    expect(fit?.base?.kind).toBe('assumed');
    expect(Math.abs((fit?.base?.z ?? 0) - 1100)).toBeLessThan(15);
    expect(fit?.base?.range[0]).toBeLessThan(1100);
    expect(fit?.base?.range[1]).toBeGreaterThan(1100);
  });
  test('gas on water, gas on oil without water, and water alone', () => {
    const gasWater = (z: number) => (z > 1040 ? 1e5 + 1030 * G * z : 1e5 + 1030 * G * 1040 - 120 * G * (1040 - z));
    const fit = contactsFromPressures(points(gasWater, 1000, 1080, 500), ALL);
    expect(fit?.fluids).toEqual(['gas', 'water']);
    expect(Math.abs((fit?.base?.z ?? 0) - 1040)).toBeLessThan(1);
    const gasOil = contactsFromPressures(points(column(1013, 1200), 980, 1060, 500), ALL);
    expect(gasOil?.fluids).toEqual(['gas', 'oil']);
    expect(Math.abs((gasOil?.gasOil?.z ?? 0) - 1013)).toBeLessThan(1.5);
    expect(gasOil?.base).toMatchObject({ z: 1060, kind: 'at or below' });
    const water = contactsFromPressures(points(column(null, 900), 980, 1060, 500), ALL);
    expect(water).toMatchObject({ fluids: ['water'], base: null, gasOil: null });
  });
  test('an error of the densities is in the range: it holds the truth 90 times in 100 and more', () => {
    const next = normal(11);
    let [held, widths] = [0, 0];
    const draws = 60;
    for (let n = 0; n < draws; n++) {
      const made = Array.from({ length: 14 }, (_, k) => {
        const z = 1000 + 8 * k;
        return { z, p: column(null, 1062)(z) + 3000 * next() };
      });
      const off = 25;
      const fit = contactsFromPressures(made, {
        density: { gas: null, oil: 780 + off * next(), water: 1030 + off * next() },
        densityError: off,
        pressureError: 3000,
      });
      const range = fit?.base?.kind === 'seen' ? fit.base.range : [0, 0];
      if (range[0] <= 1062 && range[1] >= 1062) held++;
      widths += range[1] - range[0];
    }
    expect(held / draws).toBeGreaterThan(0.9);
    // and is no range that says nothing
    expect(widths / draws).toBeLessThan(40);
  });
  test('too few points give nothing', () => {
    expect(contactsFromPressures([{ z: 1, p: 1 }], ALL)).toBeNull();
    expect(contactsFromPressures(points(column(null, 1050), 1000, 1080, 0), known(null, null, null))).toBeNull();
  });
});
