import { blurOf, FREQUENCY_METHODS } from '@lithagon/core';
import { describe, expect, test } from 'vitest';
import { smearText, specOfBand } from './bands';

describe('a dragged band', () => {
  test('gives a transform of its middle whose blur is its width, where parameters go so far', () => {
    for (const method of FREQUENCY_METHODS.filter((m) => m !== 'S-transform'))
      for (const band of [
        [20, 32],
        [40, 56],
      ] as [number, number][]) {
        const { hz, spec } = specOfBand(method, band);
        expect(hz).toBe((band[0] + band[1]) / 2);
        expect(Math.abs(blurOf(spec, hz) / (band[1] - band[0]) - 1)).toBeLessThan(0.08);
      }
  });
  test('stays within what the transform may be', () => {
    expect(specOfBand('Morlet wavelet', [29.9, 30]).spec.cycles).toBe(20);
    expect(specOfBand('Morlet wavelet', [5, 120]).spec.cycles).toBe(3);
    expect(specOfBand('short-window Fourier', [0, 250]).spec.windowMs).toBe(12);
    expect(specOfBand('S-transform', [18, 22]).hz).toBe(20);
  });
  test('says what it smears, in time and metres', () => {
    const { hz, spec } = specOfBand('short-window Fourier', [20, 40]);
    const text = smearText(spec, hz, 3000);
    const [, ms, m] = /over (\d+) ms \((\d+) m\)/.exec(text) ?? [];
    expect(Math.abs(Number(m) - Number(ms) * 1.5)).toBeLessThan(1.5);
  });
});
