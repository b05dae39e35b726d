import { describe, expect, test } from 'vitest';
import type { Traces } from './event.ts';
import { followEvent } from './follow.ts';
import { PICK_EVENTS, pickableIn, snapTo } from './pick.ts';

const STEP = 2;
const SAMPLES = 300;

/** Ricker wavelets of 30 Hz at times that depend on the trace. */
function section(count: number, events: { at(t: number): number; size: number }[], noise = 0): Traces {
  const data = new Float32Array(count * SAMPLES);
  let seed = 7;
  const random = () => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed / 2 ** 32 - 0.5;
  };
  for (let t = 0; t < count; t++)
    for (let k = 0; k < SAMPLES; k++) {
      let v = noise * random();
      for (const e of events) {
        const a = (Math.PI * 30 * (k * STEP - e.at(t))) / 1000;
        v += e.size * (1 - 2 * a * a) * Math.exp(-a * a);
      }
      data[t * SAMPLES + k] = v;
    }
  return { data, samples: SAMPLES, first: 0, step: STEP };
}

describe('a pick goes to', () => {
  const wavelet = section(1, [{ at: () => 301.3, size: 1 }]);
  // zero crossings of a Ricker wavelet lie at ±1 / (√2·π·f)
  const half = 1000 / (Math.SQRT2 * Math.PI * 30);
  test.each([
    ['peak', 303, 301.3],
    ['envelope', 297, 301.3],
    ['zero rising', 292, 301.3 - half],
    ['zero falling', 311, 301.3 + half],
    // both troughs lie at ±√(3/2) / (π·f)
    ['trough', 315, 301.3 + (Math.sqrt(1.5) * 1000) / (Math.PI * 30)],
  ] as const)('the %s nearest to it', (event, near, at) => {
    expect(Math.abs(snapTo(wavelet, 0, near, event, 10) - at)).toBeLessThan(0.35);
  });
  test('the largest gradient, where the second derivative is nought', () => {
    // d²/da² of (1 − 2a²)·exp(−a²) is nought where 4a⁴ − 12a² + 3 = 0
    const a = Math.sqrt((12 - Math.sqrt(144 - 48)) / 8);
    expect(
      Math.abs(snapTo(wavelet, 0, 306, 'largest gradient', 10) - (301.3 + (1000 * a) / (Math.PI * 30))),
    ).toBeLessThan(0.6);
  });
  test('nothing where there is none within reach, or no samples', () => {
    expect(snapTo(wavelet, 0, 360, 'peak', 10)).toBeNaN();
    const none = { ...wavelet, data: new Float32Array(SAMPLES).fill(Number.NaN) };
    for (const event of PICK_EVENTS) expect(pickableIn(none, 0, event, 0, 600)).toEqual([]);
  });
});

describe('an event is followed', () => {
  const dip = (t: number) => 200 + 1.5 * t + 12 * Math.sin(t / 9);
  const how = { event: 'peak' as const, corridor: 60, jump: 6, halfWindow: 24, walls: [] };
  test('along its dip, past a stronger one that crosses the corridor', () => {
    const traces = section(
      80,
      [
        { at: dip, size: 1 },
        { at: (t) => dip(t) + 34, size: 1.6 },
      ],
      0.15,
    );
    const path = followEvent(traces, [2, dip(2)], [75, dip(75)], how);
    expect(path.map(([t]) => t)).toEqual(Array.from({ length: 74 }, (_, n) => n + 2));
    for (const [t, time] of path) expect(Math.abs(time - dip(t))).toBeLessThan(2);
    // from right to left it is the same path
    expect(followEvent(traces, [75, dip(75)], [2, dip(2)], how)).toEqual(path);
  });
  test('over traces on which it is lost, straight', () => {
    const traces = section(40, [{ at: () => 250, size: 1 }]);
    for (const t of [15, 16]) traces.data.fill(0, t * SAMPLES, (t + 1) * SAMPLES);
    const path = followEvent(traces, [5, 250], [35, 250], how);
    expect(path).toHaveLength(31);
    for (const [, time] of path) expect(Math.abs(time - 250)).toBeLessThan(0.6);
  });
  test('to a fault from both its sides, and never through it', () => {
    const thrown = (t: number) => (t < 30 ? 220 : 262);
    const traces = section(60, [{ at: thrown, size: 1 }], 0.1);
    const walls: [number, number, number, number][] = [[29.5, 0, 29.5, 600]];
    const path = followEvent(traces, [4, 220], [55, 262], { ...how, walls });
    expect(path.map(([t]) => t)).toEqual(Array.from({ length: 52 }, (_, n) => n + 4));
    for (const [t, time] of path) expect(Math.abs(time - thrown(t))).toBeLessThan(2);
  });
});
