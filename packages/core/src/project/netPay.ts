import { bandPassGain, type Corners } from '../conditioning/filter.ts';
import { toIndex } from '../earth/binGrid.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject, Horizon, InversionOperator, Volume, Well } from '../earth/objects.ts';
import { gridAt } from '../horizons/grid.ts';
import { type Lobe, lobeOf } from '../inversion/netPay.ts';
import { responseOfGain, type Tuning, tuningOf, type Wedge, wedgeOfImpedance } from '../inversion/wedge.ts';
import type { Store } from '../storage/store.ts';
import { depthOfTwt } from '../wells/timeDepth.ts';
import { wellCurves } from './wells/curves.ts';
import { relationOf } from './wells/seeds.ts';
import { timedLog } from './wells/timedLogs.ts';
import { eachWindow, onBinsOf, windowsOf } from './windows.ts';

/** What is measured of a bed at every bin of its top. */
export interface PayMeasures {
  lobes: (Lobe | null)[];
  /** Bins at which the top lies under the base. */
  crossed: number;
  wedge: Wedge;
  tuning: Tuning;
}

export interface PayWindow {
  /** How far above the top and below the base the strongest of the lobe may lie, ms. */
  marginMs: number;
  /** Whether pay is softer or harder than what lies around it. */
  pay: 'softer' | 'harder';
}

/** Samples beyond the margin within which a lobe may end, ms. */
const BESIDE_MS = 48;
/** Thickest bed of a wedge, and the step between two of them, ms. */
const WEDGE = { most: 120, step: 1 };

/** The operator that a relative impedance was made by, found through what it was made of. */
export async function operatorBehind(store: Store, volume: Volume): Promise<InversionOperator | null> {
  const seen = new Set<string>();
  let next: EarthObject[] = [volume];
  for (let turn = 0; turn < 6 && next.length > 0; turn++) {
    const found = next.find((o): o is InversionOperator => o.kind === 'operator');
    if (found) return found;
    const ids = next.flatMap((o) =>
      Object.values(o.madeBy.inputs)
        .flat()
        .map((r) => r.split('@')[0]),
    );
    next = [];
    for (const id of ids) {
      if (seen.has(id)) continue;
      seen.add(id);
      const o = await store.get(id);
      if (o) next.push(o);
    }
  }
  return null;
}

/** The wedge of a relative impedance: a bed through the band of the operator that made it. */
export function wedgeOfBand(band: Corners, most = WEDGE.most): Wedge {
  const response = responseOfGain((hz) => bandPassGain(band, hz), band[3], 240);
  return wedgeOfImpedance(
    response,
    Array.from({ length: Math.round(most / WEDGE.step) }, (_, n) => (n + 1) * WEDGE.step),
  );
}

/** Measure the lobe of a bed between its top and base, bin by bin. */
export async function measurePay(
  store: Store,
  volume: Volume,
  top: Horizon,
  base: Horizon,
  window: PayWindow,
  work: { signal?: AbortSignal; progress?(part: number): void } = {},
): Promise<PayMeasures> {
  const operator = await operatorBehind(store, volume);
  if (!operator)
    throw new LithagonError('band', `${volume.name} was not made by an operator, so its band is not known.`, {
      object: volume.name,
      fix: 'Choose a relative impedance that a coloured inversion made, or one turned from two such. Nothing was made.',
    });
  if (top.domain !== volume.domain || base.domain !== volume.domain)
    throw new LithagonError('domain', `${top.name} and ${base.name} are not both in the domain of ${volume.name}.`, {
      object: top.name,
      fix: 'Choose horizons in time. Nothing was made.',
    });
  const wide = window.marginMs + BESIDE_MS;
  const [tops, bases] = [await windowsOf(store, top, undefined, 0, 0), await onBinsOf(store, base, top.binGrid)];
  const windows = await windowsOf(store, top, base, wide, wide);
  const lobes: (Lobe | null)[] = new Array(tops.top.length).fill(null);
  let [crossed, both] = [0, 0];
  for (let n = 0; n < lobes.length; n++) {
    const thick = bases[n] - tops.top[n];
    if (thick !== thick) continue;
    both++;
    if (thick < 0) {
      crossed++;
      windows.top[n] = Number.NaN;
    }
  }
  if (both === 0 || crossed > both / 2)
    throw new LithagonError(
      'crossed',
      both === 0
        ? `${top.name} and ${base.name} have no bin in common.`
        : `${top.name} lies under ${base.name} at ${crossed} of ${both} bins, so the two are no top and base.`,
      {
        object: top.name,
        fix: both === 0 ? 'Choose horizons of one survey. Nothing was made.' : 'Exchange them. Nothing was made.',
      },
    );
  const sign = window.pay === 'softer' ? -1 : 1;
  await eachWindow(
    store,
    volume,
    windows,
    (n, samples, first) => {
      lobes[n] = lobeOf(
        samples,
        first,
        volume.vertical.step,
        tops.top[n] - window.marginMs,
        bases[n] + window.marginMs,
        sign,
      );
    },
    work,
  );
  const wedge = wedgeOfBand(operator.band);
  return { lobes, crossed, wedge, tuning: tuningOf(wedge) };
}

/** Net pay of a well between two horizons by a curve that flags it, and what is measured beside it. */
export interface WellPay {
  well: string;
  bin: number;
  /** True vertical thickness, m. */
  netM: number;
  grossM: number;
  /** Part of the thickness in time that is pay. */
  part: number;
  lobe: Lobe | null;
}

/** Pay of wells; a reason, as a sentence without its end, where one has none. */
export async function payOfWells(
  store: Store,
  objects: EarthObject[],
  wells: Well[],
  { top, base }: { top: Horizon; base: Horizon },
  measures: PayMeasures,
  { curve, least, marginMs }: { curve: string; least: number; marginMs: number },
): Promise<{ found: WellPay[]; notes: string[] }> {
  const [tops, bases] = [await windowsOf(store, top, undefined, 0, 0), await onBinsOf(store, base, top.binGrid)];
  const [ni, nj] = [top.binGrid.inline.count, top.binGrid.crossline.count];
  const found: WellPay[] = [];
  const notes: string[] = [];
  for (const well of wells) {
    const relation = relationOf(objects, well.name);
    const held = wellCurves(store, objects, well, [curve]);
    const values = held && (await held.get(curve));
    const timed = await timedLog(store, objects, well, curve);
    if (!relation || !held || !values || typeof timed === 'string') {
      notes.push(`${typeof timed === 'string' ? timed : `${well.name} has no ${curve}`}; it was left out.`);
      continue;
    }
    // where the well passes the top: its place follows from its time there and the other way round
    let ms = timed.firstMs + timed.values.length / 2;
    for (let turn = 0; turn < 6; turn++) {
      const [x, y] = timed.place(ms);
      const at = gridAt(tops.top, top.binGrid, x, y);
      if (at === at) ms = at;
    }
    const [x, y] = timed.place(ms);
    const [i, j] = toIndex(top.binGrid, x, y).map(Math.round);
    const baseMs = gridAt(bases, top.binGrid, x, y);
    if (i < 0 || j < 0 || i >= ni || j >= nj || baseMs !== baseMs) {
      notes.push(`${well.name} passes beside ${top.name} and ${base.name}; it was left out.`);
      continue;
    }
    const [from, to] = [depthOfTwt(relation, ms - marginMs), depthOfTwt(relation, baseMs + marginMs)];
    let [net, known] = [0, 0];
    for (let n = 0; n + 1 < values.length; n++) {
      const [a, b] = [held.tvdss(n), held.tvdss(n + 1)];
      if (a < from || b > to || values[n] !== values[n]) continue;
      known += b - a;
      if (values[n] >= least) net += b - a;
    }
    if (known < 0.5 * (to - from)) {
      notes.push(`The ${curve} of ${well.name} ends above ${base.name}; it was left out.`);
      continue;
    }
    const grossM = depthOfTwt(relation, baseMs) - depthOfTwt(relation, ms);
    const bin = i * nj + j;
    found.push({
      well: well.name,
      bin,
      netM: net,
      grossM,
      part: grossM > 0 ? net / grossM : 0,
      lobe: measures.lobes[bin],
    });
  }
  return { found, notes };
}
