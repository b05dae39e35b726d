import type { BinGrid, Horizon, Volume } from '@lithagon/core';
import { describe, expect, test } from 'vitest';
import { horizonAlong, placeOf, scaleOf, sectionLine, traceOf, valueAt } from './geometry';

const binGrid: BinGrid = {
  inline: { first: 100, step: 1, count: 20 },
  crossline: { first: 200, step: 1, count: 30 },
  origin: [1000, 5000],
  perInline: [-10, 20],
  perCrossline: [20, 10],
};

describe('a section', () => {
  test.each(['inline', 'crossline'] as const)('along an %s knows its places and traces, there and back', (plane) => {
    const line = sectionLine(binGrid, plane, 7);
    expect(line.traces).toBe(plane === 'inline' ? 30 : 20);
    const [x, y] = placeOf(line, 11.25);
    const [trace, off] = traceOf(line, x, y);
    expect(trace).toBeCloseTo(11.25, 9);
    expect(off).toBeCloseTo(0, 9);
    // a point beside the section, at right angles to it
    const side: [number, number] = plane === 'inline' ? [x - 10, y + 20] : [x + 20, y + 10];
    expect(traceOf(line, ...side)[1]).toBeCloseTo(Math.hypot(10, 20), 6);
  });
  test('a horizon on a coarser grid is interpolated, and missing where a corner is', () => {
    const coarse: BinGrid = {
      ...binGrid,
      inline: { first: 100, step: 2, count: 10 },
      crossline: { first: 200, step: 2, count: 15 },
      perInline: [-20, 40],
      perCrossline: [40, 20],
    };
    const values = Float32Array.from({ length: 150 }, (_, n) => 10 * (n % 15) + Math.floor(n / 15));
    values[4 * 15 + 9] = Number.NaN;
    const along = horizonAlong(sectionLine(binGrid, 'inline', 7), { binGrid: coarse } as Horizon, values);
    expect(along[5][1]).toBeCloseTo(25 + 3.5, 4);
    expect(along[17][1]).toBeNaN();
    expect(along[29][1]).toBeNaN();
  });
  test('the readout comes from the samples', () => {
    const volume = { vertical: { first: 100, step: 4, count: 5 } } as Volume;
    const data = Float32Array.of(0, 1, 2, 3, 4, 10, 11, 12, Number.NaN, 14);
    expect(valueAt(volume, data, 0.4, 106)).toBeCloseTo(1.5, 6);
    expect(valueAt(volume, data, 0.6, 104)).toBeCloseTo(11, 6);
    expect(valueAt(volume, data, 1, 111)).toBeNull();
    expect(valueAt(volume, data, 1, 90)).toBeNull();
    expect(valueAt(volume, data, 5, 104)).toBeNull();
  });
});

test('the scale of a section is that of its bends in view, on a screen of 96 pixels to the inch', () => {
  const line = sectionLine(binGrid, 'inline', 0);
  const [a, b] = [line.place(0), line.place(line.traces - 1)];
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const box = { width: 480, height: 480 };
  const whole = scaleOf(line, { x0: 0, x1: line.traces - 1, y0: 0, y1: 1000 }, box);
  expect(whole.metres).toBeCloseTo(length, 6);
  // 480 pixels are five inches
  expect(whole.scale).toBe(Math.round(length / 0.127 / 100) * 100);
  expect(whole.perSecond).toBeCloseTo(12.7, 6);
  const half = scaleOf(line, { x0: 0, x1: (line.traces - 1) / 2, y0: 0, y1: 500 }, box);
  expect(half.metres).toBeCloseTo(length / 2, 6);
  expect(half.perSecond).toBeCloseTo(25.4, 6);
});
