import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { canonicalJson, hasher } from './hash.ts';

const of = (...words: number[]) => hasher().words(Uint32Array.from(words)).digest();
const bitsOf = (digest: string) => [...BigInt(`0x${digest}`).toString(2).padStart(128, '0')];

describe('a hash of contents', () => {
  test('is 128 bits, the same for the same, and another for a word more, less or moved', () => {
    expect(of(1, 2, 3)).toMatch(/^[0-9a-f]{32}$/);
    expect(of(1, 2, 3)).toBe(of(1, 2, 3));
    const all = [of(), of(0), of(0, 0), of(1, 2, 3), of(1, 2), of(1, 3, 2), of(1, 2, 3, 0), of(2, 1, 3)];
    expect(new Set(all).size).toBe(all.length);
  });
  test('goes the same way whether words are few, which are mixed plainly, or many, which a kernel mixes', () => {
    // either side of the length at which the kernel takes over, and of a whole number of lanes
    for (const length of [15, 16, 17, 255, 256, 257, 300, 4096, 4099]) {
      const words = Uint32Array.from({ length }, (_, n) => Math.imul(n, 2654435761));
      const digest = hasher().words(words).digest();
      expect(hasher().words(words.slice()).digest()).toBe(digest);
      for (const n of [0, length >> 1, length - 1]) {
        const other = words.slice();
        other[n] ^= 1;
        expect(hasher().words(other).digest()).not.toBe(digest);
      }
    }
  });
  test('turns about half of its bits over for one bit of any word', () => {
    let [turned, count] = [0, 0];
    for (let length = 1; length <= 64; length += 7)
      for (let bit = 0; bit < 32; bit += 3) {
        const words = Uint32Array.from({ length }, (_, n) => 7 * n + length);
        const before = bitsOf(hasher().words(words).digest());
        words[length >> 1] ^= 1 << bit;
        const after = bitsOf(hasher().words(words).digest());
        const differ = after.filter((b, n) => b !== before[n]).length;
        expect(differ).toBeGreaterThan(32);
        turned += differ;
        count += 128;
      }
    expect(turned / count).toBeGreaterThan(0.47);
    expect(turned / count).toBeLessThan(0.53);
  });
  test('has no two the same among many that differ little', () => {
    const seen = new Set<string>();
    for (let n = 0; n < 20_000; n++) seen.add(of(n >> 8, n & 255, 0, 0, 0));
    expect(seen.size).toBe(20_000);
  });
  test('of texts tells where one ends and the next begins', () => {
    expect(hasher().text('ab').text('c').digest()).not.toBe(hasher().text('a').text('bc').digest());
    fc.assert(
      fc.property(fc.string(), fc.string(), (a, b) => {
        expect(hasher().text(a).digest() === hasher().text(b).digest()).toBe(a === b);
      }),
      { seed: 31 },
    );
  });
});

test('JSON is the same for equal values, whatever order their keys were written in', () => {
  expect(canonicalJson({ b: [1, { d: 2, c: 'x' }], a: null })).toBe(
    canonicalJson({ a: null, b: [1, { c: 'x', d: 2 }] }),
  );
  expect(canonicalJson({ a: undefined, b: 1 })).toBe(canonicalJson({ b: 1 }));
  expect(canonicalJson([1, 2])).not.toBe(canonicalJson([2, 1]));
});
