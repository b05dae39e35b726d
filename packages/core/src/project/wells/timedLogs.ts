import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Well } from '../../earth/objects.ts';
import type { Store } from '../../storage/store.ts';
import { tieLogs } from '../../tie/chain.ts';
import { elasticInTime } from '../../tie/elastic.ts';
import { mdAtTvdss, pointAtMd } from '../../wells/path.ts';
import { depthOfTwt, twtOfDepth } from '../../wells/timeDepth.ts';
import { wellCurves } from './curves.ts';
import { relationOf } from './seeds.ts';
import { tieWellOf } from './tieWell.ts';
import { pathOf } from './wells.ts';

/** Curves that a wave averages, which are worked out from sonic, density and shear. */
export const ELASTIC_CURVES = ['P impedance', 'P velocity', 'S velocity', 'density'] as const;
export type ElasticCurve = (typeof ELASTIC_CURVES)[number];

/** A log in even steps of two-way time. */
export interface TimedLog {
  well: string;
  firstMs: number;
  stepMs: number;
  /** NaN where it is not logged. */
  values: Float64Array;
  /** Where the well is at a time, map coordinates in metres. */
  place(ms: number): [x: number, y: number];
}

const FINE_MS = 1;

/**
 * A log of a well in time, by its active tie or its checkshots: what a wave averages for curves of `ELASTIC_CURVES` (SI units), else the mean
 * of a curve by its class or mnemonic. A reason, as a sentence without its end, where it has none.
 */
export async function timedLog(
  store: Store,
  objects: EarthObject[],
  well: Well,
  curve: string,
): Promise<TimedLog | string> {
  const relation = relationOf(objects, well.name);
  if (!relation) return `${well.name} has no tie and no checkshots`;
  const path = pathOf(objects, well);
  const place = (ms: number): [number, number] => {
    const z = depthOfTwt(relation, ms);
    const md = mdAtTvdss(path, Math.max(z, path.tvdss[0]));
    const last = path.md[path.md.length - 1];
    const at = pointAtMd(path, Number.isNaN(md) ? last : Math.min(md, last));
    return [at.x, at.y];
  };
  if (!(ELASTIC_CURVES as readonly string[]).includes(curve)) {
    const held = wellCurves(store, objects, well, [curve]);
    const values = held && (await held.get(curve));
    if (!held || !values) return `${well.name} has no ${curve}`;
    return { well: well.name, ...averaged(values, (n) => twtOfDepth(relation, held.tvdss(n))), place };
  }
  try {
    const logs = tieLogs(await tieWellOf(store, objects, well, well));
    if (!logs) return `The sonic of ${well.name} is too short`;
    if (curve === 'S velocity' && !logs.shear) return `${well.name} has no shear log`;
    const twt = logs.slowness.tvdss.map((z) => twtOfDepth(relation, z));
    const elastic = elasticInTime(
      twt,
      logs.slowness.tvdss,
      logs.slowness.secondsPerMetre,
      logs.density,
      logs.shear,
      FINE_MS,
    );
    const of = {
      'P impedance': elastic.impedance,
      'P velocity': elastic.vp,
      'S velocity': elastic.vs,
      density: elastic.density,
    };
    return {
      well: well.name,
      firstMs: elastic.firstMs,
      stepMs: elastic.stepMs,
      values: (of[curve as ElasticCurve] as Float64Array).map((v) => (v > 0 ? v : Number.NaN)),
      place,
    };
  } catch (cause) {
    if (cause instanceof LithagonError) return cause.message.replace(/\.$/, '');
    throw cause;
  }
}

/** Means of samples over even steps of time; a step between two samples takes the nearer ones. */
function averaged(values: Float32Array, timeOf: (n: number) => number) {
  const times = Float64Array.from(values, (_, n) => timeOf(n));
  const known = times.filter((t) => t === t);
  const firstMs = Math.ceil(known[0] ?? 0);
  const count = Math.max(0, Math.floor((known[known.length - 1] ?? 0) - firstMs));
  const [sums, counts] = [new Float64Array(count), new Float64Array(count)];
  for (let n = 0; n < values.length; n++) {
    const b = Math.floor((times[n] - firstMs) / FINE_MS);
    if (!(b >= 0 && b < count) || Number.isNaN(values[n])) continue;
    sums[b] += values[n];
    counts[b]++;
  }
  return { firstMs, stepMs: FINE_MS, values: sums.map((s, b) => (counts[b] > 0 ? s / counts[b] : Number.NaN)) };
}

/** A log at the samples of a volume: the mean over the interval about each; NaN where less than half of it is logged. */
export function atSamples(log: TimedLog, vertical: { first: number; step: number; count: number }): Float64Array {
  return Float64Array.from({ length: vertical.count }, (_, k) => {
    const from = Math.ceil((vertical.first + (k - 0.5) * vertical.step - log.firstMs) / log.stepMs);
    const to = Math.ceil((vertical.first + (k + 0.5) * vertical.step - log.firstMs) / log.stepMs);
    let [sum, count] = [0, 0];
    for (let n = Math.max(0, from); n < Math.min(log.values.length, to); n++) {
      const v = log.values[n];
      if (v !== v) continue;
      sum += v;
      count++;
    }
    return count >= (to - from) / 2 ? sum / count : Number.NaN;
  });
}
