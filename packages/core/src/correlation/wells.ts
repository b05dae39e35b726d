import type { PairCosts } from '@lithagon/kernels';
import { type Alignment, type AlignOptions, align, differences } from './align.ts';

/** Curves of a well on an even axis of true vertical depth below the datum, metres. */
export interface CorrelatedWell {
  firstM: number;
  stepM: number;
  /** Each scaled to unit spread, NaN null. */
  curves: Float32Array[];
}

export interface WellAlignOptions extends Omit<AlignOptions, 'gapOpen'> {
  /** Cost of beginning a gap, as that of as many metres that differ by their spread. */
  gapOpenM: number;
  weights: number[];
  /** Weight of the steps of the curves beside that of the curves themselves. */
  edges: number;
  /** Height over which a step is measured on either side, m. */
  edgeM: number;
  /** Most that a top may lie shallower or deeper than in the reference, m. */
  mostShiftM: number;
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
function withSteps(reference: CorrelatedWell, target: CorrelatedWell, o: WellAlignOptions) {
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

/** Options of an alignment, with a gap's cost in samples. */
export const inSamples = (options: WellAlignOptions, stepM: number): AlignOptions => ({
  ...options,
  gapOpen: options.gapOpenM / stepM,
});

/** Two wells aligned by their curves and the steps of these, with the differences that this rests on. */
export function alignWells(
  reference: CorrelatedWell,
  target: CorrelatedWell,
  options: WellAlignOptions,
): { found: Alignment; pairs: PairCosts } {
  const { stepM } = reference;
  const both = withSteps(reference, target, options);
  const pairs = differences(both.reference, both.target, both.weights, {
    offset: Math.round((reference.firstM - target.firstM) / stepM),
    mostShift: Math.round(options.mostShiftM / stepM),
  });
  return { found: align(pairs, inSamples(options, stepM)), pairs };
}
