import { roomIn, threadKernels } from '@lithagon/kernels';
import {
  addToRegional,
  finishRegional,
  type Lattice,
  latticeOver,
  latticeTrace,
  REGIONAL_REACH,
  type Regional,
  regionalSums,
} from '../attributes/regional.ts';
import type { Block, Halo, Region, Shape3 } from '../numerics/block.ts';

/** Traces on each side that are compared with those of the other. */
export const ACROSS = 3;

/** How the two sides of a plane through each sample differ, and what that comes to where there is no fault. */
export interface Evened extends Regional {
  /** What a scan finds on the whole where there is no fault: a lattice of its own, much coarser. */
  noise: Lattice & { values: Float32Array };
}

/** Steepest dip that is followed, samples a trace. */
export const STEEPEST = 4;

/** Cells of the lattice on which dips, energy and noise are kept: lines, traces, samples. */
const CELL: Shape3 = [4, 4, 8];
/** Cells of that of noise. */
const NOISE_CELL: Shape3 = [16, 16, 32];

/** What differences need around a region. */
export const acrossHalo = (): Halo => ({ inline: ACROSS, crossline: ACROSS, sample: ACROSS * STEEPEST + 3 });

/** Differences of the traces ahead and behind, along lines and along traces. */
export interface Differences {
  i: Float32Array;
  j: Float32Array;
}

/**
 * The mean of the three traces ahead, each moved to here along the regional dip, less that of the three behind; over the root of the
 * local energy. Where beds go on it is noise; where they are broken it is as large as they are. 0 where nothing can be compared.
 * @param block samples with `more` and `acrossHalo` around what is wanted
 * @param more how far beyond the region differences are wanted
 */
export function differencesAcross(
  { data, size, halo, from }: Pick<Block, 'data' | 'size' | 'halo' | 'from'>,
  regional: Regional,
  more: Halo,
): Differences {
  const [ni, nj, nk] = [
    size[0] - 2 * (halo.inline - more.inline),
    size[1] - 2 * (halo.crossline - more.crossline),
    size[2] - 2 * (halo.sample - more.sample),
  ];
  const out: Differences = { i: new Float32Array(ni * nj * nk), j: new Float32Array(ni * nj * nk) };
  const [hi, hj, hk] = [halo.inline - more.inline, halo.crossline - more.crossline, halo.sample - more.sample];
  const mk = size[2];
  const wide = (mk + 3) & ~3;
  const kernels = threadKernels();
  const room = roomIn(kernels);
  const [source, p, q] = Array.from({ length: 3 }, () => room.take(wide));
  const [ahead, behind] = [0, 1].map(() => room.take((ACROSS + 1) * wide));
  const rows = [source, p, q].map((at) => room.floats(at, wide).fill(0));
  const sides = [ahead, behind].map((at) =>
    Array.from({ length: ACROSS + 1 }, (_, r) => room.floats(at + 4 * r * wide, wide)),
  );
  const energy = new Float32Array(mk);
  const k0 = from[2] - halo.sample;
  const counts = new Float32Array(nk);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const [gi, gj] = [from[0] - more.inline + i, from[1] - more.crossline + j];
      latticeTrace(regional.energy, regional, gi, gj, k0, energy);
      const to = (i * nj + j) * nk;
      for (const [axis, own] of [out.i, out.j].entries()) {
        counts.fill(0);
        for (const [n, at] of [ahead, behind].entries()) {
          const s = n === 0 ? 1 : -1;
          // each side is carried on by its own dip, so that a bend of beds is no break
          const [oi, oj] = axis === 0 ? [s * (ACROSS - 1), 0] : [0, s * (ACROSS - 1)];
          latticeTrace(axis === 0 ? regional.p : regional.q, regional, gi + oi, gj + oj, k0, rows[1].subarray(0, mk));
          for (let r = 1; r <= ACROSS; r++) {
            const trace = ((i + hi + (axis === 0 ? s * r : 0)) * size[1] + j + hj + (axis === 0 ? 0 : s * r)) * mk;
            rows[0].set(data.subarray(trace, trace + mk));
            rows[0].fill(Number.NaN, mk);
            kernels.moved(source, p, q, s * r, 0, at + 4 * r * wide, wide);
          }
        }
        for (let r = 1; r <= ACROSS; r++) {
          for (let k = 0; k < nk; k++) {
            const d = sides[0][r][k + hk] - sides[1][r][k + hk];
            if (d !== d) continue;
            own[to + k] += d;
            counts[k]++;
          }
        }
        // of fewer traces, as beside the edge of a survey, noise would be left more than of all: they count less
        for (let k = 0; k < nk; k++)
          own[to + k] =
            counts[k] > 0 && energy[k + hk] > 0 ? own[to + k] / Math.sqrt(ACROSS * counts[k] * energy[k + hk]) : 0;
      }
    }
  return out;
}

/** How lines of a volume are read: whole, with NaN where there is none. */
type Lines = (from: number, to: number) => Promise<Float32Array>;

const SLAB = 32;

/** Every how many lines and traces the noise is looked at. */
const EVERY = 4;

/** Regional dips, energy and noise of a volume, read slab by slab twice. */
export async function evenOut(shape: Shape3, lines: Lines, heed: () => void): Promise<Evened> {
  const [ni, nj, nk] = shape;
  const sums = regionalSums(shape, CELL);
  for (let i = 0; i < ni; i += SLAB) {
    heed();
    const to = Math.min(ni, i + SLAB);
    addToRegional(sums, await lines(i - REGIONAL_REACH, to + REGIONAL_REACH), i, to);
  }
  const regional = finishRegional(sums, [1.2, 1.2, 1.6], STEEPEST);
  const noise = noiseOver(shape);
  for (let i = 1; i < ni; i += EVERY) {
    heed();
    const data = await lines(i - ACROSS, i + ACROSS + 1);
    for (let j = ACROSS + 1; j < nj - ACROSS; j += EVERY) {
      const width = 2 * ACROSS + 1;
      const own = new Float32Array(width * width * nk);
      for (let a = 0; a < width; a++)
        own.set(data.subarray((a * nj + j - ACROSS) * nk, (a * nj + j + ACROSS + 1) * nk), a * width * nk);
      const d = differencesAcross(
        {
          data: own,
          size: [width, width, nk],
          halo: { inline: ACROSS, crossline: ACROSS, sample: 0 },
          from: [i, j, 0],
        },
        regional,
        { inline: 0, crossline: 0, sample: 0 },
      );
      // means over a few samples, so that what is between wavelets does not stand for the whole
      for (let k = 0; k + CELL[2] <= nk; k += CELL[2]) {
        let [sum, count] = [0, 0];
        for (let m = k; m < k + CELL[2]; m++) {
          const v = 0.5 * (d.i[m] ** 2 + d.j[m] ** 2);
          if (v > 0) count++;
          sum += v;
        }
        if (count > 0) noise.add(i, j, k, sum / count);
      }
    }
  }
  return { ...regional, noise: noise.finish() };
}

/** Collects what is found where, and gives its median over wide windows: faults, which are few, do not count. */
function noiseOver(shape: Shape3) {
  const lattice = latticeOver(shape, NOISE_CELL);
  const [ni, nj, nk] = lattice.size;
  const held: number[][] = Array.from({ length: ni * nj * nk }, () => []);
  return {
    add(i: number, j: number, k: number, v: number) {
      const [a, b, c] = [i, j, k].map((n, axis) => Math.floor(n / NOISE_CELL[axis]));
      held[(a * nj + b) * nk + c].push(v);
    },
    finish() {
      const values = new Float32Array(held.length).fill(Number.NaN);
      for (let a = 0; a < ni; a++)
        for (let b = 0; b < nj; b++)
          for (let c = 0; c < nk; c++) {
            const around: number[] = [];
            for (let x = Math.max(0, a - 1); x <= Math.min(ni - 1, a + 1); x++)
              for (let y = Math.max(0, b - 1); y <= Math.min(nj - 1, b + 1); y++)
                for (let z = Math.max(0, c - 1); z <= Math.min(nk - 1, c + 1); z++)
                  for (const v of held[(x * nj + y) * nk + z]) around.push(v);
            around.sort((p, q) => p - q);
            values[(a * nj + b) * nk + c] = around.length > 0 ? around[around.length >> 1] : 0;
          }
      return { ...lattice, values };
    },
  };
}

/** What a plain discontinuity comes to where there is no fault, on the same lattice: its mean over wide windows. */
export async function evenOutPlain(
  shape: Shape3,
  lines: Lines,
  unlike: (v: number) => number,
  heed: () => void,
): Promise<Evened> {
  const [ni, nj, nk] = shape;
  const noise = noiseOver(shape);
  for (let i = 1; i < ni; i += EVERY) {
    heed();
    const data = await lines(i, i + 1);
    for (let j = 0; j < nj; j += EVERY)
      for (let k = 0; k < nk; k += 2) {
        const v = unlike(data[j * nk + k]);
        if (v === v) noise.add(i, j, k, v);
      }
  }
  const none = latticeOver(shape, shape);
  const flat = new Float32Array(1);
  return { ...none, p: flat, q: flat, plane: flat, energy: flat, noise: noise.finish() };
}

/**
 * Turn the mean over a plane into a strength from 0, as like as what is around, to 1, nothing in common.
 * @param most what the mean comes to where two sides have nothing in common
 */
export function strengthOver(mean: Float32Array, evened: Evened, region: Region, most: number): Float32Array {
  const [ni, nj, nk] = [region.i[1] - region.i[0], region.j[1] - region.j[0], region.k[1] - region.k[0]];
  const noise = new Float32Array(nk);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      latticeTrace(evened.noise.values, evened.noise, region.i[0] + i, region.j[0] + j, region.k[0], noise);
      const at = (i * nj + j) * nk;
      for (let k = 0; k < nk; k++) {
        const below = Math.min(noise[k], 0.95 * most);
        mean[at + k] = Math.max(0, Math.min(1, (mean[at + k] - below) / (most - below)));
      }
    }
  return mean;
}
