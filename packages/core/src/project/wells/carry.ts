import type { AbsenceScale } from '../../correlation/absence.ts';
import {
  absenceScales,
  CARRY,
  type CarriedTop,
  type CarryOptions,
  carryTops,
  type KnownTop,
} from '../../correlation/carry.ts';
import type { CorrelatedWell } from '../../correlation/wells.ts';
import type { Units } from '../../earth/display.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { EarthObject, Logs, Well } from '../../earth/objects.ts';
import { extentOf } from '../../numerics/extent.ts';
import type { Store } from '../../storage/store.ts';
import { despiked } from '../../wells/edit.ts';
import { mdAtTvdss, pointAtMd, type WellPath } from '../../wells/path.ts';
import { curveOf, sampledOf } from './curves.ts';
import { pathOf, type Top, topsOf } from './wells.ts';

/** How tops are carried, as a person sets it. */
export interface CarrySettings {
  /** Classes or names of the curves that are compared. */
  curves: string[];
  /** Tops that are carried; all that a trusted well has where it is empty. */
  tops: string[];
  mostStretch: number;
  mostShiftM: number;
  /** Whether section may be missing, and how readily: the cost of a gap, m. */
  gapM: number;
  /** Proposals less sure than this are not made. */
  leastConfidence: number;
}

export const CARRY_SETTINGS: CarrySettings = {
  curves: ['gamma ray', 'sonic', 'density'],
  tops: [],
  mostStretch: CARRY.mostStretch,
  mostShiftM: CARRY.mostShiftM,
  gapM: CARRY.gapOpenM,
  leastConfidence: 0.25,
};

/** A top proposed in a well. */
export interface Proposal extends Omit<CarriedTop, 'tvdss' | 'runnerUp'> {
  well: string;
  /** The trusted well that it was carried from. */
  from: string;
  md: number;
  tvdss: number;
  runnerUp: { md: number; cost: number } | null;
  /** Greatest distance from where other trusted wells put it, m; null where there is no other. */
  disagreementM: number | null;
  /** Distance by which carrying it round a triangle of wells misses its start, m: the worst of the triangles. */
  misclosureM: number | null;
}

/** Step of the axis of depth on which wells are compared, m. */
const STEP_M = 1;

/** A well ready for correlation. */
interface Ready {
  well: Well;
  path: WellPath;
  tops: Top[];
  logs: Logs[];
  /** Unscaled curves by true vertical depth, in the order of the settings; null where the well has none of one. */
  firstM: number;
  curves: (Float32Array | null)[];
}

/** Curves of a well by true vertical depth, averaged over even steps. */
async function ready(store: Store, objects: EarthObject[], well: Well, names: string[]): Promise<Ready | null> {
  const path = pathOf(objects, well);
  const held = names.map((n) => curveOf(objects, well.name, n));
  const logs = held.flatMap((h) => (h ? [h.logs] : []));
  if (logs.length === 0) return null;
  const depths = logs.flatMap((l) => [
    pointAtMd(path, l.depth.firstM).tvdss,
    pointAtMd(path, l.depth.firstM + l.depth.stepM * (l.depth.count - 1)).tvdss,
  ]);
  const [top, base] = extentOf(depths);
  const firstM = Math.ceil(top / STEP_M) * STEP_M;
  const count = Math.floor((base - firstM) / STEP_M) + 1;
  if (count < 40) return null;
  const curves = await Promise.all(
    held.map(async (h) => {
      if (!h) return null;
      const sampled = await sampledOf(store, h);
      const half = Math.max(4, Math.round(2 / sampled.stepM));
      const { values } = despiked(
        h.curve.class === 'resistivity' ? sampled.values.map(Math.log10) : sampled.values,
        half,
        5,
      );
      const sum = new Float64Array(count);
      const some = new Float64Array(count);
      for (let n = 0; n < values.length; n++) {
        if (Number.isNaN(values[n])) continue;
        const bin = Math.round((pointAtMd(path, sampled.firstM + n * sampled.stepM).tvdss - firstM) / STEP_M);
        if (bin < 0 || bin >= count) continue;
        sum[bin] += values[n];
        some[bin]++;
      }
      return Float32Array.from(sum, (v, n) => (some[n] > 0 ? v / some[n] : Number.NaN));
    }),
  );
  return { well, path, tops: topsOf(objects, well.name).filter((t) => t.kind === 'top'), logs, firstM, curves };
}

/** Spread of each curve over all wells together. */
function spreads(wells: Ready[], curves: number): number[] {
  return Array.from({ length: curves }, (_, c) => {
    let [sum, squares, some] = [0, 0, 0];
    for (const well of wells)
      for (const v of well.curves[c] ?? []) {
        if (v !== v) continue;
        sum += v;
        squares += v * v;
        some++;
      }
    return Math.sqrt(Math.max(0, squares / some - (sum / some) ** 2)) || 1;
  });
}

function correlated(well: Ready, use: number[], spread: number[]): CorrelatedWell {
  return {
    firstM: well.firstM,
    stepM: STEP_M,
    curves: use.map((c) => (well.curves[c] as Float32Array).map((v) => v / spread[c])),
  };
}

export interface Carried {
  proposals: Proposal[];
  /** Why a well has none, or what is to be known of it. */
  notes: string[];
  /** Logs that were compared. */
  used: Logs[];
}

/**
 * Propose the tops of trusted wells in others. Each proposal comes from the trusted well that is surest of it; what the
 * others say, and how well it closes around triangles of wells, stands beside it.
 */
export async function proposeTops(
  store: Store,
  objects: EarthObject[],
  trusted: Well[],
  targets: Well[],
  s: CarrySettings,
  run: { signal?: AbortSignal; progress?(part: number): void; loops?: boolean } = {},
): Promise<Carried> {
  if (s.curves.length === 0)
    throw new LithagonError('carry', 'No curve was chosen to carry tops by.', {
      fix: 'Choose one, such as gamma ray.',
    });
  const notes: string[] = [];
  const prepare = async (wells: Well[]) => {
    const out: Ready[] = [];
    for (const well of wells) {
      const made = await ready(store, objects, well, s.curves);
      if (made) out.push(made);
      else notes.push(`${well.name} has none of ${s.curves.join(', ')} over forty metres, so nothing was carried.`);
    }
    return out;
  };
  const from = (await prepare(trusted)).filter((w) => w.tops.length > 0);
  if (from.length === 0)
    throw new LithagonError('carry', 'No trusted well has both tops and one of the curves.', {
      fix: 'Trust a well whose tops are picked. Nothing was changed.',
    });
  const into = await prepare(targets.filter((t) => !trusted.includes(t)));
  const spread = spreads([...from, ...into], s.curves.length);
  const kept = new Map<string, CarriedTop[]>();
  const scales = new Map<string, Map<string, AbsenceScale>>();
  /** @param whole whether the tops are those of a trusted well, of which missing ones are told */
  const carry = (a: Ready, b: Ready, tops: KnownTop[], whole = false): CarriedTop[] => {
    const use = s.curves.map((_, c) => c).filter((c) => a.curves[c] && b.curves[c]);
    if (use.length === 0) return [];
    const options: CarryOptions = {
      ...CARRY,
      mostStretch: s.mostStretch,
      mostShiftM: s.mostShiftM,
      gapOpenM: s.gapM,
      weights: use.map(() => 1),
    };
    const reference = correlated(a, use, spread);
    const key = `${a.well.id} ${use.join()}`;
    const scale = whole ? (scales.get(key) ?? absenceScales(reference, tops, options)) : new Map();
    if (whole) scales.set(key, scale);
    return carryTops(reference, correlated(b, use, spread), tops, options, scale);
  };
  const all = (a: Ready, b: Ready) => {
    const key = `${a.well.id} ${b.well.id}`;
    let found = kept.get(key);
    if (!found) {
      const tops = a.tops
        .filter((t) => s.tops.length === 0 || s.tops.includes(t.name))
        .map((t) => ({ name: t.name, tvdss: pointAtMd(a.path, t.md).tvdss }));
      found = carry(a, b, tops, true);
      kept.set(key, found);
    }
    return found;
  };
  // a loop takes two wells beside the trusted one
  const closes = run.loops !== false && into.length > 1;
  const share = closes ? 0.5 : 1;
  const proposals: Proposal[] = [];
  const places = new Map<string, Map<string, number>>();
  for (const [n, target] of into.entries()) {
    stopIf(run.signal);
    const found = from.flatMap((a) => all(a, target).map((top) => ({ a, top })));
    const unsure: { name: string; missing: boolean }[] = [];
    for (const name of [...new Set(found.map((f) => f.top.name))]) {
      const said = found.filter((f) => f.top.name === name).sort((p, q) => q.top.confidence - p.top.confidence);
      const [best, ...others] = said;
      if (best.top.confidence < s.leastConfidence) {
        unsure.push({ name, missing: best.top.missing > 0.5 });
        continue;
      }
      const present = others.filter((o) => !o.top.absent && o.top.confidence >= s.leastConfidence);
      const { runnerUp, ...top } = best.top;
      proposals.push({
        ...top,
        well: target.well.name,
        from: best.a.well.name,
        md: mdAtTvdss(target.path, best.top.tvdss),
        runnerUp: runnerUp && { md: mdAtTvdss(target.path, runnerUp.tvdss), cost: runnerUp.cost },
        disagreementM:
          present.length > 0 && !best.top.absent
            ? Math.max(...present.map((o) => Math.abs(o.top.tvdss - best.top.tvdss)))
            : null,
        misclosureM: null,
      });
      const of = places.get(target.well.name) ?? new Map();
      if (!best.top.absent) of.set(name, best.top.tvdss);
      places.set(target.well.name, of);
    }
    notes.push(...unsureNotes(target.well.name, unsure));
    run.progress?.((share * (n + 1)) / into.length);
  }
  if (closes) await close(from[0], into, places, proposals, carry, run);
  return { proposals, notes, used: [...new Set([...from, ...into].flatMap((w) => w.logs))] };
}

/** Sentences on tops for which no place stands out in a well: those whose beds may be missing apart. */
export function unsureNotes(well: string, unsure: { name: string; missing: boolean }[]): string[] {
  return [false, true].flatMap((missing) => {
    const names = unsure.filter((u) => u.missing === missing).map((u) => u.name);
    const maybe = missing ? `, and ${names.length > 1 ? 'their beds' : 'its bed'} may be missing` : '';
    return names.length > 0 ? [`${well}: no place stands out for ${names.join(', ')}${maybe}.`] : [];
  });
}

/**
 * Proposals of tops that a well does not have yet; of those that it has, a sentence on how near the carried ones fall.
 * @param units those that the sentences are written in
 */
export function notThereYet(
  objects: EarthObject[],
  proposals: Proposal[],
  units: Units,
): { proposals: Proposal[]; notes: string[] } {
  const notes: string[] = [];
  const kept: Proposal[] = [];
  for (const well of new Set(proposals.map((p) => p.well))) {
    const own = new Map(topsOf(objects, well).map((t) => [t.name, t.md]));
    const mine = proposals.filter((p) => p.well === well);
    kept.push(...mine.filter((p) => !own.has(p.name)));
    const there = mine.filter((p) => own.has(p.name));
    if (there.length === 0) continue;
    const offs = there
      .filter((p) => !p.absent)
      .map((p) => ({ name: p.name, off: Math.abs(p.md - (own.get(p.name) ?? p.md)) }))
      .sort((a, b) => b.off - a.off);
    const near = offs.length > 0 ? `; carried, they fall within ${units.text(offs[0].off, 'm')} of them` : '';
    const worst = offs.length > 1 ? ` (${offs[0].name} the furthest)` : '';
    const gone = there.filter((p) => p.absent).map((p) => p.name);
    const doubted = gone.length > 0 ? `. By its curves the bed below ${gone.join(', ')} is missing` : '';
    notes.push(`${well} has ${there.map((p) => p.name).join(', ')} already${near}${worst}${doubted}.`);
  }
  return { proposals: kept, notes };
}

/** Carry each proposal on to another well and back to the trusted one, and note by how much it misses. */
async function close(
  start: Ready,
  into: Ready[],
  places: Map<string, Map<string, number>>,
  proposals: Proposal[],
  carry: (a: Ready, b: Ready, tops: KnownTop[]) => CarriedTop[],
  run: { signal?: AbortSignal; progress?(part: number): void },
): Promise<void> {
  const known = new Map(start.tops.map((t) => [t.name, pointAtMd(start.path, t.md).tvdss]));
  for (const [n, b] of into.entries()) {
    stopIf(run.signal);
    const c = into[(n + 1) % into.length];
    const here = [...(places.get(b.well.name) ?? [])].map(([name, tvdss]) => ({ name, tvdss }));
    const on = carry(b, c, here).filter((t) => !t.absent);
    for (const back of carry(c, start, on)) {
      const first = known.get(back.name);
      const of = proposals.find((p) => p.well === b.well.name && p.name === back.name);
      if (first === undefined || !of || back.absent) continue;
      of.misclosureM = Math.max(of.misclosureM ?? 0, Math.abs(back.tvdss - first));
    }
    run.progress?.(0.5 + (0.5 * (n + 1)) / into.length);
    await Promise.resolve();
  }
}
