import fc from 'fast-check';
import { expect, test } from 'vitest';
import { loadKernels, type VarianceLine, varianceLine, varianceLineTwin } from './index.ts';

const kernels = loadKernels();

test('the kernel gives what its plain twin gives, dead traces included', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 9 }),
      fc.integer({ min: 1, max: 70 }),
      fc.integer({ min: 1, max: 2 }),
      fc.integer({ min: 0, max: 9 }),
      fc.nat(),
      (traces, samples, radius, half, seed) => {
        const width = traces + 2 * radius;
        const count = (2 * radius + 1) * width;
        let state = seed;
        const next = () => {
          state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
          return state / 4294967296;
        };
        const data = Float32Array.from({ length: count * samples }, () => next() * 2 - 1);
        const live = Uint8Array.from({ length: count }, () => (next() < 0.85 ? 1 : 0));
        const line: VarianceLine = { data, live, traces, samples, radius, half };
        const a = new Float32Array(traces * samples);
        const b = new Float32Array(traces * samples);
        varianceLine(kernels, line, a);
        varianceLineTwin(line, b);
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
    const out = new Float32Array(1);
    varianceLine(
      kernels,
      { data: Float32Array.from(values), live: new Uint8Array(9).fill(1), traces: 1, samples: 1, radius: 1, half: 0 },
      out,
    );
    return out[0];
  };
  expect(run([3, 3, 3, 3, 3, 3, 3, 3, 3])).toBeCloseTo(0, 6);
  // eight ones and a ten: Σd² = 108, (Σd)² / 9 = 36
  expect(run([1, 1, 1, 1, 10, 1, 1, 1, 1])).toBeCloseTo((108 - 36) / 108, 6);
});
