import { z } from 'zod';
import { wellStep } from './perWell.ts';

export const elastic = wellStep({
  id: 'wells.elastic',
  purpose: 'Elastic',
  title: 'Impedances and moduli',
  output: 'Elastic logs',
  summary: 'P and S impedance, velocity ratio, bulk, shear and Young’s moduli and Poisson’s ratio.',
  formula: 'Z = ρ·V_p, μ = ρ·V_s², λ = ρ·V_p² − 2μ, ν = (V_p² − 2V_s²)/(2(V_p² − V_s²)).',
  avoid: 'Where sonic and density are of different depths: shift one first.',
  source: 'Mavko, Mukerji & Dvorkin (2009), The Rock Physics Handbook, 2nd edition, 2.2',
  params: z.object({}),
  axis: () => ['sonic'],
  async make(one) {
    const [dt, rho] = [await one.need('sonic'), await one.need('density')];
    const dts = await one.get('shear sonic');
    const curve = (
      mnemonic: string,
      cls: 'P impedance' | 'S impedance' | 'velocity ratio' | 'other',
      unit: string,
      description: string,
      at: (n: number) => number,
    ) => ({
      mnemonic,
      class: cls,
      unit,
      description,
      values: Float32Array.from({ length: dt.length }, (_, n) => at(n)),
    });
    const vp = (n: number) => 1e6 / dt[n];
    const out = [curve('AI', 'P impedance', 'kg/m²s', 'P impedance', (n) => rho[n] * vp(n))];
    if (!dts) {
      one.warn('no shear slowness, so P impedance only.');
      return out;
    }
    const vs = (n: number) => 1e6 / dts[n];
    const shearOf = (n: number) => rho[n] * vs(n) ** 2;
    const bulk = (n: number) => rho[n] * vp(n) ** 2 - (4 / 3) * shearOf(n);
    return [
      ...out,
      curve('SI', 'S impedance', 'kg/m²s', 'S impedance', (n) => rho[n] * vs(n)),
      curve('VPVS', 'velocity ratio', '1', 'Vp/Vs', (n) => vp(n) / vs(n)),
      curve('K', 'other', 'Pa', 'Bulk modulus', bulk),
      curve('MU', 'other', 'Pa', 'Shear modulus', shearOf),
      curve('E', 'other', 'Pa', 'Young’s modulus', (n) => (9 * bulk(n) * shearOf(n)) / (3 * bulk(n) + shearOf(n))),
      curve(
        'PR',
        'other',
        '1',
        'Poisson’s ratio',
        (n) => (3 * bulk(n) - 2 * shearOf(n)) / (2 * (3 * bulk(n) + shearOf(n))),
      ),
    ];
  },
});
