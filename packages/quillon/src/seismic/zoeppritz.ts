import type { Rock } from '../model/rocks.ts';

/**
 * Exact P-to-P reflection coefficient of a plane interface (Aki & Richards 2002, Quantitative Seismology, eq. 5.40),
 * positive where impedance rises at normal incidence. Beyond the critical angle its real part without the
 * evanescent term is given. `sinAngle` is that of the incident wave in the upper medium.
 */
export function reflection(a: Rock, b: Rock, sinAngle: number): number {
  const p = sinAngle / a.vp;
  const p2 = p * p;
  // a fluid is a solid with almost no rigidity
  const vs1 = Math.max(a.vs, 1);
  const vs2 = Math.max(b.vs, 1);
  const cosI1 = Math.sqrt(1 - sinAngle * sinAngle);
  const cosI2 = Math.sqrt(Math.max(0, 1 - p2 * b.vp * b.vp));
  const cosJ1 = Math.sqrt(1 - p2 * vs1 * vs1);
  const cosJ2 = Math.sqrt(Math.max(0, 1 - p2 * vs2 * vs2));
  const m1 = 2 * a.rho * vs1 * vs1 * p2;
  const m2 = 2 * b.rho * vs2 * vs2 * p2;
  const ca = b.rho - m2 - (a.rho - m1);
  const cb = b.rho - m2 + m1;
  const cc = a.rho - m1 + m2;
  const cd = 2 * (b.rho * vs2 * vs2 - a.rho * vs1 * vs1);
  const E = (cb * cosI1) / a.vp + (cc * cosI2) / b.vp;
  const F = (cb * cosJ1) / vs1 + (cc * cosJ2) / vs2;
  const G = ca - (cd * cosI1 * cosJ2) / (a.vp * vs2);
  const H = ca - (cd * cosI2 * cosJ1) / (b.vp * vs1);
  const D = E * F + G * H * p2;
  return (((cb * cosI1) / a.vp - (cc * cosI2) / b.vp) * F - (ca + (cd * cosI1 * cosJ2) / (a.vp * vs2)) * H * p2) / D;
}
