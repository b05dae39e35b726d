import { agesOf } from '../../age/ages.ts';
import { type Parted, partedOf } from '../../age/between.ts';
import { keepAges, LEAST_RATE, misfitOf, riseDown } from '../../age/monotone.ts';
import {
  type AgeGiven,
  type AgeSurface,
  type AgeThrow,
  type KeptAges,
  keptAt,
  nodesOf,
  problemAt,
  type Thinning,
} from '../../age/problem.ts';
import { crosslineAt, inlineAt, sameBins, toIndex, toMap } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { Fault, FaultThrow, Horizon, Volume } from '../../earth/objects.ts';
import { shapeOfGrid } from '../../engine/local.ts';
import { meshOfSticks } from '../../faults/surface.ts';
import { towardsHanging } from '../../faults/throw.ts';
import type { Shape3 } from '../../numerics/block.ts';
import { during } from '../../numerics/stop.ts';
import { onBinsOf } from '../../project/windows.ts';
import { readWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { bySlabs, regionalDips } from './regionalDips.ts';

/** What ages rest on. */
export interface AgeInputs {
  seismic: Volume;
  horizons: Horizon[];
  unconformities: Horizon[];
  faults: Fault[];
  throws: FaultThrow[];
  /** Ages of an earlier run, which stay down to `beneath`. */
  before?: Volume;
  beneath?: Horizon;
}

/** What was solved: ages and misfit on nodes. */
export interface Ages {
  ages: Float32Array;
  misfit: Float32Array;
  thin: Thinning;
  nodes: Shape3;
  parted: Parted;
  /** TWT or depth of the first sample, and from one to the next. */
  first: number;
  step: number;
  said: string[];
}

/** Mean of what values give; what is not a number is left out. */
function meanOf(values: Float32Array, of: (value: number, bin: number) => number): number {
  let [sum, count] = [0, 0];
  values.forEach((value, bin) => {
    const v = of(value, bin);
    if (v !== v) return;
    sum += v;
    count++;
  });
  return count > 0 ? sum / count : Number.NaN;
}

/** Horizons with their ages, which have to rise from one to the next wherever both are. */
function agedHorizons(
  { horizons, seismic, before }: AgeInputs,
  values: Float32Array[],
  known?: number[],
): AgeSurface[] {
  const all = horizons.map(({ name }, n) => {
    const level = meanOf(values[n], (v) => v);
    const age = known ? known[n] : level;
    if (Number.isNaN(age))
      throw new LithagonError('input', `${name} holds no bin of ${(known && before ? before : seismic).name}.`, {
        object: name,
        fix: 'Leave it out, or choose another volume. Nothing was changed.',
      });
    return { name, values: values[n], age, level };
  });
  all.sort((a, b) => a.level - b.level);
  const columns = seismic.binGrid.crossline.count;
  for (const [n, upper] of all.entries())
    for (const lower of all.slice(n + 1)) {
      let [crossed, worst, at] = [0, 0, 0];
      for (let m = 0; m < upper.values.length; m++) {
        const by = upper.values[m] - lower.values[m];
        if (!(by > 0)) continue;
        crossed++;
        if (by > worst) [worst, at] = [by, m];
      }
      if (crossed > 0)
        throw new LithagonError(
          'horizons',
          `${upper.name} lies below ${lower.name} in ${crossed} bins, by ${worst.toFixed(0)} ${seismic.domain === 'depth' ? 'm' : 'ms'} at inline ${inlineAt(seismic.binGrid, Math.floor(at / columns))}, crossline ${crosslineAt(seismic.binGrid, at % columns)}, and above it on the whole: they contradict each other.`,
          { object: upper.name, fix: 'Mend one of them there, or leave it out. Nothing was changed.' },
        );
    }
  return all;
}

/** Throw over a fault in bins and samples of the volume. */
async function throwOn(store: Store, object: FaultThrow, { binGrid, vertical }: Volume): Promise<AgeThrow> {
  const [rows, levels] = object.values.shape;
  const own = await readWhole(store, object.places);
  const grid = {
    rows,
    levels,
    x: new Float64Array(rows * levels),
    y: new Float64Array(rows * levels),
    first: object.first,
    step: object.step,
    along: Float64Array.from({ length: rows }, (_, r) => (object.alongM * r) / Math.max(1, rows - 1)),
    towards: new Float64Array(2 * rows * levels).fill(Number.NaN),
  };
  for (let n = 0; n < rows * levels; n++) [grid.x[n], grid.y[n]] = toMap(object.binGrid, own[2 * n], own[2 * n + 1]);
  towardsHanging(grid);
  const bin = Math.min(Math.hypot(...binGrid.perInline), Math.hypot(...binGrid.perCrossline));
  const places = new Float32Array(3 * rows * levels);
  const towards = new Float32Array(2 * rows * levels);
  for (let n = 0; n < rows * levels; n++) {
    const [i, j] = toIndex(binGrid, grid.x[n], grid.y[n]);
    places.set([i, j, (object.first + (n % levels) * object.step - vertical.first) / vertical.step], 3 * n);
    const [ti, tj] = toIndex(binGrid, grid.x[n] + bin * grid.towards[2 * n], grid.y[n] + bin * grid.towards[2 * n + 1]);
    towards.set([ti - i, tj - j], 2 * n);
  }
  const values = (await readWhole(store, object.values)).map((v) => v / vertical.step);
  return { rows, levels, places, towards, values, match: await readWhole(store, object.match) };
}

/** What an earlier run found on the nodes, down to the surface beneath which is solved again, and the mean of its ages on surfaces. */
async function earlier(
  store: Store,
  { before, beneath, seismic }: AgeInputs,
  thin: Thinning,
  surfaces: Float32Array[],
  signal?: AbortSignal,
): Promise<{ kept: KeptAges; means: number[] } | null> {
  if (!before && !beneath) return null;
  if (!before || !beneath)
    throw new LithagonError(
      'input',
      'To solve again only below a surface, both the ages so far and the surface are needed.',
      { object: (before ?? beneath)?.name ?? '', fix: 'Choose both, or neither. Nothing was changed.' },
    );
  const { first, step, count } = seismic.vertical;
  if (
    !sameBins(before.binGrid, seismic.binGrid) ||
    [first, step, count].join() !== [before.vertical.first, before.vertical.step, before.vertical.count].join()
  )
    throw new LithagonError('input', `${before.name} does not lie on the samples of ${seismic.name}.`, {
      object: before.name,
      fix: 'Choose the ages that were made from it. Nothing was changed.',
    });
  const shape = shapeOfGrid(seismic);
  const [, nj, nk] = nodesOf(shape, thin);
  const ages = new Float32Array(nodesOf(shape, thin).reduce((a, n) => a * n, 1));
  const sums = surfaces.map(() => ({ sum: 0, count: 0 }));
  const columns = shape[1];
  await bySlabs(store, before, 0, signal, (data, from, to) => {
    for (let i = from; i < to; i++) {
      for (let j = 0; j < columns; j++)
        for (const [n, surface] of surfaces.entries()) {
          const k = (surface[i * columns + j] - first) / step;
          const low = Math.floor(k);
          if (!(low >= 0 && low + 1 < count)) continue;
          const at = ((i - from) * columns + j) * count + low;
          const age = data[at] + (k - low) * (data[at + 1] - data[at]);
          if (age !== age) continue;
          sums[n].sum += age;
          sums[n].count++;
        }
      if (i % thin[0] !== 0) continue;
      for (let j = 0; j < nj; j++)
        for (let k = 0; k < nk; k++)
          ages[((i / thin[0]) * nj + j) * nk + k] = data[((i - from) * columns + j * thin[1]) * shape[2] + k * thin[2]];
    }
  });
  const kept: KeptAges = { ages, thin, above: await onBinsOf(store, beneath, seismic.binGrid) };
  return { kept, means: sums.map((s) => (s.count > 0 ? s.sum / s.count : Number.NaN)) };
}

/** Ages of the whole volume on nodes of a thinning. */
export async function solveFor(
  store: Store,
  inputs: AgeInputs,
  thin: Thinning,
  limits: (Horizon | undefined)[],
  signal?: AbortSignal,
): Promise<Ages> {
  const { seismic, before, beneath } = inputs;
  const all = [
    ...inputs.horizons,
    ...inputs.unconformities,
    ...inputs.faults,
    ...inputs.throws,
    before,
    beneath,
    ...limits,
  ];
  for (const each of all)
    if (each && each.domain !== seismic.domain)
      throw new LithagonError('domain', `${each.name} and ${seismic.name} are not in one domain.`, {
        object: each.name,
        fix: 'Convert one of them, or leave it out. Nothing was changed.',
      });
  const { binGrid, vertical } = seismic;
  const shape = shapeOfGrid(seismic);
  const surfaces: Float32Array[] = [];
  for (const each of inputs.horizons) surfaces.push(await onBinsOf(store, each, binGrid));
  const sofar = await earlier(store, inputs, thin, surfaces, signal);
  const horizons = agedHorizons(inputs, surfaces, sofar?.means);
  const unconformities: AgeSurface[] = [];
  for (const each of inputs.unconformities) unconformities.push({ values: await onBinsOf(store, each, binGrid) });
  const throws: AgeThrow[] = [];
  for (const each of inputs.throws) throws.push(await throwOn(store, each, seismic));
  const given: AgeGiven = {
    binGrid,
    shape,
    first: vertical.first,
    step: vertical.step,
    regional: await regionalDips(store, seismic, signal),
    horizons,
    unconformities,
    faults: inputs.faults.map((f) => meshOfSticks(f.sticks, 24)),
    throws,
    kept: sofar?.kept,
  };
  return during(signal, () => {
    const solved = agesOf(given, thin);
    const finest = problemAt(given, thin);
    // ms, or m, from a trace to the next
    const each = finest.step / Math.max(thin[0], thin[1]);
    const misfit = misfitOf(solved.ages, finest).map((v) => v * each);
    const least = LEAST_RATE * finest.step;
    const moved = riseDown(solved.ages, finest, least);
    if (given.kept) keepAges(solved.ages, keptAt(given, given.kept, thin), finest, least);
    const said: string[] = [];
    if (solved.left > 0.01)
      said.push(
        `Ages were not solved to the end: ${(100 * solved.left).toPrecision(2)} % is left over after ${solved.rounds} rounds.`,
      );
    if (moved > 0)
      said.push(
        `${((100 * moved) / solved.ages.length).toPrecision(2)} % of ages had to be moved so that they rise downwards: horizons and dips disagree there.`,
      );
    const parted = partedOf(given, thin, finest);
    return {
      ages: solved.ages,
      misfit,
      thin,
      nodes: solved.nodes,
      parted,
      first: vertical.first,
      step: vertical.step,
      said,
    };
  });
}
