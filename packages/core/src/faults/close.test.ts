import { describe, expect, test } from 'vitest';
import { normal } from '../testing/random.ts';
import { type CutPiece, closedBy, cutDown, matchByThrow, pairAcross, type SectionSamples } from './close.ts';

const [TRACES, COUNT, STEP] = [60, 200, 4];
const THROWN = 44;

/** Beds without a period. */
const beds = (k: number) => {
  let v = 0;
  for (let n = 1; n <= 14; n++) v += Math.sin(0.06 * n * k + 2.3 * n * n) / (1 + 0.03 * n);
  return v;
};

/** A fault from trace 20 at the top to 40 at the base, or the mirror of it; its hanging wall thrown down. */
function made(way: 1 | -1, thrown: number) {
  const random = normal(5);
  const fault = (k: number) => (way === 1 ? 20 + 0.1 * k : 40 - 0.1 * k);
  const data = Float32Array.from({ length: TRACES * COUNT }, (_, n) => {
    const [trace, k] = [Math.floor(n / COUNT), n % COUNT];
    return beds((trace - fault(k)) * way > 0 ? k - thrown / STEP : k) + 0.1 * random();
  });
  const section: SectionSamples = { data, traces: TRACES, count: COUNT, first: 100, step: STEP };
  const pieces: CutPiece[] = [10, 60, 120].map((k, n) => {
    const to = [60, 120, 190][n];
    return [fault(k), 100 + k * STEP, fault(to), 100 + to * STEP];
  });
  return { section, cut: cutDown(pieces, section), fault };
}

describe.each([1, -1] as const)('a fault on a section (dips %i)', (way) => {
  test('is closed by its throw, and the match against throw has its peak there', () => {
    const { section, cut, fault } = made(way, THROWN);
    if (!cut) throw new Error('no cut');
    expect(cut.hanging).toBe(way);
    expect(cut.at[60]).toBeCloseTo(fault(60), 6);
    expect(cut.at[5]).toBeNaN();
    const { peaks, throws, match } = matchByThrow(section, cut, 100 + 100 * STEP, 120, 100);
    expect(peaks[0]).toBe(THROWN);
    expect(match[throws.indexOf(THROWN)]).toBeGreaterThan(0.9);
    const closed = closedBy(section, cut, THROWN);
    // restored in place, beds go through; above the fault nothing was moved
    let [off, was] = [0, 0];
    for (let trace = 0; trace < TRACES; trace++)
      for (let k = 20; k < 170; k++) {
        off += (closed[trace * COUNT + k] - beds(k)) ** 2;
        was += (section.data[trace * COUNT + k] - beds(k)) ** 2;
      }
    expect(off).toBeLessThan(0.05 * was);
    for (let trace = 0; trace < TRACES; trace++)
      expect(closed[trace * COUNT + 5]).toBe(section.data[trace * COUNT + 5]);
  });

  test('gives the two ends of a bed, footwall first', () => {
    const { section, cut, fault } = made(way, THROWN);
    if (!cut) throw new Error('no cut');
    const pair = pairAcross(section, cut, 500, THROWN);
    expect(pair?.map(([, level]) => level)).toEqual([500 - THROWN / 2, 500 + THROWN / 2]);
    for (const [n, [trace, level]] of (pair ?? []).entries()) {
      const beside = (trace - fault(Math.round((level - 100) / STEP))) * way;
      expect(beside).toBeCloseTo(n === 0 ? -3 : 3, 0);
    }
    expect(pairAcross(section, cut, 104, THROWN)).toBeNull();
  });
});

test('a reverse fault has its peak at a negative throw; one that is not on the section has no line', () => {
  const { section, cut } = made(1, -28);
  if (!cut) throw new Error('no cut');
  expect(matchByThrow(section, cut, 500, 160, 100).peaks[0]).toBe(-28);
  expect(cutDown([], section)).toBeNull();
});
