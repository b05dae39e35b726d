import { z } from 'zod';
import { LEAST_RATE } from '../../age/monotone.ts';
import { VALID_ENDS, validDown } from '../../age/valid.ts';
import { sameBins } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import { shapeOfGrid } from '../../engine/local.ts';
import { extentOf } from '../../numerics/extent.ts';
import { writeWhole } from '../../storage/arrays.ts';
import { readRegion } from '../../storage/regions.ts';
import { defineStep, number } from '../define.ts';

const SLAB = 32;

const params = z.object({
  mostMisfit: number(
    {
      title: 'Most misfit',
      description:
        'Ages that leave the dips by more than this from a trace to the next are not believed; ms, or m in depth.',
    },
    { min: 0.02, max: 10, step: 0.02, initial: 0.5 },
  ),
  window: number(
    { title: 'Over', description: 'Height below a place over which it is looked at; ms, or m in depth.' },
    { min: 8, max: 1000, step: 4, initial: 80 },
  ),
  mostBad: number(
    { title: 'May be bad', description: 'Part of the ages in that height that may be bad.' },
    { min: 0.05, max: 0.95, step: 0.05, initial: 0.5 },
  ),
});

/** Bins to each side over which the surface is evened out: one trace by itself says little. */
const AROUND = 4;

/** The median of what lies around each bin; none where most of that is none. */
function medianAround(values: Float32Array, ni: number, nj: number): Float32Array {
  return values.map((_, n) => {
    const [i, j] = [Math.floor(n / nj), n % nj];
    const own: number[] = [];
    let all = 0;
    for (let a = Math.max(0, i - AROUND); a <= Math.min(ni - 1, i + AROUND); a++)
      for (let b = Math.max(0, j - AROUND); b <= Math.min(nj - 1, j + AROUND); b++) {
        all++;
        const v = values[a * nj + b];
        if (v === v) own.push(v);
      }
    if (2 * own.length < all) return Number.NaN;
    own.sort((p, q) => p - q);
    return own[own.length >> 1];
  });
}

export const ageValid = defineStep({
  id: 'interpret.ageValid',
  version: 1,
  stage: 'interpret',
  purpose: 'Relative age',
  title: 'Where ages are valid',
  summary:
    'The surface down to which ages hold, trace by trace, with the reason for its edge: ages that had to be put in order, that leave the dips, or that come again. Ages below it can be solved again from matched faults.',
  formula: 'The deepest z with no more than a part of bad ages in any window that begins above it.',
  avoid: 'As a proof: an age may keep to dips that are wrong.',
  source: 'Wu & Hale (2015), Geophysics 80, IM21–IM33',
  reach: 'global',
  inputs: {
    age: { kind: 'volume', title: 'Relative age', quantity: ['relative age'] },
    misfit: {
      kind: 'volume',
      title: 'Misfit of age to dips',
      usual: { step: 'interpret.age', output: 'misfit' },
    },
  },
  params,
  outputs: {
    valid: { kind: 'horizon', title: 'Ages valid down to' },
    reason: { kind: 'map', title: 'Why ages end' },
  },
  async run({ inputs: { age, misfit }, params: p, store, idFor, signal, progress, warn }) {
    const [ni, nj, nk] = shapeOfGrid(age);
    const { first, step } = age.vertical;
    if (!sameBins(age.binGrid, misfit.binGrid) || misfit.vertical.count !== nk || misfit.domain !== age.domain)
      throw new LithagonError('input', `${misfit.name} does not lie on the samples of ${age.name}.`, {
        object: misfit.name,
        fix: 'Choose the misfit that was made with it. Nothing was changed.',
      });
    const spec = {
      mostMisfit: p.mostMisfit,
      window: Math.max(2, Math.round(p.window / step)),
      mostBad: p.mostBad,
      step,
      least: LEAST_RATE,
    };
    const values = new Float32Array(ni * nj).fill(Number.NaN);
    const reasons = new Float32Array(ni * nj).fill(Number.NaN);
    for (let i = 0; i < ni; i += SLAB) {
      stopIf(signal);
      const to = Math.min(ni, i + SLAB);
      const region = { i: [i, to] as [number, number], j: [0, nj] as [number, number], k: [0, nk] as [number, number] };
      const [ages, misfits] = [await readRegion(store, age, region), await readRegion(store, misfit, region)];
      for (let t = 0; t < (to - i) * nj; t++) {
        const { last, reason } = validDown(ages, misfits, t * nk, nk, spec);
        if (last < 0) continue;
        values[i * nj + t] = first + last * step;
        reasons[i * nj + t] = reason + 1;
      }
      progress(to / ni);
    }
    const even = medianAround(values, ni, nj);
    const shares = VALID_ENDS.map((_, n) => reasons.filter((r) => r === n + 1).length / reasons.length);
    shares.forEach((share, n) => {
      if (n > 0 && share > 0) warn(`${(100 * share).toPrecision(2)} % of traces end by ${VALID_ENDS[n]}.`);
    });
    const id = idFor('valid');
    const filled = even.reduce((count, v) => (Number.isNaN(v) ? count : count + 1), 0);
    if (filled === 0)
      throw new LithagonError('empty', `No age of ${age.name} is valid.`, {
        object: age.name,
        fix: 'Allow more misfit, or solve ages from more horizons. Nothing was changed.',
      });
    const [low, high] = extentOf(even);
    return {
      valid: {
        kind: 'horizon' as const,
        domain: age.domain,
        binGrid: age.binGrid,
        values: await writeWhole(store, `${id}/values`, [ni, nj], even, ['inline', 'crossline']),
        range: [low, high] as [number, number],
        filled: filled / values.length,
      },
      reason: {
        kind: 'map' as const,
        binGrid: age.binGrid,
        quantity: 'class',
        unit: '',
        values: await writeWhole(store, `${idFor('reason')}/values`, [ni, nj], reasons, ['inline', 'crossline']),
        range: [1, VALID_ENDS.length] as [number, number],
        classes: [...VALID_ENDS],
      },
    };
  },
});
