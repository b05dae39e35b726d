import { z } from 'zod';
import {
  densityPorosity,
  effectivePorosity,
  neutronDensityPorosity,
  raymerPorosity,
  wylliePorosity,
} from '../../wells/petrophysics.ts';
import { choice, number } from '../define.ts';
import { wellStep } from './perWell.ts';

export const porosity = wellStep({
  id: 'wells.porosity',
  title: 'Porosity',
  output: 'Porosity',
  summary: 'Total and effective porosity from density, sonic, or neutron and density together.',
  source: 'Wyllie et al. (1956), Geophysics 21, 41–70; Raymer et al. (1980), SPWLA 21st Symposium',
  params: z.object({
    from: choice(
      { title: 'From', description: 'The logs that it comes from.' },
      ['density', 'neutron and density', 'sonic, Wyllie', 'sonic, Raymer'],
      'density',
    ),
    grain: number(
      { title: 'Grain density', description: 'Of the minerals.', unit: 'kg/m³' },
      { min: 2500, max: 3000, step: 5, initial: 2650 },
    ),
    fluid: number(
      { title: 'Fluid density', description: 'Of what fills the pores near the hole.', unit: 'kg/m³' },
      { min: 100, max: 1200, step: 5, initial: 1030 },
    ),
    matrix: number(
      { title: 'Matrix slowness', description: 'Of the minerals.', unit: 'us/m' },
      { min: 120, max: 250, step: 1, initial: 182 },
    ),
    fluidSlowness: number(
      { title: 'Fluid slowness', description: 'Of what fills the pores.', unit: 'us/m' },
      { min: 500, max: 900, step: 5, initial: 620 },
    ),
    shalePorosity: number(
      { title: 'Porosity of shale', description: 'Total porosity of the shale itself, bound in it.' },
      { min: 0, max: 0.5, step: 0.01, initial: 0.12 },
    ),
  }),
  axis: (p) => [p.from.startsWith('sonic') ? 'sonic' : 'density'],
  async make(one, p) {
    let total: Float32Array;
    if (p.from.startsWith('sonic')) {
      const dt = await one.need('sonic');
      const law = p.from === 'sonic, Wyllie' ? wylliePorosity : raymerPorosity;
      total = dt.map((v) => law(v, p.matrix, p.fluidSlowness));
    } else {
      const rho = await one.need('density');
      const phi = rho.map((v) => densityPorosity(v, p.grain, p.fluid));
      const neutron = p.from === 'neutron and density' ? await one.need('neutron') : null;
      total = neutron ? phi.map((v, n) => neutronDensityPorosity(neutron[n], v)) : phi;
    }
    const outside = total.filter((v) => v < -0.05 || v > 0.6).length;
    if (outside > 0) one.warn(`${outside} samples gave a porosity below −5 % or above 60 % and are null.`);
    total = total.map((v) => (v < -0.05 || v > 0.6 ? Number.NaN : Math.max(0, v)));
    const curves = [
      {
        mnemonic: 'PHIT',
        class: 'porosity' as const,
        unit: '1',
        description: `Total porosity from ${p.from}`,
        values: total,
      },
    ];
    const vsh = await one.get('shale volume');
    if (!vsh) {
      one.warn('no shale volume, so no effective porosity.');
      return curves;
    }
    const values = total.map((v, n) =>
      Number.isNaN(v + vsh[n]) ? Number.NaN : effectivePorosity(v, vsh[n], p.shalePorosity),
    );
    return [
      ...curves,
      { mnemonic: 'PHIE', class: 'effective porosity', unit: '1', description: 'Effective porosity', values },
    ];
  },
});
