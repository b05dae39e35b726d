import fc from 'fast-check';
import { expect, test } from 'vitest';
import { loadKernels, type VarianceBlock, varianceBlock, varianceBlockTwin } from './index.ts';

const kernels = loadKernels();

const roomFor = ({ size: [i, j, k], radius, margin }: VarianceBlock) =>
  new Float32Array((i - 2 * radius) * (j - 2 * radius) * (k - 2 * margin));

test('the kernel gives what its plain twin gives, dead traces and samples included', () => {
  fc.assert(
    fc.property(
      fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 70 })),
      fc.integer({ min: 1, max: 4 }),
      fc.integer({ min: 0, max: 9 }),
      fc.integer({ min: 0, max: 9 }),
      fc.nat(),
      ([ni, nj, nk], radius, half, margin, seed) => {
        const size: [number, number, number] = [ni + 2 * radius, nj + 2 * radius, nk + 2 * margin];
        let state = seed;
        const next = () => {
          state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
          return state / 4294967296;
        };
        const traces = size[0] * size[1];
        const data = Float32Array.from({ length: traces * size[2] }, () =>
          next() < 0.97 ? next() * 2 - 1 : Number.NaN,
        );
        // most lines have no gaps
        for (let i = 0; i < size[0]; i++)
          if (next() < 0.6) for (let n = i * size[1] * size[2]; n < (i + 1) * size[1] * size[2]; n++) data[n] ||= 0.25;
        for (let n = 0; n < traces; n++) if (next() < 0.15) data.fill(Number.NaN, n * size[2], (n + 1) * size[2]);
        const block: VarianceBlock = { data, size, radius, half, margin, rows: [0, size[2]] };
        const [a, b] = [roomFor(block), roomFor(block)];
        varianceBlock(kernels, block, a);
        varianceBlockTwin(block, b);
        for (let n = 0; n < a.length; n++) {
          expect(Number.isNaN(a[n])).toBe(Number.isNaN(b[n]));
          if (!Number.isNaN(b[n])) expect(Math.abs(a[n] - b[n])).toBeLessThan(2e-5);
        }
      },
    ),
    { numRuns: 150, seed: 4 },
  );
});

test('alike traces have no variance, unlike ones the hand-worked amount', () => {
  const run = (values: number[]) => {
    const block: VarianceBlock = {
      data: Float32Array.from(values),
      size: [3, 3, 1],
      radius: 1,
      half: 0,
      margin: 0,
      rows: [0, 1],
    };
    const out = roomFor(block);
    varianceBlock(kernels, block, out);
    return out[0];
  };
  expect(run([3, 3, 3, 3, 3, 3, 3, 3, 3])).toBeCloseTo(0, 6);
  // eight ones and a ten: Σd² = 108, (Σd)² / 9 = 36
  expect(run([1, 1, 1, 1, 10, 1, 1, 1, 1])).toBeCloseTo((108 - 36) / 108, 6);
});

test('lengths that do not fit are refused by number', () => {
  const block: VarianceBlock = {
    data: new Float32Array(26),
    size: [3, 3, 3],
    radius: 1,
    half: 0,
    margin: 0,
    rows: [0, 3],
  };
  expect(() => varianceBlock(kernels, block, new Float32Array(3))).toThrow('3 × 3 × 3 has not 26 samples');
  const whole = { ...block, data: new Float32Array(27) };
  expect(() => varianceBlock(kernels, whole, new Float32Array(4))).toThrow('1 × 1 × 3 samples are wanted, not 4');
});
