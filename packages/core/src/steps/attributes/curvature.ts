import { z } from 'zod';
import { CURVATURES, curvatureOf } from '../../attributes/curvature.ts';
import { gaussian } from '../../attributes/tensorDip.ts';
import type { BinGrid } from '../../earth/binGrid.ts';
import { SEISMIC_LIKE } from '../../earth/quantities.ts';
import type { Halo, Shape3 } from '../../numerics/block.ts';
import { choice, defineStep, number } from '../define.ts';
import { dipHalo, dipParams, plus, type Steering, slopesIn, steeringInputs, steeringOf, wider } from './steering.ts';

const params = z.object({
  kind: choice(
    {
      title: 'Curvature',
      description:
        'Most positive at crests and the upthrown side of faults, most negative at troughs; dip and azimuth of the same surface.',
    },
    [...CURVATURES],
    'most positive',
  ),
  scale: number(
    {
      title: 'Scale',
      description: 'Traces over which slopes are compared, as a standard deviation: larger shows broader folds.',
      unit: 'traces',
    },
    { min: 0.5, max: 6, step: 0.5, initial: 1.5 },
  ),
  velocity: number(
    { title: 'Velocity', description: 'By which time becomes depth; not used in depth.', unit: 'm/s' },
    { min: 300, max: 8000, step: 50, initial: 2000 },
  ),
  ...dipParams,
});

type Params = z.infer<typeof params>;

const radiusOf = ({ scale }: Params) => Math.max(1, Math.ceil(2 * scale));
const beyond = (p: Params): Halo => ({ inline: radiusOf(p), crossline: radiusOf(p), sample: 0 });

/** What slopes in samples a trace are turned into map slopes by. */
interface Ready extends Steering {
  /** Metres of a sample. */
  metres: number;
  grid: Pick<BinGrid, 'perInline' | 'perCrossline'>;
}

/** The vector whose products with both steps of a grid are these. */
function solve({ perInline: [a, b], perCrossline: [c, d] }: Ready['grid'], along: number, across: number) {
  const det = a * d - b * c;
  return [(along * d - across * b) / det, (across * a - along * c) / det] as const;
}

export const curvature = defineStep({
  id: 'attributes.curvature',
  version: 1,
  stage: 'attributes',
  purpose: 'Structure',
  title: 'Curvature',
  summary: 'How reflections bend, from the change of their dip: folds, flexures and faults too small to break them.',
  formula:
    'k₊ = a + b + √((a − b)² + c²), a = ½∂p/∂x, b = ½∂q/∂y, c = ½(∂p/∂y + ∂q/∂x); and those that follow from them.',
  avoid: 'On noisy data without smoothing along structure first: derivatives of dip raise noise.',
  source: 'Al-Dossary & Marfurt (2006), Geophysics 71, P41–P51; Roberts (2001), First Break 19, 85–100',
  reach: 'local',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: SEISMIC_LIKE },
    ...steeringInputs,
  },
  params,
  outputs: { curvature: { kind: 'volume', title: 'Curvature' } },
  local: {
    volumes: ['seismic', 'inlineDip', 'crosslineDip'],
    halo: (p, volume) => wider(plus(dipHalo(p, volume), beyond(p)), beyond(p)),
    ready: (_, p, volumes): Ready => ({
      ...steeringOf(volumes),
      metres: volumes.seismic.vertical.step * (volumes.seismic.domain === 'depth' ? 1 : p.velocity / 2000),
      grid: volumes.seismic.binGrid,
    }),
    evaluate(blocks, p, ready: Ready) {
      const slopes = slopesIn(blocks, p, ready, beyond(p));
      const radius = radiusOf(p);
      const [mi, mj, nk] = slopes.size;
      const size: Shape3 = [mi - 2 * radius, mj - 2 * radius, nk];
      const out = new Float32Array(size[0] * size[1] * nk);
      const { smoothed, along, across } = derivativesOf(slopes.p, slopes.q, slopes.size, radius, p.scale);
      for (let n = 0; n < out.length; n++) {
        const [gx, gy] = solve(ready.grid, smoothed[0][n] * ready.metres, smoothed[1][n] * ready.metres);
        // how the map slope changes from a line to the next and from a trace to the next
        const [xi, yi] = solve(ready.grid, along[0][n] * ready.metres, along[1][n] * ready.metres);
        const [xj, yj] = solve(ready.grid, across[0][n] * ready.metres, across[1][n] * ready.metres);
        const [px, py] = solve(ready.grid, xi, xj);
        const [qx, qy] = solve(ready.grid, yi, yj);
        out[n] = curvatureOf({ p: gx, q: gy, px, py, qx, qy }, p.kind);
      }
      return { curvature: out };
    },
    outputOf(_, p) {
      if (p.kind === 'dip') return { quantity: 'dip angle', unit: '°' };
      if (p.kind === 'azimuth') return { quantity: 'azimuth', unit: '°' };
      return { quantity: 'curvature', unit: p.kind === 'shape index' ? '' : p.kind === 'Gaussian' ? '1/m²' : '1/m' };
    },
  },
});

/** Slopes smoothed over a scale, and their derivatives along lines’ and traces’ count, of all but the outer `radius`. */
function derivativesOf(p: Float32Array, q: Float32Array, [mi, mj, nk]: Shape3, radius: number, scale: number) {
  const weights = gaussian(scale, radius);
  const moment = weights.reduce((s, w, n) => s + w * (n - radius) ** 2, 0);
  const slope = weights.map((w, n) => (w * (n - radius)) / moment);
  const [ni, nj] = [mi - 2 * radius, mj - 2 * radius];
  const made = () => [new Float32Array(ni * nj * nk), new Float32Array(ni * nj * nk)] as const;
  const [smoothed, along, across] = [made(), made(), made()];
  for (const [c, source] of [p, q].entries()) {
    // across lines first, then across traces
    const flat = new Float32Array(ni * mj * nk);
    const rise = new Float32Array(ni * mj * nk);
    for (let i = 0; i < ni; i++)
      for (let d = 0; d <= 2 * radius; d++) {
        const from = (i + d) * mj * nk;
        const to = i * mj * nk;
        for (let n = 0; n < mj * nk; n++) {
          flat[to + n] += weights[d] * source[from + n];
          rise[to + n] += slope[d] * source[from + n];
        }
      }
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++)
        for (let d = 0; d <= 2 * radius; d++) {
          const from = (i * mj + j + d) * nk;
          const to = (i * nj + j) * nk;
          for (let k = 0; k < nk; k++) {
            smoothed[c][to + k] += weights[d] * flat[from + k];
            along[c][to + k] += weights[d] * rise[from + k];
            across[c][to + k] += slope[d] * flat[from + k];
          }
        }
  }
  return { smoothed, along, across };
}
