import { describe, expect, test } from 'vitest';
import { normal } from '../testing/random.ts';
import { equalParts, peaksOf, spectraCollector, threeFrequencies, tuningThickness } from './spectrum.ts';

const STEP = 4;

describe('spectra of windows', () => {
  test('hold the power of the samples, and part it into what neighbours share and what not', () => {
    const random = normal(7);
    const length = 64;
    const collect = spectraCollector(STEP, length);
    const [strong, weak] = [3, 1.2];
    let sum = 0;
    for (let line = 0; line < 60; line++) {
      // white, and the same along a line
      const signal = Array.from({ length }, () => strong * random());
      for (let j = 0; j < 40; j++) {
        const samples = Float32Array.from(signal, (v) => v + weak * random());
        sum += samples.reduce((a, v) => a + v * v, 0) / length;
        collect.add(samples, j > 0);
      }
    }
    const { hz, data, noise, traces } = collect.finish();
    expect(traces).toBe(2400);
    const band = hz.flatMap((f, n) => (f > 20 && f < 105 ? [n] : []));
    const mean = (of: number[]) => Math.sqrt(band.reduce((a, n) => a + of[n] ** 2, 0) / band.length);
    expect(mean(data) / Math.sqrt(sum / 2400)).toBeGreaterThan(0.95);
    expect(mean(data) / Math.sqrt(sum / 2400)).toBeLessThan(1.05);
    expect(mean(noise) / weak).toBeGreaterThan(0.93);
    expect(mean(noise) / weak).toBeLessThan(1.07);
  });

  test('of long windows are those of their parts', () => {
    const tone = (n: number, hz: number) => Math.sin((2 * Math.PI * hz * n * STEP) / 1000);
    const length = 700;
    const collect = spectraCollector(STEP, length);
    // one tone in the first half, another in the second
    for (let t = 0; t < 5; t++)
      collect.add(
        Float32Array.from({ length }, (_, n) => 4 * tone(n, n < length / 2 ? 20 : 50)),
        t > 0,
      );
    const { hz, data, noise } = collect.finish();
    const at = (f: number) => hz.findIndex((v) => v >= f);
    expect(hz.length).toBeLessThan(300);
    expect(Math.abs(data[at(20)] / data[at(50)] - 1)).toBeLessThan(0.1);
    expect(data[at(35)]).toBeLessThan(0.1 * data[at(20)]);
    expect(noise[at(20)]).toBeLessThan(0.01 * data[at(20)]);
  });

  test('say nothing of noise without neighbours, and leave out what has nulls', () => {
    const collect = spectraCollector(STEP, 32);
    collect.add(
      new Float32Array(32).map((_, n) => Math.sin(n)),
      false,
    );
    collect.add(new Float32Array(32).fill(Number.NaN), true);
    collect.add(
      new Float32Array(32).map((_, n) => Math.sin(n)),
      true,
    );
    const { traces, noise } = collect.finish();
    expect(traces).toBe(2);
    expect(noise.every(Number.isNaN)).toBe(true);
  });
});

describe('what is offered of a spectrum', () => {
  const hz = Array.from({ length: 126 }, (_, n) => n);
  const bump = (f: number, at: number, wide: number) => Math.exp(-(((f - at) / wide) ** 2));
  const none = hz.map(() => Number.NaN);

  test('are its peaks, to less than a step, without its ripples', () => {
    const data = hz.map((f) => bump(f, 18.4, 6) + 0.8 * bump(f, 40, 6) + 0.5 * bump(f, 62, 6) + 0.004 * Math.cos(f));
    const found = peaksOf({ hz, data });
    expect(found.length).toBe(3);
    for (const [n, at] of [18.4, 40, 62].entries()) expect(found[n].hz).toBeCloseTo(at, 0);
    const three = threeFrequencies({ hz, data, noise: none, traces: 1 });
    expect(three).toEqual({ hz: [18.5, 40, 62], from: 'peaks' });
  });

  test('are no peaks that lie too near to each other to tell beds apart', () => {
    const data = hz.map((f) => bump(f, 24, 2) + bump(f, 28, 2) + 0.9 * bump(f, 32, 2));
    expect(peaksOf({ hz, data }).length).toBe(3);
    expect(threeFrequencies({ hz, data, noise: none, traces: 1 }).from).toBe('equal parts');
  });

  test('are the middles of equal parts of its power where it has one peak alone', () => {
    const data = hz.map((f) => (f >= 10 && f < 70 ? 1 : 0));
    expect(equalParts({ hz, data, noise: none }, 3)).toEqual([19, 39, 59]);
    expect(threeFrequencies({ hz, data, noise: none, traces: 1 }).from).toBe('equal parts');
    // what is noise has no part in it
    const noise = hz.map((f) => (f >= 40 ? 1 : 0));
    expect(equalParts({ hz, data, noise }, 3)).toEqual([14, 24, 34]);
  });

  test('a bed is tuned where it is a quarter of a wave', () => {
    expect(tuningThickness(25, 3000)).toBe(30);
  });
});
