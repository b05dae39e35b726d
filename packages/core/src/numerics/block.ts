/** What a region needs around it; infinite samples mean whole traces, infinite lines whole slices. */
export interface Halo {
  inline: number;
  crossline: number;
  sample: number;
}

/** A block of a volume with what surrounds it, `[inline][crossline][sample]`, NaN outside the volume. */
export interface Block {
  data: Float32Array;
  /** Size with halo. */
  size: [number, number, number];
  /** What surrounds it; nothing along an axis that is whole. */
  halo: Halo;
  /** Sample interval: ms in time, m in depth. */
  stepMs: number;
  /** Indexes in the volume of the first inline, crossline and sample without the halo. */
  from: [number, number, number];
  /** How many inlines, crosslines and samples the volume has. */
  shape: Shape3;
}

/** A region of bins and samples, ends excluded. */
export interface Region {
  i: [number, number];
  j: [number, number];
  k: [number, number];
}

export type Shape3 = [inlines: number, crosslines: number, samples: number];

export const regionOf = ([ni, nj, nk]: Shape3): Region => ({ i: [0, ni], j: [0, nj], k: [0, nk] });

export const sizeOf = ({ i, j, k }: Region): Shape3 => [i[1] - i[0], j[1] - j[0], k[1] - k[0]];

export const samplesIn = (region: Region): number => sizeOf(region).reduce((a, n) => a * n, 1);

/** A region with so much more on each side. */
export function widened({ i, j, k }: Region, halo: Halo): Region {
  return {
    i: [i[0] - halo.inline, i[1] + halo.inline],
    j: [j[0] - halo.crossline, j[1] + halo.crossline],
    k: [k[0] - halo.sample, k[1] + halo.sample],
  };
}

/** Whether all of a region lies in another. */
export const holds = (a: Region, b: Region): boolean =>
  (['i', 'j', 'k'] as const).every((axis) => a[axis][0] <= b[axis][0] && b[axis][1] <= a[axis][1]);

/** What two regions share; null where that is nothing. */
export function shared(a: Region, b: Region): Region | null {
  const axis = (p: [number, number], q: [number, number]): [number, number] => [
    Math.max(p[0], q[0]),
    Math.min(p[1], q[1]),
  ];
  const both = { i: axis(a.i, b.i), j: axis(a.j, b.j), k: axis(a.k, b.k) };
  return sizeOf(both).every((n) => n > 0) ? both : null;
}

/** Copy what a region has in common with another: `from` holds the samples of `has`, `to` those of `wants`. */
export function copyShared(from: Float32Array, has: Region, to: Float32Array, wants: Region): void {
  const both = shared(has, wants);
  if (!both) return;
  const [, hj, hk] = sizeOf(has);
  const [, wj, wk] = sizeOf(wants);
  const length = both.k[1] - both.k[0];
  const lines = both.j[1] - both.j[0];
  for (let i = both.i[0]; i < both.i[1]; i++) {
    let a = ((i - has.i[0]) * hj + both.j[0] - has.j[0]) * hk + both.k[0] - has.k[0];
    let b = ((i - wants.i[0]) * wj + both.j[0] - wants.j[0]) * wk + both.k[0] - wants.k[0];
    if (length === hk && length === wk) {
      to.set(from.subarray(a, a + lines * hk), b);
      continue;
    }
    for (let j = 0; j < lines; j++, a += hk, b += wk)
      if (length > 16) to.set(from.subarray(a, a + length), b);
      else for (let k = 0; k < length; k++) to[b + k] = from[a + k];
  }
}
