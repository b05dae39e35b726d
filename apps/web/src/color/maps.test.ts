import { describe, expect, test } from 'vitest';
import { COLOR_MAPS, colorMap, gradientOf } from './maps';

/** Lightness (CIE 1976) of an sRGB colour: a measure that the maps were not built with. */
function lightness(r: number, g: number, b: number): number {
  const linear = [r, g, b].map((v) => (v <= 10.31475 ? v / 3294.6 : ((v / 255 + 0.055) / 1.055) ** 2.4));
  const y = 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2];
  return y > 0.008856 ? 116 * Math.cbrt(y) - 16 : 903.3 * y;
}

const lightnesses = (name: (typeof COLOR_MAPS)[number]) => {
  const map = colorMap(name);
  return Array.from({ length: 256 }, (_, n) => lightness(map[3 * n], map[3 * n + 1], map[3 * n + 2]));
};

describe('colour maps', () => {
  test.each(['ink', 'ember'] as const)('%s only grows lighter', (name) => {
    const l = lightnesses(name);
    for (let n = 4; n < 256; n += 4) expect(l[n]).toBeGreaterThan(l[n - 4]);
  });
  test.each(['lichen', 'strata'] as const)('%s only grows darker', (name) => {
    const l = lightnesses(name);
    for (let n = 4; n < 256; n += 4) expect(l[n]).toBeLessThan(l[n - 4]);
  });
  test('rust–bone–slate is lightest in its middle, slate low and rust high', () => {
    const map = colorMap('rust–bone–slate');
    const l = lightnesses('rust–bone–slate');
    expect(Math.abs(l.indexOf(Math.max(...l)) - 127.5)).toBeLessThan(4);
    expect(map[2]).toBeGreaterThan(map[0]);
    expect(map[3 * 255]).toBeGreaterThan(map[3 * 255 + 2]);
  });
  test('compass closes on itself and keeps its lightness', () => {
    const map = colorMap('compass');
    for (let c = 0; c < 3; c++) expect(Math.abs(map[c] - map[3 * 255 + c])).toBeLessThan(4);
    const l = lightnesses('compass');
    expect(Math.max(...l) - Math.min(...l)).toBeLessThan(9);
  });
  test('gradients reverse', () => {
    for (const name of COLOR_MAPS) {
      const stops = (css: string) => css.match(/rgb\([^)]*\)/g);
      expect(stops(gradientOf(name, 'to right', true))).toEqual(stops(gradientOf(name))?.reverse());
    }
  });
});
