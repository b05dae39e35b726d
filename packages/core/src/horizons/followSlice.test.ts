import { describe, expect, test } from 'vitest';
import { followOnSlice, type Slice, walledOff } from './followSlice.ts';

/** A slice through a dome: its event lies on a ring round the middle, and changes sign away from that. */
function ring(radius: number, size = 61): Slice {
  const middle = (size - 1) / 2;
  const values = new Float32Array(size * size);
  for (let i = 0; i < size; i++)
    for (let j = 0; j < size; j++) {
      const off = (Math.hypot(i - middle, j - middle) - radius) / 3;
      values[i * size + j] = (1 - 2 * off * off) * Math.exp(-off * off);
    }
  return { values, rows: size, columns: size };
}

const dome = ring(20);
const far = ([i, j]: number[]) => Math.abs(Math.hypot(i - 30, j - 30) - 20);

describe('an event followed on a slice', () => {
  test('leads round the ring on which it lies, not straight across', () => {
    const path = followOnSlice(dome, 'peak', [10, 30], [30, 50]);
    expect(path?.[0]).toEqual([10, 30]);
    expect(path?.[path.length - 1]).toEqual([30, 50]);
    expect(Math.max(...(path ?? []).map(far))).toBeLessThan(1);
  });

  test('is sought by what it is: a trough where it is strongest below nought, a zero crossing where there is nothing', () => {
    const turned = { ...dome, values: dome.values.map((v) => -v) };
    expect(followOnSlice(turned, 'trough', [10, 30], [30, 50])).toEqual(
      followOnSlice(dome, 'peak', [10, 30], [30, 50]),
    );
    // zeros lie 3/√2 bins to either side of the ring
    const radius = 20 + 3 / Math.SQRT2;
    const path = followOnSlice(dome, 'zero rising', [30 - 22, 30], [30, 52]) ?? [];
    for (const [i, j] of path) expect(Math.abs(Math.hypot(i - 30, j - 30) - radius)).toBeLessThan(1.2);
  });

  test('goes round a wall, and nowhere where walls shut it in', () => {
    const wall: [number, number, number, number] = [5, 38.5, 25.5, 38.5];
    const path = followOnSlice(dome, 'peak', [10, 30], [30, 50], [wall]) ?? [];
    expect(path.length).toBeGreaterThan(1);
    path.slice(1).forEach((to, n) => {
      expect(walledOff(path[n], to, [wall])).toBe(false);
    });
    expect(followOnSlice(dome, 'peak', [10, 30], [30, 50], [[-100, 38.5, 200, 38.5]])).toBeNull();
  });

  test('enters nothing that has no samples', () => {
    const holed = { ...dome, values: dome.values.slice() };
    for (let i = 12; i < 20; i++) for (let j = 36; j < 48; j++) holed.values[i * 61 + j] = Number.NaN;
    const path = followOnSlice(holed, 'peak', [10, 30], [30, 50]) ?? [];
    expect(path.length).toBeGreaterThan(1);
    for (const [i, j] of path) expect(holed.values[i * 61 + j]).not.toBeNaN();
  });
});
