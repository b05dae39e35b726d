import { beforeAll, describe, expect, test } from 'vitest';
import { type BinGrid, toMap } from '../earth/binGrid.ts';
import type { EarthObject, PlotClass, Polygon, VelocityModel, Volume } from '../earth/objects.ts';
import { quantityFacts } from '../earth/quantities.ts';
import { type Given, shapeOfGrid } from '../engine/local.ts';
import { inThread } from '../engine/runner.ts';
import type { Region } from '../numerics/block.ts';
import { memoryStore } from '../storage/memory.ts';
import { readPlane, shapeOf } from '../storage/planes.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { PLANES } from '../storage/volumes.ts';
import { MADE, madeHorizon, TURNED } from '../testing/objects.ts';
import { even } from '../testing/random.ts';
import { madeVolume } from '../testing/volume.ts';
import { rickerWavelet, wellsInTime } from '../testing/wellsInTime.ts';
import { type AnyStep, allSteps, type InputSpec, localOf, runStep, tryPlane, tryRegion } from './index.ts';

// several slabs of inlines, and with what a runner is told to hold several groups of them
const BIN_GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: 13 },
  crossline: { first: 2000, step: 2, count: 37 },
};
const SAMPLES = 901;
const HELD = 1.2e5;
const RUNNER = { ...inThread(localOf), held: HELD };

let store: Store;
const objects: EarthObject[] = [];

/** Dipping waves, noise, dead traces and holes. */
async function made(name: string, seed: number): Promise<Volume> {
  const random = even(seed);
  return madeVolume(
    store,
    (i, j, k) => {
      // stripes along lines are footprint
      const value = 3 * Math.sin(0.35 * (k - 1.3 * i + 0.6 * j)) + 1.5 * random() + (j % 2 ? 1 : -1);
      if ((i === 4 && j === 7) || (i + 3 * j) % 41 === 40) return Number.NaN;
      return i === 6 && j === 3 && k > 200 && k < 230 ? Number.NaN : value;
    },
    { binGrid: BIN_GRID, samples: SAMPLES, first: 100, step: 2, name },
  );
}

beforeAll(async () => {
  store = memoryStore();
  objects.push(await made('Seismic', 3), await made('Second', 4));
  const found = [
    { ...(await made('Found', 5)), quantity: 'fault strength' as const },
    { ...(await made('Way', 6)), quantity: 'azimuth' as const },
    {
      ...(await madeVolume(store, (i, j, k) => 2.2 * k - 2 * i + j + 5 * Math.sin(k / 9), {
        binGrid: BIN_GRID,
        samples: SAMPLES,
        first: 100,
        step: 2,
        name: 'Age',
      })),
      quantity: 'relative age' as const,
    },
    { ...(await made('By age', 7)), domain: 'age' as const },
    { ...(await made('Intercept', 8)), quantity: 'intercept' as const },
    { ...(await made('Gradient', 9)), quantity: 'gradient' as const },
  ];
  await store.commit({ put: found });
  objects.push(...found);
  const top = await madeHorizon(
    store,
    'Top',
    'twt',
    (i, j) => (i === 2 && j === 2 ? Number.NaN : 500 + 6 * i + 3 * j),
    BIN_GRID,
  );
  const base = await madeHorizon(store, 'Base', 'twt', (i, j) => 900 + 4 * i - 2 * j, BIN_GRID);
  const sea = await madeHorizon(store, 'Sea bed', 'depth', (i, j) => 90 + i + 0.5 * j, BIN_GRID);
  const model: VelocityModel = {
    id: 'model',
    kind: 'velocity model',
    name: 'Model',
    revision: 'model-1',
    stage: 'depth',
    madeBy: MADE,
    binGrid: BIN_GRID,
    waterVelocity: 1500,
    seaBed: sea.values,
    layers: [
      { base: 'Top', v0: 1700, k: 0.4, times: top.values, rms: 0, points: 0 },
      {
        base: 'Base',
        form: 'from top to base',
        v0: 2100,
        vBase: 2300,
        k: 0,
        times: base.values,
        corrections: [{ rangeM: 500, mean: 0.01, points: [{ well: 'W-1', x: 0, y: 0, value: 0.04 }] }],
        rms: 0,
        points: 0,
      },
    ],
  };
  await store.commit({ put: [model] });
  const plotted: PlotClass = {
    id: 'plotted',
    kind: 'crossplot class',
    name: 'Plotted',
    revision: 'plotted-1',
    stage: 'attributes',
    madeBy: MADE,
    x: { of: 'a', log: false },
    y: { of: 'b', log: false },
    ring: [
      [-2, -3],
      [4, -1],
      [1, 5],
    ],
  };
  const { binGrid } = top;
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const areas = [0, 1].map((side): Polygon => {
    const [from, to] = side === 0 ? [0.5, 0.45 * nj] : [0.55 * nj, nj - 1.5];
    const corners: [number, number][] = [
      [0.5, from],
      [ni - 1.5, from],
      [ni - 1.5, to],
      [0.5, to],
    ];
    return {
      id: `area-${side}`,
      kind: 'polygon',
      name: `Area ${side}`,
      revision: '1',
      stage: 'interpret',
      madeBy: MADE,
      closed: true,
      rings: [corners.map(([i, j]) => toMap(binGrid, i, j))],
    };
  });
  await store.commit({ put: [plotted, ...areas] });
  objects.push(top, base, sea, model, plotted, ...areas);
  // stacks of three angles, wells, and what is inverted with them
  const stacks = await Promise.all([10, 20, 30].map((middle, n) => made(`Stack of ${middle}`, 11 + n)));
  const angled = stacks.map((stack, n) => ({ ...stack, angles: { middle: 10 * (n + 1) } }));
  const wells = await wellsInTime(store, BIN_GRID, [
    [3, 5],
    [9, 12],
    [6, 30],
  ]);
  const wavelets = [10, 20, 30].map((angle) => rickerWavelet(`Wavelet of ${angle}`, 25, 8000, angle));
  await store.commit({ put: [...angled, ...wells, ...wavelets] });
  objects.push(...angled, ...wells, ...wavelets);
  const ids = (...names: string[]) => names.map((name) => objects.find((o) => o.name === name)?.id as string);
  const horizons = ids('Top', 'Base');
  const own = ids('W-1', 'W-2', 'W-3');
  const keep = async (request: Parameters<typeof runStep>[0]) => {
    const kept = await runStep(request, store);
    objects.push(...kept);
    return kept;
  };
  await keep({ step: 'invert.operator', inputs: { seismic: ids('Seismic'), wells: own }, params: {} });
  for (const curve of ['P impedance', 'P velocity', 'S velocity', 'density'])
    await keep({
      step: 'invert.background',
      inputs: { like: ids('Seismic'), wells: own, horizons },
      params: { curve },
      name: `Model of ${curve}`,
    });
  const [impedance] = await keep({
    step: 'invert.impedance',
    inputs: {
      seismic: ids('Seismic'),
      wavelet: ids('Wavelet'),
      background: ids('Model of P impedance'),
      deviation: objects
        .filter((o) => o.kind === 'volume' && o.quantity === 'spread')
        .slice(0, 1)
        .map((o) => o.id),
      wells: own,
    },
    params: { fromMs: 500, toMs: 700 },
    name: 'Impedance',
  });
  await keep({ step: 'invert.realizations', inputs: { of: [impedance.id] }, params: { count: 2 } });
}, 120_000);

/** Something that fits each input of a step. */
function inputsFor(step: AnyStep): { given: Given; ids: Record<string, string[]> } {
  const given: Given = {};
  for (const [role, spec] of Object.entries(step.inputs) as [string, InputSpec][]) {
    const fit = objects.filter(
      (o) =>
        o.kind === spec.kind &&
        (!('domain' in o) || o.domain === (spec.domain ?? 'twt')) &&
        (!spec.quantity || !('quantity' in o) || (spec.quantity as string[]).includes(o.quantity)),
    );
    // several inputs of one kind are given different objects
    const other = fit.find((o) => !Object.values(given).includes(o));
    // stacks are those that have an angle, and none of the models and realizations is one of another
    const many = spec.stacks ? fit.filter((o) => o.kind === 'volume' && o.angles) : fit;
    const wanted = WANTED[step.id]?.[role];
    const named = wanted === undefined ? undefined : objects.filter((o) => wanted.includes(o.name));
    given[role] = spec.many ? (named ?? many) : (named?.[0] ?? other ?? fit[0]);
    if (wanted?.length === 0) given[role] = spec.many ? [] : undefined;
  }
  const ids = Object.fromEntries(
    Object.entries(given).map(([role, o]) => [role, [o ?? []].flat().map((each) => each.id)]),
  );
  return { given, ids };
}

/** Parameters besides the initial ones with which a step is tried too. */
const MORE: Record<string, Record<string, unknown>> = {
  'attributes.variance': { radius: 3, windowMs: 20 },
  'attributes.coherence': { measure: 'eigenstructure', windowMs: 16 },
  'attributes.smooth': { way: 'diffusion', turns: 2 },
  'attributes.dip': { by: 'semblance search', dipWindowMs: 12, mostDipMs: 4 },
  'attributes.frequency': { gives: 'peak frequency', method: 'Morlet wavelet', toHz: 60 },
  'attributes.formula': { formula: 'A > 0 ? sqrt(A) * 2 : min(A, B) - 1' },
  'data.crop': { firstInline: 1002, lastInline: 1010, firstCrossline: 2010, from: 301, to: 900 },
  'data.decimate': { inlines: 3, crosslines: 5 },
  'data.resample': { step: 7 },
  'data.mute': { side: 'below', at: -30 },
  'depth.interval': { gives: 'average velocity', smoothMs: 200, spikes: 1 },
  'depth.volume': { stepM: 2.5, deepestM: 900 },
  'invert.rotate': { angleDeg: -37 },
  'invert.interceptGradient': { windowMs: 60 },
  'invert.background': { curve: 'density', fit: 'typed', rangeM: 700, deviation: 0.04 },
  'invert.impedance': { fromMs: 500, toMs: 700, wells: 'left blind' },
  'invert.probability': { from: 4e6, to: 5e6 },
};

function close(tried: Float32Array, kept: Float32Array, scale: number): void {
  expect(tried.length).toBe(kept.length);
  let worst = 0;
  for (let n = 0; n < kept.length; n++) {
    if (Number.isNaN(tried[n]) !== Number.isNaN(kept[n])) expect([n, tried[n]]).toEqual([n, kept[n]]);
    if (!Number.isNaN(kept[n])) worst = Math.max(worst, Math.abs(tried[n] - kept[n]));
  }
  expect(worst).toBeLessThanOrEqual(1e-6 * scale);
}

/** What steps are given by name, where any that fits would not do. */
const WANTED: Record<string, Record<string, string[]>> = {
  'invert.background': { like: ['Seismic'], age: [], faults: [] },
  'invert.interceptGradient': { operator: [] },
  'invert.impedance': { seismic: ['Seismic'], wavelet: ['Wavelet'], background: ['Model of P impedance'] },
  'invert.prestack': {
    wavelets: ['Wavelet of 10', 'Wavelet of 20', 'Wavelet of 30'],
    vp: ['Model of P velocity'],
    vs: ['Model of S velocity'],
    density: ['Model of density'],
  },
  'invert.rotate': { intercept: ['Intercept'], gradient: ['Gradient'] },
  'invert.realizations': { of: ['Impedance'] },
  'depth.interval': { velocity: ['Model of P velocity'] },
  'depth.volume': { volume: ['Seismic'], model: ['Model'] },
  'invert.probability': {
    mean: ['Impedance'],
    spread: ['Spread of impedance of Seismic'],
    background: ['Model of P impedance'],
    volumes: [],
    also: [],
    top: [],
    base: [],
  },
};

/** Steps that find nothing in these volumes as they begin. */
const OWN: Record<string, Record<string, unknown>> = {
  'interpret.faultStrength': { length: 100, height: 40, dipFrom: 20, dipTo: 80, towardsFrom: 200, towardsTo: 300 },
  'attributes.bodies': { from: 3.5, to: 9, smallest: 3, most: 40 },
  'interpret.sequences': { gap: 2.6, over: 12 },
  'interpret.terminations': { gap: 2.6, smallest: 0.1 },
  // a window that is soon inverted
  'invert.impedance': { fromMs: 500, toMs: 700 },
  'invert.prestack': { fromMs: 500, toMs: 620 },
  'invert.realizations': { count: 2 },
  'invert.probability': { gives: 'rock by wells' },
};

const cases = allSteps()
  .filter((step) => step.local)
  .flatMap((step) => [
    [step.id, step, OWN[step.id] ?? {}] as const,
    ...(MORE[step.id] ? [[`${step.id} otherwise`, step, MORE[step.id]] as const] : []),
  ]);

describe.each(cases)('%s', (_, step, own) => {
  test('gives the same samples stored, in regions of any size, on lines that are tried, and live', async () => {
    const { given, ids } = inputsFor(step);
    const params = step.params.parse(own) as Record<string, unknown>;
    const volumesOf = async (...how: Parameters<typeof runStep>) =>
      (await runStep(...how)).filter((o): o is Volume => o.kind === 'volume');
    const stored = await volumesOf({ step: step.id, inputs: ids, params }, store, { runner: RUNNER });
    // all that a run writes in one group, it writes in several
    const whole = await volumesOf({ step: step.id, inputs: ids, params }, store);
    const live = await volumesOf({ step: step.id, inputs: ids, params, live: true }, store);
    const roles =
      step.local?.roles?.(given, params) ??
      Object.keys(step.outputs).filter((role) => step.outputs[role].kind === 'volume');
    expect(stored).toHaveLength(roles.length);
    const random = even(11);
    const within = (most: number, size: number): [number, number] => {
      const from = Math.floor(((1 + random()) / 2) * Math.max(0, most - size));
      return [from, Math.min(most, from + size)];
    };
    for (const [n, role] of roles.entries()) {
      const volume = stored[n];
      const scale = volume.statistics.max - volume.statistics.min;
      expect(scale).toBeGreaterThan(0);
      const [ni, nj, nk] = shapeOf(volume);
      // groups that are held at once have a seam
      const seam = volume.layouts?.crossline?.chunk[0] as number;
      if (ni * nj * nk > 2 * Math.max(HELD, 262144)) expect(seam).toBeLessThan(ni);
      const regions: Region[] = [
        { i: [0, 1], j: [0, nj], k: [0, nk] },
        { i: within(ni, 3), j: within(nj, 5), k: within(nk, 77) },
        { i: within(ni, 1), j: within(nj, 1), k: within(nk, nk) },
        // across the seam of two groups
        { i: [seam - 1, Math.min(ni, seam + 1)], j: within(nj, 9), k: within(nk, 40) },
      ];
      for (const region of regions) {
        const kept = await readRegion(store, volume, region);
        const tried = await tryRegion(step, given, params, store, region);
        close(tried[role], kept, scale);
        close(await readRegion(store, live[n], region), kept, scale);
      }
      for (const plane of PLANES) {
        const most = [ni, nj, nk][PLANES.indexOf(plane)];
        for (const index of [0, most >> 1, most - 1]) {
          const kept = await readPlane(store, volume, plane, index);
          close(await readPlane(store, whole[n], plane, index), kept, scale);
          const { grid, values } = await tryPlane(step, given, params, store, plane, index);
          expect(shapeOfGrid(grid)).toEqual([ni, nj, nk]);
          close(values[role], kept, scale);
        }
      }
      const { percentiles: a, absolute: b, ...exact } = volume.statistics;
      const { percentiles: c, absolute: d, ...other } = whole[n].statistics;
      for (const key of Object.keys(exact) as (keyof typeof exact)[]) expect(other[key]).toBeCloseTo(exact[key], 4);
      // between two names that are held equally often the middle is either
      if (quantityFacts(volume.quantity).scale !== 'categorical')
        expect(Math.abs(a['50'] - c['50']) + Math.abs(b['99'] - d['99'])).toBeLessThan(0.02 * scale);
      expect(live[n].layouts).toBeUndefined();
      expect(whole[n].traces).toEqual(volume.traces);
    }
  }, 60_000);
});
