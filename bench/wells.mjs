// What waits for a person among wells: a crossplot of a million points, tops carried between two wells, a tie that follows.
import { densityOf } from '@lithagon/core';
import { pathCosts, pathCostsTwin, threadKernels } from '@lithagon/kernels';
import { differences, stepsFor } from '../packages/core/dist/correlation/align.js';
import { CARRY, carryTops } from '../packages/core/dist/correlation/carry.js';
import { evidenceOf } from '../packages/core/dist/tie/evidence.js';
import { noise, timed } from './support.mjs';

/** The plain way: a map from cell to count. */
function plainDensity({ x, y }, w, width, height) {
  const counts = new Map();
  for (let n = 0; n < x.length; n++) {
    const a = Math.floor(((x[n] - w.x0) / (w.x1 - w.x0)) * width);
    const b = Math.floor(((w.y1 - y[n]) / (w.y1 - w.y0)) * height);
    if (a < 0 || b < 0 || a >= width || b >= height) continue;
    const key = `${a} ${b}`;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  return counts;
}

/** Beds of random level, a sample a metre. */
function log(seed, length) {
  const next = noise(seed);
  let [level, left] = [next(), 0];
  return Float32Array.from({ length }, () => {
    if (left-- <= 0) [level, left] = [2 * next(), 4 + Math.abs(12 * next())];
    return level + 0.1 * next();
  });
}

export async function measure() {
  const next = noise(3);
  const points = {
    x: Float32Array.from({ length: 1e6 }, () => next() + next()),
    y: Float32Array.from({ length: 1e6 }, () => next() + next()),
    color: Float32Array.from({ length: 1e6 }, next),
  };
  const window = { x0: -2, x1: 2, y0: -2, y1: 2 };
  const density = await timed(() => densityOf(points, window, 480, 300));
  const plain = await timed(() => plainDensity(points, window, 480, 300), 3);
  const curves = [log(5, 900), log(6, 900), log(7, 900)];
  const well = (shift) => ({ firstM: 400 + shift, stepM: 1, curves: curves.map((c) => c.slice(shift, 800 + shift)) });
  const tops = Array.from({ length: 8 }, (_, n) => ({ name: `T${n}`, tvdss: 520 + 80 * n }));
  const carry = await timed(() => carryTops(well(0), well(30), tops, { ...CARRY, weights: [1, 1, 1] }), 3);
  const logs = [log(8, 1500), log(9, 1500)];
  const paths = {
    ...differences([logs[0]], [logs[1]], [1], { offset: 0, mostShift: 500 }),
    steps: stepsFor(CARRY),
    endSample: CARRY.endSample,
    gapOpen: CARRY.gapOpenM,
    gapSample: CARRY.gapSample,
  };
  const aligned = await timed(() => pathCosts(threadKernels(), paths), 3);
  const plainly = await timed(() => pathCostsTwin(paths), 3);
  const series = (stepMs, count, seed) => ({
    firstMs: 600,
    stepMs,
    values: Float64Array.from({ length: count }, noise(seed)),
  });
  const evidence = await timed(
    () =>
      evidenceOf(series(4, 150, 1), series(1, 600, 2), {
        fromMs: 700,
        toMs: 1000,
        mostShiftMs: 16,
        mostPhaseDeg: 40,
        phaseDeg: 0,
        seed: 1,
        draws: 99,
      }),
    3,
  );
  return [
    {
      what: 'raster of a million points with a third as colour',
      value: density * 1000,
      unit: 'ms',
      ratio: plain / density,
      against: 'counting into a map',
    },
    {
      what: 'paths through the pairs of two logs of 1 500 samples, 500 apart at most',
      value: (paths.n * (2 * paths.mostShift)) / aligned / 1e6,
      unit: 'million pairs/s',
      ratio: plainly / aligned,
      against: 'a plain loop',
    },
    { what: 'eight tops carried between two wells of 800 m, three curves', value: carry * 1000, unit: 'ms' },
    { what: 'a match held against 99 noise traces', value: evidence * 1000, unit: 'ms' },
  ];
}
