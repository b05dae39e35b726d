import { heed } from '../numerics/stop.ts';
import { type Law, type LawForm, stretchOf, thicknessOf } from './law.ts';

/** Depths (m) and TWT (ms) of one well inside a layer, from the layer's top down; the last is its base. */
export interface LayerPoints {
  top: { z: number; t: number };
  points: { z: number; t: number }[];
}

/** Depth that a law reaches at a point of a well. */
function reached(law: Law, { top, points }: LayerPoints, t: number): number {
  const whole = points[points.length - 1].t - top.t;
  return top.z + thicknessOf(stretchOf(law, top.z, whole), t - top.t);
}

/**
 * rms misfit (m) of a law in wells, each counting once however many points it has: a tie gives hundreds, checkshots a few.
 * 0 where there are none.
 */
export function misfitOf(law: Law, wells: LayerPoints[]): number {
  let [sum, count] = [0, 0];
  for (const well of wells) {
    if (well.points.length === 0) continue;
    let own = 0;
    for (const { z, t } of well.points) own += (reached(law, well, t) - z) ** 2;
    sum += own / well.points.length;
    count++;
  }
  return count > 0 ? Math.sqrt(sum / count) : 0;
}

/** Miss of a law at the base of a layer in a well, m. */
export const missAtBase = (law: Law, well: LayerPoints): number => {
  const base = well.points[well.points.length - 1];
  return reached(law, well, base.t) - base.z;
};

/** Steps in which a gradient is sought at first, and turns in which it is then narrowed down. */
const STEPS = 48;
const TURNS = 40;

export interface Fit {
  law: Law;
  rms: number;
  /** Whether the gradient would go beyond its bounds. */
  atBound: boolean;
}

/**
 * Fit a layer's velocity to wells by least squares on depth, each well counting once; the gradient is held within bounds,
 * since few wells say little about it. Null where there is no point, or where the layer has no time in any well.
 * @param mostK greatest change of velocity with depth, 1/s
 */
export function fitLaw(form: LawForm, wells: LayerPoints[], mostK = 1.2): Fit | null {
  const used = wells.filter((w) => w.points.length > 0 && w.points[w.points.length - 1].t > w.top.t);
  if (used.length === 0) return null;
  const mean = v0Of(used, (v0) => ({ form: 'constant', v0, k: 0 }));
  if (form === 'constant' || form === 'velocity volume')
    return finish({ form: 'constant', v0: mean, k: 0 }, used, false);
  // whatever the form, one number says how fast velocity rises, and v0 follows from it by one division
  const longest = Math.max(...used.map((w) => w.points[w.points.length - 1].t - w.top.t));
  const most =
    form === 'v0 + k·t from the top'
      ? 0.5 * mostK * mean
      : form === 'from top to base'
        ? (mostK * longest) / 2000
        : mostK;
  const lawFor = (q: number): Law => {
    if (form === 'from top to base') {
      const ratio = Math.exp(q);
      const v0 = v0Of(used, (v) => ({ form, v0: v, k: 0, vBase: v * ratio }));
      return { form, v0, k: 0, vBase: v0 * ratio };
    }
    return { form, v0: v0Of(used, (v0) => ({ form, v0, k: q })), k: q };
  };
  const scoreOf = (q: number) => {
    heed();
    const law = lawFor(q);
    return law.v0 > 300 ? misfitOf(law, used) : Number.POSITIVE_INFINITY;
  };
  let best = 0;
  let least = Number.POSITIVE_INFINITY;
  for (let s = 0; s <= STEPS; s++) {
    const score = scoreOf((most * s) / STEPS);
    if (score < least - 1e-9) [best, least] = [s, score];
  }
  if (!Number.isFinite(least)) return null;
  let [low, high] = [(most * Math.max(0, best - 1)) / STEPS, (most * Math.min(STEPS, best + 1)) / STEPS];
  for (let turn = 0; turn < TURNS && high > low; turn++) {
    const [a, b] = [low + 0.382 * (high - low), low + 0.618 * (high - low)];
    if (scoreOf(a) <= scoreOf(b)) high = b;
    else low = a;
  }
  const q = [0, most, 0.5 * (low + high)].reduce((one, other) => (scoreOf(other) < scoreOf(one) - 1e-9 ? other : one));
  return finish(lawFor(q), used, most > 0 && (q < 1e-3 * most || q > 0.999 * most));
}

const finish = (law: Law, wells: LayerPoints[], atBound: boolean): Fit | null =>
  law.v0 > 300 ? { law, rms: misfitOf(law, wells), atBound } : null;

/** The v0 that fits best: depths are linear in it. */
function v0Of(wells: LayerPoints[], lawOf: (v0: number) => Law): number {
  let [num, den] = [0, 0];
  for (const well of wells)
    for (const { z, t } of well.points) {
      const slow = reached(lawOf(1000), well, t);
      const slope = (reached(lawOf(2000), well, t) - slow) / 1000;
      const none = slow - 1000 * slope;
      num += (slope * (z - none)) / well.points.length;
      den += (slope * slope) / well.points.length;
    }
  return den > 0 ? num / den : Number.NaN;
}
