import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { unitsOf } from './display.ts';
import { factor } from './units.ts';

const METRIC = unitsOf({ display: 'metric' });
const FIELD = unitsOf({ display: 'field' });
const KEPT = ['m', 'm TVDSS', 'm MD', 'm/s', 'us/m', 'kg/m3', 'kg/m²s', 'Pa', 'm²', 'm³', 'Sm³ oil', 'Sm³ gas'];

describe('units on the screen', () => {
  test('without a frame and in a metric project are those that are kept, but for pressure', () => {
    for (const units of [unitsOf(null), METRIC]) {
      expect(units.text(25.4e6, 'Pa')).toBe('25.4 MPa');
      for (const unit of KEPT.filter((u) => u !== 'Pa')) {
        expect(units.of(unit)).toBe({ 'us/m': 'µs/m', 'kg/m3': 'kg/m³' }[unit] ?? unit);
        expect(units.to(12.5, unit)).toBe(12.5);
      }
    }
  });
  test.each([
    // NIST Special Publication 811 (2008), Appendix B; acres by the international foot
    ['m', 0.3048, 'ft', 1],
    ['m/s', 0.3048, 'ft/s', 1],
    ['m²', 4046.856, 'acre', 1],
    ['m³', 1233.482, 'acre-ft', 1],
    ['Sm³ oil', 0.1589873, 'stb', 1],
    ['Sm³ gas', 0.02831685, 'scf', 1],
    ['Pa', 6894.757, 'psi', 1],
    ['kg/m3', 1000, 'g/cm³', 1],
    ['us/m', 328.084, 'µs/ft', 100],
    // 1 ft/s of 1 g/cm³
    ['kg/m²s', 304.8, 'ft/s·g/cm³', 1],
  ])('of the field: %s %d is one %s', (kept, value, shown, one) => {
    expect(FIELD.of(kept)).toBe(shown);
    expect(FIELD.to(value, kept) / one).toBeCloseTo(1, 5);
  });
  test('agree with the factors by which files are read', () => {
    for (const [kept, shown] of [
      ['m', 'ft'],
      ['m/s', 'ft/s'],
      ['us/m', 'us/ft'],
      ['Pa', 'psi'],
    ])
      expect(FIELD.to(1, kept)).toBeCloseTo(factor(kept, shown), 12);
  });
  test('there and back a value is itself', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e9, max: 1e9 }), fc.constantFrom(...KEPT), (value, unit) => {
        const back = FIELD.from(FIELD.to(value, unit), unit);
        expect(Math.abs(back - value)).toBeLessThanOrEqual(1e-12 * Math.abs(value));
      }),
      { seed: 12 },
    );
  });
  test('what has no unit of the field is shown as it is kept, and a name from a file is no way in', () => {
    for (const unit of ['ms', '1', '', 'gAPI', '__proto__', 'constructor']) {
      expect(FIELD.of(unit)).toBe(unit);
      expect(FIELD.to(3, unit)).toBe(3);
    }
  });
  test('text has its places, a typographic minus, and nothing after a number without unit', () => {
    expect(FIELD.text(-100, 'm', 1)).toBe('−328.1 ft');
    expect(METRIC.text(2.25, 'm')).toBe('2.3 m');
    expect(METRIC.text(7, '', 0)).toBe('7');
  });
});
