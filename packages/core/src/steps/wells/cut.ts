import { z } from 'zod';
import { number } from '../define.ts';
import { anyCurve, edited, heldValues, Left, wellStep } from './perWell.ts';

export const cut = wellStep({
  id: 'wells.cut',
  purpose: 'Curves',
  title: 'Cut a curve',
  output: 'Cut logs',
  summary: 'Keeps a curve inside depths and values, and makes the rest null.',
  formula: 'c′ = c inside the interval, nothing outside.',
  avoid: 'To hide bad values that a flag would keep in sight.',
  source: 'Theys (1999), Log Data Acquisition and Quality Control, 2nd edition: validity limits',
  params: z.object({
    curve: anyCurve,
    fromM: number(
      { title: 'From', description: 'Shallowest measured depth that is kept.', unit: 'm' },
      { min: 0, max: 12000, step: 1, initial: 0 },
    ),
    toM: number(
      { title: 'To', description: 'Deepest measured depth that is kept.', unit: 'm' },
      { min: 0, max: 12000, step: 1, initial: 12000 },
    ),
    least: number(
      { title: 'Minimum value', description: 'Values below are null, in the unit that the curve is kept in.' },
      { min: -1e5, max: 1e6, step: 1, initial: -1e5 },
    ),
    most: number(
      { title: 'Greatest value', description: 'Values above are null.' },
      { min: -1e5, max: 1e6, step: 1, initial: 1e6 },
    ),
  }),
  axis: (p) => [p.curve],
  async make(one, p) {
    const { held, values } = await heldValues(one, p.curve);
    const kept = values.map((v, n) => {
      const md = one.md(n);
      return md < p.fromM || md > p.toM || v < p.least || v > p.most ? Number.NaN : v;
    });
    if (kept.every((v) => Number.isNaN(v))) throw new Left(`Nothing of ${one.well.name}'s ${p.curve} lies inside`);
    return [edited(held, kept, 'cut')];
  },
});
