import { randomOf } from '../classes/kinds.ts';
import { cubicBetween } from '../numerics/cubic.ts';
import type { Tuning } from './wedge.ts';

/** What is measured of the lobe of a bed: how thick it is seen, ms, and its mean amplitude. */
export interface Lobe {
  apparentMs: number;
  average: number;
}

/**
 * The lobe of one sign between two times: the strongest there, out to where it passes nought on either side.
 * @param samples relative impedance at even steps from `firstMs`; @param sign −1 for what is softer than around it
 */
export function lobeOf(
  samples: ArrayLike<number>,
  firstMs: number,
  stepMs: number,
  topMs: number,
  baseMs: number,
  sign: 1 | -1,
): Lobe | null {
  const n = samples.length;
  const [from, to] = [
    Math.max(0, Math.floor((topMs - firstMs) / stepMs)),
    Math.min(n - 1, Math.ceil((baseMs - firstMs) / stepMs)),
  ];
  let best = -1;
  for (let k = from; k <= to; k++)
    if (sign * samples[k] > 0 && (best < 0 || sign * samples[k] > sign * samples[best])) best = k;
  if (best < 0) return null;
  const value = (x: number) => {
    const k = Math.floor(x);
    const v = (q: number) => samples[Math.max(0, Math.min(n - 1, q))];
    return cubicBetween(v(k - 1), v(k), v(k + 1), v(k + 2), x - k);
  };
  const edge = (way: 1 | -1) => {
    let k = best;
    while (k + way >= 0 && k + way < n && sign * samples[k + way] > 0) k += way;
    if (k + way < 0 || k + way >= n || samples[k + way] !== samples[k + way]) return Number.NaN;
    // where a cubic between the two passes nought
    let [a, b] = [k, k + way];
    for (let turn = 0; turn < 24; turn++) {
      const m = (a + b) / 2;
      if (sign * value(m) > 0) a = m;
      else b = m;
    }
    return (a + b) / 2;
  };
  const [upper, lower] = [edge(-1), edge(1)];
  if (!(lower > upper)) return null;
  const parts = 64;
  let sum = 0;
  for (let q = 0; q < parts; q++) sum += value(upper + ((q + 0.5) * (lower - upper)) / parts);
  return { apparentMs: (lower - upper) * stepMs, average: (sign * sum) / parts };
}

/** What turns measures into net pay. */
export interface PayScale {
  /** Mean relative impedance of a thick bed of nothing but pay: what the wedge is multiplied by. */
  scale: number;
  /** Velocity of pay, m/s. */
  velocity: number;
}

/** Part of the thickness in time that is pay, and net pay (m), with tuning taken out (The Leading Edge 26, 2007, 1278–1282). */
export function netOf(
  { apparentMs, average }: Lobe,
  tuning: Tuning,
  { scale, velocity }: PayScale,
): { part: number; netM: number } {
  const full = scale * tuning.average(apparentMs);
  const part = full > 0 ? Math.min(1, Math.max(0, average / full)) : 0;
  return { part, netM: (part * tuning.thickness(apparentMs) * velocity) / 2000 };
}

/** The scale at which wells are met best: net pay goes as one over it while none is more than full. */
export function scaleByWells(
  wells: { lobe: Lobe; netM: number }[],
  tuning: Tuning,
  velocity: number,
): { scale: number; spread: number } | null {
  const rows = wells.map(({ lobe, netM }) => ({
    one: ((lobe.average / tuning.average(lobe.apparentMs)) * tuning.thickness(lobe.apparentMs) * velocity) / 2000,
    netM,
  }));
  const [top, below] = [rows.reduce((s, r) => s + r.one * r.netM, 0), rows.reduce((s, r) => s + r.one * r.one, 0)];
  if (!(top > 0 && below > 0)) return null;
  const scale = below / top;
  const mean = rows.reduce((s, r) => s + r.netM, 0) / rows.length;
  const misfit = rows.reduce((s, r) => s + (r.one / scale - r.netM) ** 2, 0);
  return {
    scale,
    spread: rows.length > 1 && mean > 0 ? Math.sqrt(misfit / (rows.length - 1) / rows.length) / mean : 0,
  };
}

/** The scale at which all but so many of the strongest are no more than full. */
export function scaleByGreatest(lobes: Lobe[], tuning: Tuning, part = 0.98): number {
  const ratios = lobes.map((l) => l.average / tuning.average(l.apparentMs)).sort((a, b) => a - b);
  return ratios[Math.min(ratios.length - 1, Math.floor(part * ratios.length))] ?? 1;
}

/** How unsure what goes in is. */
export interface PaySpread {
  /** Of the scale, as a part; of the velocity, as a part; of picks, ms. */
  scale: number;
  velocity: number;
  pickMs: number;
  draws: number;
  seed: number;
}

/**
 * Sums of net pay over bins by Monte Carlo: the scale and velocity are drawn once for all bins, and so is the error of picks, which makes
 * the bed thicker or thinner everywhere. @returns sums in rising order, metres times bins
 */
export function sumsOfPay(lobes: (Lobe | null)[], tuning: Tuning, scale: PayScale, spread: PaySpread): Float64Array {
  const random = randomOf(spread.seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const sums = new Float64Array(spread.draws);
  for (let d = 0; d < spread.draws; d++) {
    const own = {
      scale: scale.scale * Math.exp(spread.scale * normal()),
      velocity: scale.velocity * Math.exp(spread.velocity * normal()),
    };
    const thicker = spread.pickMs * normal();
    for (const lobe of lobes) {
      if (!lobe) continue;
      const apparentMs = Math.max(0.1, lobe.apparentMs + thicker);
      // a lobe that is cut wider is that much weaker on the whole
      sums[d] += netOf({ apparentMs, average: (lobe.average * lobe.apparentMs) / apparentMs }, tuning, own).netM;
    }
  }
  return sums.sort();
}
