import { describe, expect, test } from 'vitest';
import { bandPassGain, type Corners } from '../conditioning/filter.ts';
import { normal } from '../testing/random.ts';
import { ricker } from '../tie/wavelet.ts';
import { lobeOf, netOf, scaleByGreatest, scaleByWells, sumsOfPay } from './netPay.ts';
import { responseOfGain, tuningOf, wedgeOfImpedance, wedgeOfReflections } from './wedge.ts';

describe('a wedge', () => {
  test('of two opposite spikes is tuned as the closed form has it', () => {
    const wavelet = ricker(30, 160);
    const thick = [4, 8, 12, 16, 20, 30, 60];
    const found = wedgeOfReflections(wavelet, 0.1, -0.1, thick);
    // the Ricker wavelet itself, on a far finer grid
    const w = (ms: number) => {
      const q = (Math.PI * 30 * ms * 0.001) ** 2;
      return (1 - 2 * q) * Math.exp(-q);
    };
    for (const [n, t] of thick.entries()) {
      let [most, at] = [0, 0];
      for (let ms = -60; ms <= 0; ms += 0.005) {
        const v = 0.1 * (w(ms + t / 2) - w(ms - t / 2));
        if (v > most) [most, at] = [v, ms];
      }
      expect(Math.abs(found.greatest[n] - most)).toBeLessThan(0.004 * 0.1);
      expect(Math.abs(found.apparentMs[n] + 2 * at)).toBeLessThan(0.6);
    }
    // tuned at 1/(√6·π·f)·… : for a Ricker wavelet √6/(2πf)
    const dense = wedgeOfReflections(
      wavelet,
      0.1,
      -0.1,
      Array.from({ length: 120 }, (_, n) => 0.25 * (n + 1)),
    );
    const tuned = dense.greatest.indexOf(Math.max(...dense.greatest));
    expect(Math.abs(dense.thicknessMs[tuned] - (1000 * Math.sqrt(6)) / (2 * Math.PI * 30))).toBeLessThan(0.6);
  });

  const band: Corners = [4, 8, 50, 70];
  const response = responseOfGain((hz) => bandPassGain(band, hz), 70, 300);
  test('of relative impedance is what the band leaves of a block', () => {
    const [thick] = [[14]];
    const found = wedgeOfImpedance(response, thick);
    // the integral of a cosine over the block, frequency by frequency
    const at = (ms: number) => {
      let sum = 0;
      for (let hz = 0.25; hz < 70; hz += 0.5) {
        const w = 2 * Math.PI * hz * 0.001;
        sum += ((bandPassGain(band, hz) * 2 * Math.sin((w * 14) / 2) * Math.cos(w * ms)) / (Math.PI * hz)) * 0.5;
      }
      return sum;
    };
    const k = (ms: number) => Math.round((ms - found.firstMs) / found.stepMs);
    for (const ms of [0, 3, 8, 15]) expect(found.traces[0][k(ms)]).toBeCloseTo(at(ms), 1.7);
  });
  test('is read by apparent thickness: never thinner than the least that is seen, and rising from there', () => {
    const found = wedgeOfImpedance(
      response,
      Array.from({ length: 60 }, (_, n) => n + 1),
    );
    const tuning = tuningOf(found);
    expect(tuning.thickness(0)).toBe(tuning.thickness(tuning.least));
    for (let ms = tuning.least + 1; ms < 40; ms++)
      expect(tuning.thickness(ms)).toBeGreaterThan(tuning.thickness(ms - 1));
    const n = found.apparentMs.findIndex((a) => a > tuning.least + 8);
    expect(tuning.thickness(found.apparentMs[n])).toBeCloseTo(found.thicknessMs[n], 0);
    expect(tuning.average(found.apparentMs[n])).toBeCloseTo(found.average[n], 2);
  });

  test('undoes tuning: beds of any thickness and part of pay come back', () => {
    const wedge = wedgeOfImpedance(
      response,
      Array.from({ length: 60 }, (_, n) => n + 1),
    );
    const tuning = tuningOf(wedge);
    const scale = { scale: 0.12, velocity: 2400 };
    for (const thick of [16, 20, 26, 34])
      for (const part of [0.4, 0.8]) {
        const n = thick - 1;
        // as samples at 4 ms, softer than what lies around
        const samples = Array.from({ length: 80 }, (_, k) => {
          const q = Math.round((4 * (k - 40) - wedge.firstMs) / wedge.stepMs);
          return -0.12 * part * (wedge.traces[n][q] ?? 0);
        });
        const lobe = lobeOf(samples, -160, 4, -thick / 2, thick / 2, -1);
        if (!lobe) throw new Error('it is there');
        const net = (part * thick * 2400) / 2000;
        expect(Math.abs(netOf(lobe, tuning, scale).netM - net)).toBeLessThan(0.08 * net + 0.4);
      }
  });
});

describe('net pay', () => {
  const tuning = { average: () => 0.5, thickness: (ms: number) => ms, least: 10 };
  test('has the scale at which wells are met, and how far they disagree', () => {
    const wells = [20, 30].map((apparentMs) => ({
      lobe: { apparentMs, average: 0.05 },
      netM: (0.8 * apparentMs * 2500) / 2000,
    }));
    const found = scaleByWells(wells, tuning, 2500);
    // 0.05 / (0.5·s) = 0.8
    expect(found?.scale).toBeCloseTo(0.125, 9);
    expect(found?.spread).toBeCloseTo(0, 9);
    wells[0].netM *= 1.5;
    expect(scaleByWells(wells, tuning, 2500)?.spread).toBeGreaterThan(0.1);
    expect(scaleByWells([], tuning, 2500)).toBeNull();
  });
  test('by the strongest leaves all but a few less than full', () => {
    const lobes = Array.from({ length: 100 }, (_, n) => ({ apparentMs: 20, average: 0.001 * n }));
    const scale = scaleByGreatest(lobes, tuning);
    const full = lobes.filter((l) => netOf(l, tuning, { scale, velocity: 2500 }).part >= 1);
    expect(full.length).toBeLessThanOrEqual(3);
  });
  test('has a spread that grows with that of the scale, and the same for the same seed', () => {
    const random = normal(4);
    const lobes = Array.from({ length: 200 }, () => ({ apparentMs: 20 + 2 * random(), average: 0.03 }));
    const sums = (scale: number, seed = 1) =>
      sumsOfPay(
        lobes,
        tuning,
        { scale: 0.125, velocity: 2500 },
        { scale, velocity: 0.03, pickMs: 1, draws: 300, seed },
      );
    const width = (s: Float64Array) => s[270] - s[30];
    expect(width(sums(0.3))).toBeGreaterThan(1.5 * width(sums(0.1)));
    expect([...sums(0.2)]).toEqual([...sums(0.2)]);
    expect([...sums(0.2, 2)]).not.toEqual([...sums(0.2)]);
  });
  test('measures the strongest lobe of its sign between top and base; none where there is none', () => {
    const samples = Array.from({ length: 60 }, (_, k) => Math.sin((2 * Math.PI * (k - 5)) / 20));
    const lobe = lobeOf(samples, 0, 2, 50, 70, -1);
    expect(lobe?.apparentMs).toBeCloseTo(20, 0);
    expect(lobe?.average).toBeCloseTo(2 / Math.PI, 1);
    expect(lobeOf(samples.map(Math.abs), 0, 2, 50, 70, -1)).toBeNull();
  });
});
