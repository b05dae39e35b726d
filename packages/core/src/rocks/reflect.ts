import type { Elastic } from './substitute.ts';

/** A complex number. */
interface Complex {
  re: number;
  im: number;
}

const real = (re: number): Complex => ({ re, im: 0 });
const add = (...parts: Complex[]): Complex => ({
  re: parts.reduce((s, p) => s + p.re, 0),
  im: parts.reduce((s, p) => s + p.im, 0),
});
const by = (a: Complex, b: Complex): Complex => ({ re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re });
const scaled = (a: Complex, f: number): Complex => ({ re: a.re * f, im: a.im * f });
const over = (a: Complex, b: Complex): Complex => {
  const size = b.re * b.re + b.im * b.im;
  return { re: (a.re * b.re + a.im * b.im) / size, im: (a.im * b.re - a.re * b.im) / size };
};

/** Cosine of the angle of a wave whose sine is given: imaginary, and decaying, beyond the critical angle. */
const cosine = (sine: number): Complex =>
  sine <= 1 ? real(Math.sqrt(1 - sine * sine)) : { re: 0, im: Math.sqrt(sine * sine - 1) };

/** What becomes of a P wave at an interface, relative to its displacement. */
export interface Scattering {
  pp: Complex;
  ps: Complex;
  throughP: Complex;
  throughS: Complex;
  /** Energy that leaves over energy that comes in: 1 where everything propagates. */
  energy: number;
}

/**
 * Exact reflection and transmission of a plane P wave (Zoeppritz 1919; as in Aki & Richards 2002, Quantitative
 * Seismology, 139–145), complex beyond the critical angle.
 * @param angleDeg angle of incidence in the upper rock
 */
export function zoeppritz(upper: Elastic, lower: Elastic, angleDeg: number): Scattering {
  const p = Math.sin((angleDeg * Math.PI) / 180) / upper.vp;
  const [r1, r2] = [upper.density, lower.density];
  const [s1, s2] = [2 * upper.vs ** 2 * p * p, 2 * lower.vs ** 2 * p * p];
  const a = r2 * (1 - s2) - r1 * (1 - s1);
  const b = r2 * (1 - s2) + r1 * s1;
  const c = r1 * (1 - s1) + r2 * s2;
  const d = 2 * (r2 * lower.vs ** 2 - r1 * upper.vs ** 2);
  const p1 = scaled(cosine(p * upper.vp), 1 / upper.vp);
  const p2 = scaled(cosine(p * lower.vp), 1 / lower.vp);
  const q1 = scaled(cosine(p * upper.vs), 1 / upper.vs);
  const q2 = scaled(cosine(p * lower.vs), 1 / lower.vs);
  const e = add(scaled(p1, b), scaled(p2, c));
  const f = add(scaled(q1, b), scaled(q2, c));
  const g = add(real(a), scaled(by(p1, q2), -d));
  const h = add(real(a), scaled(by(p2, q1), -d));
  const whole = add(by(e, f), scaled(by(g, h), p * p));
  const pp = over(
    add(by(add(scaled(p1, b), scaled(p2, -c)), f), scaled(by(add(real(a), scaled(by(p1, q2), d)), h), -p * p)),
    whole,
  );
  const ps = scaled(over(by(p1, add(real(a * b), scaled(by(p2, q2), c * d))), whole), (-2 * p * upper.vp) / upper.vs);
  const throughP = scaled(over(by(p1, f), whole), (2 * r1 * upper.vp) / lower.vp);
  const throughS = scaled(over(by(p1, h), whole), (2 * r1 * p * upper.vp) / lower.vs);
  const size = (z: Complex) => z.re * z.re + z.im * z.im;
  // energy through an interface goes with impedance and the real part of the cosine
  const flux = (rho: number, v: number, slow: Complex) => rho * v * v * slow.re;
  const came = flux(r1, upper.vp, p1);
  const energy =
    size(pp) +
    (size(ps) * flux(r1, upper.vs, q1)) / came +
    (size(throughP) * flux(r2, lower.vp, p2)) / came +
    (size(throughS) * flux(r2, lower.vs, q2)) / came;
  return { pp, ps, throughP, throughS, energy };
}

/** Half the relative contrasts that the linear forms are written in. */
function contrasts(upper: Elastic, lower: Elastic) {
  const mean = (a: number, b: number) => 0.5 * (a + b);
  const [vp, vs, rho] = [mean(upper.vp, lower.vp), mean(upper.vs, lower.vs), mean(upper.density, lower.density)];
  return {
    p: (0.5 * (lower.vp - upper.vp)) / vp,
    s: (0.5 * (lower.vs - upper.vs)) / vs,
    d: (0.5 * (lower.density - upper.density)) / rho,
    ratio: (vs / vp) ** 2,
  };
}

/** Mean of the angles of incidence and transmission, radians: what the linear forms take. */
function meanAngle(upper: Elastic, lower: Elastic, angleDeg: number): number {
  const angle = (angleDeg * Math.PI) / 180;
  return 0.5 * (angle + Math.asin(Math.min(1, (Math.sin(angle) * lower.vp) / upper.vp)));
}

/** Aki & Richards (2002), page 148: linear in the three contrasts. */
export function akiRichards(upper: Elastic, lower: Elastic, angleDeg: number): number {
  const { p, s, d, ratio } = contrasts(upper, lower);
  const angle = meanAngle(upper, lower, angleDeg);
  const sin2 = Math.sin(angle) ** 2;
  return p / Math.cos(angle) ** 2 - 8 * ratio * sin2 * s + (1 - 4 * ratio * sin2) * d;
}

/** Intercept and gradient of Shuey (1985), Geophysics 50, 609–614. */
export function interceptGradient(
  upper: Elastic,
  lower: Elastic,
): { intercept: number; gradient: number; far: number } {
  const { p, s, d, ratio } = contrasts(upper, lower);
  return { intercept: p + d, gradient: p - 8 * ratio * s - 4 * ratio * d, far: p };
}

/** Shuey's three terms. */
export function shuey(upper: Elastic, lower: Elastic, angleDeg: number): number {
  const { intercept, gradient, far } = interceptGradient(upper, lower);
  const angle = meanAngle(upper, lower, angleDeg);
  const [sin2, tan2] = [Math.sin(angle) ** 2, Math.tan(angle) ** 2];
  return intercept + gradient * sin2 + far * (tan2 - sin2);
}

/** Fatti et al. (1994), Geophysics 59, 1362–1376: in contrasts of P and S impedance and density. */
export function fatti(upper: Elastic, lower: Elastic, angleDeg: number): number {
  const { p, s, d, ratio } = contrasts(upper, lower);
  const angle = meanAngle(upper, lower, angleDeg);
  const [sin2, tan2] = [Math.sin(angle) ** 2, Math.tan(angle) ** 2];
  return (1 + tan2) * (p + d) - 8 * ratio * sin2 * (s + d) - (tan2 - 4 * ratio * sin2) * d;
}

export const REFLECTION = {
  'exact Zoeppritz': (upper: Elastic, lower: Elastic, deg: number) => zoeppritz(upper, lower, deg).pp.re,
  'Aki–Richards': akiRichards,
  Shuey: shuey,
  Fatti: fatti,
} as const;
export type ReflectionForm = keyof typeof REFLECTION;
