import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Volume, Wavelet, Well } from '../../earth/objects.ts';
import { topInDepth } from '../../project/layers.ts';
import { alongPath, type Panel, panelAlong, tieWellOf } from '../../project/tieWell.ts';
import type { Store } from '../../storage/store.ts';
import { calibrateWell, shiftedRelation, type TieChain, tieChain, tieLogs } from '../../tie/chain.ts';
import { twtOfDepth } from '../../wells/timeDepth.ts';
import { choice, defineStep, number, text } from '../define.ts';

const params = z.object({
  top: text(
    { title: 'Around the top', description: 'The window of comparison lies around this top, as the well names it.' },
    'Tolven Top',
  ),
  windowMs: number(
    {
      title: 'Window',
      description: 'Whole height of the window in which synthetic and seismic are compared.',
      unit: 'ms',
    },
    { min: 60, max: 1500, step: 10, initial: 300 },
  ),
  kneeSpacingM: number(
    { title: 'Knees every', description: 'Distance between the bends of the drift correction.', unit: 'm' },
    { min: 50, max: 1000, step: 10, initial: 300 },
  ),
  knees: z
    .array(z.object({ tvdss: z.number(), driftMs: z.number() }))
    .default([])
    .meta({ title: 'Knees moved by hand', description: 'Depths below the datum and the drift that each was given.' }),
  shift: choice(
    { title: 'Shift', description: 'Found by correlation, or typed.' },
    ['by correlation', 'typed'],
    'by correlation',
  ),
  shiftMs: number(
    { title: 'Typed shift', description: 'Added to the times of the calibrated sonic.', unit: 'ms' },
    { min: -100, max: 100, step: 0.5, initial: 0 },
  ),
  mostShiftMs: number(
    { title: 'Search', description: 'Largest shift that the correlation may choose.', unit: 'ms' },
    { min: 2, max: 100, step: 1, initial: 16 },
  ),
  phaseDeg: number(
    { title: 'Phase', description: 'Constant phase that the wavelet is turned by, to begin with.', unit: '°' },
    { min: -180, max: 180, step: 5, initial: 0 },
  ),
  mostPhaseDeg: number(
    { title: 'Phase may turn', description: 'How far from that phase the search may go; 0 keeps it.', unit: '°' },
    { min: 0, max: 180, step: 5, initial: 40 },
  ),
}); // prettier-ignore

export type TieParams = z.infer<typeof params>;

/** A tie as it stands, for the step and for a view that follows every change. */
export interface Tie {
  chain: TieChain;
  panel: Panel;
  windowMs: [number, number];
  tops: { name: string; tvdss: number; twt: number }[];
}

/**
 * Tie one well: calibrate, make the synthetic, compare it with the seismic along the path.
 * @param beside traces on each side of the path that are read with it
 */
export async function tieOf(
  store: Store,
  around: EarthObject[],
  well: Well,
  seismic: Volume,
  wavelet: Wavelet,
  p: TieParams,
  beside: number,
): Promise<Tie> {
  const data = await tieWellOf(store, around, well);
  const logs = tieLogs(data);
  if (!logs)
    throw new LithagonError('tie', `The sonic of ${well.name} has fewer than fifty samples.`, {
      object: well.name,
      fix: 'Load a longer one, or tie another well.',
    });
  const settings = {
    kneeSpacingM: p.kneeSpacingM,
    moved: p.knees,
    fromMs: 0,
    toMs: 0,
    mostShiftMs: p.mostShiftMs,
    mostPhaseDeg: p.mostPhaseDeg,
    phaseDeg: p.phaseDeg,
    shiftMs: p.shift === 'typed' ? p.shiftMs : null,
  };
  const calibration = calibrateWell(data, logs, settings);
  if (!calibration)
    throw new LithagonError('tie', `Fewer than two checkshots of ${well.name} lie along its sonic.`, {
      object: well.name,
      fix: 'Load more checkshots. Nothing was changed.',
    });
  const first = shiftedRelation(data, logs, calibration, 0);
  const at = topInDepth(around, well, p.top);
  if (!at)
    throw new LithagonError('tie', `${well.name} has no top “${p.top}”.`, {
      object: well.name,
      fix: 'Name a top that the well has.',
    });
  const middle = twtOfDepth(first, at.tvdss);
  settings.fromMs = middle - p.windowMs / 2;
  settings.toMs = middle + p.windowMs / 2;
  const panel = await panelAlong(store, seismic, data.path, first, beside);
  const sign = seismic.polarity === 'harder-negative' ? -1 : 1;
  const shape = { ...wavelet, samples: Float64Array.from(wavelet.samples, (v) => sign * v) };
  const chain = tieChain(data, logs, calibration, shape, alongPath(panel), settings);
  const names = around.flatMap((o) =>
    o.kind === 'tops' && o.well === well.name ? o.rows.map((r) => String(r[0])) : [],
  );
  const tops = [...new Set(names)].flatMap((name) => {
    const point = topInDepth(around, well, name);
    return point ? [{ name, tvdss: point.tvdss, twt: twtOfDepth(chain.relation, point.tvdss) }] : [];
  });
  return { chain, panel, windowMs: [settings.fromMs, settings.toMs], tops };
}

export const tieWell = defineStep({
  id: 'tie.well',
  version: 1,
  stage: 'tie',
  title: 'Tie a well',
  summary: 'Calibrates the sonic to checkshots, makes a synthetic and moves it to the seismic along the path.',
  source: 'White & Simm (2003), First Break 21(10), 75–83',
  reach: 'global',
  inputs: {
    well: {
      kind: 'well',
      title: 'Well',
      companions: ['directional surveys', 'logs', 'checkshots', 'tops'],
    },
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'], domain: 'twt' },
    wavelet: { kind: 'wavelet', title: 'Wavelet' },
  },
  params,
  outputs: { relation: { kind: 'time-depth relation', title: 'Tie' } },
  async run({ inputs, around, params: p, store, warn }) {
    const { well, seismic, wavelet } = inputs;
    const { chain, windowMs } = await tieOf(store, around, well, seismic, wavelet, p, 0);
    const { logs, calibration, map } = chain;
    if (logs.densityEstimated) warn(`${well.name} has no density; it was estimated from velocity.`);
    if (logs.spikes > 0) warn(`${logs.spikes} spikes were taken out of the logs.`);
    if (logs.bridged > 0) warn(`${logs.bridged} log samples that were null were bridged by straight lines.`);
    if (p.shift === 'by correlation' && Math.abs(chain.shiftMs) >= p.mostShiftMs - 0.5)
      warn(`The shift of ${chain.shiftMs.toFixed(1)} ms lies at the edge of the search.`);
    if (map.runnerUp && map.runnerUp.correlation > chain.correlation - 0.1)
      warn(
        `A shift of ${map.runnerUp.shiftMs.toFixed(0)} ms matches nearly as well: ${map.runnerUp.correlation.toFixed(2)} against ${chain.correlation.toFixed(2)}.`,
      );
    return {
      relation: {
        kind: 'time-depth relation',
        well: well.name,
        pairs: Array.from(chain.relation.tvdss, (z, n): [number, number] => [z, chain.relation.twt[n]]),
        knees: calibration.knees,
        shiftMs: chain.shiftMs,
        phaseDeg: chain.phaseDeg,
        correlation: chain.correlation,
        windowMs,
      },
    };
  },
});
