import { z } from 'zod';
import { samplesFor, sampleValue } from '../../project/wells/fluids.ts';
import {
  densityPorosity,
  effectivePorosity,
  neutronDensityPorosity,
  poreFill,
  raymerPorosity,
  wylliePorosity,
} from '../../wells/petrophysics.ts';
import { choice, number } from '../define.ts';
import { brineFrom, brineOf, brineOhmM } from './brine.ts';
import { type OneWell, wellStep } from './perWell.ts';

/** How much less than density porosity neutron reads in gas, and over what thickness (m) that is said. */
const CROSSOVER = { by: 0.06, m: 2 };
/** Rock with more shale is taken for full of brine: what conducts there is not its pores. */
const SHALY = 0.5;

interface Pores {
  pores: string;
  grain: number;
  fluid: number;
  hydrocarbon: number;
  brine: number;
  brineFrom: string;
  a: number;
  m: number;
  n: number;
}

/**
 * Density porosity with what fills the pores: brine and the hydrocarbon that samples of the well, or else of the field,
 * give; gas where neutron reads well below density. Gas that a single fluid would hide is said.
 */
async function withFluids(one: OneWell, rho: Float32Array, phi: Float32Array, p: Pores): Promise<Float32Array> {
  const neutron = await one.get('neutron');
  const crossed = phi.map((v, k) => (neutron && v > 0.05 && v - neutron[k] > CROSSOVER.by ? 1 : 0));
  const crossedM = crossed.reduce((a, b) => a + b, 0) * one.axis.stepM;
  const samples = samplesFor(one.around, one.well.name);
  const own = samples.filter((o) => o.well === one.well.name);
  const [gas, oil] = [sampleValue(samples, 'gas', 'density'), sampleValue(samples, 'oil', 'density')];
  const rt = p.pores === 'one fluid' ? null : await one.get('resistivity');
  if (!rt) {
    const why =
      crossedM > CROSSOVER.m
        ? `neutron reads below density over ${one.units.text(crossedM, 'm', 1)}`
        : sampleValue(own, 'gas', 'density') !== null
          ? 'a fluid sample is gas'
          : null;
    if (p.pores !== 'one fluid') one.warn(`no resistivity, so one fluid of ${p.fluid} kg/m³ was taken for all pores.`);
    if (why && p.fluid > 500)
      one.warn(`gas is likely, as ${why}: with one fluid of ${p.fluid} kg/m³ porosity is too high there.`);
    return phi;
  }
  for (const o of samples) one.uses(o);
  const brine = brineOf(one, p.brineFrom, { resistivity: p.brine, density: p.fluid });
  const shale = await one.get('shale volume');
  const [light, heavy] = [gas ?? p.hydrocarbon, oil ?? gas ?? p.hydrocarbon];
  if (gas === null && oil === null)
    one.warn(`no fluid sample gives a density, so ${p.hydrocarbon} kg/m³ was taken for hydrocarbon.`);
  else if (gas !== null && oil !== null && !neutron)
    one.warn('gas and oil were sampled and no neutron log tells them apart, so that of oil was taken.');
  return rho.map((v, k) => {
    if (Number.isNaN(rt[k]) || (shale && shale[k] > SHALY)) return phi[k];
    const hydrocarbon = crossed[k] ? light : heavy;
    return poreFill(v, rt[k], { ...p, hydrocarbon, brine: brine.density, waterOhmM: brine.resistivity }).porosity;
  });
}

export const porosity = wellStep({
  id: 'wells.porosity',
  purpose: 'Rock and fluids',
  title: 'Porosity',
  output: 'Porosity',
  summary: 'Total and effective porosity from density, sonic, or neutron and density together.',
  version: 3,
  ofField: ['fluid samples'],
  formula: 'φ = (ρₘ − ρ)/(ρₘ − ρ_f), less V·φ_sh; or by sonic and neutron.',
  avoid: 'In washouts, and in gas unless neutron and density are used together.',
  source:
    'Archie (1942), Transactions of the AIME 146, 54–62; Wyllie et al. (1956), Geophysics 21, 41–70; Raymer et al. (1980), SPWLA 21st Symposium',
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
    pores: choice(
      {
        title: 'Pores hold',
        description:
          'With density: brine and hydrocarbon as porosity and resistivity together tell (Archie), or one fluid everywhere.',
      },
      ['what resistivity tells', 'one fluid'],
      'what resistivity tells',
    ),
    fluid: number(
      {
        title: 'Fluid density',
        description: 'Of brine where no water sample gives it, or of the one fluid that fills all pores.',
        unit: 'kg/m³',
      },
      { min: 100, max: 1200, step: 5, initial: 1030 },
    ),
    hydrocarbon: number(
      {
        title: 'Hydrocarbon density',
        description: 'At the formation’s pressure; used where no fluid sample gives one.',
        unit: 'kg/m³',
      },
      { min: 50, max: 950, step: 5, initial: 750 },
    ),
    brineFrom,
    brine: brineOhmM,
    a: number({ title: 'a', description: 'Tortuosity factor.' }, { min: 0.3, max: 2, step: 0.01, initial: 1 }),
    m: number({ title: 'm', description: 'Cementation exponent.' }, { min: 1, max: 3.5, step: 0.05, initial: 2 }),
    n: number({ title: 'n', description: 'Saturation exponent.' }, { min: 1, max: 4, step: 0.05, initial: 2 }),
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
      total = neutron ? phi.map((v, n) => neutronDensityPorosity(neutron[n], v)) : await withFluids(one, rho, phi, p);
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
