import type { PairCosts } from '@lithagon/kernels';
import { type Alignment, align, UNKNOWN } from './align.ts';
import { alignWells, type CorrelatedWell, inSamples, type WellAlignOptions } from './wells.ts';

/** Samples of a well that are one bed: from the first to before the last. */
export interface BedSpan {
  from: number;
  to: number;
}

/** What stands for a bed that is there and for one that is missing, in units of `evidence`. */
export interface AbsenceScale {
  present: number;
  absent: number;
}

/** Rock on either side of a bed that decides on it, m. */
const AROUND_M = 100;
/** By how much more than its thickness a bed's neighbours may lie elsewhere when it is left out, m. */
const BESIDE_M = 30;

/** Least cost of paths that match the middle of a bed with anything, over the best of all. */
export const ofMiddle = (found: Alignment, { from, to }: BedSpan) =>
  found.through((from + to) >> 1).reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);

/** What speaks for a bed being missing: the cost of finding its middle anywhere, less that of leaving it out. */
const evidence = (found: Alignment, bed: BedSpan) => ofMiddle(found, bed) - found.without(bed.from, bed.to);

/**
 * What the evidence would be in the reference itself, with each bed and with it taken out. A bed among others like it is
 * told less easily than one that stands out, and this says by how much. Null where the two are too close to be told
 * apart, by less than a gap costs, and for a bed thicker than what may be left out.
 */
export function absenceScalesOf(
  reference: CorrelatedWell,
  beds: BedSpan[],
  options: WellAlignOptions,
): (AbsenceScale | null)[] {
  const around = Math.round(AROUND_M / reference.stepM);
  // far enough that the thickest bed may be left out
  const thickest = Math.max(0, ...beds.map((b) => b.to - b.from)) * reference.stepM;
  const near = { ...options, mostShiftM: Math.min(options.mostShiftM, Math.max(AROUND_M, thickest + BESIDE_M)) };
  const whole = beds.length > 0 ? alignWells(reference, reference, near).found : null;
  return beds.map((bed) => {
    const first = Math.max(0, bed.from - around);
    const part = (from: number, to: number) => reference.curves.map((c) => c.subarray(from, to));
    const own = { ...reference, curves: part(first, bed.to + around) };
    const [above, below] = [part(first, bed.from), part(bed.to, bed.to + around)];
    const cut = { ...own, curves: above.map((c, n) => Float32Array.from([...c, ...below[n]])) };
    // what lies below the bed is as much higher as the bed is thick
    const wide = { ...options, mostShiftM: (bed.to - bed.from) * own.stepM + BESIDE_M };
    const absent = evidence(alignWells(own, cut, wide).found, { from: bed.from - first, to: bed.to - first });
    const present = whole ? evidence(whole, bed) : Number.NaN;
    const told = Number.isFinite(absent - present) && absent - present > options.gapOpenM / reference.stepM;
    return told ? { present, absent } : null;
  });
}

/** How far a bed of an alignment is from being there (0) towards being missing (1), by the scale of the reference. */
export function absenceOf(found: Alignment, bed: BedSpan, { present, absent }: AbsenceScale): number {
  return Math.max(0, Math.min(1, (evidence(found, bed) - present) / (absent - present)));
}

/**
 * The alignment in which the rock of a bed may be another than in the reference, where that explains a target better than
 * that the bed is missing: its neighbours lie as far apart as if it were there. Null where it does not.
 * @param pairs the differences that `found` rests on
 */
export function inOtherRock(
  pairs: PairCosts,
  stepM: number,
  bed: BedSpan,
  found: Alignment,
  options: WellAlignOptions,
): Alignment | null {
  const wide = pairs.cost.length / pairs.n;
  const cost = pairs.cost.slice().fill(UNKNOWN, bed.from * wide, bed.to * wide);
  const other = align({ ...pairs, cost }, inSamples(options, stepM));
  const gain = found.total + found.without(bed.from, bed.to) - (other.total + ofMiddle(other, bed));
  return gain > (0.6 * options.gapOpenM) / stepM ? other : null;
}
