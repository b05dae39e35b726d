import { z } from 'zod';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import { wellsBehind } from '../../project/wells/tieWell.ts';
import { commonPhase, DISAGREES, type WellPhase } from '../../tie/commonPhase.ts';
import { rotate } from '../../tie/wavelet.ts';
import { defineStep, number, text, wellsInput } from '../define.ts';
import { checkParams } from '../params.ts';
import { type TieParams, tieOf, tieWell } from './well.ts';

/** One phase for the wavelet of a volume, from all wells that see it: what each well finds alone is uncertain by tens of degrees. */
export const commonPhaseStep = defineStep({
  id: 'tie.phase',
  purpose: 'Ties',
  version: 1,
  stage: 'tie',
  title: 'Common phase of several wells',
  summary:
    'Turns a wavelet by the phase that all wells together make likeliest, each weighed by how well it knows it; says what each found.',
  formula: 'The one angle at which the sum of correlations over wells is greatest.',
  avoid: 'Where wells lie in surveys of different phase.',
  source: 'Box & Tiao (1973), Bayesian Inference in Statistical Analysis, section 2.7',
  reach: 'global',
  inputs: {
    wells: wellsInput(['directional surveys', 'logs', 'checkshots', 'tops'], { having: 'checkshots' }),
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'], domain: 'twt' },
    wavelet: { kind: 'wavelet', title: 'Wavelet' },
  },
  params: z.object({
    top: text({ title: 'Around the top', description: 'The windows lie around this top.', names: 'top' }, ''),
    windowMs: number(
      { title: 'Window', description: 'Whole height of each window.', unit: 'ms' },
      { min: 60, max: 1500, step: 10, initial: 300 },
    ),
    mostShiftMs: number(
      { title: 'Search', description: 'Largest shift that is thought possible.', unit: 'ms' },
      { min: 2, max: 100, step: 1, initial: 16 },
    ),
    mostPhaseDeg: number(
      { title: 'Phase may turn', description: 'How far the search goes either way.', unit: '°' },
      { min: 10, max: 180, step: 5, initial: 60 },
    ),
  }),
  outputs: {
    wavelet: { kind: 'wavelet', title: 'Wavelet' },
    report: { kind: 'result table', title: 'Phases' },
  },
  async run({ inputs, around, params: p, store, signal, progress, warn }) {
    const { wells, seismic, wavelet } = inputs;
    const settings = checkParams(tieWell, p) as TieParams;
    const found: WellPhase[] = [];
    for (const [n, well] of wells.entries()) {
      stopIf(signal);
      try {
        const { chain } = await tieOf(store, around, well, seismic, wavelet, settings, 0, undefined, 19, signal);
        found.push({ well: well.name, ...chain.evidence.phases });
      } catch (cause) {
        if (!(cause instanceof LithagonError)) throw cause;
        warn(`${cause.message.replace(/\.$/, '')}; it was left out.`);
      }
      progress((n + 1) / wells.length);
    }
    if (found.length === 0)
      throw new LithagonError('wells', 'None of the wells can be tied, so no phase was found.', {
        object: seismic.name,
        fix: 'Choose wells with sonic, checkshots and the top inside the seismic. Nothing was made.',
      });
    if (found.length === 1) warn(`Only ${found[0].well} says anything of the phase.`);
    const common = commonPhase(found);
    for (const { well, deg, loss } of common.wells)
      if (loss > DISAGREES)
        warn(
          `${well} disagrees: alone it finds ${deg.toFixed(0)}°, and ${common.deg.toFixed(0)}° is unlikely there (a loss of ${loss.toFixed(1)}, where one in twenty exceeds ${DISAGREES}).`,
        );
    if (Math.abs(common.deg) > p.mostPhaseDeg - 2.5)
      warn(`The phase of ${common.deg.toFixed(0)}° lies at the edge of the search.`);
    const deg = Math.round(common.deg * 10) / 10;
    const made = rotate({ ...wavelet, samples: Float64Array.from(wavelet.samples) }, deg);
    const behind = wellsBehind(wavelet);
    return {
      wavelet: {
        kind: 'wavelet',
        stepMs: made.stepMs,
        firstMs: made.firstMs,
        samples: Array.from(made.samples),
        method: 'turned',
        phaseDeg: wavelet.phaseDeg + deg,
        ...(behind.length > 0 ? { wells: behind } : {}),
        ...(wavelet.angleDeg === undefined ? {} : { angleDeg: wavelet.angleDeg }),
      },
      report: {
        kind: 'result table',
        columns: [
          { name: 'Well', unit: '' },
          { name: 'Phase', unit: '°' },
          { name: 'Loss by the common one', unit: '' },
        ],
        rows: [
          ...common.wells.map(({ well, deg: own, loss }) => [well, own, loss]),
          ['All together', common.deg, null],
          ['± (90 %)', common.halfDeg, null],
        ],
        records: [{ phaseDeg: common.deg, halfDeg: common.halfDeg }],
      },
    };
  },
});
