import { z } from 'zod';
import { toIndex } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import { shapeOfGrid } from '../../engine/local.ts';
import { SIDES_REACH, sidesOf } from '../../faults/sides.ts';
import { faultGrid, matchSides, profileOf } from '../../faults/throw.ts';
import { during } from '../../numerics/stop.ts';
import { writeWhole } from '../../storage/arrays.ts';
import { readRegion } from '../../storage/regions.ts';
import { defineStep, number } from '../define.ts';

const params = z.object({
  most: number(
    {
      title: 'Most throw',
      description: 'That is looked for, both ways: reverse faults have it upwards. ms, or m in depth.',
    },
    { min: 8, max: 1000, step: 4, initial: 140 },
  ),
  window: number(
    { title: 'Compared over', description: 'Height over which the two sides are compared. ms, or m in depth.' },
    { min: 8, max: 400, step: 4, initial: 64 },
  ),
  strain: number(
    { title: 'May change by', description: 'Part by which throw may change with depth: 0.2 is 20 ms in 100.' },
    { min: 0.02, max: 0.5, step: 0.01, initial: 0.2 },
  ),
  least: number(
    {
      title: 'Minimum match',
      description: 'Correlation of the two sides, put back, below which throw does not count in the profile.',
    },
    { min: 0, max: 0.95, step: 0.05, initial: 0.4 },
  ),
});

export const faultThrow = defineStep({
  id: 'interpret.throw',
  version: 1,
  stage: 'interpret',
  purpose: 'Faults found',
  title: 'Throw of a fault',
  summary:
    'Matches the two sides of a fault all over its surface: throw and match by strike and depth, displacement along it, and whether it dies out at its ends.',
  formula:
    'T(s, t) of least Σ (f(t − T/2) − h(t + T/2))², with |∂T/∂t| bounded; f, h the two sides brought to the fault along dip.',
  avoid: 'Where the two sides have no beds in common: the match is low there and says so.',
  source: 'Hale (2013), Geophysics 78, S105–S115 and O33–O43; Walsh & Watterson (1988), J. Struct. Geol. 10, 239–247',
  reach: 'global',
  inputs: {
    fault: { kind: 'fault', title: 'Fault' },
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'impedance'] },
  },
  params,
  outputs: { throw: { kind: 'fault throw', title: 'Throw' } },
  async run({ inputs: { fault, seismic }, params: p, store, idFor, signal, progress, warn }) {
    if (fault.domain !== seismic.domain)
      throw new LithagonError('domain', `${fault.name} and ${seismic.name} are not in one domain.`, {
        object: fault.name,
        fix: 'Choose a volume in the domain of the fault. Nothing was changed.',
      });
    const { binGrid, vertical } = seismic;
    const bin = Math.min(Math.hypot(...binGrid.perInline), Math.hypot(...binGrid.perCrossline));
    const grid = faultGrid(fault.sticks, bin, vertical.step);
    if (!grid)
      throw new LithagonError('input', `${fault.name} has fewer than two sticks, so it has no surface.`, {
        object: fault.name,
        fix: 'Draw it on another section too. Nothing was changed.',
      });
    const [ni, nj, nk] = shapeOfGrid(seismic);
    const [i, j]: [number, number][] = [
      [ni, 0],
      [nj, 0],
    ];
    for (let n = 0; n < grid.x.length; n++) {
      if (Number.isNaN(grid.x[n])) continue;
      const at = toIndex(binGrid, grid.x[n], grid.y[n]);
      for (const [axis, range] of [i, j].entries()) {
        range[0] = Math.min(range[0], Math.floor(at[axis]) - SIDES_REACH);
        range[1] = Math.max(range[1], Math.ceil(at[axis]) + SIDES_REACH + 1);
      }
    }
    for (const [range, count] of [
      [i, ni],
      [j, nj],
    ] as const) {
      range[0] = Math.max(0, range[0]);
      range[1] = Math.min(count, range[1]);
    }
    if (i[1] <= i[0] || j[1] <= j[0])
      throw new LithagonError('input', `${fault.name} lies outside of ${seismic.name}.`, {
        object: fault.name,
        fix: 'Choose a volume that it lies in. Nothing was changed.',
      });
    const region = { i, j, k: [0, nk] as [number, number] };
    const data = await readRegion(store, seismic, region);
    progress(0.2);
    const made = during(signal, () => {
      const sides = sidesOf(grid, { data, region, binGrid, first: vertical.first, step: vertical.step });
      progress(0.5);
      return matchSides(sides.foot, sides.hanging, grid.rows, grid.levels, {
        most: p.most / vertical.step,
        window: p.window / vertical.step,
        strain: p.strain,
      });
    });
    const profile = profileOf(made, grid.rows, grid.levels, p.least);
    if (Number.isNaN(profile.greatest))
      warn(
        'Nowhere do the two sides match well enough for a throw to count: a longer window, or more throw, may help.',
      );
    const open = profile.tapers.flatMap((dies, n) => (dies ? [] : [n === 0 ? 'first' : 'last']));
    if (!Number.isNaN(profile.greatest) && open.length > 0)
      warn(
        `Throw does not die out at the ${open.join(' and the ')} end along strike: the fault goes on there, or is linked to another, or the surface ends too early.`,
      );
    const scaled = made.values.map((v) => v * vertical.step);
    const id = idFor('throw');
    const places = new Float32Array(2 * grid.x.length);
    for (let n = 0; n < grid.x.length; n++) {
      const at = toIndex(binGrid, grid.x[n], grid.y[n]);
      places.set(at, 2 * n);
    }
    const shape = [grid.rows, grid.levels];
    return {
      throw: {
        kind: 'fault throw' as const,
        of: fault.name,
        domain: fault.domain,
        binGrid,
        first: grid.first,
        step: grid.step,
        alongM: grid.along[grid.rows - 1],
        values: await writeWhole(store, `${id}/values`, shape, scaled, ['row', 'level']),
        match: await writeWhole(store, `${id}/match`, shape, made.match, ['row', 'level']),
        places: await writeWhole(store, `${id}/places`, [...shape, 2], places, ['row', 'level', 'axis']),
        profile: Array.from(profile.most, (v) => (Number.isNaN(v) ? null : v * vertical.step)),
        greatest: Number.isNaN(profile.greatest) ? null : profile.greatest * vertical.step,
        tapers: profile.tapers,
      },
    };
  },
});
