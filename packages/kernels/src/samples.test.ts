import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cutSlices, floatsOf, ibmOf, ibmTwin, LANES, loadKernels, mixWords, mixWordsTwin, sums } from './index.ts';

const kernels = loadKernels();
const word = fc.integer({ min: -(2 ** 31), max: 2 ** 31 - 1 });
const words = fc.array(word, { maxLength: 40 }).map((w) => Int32Array.from(w));
const bitsOf = (out: Float32Array) => [...new Int32Array(out.buffer)];
const whole = (w: Int32Array) => ({ traces: 1, stride: w.length, count: w.length });
const turnRound = (w: Int32Array) => {
  const out = w.slice();
  const bytes = new Uint8Array(out.buffer);
  for (let n = 0; n < bytes.length; n += 4) bytes.subarray(n, n + 4).reverse();
  return out;
};

describe('samples of a file', () => {
  test('IEEE floats keep every bit, turned round or not', () => {
    fc.assert(
      fc.property(words, fc.boolean(), (w, turn) => {
        const out = new Float32Array(w.length);
        floatsOf(kernels, turn ? turnRound(w) : w, whole(w), turn, out, 0);
        expect(bitsOf(out)).toEqual([...w]);
      }),
      { seed: 1 },
    );
  });
  test('IBM floats are the nearest float32, by hand-worked words', () => {
    // 0xC276A000 is −118.625 (the standard’s own example); 1 is 0x41100000
    const w = Int32Array.from([0xc276a000, 0x41100000, 0, 0x80000000, 0x7fffffff, 0x00000001, 0x46ffffff]);
    const out = new Float32Array(w.length);
    ibmOf(kernels, w, whole(w), false, out, 0);
    expect([...out.subarray(0, 2)]).toEqual([-118.625, 1]);
    expect(Object.is(out[2], 0)).toBe(true);
    expect(Object.is(out[3], -0)).toBe(true);
    expect(out[4]).toBe(Number.POSITIVE_INFINITY);
    expect(out[5]).toBe(0);
    expect(out[6]).toBe(16777215);
  });
  test('IBM floats of any bits are what arithmetic in doubles gives, rounded once', () => {
    fc.assert(
      fc.property(words, fc.boolean(), (w, turn) => {
        const [a, b] = [new Float32Array(w.length), new Float32Array(w.length)];
        ibmOf(kernels, w, whole(w), turn, a, 0);
        ibmTwin(w, turn, b, 0);
        expect(bitsOf(a)).toEqual(bitsOf(b));
      }),
      { seed: 2, numRuns: 400 },
    );
  });
  test('a long run is taken whole, to where it is wanted', () => {
    const w = Int32Array.from({ length: 40001 }, (_, n) => n * 71);
    const out = new Float32Array(40003);
    floatsOf(kernels, turnRound(w), whole(w), true, out, 2);
    expect(bitsOf(out).join()).toEqual([0, 0, ...w].join());
  });
  test('traces of any length are taken out from between their headers, and nothing else is', () => {
    const run = fc.record({
      traces: fc.integer({ min: 1, max: 30 }),
      count: fc.oneof(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 9000, max: 20000 })),
      header: fc.integer({ min: 0, max: 70 }),
    });
    fc.assert(
      fc.property(run, fc.boolean(), ({ traces, count, header }, turn) => {
        const stride = count + header;
        // headers that are no float32 as IBM floats are not taken for samples
        const w = Int32Array.from({ length: traces * stride - header }, (_, n) =>
          n % stride < count ? 0x41100000 + n : 0x7f7f7f7f,
        );
        const file = turn ? turnRound(w) : w;
        const expected = Int32Array.from(
          { length: traces * count },
          (_, n) => w[Math.floor(n / count) * stride + (n % count)],
        );
        const [ieee, ibm] = [new Float32Array(traces * count + 2), new Float32Array(traces * count + 2)];
        floatsOf(kernels, file, { traces, stride, count }, turn, ieee, 1);
        expect(bitsOf(ieee).join()).toBe([0, ...expected, 0].join());
        ibmOf(kernels, file, { traces, stride, count }, turn, ibm, 1);
        const twin = new Float32Array(traces * count + 2);
        ibmTwin(expected, false, twin, 1);
        expect(bitsOf(ibm).join()).toBe(bitsOf(twin).join());
      }),
      { seed: 7, numRuns: 60 },
    );
  });
});

describe('sums over samples', () => {
  test('are those of a plain loop, nulls counted and infinities left out', () => {
    const sample = fc.oneof(
      { weight: 60, arbitrary: fc.float({ min: -1e6, max: 1e6, noNaN: true }) },
      fc.constantFrom(Number.NaN, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY),
    );
    fc.assert(
      fc.property(fc.array(sample, { maxLength: 90 }), (list) => {
        const data = Float32Array.from(list);
        const finite = [...data].filter(Number.isFinite);
        const found = sums(kernels, data);
        expect(found.count).toBe(finite.length);
        expect(found.nulls).toBe([...data].filter(Number.isNaN).length);
        expect(found.sum).toBeCloseTo(
          finite.reduce((a, b) => a + b, 0),
          3,
        );
        const squares = finite.reduce((a, b) => a + b * b, 0);
        expect(Math.abs(found.squares - squares)).toBeLessThanOrEqual(1e-9 * squares);
        if (finite.length === 0) return;
        expect(found.min).toBe(Math.min(...finite));
        expect(found.max).toBe(Math.max(...finite));
      }),
      { seed: 3 },
    );
  });
  test('reach over blocks', () => {
    const data = Float32Array.from({ length: 50001 }, (_, n) => n - 7);
    expect(sums(kernels, data)).toMatchObject({ count: 50001, nulls: 0, min: -7, max: 49993 });
    expect(sums(kernels, data).sum).toBe((50001 * (49993 - 7)) / 2);
  });
});

test('an inline is cut so that every piece holds its samples trace by trace, and NaN past the last', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 9 }),
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 11 }),
      (traces, samples, thick) => {
        const line = Float32Array.from({ length: traces * samples }, (_, n) => n);
        const { pieces, length } = cutSlices(kernels, line, traces, thick);
        expect(length).toBe(traces * thick);
        for (let n = 0; n < pieces.length; n++) {
          const k = Math.floor(n / length) * thick + (n % thick);
          const j = Math.floor((n % length) / thick);
          if (k < samples) expect(pieces[n]).toBe(j * samples + k);
          else expect(pieces[n]).toBeNaN();
        }
      },
    ),
    { seed: 4 },
  );
});

test('words are mixed as the plain way mixes them, in one go or in parts', () => {
  const sixteens = fc
    .integer({ min: 0, max: 6 })
    .chain((n) => fc.uint32Array({ minLength: 16 * n, maxLength: 16 * n }));
  fc.assert(
    fc.property(sixteens, sixteens, (a, b) => {
      const [one, two] = [0, 1].map(() => Int32Array.from({ length: LANES }, (_, n) => 7919 * n - 5));
      mixWords(kernels, one, a);
      mixWords(kernels, one, b);
      mixWordsTwin(two, Uint32Array.from([...a, ...b]));
      expect([...one]).toEqual([...two]);
    }),
    { seed: 6 },
  );
});
