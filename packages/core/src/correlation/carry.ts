import { pairAt } from '@lithagon/kernels';
import { type AbsenceScale, absenceOf, absenceScalesOf, type BedSpan, inOtherRock, ofMiddle } from './absence.ts';
import { alignWells, type CorrelatedWell, type WellAlignOptions } from './wells.ts';

/** A top of the reference well, by depth below the datum. */
export interface KnownTop {
  name: string;
  tvdss: number;
}

/** Where a top is proposed in another well. */
export interface CarriedTop {
  name: string;
  /** Depth below the datum, m; of a bed that is missing, where it would have been. */
  tvdss: number;
  /** Whether the bed that begins with it is missing there. */
  absent: boolean;
  /** From 0, where its bed is found as in the reference itself, to 1, where it looks as if taken out of the reference. */
  missing: number;
  /** How alike the curves are around it, 0 to 1. */
  match: number;
  /** The next best place at least half a wavelength of the curves away. */
  runnerUp: { tvdss: number; cost: number } | null;
  /** Cost of the runner-up, or of finding a bed that is missing, over that of the proposal: 0 no better, 20 far better. */
  margin: number;
  /** 0 to 1, from match and margin; of a bed that is missing, from how far it looks so. */
  confidence: number;
}

export interface CarryOptions extends WellAlignOptions {
  /** Half height of the window in which the match is measured, m. */
  windowM: number;
}

export const CARRY: Omit<CarryOptions, 'weights'> = {
  mostStretch: 1.7,
  stretchSample: 0.2,
  gapOpenM: 40,
  edges: 0.5,
  edgeM: 4,
  // thick sections are missing as readily as thin ones: what counts is that there is a gap
  gapSample: 0.2,
  endSample: 0.4,
  mostShiftM: 250,
  windowM: 15,
};

/** A bed beyond this far towards missing is said to be. */
const MISSING = 0.72;
/** From here on towards missing, confidence in a bed that is there falls, to none where it is said to be missing. */
const EVEN = 0.5;
/** What remains of the confidence in a bed that is there only if its rock has changed. */
const DOUBT = 0.3;

/** Half a wavelength (samples) of curves: twice the lag at which their autocorrelation first falls through zero. */
export function halfWavelength(curves: Float32Array[]): number {
  let [sum, some] = [0, 0];
  for (const curve of curves) {
    const known = curve.filter((v) => v === v);
    if (known.length < 20) continue;
    // against the local mean: trends of burial are no beds
    const half = Math.min(40, known.length >> 2);
    const rest = known.map((v, k) => {
      const [a, b] = [Math.max(0, k - half), Math.min(known.length, k + half + 1)];
      let mean = 0;
      for (let q = a; q < b; q++) mean += known[q];
      return v - mean / (b - a);
    });
    let lag = 1;
    for (; lag < known.length >> 1; lag++) {
      let c = 0;
      for (let k = 0; k + lag < rest.length; k++) c += rest[k] * rest[k + lag];
      if (c <= 0) break;
    }
    sum += 2 * lag;
    some++;
  }
  return some > 0 ? sum / some : 10;
}

/** Lowest place of a profile near a sample, to a part of a sample. */
function settled(profile: Float32Array, near: number, within: number): number {
  let best = Math.max(0, Math.min(profile.length - 1, Math.round(near)));
  for (let j = Math.max(0, best - within), to = Math.min(profile.length - 1, best + within); j <= to; j++)
    if (profile[j] < profile[best]) best = j;
  const [a, b, c] = [profile[best - 1], profile[best], profile[best + 1]];
  const bend = a - 2 * b + c;
  return bend > 1e-6 && Number.isFinite(a + c) ? best + Math.max(-0.5, Math.min(0.5, (0.5 * (a - c)) / bend)) : best;
}

/** Samples of the bed that begins with each top, in order of depth: to the next top, or ten metres for the last. */
function bedsOf(reference: CorrelatedWell, tops: KnownTop[]): { top: KnownTop; bed: BedSpan }[] {
  const n = reference.curves[0].length;
  const indexOf = (tvdss: number) => Math.round((tvdss - reference.firstM) / reference.stepM);
  const sorted = tops.filter((t) => indexOf(t.tvdss) >= 0 && indexOf(t.tvdss) < n).sort((a, b) => a.tvdss - b.tvdss);
  return sorted.map((top, k) => {
    const from = indexOf(top.tvdss);
    const next = sorted.slice(k + 1).find((t) => t.tvdss > top.tvdss + reference.stepM);
    const to = next ? indexOf(next.tvdss) : from + Math.round(10 / reference.stepM);
    return { top, bed: { from, to: Math.max(from + 2, Math.min(n, to)) } };
  });
}

/** By the name of each top whose bed can be told from a missing one: what stands for either in the reference. */
export function absenceScales(
  reference: CorrelatedWell,
  tops: KnownTop[],
  options: CarryOptions,
): Map<string, AbsenceScale> {
  const beds = bedsOf(reference, tops);
  const out = new Map<string, AbsenceScale>();
  absenceScalesOf(
    reference,
    beds.map((b) => b.bed),
    options,
  ).forEach((scale, n) => {
    if (scale) out.set(beds[n].top.name, scale);
  });
  return out;
}

/**
 * Carry the tops of a reference well into another by the shape of their curves.
 * @param scales of the reference, which serve all targets
 */
export function carryTops(
  reference: CorrelatedWell,
  target: CorrelatedWell,
  tops: KnownTop[],
  options: CarryOptions,
  scales = absenceScales(reference, tops, options),
): CarriedTop[] {
  const { stepM } = reference;
  const [n, m] = [reference.curves[0].length, target.curves[0].length];
  const { found: asIs, pairs } = alignWells(reference, target, options);
  const gapOpen = options.gapOpenM / stepM;
  // where a path begins or ends it is only held by one side
  const rim = options.windowM / stepM;
  const apart = Math.max(4, Math.round(halfWavelength(reference.curves)));
  return bedsOf(reference, tops).flatMap(({ top, bed }): CarriedTop[] => {
    const i = bed.from;
    const scale = scales.get(top.name);
    const missing = scale ? absenceOf(asIs, bed, scale) : gapPart(asIs.gap, bed);
    // a bed whose rock has changed looks missing by its own curves, but not by where its neighbours lie
    const changed = scale && missing > MISSING ? inOtherRock(pairs, stepM, bed, asIs, options) : null;
    const found = changed ?? asIs;
    const absent = missing > MISSING && !changed;
    // the nearest sample that is matched, from the bed itself or from above it
    let near = i;
    while (near < n && Number.isNaN(found.path[near])) near++;
    let above = i;
    while (above >= 0 && Number.isNaN(found.path[above])) above--;
    if (near >= n && above < 0) return [];
    const place = near < n ? found.path[near] - (absent || found.gap[i] ? 0 : near - i) : found.path[above];
    // beyond the end of the target nothing is said
    if (place < rim || place > m - 1 - rim || (!absent && near >= n)) return [];
    const profile = found.through(i);
    const at = absent ? place : settled(profile, place, Math.max(1, Math.round(2 / stepM)));
    const best = profile[Math.round(at)];
    let rival = -1;
    for (let j = 1; j < m - 1; j++) {
      if (Math.abs(j - at) < apart || !(profile[j] <= profile[j - 1] && profile[j] <= profile[j + 1])) continue;
      if (rival < 0 || profile[j] < profile[rival]) rival = j;
    }
    const present = Number.isFinite(best) ? Math.max(0, best) : 50;
    // of a bed that is missing: what it would cost to find it anywhere after all
    const margin = absent ? Math.max(0, ofMiddle(found, bed)) : rival < 0 ? 50 : Math.max(0, profile[rival] - present);
    const there = changed ? DOUBT : Math.min(1, (MISSING - missing) / (MISSING - EVEN));
    const half = Math.round(options.windowM / stepM);
    let [sum, some] = [0, 0];
    for (let q = Math.max(0, i - half); q < Math.min(n, i + half); q++) {
      const j = Math.round(found.path[q]);
      const pair = j >= 0 && j < m ? pairAt(pairs, q, j) : -1;
      if (pair < 0) continue;
      sum += pairs.cost[pair];
      some++;
    }
    // unrelated samples differ by two
    const match = some > 0 ? Math.max(0, 1 - sum / some / 2) : 0;
    return [
      {
        name: top.name,
        tvdss: target.firstM + at * stepM,
        absent,
        missing,
        match,
        runnerUp: rival < 0 ? null : { tvdss: target.firstM + rival * stepM, cost: profile[rival] },
        margin,
        confidence: absent ? 2 * missing - 1 : there * match * (1 - Math.exp(-margin / gapOpen)),
      },
    ];
  });
}

/** Part of a bed that a path leaves out. */
function gapPart(gap: Uint8Array, { from, to }: BedSpan): number {
  return gap.subarray(from, to).reduce((a, b) => a + b, 0) / (to - from);
}
