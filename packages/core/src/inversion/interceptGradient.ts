import { heed } from '../numerics/stop.ts';

/** A linear fit of amplitudes against angle: what each stack counts for in each term. */
export interface AngleFit {
  /** Terms: intercept, gradient and, of three, curvature. */
  terms: 2 | 3;
  /** Functions of angle `[stack][term]`. */
  design: number[][];
}

/** Functions of angle of the linear reflection coefficient (Shuey 1985, Geophysics 50, 609–614): 1, sin²θ and tan²θ − sin²θ. */
export function angleFit(anglesDeg: number[], terms: 2 | 3): AngleFit {
  return {
    terms,
    design: anglesDeg.map((deg) => {
      const a = (deg * Math.PI) / 180;
      const [sin2, tan2] = [Math.sin(a) ** 2, Math.tan(a) ** 2];
      return terms === 2 ? [1, sin2] : [1, sin2, tan2 - sin2];
    }),
  };
}

/** Covariance of the terms for amplitudes with independent errors of unit variance, `[term][term]`; null where stacks do not tell them apart. */
export function covarianceOf(
  { design, terms }: AngleFit,
  weight: ArrayLike<number> = design.map(() => 1),
): number[][] | null {
  const n = Array.from({ length: terms }, () => new Array<number>(terms).fill(0));
  design.forEach((row, s) => {
    for (let a = 0; a < terms; a++) for (let b = 0; b < terms; b++) n[a][b] += weight[s] * row[a] * row[b];
  });
  return inverted(n);
}

function inverted(m: number[][]): number[][] | null {
  if (m.length === 2) {
    const [[a, b], [, d]] = m;
    const det = a * d - b * b;
    return Math.abs(det) > 1e-14 * Math.abs(a * d)
      ? [
          [d / det, -b / det],
          [-b / det, a / det],
        ]
      : null;
  }
  const [[a, b, c], [, e, f], [, , i]] = m;
  const [A, B, C] = [e * i - f * f, c * f - b * i, b * f - c * e];
  const det = a * A + b * B + c * C;
  if (!(Math.abs(det) > 1e-14 * Math.abs(a * e * i))) return null;
  const [E, F, I] = [a * i - c * c, b * c - a * f, a * e - b * b];
  return [
    [A / det, B / det, C / det],
    [B / det, E / det, F / det],
    [C / det, F / det, I / det],
  ];
}

export interface Fitted {
  intercept: Float32Array;
  gradient: Float32Array;
  /** Standard errors. */
  interceptError: Float32Array;
  gradientError: Float32Array;
}

/** Residuals beyond so many standard deviations count less (Huber 1964, Annals of Mathematical Statistics 35, 73–101). */
const HUBER = 1.345;
const TURNS = 4;

/**
 * Intercept and gradient of every sample, with their standard errors: least squares over the stacks, of which a sample that stands out of
 * the noise counts less; the noise is the rms misfit over a window of the trace.
 * @param stacks samples of each stack, traces of `nk` one after another; @param half samples of the window to each side
 */
export function fitAngles(fit: AngleFit, stacks: Float32Array[], nk: number, half: number): Fitted {
  const { design, terms } = fit;
  const count = stacks.length;
  const cov = covarianceOf(fit);
  if (!cov) throw new RangeError('angles that do not differ tell no gradient');
  const total = stacks[0].length;
  const out: Fitted = {
    intercept: new Float32Array(total),
    gradient: new Float32Array(total),
    interceptError: new Float32Array(total),
    gradientError: new Float32Array(total),
  };
  // the plain fit is one row of weights a term
  const rows = Array.from({ length: terms }, (_, t) =>
    design.map((row) => row.reduce((s, v, u) => s + cov[t][u] * v, 0)),
  );
  const freedom = count - terms;
  const misfit = new Float64Array(nk);
  const noise = new Float64Array(nk);
  const own = new Float64Array(count);
  const weight = new Float64Array(count);
  for (let o = 0; o < total; o += nk) {
    if (o % (64 * nk) === 0) heed();
    for (let k = 0; k < nk; k++) {
      let [a, b, c] = [0, 0, 0];
      for (let s = 0; s < count; s++) {
        const d = stacks[s][o + k];
        a += rows[0][s] * d;
        b += rows[1][s] * d;
        if (terms === 3) c += rows[2][s] * d;
      }
      out.intercept[o + k] = a;
      out.gradient[o + k] = b;
      let sum = 0;
      for (let s = 0; s < count; s++) {
        const row = design[s];
        const r = stacks[s][o + k] - a - b * row[1] - (terms === 3 ? c * row[2] : 0);
        sum += r * r;
      }
      // with as many terms as stacks nothing is left over to tell errors by
      misfit[k] = freedom > 0 ? sum / freedom : Number.NaN;
    }
    // running mean of what is known
    let [sum, known, to] = [0, 0, 0];
    let from = 0;
    for (let k = 0; k < nk; k++) {
      for (; to < Math.min(nk, k + half + 1); to++)
        if (misfit[to] === misfit[to]) {
          sum += misfit[to];
          known++;
        }
      for (; from < k - half; from++)
        if (misfit[from] === misfit[from]) {
          sum -= misfit[from];
          known--;
        }
      noise[k] = known > 0 ? Math.sqrt(Math.max(0, sum) / known) : Number.NaN;
    }
    for (let k = 0; k < nk; k++) {
      const sigma = noise[k];
      out.interceptError[o + k] = sigma * Math.sqrt(cov[0][0]);
      out.gradientError[o + k] = sigma * Math.sqrt(cov[1][1]);
      // with one more stack than terms nothing tells which of them is wrong
      if (freedom < 2 || !(sigma > 0) || !(misfit[k] > (HUBER * sigma) ** 2)) continue;
      for (let s = 0; s < count; s++) own[s] = stacks[s][o + k];
      let fitted = [out.intercept[o + k], out.gradient[o + k], 0];
      let last = cov;
      for (let turn = 0; turn < TURNS; turn++) {
        for (let s = 0; s < count; s++) {
          const r = Math.abs(own[s] - design[s].reduce((v, x, t) => v + x * (fitted[t] ?? 0), 0));
          weight[s] = r <= HUBER * sigma ? 1 : (HUBER * sigma) / r;
        }
        const inverse = covarianceOf(fit, weight);
        if (!inverse) break;
        last = inverse;
        const right = Array.from({ length: terms }, (_, t) =>
          design.reduce((v, row, s) => v + weight[s] * row[t] * own[s], 0),
        );
        fitted = inverse.map((row) => row.reduce((v, x, t) => v + x * right[t], 0));
      }
      out.intercept[o + k] = fitted[0];
      out.gradient[o + k] = fitted[1];
      out.interceptError[o + k] = sigma * Math.sqrt(last[0][0]);
      out.gradientError[o + k] = sigma * Math.sqrt(last[1][1]);
    }
  }
  return out;
}
