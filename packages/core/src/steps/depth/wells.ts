import { z } from 'zod';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import { during, heed } from '../../numerics/stop.ts';
import { boundariesOn, nodesFor, seaBedOn } from '../../project/boundaries.ts';
import { thicknessByTrace, timeAbove } from '../../velocity/column.ts';
import { fitLaw } from '../../velocity/fit.ts';
import type { Law } from '../../velocity/law.ts';
import { traceAt, type VelocityCube } from '../../velocity/model.ts';
import { type Nodes, placesOf } from '../../velocity/nodes.ts';
import { DRIFTS, type Trend, trendsOf } from '../../velocity/spread.ts';
import { choice, defineStep, number, wellsInput } from '../define.ts';
import {
  boundaryInputs,
  cubeFor,
  keptModel,
  noVelocity,
  overburdenOf,
  samplesParam,
  seaBedFrom,
  topsOfBoundaries,
  waterParam,
} from './earth.ts';
import { inWell, type MadeLayer, madeLayer, velocityTable, type WellInLayer, wellsIn } from './layerWells.ts';

export const rangeParam = number(
  {
    title: 'Range of the wells',
    description: 'Distance at which what a well says has faded to 5 %.',
    unit: 'm',
  },
  { min: 500, max: 50000, step: 250, initial: 4000 },
);

const params = z.object({
  drift: choice(
    {
      title: 'Along',
      description:
        'What velocities follow between wells: nothing, how deep the layer lies there, a velocity volume, of which wells tell the factor (its anisotropy), or both, each as well as it foretells wells that are left out.',
    },
    [...DRIFTS],
    'none',
  ),
  rangeM: rangeParam,
  waterVelocity: waterParam,
  samples: samplesParam,
});

export const depthWells = defineStep({
  id: 'depth.wells',
  version: 1,
  stage: 'depth',
  title: 'Velocities of wells',
  summary:
    'Spreads the velocities of wells, layer by layer, by kriging about what they follow: nothing, burial or a velocity volume. Without boundaries one v0 + k·z for all of the wells, kriged.',
  formula: 'ln v = ln(drift) + kriged(ln v of wells − ln(drift)).',
  avoid: 'Far from wells without a drift: the mean of the wells stands there, whatever the structure.',
  source: 'Chilès & Delfiner (2012), Geostatistics, chapter 3',
  reach: 'global',
  inputs: {
    ...boundaryInputs,
    horizons: { ...boundaryInputs.horizons, optional: true },
    wells: wellsInput(['directional surveys', 'tops', 'checkshots', 'time-depth relation']),
  },
  params,
  outputs: {
    model: { kind: 'velocity model', title: 'Velocity model' },
    table: { kind: 'result table', title: 'Velocities of wells' },
  },
  async run({ inputs, around, params: p, store, signal, idFor, warn }) {
    const above = await overburdenOf(store, p.waterVelocity);
    const byVolume = p.drift === 'velocity volume' || p.drift === 'burial and volume';
    if (byVolume && !inputs.velocity)
      throw new LithagonError('velocity', 'Velocities are to follow a velocity volume, and none was chosen.', {
        fix: 'Choose a velocity volume, or another drift. Nothing was changed.',
      });
    const horizons = inputs.horizons;
    const nodes =
      horizons.length > 0
        ? nodesFor(await store.list(), horizons, inputs.line)
        : inputs.seaBed
          ? { binGrid: inputs.seaBed.binGrid }
          : null;
    const sea = await seaBedOn(store, inputs.seaBed, nodes, warn);
    const seaBed = await seaBedFrom(store, sea ? inputs.seaBed : undefined);
    const boundaries =
      nodes && horizons.length > 0
        ? await boundariesOn(store, horizons, nodes, { above, seaBed: sea, signal, say: warn })
        : [];
    const volume = byVolume ? await cubeFor(store, inputs.velocity, p.samples, { signal, warn }) : null;
    const tops: (string | null)[] = boundaries.length > 0 ? topsOfBoundaries(boundaries) : [null];
    const wellsOf = tops.map((top, n) => wellsIn(around, inputs.wells, n > 0 ? tops[n - 1] : null, top, above, seaBed));
    const cube = volume?.cube;
    const { trends, volumePart } = trendsOf(
      wellsOf.map((wells) => wells.map((w) => inWell(w, cube))),
      p.drift,
    );
    if (p.drift === 'burial and volume')
      warn(
        `By what they foretell of wells left out, ${volume?.name} counts ${Math.round(100 * volumePart)} of a hundred and burial ${Math.round(100 * (1 - volumePart))}.`,
      );
    const layers: MadeLayer[] = [];
    let over: Float32Array | null = sea ? Float32Array.from(sea, (depth) => timeAbove(above, depth)) : null;
    for (const [n, top] of tops.entries()) {
      stopIf(signal);
      const base = boundaries[n]?.of.name ?? '';
      const times = boundaries[n]?.times ?? null;
      const wells = wellsOf[n];
      const trend = trends[n];
      const before = layers.at(-1);
      if (!trend) {
        if (!before) throw noVelocity(top ?? 'anything');
        warn(`No well has a top “${top}” with a time; the velocity of the layer above was carried down.`);
        const { top: _, ...law } = before;
        const own = top && top !== base ? { top } : {};
        layers.push({ ...law, ...own, base, times, v0Map: null, corrections: [], wells: [], rms: 0, points: 0 });
      } else if (top === null && !byVolume) layers.push(onlyWells(wells, p.rangeM));
      else {
        const middle = wells.reduce((s, w) => s + inWell(w, undefined).middle, 0) / wells.length;
        const law: Law = byVolume
          ? { form: 'velocity volume', v0: trend.anisotropy?.factor ?? 1, k: 0 }
          : { form: 'constant', v0: trend.at(middle, Number.NaN), k: 0 };
        const layer = madeLayer({ base, ...(top ? { top } : {}) }, law, times, wells, true, cube);
        const v0Map =
          times && nodes && (p.drift === 'depth of burial' || p.drift === 'burial and volume')
            ? during(signal, () => trendMap(trend, nodes, times, over, cube))
            : null;
        // what wells have beyond what their velocities follow, before they are kriged
        const left = new Map(trend.left.map((l) => [l.well, l.value]));
        const own = layer.wells?.map((w) => ({
          ...w,
          miss: (w.base.z - w.top.z) * Math.expm1(-(left.get(w.well) ?? 0)),
        }));
        const rms = Math.sqrt((own ?? []).reduce((s, w) => s + w.miss ** 2, 0) / Math.max(1, own?.length ?? 0));
        layers.push({
          ...layer,
          v0Map,
          wells: own,
          rms,
          corrections: [{ rangeM: p.rangeM, mean: 0, points: trend.left }],
        });
        if (trend.anisotropy)
          warn(
            `Down to ${base || 'the end'} wells are ${trend.anisotropy.factor.toFixed(3)} times as fast as ${volume?.name}${Number.isNaN(trend.anisotropy.spread) ? '' : `, give or take ${(100 * trend.anisotropy.spread).toFixed(1)} %`}.`,
          );
      }
      over = times;
    }
    const model = await keptModel(store, idFor('model'), { above, nodes, seaBed: sea, layers, cube: volume });
    return { model, table: velocityTable(model.layers) };
  },
});

/** A layer that nothing bounds: one v0 + k·z for all wells, since a constant would be too coarse, and each well as it is. */
function onlyWells(wells: WellInLayer[], rangeM: number): MadeLayer {
  const fit = fitLaw('v0 + k·z from the datum', wells);
  if (!fit) throw noVelocity('anything');
  const layer = madeLayer({ base: '' }, fit.law, null, wells, true, undefined);
  const points = (layer.wells ?? []).map(({ well, x, y, top, base, miss }) => ({
    well,
    x,
    y,
    value: Math.log((base.z - top.z) / (base.z + miss - top.z)),
  }));
  return { ...layer, corrections: [{ rangeM, mean: 0, points }] };
}

/** A trend place by place: m/s, or what the velocities of a volume are multiplied by. */
function trendMap(
  trend: Trend,
  nodes: Nodes,
  times: Float32Array,
  over: Float32Array | null,
  cube: VelocityCube | undefined,
): Float32Array {
  const places = placesOf(nodes);
  return Float32Array.from(times, (t, n) => {
    if (n % 1024 === 0) heed();
    const from = over?.[n] ?? 0;
    const middle = 0.5 * (t + from);
    if (!cube) return trend.at(middle, Number.NaN);
    const trace = traceAt(cube, ...places[n]);
    // where horizons meet, the velocity of the time that they meet at
    const wide = Math.max(t - from, THIN_MS);
    const seismic = trace ? (2000 * thicknessByTrace(trace, { t: from, z: 0 }, from + wide)) / wide : Number.NaN;
    return trend.at(middle, seismic) / seismic;
  });
}

/** Layers thinner than this are taken to be so thick, ms, where velocities in them are asked for. */
const THIN_MS = 4;
