import { z } from 'zod';
import { frequencyAttribute, frequencyReach } from '../../attributes/frequency.ts';
import { statisticOfWindow } from '../../attributes/windowStatistics.ts';
import { LithagonError } from '../../earth/errors.ts';
import { SEISMIC_LIKE } from '../../earth/quantities.ts';
import { cubicBetween } from '../../numerics/cubic.ts';
import { eachWindow, windowsOf } from '../../project/windows.ts';
import { choice, number } from '../define.ts';
import { mapStep } from '../mapStep.ts';
import { frequenciesOf, frequencyParams, frequencyUnit, specOf } from './frequency.ts';

/** Windows that are worked on at once. */
const TOGETHER = 256;

const params = z.object({
  ...frequencyParams,
  taken: choice(
    { title: 'Taken', description: 'Over the window; “value” is at the horizon itself.' },
    ['rms', 'mean', 'greatest', 'value'],
    'rms',
  ),
  above: number(
    { title: 'From above', description: 'Of the horizon; negative is below it.', unit: 'ms' },
    { min: -500, max: 500, step: 2, initial: 10 },
  ),
  below: number(
    {
      title: 'To below',
      description: 'The horizon, or the base where one is given; negative is above.',
      unit: 'ms',
    },
    { min: -500, max: 500, step: 2, initial: 10 },
  ),
});

/** Between samples by a cubic, by a straight line beside a gap. */
function magnitudeAt(trace: Float32Array, x: number): number {
  const k = Math.floor(x);
  const [b, c] = [trace[k], trace[k + 1]];
  const value = cubicBetween(trace[k - 1], b, c, trace[k + 2], x - k);
  return Number.isNaN(value) ? (x === k ? b : b + (x - k) * (c - b)) : value;
}

/** That of the nearest sample, led on as the frequency turns it, degrees. */
function phaseAt(trace: Float32Array, x: number, perSample: number): number {
  const k = Math.round(x);
  const turned = trace[k] + (x - k) * perSample;
  return turned - 360 * Math.round(turned / 360);
}

export const frequencyMap = mapStep({
  id: 'attributes.frequencyMap',
  version: 1,
  stage: 'attributes',
  purpose: 'On horizons',
  title: 'Frequency on a horizon',
  summary:
    'A map of what there is of a frequency around a horizon or between two: beds are bright at the frequency that they are tuned to.',
  formula: 'rms, mean or greatest of A(t, f) over t from z₁ − a to z₂ + b; A as of “Frequencies”.',
  avoid: 'With wavelets that are longer than the window: neighbouring beds are in the map then.',
  source: 'Partyka et al. (1999), The Leading Edge 18, 353–360',
  reach: 'global',
  inputs: {
    seismic: { kind: 'volume', title: 'Seismic', quantity: SEISMIC_LIKE, domain: 'twt' },
    horizon: { kind: 'horizon', title: 'Horizon', domain: 'twt' },
    base: { kind: 'horizon', title: 'Base', domain: 'twt', optional: true },
  },
  params,
  outputs: { map: { kind: 'map', title: 'Frequency on the horizon' } },
  async maps({ inputs: { seismic, horizon, base }, params: p, store, signal, progress }) {
    const { step } = seismic.vertical;
    const hz = frequenciesOf(p, step);
    if (p.gives === 'phase' && p.taken !== 'value')
      throw new LithagonError('params', 'A phase has no rms, mean or greatest.', {
        fix: 'Take its value, or the magnitude.',
      });
    const spec = specOf(p);
    const reach = Math.max(...hz.map((f) => frequencyReach(spec, f, step)));
    const [above, below] = p.taken === 'value' ? [0, 0] : [p.above, p.below];
    const windows = await windowsOf(store, horizon, p.taken === 'value' ? undefined : base, above, below);
    const { first } = seismic.vertical;
    const lengths = windows.top.map((t, n) => Math.floor((windows.base[n] - t) / step + 1e-6) + 1);
    // magnitudes are worked out on the samples of the trace, and then read between them: they are far smoother
    const offsets = new Float32Array(lengths.length);
    for (const [n, length] of lengths.entries()) {
      const at = (windows.top[n] - first) / step;
      const begin = Math.floor(at) - reach - 1;
      offsets[n] = at - begin;
      windows.top[n] = first + begin * step;
      windows.base[n] = first + (begin + length + 2 * reach + 3) * step;
    }
    const values = new Float32Array(lengths.length).fill(Number.NaN);
    const longest = lengths.reduce((most, length) => Math.max(most, length || 0), 1) + 2 * reach + 4;
    // windows side by side, what is shorter than the longest led on by nulls
    const held = new Float32Array(TOGETHER * longest);
    let bins: number[] = [];
    const workOut = () => {
      const found = frequencyAttribute(held.subarray(0, bins.length * longest), longest, step, hz, spec, p.gives);
      for (const [row, n] of bins.entries()) {
        const trace = found.subarray(row * longest, (row + 1) * longest);
        const window = Float32Array.from({ length: lengths[n] }, (_, m) =>
          p.gives === 'phase'
            ? phaseAt(trace, offsets[n] + m, (360 * p.hz * step) / 1000)
            : magnitudeAt(trace, offsets[n] + m),
        );
        values[n] = statisticOfWindow(window, p.taken, { percentile: 0, threshold: 0, at: 0 });
      }
      bins = [];
    };
    await eachWindow(
      store,
      seismic,
      windows,
      (n, samples) => {
        held.fill(Number.NaN, bins.length * longest, (bins.length + 1) * longest);
        held.set(samples, bins.length * longest);
        if (bins.push(n) === TOGETHER) workOut();
      },
      { signal, progress },
    );
    workOut();
    const { quantity, unit } = frequencyUnit(p);
    return { map: { binGrid: windows.binGrid, values, quantity, unit } };
  },
});
