import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { logsInOrder } from '../../project/wells/curves.ts';
import { relationOf } from '../../project/wells/seeds.ts';
import { tieWellOf } from '../../project/wells/tieWell.ts';
import { REFLECTION, type ReflectionForm } from '../../rocks/reflect.ts';
import { writeWhole } from '../../storage/arrays.ts';
import { tieLogs } from '../../tie/chain.ts';
import { elasticInTime } from '../../tie/elastic.ts';
import { synthetic } from '../../tie/match.ts';
import { twtOfDepth } from '../../wells/timeDepth.ts';
import { choice, defineStep, number } from '../define.ts';

export const angles = defineStep({
  id: 'tie.angles',
  purpose: 'Ties',
  version: 1,
  stage: 'tie',
  title: 'Synthetic at angles',
  summary:
    'A gather of synthetic traces by angle of incidence, from P, S and density as they are or with another fluid.',
  formula: 'R(θ) by Zoeppritz, or its three terms; each angle with its own wavelet.',
  avoid: 'Beyond the critical angle, or where V_s is only guessed.',
  source:
    'Zoeppritz (1919) as in Aki & Richards (2002); Shuey (1985), Geophysics 50, 609–614; Fatti et al. (1994), Geophysics 59, 1362–1376',
  reach: 'global',
  inputs: {
    well: {
      kind: 'well',
      title: 'Well',
      companions: ['directional surveys', 'logs', 'checkshots', 'tops', 'time-depth relation'],
    },
    wavelet: { kind: 'wavelet', title: 'Wavelet' },
    logs: { kind: 'logs', title: 'With these logs', optional: true },
  },
  params: z.object({
    form: choice(
      { title: 'Reflections', description: 'Exact, or a linear form.' },
      Object.keys(REFLECTION) as [ReflectionForm, ...ReflectionForm[]],
      'exact Zoeppritz',
    ),
    fromDeg: number(
      { title: 'From', description: 'Smallest angle.', unit: '°' },
      { min: 0, max: 40, step: 1, initial: 0 },
    ),
    toDeg: number(
      { title: 'To', description: 'Greatest angle.', unit: '°' },
      { min: 1, max: 60, step: 1, initial: 40 },
    ),
    stepDeg: number(
      { title: 'Step', description: 'Between angles.', unit: '°' },
      { min: 1, max: 10, step: 1, initial: 5 },
    ),
  }),
  outputs: { gather: { kind: 'synthetic gather', title: 'Synthetic gather' } },
  async run({ inputs, around, params: p, store, idFor, warn }) {
    const { well, wavelet, logs: asked } = inputs;
    if (asked && asked.well !== well.name)
      throw new LithagonError('angles', `${asked.name} belong to ${asked.well}, not to ${well.name}.`, {
        fix: 'Choose logs of the same well.',
      });
    const relation = relationOf(around, well.name);
    if (!relation)
      throw new LithagonError('angles', `${well.name} has no tie and no checkshots, so its depths have no times.`, {
        object: well.name,
        fix: 'Tie it or load its checkshots.',
      });
    // logs that were asked for stand alone, before all others
    const seen = asked
      ? [
          ...around.filter((o) => o.kind !== 'logs'),
          asked,
          ...logsInOrder(around, well.name).filter(
            (l) => !l.curves.some((c) => asked.curves.some((a) => a.class === c.class)),
          ),
        ]
      : around;
    const data = await tieWellOf(store, seen, well, well);
    const logs = tieLogs(data);
    if (!logs?.shear)
      throw new LithagonError('angles', `${well.name} has no shear log, which reflections at angles need.`, {
        object: well.name,
        fix: 'Predict shear slowness first.',
      });
    if (logs.densityEstimated) warn(`${well.name} has no density; it was estimated from velocity.`);
    const twt = logs.slowness.tvdss.map((z) => twtOfDepth(relation, z));
    const elastic = elasticInTime(twt, logs.slowness.tvdss, logs.slowness.secondsPerMetre, logs.density, logs.shear);
    const { vp, vs, density } = elastic;
    const anglesDeg: number[] = [];
    for (let a = p.fromDeg; a <= p.toDeg + 1e-9; a += p.stepDeg) anglesDeg.push(a);
    const reflect = REFLECTION[p.form];
    const rock = (b: number) => ({ vp: vp[b], vs: (vs as Float64Array)[b], density: density[b] });
    const shape = { stepMs: wavelet.stepMs, firstMs: wavelet.firstMs, samples: Float64Array.from(wavelet.samples) };
    const count = elastic.reflectivity.length;
    const samples = new Float32Array(anglesDeg.length * count);
    anglesDeg.forEach((angle, n) => {
      const reflectivity = elastic.reflectivity.map((_, b) => (b > 0 ? reflect(rock(b - 1), rock(b), angle) : 0));
      samples.set(synthetic({ ...elastic, reflectivity }, shape).values, n * count);
    });
    return {
      gather: {
        kind: 'synthetic gather',
        well: well.name,
        anglesDeg,
        firstMs: elastic.firstMs,
        stepMs: elastic.stepMs,
        samples: await writeWhole(store, `${idFor('gather')}/samples`, [anglesDeg.length, count], samples, [
          'angle',
          'time',
        ]),
        form: p.form,
      },
    };
  },
});
