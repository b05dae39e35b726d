import { blurOf, type FrequencyMethod, type FrequencySpec, smearOf } from '@lithagon/core';

/** A band of frequencies, Hz, from and to. */
export type Band = [number, number];

const clamp = (v: number, least: number, most: number) => Math.max(least, Math.min(most, v));
const rounded = (v: number, to: number) => Math.round(v / to) * to;

/**
 * The transform whose frequency is the middle of a band and whose blur is the band's width, as far as its parameters go: a narrow
 * band takes long windows, in which beds smear into each other.
 */
export function specOfBand(method: FrequencyMethod, [from, to]: Band): { hz: number; spec: FrequencySpec } {
  const hz = clamp(rounded((from + to) / 2, 0.5), 1, 250);
  const width = Math.max(1, to - from);
  const spec: FrequencySpec = { method, windowMs: 100, cycles: 6 };
  // the blur of a wavelet goes as one over its cycles, that of a window as one over its length
  if (method === 'Morlet wavelet') spec.cycles = clamp(rounded((6 * blurOf(spec, hz)) / width, 0.5), 3, 20);
  if (method === 'short-window Fourier') spec.windowMs = clamp(rounded((100 * blurOf(spec, hz)) / width, 4), 12, 500);
  return { hz, spec };
}

/** What a transform does to beds and frequencies, in words. */
export function smearText(spec: FrequencySpec, hz: number, velocity: number): string {
  const ms = smearOf(spec, hz);
  return `a thin bed over ${ms.toFixed(0)} ms (${((ms * velocity) / 2000).toFixed(0)} m), a tone over ${blurOf(spec, hz).toFixed(1)} Hz`;
}
