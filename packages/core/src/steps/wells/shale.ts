import { z } from 'zod';
import { quantile, SHALE_LAWS, type ShaleLaw, shaleVolume } from '../../wells/petrophysics.ts';
import { choice, number } from '../define.ts';
import { Left, wellStep } from './perWell.ts';

export const shale = wellStep({
  id: 'wells.shale',
  purpose: 'Rock and fluids',
  title: 'Shale volume',
  output: 'Shale volume',
  summary: 'From gamma ray between a clean and a shale line, straight or by one of the published curves.',
  formula: 'I = (GR − GR₀)/(GR₁ − GR₀); V = I, or the curve of the chosen author.',
  avoid: 'In radioactive sands or with potassium mud: gamma ray is no shale indicator there.',
  source: 'Larionov (1969); Clavier et al. (1971), Journal of Petroleum Technology 23, 743–763; Steiber (1970)',
  params: z.object({
    law: choice(
      { title: 'Law', description: 'How shale volume follows the gamma-ray index.' },
      Object.keys(SHALE_LAWS) as [ShaleLaw, ...ShaleLaw[]],
      'linear',
    ),
    lines: choice(
      { title: 'Lines', description: 'Clean and shale values from each well’s own percentiles, or typed.' },
      ['percentiles', 'typed'],
      'percentiles',
    ),
    cleanPercent: number(
      { title: 'Clean at', description: 'Percentile of clean rock.', unit: '%' },
      { min: 0, max: 40, step: 1, initial: 3 },
    ),
    shalePercent: number(
      { title: 'Shale at', description: 'Percentile of shale.', unit: '%' },
      { min: 60, max: 100, step: 1, initial: 95 },
    ),
    clean: number(
      { title: 'Typed clean', description: 'Gamma ray of clean rock.', unit: 'gAPI' },
      { min: 0, max: 150, step: 1, initial: 25 },
    ),
    shale: number(
      { title: 'Typed shale', description: 'Gamma ray of shale.', unit: 'gAPI' },
      { min: 20, max: 400, step: 1, initial: 110 },
    ),
  }),
  axis: () => ['gamma ray'],
  async make(one, p) {
    const gr = await one.need('gamma ray');
    const [clean, dirty] =
      p.lines === 'typed'
        ? [p.clean, p.shale]
        : [quantile(gr, p.cleanPercent / 100), quantile(gr, p.shalePercent / 100)];
    if (!(dirty > clean))
      throw new Left(`In ${one.well.name} the shale line (${dirty}) is not above the clean line (${clean})`);
    one.warn(`clean at ${clean.toFixed(0)}, shale at ${dirty.toFixed(0)} gAPI.`);
    const values = gr.map((v) => (Number.isNaN(v) ? Number.NaN : shaleVolume(v, clean, dirty, p.law)));
    return [{ mnemonic: 'VSH', class: 'shale volume', unit: '1', description: `Shale volume, ${p.law}`, values }];
  },
});
