import { randomOf } from '../classes/kinds.ts';
import { type Orientation, ofPole, poleOf, principalAxis } from './orientation.ts';

/** One of several ways that faults lie: its middle, and how close to it they are. */
export interface OrientationSet extends Orientation {
  /** Concentration of a Watson distribution: 0 spread evenly, 20 within about 13° of the middle. */
  kappa: number;
  share: number;
}

export interface FoundSets {
  sets: OrientationSet[];
  /** Number of the set of each pole. */
  of: Int32Array;
  /** Probability that each is of its set. */
  sure: Float32Array;
  /** Bayesian information criterion for one set, two, and so on: the least is best. */
  bic: number[];
}

/** Log of ∫₀¹ exp(κ t²) dt, by Simpson's rule on a scale that does not overflow. */
function logKummer(kappa: number): number {
  const n = 200;
  let sum = 0;
  for (let k = 0; k <= n; k++) {
    const t = k / n;
    sum += (k === 0 || k === n ? 1 : k % 2 ? 4 : 2) * Math.exp(kappa * (t * t - 1));
  }
  return kappa + Math.log(sum / (3 * n));
}

/** Faults that lie within a degree or two of each other are not told apart by their last digit. */
const MOST_KAPPA = 200;

/** Mean of cos² of the angle to the middle for concentrations of nought, a half, one … */
const MEANS: number[] = [];

/** The concentration of which cos² of the angle to the middle has a mean. */
function kappaOf(mean: number): number {
  if (MEANS.length === 0)
    for (let k = 0; k <= 2 * MOST_KAPPA; k++) {
      const kappa = Math.max(1e-3, k / 2);
      const e = 1e-3 * Math.max(1, kappa);
      MEANS.push((logKummer(kappa + e) - logKummer(kappa - e)) / (2 * e));
    }
  const above = MEANS.findIndex((m) => m > mean);
  if (above < 0) return MOST_KAPPA;
  if (above === 0) return 0;
  return 0.5 * (above - 1 + (mean - MEANS[above - 1]) / (MEANS[above] - MEANS[above - 1]));
}

interface Mixture {
  axes: [number, number, number][];
  kappas: number[];
  shares: number[];
  belongs: Float64Array[];
  fit: number;
}

/** Expectation and maximization from a first guess of the middles. */
function settle(poles: [number, number, number][], w: number[], axes: [number, number, number][]): Mixture {
  const count = axes.length;
  const mixture: Mixture = {
    axes: [...axes],
    kappas: axes.map(() => 15),
    shares: axes.map(() => 1 / count),
    belongs: axes.map(() => new Float64Array(poles.length)),
    fit: Number.NEGATIVE_INFINITY,
  };
  const total = w.reduce((a, b) => a + b, 0);
  for (let round = 0; round < 200; round++) {
    const norms = mixture.kappas.map((k) => logKummer(k));
    let fit = 0;
    for (let n = 0; n < poles.length; n++) {
      const logs = mixture.axes.map((a, s) => {
        const cos = a[0] * poles[n][0] + a[1] * poles[n][1] + a[2] * poles[n][2];
        return Math.log(mixture.shares[s]) + mixture.kappas[s] * cos * cos - norms[s];
      });
      const most = Math.max(...logs);
      const sum = logs.reduce((a, l) => a + Math.exp(l - most), 0);
      for (let s = 0; s < count; s++) mixture.belongs[s][n] = w[n] * (Math.exp(logs[s] - most) / sum);
      fit += w[n] * (most + Math.log(sum));
    }
    if (fit - mixture.fit < 1e-7 * Math.abs(fit) && round > 3) {
      mixture.fit = fit;
      break;
    }
    mixture.fit = fit;
    for (let s = 0; s < count; s++) {
      const own = mixture.belongs[s].reduce((a, b) => a + b, 0);
      const { axis, mean } = principalAxis(poles, mixture.belongs[s]);
      mixture.axes[s] = axis;
      mixture.kappas[s] = kappaOf(mean);
      mixture.shares[s] = Math.max(1e-6, own / total);
    }
  }
  return mixture;
}

/**
 * Ways in which planes lie, found as a mixture of Watson distributions of their poles, which have no sense (Bijral et al. 2007, Mixture
 * of Watson distributions, AISTATS; Mardia & Jupp 2000, Directional Statistics, ch. 9–10), by expectation and maximization from several
 * starts; how many there are by the Bayesian information criterion (Schwarz 1978) where it is not given.
 * @param weights what each plane counts, such as its area; on the whole they count as so many as there are
 */
export function findSets(
  planes: Orientation[],
  weights: number[],
  count: number | null,
  most = 6,
  seed = 1,
): FoundSets {
  const poles = planes.map(poleOf);
  const total = weights.reduce((a, b) => a + b, 0) || 1;
  const w = weights.map((v) => (v / total) * planes.length);
  const random = randomOf(seed);
  const from = count ?? 1;
  const to = Math.min(count ?? most, planes.length);
  const bic: number[] = [];
  let best: Mixture | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (let s = Math.min(from, to); s <= to; s++) {
    let own: Mixture | null = null;
    for (let start = 0; start < 12; start++) {
      const axes: [number, number, number][] = [poles[Math.floor(random() * poles.length)]];
      while (axes.length < s) {
        // the next is one that lies far from those there are
        const far = poles.map((p) => 1 - Math.max(...axes.map((a) => (a[0] * p[0] + a[1] * p[1] + a[2] * p[2]) ** 2)));
        const sum = far.reduce((a, b) => a + b, 0);
        let at = random() * sum;
        let n = 0;
        while (n < far.length - 1 && at > far[n]) at -= far[n++];
        axes.push(poles[n]);
      }
      const made = settle(poles, w, axes);
      if (!own || made.fit > own.fit) own = made;
    }
    if (!own) continue;
    // a middle is two numbers, a concentration and a share one each
    const value = -2 * own.fit + (4 * s - 1) * Math.log(planes.length);
    bic.push(value);
    if (value < least) [best, least] = [own, value];
  }
  const found = best as Mixture | null;
  const of = new Int32Array(planes.length);
  const sure = new Float32Array(planes.length).fill(1);
  if (!found) return { sets: [], of, sure, bic };
  // the heaviest set comes first
  const order = found.shares.map((_, s) => s).sort((a, b) => found.shares[b] - found.shares[a]);
  for (let n = 0; n < planes.length; n++) {
    let top = 0;
    for (let s = 1; s < order.length; s++) if (found.belongs[order[s]][n] > found.belongs[order[top]][n]) top = s;
    of[n] = top;
    sure[n] = w[n] > 0 ? found.belongs[order[top]][n] / w[n] : 0;
  }
  return {
    sets: order.map((s) => ({ ...ofPole(found.axes[s]), kappa: found.kappas[s], share: found.shares[s] })),
    of,
    sure,
    bic,
  };
}
