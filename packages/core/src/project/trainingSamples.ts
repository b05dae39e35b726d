import { randomOf } from '../classes/kinds.ts';
import { toMap } from '../earth/binGrid.ts';
import { LithagonError, stopIf } from '../earth/errors.ts';
import type { EarthObject, Horizon, Polygon, Volume, Well } from '../earth/objects.ts';
import type { Samples } from '../facies/samples.ts';
import { cubicBetween } from '../numerics/cubic.ts';
import { insideRings } from '../numerics/rings.ts';
import { readAlong, shapeOf } from '../storage/planes.ts';
import { readRegion } from '../storage/regions.ts';
import type { Store } from '../storage/store.ts';
import { pointAtMd } from '../wells/path.ts';
import { twtOfDepth } from '../wells/timeDepth.ts';
import { describedFacies, faciesAt } from './wells/facies.ts';
import { relationOf } from './wells/seeds.ts';
import { pathOf } from './wells/wells.ts';
import { onBinsOf } from './windows.ts';

/** Samples of several volumes whose class is known, and what each of them came from. */
export interface Training extends Samples {
  names: string[];
  /** Wells by name; of painted areas which half of them: what is left out together when a classifier is tried blind. */
  groups: string[];
  notes: string[];
}

/** Steps down a well, m: finer than samples of seismic lie. */
const DOWN = 1;
/** Samples that a class has at least. */
const FEWEST = 10;
/** Most samples of a painted area. */
const MOST_OF_AREA = 3000;

/** Value of a trace between its samples. */
function between(trace: Float32Array, x: number): number {
  const k = Math.floor(x);
  if (k < 0 || k + 1 >= trace.length) return Number.NaN;
  const value = cubicBetween(trace[k - 1] ?? trace[k], trace[k], trace[k + 1], trace[k + 2] ?? trace[k + 1], x - k);
  return Number.isNaN(value) ? trace[k] + (x - k) * (trace[k + 1] - trace[k]) : value;
}

interface Row {
  values: number[];
  name: string;
  group: string;
}

/** One sample of every volume for each of its steps down a described well: the facies that most of the step has. */
async function alongWell(
  store: Store,
  objects: EarthObject[],
  volumes: Volume[],
  well: Well,
  notes: string[],
): Promise<Row[]> {
  const table = describedFacies(objects, well.name);
  if (!table || table.rows.length === 0) {
    notes.push(`${well.name} has no described facies.`);
    return [];
  }
  const [{ domain, vertical }] = volumes;
  const relation = domain === 'twt' ? relationOf(objects, well.name) : null;
  if (domain === 'twt' && !relation) {
    notes.push(`${well.name} has neither a tie nor checkshots, and cannot be placed in time.`);
    return [];
  }
  const path = pathOf(objects, well);
  const [from, to] = [Number(table.rows[0][0]), Number(table.rows[table.rows.length - 1][1])];
  // what lies within half a step of each sample
  const held = new Map<number, { x: number; y: number; n: number; names: Map<string, number> }>();
  for (let md = from; md < to; md += DOWN) {
    const name = faciesAt(table, md);
    if (!name) continue;
    const at = pointAtMd(path, md);
    const z = relation ? twtOfDepth(relation, at.tvdss) : at.tvdss;
    const k = Math.round((z - vertical.first) / vertical.step);
    if (!(k >= 0 && k < vertical.count)) continue;
    const own = held.get(k) ?? { x: 0, y: 0, n: 0, names: new Map<string, number>() };
    own.x += at.x;
    own.y += at.y;
    own.n++;
    own.names.set(name, (own.names.get(name) ?? 0) + 1);
    held.set(k, own);
  }
  const steps = [...held];
  if (steps.length === 0) return [];
  const places = steps.map(([, { x, y, n }]): [number, number] => [x / n, y / n]);
  const read = await Promise.all(volumes.map((v) => readAlong(store, v, places)));
  return steps.flatMap(([k, { names }], s): Row[] => {
    const values = read.map((d, v) => d[s * volumes[v].vertical.count + k]);
    if (values.some(Number.isNaN)) return [];
    const [name] = [...names].sort((a, b) => b[1] - a[1])[0];
    return [{ values, name, group: well.name }];
  });
}

/** Samples inside a painted area between surfaces, drawn at random; its halves are two groups. */
async function insideArea(
  store: Store,
  volumes: Volume[],
  area: Polygon,
  [top, base]: (Horizon | undefined)[],
  seed: number,
  signal?: AbortSignal,
): Promise<Row[]> {
  const [first] = volumes;
  if (!top || !base)
    throw new LithagonError('input', 'Painted areas need an upper and a lower surface.', {
      object: area.name,
      fix: 'Choose the horizons between which the areas are true.',
    });
  const [ni, nj, nk] = shapeOf(first);
  const [tops, bases] = [await onBinsOf(store, top, first.binGrid), await onBinsOf(store, base, first.binGrid)];
  const inside = insideRings(area.rings);
  const bins: number[] = [];
  for (let n = 0; n < ni * nj; n++)
    if (bases[n] > tops[n] && inside(...toMap(first.binGrid, Math.floor(n / nj), n % nj))) bins.push(n);
  if (bins.length === 0) return [];
  const random = randomOf(seed);
  const each = Math.max(1, Math.ceil(MOST_OF_AREA / bins.length));
  const part = Math.min(1, MOST_OF_AREA / (each * bins.length));
  const middle = bins.reduce((sum, n) => sum + (n % nj), 0) / bins.length;
  const rows: Row[] = [];
  const lines = new Map<number, number[]>();
  for (const n of bins) {
    if (random() > part) continue;
    const i = Math.floor(n / nj);
    lines.set(i, [...(lines.get(i) ?? []), n]);
  }
  for (const [i, own] of lines) {
    stopIf(signal);
    const data = await Promise.all(volumes.map((v) => readRegion(store, v, { i: [i, i + 1], j: [0, nj], k: [0, nk] })));
    for (const n of own)
      for (let e = 0; e < each; e++) {
        const z = tops[n] + random() * (bases[n] - tops[n]);
        const x = (z - first.vertical.first) / first.vertical.step;
        const values = data.map((d) => between(d.subarray((n % nj) * nk, (n % nj) * nk + nk), x));
        if (!values.some(Number.isNaN))
          rows.push({ values, name: area.name, group: n % nj < middle ? 'one half of the areas' : 'the other half' });
      }
  }
  return rows;
}

/**
 * Samples of volumes of one grid whose class is known: along described wells by their facies, and inside painted areas, whose name is the
 * class. Classes of fewer than ten samples are left out.
 */
export async function trainingSamples(
  store: Store,
  volumes: Volume[],
  given: { wells: Well[]; areas: Polygon[]; top?: Horizon; base?: Horizon; seed: number },
  signal?: AbortSignal,
): Promise<Training> {
  const objects = await store.list();
  const notes: string[] = [];
  const rows: Row[] = [];
  for (const well of given.wells) rows.push(...(await alongWell(store, objects, volumes, well, notes)));
  for (const area of given.areas)
    rows.push(...(await insideArea(store, volumes, area, [given.top, given.base], given.seed, signal)));
  const counts = new Map<string, number>();
  for (const { name } of rows) counts.set(name, (counts.get(name) ?? 0) + 1);
  for (const [name, n] of counts) if (n < FEWEST) notes.push(`“${name}” has ${n} samples, too few to be learned.`);
  const kept = rows.filter(({ name }) => (counts.get(name) ?? 0) >= FEWEST);
  const names = [...new Set(kept.map((r) => r.name))].sort();
  return {
    features: Float64Array.from(kept.flatMap((r) => r.values)),
    count: kept.length,
    width: volumes.length,
    labels: Int32Array.from(kept, (r) => names.indexOf(r.name)),
    classes: names.length,
    names,
    groups: kept.map((r) => r.group),
    notes,
  };
}
