import { describe, expect, test } from 'vitest';
import {
  archie,
  densityPorosity,
  effectivePorosity,
  indonesia,
  netFlag,
  neutronDensityPorosity,
  poreFill,
  quantile,
  raymerPorosity,
  shaleVolume,
  simandoux,
  wylliePorosity,
} from './petrophysics.ts';

describe('rock from logs', () => {
  test('shale volume: clean, half, shale, and never beyond', () => {
    expect([20, 75, 130, 160, 5].map((g) => shaleVolume(g, 20, 130))).toEqual([0, 0.5, 1, 1, 0]);
  });
  test('density porosity of quartz sand full of water: 2320 kg/m³ is 20 %', () => {
    expect(densityPorosity(2320, 2650, 1000)).toBeCloseTo(0.2, 12);
  });
  test('Archie: 20 % porosity, 0.05 ohm·m brine and 20 ohm·m rock hold 25 % water; wet rock holds all', () => {
    expect(archie(20, 0.2, 0.05)).toBeCloseTo(0.25, 12);
    expect(archie(1.25, 0.2, 0.05)).toBeCloseTo(1, 12);
    expect(archie(0.5, 0.2, 0.05)).toBe(1);
    expect(archie(20, 0, 0.05)).toBeNaN();
  });
  test('density and resistivity solved together give back the rock that they were made from', () => {
    const rock = { grain: 2650, hydrocarbon: 120, brine: 1030, waterOhmM: 0.06 };
    for (const [porosity, water] of [
      [0.28, 0.2],
      [0.15, 0.6],
      [0.3, 1],
    ]) {
      const bulk = (1 - porosity) * rock.grain + porosity * (water * rock.brine + (1 - water) * rock.hydrocarbon);
      const rt = rock.waterOhmM / (porosity ** 2 * water ** 2);
      const found = poreFill(bulk, rt, rock);
      expect(found.porosity).toBeCloseTo(porosity, 5);
      expect(found.water).toBeCloseTo(water, 5);
    }
  });
  test('tight rock holds nothing worth counting', () => {
    expect(poreFill(2650, 200, { grain: 2650, hydrocarbon: 800, brine: 1030, waterOhmM: 0.05 }).porosity).toBe(0);
  });
});

describe('shale volume by curved laws', () => {
  test.each([
    // each law at an index of 0.5, by hand
    ['linear', 0.5],
    ['Larionov, young rocks', 0.083 * (2 ** 1.85 - 1)],
    ['Larionov, old rocks', 0.33],
    ['Clavier', 1.7 - Math.sqrt(3.38 - 1.44)],
    ['Steiber', 0.25],
  ] as const)('%s', (law, half) => {
    expect(shaleVolume(75, 20, 130, law)).toBeCloseTo(half, 12);
    expect(shaleVolume(20, 20, 130, law)).toBeCloseTo(0, 2);
    expect(shaleVolume(130, 20, 130, law)).toBeCloseTo(1, 1);
    expect(shaleVolume(500, 20, 130, law)).toBeLessThanOrEqual(1);
  });
});

describe('porosity', () => {
  test('Wyllie: 250 µs/m in quartz (182) and brine (620) is 15.5 %', () => {
    expect(wylliePorosity(250, 182, 620)).toBeCloseTo(68 / 438, 12);
  });
  test('Raymer gives back the porosity that its velocity was made from', () => {
    for (const phi of [0, 0.05, 0.2, 0.3]) {
      const v = (1 - phi) ** 2 * 5500 + phi * 1600;
      expect(raymerPorosity(1 / v, 1 / 5500, 1 / 1600)).toBeCloseTo(phi, 12);
    }
    expect(raymerPorosity(1 / 100, 1 / 5500, 1 / 1600)).toBeNaN();
  });
  test('neutron and density: mean where they stand the usual way, more than the mean where gas crosses them', () => {
    expect(neutronDensityPorosity(0.3, 0.2)).toBeCloseTo(0.25, 12);
    expect(neutronDensityPorosity(0.1, 0.3)).toBeCloseTo(Math.sqrt(0.05), 12);
  });
  test('shale takes its bound water away, and never more than there is', () => {
    expect(effectivePorosity(0.25, 0.2, 0.15)).toBeCloseTo(0.22, 12);
    expect(effectivePorosity(0.05, 1, 0.15)).toBe(0);
  });
});

describe('saturation of shaly sand', () => {
  const e = { water: 0.05, shale: 2, a: 1, m: 2, n: 2 };
  test('without shale both are Archie', () => {
    for (const rt of [2, 20, 200]) {
      expect(simandoux(rt, 0.2, 0, e)).toBeCloseTo(archie(rt, 0.2, 0.05), 12);
      expect(indonesia(rt, 0.2, 0, e)).toBeCloseTo(archie(rt, 0.2, 0.05), 12);
    }
  });
  test('the resistivity that each makes of a saturation gives that saturation back', () => {
    const [phi, shale, water] = [0.22, 0.25, 0.4];
    const ofSimandoux = 1 / ((phi ** 2 / 0.05) * water ** 2 + (shale / 2) * water);
    expect(simandoux(ofSimandoux, phi, shale, e)).toBeCloseTo(water, 12);
    const root = (shale ** (1 - shale / 2) / Math.sqrt(2) + phi / Math.sqrt(0.05)) * water;
    expect(indonesia(1 / root ** 2, phi, shale, e)).toBeCloseTo(water, 12);
  });
  test('shale that conducts means less water than Archie says; tight rock says nothing', () => {
    expect(simandoux(5, 0.2, 0.3, e)).toBeLessThan(archie(5, 0.2, 0.05));
    expect(indonesia(5, 0.2, 0.3, e)).toBeLessThan(archie(5, 0.2, 0.05));
    expect(indonesia(5, 0, 0.3, e)).toBeNaN();
  });
});

test('net flags: shale, tight, wet and pay rock, and what is not known', () => {
  const cut = { mostShale: 0.4, leastPorosity: 0.08, mostWater: 0.6 };
  expect(netFlag(0.7, 0.2, 0.3, cut)).toBe(0);
  expect(netFlag(0.1, 0.05, 0.3, cut)).toBe(0);
  expect(netFlag(0.1, 0.2, 0.9, cut)).toBe(1);
  expect(netFlag(0.1, 0.2, 0.3, cut)).toBe(2);
  expect(netFlag(Number.NaN, 0.2, 0.3, cut)).toBeNaN();
});

test('a quantile leaves out what is null', () => {
  expect(quantile([Number.NaN, 3, 1, 2], 0.5)).toBe(2);
  expect(quantile([Number.NaN], 0.5)).toBeNaN();
});
