import { z } from 'zod';
import { SATURATIONS, type SaturationLaw } from '../../wells/petrophysics.ts';
import { choice, number } from '../define.ts';
import { brineFrom, brineOf, brineOhmM } from './brine.ts';
import { wellStep } from './perWell.ts';

export const saturation = wellStep({
  id: 'wells.saturation',
  purpose: 'Rock and fluids',
  title: 'Water saturation',
  output: 'Water saturation',
  version: 2,
  ofField: ['fluid samples'],
  summary: 'From resistivity and porosity, clean or shaly.',
  formula: 'Sʷ = ((a·R_w)/(φᵐ·R_t))^{1/n}; with shale by the chosen law.',
  avoid: 'Where water resistivity is unknown, or beds are thinner than the tool sees.',
  source:
    'Archie (1942), Transactions of the AIME 146, 54–62; Simandoux (1963); Poupon & Leveaux (1971), SPWLA 12th Symposium',
  params: z.object({
    law: choice(
      { title: 'Law', description: 'Archie for clean rock; Simandoux and Indonesia let shale conduct.' },
      Object.keys(SATURATIONS) as [SaturationLaw, ...SaturationLaw[]],
      'Simandoux',
    ),
    brineFrom,
    water: brineOhmM,
    shale: number(
      { title: 'Shale', description: 'Resistivity of shale.', unit: 'ohm.m' },
      { min: 0.2, max: 50, step: 0.1, initial: 3 },
    ),
    a: number({ title: 'a', description: 'Tortuosity factor.' }, { min: 0.3, max: 2, step: 0.01, initial: 1 }),
    m: number({ title: 'm', description: 'Cementation exponent.' }, { min: 1, max: 3.5, step: 0.05, initial: 2 }),
    n: number(
      { title: 'n', description: 'Saturation exponent; Simandoux’s form has 2.' },
      { min: 1, max: 4, step: 0.05, initial: 2 },
    ),
  }),
  axis: () => ['resistivity'],
  async make(one, p) {
    const rt = await one.need('resistivity');
    const phi = (await one.get('effective porosity')) ?? (await one.need('porosity'));
    const vsh = p.law === 'Archie' ? null : await one.need('shale volume');
    const water = brineOf(one, p.brineFrom, { resistivity: p.water }).resistivity;
    const law = SATURATIONS[p.law];
    const values = rt.map((r, k) => law(r, phi[k], vsh ? Math.min(1, Math.max(0, vsh[k])) : 0, { ...p, water }));
    return [
      { mnemonic: 'SW', class: 'water saturation', unit: '1', description: `Water saturation, ${p.law}`, values },
    ];
  },
});
