import { z } from 'zod';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { EarthObject, Volume, Wavelet, Well } from '../../earth/objects.ts';
import { during } from '../../numerics/stop.ts';
import { topInDepth } from '../../project/layers.ts';
import { shownUnits } from '../../project/units.ts';
import { curveOf } from '../../project/wells/curves.ts';
import { alongPath, type Panel, panelAlong, tieWellOf, wellsBehind } from '../../project/wells/tieWell.ts';
import { topsOf } from '../../project/wells/wells.ts';
import type { Store } from '../../storage/store.ts';
import { calibrateWell, movedRelation, type TieChain, tieChain, tieLogs } from '../../tie/chain.ts';
import { pointAtMd } from '../../wells/path.ts';
import { twtOfDepth } from '../../wells/timeDepth.ts';
import { choice, defineStep, number, text } from '../define.ts';

const params = z.object({
  top: text(
    {
      title: 'Around the top',
      description: 'The window of comparison lies around this top, as the well names it.',
      names: 'top',
    },
    '',
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
    .array(
      z.object({
        tvdss: z.number().meta({ title: 'TVDSS', unit: 'm' }),
        driftMs: z.number().meta({ title: 'Drift', unit: 'ms' }),
      }),
    )
    .default([])
    .meta({ title: 'Knees moved by hand', description: 'Depths below the datum and the drift that each was given.' }),
  shift: choice(
    {
      title: 'Shift',
      description:
        'Found by correlation and checkshots together, each weighed by its error; by correlation alone; or typed.',
    },
    ['weighed', 'by correlation', 'typed'],
    'weighed',
  ),
  shotErrorMs: number(
    {
      title: 'Error of checkshots',
      description: 'Standard error of one reading; 0 goes by their scatter about the drift.',
      unit: 'ms',
    },
    { min: 0, max: 20, step: 0.1, initial: 0 },
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
  stretch: choice(
    { title: 'Stretch', description: 'None, found by alignment within the bound of velocity, or by pins alone.' },
    ['none', 'automatic', 'pins'],
    'none',
  ),
  mostChange: number(
    {
      title: 'Velocity may change',
      description: 'Bound of what stretch and pins may do to the calibrated velocity.',
      unit: '%',
    },
    { min: 0, max: 15, step: 0.5, initial: 3 },
  ),
  pins: z
    .array(
      z.object({
        twt: z.number().meta({ title: 'TWT', unit: 'ms' }),
        shiftMs: z.number().meta({ title: 'Shift', unit: 'ms' }),
      }),
    )
    .default([])
    .meta({
      title: 'Pins',
      description: 'Times of the calibrated sonic, and what is added there over the shift (ms).',
    }),
  reason: z.string().max(2000).default('').meta({
    title: 'Reason',
    description: 'Why the tie is accepted though its velocity leaves the bound.',
  }),
  mostPhaseDeg: number(
    { title: 'Phase may turn', description: 'How far from that phase the search may go; 0 keeps it.', unit: '°' },
    { min: 0, max: 180, step: 5, initial: 40 },
  ),
});

export type TieParams = z.infer<typeof params>;

/** A tie as it stands, for the step and for a view that follows every change. */
export interface Tie {
  chain: TieChain;
  panel: Panel;
  windowMs: [number, number];
  tops: { name: string; tvdss: number; twt: number }[];
  /** The well whose times the sonic hangs from, where it has no checkshots of its own. */
  borrowedFrom: string | null;
  /** What is to be known of the data, in sentences. */
  notes: string[];
}

/**
 * Tie one well: calibrate, make the synthetic, compare it with the seismic along the path.
 * @param beside traces on each side of the path that are read with it
 * @param like a well whose times are taken where this one has no checkshots
 */
export async function tieOf(
  store: Store,
  around: EarthObject[],
  well: Well,
  seismic: Volume,
  wavelet: Wavelet,
  p: TieParams,
  beside: number,
  like?: Well,
  draws = 99,
  signal?: AbortSignal,
): Promise<Tie> {
  const notes: string[] = [];
  const data = await tieWellOf(store, around, well, like, notes);
  stopIf(signal);
  const logs = during(signal, () => tieLogs(data));
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
    weighShots: p.shift === 'weighed',
    shotErrorMs: p.shotErrorMs > 0 ? p.shotErrorMs : null,
    ownWaveletMs: wellsBehind(wavelet).includes(well.name) ? wavelet.stepMs * (wavelet.samples.length - 1) : null,
    pins: p.stretch === 'pins' ? p.pins : [],
    stretch: p.stretch === 'automatic',
    mostChange: p.mostChange / 100,
    draws,
  };
  stopIf(signal);
  const calibration = during(signal, () => calibrateWell(data, logs, settings));
  if (!calibration)
    throw new LithagonError('tie', `Fewer than two checkshots of ${well.name} lie along its sonic.`, {
      object: well.name,
      fix: 'Load more checkshots. Nothing was changed.',
    });
  const first = movedRelation(data, logs, calibration, () => 0);
  const at = topInDepth(around, well, p.top);
  if (!at)
    throw new LithagonError('tie', p.top ? `${well.name} has no top “${p.top}”.` : 'No top was named.', {
      object: well.name,
      fix: 'Name a top that the well has.',
    });
  const middle = twtOfDepth(first, at.tvdss);
  settings.fromMs = middle - p.windowMs / 2;
  settings.toMs = middle + p.windowMs / 2;
  stopIf(signal);
  const panel = await panelAlong(store, seismic, data.path, first, beside);
  const trace = alongPath(panel);
  const known = trace.values.filter((v, k) => {
    const t = trace.firstMs + k * trace.stepMs;
    return t >= settings.fromMs && t <= settings.toMs && !Number.isNaN(v);
  }).length;
  const wanted = Math.floor((settings.toMs - settings.fromMs) / trace.stepMs);
  if (known < 10)
    throw new LithagonError('tie', `The path of ${well.name} is outside ${seismic.name} around ${p.top}.`, {
      object: well.name,
      fix: 'Choose another top or a volume that covers it. Nothing was changed.',
    });
  if (known < 0.9 * wanted)
    notes.push(
      `The path of ${well.name} leaves ${seismic.name}: ${Math.round((100 * known) / wanted)} % of the window has seismic.`,
    );
  const sign = seismic.polarity === 'harder-negative' ? -1 : 1;
  const shape = { ...wavelet, samples: Float64Array.from(wavelet.samples, (v) => sign * v) };
  const units = await shownUnits(store);
  const chain = during(signal, () => tieChain(data, logs, calibration, shape, trace, settings, units));
  const tops = topsOf(around, well.name).flatMap(({ name, md }) => {
    const { tvdss } = pointAtMd(data.path, md);
    return [{ name, tvdss, twt: twtOfDepth(chain.relation, tvdss) }];
  });
  return { chain, panel, windowMs: [settings.fromMs, settings.toMs], tops, borrowedFrom: data.borrowedFrom, notes };
}

export const tieWell = defineStep({
  id: 'tie.well',
  purpose: 'Ties',
  version: 3,
  stage: 'tie',
  title: 'Tie a well',
  summary: 'Calibrates the sonic to checkshots, makes a synthetic and moves it to the seismic along the path.',
  formula: 's = w ∗ r, r = (Z₂ − Z₁)/(Z₂ + Z₁); the shift and stretch that correlate best within their bounds.',
  avoid: 'With stretches that ask for velocities no rock has: the drift curve tells.',
  source: 'White & Simm (2003), First Break 21(10), 75–83; Herrera & van der Baan (2014), Geophysics 79, V47–V54',
  reach: 'global',
  inputs: {
    well: {
      kind: 'well',
      title: 'Well',
      companions: ['directional surveys', 'logs', 'checkshots', 'tops'],
    },
    seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude'], domain: 'twt' },
    wavelet: { kind: 'wavelet', title: 'Wavelet' },
    like: {
      kind: 'well',
      title: 'Times from',
      optional: true,
      companions: ['directional surveys', 'checkshots', 'time-depth relation'],
    },
  },
  params,
  outputs: { relation: { kind: 'time-depth relation', title: 'Tie' } },
  async run({ inputs, around, params: p, store, signal, warn, uses }) {
    const { well, seismic, wavelet, like } = inputs;
    const { chain, windowMs, borrowedFrom, notes } = await tieOf(
      store,
      around,
      well,
      seismic,
      wavelet,
      p,
      0,
      like,
      199,
      signal,
    );
    for (const name of ['sonic', 'density', 'shear sonic']) {
      const held = curveOf(around, well.name, name);
      if (held) uses(held.logs);
    }
    const { logs, calibration, evidence, change, warnings } = chain;
    if (Math.abs(change.part) > p.mostChange / 100 && p.reason.trim() === '')
      throw new LithagonError(
        'tie',
        `The tie of ${well.name} changes velocity by ${(100 * change.part).toFixed(1)} % at ${change.twt.toFixed(0)} ms, beyond the bound of ${p.mostChange} %.`,
        { object: well.name, fix: 'Move its pins, widen the bound, or write a reason. Nothing was changed.' },
      );
    for (const note of notes) warn(note);
    for (const sentence of warnings) warn(sentence);
    if (borrowedFrom) warn(`${well.name} has no checkshots; its times begin as those of ${borrowedFrom}.`);
    if (logs.densityEstimated) warn(`${well.name} has no density; it was estimated from velocity.`);
    const units = await shownUnits(store);
    for (const { log, md } of logs.spikes) {
      const shown = md.slice(0, 5).map((m) => units.text(m, 'm', 1));
      warn(
        `${md.length} ${md.length === 1 ? 'sample of the' : 'samples of the'} ${log} ${md.length === 1 ? 'was a spike' : 'were spikes'} and taken out, at ${shown.join(', ')}${md.length > 5 ? ' …' : ''} MD.`,
      );
    }
    if (logs.bridged > 0) warn(`${logs.bridged} log samples that were null were bridged by straight lines.`);
    const { runnerUp } = chain.map;
    const r2 = chain.correlation ** 2;
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
        pins: chain.pins,
        evidence: {
          chance: evidence.chance,
          runnerUp: runnerUp && { shiftMs: runnerUp.shiftMs, correlation: runnerUp.correlation },
          asDeclared: evidence.asDeclared,
          turnedOver: evidence.turnedOver,
          predictability: r2,
          uncertaintyMs: evidence.uncertaintyMs,
          uncertaintyDeg: evidence.uncertaintyDeg,
          byMatch: evidence.byMatch,
          byCheckshots: evidence.byCheckshots,
          leftOut: evidence.leftOut,
          velocityChange: change.part,
          warnings,
        },
        ...(p.reason.trim() ? { reason: p.reason.trim() } : {}),
      },
    };
  },
});
