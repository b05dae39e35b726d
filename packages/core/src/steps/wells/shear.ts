import { z } from 'zod';
import { greenbergCastagna, mudrockVs } from '../../rocks/shear.ts';
import { choice } from '../define.ts';
import { wellStep } from './perWell.ts';

export const shear = wellStep({
  id: 'wells.shear',
  purpose: 'Elastic',
  title: 'Predict shear slowness',
  output: 'Shear slowness',
  summary: 'S from P by rock trends, and where S was logged, the gaps alone filled; every estimated sample is counted.',
  formula: 'V_s = 0.862·V_p − 1172 (mudrock line), or mixed by minerals.',
  avoid: 'In gas, and in soft or cemented rock outside of what the law was fitted to.',
  source:
    'Castagna et al. (1985), Geophysics 50, 571–581; Greenberg & Castagna (1992), Geophysical Prospecting 40, 195–209',
  params: z.object({
    law: choice(
      { title: 'Trend', description: 'One line for mudrock, or sand and shale mixed by shale volume.' },
      ['Greenberg–Castagna', 'mudrock line'],
      'Greenberg–Castagna',
    ),
    keep: choice(
      { title: 'Logged S', description: 'Kept where there is some, or replaced throughout.' },
      ['kept', 'replaced'],
      'kept',
    ),
  }),
  axis: () => ['sonic'],
  async make(one, p) {
    const dt = await one.need('sonic');
    const logged = await one.get('shear sonic');
    const vsh = p.law === 'mudrock line' ? null : await one.need('shale volume');
    let estimated = 0;
    const values = dt.map((s, n) => {
      if (p.keep === 'kept' && logged && !Number.isNaN(logged[n])) return logged[n];
      const vp = 1e6 / s;
      const part = vsh ? Math.min(1, Math.max(0, vsh[n])) : 0;
      const vs = vsh ? greenbergCastagna(vp, { sandstone: 1 - part, shale: part }) : mudrockVs(vp);
      if (!(vs > 100)) return Number.NaN;
      estimated++;
      return 1e6 / vs;
    });
    one.warn(`${estimated} samples of shear slowness are estimated by the ${p.law} trend.`);
    return [
      {
        mnemonic: 'DTS_EST',
        class: 'shear sonic',
        unit: 'us/m',
        description: `S slowness, ${estimated} samples estimated (${p.law})`,
        values,
      },
    ];
  },
});
