import { z } from 'zod';
import { CURVATURES, type Curvature } from '../../attributes/curvature.ts';
import { surfaceAttribute } from '../../attributes/surface.ts';
import { statisticOfWindow, WINDOW_STATISTICS, type WindowStatistic } from '../../attributes/windowStatistics.ts';
import { LithagonError } from '../../earth/errors.ts';
import { during } from '../../numerics/stop.ts';
import { eachWindow, windowsOf } from '../../project/windows.ts';
import { choice, number } from '../define.ts';
import { mapStep } from '../mapStep.ts';

/** Of the surface itself, which needs no volume. */
const OF_SURFACE = ['thickness', ...CURVATURES] as const;

const params = z.object({
  gives: choice(
    {
      title: 'Gives',
      description:
        'A statistic of the volume in the window; or of the surface itself its thickness to the base, dip, azimuth or curvature.',
    },
    [...WINDOW_STATISTICS, ...OF_SURFACE],
    'rms',
  ),
  above: number(
    { title: 'From above', description: 'Of the horizon; negative is below it. ms, or m in depth.' },
    { min: -500, max: 500, step: 2, initial: 10 },
  ),
  below: number(
    {
      title: 'To below',
      description: 'The horizon, or the base where one is given; negative is above. ms, or m in depth.',
    },
    { min: -500, max: 500, step: 2, initial: 10 },
  ),
  percentile: number(
    { title: 'Percentile', description: 'That is taken, where one is.', unit: '%' },
    { min: 0, max: 100, step: 1, initial: 90 },
  ),
  threshold: number(
    { title: 'Above', description: 'Samples over this are counted, where they are; in the unit of the volume.' },
    { min: -1e9, max: 1e9, step: 1, initial: 0 },
  ),
  scale: number(
    { title: 'Scale', description: 'Bins on each side that a surface is fitted to, where it is.', unit: 'bins' },
    { min: 1, max: 12, whole: true, initial: 2 },
  ),
  velocity: number(
    {
      title: 'Velocity',
      description: 'By which time becomes depth, for dips and curvature; not used in depth.',
      unit: 'm/s',
    },
    { min: 300, max: 8000, step: 50, initial: 2000 },
  ),
});

type Params = z.infer<typeof params>;

const curvatureUnit = (kind: Curvature): [string, string] =>
  kind === 'dip'
    ? ['dip angle', '°']
    : kind === 'azimuth'
      ? ['azimuth', '°']
      : ['curvature', kind === 'shape index' ? '' : kind === 'Gaussian' ? '1/m²' : '1/m'];

const isStatistic = (gives: Params['gives']): gives is WindowStatistic =>
  (WINDOW_STATISTICS as readonly string[]).includes(gives);

export const onHorizon = mapStep({
  id: 'attributes.onHorizon',
  version: 1,
  stage: 'attributes',
  purpose: 'On horizons',
  title: 'On a horizon',
  summary:
    'A map of a volume in a window around a horizon or between two, or of the surface itself: only the samples of the window are worked out.',
  formula:
    'A statistic of d(t), t from z₁ − a to z₂ + b; or of z = ax² + by² + cxy + dx + ey + f, fitted around each bin.',
  avoid: 'Across a cycle skip of the horizon: the window jumps with it.',
  source: 'Statistics of a window; surfaces Roberts (2001), First Break 19, 85–100',
  reach: 'global',
  inputs: {
    horizon: { kind: 'horizon', title: 'Horizon' },
    base: { kind: 'horizon', title: 'Base', optional: true },
    volume: { kind: 'volume', title: 'Volume', optional: true, begins: true },
  },
  params,
  outputs: { map: { kind: 'map', title: 'On the horizon' } },
  async maps({ inputs: { horizon, base, volume }, params: p, store, signal, progress }) {
    const { binGrid } = horizon;
    if (p.gives === 'thickness') {
      if (!base)
        throw new LithagonError('input', 'A thickness needs a base.', { fix: 'Choose the horizon below as base.' });
      const { top, base: under } = await windowsOf(store, horizon, base, 0, 0);
      const unit = horizon.domain === 'depth' ? 'm' : 'ms';
      return {
        map: {
          binGrid,
          values: under.map((v, n) => v - top[n]),
          quantity: unit === 'm' ? 'thickness' : 'two-way time',
          unit,
        },
      };
    }
    if (!isStatistic(p.gives)) {
      const metres = horizon.domain === 'depth' ? 1 : p.velocity / 2000;
      const { top } = await windowsOf(store, horizon, undefined, 0, 0);
      const kind = p.gives;
      const down = top.map((v) => v * metres);
      const values = during(signal, () => surfaceAttribute(down, binGrid, kind, p.scale));
      const [quantity, unit] = curvatureUnit(p.gives);
      return { map: { binGrid, values, quantity, unit } };
    }
    if (!volume)
      throw new LithagonError('input', `“${p.gives}” is of a volume, and none is given.`, {
        fix: 'Choose one: seismic, or an attribute that need not be stored.',
      });
    if (volume.domain !== horizon.domain)
      throw new LithagonError('domain', `${volume.name} and ${horizon.name} are not both in one domain.`, {
        object: horizon.name,
        fix: 'Choose a horizon in the domain of the volume, or convert it.',
      });
    const kind = p.gives;
    const [above, below] = kind === 'value' ? [0, 0] : [p.above, p.below];
    const windows = await windowsOf(store, horizon, kind === 'value' ? undefined : base, above, below);
    const values = new Float32Array(windows.top.length).fill(Number.NaN);
    await eachWindow(
      store,
      volume,
      windows,
      (n, samples) => {
        values[n] = statisticOfWindow(samples, kind, { percentile: p.percentile, threshold: p.threshold, at: 0 });
      },
      { signal, progress },
    );
    const part = kind === 'part above';
    return {
      map: { binGrid, values, quantity: part ? 'probability' : volume.quantity, unit: part ? '1' : volume.unit },
    };
  },
});
