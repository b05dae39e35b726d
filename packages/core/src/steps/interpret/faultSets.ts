import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { angleBetween, meanOrientation, type Orientation } from '../../faults/orientation.ts';
import { planeOfFault } from '../../faults/plane.ts';
import { findSets } from '../../faults/sets.ts';
import { choice, defineStep, number } from '../define.ts';

const params = z.object({
  way: choice(
    {
      title: 'Sets',
      description: 'Found by how poles gather, or by what is drawn on the net: each drawn circle is a set.',
    },
    ['found', 'drawn on the net'],
    'found',
  ),
  count: number(
    { title: 'How many', description: '0 lets the data say, by the Bayesian information criterion.' },
    { min: 0, max: 8, whole: true, initial: 0 },
  ),
  weight: choice(
    { title: 'Each counts', description: 'By its area, or every fault the same.' },
    ['by area', 'the same'],
    'by area',
  ),
  velocity: number(
    {
      title: 'Velocity',
      description: 'That turns time into depth for faults that were not found in a volume.',
      unit: 'm/s',
    },
    { min: 300, max: 8000, step: 50, initial: 2500 },
  ),
  seed: number({ title: 'Seed', description: 'Of the first guesses.' }, { min: 1, max: 9999, whole: true, initial: 1 }),
  circles: z
    .array(
      z.object({
        dip: z.number().min(0).max(90).meta({ title: 'Dip', unit: '°' }),
        azimuth: z.number().min(0).max(360).meta({ title: 'Dips towards', unit: '°' }),
        within: z.number().min(0.5).max(90).meta({ title: 'Within', unit: '°' }),
      }),
    )
    .max(12)
    .default([])
    .meta({
      title: 'Circles',
      description: 'Drawn on the net: planes within so much of this one. The first that holds a fault counts.',
    }),
});

/** A name by strike and by the side that a set dips to. */
function nameOf({ dip, azimuth }: Orientation): string {
  const points = ['N', 'NNE', 'NE', 'ENE', 'E', 'ESE', 'SE', 'SSE', 'S', 'SSW', 'SW', 'WSW', 'W', 'WNW', 'NW', 'NNW'];
  return `${dip > 85 ? 'Upright, to' : 'To'} ${points[Math.round(azimuth / 22.5) % 16]}`;
}

/** Names that differ, by a number where they would not. */
const apart = (names: string[]) =>
  names.map((name, n) => {
    const before = names.slice(0, n).filter((other) => other === name).length;
    return before > 0 ? `${name} ${before + 1}` : name;
  });

export const faultSets = defineStep({
  id: 'interpret.faultSets',
  version: 1,
  stage: 'interpret',
  purpose: 'Faults found',
  title: 'Fault sets',
  summary:
    'Sorts faults by strike and dip: into as many sets as their poles gather in, or into those drawn on the net.',
  formula: 'f(x) = Σ πₛ M(½, 3⁄2, κₛ)⁻¹ exp(κₛ (μₛ·x)²) over the poles x, by expectation and maximization.',
  avoid: 'With a handful of faults: a set of two is no set.',
  source:
    'Mardia & Jupp (2000), Directional Statistics, ch. 9–10; Bijral et al. (2007), AISTATS, 35–42; Schwarz (1978), Annals of Statistics 6, 461–464',
  reach: 'global',
  inputs: { faults: { kind: 'fault', title: 'Faults', many: true } },
  params,
  outputs: { sets: { kind: 'fault sets', title: 'Fault sets' } },
  async run({ inputs: { faults }, params: p, warn }) {
    const known = faults.flatMap((fault) => {
      const plane = planeOfFault(fault, p.velocity);
      return plane ? [{ fault, ...plane }] : [];
    });
    if (known.length === 0)
      throw new LithagonError('input', 'None of the faults has two sticks, so none has a plane.', {
        fix: 'Choose faults that are surfaces. Nothing was changed.',
      });
    if (known.length < faults.length)
      warn(`${faults.length - known.length} of ${faults.length} faults have no plane, and are in no set.`);
    const weights = known.map((k) => (p.weight === 'by area' ? Math.max(1, k.areaM2) : 1));
    if (p.way === 'drawn on the net') {
      if (p.circles.length === 0)
        throw new LithagonError('params', 'No circle is drawn on the net.', {
          fix: 'Drag one over the poles that belong together, or let sets be found.',
        });
      const of = known.map((k) => p.circles.findIndex((c) => angleBetween(k, c) <= c.within));
      const sets = p.circles.map((circle, s) => {
        const own = known.map((_, n) => n).filter((n) => of[n] === s);
        return own.length > 0
          ? meanOrientation(
              own.map((n) => known[n]),
              own.map((n) => weights[n]),
            )
          : circle;
      });
      const names = apart(sets.map(nameOf));
      return {
        sets: {
          kind: 'fault sets' as const,
          sets: sets.map(({ dip, azimuth }, n) => ({ name: names[n], dip, azimuth })),
          members: known.map(({ fault, dip, azimuth, areaM2 }, n) => ({
            fault: fault.id,
            name: fault.name,
            set: of[n],
            dip,
            azimuth,
            areaM2,
            sure: 1,
          })),
        },
      };
    }
    if (p.count > known.length)
      warn(`${p.count} sets were asked for, and there are ${known.length} faults: each is a set of its own.`);
    const { sets, of, sure } = findSets(known, weights, p.count || null, 6, p.seed);
    const names = apart(sets.map(nameOf));
    return {
      sets: {
        kind: 'fault sets' as const,
        sets: sets.map(({ dip, azimuth, kappa, share }, n) => ({ name: names[n], dip, azimuth, kappa, share })),
        members: known.map(({ fault, dip, azimuth, areaM2 }, n) => ({
          fault: fault.id,
          name: fault.name,
          set: of[n],
          dip,
          azimuth,
          areaM2,
          sure: sure[n],
        })),
      },
    };
  },
});
