import type { Alignment } from './align.ts';
import { alignWells, type CorrelatedWell, type WellAlignOptions } from './wells.ts';

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
const AROUND_M = 150;

/** What speaks for a bed being missing: the cost of finding its middle anywhere, less that of leaving it out. */
function evidence(found: Alignment, { from, to }: BedSpan): number {
  const middle = found.through((from + to) >> 1).reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
  return middle - found.without(from, to);
}

/**
 * What the evidence would be in the reference itself, with the bed and with it taken out. A bed among others like it is
 * told less easily than one that stands out, and this says by how much. Null where the two are too close to be told
 * apart: by less than a gap costs.
 */
export function absenceScale(reference: CorrelatedWell, bed: BedSpan, options: WellAlignOptions): AbsenceScale | null {
  const around = Math.round(AROUND_M / reference.stepM);
  const first = Math.max(0, bed.from - around);
  const own: CorrelatedWell = {
    firstM: 0,
    stepM: reference.stepM,
    curves: reference.curves.map((c) => c.slice(first, bed.to + around)),
  };
  const here = { from: bed.from - first, to: bed.to - first };
  const cut = {
    ...own,
    curves: own.curves.map((c) => Float32Array.from([...c.subarray(0, here.from), ...c.subarray(here.to)])),
  };
  // nothing lies further off than the bed is thick, in either
  const near = { ...options, mostShiftM: Math.min(options.mostShiftM, (bed.to - bed.from) * own.stepM + 30) };
  const present = evidence(alignWells(own, own, near).found, here);
  const absent = evidence(alignWells(own, cut, near).found, here);
  return absent - present > options.gapOpenM / reference.stepM ? { present, absent } : null;
}

/** How far a bed of an alignment is from being there (0) towards being missing (1), by the scale of the reference. */
export function absenceOf(found: Alignment, bed: BedSpan, { present, absent }: AbsenceScale): number {
  return Math.max(0, Math.min(1, (evidence(found, bed) - present) / (absent - present)));
}
