import { z } from 'zod';
import { type BinGrid, toMap } from '../../earth/binGrid.ts';
import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { Horizon } from '../../earth/objects.ts';
import { gridAt } from '../../horizons/grid.ts';
import { type Closure, closureOf } from '../../horizons/spill.ts';
import { insideRings } from '../../numerics/rings.ts';
import { during } from '../../numerics/stop.ts';
import { modelParts } from '../../project/velocityModel.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { depthOfTime } from '../../velocity/column.ts';
import { FAR, residualsOf } from '../../velocity/correct.ts';
import { type Model, modelOf } from '../../velocity/model.ts';
import { pullsOf } from '../../velocity/pull.ts';
import { type Doubt, realizationOf, scatterOf } from '../../velocity/uncertainty.ts';
import { choice, type Draft, defineStep, eachRole, number, wellsInput } from '../define.ts';
import { tiesOf, topsOfModel } from './correct.ts';
import { rangeParam } from './wells.ts';

/** Most realizations whose surfaces are kept. */
const MOST_KEPT = 20;

const params = z.object({
  pickMs: number(
    {
      title: 'Picking',
      description: 'Standard deviation of the TWT of boundaries where their track is sure.',
      unit: 'ms',
    },
    { min: 0, max: 50, step: 0.5, initial: 2 },
  ),
  unsureMs: number(
    {
      title: 'Picking, unsure',
      description: 'The same where a track has no confidence, and where a gap was closed; in between by confidence.',
      unit: 'ms',
    },
    { min: 0, max: 200, step: 0.5, initial: 8 },
  ),
  pickRangeM: number(
    {
      title: 'Picking hangs together over',
      description: 'Distance at which errors of picking are each their own.',
      unit: 'm',
    },
    { min: 100, max: 50000, step: 100, initial: 2000 },
  ),
  velocityPercent: number(
    {
      title: 'Velocities',
      description:
        'Standard deviation of the velocities of layers where no well is; at 0 as wells scatter about the model.',
      unit: '%',
    },
    { min: 0, max: 50, step: 0.5, initial: 0 },
  ),
  rangeM: rangeParam,
  far: choice(
    { title: 'Far from wells', description: 'What held beyond their range when the model was corrected.' },
    [...FAR],
    'by how it was made',
  ),
  topM: number(
    { title: 'Tops in wells', description: 'Standard deviation of their depth.', unit: 'm' },
    { min: 0, max: 50, step: 0.5, initial: 1 },
  ),
  realizations: number(
    { title: 'Realizations', description: 'How many are drawn; half as many again tell the deviation 5 % better.' },
    { min: 10, max: 500, whole: true, initial: 100 },
  ),
  keep: number(
    { title: 'Kept', description: 'How many of them are kept as surfaces, all of one realization together.' },
    { min: 0, max: MOST_KEPT, whole: true, initial: 0 },
  ),
  seed: number(
    { title: 'Seed', description: 'Another one draws others.' },
    { min: 0, max: 99999, whole: true, initial: 1 },
  ),
});

/** Places of a surface at which realizations are worked out; between them their difference is read by straight lines. */
const MOST_PLACES = 5000;

export const uncertainty = defineStep({
  id: 'depth.uncertainty',
  version: 1,
  stage: 'depth',
  title: 'Depth uncertainty',
  summary:
    'How far surfaces in depth may be off: realizations of all of them together by errors of picking, velocities and tops, each honouring the wells as the model does. Their deviation as maps, and where each closure spills.',
  formula: 'σ² = mean over realizations of (z − z₀)², v and t of each layer with smooth errors, corrected at wells.',
  avoid: 'With one well, or none: how velocities scatter is then to be typed.',
  source:
    'Journel & Huijbregts (1978), Mining Geostatistics, 495; Barnes et al. (2014), Computers & Geosciences 62, 117–127',
  reach: 'global',
  inputs: {
    model: { kind: 'velocity model', title: 'Velocity model' },
    horizons: { kind: 'horizon', title: 'Surfaces: horizons of the model', many: true, domain: 'twt' },
    wells: wellsInput(['directional surveys', 'tops'], { optional: true }),
    area: { kind: 'polygon', title: 'Area in which the highest place lies', optional: true },
  },
  params,
  outputs: {
    deviation: { kind: 'map', title: 'Depth deviation', each: 'horizons' },
    closures: { kind: 'result table', title: 'Closures' },
    realization: { kind: 'horizon', title: 'Realization', each: 'horizons', several: MOST_KEPT },
  },
  async run({ inputs, around, params: p, store, signal, idFor, progress, warn }) {
    const { model: object, horizons } = inputs;
    const parts = await modelParts(store, object, { signal });
    const model = modelOf(parts);
    const tops = topsOfModel(object);
    const ties = tiesOf(around, inputs.wells, tops).filter(
      (_, n, all) => !Number.isNaN(residualsOf(parts, [all[n]])[0].made),
    );
    const spread = { rangeM: p.rangeM, far: p.far };
    const bare = { ...parts, layers: parts.layers.map((l) => ({ ...l, corrections: [] })) };
    const typed = p.velocityPercent / 100;
    const timeMs = await pickingOf(
      store,
      parts.layers.map((l) => l.base),
      horizons,
      p,
    );
    const told = during(signal, () => scatterOf(bare, ties, spread, { timeMs, topM: p.topM }));
    const velocity = typed > 0 ? typed : told.scatter;
    const doubt: Doubt = { timeMs, timeRangeM: p.pickRangeM, velocity, topM: p.topM, spread };
    warn(
      typed > 0
        ? `Velocities of layers are taken to be off by ${(100 * typed).toFixed(1)} % where no well is; wells say ${(100 * told.scatter).toFixed(1)} %.`
        : `Velocities of layers are taken to be off by ${(100 * velocity).toFixed(1)} % where no well is: ${told.wells > 0 ? `by how ${told.wells} factors of wells scatter about the model` : 'no layer has two wells, so this is what is usual'}.`,
    );
    const surfaces = await Promise.all(
      horizons.map((h) =>
        surfaceOf(
          h,
          store,
          parts.layers.map((l) => l.base),
          model,
          object.name,
        ),
      ),
    );
    const inside = inputs.area ? insideRings(inputs.area.rings) : () => true;
    const corners = surfaces.flatMap((s) => s.corners);
    const span = (c: 0 | 1): [number, number] => [
      Math.min(...corners.map((q) => q[c])),
      Math.max(...corners.map((q) => q[c])),
    ];
    const box = { x: span(0), y: span(1) };
    const out: Record<string, Draft> = {};
    const drawn: (Closure | null)[][] = surfaces.map(() => []);
    for (let r = 0; r < p.realizations; r++) {
      stopIf(signal);
      const one = during(signal, () => realizationOf(parts, ties, doubt, box, p.seed, r));
      for (const [n, s] of surfaces.entries()) {
        const z = during(signal, () => s.drawn(one));
        drawn[n].push(closureOf(z, s.rows, s.columns, (bin) => inside(...s.placeOf(bin))));
        if (r >= p.keep) continue;
        const role = eachRole(eachRole('realization', horizons[n].id), String(r + 1));
        out[role] = await horizonOf(store, idFor(role), horizons[n], z);
      }
      progress((r + 1) / p.realizations);
      // a cancel is heard, and others get their turn
      await Promise.resolve();
    }
    const rows: (string | number | null)[][] = [];
    for (const [n, s] of surfaces.entries()) {
      const role = eachRole('deviation', horizons[n].id);
      const deviation = s.deviation();
      const known = deviation.filter((v) => !Number.isNaN(v));
      out[role] = {
        kind: 'map',
        binGrid: horizons[n].binGrid,
        quantity: 'depth deviation',
        unit: 'm',
        values: await writeWhole(store, `${idFor(role)}/values`, [s.rows, s.columns], deviation, [
          'inline',
          'crossline',
        ]),
        range:
          known.length > 0 ? [known.reduce((a, b) => Math.min(a, b)), known.reduce((a, b) => Math.max(a, b))] : [0, 0],
      };
      const best = closureOf(s.depth, s.rows, s.columns, (bin) => inside(...s.placeOf(bin)));
      rows.push(...closureRows(horizons[n].name, best, drawn[n], deviation, s));
      if (!best) continue;
      const layer = parts.layers.findIndex((l) => l.base === horizons[n].name);
      const around = [s.placeOf(best.crest), ...s.placesNear(best)];
      for (const pull of pullsOf(model, around, layer))
        if (pull.ms > PULL_MS)
          warn(
            `Under ${horizons[n].name} the layer down to ${parts.layers[pull.layer].base} makes a ${pull.here > 0 ? 'sag' : 'pull-up'} of ${Math.abs(pull.here).toFixed(1)} ms at its highest place, and of ${pull.ms.toFixed(1)} ms between its extremes around: its velocity does not follow its depth alone.`,
          );
    }
    out.closures = {
      kind: 'result table',
      columns: [
        { name: 'Surface', unit: '' },
        { name: 'What', unit: '' },
        { name: 'By the model', unit: 'm' },
        { name: 'P90', unit: 'm' },
        { name: 'P50', unit: 'm' },
        { name: 'P10', unit: 'm' },
        { name: 'Deviation', unit: 'm' },
        { name: 'X', unit: 'm' },
        { name: 'Y', unit: 'm' },
      ],
      rows,
    };
    return out;
  },
});

/** How far the times of a layer's base may be off, by the confidence of its horizon where that has one. */
async function pickingOf(
  store: Store,
  bases: string[],
  horizons: Horizon[],
  { pickMs, unsureMs }: { pickMs: number; unsureMs: number },
): Promise<Doubt['timeMs']> {
  const sure = await Promise.all(
    bases.map(async (base) => {
      const horizon = horizons.find((h) => h.name === base);
      return horizon?.confidence
        ? { binGrid: horizon.binGrid, values: await readWhole(store, horizon.confidence) }
        : null;
    }),
  );
  return (x, y, layer) => {
    const own = sure[layer];
    const at = own ? gridAt(own.values, own.binGrid, x, y) : 1;
    return at >= 0 ? unsureMs + (pickMs - unsureMs) * Math.min(1, at) : unsureMs;
  };
}

/** An effect of a layer's velocity that is pointed out, ms between its extremes around a closure. */
const PULL_MS = 4;

interface Surface {
  rows: number;
  columns: number;
  /** By the model as it stands, m. */
  depth: Float32Array;
  corners: [number, number][];
  placeOf(bin: number): [number, number];
  /** Places over and around a closure. */
  placesNear(closure: Closure): [number, number][];
  /** The same by a realization, which is counted. */
  drawn(model: Model): Float32Array;
  /** Root of the mean square over what was drawn. */
  deviation(): Float32Array;
}

/** A surface with what is drawn of it. */
async function surfaceOf(
  horizon: Horizon,
  store: Store,
  bases: string[],
  model: Model,
  name: string,
): Promise<Surface> {
  const { binGrid } = horizon;
  const [rows, columns] = [binGrid.inline.count, binGrid.crossline.count];
  const layer = bases.indexOf(horizon.name);
  if (layer < 0)
    throw new LithagonError(
      'input',
      `${horizon.name} is no boundary of ${name}; it has ${bases.map((b) => `“${b}”`).join(', ')}.`,
      {
        object: horizon.name,
        fix: 'Choose horizons that the model was made with. Nothing was changed.',
      },
    );
  const times = await readWhole(store, horizon.values);
  const placeOf = (bin: number) => toMap(binGrid, Math.floor(bin / columns), bin % columns);
  const depth = Float32Array.from(times, (t, n) => {
    const column = Number.isNaN(t) ? null : model.column(...placeOf(n));
    return column ? depthOfTime(column, t) : Number.NaN;
  });
  const every = Math.max(1, Math.ceil(Math.sqrt((rows * columns) / MOST_PLACES)));
  const lattice = latticeOf(binGrid, every);
  const start = lattice.places.map(([x, y]) => model.column(x, y)?.boundaries[layer].z ?? Number.NaN);
  const squares = new Float64Array(start.length);
  let count = 0;
  return {
    rows,
    columns,
    depth,
    corners: [0, columns - 1, (rows - 1) * columns, rows * columns - 1].map(placeOf),
    placeOf,
    placesNear(closure) {
      const [i, j] = [Math.floor(closure.crest / columns), closure.crest % columns];
      const reach = Math.max(10, 1.5 * Math.sqrt(closure.bins / Math.PI));
      return Array.from({ length: 200 }, (_, n): [number, number] => {
        const [turn, far] = [2.399963 * n, reach * Math.sqrt((n + 1) / 200)];
        return [i + far * Math.cos(turn), j + far * Math.sin(turn)];
      })
        .filter(([a, b]) => a >= 0 && b >= 0 && a <= rows - 1 && b <= columns - 1)
        .map(([a, b]) => toMap(binGrid, a, b));
    },
    drawn(one) {
      const change = Float64Array.from(lattice.places, ([x, y], n) => {
        const z = one.column(x, y)?.boundaries[layer].z ?? Number.NaN;
        return z - start[n];
      });
      change.forEach((d, n) => {
        squares[n] += d * d;
      });
      count++;
      return depth.map((z, n) => z + lattice.at(change, Math.floor(n / columns), n % columns));
    },
    deviation() {
      const roots = squares.map((s) => Math.sqrt(s / Math.max(1, count)));
      return depth.map((z, n) =>
        Number.isNaN(z) ? Number.NaN : lattice.at(roots, Math.floor(n / columns), n % columns),
      );
    },
  };
}

/** Every so many bins of a grid, its last ones among them, and values of them between. */
function latticeOf(binGrid: BinGrid, every: number) {
  const along = (count: number) => {
    const n = Math.max(2, Math.ceil((count - 1) / every) + 1);
    return Float64Array.from({ length: n }, (_, k) => Math.min(count - 1, k * every));
  };
  const [ii, jj] = [along(binGrid.inline.count), along(binGrid.crossline.count)];
  const nj = jj.length;
  const places = Array.from({ length: ii.length * nj }, (_, n) => toMap(binGrid, ii[Math.floor(n / nj)], jj[n % nj]));
  const side = (knots: Float64Array, v: number): [number, number] => {
    const a = Math.min(knots.length - 2, Math.floor(v / every));
    const wide = knots[a + 1] - knots[a];
    return [a, wide > 0 ? (v - knots[a]) / wide : 0];
  };
  return {
    places,
    at(values: Float64Array, i: number, j: number): number {
      const [a, f] = side(ii, i);
      const [b, g] = side(jj, j);
      const v = (p: number, q: number) => values[p * nj + q];
      return (1 - f) * ((1 - g) * v(a, b) + g * v(a, b + 1)) + f * ((1 - g) * v(a + 1, b) + g * v(a + 1, b + 1));
    },
  };
}

async function horizonOf(store: Store, id: string, { binGrid, top, name }: Horizon, z: Float32Array) {
  const known = z.filter((v) => !Number.isNaN(v));
  const shape = [binGrid.inline.count, binGrid.crossline.count];
  return {
    kind: 'horizon' as const,
    top: top ?? name,
    domain: 'depth' as const,
    binGrid,
    values: await writeWhole(store, `${id}/values`, shape, z, ['inline', 'crossline']),
    range: (known.length > 0
      ? [known.reduce((a, b) => Math.min(a, b)), known.reduce((a, b) => Math.max(a, b))]
      : [0, 0]) as [number, number],
    filled: known.length / z.length,
  };
}

/** Highest place and spill of a surface: by the model, and as they were drawn. */
function closureRows(
  name: string,
  best: Closure | null,
  drawn: (Closure | null)[],
  deviation: Float32Array,
  { placeOf }: Surface,
): (string | number | null)[][] {
  if (!best) return [];
  const row = (what: string, own: number, of: (c: Closure) => number, bin: number) => {
    const values = drawn.flatMap((c) => (c ? [of(c)] : [])).sort((a, b) => a - b);
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    const at = (part: number) => values[Math.round(part * (values.length - 1))];
    const sd = Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / Math.max(1, values.length - 1));
    // P90 is what nine in ten exceed
    return [name, what, own, at(0.1), at(0.5), at(0.9), sd, ...placeOf(bin)];
  };
  return [
    row('highest place', best.crestM, (c) => c.crestM, best.crest),
    row('spill', best.spillM, (c) => c.spillM, best.spill),
    row('height of the closure', best.spillM - best.crestM, (c) => c.spillM - c.crestM, best.spill),
    [name, 'deviation at the highest place', deviation[best.crest], null, null, null, null, ...placeOf(best.crest)],
  ];
}
