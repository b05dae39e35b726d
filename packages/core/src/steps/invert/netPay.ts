import { z } from 'zod';
import { toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Horizon, Polygon, ResultTable, Volume, Well } from '../../earth/objects.ts';
import {
  type Lobe,
  netOf,
  type PayScale,
  type PaySpread,
  scaleByGreatest,
  scaleByWells,
  sumsOfPay,
} from '../../inversion/netPay.ts';
import { insideRings } from '../../numerics/rings.ts';
import { during } from '../../numerics/stop.ts';
import { measurePay, type PayMeasures, payOfWells, type WellPay } from '../../project/netPay.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, number, text, wellsInput } from '../define.ts';
import { keptMap } from '../mapStep.ts';

const params = z.object({
  pay: choice(
    { title: 'Pay is', description: 'Softer or harder than the rock around it.' },
    ['softer', 'harder'],
    'softer',
  ),
  marginMs: number(
    {
      title: 'Beside the horizons',
      description: 'How far above the top and below the base the bed is looked for.',
      unit: 'ms',
    },
    { min: 0, max: 100, step: 1, initial: 8 },
  ),
  scaleBy: choice(
    { title: 'Scale', description: 'By wells, so that the strongest is full, or typed.' },
    ['by wells', 'by the strongest', 'typed'],
    'by wells',
  ),
  scale: number(
    { title: 'Scale', description: 'Where it is typed: relative impedance of a thick bed of nothing but pay.' },
    { min: 1e-6, max: 1e9, step: 0.005, initial: 0.1 },
  ),
  velocity: number(
    { title: 'Velocity of pay', description: 'By which time becomes thickness.', unit: 'm/s' },
    { min: 300, max: 8000, step: 10, initial: 2500 },
  ),
  ratio: number(
    { title: 'Velocity ratio', description: 'Of pay to what is not pay: the gross thickness follows from it.' },
    { min: 0.3, max: 3, step: 0.01, initial: 1 },
  ),
  curve: text({ title: 'Pay in wells by', description: 'Curve that flags it.', names: 'curve' }, 'net flag'),
  least: number(
    { title: 'From the value', description: 'Pay is where the curve is no less: of a net flag 1 is reservoir, 2 pay.' },
    { min: -1e6, max: 1e6, step: 0.5, initial: 2 },
  ),
  scaleSpread: number(
    { title: 'Scale off by', description: 'Standard deviation as a part, beside what wells disagree by.', unit: '1' },
    { min: 0, max: 1, step: 0.01, initial: 0.2 },
  ),
  velocitySpread: number(
    { title: 'Velocity off by', description: 'Standard deviation as a part.', unit: '1' },
    { min: 0, max: 0.5, step: 0.01, initial: 0.04 },
  ),
  pickMs: number(
    { title: 'Picks off by', description: 'Standard deviation of the apparent thickness.', unit: 'ms' },
    { min: 0, max: 50, step: 0.5, initial: 2 },
  ),
  draws: number(
    { title: 'Draws', description: 'Of the Monte Carlo.' },
    { min: 50, max: 5000, whole: true, initial: 400 },
  ),
  seed: number(
    { title: 'Seed', description: 'Another gives other draws.' },
    { min: 1, max: 9999, whole: true, initial: 1 },
  ),
});
export type PayParams = z.infer<typeof params>;

/** Everything that the scale is looked at with. */
export interface PayWork {
  measures: PayMeasures;
  wells: WellPay[];
  /** Bins that are summed: inside the area, or all. */
  inside: Uint8Array;
  notes: string[];
}

/** Measure beds, wells and area: what moving a scale does not change. */
export async function payWork(
  store: Store,
  given: { impedance: Volume; top: Horizon; base: Horizon; wells: Well[]; area?: Polygon },
  p: Pick<PayParams, 'pay' | 'marginMs' | 'curve' | 'least'>,
  work: { signal?: AbortSignal; progress?(part: number): void } = {},
): Promise<PayWork> {
  const { impedance, top, base, wells, area } = given;
  const measures = await measurePay(store, impedance, top, base, p, work);
  const { found, notes } = await payOfWells(store, await store.list(), wells, { top, base }, measures, p);
  const rings = area && insideRings(area.rings);
  const nj = top.binGrid.crossline.count;
  const inside = Uint8Array.from(measures.lobes, (_, n) =>
    !rings || rings(...toMap(top.binGrid, Math.floor(n / nj), n % nj)) ? 1 : 0,
  );
  return { measures, wells: found, inside, notes };
}

/** The scale that is asked for, how far wells disagree about it, and what was done. */
export function payScale({ measures, wells, inside }: PayWork, p: PayParams): PayScale & { byWells: number } {
  const { tuning, lobes } = measures;
  const measured = wells.filter((w): w is WellPay & { lobe: Lobe } => w.lobe !== null);
  const byWells = scaleByWells(measured, tuning, p.velocity);
  if (p.scaleBy === 'by wells' && !byWells)
    throw new LithagonError(
      'scale',
      'No well has both pay by that curve and a bed beside it, so nothing tells the scale.',
      {
        fix: 'Choose other wells or another curve, or scale by the strongest. Nothing was made.',
      },
    );
  const scale =
    p.scaleBy === 'typed'
      ? p.scale
      : p.scaleBy === 'by wells' && byWells
        ? byWells.scale
        : scaleByGreatest(
            lobes.filter((l, n): l is Lobe => l !== null && inside[n] === 1),
            tuning,
          );
  return { scale, velocity: p.velocity, byWells: byWells?.spread ?? 0 };
}

export const spreadOfPay = (p: PayParams, byWells: number): PaySpread => ({
  scale: Math.hypot(p.scaleSpread, byWells),
  velocity: p.velocitySpread,
  pickMs: p.pickMs,
  draws: p.draws,
  seed: p.seed,
});

export const netPay = defineStep({
  id: 'invert.netPay',
  version: 1,
  stage: 'invert',
  purpose: 'Thin beds',
  title: 'Net pay',
  summary:
    'Net pay of a bed from its mean relative impedance and the thickness that it is seen to have: tuning is taken out by the wedge of the data’s own band, and the scale is set by wells.',
  formula:
    'net = min(1, ā / (s·w̄(T′)))·T(T′)·v/2; w̄ and T by the wedge of the band, s the scale, T′ the apparent thickness.',
  avoid: 'Where two beds share one lobe, or what is not pay is as soft: amplitude then tells of other things.',
  source: 'The Leading Edge 26 (2007), 1278–1282',
  reach: 'global',
  inputs: {
    impedance: {
      kind: 'volume',
      title: 'Relative impedance',
      quantity: ['relative impedance'],
      domain: 'twt',
      usual: { step: 'invert.coloured', output: 'impedance' },
    },
    top: { kind: 'horizon', title: 'Top', domain: 'twt' },
    base: { kind: 'horizon', title: 'Base', domain: 'twt' },
    wells: wellsInput(['directional surveys', 'logs', 'checkshots', 'time-depth relation'], { optional: true }),
    area: { kind: 'polygon', title: 'Area', optional: true, begins: true },
  },
  params,
  outputs: {
    netPay: { kind: 'map', title: 'Net pay' },
    thickness: { kind: 'map', title: 'Gross thickness' },
    apparent: { kind: 'map', title: 'Apparent thickness' },
    average: { kind: 'map', title: 'Mean relative impedance' },
    part: { kind: 'map', title: 'Pay in gross' },
    table: { kind: 'result table', title: 'Net pay at wells and in the area' },
  },
  async run({ inputs, params: p, store, idFor, signal, progress, warn }) {
    const { top, area } = inputs;
    const work = await payWork(store, { ...inputs, wells: inputs.wells ?? [] }, p, {
      signal,
      progress: (f) => progress(0.6 * f),
    });
    for (const note of work.notes) warn(note);
    const { lobes, tuning, crossed } = work.measures;
    if (crossed > 0) warn(`${top.name} lies under ${inputs.base.name} at ${crossed} bins, which have no pay.`);
    const scale = payScale(work, p);
    const made = () => new Float32Array(lobes.length).fill(Number.NaN);
    const maps = { netPay: made(), thickness: made(), apparent: made(), average: made(), part: made() };
    let full = 0;
    for (const [n, lobe] of lobes.entries()) {
      if (!lobe) continue;
      const { part, netM } = netOf(lobe, tuning, scale);
      if (part >= 1) full++;
      maps.netPay[n] = netM;
      maps.part[n] = part;
      maps.apparent[n] = lobe.apparentMs;
      maps.average[n] = lobe.average;
      const rest = ((1 - part) * tuning.thickness(lobe.apparentMs) * p.velocity) / p.ratio / 2000;
      maps.thickness[n] = netM + rest;
    }
    if (full > 0.1 * lobes.length)
      warn(
        `${((100 * full) / lobes.length).toFixed(0)} % of bins are full of pay at that scale; a greater one would leave more of them in between.`,
      );
    const { inside } = work;
    const spread = spreadOfPay(p, scale.byWells);
    const sums = during(signal, () =>
      sumsOfPay(
        lobes.map((l, n) => (inside[n] ? l : null)),
        tuning,
        scale,
        spread,
      ),
    );
    const { perInline: a, perCrossline: b } = top.binGrid;
    const binM2 = Math.abs(a[0] * b[1] - a[1] * b[0]);
    const at = (exceeded: number) => sums[Math.min(sums.length - 1, Math.floor((1 - exceeded) * sums.length))] * binM2;
    const best = lobes.reduce((s, lobe, n) => s + (lobe && inside[n] ? netOf(lobe, tuning, scale).netM : 0), 0) * binM2;
    const bins = inside.reduce((s, v) => s + v, 0);
    const mean = (v: number) => v / (bins * binM2);
    const rows: ResultTable['rows'] = [
      ...work.wells.map((w): ResultTable['rows'][number] => [
        w.well,
        w.netM,
        w.lobe ? netOf(w.lobe, tuning, scale).netM : null,
        w.lobe?.apparentMs ?? null,
        w.lobe?.average ?? null,
        null,
      ]),
      ...(
        [
          ['best', best],
          ['P90 (low)', at(0.9)],
          ['P50', at(0.5)],
          ['P10 (high)', at(0.1)],
        ] as const
      ).map(([name, v]): ResultTable['rows'][number] => [
        `${area?.name ?? 'All bins'}, ${name}`,
        null,
        mean(v),
        null,
        null,
        v,
      ]),
    ];
    warn(`Scale ${scale.scale.toPrecision(4)}, ${p.scaleBy}; unsure by ${(100 * spread.scale).toFixed(0)} %.`);
    const map = (role: keyof typeof maps, quantity: string, unit: string) =>
      keptMap({ binGrid: top.binGrid, values: maps[role], quantity, unit }, store, idFor(role));
    const table: Draft<ResultTable> = {
      kind: 'result table',
      columns: [
        { name: 'Where', unit: '' },
        { name: 'Net pay by logs', unit: 'm' },
        { name: 'Net pay by seismic', unit: 'm' },
        { name: 'Apparent thickness', unit: 'ms' },
        { name: 'Mean relative impedance', unit: '' },
        { name: 'Net rock volume', unit: 'm³' },
      ],
      rows,
    };
    return {
      netPay: await map('netPay', 'thickness', 'm'),
      thickness: await map('thickness', 'thickness', 'm'),
      apparent: await map('apparent', 'two-way time', 'ms'),
      average: await map('average', 'relative impedance', ''),
      part: await map('part', 'probability', '1'),
      table,
    };
  },
});
