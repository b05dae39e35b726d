import { describe, expect, test } from 'vitest';
import type { Lattice } from '../earth/lattice.ts';
import { insideRings } from '../numerics/rings.ts';
import { contactsFromPressures } from './contacts.ts';
import { hydrocarbonThickness, inPlace, type Rock } from './inPlace.ts';

const N = 121;
const BIN = 25;
const axis = { first: 0, step: 1, count: N };
const lattice: Lattice = { inline: axis, crossline: axis, origin: [0, 0], perInline: [0, BIN], perCrossline: [BIN, 0] };
const surface = (f: (x: number, y: number) => number) =>
  Float32Array.from({ length: N * N }, (_, n) => f((n % N) * BIN - 1500, Math.floor(n / N) * BIN - 1500));
const rock: Rock = {
  netToGross: 0.8,
  porosity: 0.25,
  waterInOil: 0.3,
  waterInGas: 0.2,
  oilFactor: 1.25,
  gasFactor: 0.01,
};
const everywhere = () => true;

describe('volumes against closed forms', () => {
  test('a paraboloid dome cut by a contact, to a thousandth', () => {
    // top = 1000 + r²/8000; above 1100 m the cap has volume π·R⁴/(2·8000)·… = π·a·h²/2 with a = 8000
    const top = surface((x, y) => 1000 + (x * x + y * y) / 8000);
    const base = surface(() => 3000);
    const v = inPlace(lattice, top, base, everywhere, { goc: null, owc: 1100 }, rock);
    const exact = (Math.PI * 8000 * 100 ** 2) / 2;
    expect(Math.abs(v.grossRock / exact - 1)).toBeLessThan(1e-3);
    expect(v.oil).toBeCloseTo((v.grossRock * 0.8 * 0.25 * 0.7) / 1.25, 3);
    expect(v.gas).toBe(0);
  });
  test('gas over oil: the parts add up, each to its own closed form', () => {
    const top = surface((x, y) => 1000 + (x * x + y * y) / 8000);
    const v = inPlace(
      lattice,
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
    const v = inPlace(lattice, top, base, insideRings([ring]), { goc: null, owc: 5000 }, rock);
    expect(Math.abs(v.grossRock / (1510 * 1490 * 50) - 1)).toBeLessThan(0.004);
  });
  test('hydrocarbon thickness sums to the hydrocarbon pore volume, and is nothing outside the area', () => {
    const top = surface((x, y) => 1000 + (x * x + y * y) / 20000);
    const base = surface((x, y) => 1060 + (x * x + y * y) / 20000);
    const contacts = { goc: 1020, owc: 1070 };
    const v = inPlace(lattice, top, base, everywhere, contacts, rock);
    const thick = hydrocarbonThickness(lattice, top, base, everywhere, contacts, rock);
    const sum = thick.reduce((a, b) => a + b, 0) * BIN * BIN;
    expect(Math.abs(sum / v.hydrocarbonPore - 1)).toBeLessThan(2e-3);
    const middle = 60 * N + 60;
    expect(thick[middle]).toBeCloseTo(0.8 * 0.25 * (20 * 0.8 + 40 * 0.7), 3);
    expect(hydrocarbonThickness(lattice, top, base, () => false, contacts, rock)[middle]).toBeNaN();
  });
  test('what is missing is counted, not guessed', () => {
    const top = surface(() => 1000);
    top[60 * N + 60] = Number.NaN;
    const v = inPlace(
      lattice,
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
  test('gas, oil and water are parted where their gradients meet', () => {
    const fit = contactsFromPressures(points(column(1013, 1067), 980, 1085, 2000), { gas: 120, oil: 780, water: 1030 });
    expect(Math.abs((fit?.goc ?? 0) - 1013)).toBeLessThan(1.5);
    expect(Math.abs((fit?.owc ?? 0) - 1067)).toBeLessThan(2.5);
    expect(fit?.owcRange[0]).toBeLessThanOrEqual(1067.5);
    expect(fit?.owcRange[1]).toBeGreaterThanOrEqual(1066.5);
  });
  test('oil alone over water', () => {
    const fit = contactsFromPressures(points(column(null, 1050), 1000, 1080, 500), {
      gas: null,
      oil: 780,
      water: 1030,
    });
    expect(fit?.goc).toBeNull();
    expect(Math.abs((fit?.owc ?? 0) - 1050)).toBeLessThan(1.5);
  });
  test('too few pressures say nothing', () => {
    expect(contactsFromPressures([{ z: 1, p: 1 }], { gas: null, oil: 780, water: 1030 })).toBeNull();
  });
});
