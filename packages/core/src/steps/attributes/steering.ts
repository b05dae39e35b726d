import { searchHalo, searchSlopes } from '../../attributes/searchDip.ts';
import { type Slopes, tensorHalo, tensorSlopes } from '../../attributes/tensorDip.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Volume } from '../../earth/objects.ts';
import type { Quantity } from '../../earth/quantities.ts';
import type { Volumes } from '../../engine/local.ts';
import type { Block, Halo } from '../../numerics/block.ts';
import { choice, number } from '../define.ts';

/** Dips that a step may be given; where it is not, it works them out on the way. */
const dipInput = (along: string) => ({
  kind: 'volume' as const,
  title: `Dip along ${along}`,
  quantity: ['dip'] as Quantity[],
  optional: true as const,
});
export const steeringInputs = {
  inlineDip: dipInput('inlines’ count'),
  crosslineDip: dipInput('crosslines’ count'),
};

/** How dips are worked out, and how steep they may be. */
export const dipParams = {
  lateral: number(
    {
      title: 'Dip over',
      description: 'Traces over which dip is smoothed, as a standard deviation; not used where dips are given.',
      unit: 'traces',
    },
    { min: 0.5, max: 4, step: 0.5, initial: 1 },
  ),
  dipWindowMs: number(
    {
      title: 'Dip window',
      description: 'Height over which dip is smoothed, as two standard deviations; not used where dips are given.',
      unit: 'ms',
    },
    { min: 4, max: 120, step: 4, initial: 24 },
  ),
  mostDipMs: number(
    { title: 'Steepest dip', description: 'That is followed, from a trace to the next.', unit: 'ms/trace' },
    { min: 1, max: 40, step: 1, initial: 12 },
  ),
};

export const dipWay = choice(
  {
    title: 'Dip by',
    description:
      'The structure tensor is quick and smooth; the search for the greatest semblance is slow and firm on noise.',
  },
  ['structure tensor', 'semblance search'],
  'structure tensor',
);

export interface DipParams {
  lateral: number;
  dipWindowMs: number;
  mostDipMs: number;
  by?: 'structure tensor' | 'semblance search';
}

const tensorOf = (p: DipParams, step: number) => ({
  lateral: p.lateral,
  vertical: Math.max(0.5, p.dipWindowMs / 2 / step),
});

const searchOf = (p: DipParams, step: number) => ({
  radius: Math.max(1, Math.round(p.lateral)),
  half: Math.max(1, Math.round(p.dipWindowMs / 2 / step)),
  most: p.mostDipMs / step,
});

/** What dips need around them. */
export const dipHalo = (p: DipParams, { vertical: { step } }: Pick<Volume, 'vertical'>): Halo =>
  p.by === 'semblance search' ? searchHalo(searchOf(p, step)) : tensorHalo(tensorOf(p, step));

/** How far a trace of `radius` lines or traces away may be moved along dip, samples. */
export const movedBy = (p: DipParams, step: number, radius: number) => Math.ceil((2 * radius * p.mostDipMs) / step) + 3;

/** Halos that hold both. */
export const wider = (a: Halo, b: Halo): Halo => ({
  inline: Math.max(a.inline, b.inline),
  crossline: Math.max(a.crossline, b.crossline),
  sample: Math.max(a.sample, b.sample),
});
export const plus = (a: Halo, b: Halo): Halo => ({
  inline: a.inline + b.inline,
  crossline: a.crossline + b.crossline,
  sample: a.sample + b.sample,
});

/** What dips are given in is turned into samples a trace by. */
export interface Steering {
  perInline: number;
  perCrossline: number;
}

/** Dips are ms, or m, a kilometre: the same on every grid. */
export function steeringOf(volumes: Volumes): Steering {
  const { seismic, inlineDip, crosslineDip } = volumes;
  if ((inlineDip === undefined) !== (crosslineDip === undefined))
    throw new LithagonError('input', 'Dips are given along one of the two counts alone.', {
      object: (inlineDip ?? crosslineDip).name,
      fix: 'Choose both dips of one run, or neither.',
    });
  const { binGrid, vertical } = seismic;
  return {
    perInline: Math.hypot(...binGrid.perInline) / 1000 / vertical.step,
    perCrossline: Math.hypot(...binGrid.perCrossline) / 1000 / vertical.step,
  };
}

/**
 * Slopes, no steeper than they may be: those given, or those of the seismic.
 * @param disorder whether that is wanted too: it is the seismic's, whoever gave the dips
 */
export function slopesIn(
  blocks: Record<string, Block>,
  p: DipParams,
  steering: Steering,
  more: Halo,
  disorder = false,
): Slopes {
  const { seismic, inlineDip, crosslineDip } = blocks;
  const step = seismic.stepMs;
  const most = p.mostDipMs / step;
  const found =
    inlineDip && crosslineDip && !disorder
      ? roomFor(seismic, more)
      : p.by === 'semblance search'
        ? searchSlopes(seismic, searchOf(p, step), more)
        : tensorSlopes(seismic, tensorOf(p, step), more);
  if (inlineDip && crosslineDip) {
    inside(inlineDip, found.p, found.size, steering.perInline);
    inside(crosslineDip, found.q, found.size, steering.perCrossline);
  }
  for (const slopes of [found.p, found.q])
    for (let n = 0; n < slopes.length; n++) {
      const v = slopes[n];
      slopes[n] = v > most ? most : v < -most ? -most : v === v ? v : 0;
    }
  return found;
}

/** Slopes of nothing, over what is wanted and so much more. */
function roomFor({ size, halo }: Block, more: Halo): Slopes {
  const wanted: Slopes['size'] = [
    size[0] - 2 * (halo.inline - more.inline),
    size[1] - 2 * (halo.crossline - more.crossline),
    size[2] - 2 * (halo.sample - more.sample),
  ];
  const made = () => new Float32Array(wanted[0] * wanted[1] * wanted[2]);
  return { p: made(), q: made(), chaos: made(), size: wanted };
}

/** The middle of a block of dips as slopes. */
function inside({ data, size: [mi, mj, mk] }: Block, to: Float32Array, [ni, nj, nk]: Slopes['size'], by: number): void {
  const [di, dj, dk] = [(mi - ni) >> 1, (mj - nj) >> 1, (mk - nk) >> 1];
  for (let i = 0, n = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const from = ((i + di) * mj + j + dj) * mk + dk;
      for (let k = 0; k < nk; k++, n++) to[n] = data[from + k] * by;
    }
}
