import { describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import { makeBarrier } from '../faults/barrier.ts';
import { meshOfSticks } from '../faults/surface.ts';
import { even } from '../testing/random.ts';
import { contourInterval, contourSegments } from './contour.ts';
import type { Traces } from './event.ts';
import { eventsIn, snap } from './event.ts';
import { fillGaps } from './fill.ts';
import { trackEvent } from './track.ts';

const ROWS = 40;
const COLUMNS = 60;
const STEP = 4;
const SAMPLES = 150;

/** Ricker wavelet of 28 Hz about zero, ms. */
const ricker = (ms: number) => {
  const q = (Math.PI * 28 * ms) / 1000;
  return (1 - 2 * q * q) * Math.exp(-q * q);
};

/** Traces with events along surfaces given in ms, and a little noise. */
function made(surfaces: ((i: number, j: number) => number)[], signs: number[], noise: number): Traces {
  const data = new Float32Array(ROWS * COLUMNS * SAMPLES);
  const random = even(5);
  for (let i = 0; i < ROWS; i++)
    for (let j = 0; j < COLUMNS; j++)
      for (let k = 0; k < SAMPLES; k++) {
        let v = noise * random();
        surfaces.forEach((s, n) => {
          v += signs[n] * ricker(k * STEP - s(i, j));
        });
        data[(i * COLUMNS + j) * SAMPLES + k] = v;
      }
  return { data, samples: SAMPLES, first: 0, step: STEP };
}

const options = { halfWindow: 28, leastMatch: 0.5, largestJump: 7, stack: 1 };

describe('snapping', () => {
  test('finds extremum and zero crossing between samples', () => {
    const value = (k: number) => Math.cos((k - 10.3) / 3);
    expect(eventsIn(value, 'peak', 7, 13)[0]).toBeCloseTo(10.3, 1);
    expect(eventsIn((k) => -value(k), 'trough', 7, 13)[0]).toBeCloseTo(10.3, 1);
    expect(eventsIn((k) => Math.sin((k - 10.3) / 3), 'zero rising', 7, 13)[0]).toBeCloseTo(10.3, 1);
    expect(eventsIn((k) => Math.sin((k - 10.3) / 3), 'zero falling', 7, 13)).toEqual([]);
  });
  test('the nearest event within reach, or none', () => {
    const traces = made([() => 301.5], [1], 0);
    expect(snap(traces, 0, 306, 'peak', 12)).toBeCloseTo(301.5, 0);
    expect(snap(traces, 0, 350, 'peak', 12)).toBeNaN();
  });
});

describe('tracking', () => {
  const dome = (i: number, j: number) => 320 - 50 * Math.exp(-((i - 20) ** 2 + (j - 30) ** 2) / 300) + 0.4 * j;
  test('where an event dies out confidence goes with it, though each trace is like the one before, and it is let go', () => {
    // the trough ends at column 30; a weak one goes on beside where it was, as alike from trace to trace
    const data = new Float32Array(ROWS * COLUMNS * SAMPLES);
    const random = even(5);
    for (let i = 0; i < ROWS; i++)
      for (let j = 0; j < COLUMNS; j++)
        for (let k = 0; k < SAMPLES; k++) {
          const strong = Math.max(0, Math.min(1, (34 - j) / 8));
          const v = -strong * ricker(k * STEP - 300) - 0.12 * ricker(k * STEP - 296) + 0.5 * ricker(k * STEP - 380);
          data[(i * COLUMNS + j) * SAMPLES + k] = v + 0.02 * random();
        }
    const traces = { data, samples: SAMPLES, first: 0, step: STEP };
    const seeds = [{ i: 5, j: 5, time: 300 }];
    const kept = trackEvent(traces, ROWS, COLUMNS, seeds, { ...options, kind: 'trough' });
    const mean = (from: number, to: number) => {
      let [sum, count] = [0, 0];
      for (let i = 0; i < ROWS; i++)
        for (let j = from; j < to; j++) {
          const c = kept.confidence[i * COLUMNS + j];
          if (Number.isNaN(c)) continue;
          sum += c;
          count++;
        }
      return count > 0 ? sum / count : Number.NaN;
    };
    expect(mean(2, 24)).toBeGreaterThan(0.9);
    expect(mean(38, 58)).toBeLessThan(0.4);
    const strict = trackEvent(traces, ROWS, COLUMNS, seeds, { ...options, kind: 'trough', leastLike: 0.35 });
    expect(strict.lost).toBeGreaterThan(500);
    for (let i = 0; i < ROWS; i++) {
      expect(strict.times[i * COLUMNS + 20]).toBeCloseTo(300, 0);
      expect(strict.times[i * COLUMNS + 50]).toBeNaN();
    }
  });
  test('follows a dome among other events to a fraction of a millisecond', () => {
    const traces = made([dome, (i, j) => dome(i, j) + 42, (i, j) => dome(i, j) - 38], [-1, 0.8, 0.7], 0.15);
    const { times, confidence, tracked } = trackEvent(traces, ROWS, COLUMNS, [{ i: 5, j: 5, time: dome(5, 5) }], {
      ...options,
      kind: 'trough',
    });
    expect(tracked).toBe(ROWS * COLUMNS);
    let worst = 0;
    times.forEach((t, n) => {
      worst = Math.max(worst, Math.abs(t - dome(Math.floor(n / COLUMNS), n % COLUMNS)));
    });
    expect(worst).toBeLessThan(1.5);
    expect(Math.min(...confidence)).toBeGreaterThan(0.5);
  });

  // a fault along j = 30 with a throw of a whole cycle: the next event lies just across it
  const thrown = (_: number, j: number) => 280 + (j > 30 ? 36 : 0);
  const axis = (count: number) => ({ first: 0, step: 1, count });
  const binGrid: BinGrid = {
    inline: axis(ROWS),
    crossline: axis(COLUMNS),
    origin: [0, 0],
    perInline: [0, 25],
    perCrossline: [25, 0],
  };
  const stick = (y: number): [number, number, number][] => [0, 200, 400, 600].map((t) => [30.5 * 25, y, t]);
  const faulted = () => made([thrown, (i, j) => thrown(i, j) + 36, (i, j) => thrown(i, j) - 36], [1, 1, 1], 0.1);

  test('a fault is not crossed: each side keeps its own event', () => {
    const barrier = makeBarrier(binGrid, [meshOfSticks([stick(-50), stick(500), stick(1100)])], 0, 600, 20);
    const { times } = trackEvent(faulted(), ROWS, COLUMNS, [{ i: 10, j: 5, time: 280 }], {
      ...options,
      kind: 'peak',
      barrier,
    });
    for (let i = 0; i < ROWS; i++) {
      expect(times[i * COLUMNS + 10]).toBeCloseTo(280, 0);
      expect(times[i * COLUMNS + 45]).toBeNaN();
    }
    const both = trackEvent(
      faulted(),
      ROWS,
      COLUMNS,
      [
        { i: 10, j: 5, time: 280 },
        { i: 10, j: 50, time: 316 },
      ],
      { ...options, kind: 'peak', barrier },
    );
    expect(both.times[20 * COLUMNS + 45]).toBeCloseTo(316, 0);
    expect(both.tracked).toBe(ROWS * COLUMNS);
  });
  test('without the barrier the same front skips a cycle: the barrier is what holds it', () => {
    const { times } = trackEvent(faulted(), ROWS, COLUMNS, [{ i: 10, j: 5, time: 280 }], { ...options, kind: 'peak' });
    expect(times[20 * COLUMNS + 45]).toBeCloseTo(280, 0);
    expect(thrown(20, 45)).toBe(316);
  });
  test('two fronts that meet a cycle apart lower the confidence where they meet', () => {
    const { confidence } = trackEvent(
      faulted(),
      ROWS,
      COLUMNS,
      [
        { i: 10, j: 5, time: 280 },
        { i: 10, j: 50, time: 316 },
      ],
      { ...options, kind: 'peak' },
    );
    // where the fronts meet, a column between them may belong to neither
    const least = (from: number, to: number) =>
      Math.min(...confidence.filter((c, n) => !Number.isNaN(c) && n % COLUMNS >= from && n % COLUMNS < to));
    const low = least(20, 40);
    expect(low).toBeLessThan(0.55);
    expect(least(4, 8)).toBeGreaterThan(0.7);
  });
  test('a seed speaks for what lies near it, even where the event is weak there', () => {
    // the event fades between j = 40 and 50, and a strong one 36 ms below goes on
    const traces = made([thrown, (i, j) => thrown(i, j) + 36], [1, 1], 0.1);
    for (let t = 0; t < ROWS * COLUMNS; t++) {
      const j = t % COLUMNS;
      if (j < 40 || j > 50) continue;
      for (let k = 0; k < SAMPLES; k++) if (Math.abs(k * STEP - thrown(0, j)) < 16) traces.data[t * SAMPLES + k] *= 0.5;
    }
    const { times } = trackEvent(
      traces,
      ROWS,
      COLUMNS,
      [
        { i: 10, j: 5, time: 280 },
        { i: 10, j: 45, time: 316 },
      ],
      { ...options, kind: 'peak' },
    );
    for (const j of [42, 45, 48]) expect(times[10 * COLUMNS + j]).toBeCloseTo(316, 0);
  });
  test('a front stays in the part that its seed lies in; a part without a seed stays empty', () => {
    const parts = new Uint8Array(ROWS * COLUMNS);
    for (let i = 10; i < 20; i++) for (let j = 20; j < 35; j++) parts[i * COLUMNS + j] = 1;
    const traces = made([dome], [1], 0.05);
    const one = trackEvent(traces, ROWS, COLUMNS, [{ i: 3, j: 3, time: dome(3, 3) }], {
      ...options,
      kind: 'peak',
      parts,
    });
    expect(one.tracked).toBe(ROWS * COLUMNS - 150);
    expect(one.times[15 * COLUMNS + 25]).toBeNaN();
    const two = trackEvent(
      traces,
      ROWS,
      COLUMNS,
      [
        { i: 3, j: 3, time: dome(3, 3) },
        { i: 15, j: 25, time: dome(15, 25) },
      ],
      { ...options, kind: 'peak', parts },
    );
    expect(two.tracked).toBe(ROWS * COLUMNS);
  });
  test('noise alone is not tracked', () => {
    const { tracked } = trackEvent(made([], [], 1), ROWS, COLUMNS, [{ i: 10, j: 10, time: 300 }], {
      ...options,
      leastMatch: 0.85,
      kind: 'peak',
    });
    expect(tracked).toBeLessThan(ROWS * COLUMNS * 0.05);
  });
});

describe('closing gaps', () => {
  const grid = (f: (i: number, j: number) => number, hole: (i: number, j: number) => boolean) =>
    Float32Array.from({ length: 900 }, (_, n) =>
      hole(Math.floor(n / 30), n % 30) ? Number.NaN : f(Math.floor(n / 30), n % 30),
    );
  const middle = (i: number, j: number) => i > 8 && i < 22 && j > 10 && j < 20;
  test('a plane is continued exactly, whatever the tension', () => {
    for (const tension of [0, 0.3, 0.8]) {
      const filled = fillGaps(
        grid((i, j) => 3 * i - 2 * j + 7, middle),
        30,
        30,
        tension,
      );
      filled.forEach((v, n) => {
        expect(Math.abs(v - (3 * Math.floor(n / 30) - 2 * (n % 30) + 7))).toBeLessThan(0.02);
      });
    }
  });
  test('without tension a bowl is continued far better than by a membrane, and known nodes are kept', () => {
    const bowl = (i: number, j: number) => (i - 15) ** 2 + (j - 15) ** 2;
    const holed = grid(bowl, middle);
    const worst = (tension: number) =>
      Math.max(...[...fillGaps(holed, 30, 30, tension)].map((v, n) => Math.abs(v - bowl(Math.floor(n / 30), n % 30))));
    expect(worst(0)).toBeLessThan(0.25 * worst(1));
    const filled = fillGaps(holed, 30, 30, 0.25);
    holed.forEach((v, n) => {
      if (!Number.isNaN(v)) expect(filled[n]).toBe(v);
    });
  });
  test('a cut is no bridge: each side is filled from its own side', () => {
    const cuts = new Uint8Array(900);
    for (let i = 0; i < 30; i++) cuts[i * 30 + 14] = 2;
    const filled = fillGaps(
      grid(
        (_, j) => (j <= 14 ? 100 : 200),
        (_, j) => j > 10 && j < 19,
      ),
      30,
      30,
      0.3,
      cuts,
    );
    expect(filled[15 * 30 + 14]).toBeCloseTo(100, 1);
    expect(filled[15 * 30 + 15]).toBeCloseTo(200, 1);
  });
});

test('contours lie where a plane has their values, and skip what is missing', () => {
  const values = Float32Array.from({ length: 100 }, (_, n) => (n === 55 ? Number.NaN : Math.floor(n / 10) * 10));
  const contours = contourSegments(values, 10, 10, 20);
  for (const [level, segments] of contours)
    for (const [a, , c] of segments) expect([a * 10, c * 10]).toEqual([level, level]);
  expect(contours.size).toBeGreaterThan(3);
  expect(contourInterval(900, 1100)).toBe(10);
});
