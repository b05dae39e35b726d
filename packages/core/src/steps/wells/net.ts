import { z } from 'zod';
import { netFlag } from '../../wells/petrophysics.ts';
import { defineStep, eachRole, number, wellsInput } from '../define.ts';
import { forEachWell, logsDraft } from './perWell.ts';

export const net = defineStep({
  id: 'wells.net',
  purpose: 'Rock and fluids',
  version: 1,
  stage: 'wells',
  title: 'Net rock and pay',
  summary: 'Flags reservoir and pay by cutoffs, and counts net-to-gross, porosity and saturation for each zone.',
  formula: 'Net where V < V₀ and φ > φ₀; pay where also Sʷ < S₀.',
  avoid: 'As a fact: the cut-offs are a choice, and volumes should be told for several.',
  source: 'Worthington & Cosentino (2005), SPE Reservoir Evaluation & Engineering 8, 276–290',
  reach: 'global',
  inputs: { wells: wellsInput(['directional surveys', 'logs', 'tops']) },
  params: z.object({
    mostShale: number(
      { title: 'Maximum shale', description: 'Shale volume that still is reservoir.' },
      { min: 0, max: 1, step: 0.01, initial: 0.4 },
    ),
    leastPorosity: number(
      { title: 'Minimum porosity', description: 'Porosity that still is reservoir.' },
      { min: 0, max: 0.4, step: 0.01, initial: 0.08 },
    ),
    mostWater: number(
      { title: 'Maximum water', description: 'Water saturation that still is pay.' },
      { min: 0, max: 1, step: 0.01, initial: 0.6 },
    ),
  }),
  outputs: {
    logs: { kind: 'logs', title: 'Net flag', each: 'wells' },
    table: { kind: 'result table', title: 'Net rock by zone' },
  },
  async run(context) {
    const { params: p, store, idFor } = context;
    const rows: (string | number | null)[][] = [];
    const made = await forEachWell(context, ['porosity', 'effective porosity'], async (one) => {
      const vsh = await one.need('shale volume');
      const phi = (await one.get('effective porosity')) ?? (await one.need('porosity'));
      const sw = await one.get('water saturation');
      if (!sw) one.warn('no water saturation, so reservoir is flagged and no pay.');
      const flag = phi.map((v, n) => netFlag(vsh[n], v, sw ? sw[n] : 1, p));
      one.tops.forEach((top, t) => {
        const base = one.tops[t + 1];
        if (!base || base.md <= top.md) return;
        let [gross, known, reservoir, pay, pore, water] = [0, 0, 0, 0, 0, 0];
        for (let n = 0; n < flag.length; n++) {
          const md = one.md(n);
          if (md < top.md || md >= base.md) continue;
          gross++;
          if (Number.isNaN(flag[n])) continue;
          known++;
          if (flag[n] < 1) continue;
          reservoir++;
          pore += phi[n];
          if (flag[n] === 2) pay++;
          if (sw) water += phi[n] * (Number.isNaN(sw[n]) ? 1 : sw[n]);
        }
        if (gross === 0 || known === 0) return;
        // thickness is true vertical, as the path goes
        const thick = Math.abs(pointTvdss(one, base.md) - pointTvdss(one, top.md));
        rows.push([
          one.well.name,
          top.name,
          thick,
          (thick * reservoir) / known,
          reservoir / known,
          (thick * pay) / known,
          reservoir > 0 ? pore / reservoir : null,
          sw && pore > 0 ? water / pore : null,
          known / gross,
        ]);
      });
      return logsDraft(store, idFor(eachRole('logs', one.well.id)), one.well.name, one.axis, [
        { mnemonic: 'NET', class: 'net flag', unit: '1', description: '0 none, 1 reservoir, 2 pay', values: flag },
      ]);
    });
    return {
      ...Object.fromEntries(made.map(({ id, made: draft }) => [eachRole('logs', id), draft])),
      table: {
        kind: 'result table',
        columns: [
          { name: 'Well', unit: '' },
          { name: 'Zone below', unit: '' },
          { name: 'Thickness', unit: 'm' },
          { name: 'Net', unit: 'm' },
          { name: 'Net-to-gross', unit: '' },
          { name: 'Pay', unit: 'm' },
          { name: 'Porosity of net', unit: '' },
          { name: 'Water saturation of net', unit: '' },
          { name: 'Part known', unit: '' },
        ],
        rows,
      },
    };
  },
});

function pointTvdss(one: { axis: { firstM: number; stepM: number }; tvdss(n: number): number }, md: number): number {
  return one.tvdss((md - one.axis.firstM) / one.axis.stepM);
}
