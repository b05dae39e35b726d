import { z } from 'zod';
import { type AgeAxis, placesOfAges } from '../../age/flat.ts';
import { growthOf, type SideByAge, traceByAge } from '../../age/sequences.ts';
import { toIndex } from '../../earth/binGrid.ts';
import type { Fault, ResultTable, Volume } from '../../earth/objects.ts';
import type { LocalStep } from '../../engine/local.ts';
import { shapeOfGrid } from '../../engine/local.ts';
import { faultGrid } from '../../faults/throw.ts';
import { sizeOf } from '../../numerics/block.ts';
import { readRegion } from '../../storage/regions.ts';
import type { Store } from '../../storage/store.ts';
import { defineStep, number } from '../define.ts';
import { axisFor, axisParams } from './flatten.ts';

/** Bins from a fault at which its two sides are measured: beyond the blur of its plane and the drag beside it. */
const BESIDE = 4;

const params = z.object({
  ...axisParams,
  over: number(
    { title: 'Change over', description: 'Ages to each side over which the change of thickness is fitted.' },
    { min: 1, max: 1000, step: 1, initial: 40 },
  ),
  bands: number(
    { title: 'Bands of age', description: 'For which growth across faults is told.' },
    { min: 1, max: 100, whole: true, initial: 12 },
  ),
});

type Params = z.infer<typeof params>;

interface Ready {
  axis: AgeAxis;
  age: Volume;
}

const local: LocalStep<Params, Ready> = {
  volumes: ['age'],
  domain: 'age',
  halo: () => ({ inline: 0, crossline: 0, sample: Number.POSITIVE_INFINITY }),
  ready: (_, p, { age }) => ({ axis: axisFor(age, p), age }),
  grid: ({ binGrid }, _, { axis }) => ({ binGrid, domain: 'age', vertical: axis }),
  outputs: {
    thickness: { quantity: 'attribute', unit: '' },
    change: { quantity: 'attribute', unit: '' },
    hiatus: { quantity: 'probability', unit: '1' },
  },
  evaluate({ age: { data } }, p, { axis, age }, region) {
    const [ni, nj, nk] = sizeOf(region);
    const down = age.vertical.count;
    const made = () => new Float32Array(ni * nj * nk);
    const out = { thickness: made(), change: made(), hiatus: made() };
    for (let t = 0; t < ni * nj; t++) {
      const places = placesOfAges(data, t * down, down, axis, p.repeat, p.gap);
      const own = traceByAge(places, axis, age.vertical.step, p.over);
      for (const key of ['thickness', 'change', 'hiatus'] as const)
        out[key].set(own[key].subarray(region.k[0], region.k[1]), t * nk);
    }
    return out;
  },
};

/** Ages and thickness of a unit of age at the places beside a fault, on one side. */
async function besideFault(store: Store, age: Volume, fault: Fault): Promise<[SideByAge, SideByAge] | null> {
  const { binGrid, vertical } = age;
  const bin = Math.min(Math.hypot(...binGrid.perInline), Math.hypot(...binGrid.perCrossline));
  const grid = faultGrid(fault.sticks, bin, vertical.step);
  if (!grid) return null;
  const [ni, nj, nk] = shapeOfGrid(age);
  const sides: [SideByAge, SideByAge] = [
    { age: [], thickness: [] },
    { age: [], thickness: [] },
  ];
  for (let r = 0; r < grid.rows; r++) {
    // bins that the two sides of a row need, read once
    const places: [side: number, i: number, j: number, k: number][] = [];
    for (let l = 0; l < grid.levels; l++) {
      const n = r * grid.levels + l;
      const [tx, ty] = [grid.towards[2 * n], grid.towards[2 * n + 1]];
      const k = Math.round((grid.first + l * grid.step - vertical.first) / vertical.step);
      if (Number.isNaN(tx) || k < 1 || k + 1 >= nk) continue;
      for (const side of [0, 1]) {
        const by = (side === 0 ? -1 : 1) * BESIDE * bin;
        const [i, j] = toIndex(binGrid, grid.x[n] + by * tx, grid.y[n] + by * ty).map(Math.round);
        if (i >= 0 && j >= 0 && i < ni && j < nj) places.push([side, i, j, k]);
      }
    }
    if (places.length === 0) continue;
    const extent = (axis: 1 | 2 | 3): [number, number] => [
      Math.min(...places.map((p) => p[axis])),
      Math.max(...places.map((p) => p[axis])) + 1,
    ];
    const [i, j, k] = [extent(1), extent(2), extent(3)];
    const region = { i, j, k: [k[0] - 1, k[1] + 1] as [number, number] };
    const data = await readRegion(store, age, region);
    const [, sj, sk] = sizeOf(region);
    for (const [side, pi, pj, pk] of places) {
      const n = ((pi - i[0]) * sj + pj - j[0]) * sk + pk - region.k[0];
      const rise = data[n + 1] - data[n - 1];
      if (!(rise > 0)) continue;
      sides[side].age.push(data[n]);
      sides[side].thickness.push((2 * vertical.step) / rise);
    }
  }
  return sides;
}

/** Growth across faults, a row for each band of age. */
async function growthTable(store: Store, age: Volume, faults: Fault[], axis: AgeAxis, count: number) {
  const bands = Array.from({ length: count + 1 }, (_, n) => axis.first + ((axis.count - 1) * axis.step * n) / count);
  const rows: (string | number | null)[][] = [];
  const known = (v: number) => (Number.isFinite(v) ? v : null);
  for (const fault of faults) {
    const sides = await besideFault(store, age, fault);
    if (!sides) continue;
    for (const g of growthOf(sides[0], sides[1], bands))
      rows.push([fault.name, g.from, g.to, known(g.hanging), known(g.foot), known(g.hanging / g.foot)]);
  }
  return {
    kind: 'result table',
    columns: [
      'Fault',
      'From age',
      'To age',
      'Thickness of an age, hanging wall',
      'The same, footwall',
      'Growth index',
    ].map((name) => ({ name, unit: '' })),
    rows,
  } as Pick<ResultTable, 'kind' | 'columns' | 'rows'>;
}

export const sequences = defineStep({
  id: 'interpret.sequences',
  version: 1,
  stage: 'interpret',
  purpose: 'Relative age',
  title: 'Thickness by age',
  summary:
    'What ages say of deposition: hiatus, thickness of a unit of age and how it changes, as volumes by age; and growth across each fault, by bands of age.',
  formula: 'T(a) = ∂z/∂a; change (∂T/∂a)/T; growth index T(hanging)/T(foot) beside the fault.',
  avoid: 'Thickness in time is not that in metres; compaction is not undone.',
  source: 'Wheeler (1958), AAPG Bulletin 42, 1047–1063; Thorsen (1963), Trans. GCAGS 13, 103–110',
  reach: 'trace',
  inputs: {
    age: {
      kind: 'volume',
      title: 'Relative age',
      quantity: ['relative age'],
      usual: { step: 'interpret.age', output: 'age' },
    },
    faults: { kind: 'fault', title: 'Faults', many: true, optional: true, begins: true },
  },
  params,
  outputs: {
    thickness: { kind: 'volume', title: 'Thickness of an age' },
    change: { kind: 'volume', title: 'Change of thickness' },
    hiatus: { kind: 'volume', title: 'Hiatus' },
    growth: { kind: 'result table', title: 'Growth' },
  },
  local,
  async run(context) {
    const { inputs, params: p, store, warn } = context;
    const made = await context.stored();
    const faults = inputs.faults.filter((fault) => {
      if (fault.domain === inputs.age.domain) return true;
      warn(`${fault.name} is left out: it is not in the domain of ${inputs.age.name}.`);
      return false;
    });
    const growth = await growthTable(store, inputs.age, faults, axisFor(inputs.age, p), p.bands);
    return { ...made, growth };
  },
});
