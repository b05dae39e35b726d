import { describe, expect, test } from 'vitest';
import type { Block, Halo } from '../numerics/block.ts';
import { madeBlock } from '../testing/blocks.ts';
import { normal } from '../testing/random.ts';
import { diffusionAlong, edgePreserving, medianAlong } from './alongStructure.ts';
import { COHERENCE_MEASURES, coherence } from './coherence.ts';
import type { Slopes } from './tensorDip.ts';

const beds = (z: number) => Math.sin(0.45 * z) + Math.sin(0.7 * z + 1) + 0.6 * Math.sin(1.1 * z + 2);

/** The same slope everywhere, over what is wanted and so much more. */
function slopes([ni, nj, nk]: [number, number, number], p: number, q: number, more: Halo, chaos = 0): Slopes {
  const size: Slopes['size'] = [ni + 2 * more.inline, nj + 2 * more.crossline, nk + 2 * more.sample];
  const fill = (v: number) => new Float32Array(size[0] * size[1] * size[2]).fill(v);
  return { p: fill(p), q: fill(q), chaos: fill(chaos), size };
}
const mean = (v: Float32Array) => v.reduce((a, b) => a + b, 0) / v.length;

const HALF = 5;
const HALO: Halo = { inline: 1, crossline: 1, sample: HALF + 12 };
const DOWN: Halo = { inline: 0, crossline: 0, sample: HALF };

describe.each(COHERENCE_MEASURES)('%s along dip', (measure) => {
  const alike = measure === 'variance' ? 0 : 1;
  test('says that dipping beds are alike, and that along another slope they are not', () => {
    const size: [number, number, number] = [3, 5, 25];
    const dipping = madeBlock(size, HALO, (i, j, k) => beds(k - 1.6 * i + 0.7 * j));
    const along = coherence(dipping, slopes(size, 1.6, -0.7, DOWN), 1, HALF, measure);
    const across = coherence(dipping, slopes(size, 0, 0, DOWN), 1, HALF, measure);
    for (const v of along) expect(Math.abs(v - alike)).toBeLessThan(0.02);
    expect(Math.abs(mean(across) - alike)).toBeGreaterThan(0.2);
  });
  test('stands out at a fault and nowhere a bin away', () => {
    const size: [number, number, number] = [3, 9, 15];
    const faulted = madeBlock(size, HALO, (_, j, k) => beds(k - 0.8 * j - (j >= 4 ? 2.6 : 0)));
    const out = coherence(faulted, slopes(size, 0, 0.8, DOWN), 1, HALF, measure);
    const at = (j: number) => Math.abs(mean(out.subarray((9 + j) * 15, (10 + j) * 15)) - alike);
    expect(Math.min(at(3), at(4))).toBeGreaterThan(0.15);
    for (const j of [0, 1, 2, 5, 6, 7, 8]) expect(at(j)).toBeLessThan(0.02);
  });
  test('has none where there is no trace, and leaves one out that is missing beside it', () => {
    const size: [number, number, number] = [5, 5, 8];
    const holed = madeBlock(size, HALO, (i, j, k) => (i === 2 && j === 2 ? Number.NaN : beds(k)));
    const out = coherence(holed, slopes(size, 0, 0, DOWN), 1, HALF, measure);
    for (let t = 0; t < 25; t++)
      for (let k = 0; k < 8; k++) if (t !== 12) expect(Math.abs(out[t * 8 + k] - alike)).toBeLessThan(0.02);
  });
  test('does not change with amplitude', () => {
    const size: [number, number, number] = [3, 3, 12];
    const noise = normal(3);
    const quiet = madeBlock(size, HALO, noise);
    const loud = { ...quiet, data: quiet.data.map((v) => v * 3000) };
    const [a, b] = [quiet, loud].map((x) => coherence(x, slopes(size, 0, 0, DOWN), 1, HALF, measure));
    for (let n = 0; n < a.length; n++) expect(b[n]).toBeCloseTo(a[n], 3);
  });
});

test('eigenstructure forgives what only changes in strength; semblance does not', () => {
  const size: [number, number, number] = [3, 5, 20];
  const fading = madeBlock(size, HALO, (i, j, k) => (1 + 0.45 * i) * (1 + 0.45 * j) * beds(k));
  const flat = slopes(size, 0, 0, DOWN);
  expect(mean(coherence(fading, flat, 1, HALF, 'eigenstructure'))).toBeGreaterThan(0.995);
  expect(mean(coherence(fading, flat, 1, HALF, 'semblance'))).toBeLessThan(0.95);
});

describe('filters along structure', () => {
  const NONE: Halo = { inline: 0, crossline: 0, sample: 0 };
  const size: [number, number, number] = [9, 12, 20];
  const THROW = 5.3;
  /** Dipping beds, cut by a fault at crossline 6. */
  const earth = (i: number, j: number, k: number) => beds(k - 0.5 * i + 0.9 * j - (j >= 6 ? THROW : 0));
  const TURNS = 4;
  const filters = [
    ['median', { inline: 1, crossline: 1, sample: 8 }, (b: Block) => medianAlong(b, slopes(size, 0.5, -0.9, NONE), 1)],
    [
      'edge-preserving mean',
      { inline: 2, crossline: 2, sample: 8 },
      (b: Block) => edgePreserving(b, slopes(size, 0.5, -0.9, NONE), 2),
    ],
    [
      'diffusion',
      { inline: TURNS, crossline: TURNS, sample: 4 * TURNS },
      (b: Block) => {
        const more: Halo = { inline: TURNS - 1, crossline: TURNS - 1, sample: 4 * (TURNS - 1) };
        const s = slopes(size, 0.5, -0.9, more);
        // disorder at the fault, as the tensor finds it there
        for (let n = 0; n < s.chaos.length; n++) {
          const j = (Math.floor(n / s.size[2]) % s.size[1]) - more.crossline;
          if (j === 5 || j === 6) s.chaos[n] = 1;
        }
        return diffusionAlong(b, s, TURNS, 8, 4);
      },
    ],
  ] as const;
  test.each(
    filters,
  )('%s takes noise out, keeps the beds, and leaves the edge of a fault within a bin', (_, halo, filter) => {
    const noise = normal(11);
    const clean = madeBlock(size, halo, earth);
    const noisy = { ...clean, data: clean.data.map((v) => v + 0.4 * noise()) };
    const out = filter(noisy);
    const own = filter(clean);
    const off = (of: Float32Array, want: (j: number) => boolean) => {
      let [sum, n] = [0, 0];
      for (let i = 0, at = 0; i < size[0]; i++)
        for (let j = 0; j < size[1]; j++)
          for (let k = 0; k < size[2]; k++, at++)
            if (want(j)) {
              sum += (of[at] - earth(i, j, k)) ** 2;
              n++;
            }
      return Math.sqrt(sum / n);
    };
    expect(off(out, (j) => j < 4 || j > 7)).toBeLessThan(0.3);
    // a clean earth stays as it is up to the fault: what is changed is the bin at it on either side
    expect(off(own, (j) => j < 5 || j > 6)).toBeLessThan(0.06);
    // both sides keep their own beds at the fault: nearer to them than to those of the other side
    for (const j of [5, 6]) {
      const other = (i: number, k: number) => beds(k - 0.5 * i + 0.9 * j - (j >= 6 ? 0 : THROW));
      let [mine, theirs] = [0, 0];
      for (let i = 0; i < size[0]; i++)
        for (let k = 0; k < size[2]; k++) {
          const v = own[(i * size[1] + j) * size[2] + k];
          mine += (v - earth(i, j, k)) ** 2;
          theirs += (v - other(i, k)) ** 2;
        }
      expect(mine).toBeLessThan(0.25 * theirs);
    }
  });
});
