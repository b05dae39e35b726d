import { describe, expect, test } from 'vitest';
import { normal } from '../testing/random.ts';
import { type AlignOptions, align, differences } from './align.ts';

const OPTIONS: AlignOptions = {
  mostStretch: 1.5,
  stretchSample: 0.8,
  gapOpen: 6,
  gapSample: 0.6,
  endSample: 0.4,
};
const NEAR = { offset: 0, mostShift: 300 };

/** A log of beds of random level and thickness, unit spread. */
function beds(seed: number, length: number): Float64Array {
  const next = normal(seed);
  const out = new Float64Array(length);
  let level = next();
  let left = 6;
  for (let k = 0; k < length; k++) {
    if (left-- <= 0) {
      level = next();
      left = 4 + Math.abs(10 * next());
    }
    out[k] = level + 0.15 * next();
  }
  return out;
}

const at = (log: Float64Array, x: number) => {
  const n = Math.max(0, Math.min(log.length - 2, Math.floor(x)));
  return log[n] + (x - n) * (log[n + 1] - log[n]);
};

/** The log at other depths, with noise of a power signal-to-noise. */
function seen(log: Float64Array, length: number, map: (j: number) => number, seed: number, signalToNoise = 5) {
  const next = normal(seed);
  return Float32Array.from({ length }, (_, j) => at(log, map(j)) + next() / Math.sqrt(signalToNoise));
}

describe('alignment of logs', () => {
  test('a known stretch is found within one sample rms at a signal-to-noise of 5', () => {
    let [sum, count] = [0, 0];
    for (let seed = 1; seed <= 6; seed++) {
      const logs = [beds(seed, 420), beds(seed + 50, 420)];
      // thicker above, thinner below, all moved by 20 samples
      const map = (j: number) => 20 + j * 0.92 + 9 * Math.sin(j / 60);
      const inverse = (i: number) => {
        let [low, high] = [-100, 600];
        for (let n = 0; n < 60; n++) {
          const middle = 0.5 * (low + high);
          if (map(middle) < i) low = middle;
          else high = middle;
        }
        return low;
      };
      const reference = logs.map((l) => Float32Array.from(l));
      const target = logs.map((l, c) => seen(l, 400, map, 7 * seed + c));
      const { path } = align(differences(reference, target, [1, 1], NEAR), OPTIONS);
      for (let i = 60; i < 360; i++) {
        const error = path[i] - inverse(i);
        sum += error * error;
        count++;
      }
    }
    expect(Math.sqrt(sum / count)).toBeLessThan(1);
  });

  test('a bed taken out is reported missing, what is around it is placed, and nothing else is missing', () => {
    for (let seed = 1; seed <= 5; seed++) {
      const log = beds(seed, 400);
      const second = beds(seed + 9, 400);
      const map = (j: number) => (j < 150 ? j : j + 45);
      const target = [log, second].map((l, c) => seen(l, 355, map, seed + c));
      const reference = [log, second].map((l) => Float32Array.from(l));
      const { path, gap } = align(differences(reference, target, [1, 1], NEAR), OPTIONS);
      let [inside, outside] = [0, 0];
      for (let i = 0; i < 400; i++)
        if (gap[i]) {
          if (i >= 150 && i < 195) inside++;
          else outside++;
        }
      // its edges may slide where the rock beside them looks like its own, its thickness may not
      expect(Math.abs(inside + outside - 45)).toBeLessThan(5);
      expect(inside).toBeGreaterThan(30);
      expect(Math.abs(path[120] - 120)).toBeLessThan(2);
      expect(Math.abs(path[300] - 255)).toBeLessThan(2);
    }
  });

  test('another place costs more than the best one, and the best costs nothing more than itself', () => {
    const log = beds(3, 200);
    const reference = [Float32Array.from(log)];
    const target = [seen(log, 200, (j) => j, 5)];
    const found = align(differences(reference, target, [1], NEAR), OPTIONS);
    const profile = found.through(100);
    let least = 0;
    for (let j = 1; j < 200; j++) if (profile[j] < profile[least]) least = j;
    expect(Math.abs(least - 100)).toBeLessThan(2);
    expect(profile[least]).toBeGreaterThan(-0.1);
    expect(profile[least]).toBeLessThan(3);
    expect(profile[130]).toBeGreaterThan(5);
  });

  test('wells that begin at different depths are laid over each other where both are', () => {
    const log = beds(8, 300);
    const reference = [Float32Array.from(log).subarray(0, 200)];
    const target = [seen(log, 200, (j) => j + 100, 2)];
    const { path } = align(differences(reference, target, [1], { offset: 0, mostShift: 150 }), OPTIONS);
    expect(path[50]).toBeNaN();
    expect(Math.abs(path[150] - 50)).toBeLessThan(2);
  });

  test('stretch never leaves its bounds', () => {
    const reference = [Float32Array.from(beds(1, 150))];
    const target = [Float32Array.from(beds(2, 150))];
    const { path } = align(differences(reference, target, [1]), { ...OPTIONS, mostStretch: 1.34 });
    for (let i = 0; i + 12 < 150; i++) {
      const slope = (path[i + 12] - path[i]) / 12;
      const jumps = [...path.subarray(i, i + 13)].some((v, k, all) => k > 0 && (Number.isNaN(v) || v - all[k - 1] > 2));
      if (!jumps && !Number.isNaN(slope)) {
        expect(slope).toBeLessThan(1.5);
        expect(slope).toBeGreaterThan(0.6);
      }
    }
  });

  test('holds a band of pairs: what it takes grows with the logs, and what it finds is what all pairs give', () => {
    const log = beds(4, 600);
    const reference = [Float32Array.from(log)];
    const target = [seen(log, 560, (j) => j + 12 + 6 * Math.sin(j / 70), 9)];
    const near = { offset: -12, mostShift: 40 };
    const pairs = differences(reference, target, [1], near);
    const all = differences(reference, target, [1]);
    expect(pairs.cost.length).toBeLessThan(600 * 100);
    expect(all.cost.length).toBeGreaterThanOrEqual(600 * 560);
    const [a, b] = [align(pairs, OPTIONS), align(all, OPTIONS)];
    expect(a.total).toBeCloseTo(b.total, 3);
    expect([...a.path]).toEqual([...b.path]);
    // beside the band nothing matches
    const profile = a.through(300);
    expect(Number.isFinite(profile[288 + 40])).toBe(true);
    expect(profile[288 + 41]).toBe(Number.POSITIVE_INFINITY);
  });
});
