import { describe, expect, test } from 'vitest';
import { archie, densityPorosity, poreFill, shaleVolume } from './petrophysics.ts';

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
