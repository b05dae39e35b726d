import { z } from 'zod';
import { brine, type Fluid, gas, mixed, mostDissolved, oil } from '../../rocks/fluids.ts';
import { hill, substituted } from '../../rocks/substitute.ts';
import { pointAtMd } from '../../wells/path.ts';
import { choice, number } from '../define.ts';
import { wellStep } from './perWell.ts';

/** What wells call the sea bed. */
const SEA_BED = /^(sea[\s_-]*(bed|floor)|mud[\s_-]*line|water[\s_-]*bottom)$/i;

const FLUIDS = ['brine', 'oil', 'gas'] as const;

/** Pressure (Pa, from the sea) and temperature (°C, from its bed) at a depth below the sea, and the fluids there. */
function fluidsAt(
  tvdssM: number,
  seaBedM: number,
  p: {
    gradient: number;
    surfaceC: number;
    gradientC: number;
    salinity: number;
    oilDensity: number;
    ratio: number;
    gravity: number;
  },
): Record<(typeof FLUIDS)[number], Fluid> {
  const pressure = 101325 + p.gradient * 1000 * tvdssM;
  const t = p.surfaceC + (p.gradientC * Math.max(0, tvdssM - seaBedM)) / 1000;
  const ratio = Math.min(p.ratio, mostDissolved(pressure, t, p.oilDensity, p.gravity));
  return {
    brine: brine(pressure, t, p.salinity),
    oil: oil(pressure, t, p.oilDensity, ratio, p.gravity),
    gas: gas(pressure, t, p.gravity),
  };
}

export const substitute = wellStep({
  id: 'wells.substitute',
  purpose: 'Elastic',
  title: 'Substitute the fluid',
  output: 'Substituted logs',
  summary: 'Sonic, shear and density as they would be with another fluid in the pores, sample by sample.',
  formula: 'K_sat/(K_m − K_sat) = K_dry/(K_m − K_dry) + K_f/(φ(K_m − K_f)); μ does not change.',
  avoid: 'In shale, tight or fractured rock: pores must be joined and pressures even.',
  source: 'Gassmann (1951); Batzle & Wang (1992), Geophysics 57, 1396–1408; Brie et al. (1995), SPE 30595',
  params: z.object({
    now: choice(
      {
        title: 'There now',
        description: 'Hydrocarbon that shares the pores with brine by the water saturation; brine takes them as wet.',
      },
      [...FLUIDS],
      'oil',
    ),
    instead: choice({ title: 'Instead', description: 'What fills the pores instead.' }, [...FLUIDS], 'brine'),
    water: number(
      { title: 'Water left', description: 'Water saturation that stays beside oil or gas put in.' },
      { min: 0, max: 1, step: 0.05, initial: 0.2 },
    ),
    mostShale: number(
      { title: 'Maximum shale', description: 'Rock with more shale keeps its fluid.' },
      { min: 0, max: 1, step: 0.05, initial: 0.5 },
    ),
    mixing: choice({ title: 'Mixing', description: 'Evenly (Wood) or in patches (Brie).' }, ['Wood', 'Brie'], 'Wood'),
    brie: number(
      { title: 'Brie’s exponent', description: '1 patches, 40 nearly even.' },
      { min: 1, max: 40, step: 0.5, initial: 3 },
    ),
    grains: number(
      { title: 'Bulk modulus of grains', description: 'Quartz has 36.6.', unit: 'GPa' },
      { min: 20, max: 100, step: 0.5, initial: 36.6 },
    ),
    clay: number(
      { title: 'Bulk modulus of clay', description: 'Mixed in by the shale volume (Hill’s mean).', unit: 'GPa' },
      { min: 5, max: 60, step: 0.5, initial: 21 },
    ),
    gradient: number(
      { title: 'Pressure gradient', description: 'Of the pores, below the sea’s surface.', unit: 'kPa/m' },
      { min: 9, max: 22, step: 0.1, initial: 10.1 },
    ),
    surfaceC: number(
      { title: 'Temperature at the surface', description: 'At the sea bed, or at the ground.', unit: '°C' },
      { min: 0, max: 30, step: 1, initial: 8 },
    ),
    seaBedM: number(
      { title: 'Water depth', description: 'Where a well has no top of the sea bed; 0 on land.', unit: 'm' },
      { min: -5000, max: 6000, step: 1, initial: 0 },
    ),
    gradientC: number(
      { title: 'Temperature gradient', description: 'Downwards from the sea bed.', unit: '°C/km' },
      { min: 10, max: 60, step: 1, initial: 32 },
    ),
    salinity: number(
      { title: 'Salinity', description: 'Mass of salt in mass of brine.' },
      { min: 0, max: 0.3, step: 0.005, initial: 0.045 },
    ),
    oilDensity: number(
      { title: 'Oil density', description: 'At the surface.', unit: 'kg/m³' },
      { min: 700, max: 1000, step: 5, initial: 840 },
    ),
    ratio: number(
      { title: 'Gas in the oil', description: 'Volume at the surface over that of oil; never more than it can hold.' },
      { min: 0, max: 400, step: 5, initial: 90 },
    ),
    gravity: number(
      { title: 'Gas gravity', description: 'Density over that of air.' },
      { min: 0.55, max: 1.2, step: 0.01, initial: 0.65 },
    ),
  }),
  axis: () => ['sonic'],
  async make(one, p) {
    const [dt, dts, rho] = [await one.need('sonic'), await one.need('shear sonic'), await one.need('density')];
    const vsh = await one.need('shale volume');
    const phi = (await one.get('effective porosity')) ?? (await one.need('porosity'));
    const sw = p.now === 'brine' ? null : await one.need('water saturation');
    const mixing = p.mixing === 'Wood' ? { law: 'wood' as const } : { law: 'brie' as const, exponent: p.brie };
    const out = [dt.slice(), dts.slice(), rho.slice()];
    const named = one.tops.find((t) => SEA_BED.test(t.name));
    const seaBedM = named ? pointAtMd(one.path, named.md).tvdss : p.seaBedM;
    one.warn(
      `temperatures rise from ${p.surfaceC} °C at ${one.units.text(seaBedM, 'm', 0)} below the sea, ${named ? `the top “${named.name}”` : 'as typed'}.`,
    );
    let [changed, refused] = [0, 0];
    for (let n = 0; n < dt.length; n++) {
      if (Number.isNaN(dt[n] + dts[n] + rho[n] + vsh[n] + phi[n]) || vsh[n] > p.mostShale || phi[n] < 0.02) continue;
      const water = sw ? (Number.isNaN(sw[n]) ? 1 : Math.min(1, Math.max(0, sw[n]))) : 1;
      const fluids = fluidsAt(one.tvdss(n), seaBedM, p);
      const fill = (kind: (typeof FLUIDS)[number], s: number) =>
        mixed(
          [
            { fluid: fluids.brine, saturation: kind === 'brine' ? 1 : s },
            { fluid: fluids[kind], saturation: kind === 'brine' ? 0 : 1 - s, gas: kind === 'gas' },
          ],
          mixing,
        );
      const mineral = hill(p.grains * 1e9, p.clay * 1e9, Math.min(1, Math.max(0, vsh[n])));
      const rock = substituted(
        { vp: 1e6 / dt[n], vs: 1e6 / dts[n], density: rho[n] },
        phi[n],
        mineral,
        fill(p.now, water),
        fill(p.instead, p.water),
      );
      if (!rock) {
        refused++;
        continue;
      }
      out[0][n] = 1e6 / rock.vp;
      out[1][n] = 1e6 / rock.vs;
      out[2][n] = rock.density;
      changed++;
    }
    one.warn(
      `${changed} samples have ${p.instead} in place of ${p.now}${refused ? `; ${refused} whose frame is no rock keep theirs` : ''}.`,
    );
    const what = `${p.instead} in place of ${p.now}`;
    return [
      { mnemonic: 'DT_FS', class: 'sonic', unit: 'us/m', description: what, values: out[0] },
      { mnemonic: 'DTS_FS', class: 'shear sonic', unit: 'us/m', description: what, values: out[1] },
      { mnemonic: 'RHOB_FS', class: 'density', unit: 'kg/m3', description: what, values: out[2] },
    ];
  },
});
