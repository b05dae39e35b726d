import { leastSquares } from '../numerics/leastSquares.ts';
import type { LayerPoints } from './fit.ts';

/** A layer between its boundaries in one well: mean velocity (m/s) there, and what may tell how it changes from well to well. */
export interface LayerInWell {
  well: string;
  x: number;
  y: number;
  velocity: number;
  /** Middle of its TWT, ms. */
  middle: number;
  /** What a velocity volume has there, m/s; NaN where it has nothing. */
  seismic: number;
}

/** What velocities of wells are spread along. */
export const DRIFTS = ['none', 'depth of burial', 'velocity volume', 'burial and volume'] as const;
export type Drift = (typeof DRIFTS)[number];

/** Mean velocity of a layer in a well, m/s. */
export function velocityIn({ top, points }: LayerPoints): number {
  const base = points[points.length - 1];
  return (2000 * (base.z - top.z)) / (base.t - top.t);
}

export interface Trend {
  /** m/s where nothing is known but the middle TWT (ms) of the layer, and what a velocity volume has there (m/s). */
  at(middle: number, seismic: number): number;
  /** Of a drift by a volume: the velocity of wells over that of the volume, and by how much wells differ in it. */
  anisotropy: { factor: number; spread: number } | null;
  /** Logarithm of what each well has over the trend. */
  left: { well: string; x: number; y: number; value: number }[];
}

/** Wells that it takes before a change with burial is told from chance. */
const ENOUGH = 3;
/** Greatest change of a layer's velocity with the middle of its time, m/s a ms. */
const STEEPEST = 3;
/** What is thought of a drift before wells tried it: so many misses, of so much (logarithm of velocity). */
const BEFORE = { count: 2, miss: 0.02 };

/** Logarithm of the velocity that wells give at a middle and a seismic velocity. */
type Told = (middle: number, seismic: number) => number;

const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;

/** By how deep the layer lies: a straight line, where there are wells enough and it says what rock does. */
function byBurial(wells: LayerInWell[]): Told {
  const middle = mean(wells.map((w) => Math.log(w.velocity)));
  const fit =
    wells.length >= ENOUGH
      ? leastSquares(
          wells.map((w) => [1, w.middle]),
          wells.map((w) => w.velocity),
        )
      : null;
  // rock that is buried deeper is not slower, and wells at one time do not tell
  if (!fit || !(fit[1] > 0 && fit[1] < STEEPEST)) return () => middle;
  return (t) => Math.log(Math.max(0.6 * Math.exp(middle), fit[0] + fit[1] * t));
}

/** By a velocity volume and the factor that wells have over it. */
function byVolume(wells: LayerInWell[]): Told {
  const factor = mean(wells.map((w) => Math.log(w.velocity / w.seismic)));
  return (_, seismic) => factor + Math.log(seismic);
}

/** Mean square of what a drift misses of wells that are left out in turn. */
function missOf(drift: (wells: LayerInWell[]) => Told, layers: LayerInWell[][]): number {
  const squares = layers.flatMap((wells) =>
    wells.length < 2
      ? []
      : wells.map((w) => (drift(wells.filter((o) => o !== w))(w.middle, w.seismic) - Math.log(w.velocity)) ** 2),
  );
  return (squares.reduce((a, b) => a + b, 0) + BEFORE.count * BEFORE.miss ** 2) / (squares.length + BEFORE.count);
}

/**
 * The trends of the velocities of layers that wells have, and what they have beyond them, to be kriged: universal kriging in two steps
 * (Chilès & Delfiner 2012, Geostatistics, chapter 3). Of two drifts together each counts as the inverse of what it misses of wells left out
 * (Bates & Granger 1969, Operational Research Quarterly 20, 451–468), over all layers. Null for a layer of which no well tells.
 */
export function trendsOf(layers: LayerInWell[][], drift: Drift): { trends: (Trend | null)[]; volumePart: number } {
  const seismic = drift === 'velocity volume' || drift === 'burial and volume';
  const used = layers.map((wells) => wells.filter((w) => w.velocity > 0 && (!seismic || w.seismic > 0)));
  const [burial, volume] = drift === 'burial and volume' ? [missOf(byBurial, used), missOf(byVolume, used)] : [1, 1];
  const volumePart = drift === 'velocity volume' ? 1 : drift === 'burial and volume' ? burial / (burial + volume) : 0;
  const trends = used.map((wells): Trend | null => {
    if (wells.length === 0) return null;
    const constant = mean(wells.map((w) => Math.log(w.velocity)));
    const own: Told = drift === 'none' ? () => constant : byBurial(wells);
    const other: Told = seismic ? byVolume(wells) : own;
    const told: Told = (t, v) => (1 - volumePart) * own(t, v) + (volumePart > 0 ? volumePart * other(t, v) : 0);
    const ratios = wells.map((w) => Math.log(w.velocity / w.seismic));
    const factor = mean(ratios);
    return {
      at: (t, v) => Math.exp(told(t, v)),
      anisotropy: seismic
        ? {
            factor: Math.exp(factor),
            spread:
              wells.length > 1
                ? Math.sqrt(ratios.reduce((s, r) => s + (r - factor) ** 2, 0) / (wells.length - 1))
                : Number.NaN,
          }
        : null,
      left: wells.map((w) => ({
        well: w.well,
        x: w.x,
        y: w.y,
        value: Math.log(w.velocity) - told(w.middle, w.seismic),
      })),
    };
  });
  return { trends, volumePart };
}
