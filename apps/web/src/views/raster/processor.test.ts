import { mixed, primariesOf } from '@lithagon/core';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { colorMap } from '../../color/maps';
import type { FieldLook } from './field';
import { mixPictures, placesOf, shades } from './processor';

const look: FieldLook = { map: 'lichen', low: 0, high: 1, reverse: false };
const bytes = (word: number) => [word & 255, (word >> 8) & 255, (word >> 16) & 255, word >>> 24];
const colorAt = (n: number) => [...colorMap('lichen').subarray(3 * n, 3 * n + 3), 255];

describe('the colours of a look', () => {
  test('run from its low end to its high one, and the other way when reversed', () => {
    const plain = shades(look);
    expect(bytes(plain[0])).toEqual(colorAt(0));
    expect(bytes(plain[plain.length - 1])).toEqual(colorAt(255));
    expect(bytes(shades({ ...look, reverse: true })[0])).toEqual(colorAt(255));
  });
  test('stand in as many steps as are asked for', () => {
    expect(new Set(shades({ ...look, steps: 7 })).size).toBe(7);
  });
  test('let through what lies behind by their opacity', () => {
    expect(bytes(shades({ ...look, opacity: 0.4 })[500])[3]).toBe(102);
  });
});

describe('where pixels lie in a grid', () => {
  test('is where a map puts their middles, for any bin grid and window', () => {
    const size = fc.double({ min: 1, max: 900, noNaN: true });
    const turn = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(turn, size, size, fc.nat(19), fc.nat(29), (angle, wide, tall, px, py) => {
        const [rows, samples, width, height] = [7, 11, 20, 30];
        const along = [Math.cos(angle) * wide, Math.sin(angle) * wide];
        const across = [-Math.sin(angle) * tall, Math.cos(angle) * tall];
        const corners = [
          5,
          9,
          5 + along[0],
          9 + along[1],
          5 + along[0] + across[0],
          9 + along[1] + across[1],
          5 + across[0],
          9 + across[1],
        ];
        const window: [number, number, number, number] = [-30, 470, 300, -100];
        const places = placesOf({ corners, window, rows, samples }, width, height);
        if (!places) throw new Error('the corners enclose something');
        const k = places.sample[0] + px * places.sample[1] + py * places.sample[2];
        const r = places.row[0] + px * places.row[1] + py * places.row[2];
        const x = 5 + (k / (samples - 1)) * along[0] + (r / (rows - 1)) * across[0];
        const y = 9 + (k / (samples - 1)) * along[1] + (r / (rows - 1)) * across[1];
        expect(x).toBeCloseTo(-30 + ((px + 0.5) / width) * 500, 6);
        expect(y).toBeCloseTo(300 - ((py + 0.5) / height) * 400, 6);
      }),
      { seed: 5 },
    );
  });
  test('is nowhere where corners enclose nothing', () => {
    expect(placesOf({ corners: [0, 0, 1, 1, 2, 2, 1, 1], window: [0, 1, 1, 0], rows: 2, samples: 2 }, 4, 4)).toBeNull();
  });
});

describe('a picture of fields that are mixed', () => {
  /** A picture of one channel, as it is drawn: its part as a byte, 0 where there is none. */
  const channel = (...parts: (number | null)[]) =>
    Uint32Array.from(parts, (p) => (p === null ? 0 : ((255 << 24) | Math.round(255 * p)) >>> 0));
  const axes = 'blue, grey, amber';
  const mix = { more: [], ends: [], primaries: primariesOf(axes), strength: 0.7, lit: null };
  const parts: [number, number, number][] = [
    [0.2, 0.4, 0.8],
    [1, 0, 0.2],
    [0, 0, 0],
  ];
  const pictures = [0, 1, 2].map((c) => channel(...parts.map((p) => p[c])));

  test('has the colours that the science gives', () => {
    const shade = [0.2, 1, 0.6];
    const pixels = mixPictures([...pictures, channel(...shade)], mix);
    for (const [n, three] of parts.entries()) {
      const want = mixed(three, shade[n], { axes, strength: 0.7 }) as number[];
      for (const c of [0, 1, 2]) expect(Math.abs(pixels[4 * n + c] - 255 * want[c])).toBeLessThan(1.5);
      expect(pixels[4 * n + 3]).toBe(255);
    }
  });
  test('is empty where a channel is', () => {
    const [red, , blue] = pictures;
    expect([...mixPictures([red, channel(0.1, null, 0.1), blue], mix)].filter((_, n) => n % 4 === 3)).toEqual([
      255, 0, 255,
    ]);
  });
  test('pales what is not lit', () => {
    const plain = mixPictures(pictures, mix);
    const lit = mixPictures(pictures, { ...mix, lit: { at: [1, 0, 0.2], reach: 0.1 } });
    expect([...lit.subarray(4, 8)]).toEqual([...plain.subarray(4, 8)]);
    expect(lit[8]).toBeGreaterThan(150);
  });
});
