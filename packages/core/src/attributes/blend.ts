import type { Blend } from '../earth/objects.ts';

/** The colours of a blend in the order of its channels; the last darkens. */
export const CHANNELS = ['red', 'green', 'blue', 'shade'] as const;
export type Channel = (typeof CHANNELS)[number];

/**
 * What each of three channels gives to red, green and blue, `[channel][primary]`; all three together are white. In the second
 * set the first is blue and the last amber, which those who lack red or green cones tell apart, and the middle one grey.
 */
const PRIMARIES: Record<Blend['axes'], readonly number[]> = {
  'red, green, blue': [1, 0, 0, 0, 1, 0, 0, 0, 1],
  'blue, grey, amber': [0, 0.22, 0.72, 0.26, 0.26, 0.26, 0.74, 0.52, 0.02],
};

export const primariesOf = (axes: Blend['axes']): readonly number[] => PRIMARIES[axes];

/** Which part of its way from absent to full a value is, 0 to 1; NaN for one that is not there. */
export function partOf(value: number, { from, to }: { from: number; to: number }): number {
  if (from === to) return value >= from ? 1 : value < from ? 0 : Number.NaN;
  const part = (value - from) / (to - from);
  return part < 0 ? 0 : part > 1 ? 1 : part;
}

/**
 * The colour of three channels under a shade, each 0 to 1.
 * @param shade 1 leaves the colour as it is, 0 darkens it by `strength`
 * @returns red, green and blue, 0 to 1; null where a channel is not there
 */
export function mixed(
  parts: readonly [number, number, number],
  shade: number,
  { axes, strength }: Pick<Blend, 'axes' | 'strength'>,
): [number, number, number] | null {
  if (parts.some((p) => p !== p) || shade !== shade) return null;
  const m = PRIMARIES[axes];
  const light = 1 - strength * (1 - shade);
  return [0, 1, 2].map((c) => light * (parts[0] * m[c] + parts[1] * m[3 + c] + parts[2] * m[6 + c])) as [
    number,
    number,
    number,
  ];
}
