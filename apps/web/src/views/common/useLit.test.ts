import { describe, expect, test } from 'vitest';
import { litSamples } from './useLit';

const RING: [number, number][] = [
  [0, 0],
  [10, 0],
  [10, 10],
  [0, 10],
];
const TEST = { x: 'a', y: 'b', xLog: false, yLog: false, ring: RING, top: '', base: '', from: 0, to: 100, limits: [] };
const held = (more: object = {}) => ({
  x: Float32Array.of(5, 5, 50, 5),
  y: Float32Array.of(5, 50, 5, 5),
  further: [],
  vertical: (n: number) => 40 * n,
  place: (n: number) => n,
  top: null,
  base: null,
  ...more,
});
const passed = (data: Float32Array) => [...data.keys()].filter((n) => data[n] === 1);

describe('samples that a crossplot lights up', () => {
  test('lie in the ring and between the bounds', () => {
    expect(passed(litSamples(TEST, held()))).toEqual([0]);
    expect(passed(litSamples({ ...TEST, to: 200 }, held()))).toEqual([0, 3]);
    expect(passed(litSamples({ ...TEST, top: 'h', to: 200 }, held({ top: [10, 10, 10, Number.NaN] })))).toEqual([]);
    expect(passed(litSamples({ ...TEST, top: 'h', to: 200 }, held({ top: [-1, 0, 0, 0] })))).toEqual([0, 3]);
  });
  test('have decimal logarithms on axes that are logarithmic', () => {
    const ring: [number, number][] = [
      [0.6, 0],
      [0.8, 0],
      [0.8, 10],
      [0.6, 10],
    ];
    expect(passed(litSamples({ ...TEST, xLog: true, ring, to: 200 }, held()))).toEqual([0, 3]);
  });
  test('lie within every limit, and have a value of each', () => {
    const limits = [{ of: 'z', range: [1, 2] as [number, number] }];
    const z = Float32Array.of(1.5, 1.5, 1.5, Number.NaN);
    expect(passed(litSamples({ ...TEST, to: 200, limits }, held({ further: [z] })))).toEqual([0]);
    expect(passed(litSamples({ ...TEST, to: 200, limits }, held({ further: [z.map((v) => v + 1)] })))).toEqual([]);
  });
});
