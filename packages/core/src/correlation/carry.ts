import { type AlignOptions, align, differences } from './align.ts';

/** Curves of a well on an even axis of true vertical depth below the datum, metres. */
export interface CorrelatedWell {
  firstM: number;
  stepM: number;
  /** Each scaled to unit spread, NaN null. */
  curves: Float32Array[];
}

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
  /** Part of the bed that is missing, 0 to 1. */
  missing: number;
  /** How alike the curves are around it, 0 to 1. */
  match: number;
  /** The next best place at least half a wavelength of the curves away. */
  runnerUp: { tvdss: number; cost: number } | null;
  /** Cost of the runner-up over that of the proposal: 0 no better, 20 far better. */
  margin: number;
  /** 0 to 1, from match and margin; of a bed that is missing, from how much of it is and what finding it would cost. */
  confidence: number;
}

export interface CarryOptions extends Omit<AlignOptions, 'offset' | 'mostShift' | 'gapOpen'> {
  /** Cost of beginning a gap, as that of as many metres that differ by their spread. */
  gapOpenM: number;
  weights: number[];
  /** Weight of the steps of the curves beside that of the curves themselves. */
  edges: number;
  /** Height over which a step is measured on either side, m. */
  edgeM: number;
  /** Most that a top may lie shallower or deeper than in the reference, m. */
  mostShiftM: number;
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

/**
 * The steps of a curve: what lies below a depth less what lies above it, so that boundaries count beside levels. In
 * units of their own spread in the reference.
 */
function steps(curve: Float32Array, half: number): Float32Array {
  return curve.map((_, k) => {
    let [above, a, below, b] = [0, 0, 0, 0];
    for (let q = 1; q <= half; q++) {
      const up = curve[k - q];
      const down = curve[k + q - 1];
      if (up === up && up !== undefined) {
        above += up;
        a++;
      }
      if (down === down && down !== undefined) {
        below += down;
        b++;
      }
    }
    return a > 0 && b > 0 ? below / b - above / a : Number.NaN;
  });
}

/** Curves with their steps beside them, those of both wells scaled by the reference's. */
function withSteps(reference: CorrelatedWell, target: CorrelatedWell, o: CarryOptions) {
  const half = Math.max(1, Math.round(o.edgeM / reference.stepM));
  const scale = (values: Float32Array, by: number) => values.map((v) => v / by);
  const added = reference.curves.map((curve, c) => {
    const own = steps(curve, half);
    let [sum, some] = [0, 0];
    for (const v of own)
      if (v === v) {
        sum += v * v;
        some++;
      }
    const spread = Math.sqrt(sum / Math.max(1, some)) || 1;
    return [scale(own, spread), scale(steps(target.curves[c], half), spread)];
  });
  return {
    reference: [...reference.curves, ...added.map((a) => a[0])],
    target: [...target.curves, ...added.map((a) => a[1])],
    weights: [...o.weights, ...o.weights.map((w) => w * o.edges)],
  };
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

/** Carry the tops of a reference well into another by the shape of their curves. */
export function carryTops(
  reference: CorrelatedWell,
  target: CorrelatedWell,
  tops: KnownTop[],
  options: CarryOptions,
): CarriedTop[] {
  const { stepM } = reference;
  const [n, m] = [reference.curves[0].length, target.curves[0].length];
  const both = withSteps(reference, target, options);
  const cost = differences(both.reference, both.target, both.weights);
  const gapOpen = options.gapOpenM / stepM;
  const offset = Math.round((reference.firstM - target.firstM) / stepM);
  const found = align(cost, n, m, {
    ...options,
    gapOpen,
    offset,
    mostShift: Math.round(options.mostShiftM / stepM),
  });
  // where a path begins or ends it is only held by one side
  const rim = options.windowM / stepM;
  const apart = Math.max(4, Math.round(halfWavelength(reference.curves)));
  const indexOf = (tvdss: number) => Math.round((tvdss - reference.firstM) / stepM);
  const sorted = tops.filter((t) => indexOf(t.tvdss) >= 0 && indexOf(t.tvdss) < n).sort((a, b) => a.tvdss - b.tvdss);
  return sorted.flatMap((top, k): CarriedTop[] => {
    const i = indexOf(top.tvdss);
    const next = sorted.slice(k + 1).find((t) => t.tvdss > top.tvdss + stepM);
    const end = Math.max(i + 2, Math.min(n, next ? indexOf(next.tvdss) : i + Math.round(10 / stepM)));
    let gaps = 0;
    for (let q = i; q < end; q++) gaps += found.gap[q];
    const missing = gaps / (end - i);
    // the nearest sample that is matched, from the bed itself or from above it
    let near = i;
    while (near < n && Number.isNaN(found.path[near])) near++;
    let above = i;
    while (above >= 0 && Number.isNaN(found.path[above])) above--;
    if (near >= n && above < 0) return [];
    const absent = missing > 0.6;
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
    // of a bed that is missing: what it would cost to find its middle anywhere after all
    const forced = absent
      ? found.through((i + end) >> 1).reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY)
      : 0;
    const margin = absent ? Math.max(0, forced) : rival < 0 ? 50 : Math.max(0, profile[rival] - present);
    const half = Math.round(options.windowM / stepM);
    let [sum, some] = [0, 0];
    for (let q = Math.max(0, i - half); q < Math.min(n, i + half); q++) {
      const j = Math.round(found.path[q]);
      if (!(j >= 0 && j < m)) continue;
      sum += cost[q * m + j];
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
        confidence: (absent ? missing : match) * (1 - Math.exp(-margin / gapOpen)),
      },
    ];
  });
}
