import type { Random } from './random.ts';
import { softPlus } from './shapes.ts';

/** The surfaces that a fault can displace, in order; `merrowTop` is the notional top that the unconformity removed. */
export const SURFACES = [
  'seaBed',
  'lanternTop',
  'brackTop',
  'brackUnconformity',
  'merrowTop',
  'tolvenTop',
  'tolvenBase',
  'pellTop',
  'basementTop',
] as const;
export type Surface = (typeof SURFACES)[number];
/** Nominal depth of each surface in metres: where a fault's displacement is centred for it. */
export const NOMINAL_DEPTH = [85, 400, 620, 715, 490, 1090, 1140, 1310, 1530];

/**
 * A fault as a listric surface. `n` is distance along its dip direction, `t` along its strike, from an origin;
 * the surface is `n = g(z) − g(1000) + bend(t)`, so that a point is in the hanging wall where `n` is greater.
 */
export interface Fault {
  name: string;
  kind: 'normal' | 'reverse';
  originU: number;
  originV: number;
  /** Direction of dip in the survey's coordinates, radians from `u` towards `v`. */
  dipDirection: number;
  /** Slope dn/dz at the surface and its growth with depth (1/m): the dip flattens downwards. */
  slope: number;
  flattening: number;
  bendM: number;
  bendWavelengthM: number;
  /** Largest throw at Tolven, metres. */
  throwM: number;
  /** Throw is full at `tCentre` and nil at the tips `tCentre − halfBack` and `tCentre + halfAhead`. */
  tCentre: number;
  halfBack: number;
  halfAhead: number;
  /** Throw of each surface as a part of `throwM`. */
  share: number[];
  /** How far (m) the displacement reaches into the hanging wall and the footwall, and the hanging wall's part of it. */
  reachHanging: number;
  reachFoot: number;
  hangingPart: number;
}

export function along(fault: Fault, u: number, v: number): [n: number, t: number] {
  const du = u - fault.originU;
  const dv = v - fault.originV;
  const c = Math.cos(fault.dipDirection);
  const s = Math.sin(fault.dipDirection);
  return [du * c + dv * s, -du * s + dv * c];
}

/** The survey coordinates of a point given along and across the fault. */
export function offFault(fault: Fault, n: number, t: number): [u: number, v: number] {
  const c = Math.cos(fault.dipDirection);
  const s = Math.sin(fault.dipDirection);
  return [fault.originU + n * c - t * s, fault.originV + n * s + t * c];
}

/** Where the fault surface lies along its dip direction at depth `z` and strike position `t`, metres. */
export function planeAt(fault: Fault, z: number, t: number): number {
  const g = (d: number) => fault.slope * d + fault.flattening * d * d;
  return g(z) - g(1000) + fault.bendM * Math.sin((2 * Math.PI * t) / fault.bendWavelengthM);
}

/** Depth at which the fault is met below `(n, t)`: the hanging wall lies above it, the footwall below. */
export function depthOfPlane(fault: Fault, n: number, t: number): number {
  const target = n - planeAt(fault, 0, t);
  if (target <= 0) return 0;
  const { slope: a, flattening: b } = fault;
  return (Math.sqrt(a * a + 4 * b * target) - a) / (2 * b);
}

/** Whether the fault exists at strike position `t`: between its tips. */
export function isFaulted(fault: Fault, t: number): boolean {
  const d = t - fault.tCentre;
  return d < fault.halfAhead && -d < fault.halfBack;
}

/** Throw (m) of surface number `k` at strike position `t`; nil beyond the tips. */
export function throwAt(fault: Fault, k: number, t: number): number {
  if (fault.share[k] === 0) return 0;
  const d = t - fault.tCentre;
  const q = d / (d > 0 ? fault.halfAhead : fault.halfBack);
  if (Math.abs(q) >= 1) return 0;
  return fault.throwM * fault.share[k] * (1 - q * q) ** 1.3;
}

/** Vertical displacement (m, down positive) that the fault gives surface `k` at a place, on the side asked for. */
export function displacement(fault: Fault, k: number, n: number, t: number, hanging: boolean): number {
  const most = throwAt(fault, k, t);
  if (most === 0) return 0;
  const d = n - planeAt(fault, NOMINAL_DEPTH[k], t);
  const sign = fault.kind === 'normal' ? 1 : -1;
  if (hanging) return sign * most * fault.hangingPart * Math.exp(-softPlus(d, 40) / fault.reachHanging);
  return -sign * most * (1 - fault.hangingPart) * Math.exp(-softPlus(-d, 40) / fault.reachFoot);
}

/** The five faults of a field; every seed has all of them, of other sizes and places. */
export function drawFaults(random: Random): Fault[] {
  const vary = (value: number, part: number) => value * random.between(1 - part, 1 + part);
  const osmund: Fault = {
    name: 'Osmund Fault',
    kind: 'normal',
    originU: 3480 + random.between(-60, 60),
    originV: 1500,
    dipDirection: Math.PI + random.between(-0.09, 0.09),
    slope: vary(0.42, 0.08),
    flattening: 0.0002,
    bendM: random.between(40, 80),
    bendWavelengthM: vary(3600, 0.1),
    throwM: vary(120, 0.08),
    tCentre: -150,
    halfBack: 1850,
    halfAhead: 4200,
    share: [0, 0, 0.1, 0.22, 0.3, 1, 1.03, 1.1, 1.1],
    reachHanging: vary(850, 0.1),
    reachFoot: vary(1500, 0.1),
    hangingPart: 0.78,
  };
  const antithetic: Fault = {
    name: 'Antithetic',
    kind: 'normal',
    originU: 1300 + random.between(-80, 80),
    originV: 2880 + random.between(-60, 60),
    dipDirection: 0.96 + random.between(-0.06, 0.06),
    slope: vary(0.45, 0.1),
    flattening: 0.00005,
    bendM: 25,
    bendWavelengthM: 2500,
    throwM: vary(62, 0.1),
    tCentre: 600,
    halfBack: 1750,
    halfAhead: 2600,
    share: [0, 0, 0, 0.3, 0.5, 1, 1, 1, 0.8],
    reachHanging: 900,
    reachFoot: 700,
    hangingPart: 0.8,
  };
  const small = (name: string, u: number, v: number, dip: number): Fault => ({
    name,
    kind: 'normal',
    originU: u + random.between(-120, 120),
    originV: v + random.between(-120, 120),
    dipDirection: dip + random.between(-0.2, 0.2),
    slope: 0.5,
    flattening: 0.00002,
    bendM: 10,
    bendWavelengthM: 1500,
    throwM: vary(20, 0.2),
    tCentre: 0,
    halfBack: vary(600, 0.15),
    halfAhead: vary(600, 0.15),
    share: [0, 0, 0, 0, 0.3, 1, 1, 0.9, 0.3],
    reachHanging: 350,
    reachFoot: 350,
    hangingPart: 0.6,
  });
  const reverse: Fault = {
    ...small('Reverse', 650, 1750, 0.15),
    kind: 'reverse',
    slope: 1,
    flattening: 0.00001,
    throwM: vary(42, 0.15),
    halfBack: 900,
    halfAhead: 900,
    share: [0, 0, 0, 0, 0, 0, 0, 1, 0.9],
    reachHanging: 500,
    reachFoot: 500,
  };
  return [osmund, antithetic, small('Small South', 950, 620, 2.7), small('Small East', 4330, 2850, 0.5), reverse];
}
