import { z } from 'zod';
import { spectraCollector } from '../../attributes/spectrum.ts';
import { randomOf } from '../../classes/kinds.ts';
import type { Corners } from '../../conditioning/filter.ts';
import { toMap } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Horizon, InversionOperator, Polygon, Volume } from '../../earth/objects.ts';
import {
  type Amplitudes,
  applyOperator,
  type Operator,
  operatorGain,
  operatorInTime,
  powerLawOf,
  smoothed,
} from '../../inversion/operator.ts';
import { insideRings } from '../../numerics/rings.ts';
import { atSamples, timedLog } from '../../project/wells/timedLogs.ts';
import { onBinsOf } from '../../project/windows.ts';
import { shapeOf } from '../../storage/planes.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { choice, defineStep, number, wellsInput } from '../define.ts';

/** Half the length of an operator as it is drawn, ms. */
const HALF_MS = 160;
/** Height over which the trend of logs is taken out before their spectrum is made, and the least that there has to be, ms. */
const LEAST_LOG_MS = 160;

const hertz = (title: string, description: string, initial: number) =>
  number({ title, description, unit: 'Hz' }, { min: 0, max: 250, step: 0.5, initial });

const params = z.object({
  fromMs: number(
    { title: 'From', description: 'Top of the window; above the horizon where one is given.', unit: 'ms' },
    { min: 0, max: 20000, step: 4, initial: 200 },
  ),
  toMs: number(
    { title: 'To', description: 'Base of the window; below the horizon where one is given.', unit: 'ms' },
    { min: 0, max: 20000, step: 4, initial: 20000 },
  ),
  traces: number(
    { title: 'Traces', description: 'Drawn at random, whose spectra are averaged.' },
    { min: 10, max: 5000, whole: true, initial: 400 },
  ),
  seed: number(
    { title: 'Seed', description: 'Another draws other traces.' },
    { min: 1, max: 9999, whole: true, initial: 1 },
  ),
  slope: choice(
    { title: 'Slope', description: 'Of the spectrum of impedance against frequency: fitted to logs, or typed.' },
    ['of the wells', 'typed'],
    'of the wells',
  ),
  exponent: number(
    { title: 'Exponent', description: 'Where it is typed: amplitude goes with frequency to this power.' },
    { min: -3, max: 1, step: 0.05, initial: -0.9 },
  ),
  lowCutHz: hertz('Low cut', 'Below it nothing passes.', 5),
  lowPassHz: hertz('Low pass', 'From it on all of it passes.', 9),
  highPassHz: hertz('High pass', 'Up to it all of it passes.', 50),
  highCutHz: hertz('High cut', 'Above it nothing passes.', 65),
  smoothHz: number(
    { title: 'Smoothing', description: 'Width over which the spectrum of the seismic is averaged.', unit: 'Hz' },
    { min: 0.5, max: 20, step: 0.5, initial: 3 },
  ),
  phaseDeg: number(
    {
      title: 'Phase',
      description: '−90° turns reflections of zero phase into layers; less what the wavelet is off.',
      unit: '°',
    },
    { min: -180, max: 180, step: 1, initial: -90 },
  ),
});
type Params = z.infer<typeof params>;

/** Windows of traces drawn at random, `[trace][sample]` of one length. */
async function randomTraces(
  store: Store,
  volume: Volume,
  { horizon, area }: { horizon?: Horizon; area?: Polygon },
  p: Params,
  signal?: AbortSignal,
): Promise<{ data: Float32Array; length: number; from: number }> {
  const [ni, nj, nk] = shapeOf(volume);
  const { first, step } = volume.vertical;
  const level = horizon && (await onBinsOf(store, horizon, volume.binGrid));
  const inside = area && insideRings(area.rings);
  const index = (ms: number) => Math.round((ms - first) / step);
  const length = horizon
    ? Math.round((p.fromMs + p.toMs) / step) + 1
    : Math.max(0, Math.min(nk, index(p.toMs) + 1) - Math.max(0, index(p.fromMs)));
  if (length < 24)
    throw new LithagonError(
      'window',
      `The window holds ${Math.max(0, length)} samples of ${volume.name}; a spectrum needs 24.`,
      {
        object: volume.name,
        fix: 'Widen the window. Nothing was made.',
      },
    );
  const bins: { i: number; j: number; k: number }[] = [];
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      if (inside && !inside(...toMap(volume.binGrid, i, j))) continue;
      const k = level ? index(level[i * nj + j] - p.fromMs) : Math.max(0, index(p.fromMs));
      if (k >= 0 && k + length <= nk) bins.push({ i, j, k });
    }
  const random = randomOf(p.seed);
  for (let n = 0; n < Math.min(p.traces, bins.length); n++) {
    const m = n + Math.floor(random() * (bins.length - n));
    [bins[n], bins[m]] = [bins[m], bins[n]];
  }
  // in the order of lines each of them is read once
  const drawn = bins.slice(0, p.traces).sort((a, b) => a.i - b.i || a.j - b.j);
  const kept: Float32Array[] = [];
  for (let n = 0; n < drawn.length; ) {
    stopIf(signal);
    const { i } = drawn[n];
    const line = await readRegion(store, volume, { i: [i, i + 1], j: [0, nj], k: [0, nk] });
    for (; n < drawn.length && drawn[n].i === i; n++) {
      const from = drawn[n].j * nk + drawn[n].k;
      const trace = line.slice(from, from + length);
      if (!trace.some((v) => v !== v)) kept.push(trace);
    }
  }
  if (kept.length < 4)
    throw new LithagonError('empty', `Fewer than four traces of ${volume.name} have all samples of that window.`, {
      object: volume.name,
      fix: 'Move the window, or choose another area. Nothing was made.',
    });
  const data = new Float32Array(kept.length * length);
  for (const [n, trace] of kept.entries()) data.set(trace, n * length);
  return { data, length, from: p.fromMs };
}

function spectrumOf(data: Float32Array, length: number, stepMs: number, longest = length): Amplitudes {
  const collect = spectraCollector(stepMs, longest);
  for (let o = 0; o + length <= data.length; o += length) collect.add(data.subarray(o, o + length), false);
  const { hz, data: amplitude } = collect.finish();
  return { hz, amplitude };
}

/** A log less the straight line through it, where it is there in one piece: the longest. */
function piece(values: Float64Array): Float32Array {
  let [from, to] = [0, 0];
  for (let k = 0, start = 0; k <= values.length; k++)
    if (k === values.length || values[k] !== values[k]) {
      if (k - start > to - from) [from, to] = [start, k];
      start = k + 1;
    }
  const n = to - from;
  let [sx, sy, xx, xy] = [0, 0, 0, 0];
  for (let k = 0; k < n; k++) {
    sx += k;
    sy += values[from + k];
    xx += k * k;
    xy += k * values[from + k];
  }
  const slope = n > 1 ? (n * xy - sx * sy) / (n * xx - sx * sx) : 0;
  return Float32Array.from({ length: n }, (_, k) => values[from + k] - (sy / n + slope * (k - sx / n)));
}

export const operator = defineStep({
  id: 'invert.operator',
  version: 1,
  stage: 'invert',
  purpose: 'Relative impedance',
  title: 'Design an operator',
  summary:
    'Designs the operator of a coloured inversion from two spectra: that of the seismic, and the trend that impedance has in wells or that is typed. It is looked at before it is applied.',
  formula: 'O(f) = B(f)·c·f^α / S(f), phase −90°; S of the seismic, c·f^α of the logs, B the band.',
  avoid: 'Over a window whose spectrum is not that of the reservoir: frequencies there are raised wrongly.',
  source:
    'Fast-track coloured inversion (2000), 70th SEG Annual Meeting, 1572–1575; Walden & Hosken (1985), Geophysical Prospecting 33, 400–435',
  reach: 'global',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'intercept', 'gradient'], domain: 'twt' },
    wells: wellsInput(['directional surveys', 'logs', 'checkshots', 'time-depth relation'], { optional: true }),
    horizon: { kind: 'horizon', title: 'Around a horizon', optional: true, domain: 'twt' },
    area: { kind: 'polygon', title: 'Inside', optional: true },
  },
  params,
  outputs: { operator: { kind: 'operator', title: 'Operator' } },
  async run({ inputs: { seismic, wells, horizon, area }, around, params: p, store, signal, progress, warn }) {
    const band: Corners = [p.lowCutHz, p.lowPassHz, p.highPassHz, p.highCutHz];
    const half = 500 / seismic.vertical.step;
    for (let n = 1; n < 4; n++)
      if (band[n] < band[n - 1] || band[n] > half)
        throw new LithagonError(
          'params',
          `The corners ${band.join(', ')} Hz do not rise below ${half} Hz, the highest that the samples hold.`,
          {
            fix: 'Give low cut, low pass, high pass and high cut in rising order. Nothing was made.',
          },
        );
    const { data, length } = await randomTraces(store, seismic, { horizon, area }, p, signal);
    progress(0.5);
    const step = seismic.vertical.step;
    const own = smoothed(spectrumOf(data, length, step), p.smoothHz);
    const logs: { well: string; amplitudes: Amplitudes }[] = [];
    for (const well of wells ?? []) {
      const log = await timedLog(store, around, well, 'P impedance');
      if (typeof log === 'string') {
        warn(`${log}; it was left out.`);
        continue;
      }
      const { first, count } = seismic.vertical;
      const values = piece(atSamples(log, { first, step, count }).map(Math.log));
      if (values.length * step < LEAST_LOG_MS) {
        warn(`${well.name} has logs over less than ${LEAST_LOG_MS} ms; it was left out.`);
        continue;
      }
      const one = spectrumOf(values, values.length, step, length);
      logs.push({ well: well.name, amplitudes: { hz: one.hz, amplitude: one.amplitude } });
    }
    const fitted =
      logs.length > 0
        ? powerLawOf(
            logs.map((l) => l.amplitudes),
            Math.max(p.lowPassHz, 4),
            p.highPassHz,
          )
        : null;
    if (p.slope === 'of the wells' && !fitted)
      throw new LithagonError(
        'operator',
        'No well has impedance in time, so nothing tells the slope of its spectrum.',
        {
          fix: 'Choose a well with a tie, sonic and density, or type an exponent. Nothing was made.',
        },
      );
    const exponent = p.slope === 'typed' || !fitted ? p.exponent : fitted.exponent;
    // a typed slope has the level of the logs in the middle of the band, or that of the seismic where there are none
    const middle = Math.sqrt(Math.max(1, p.lowPassHz) * p.highPassHz);
    const levelAt = (f: number) => {
      if (fitted) return fitted.factor * f ** fitted.exponent;
      const n = own.hz.findIndex((v) => v >= f);
      return own.amplitude[n];
    };
    const factor = p.slope === 'typed' || !fitted ? levelAt(middle) / middle ** exponent : fitted.factor;
    if (!fitted)
      warn('No logs give it a level: what it makes keeps the strength of the seismic in the middle of its band.');
    const gain = operatorGain(own, { law: { exponent, factor }, band, least: 0.02 });
    const phaseDeg = seismic.polarity === 'harder-negative' ? p.phaseDeg + 180 : p.phaseDeg;
    const made: Operator = { hz: own.hz, gain, phaseDeg };
    const after = data.slice();
    applyOperator(after, length, step, made);
    const result = smoothed(spectrumOf(after, length, step), p.smoothHz);
    const object: Omit<InversionOperator, 'id' | 'name' | 'revision' | 'stage' | 'madeBy'> = {
      kind: 'operator',
      ...made,
      band,
      seismic: own.amplitude,
      traces: data.length / length,
      // on the frequencies of the seismic
      logs: logs.map(({ well, amplitudes }) => ({
        well,
        amplitude: own.hz.map((f) => {
          const x = f / (amplitudes.hz[1] - amplitudes.hz[0]);
          const n = Math.min(amplitudes.hz.length - 2, Math.floor(x));
          return amplitudes.amplitude[n] + (x - n) * (amplitudes.amplitude[n + 1] - amplitudes.amplitude[n]);
        }),
      })),
      law: { exponent, factor, misfitDb: p.slope === 'of the wells' ? (fitted?.misfitDb ?? null) : null },
      result: result.amplitude,
      stepMs: step,
      firstMs: -Math.round(HALF_MS / step) * step,
      samples: operatorInTime(made, step, HALF_MS),
    };
    return { operator: object };
  },
});
