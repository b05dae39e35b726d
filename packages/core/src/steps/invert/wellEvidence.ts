import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Volume, Well } from '../../earth/objects.ts';
import { type Detail, detailOf } from '../../inversion/detail.ts';
import { between, meanIn, meanOf, seen, type WellResiduals } from '../../inversion/traceInversion.ts';
import { honouredBy, likeliestLogError, loggedOf } from '../../inversion/wellError.ts';
import { during } from '../../numerics/stop.ts';
import { binsAlong, samplesAlong, traceAt } from '../../project/traces.ts';
import { atSamples, type TimedLog, timedLog } from '../../project/wells/timedLogs.ts';
import type { Store } from '../../storage/store.ts';
import type { Known, Told, ToldParams } from './known.ts';

/** Logs of a well at the samples of the seismic, beside the models. */
export interface WellLog {
  well: Well;
  logs: TimedLog[];
  /** `[kind]`: logarithms at the samples of the seismic. */
  values: Float64Array[];
  /** The same of the models along the well. */
  models: Float64Array[];
  bins: [number, number][];
}

/** Logs of the wells that have all that is inverted for. */
export async function wellLogs(
  store: Store,
  objects: EarthObject[],
  told: Told,
  volume: Volume,
  notes: string[],
): Promise<WellLog[]> {
  const out: WellLog[] = [];
  for (const well of told.wells) {
    const logs: TimedLog[] = [];
    for (const { curve } of told.models) {
      const log = await timedLog(store, objects, well, curve);
      if (typeof log === 'string') {
        notes.push(`${log}; it was left out.`);
        break;
      }
      logs.push(log);
    }
    if (logs.length < told.models.length) continue;
    const bins = binsAlong(volume, logs[0].place);
    const models = await Promise.all(
      told.models.map(async (m) => (await samplesAlong(store, m.volume, bins)).map(Math.log)),
    );
    out.push({ well, logs, bins, models, values: logs.map((log) => atSamples(log, volume.vertical).map(Math.log)) });
  }
  return out;
}

/** How much rock varies beyond the models, the unknowns together, by the logs in the window. */
export function detailsOf(logs: WellLog[], told: Told, k0: number, count: number, step: number) {
  const kinds = told.models.length;
  const beyond = logs.map((l) =>
    l.values.map((v, u) => v.subarray(k0, k0 + count).map((x, k) => x - l.models[u][k0 + k])),
  );
  const found = told.models.map((_, u): Detail | null =>
    detailOf(
      beyond.map((l) => l[u]),
      step,
    ),
  );
  if (found.some((d) => d === null))
    throw new LithagonError(
      'inversion',
      `No well tells how ${told.models[found.indexOf(null)].curve} varies inside the window beside the model.`,
      {
        fix: 'Choose tied wells whose logs reach into the window. Nothing was changed.',
      },
    );
  const details = found as Detail[];
  const covariance = Array.from({ length: kinds }, (_, a) =>
    Array.from({ length: kinds }, (_, b) => {
      if (a === b) return details[a].deviation ** 2;
      let [sum, n] = [0, 0];
      for (const l of beyond)
        for (let k = 0; k < count; k++) {
          const v = l[a][k] * l[b][k];
          if (v !== v) continue;
          sum += v;
          n++;
        }
      const most = 0.95 * details[a].deviation * details[b].deviation;
      return n > 0 ? Math.max(-most, Math.min(most, sum / n)) : 0;
    }),
  );
  // all have the correlation in time of their mean
  const lags = Math.min(...details.map((d) => d.correlation.length));
  const correlation = Float64Array.from(
    { length: lags },
    (_, lag) => details.reduce((s, d) => s + d.correlation[lag], 0) / kinds,
  );
  // a model of one that varies less is as much surer
  const shares = details.map((d) => d.deviation / details[0].deviation);
  return { covariance, correlation, shares };
}

/** Vs over Vp at samples of the window, the mean of the wells; a half where there is none. */
export function ratioOf(logs: WellLog[], k0: number, count: number): (k: number) => number {
  const known = logs.filter((l) => l.values.length === 3);
  let [sum, n] = [0, 0];
  for (const l of known)
    for (let k = k0; k < k0 + count; k++) {
      const v = l.values[1][k] - l.values[0][k];
      if (v !== v) continue;
      sum += v;
      n++;
    }
  const mean = n > 0 ? Math.exp(sum / n) : 0.5;
  return () => mean;
}

/** How far logs lie from what seismic gives beside them, and what follows of that for every trace. */
export async function honour(
  store: Store,
  told: Told,
  p: ToldParams,
  known: Known,
  logs: WellLog[],
  covariances: Float64Array[],
  signal?: AbortSignal,
): Promise<void> {
  const { kinds, k0, count, signs, levels } = known;
  const unknowns = kinds * count;
  const [model, mean] = [new Float64Array(unknowns), new Float64Array(unknowns)];
  const [made, residual] = [new Float64Array(signs.length * count), new Float64Array(signs.length * count)];
  const { deviation } = told.models[0];
  const found: { log: WellLog; residual: Float64Array; covariance: Float64Array; middle: number }[] = [];
  for (const log of logs) {
    const { bins, values } = log;
    const means = new Map<string, { mean: Float64Array; background: number } | null>();
    const own = new Float64Array(unknowns).fill(Number.NaN);
    let background = p.deviation;
    for (let k = 0; k < count; k++) {
      const [i, j] = bins[k0 + k];
      const key = `${i} ${j}`;
      if (!means.has(key)) {
        const models = await Promise.all(told.models.map((m) => traceAt(store, m.volume, i, j)));
        const traces = await Promise.all(told.stacks.map((s) => traceAt(store, s.volume, i, j)));
        const unsure = deviation ? await traceAt(store, deviation, i, j) : null;
        if (models.includes(null) || traces.includes(null)) {
          means.set(key, null);
          continue;
        }
        for (const [u, m] of models.entries())
          for (let q = 0; q < count; q++) model[u * count + q] = Math.log((m as Float32Array)[k0 + q]);
        seen(known.responses, model, count, made);
        for (const [s, trace] of traces.entries())
          for (let q = 0; q < count; q++)
            residual[s * count + q] = signs[s] * ((trace as Float32Array)[k0 + q] || 0) - made[s * count + q];
        background = unsure ? meanIn(unsure, k0, count) : p.deviation;
        meanOf(levels, model, residual, background, mean);
        means.set(key, { mean: mean.slice(), background });
      }
      const at = means.get(key);
      if (at) for (let u = 0; u < kinds; u++) own[u * count + k] = values[u][k0 + k] - at.mean[u * count + k];
    }
    const logged = loggedOf(own);
    if (logged.length === 0) continue;
    const [n, f] = between(levels, background);
    found.push({
      log,
      residual: own,
      covariance: covariances[f > 0.5 ? n + 1 : n],
      middle: logged[logged.length >> 1] % count,
    });
  }
  if (found.length === 0) return;
  const { first, step } = told.stacks[0].volume.vertical;
  during(signal, () => {
    known.logError = likeliestLogError(found, unknowns);
    known.wells = found.map(
      ({ log, residual: r, covariance, middle }): WellResiduals => ({
        ...honouredBy(r, covariance, unknowns, known.logError),
        well: log.well.name,
        place: log.logs[0].place(first + (k0 + middle) * step),
        bins: log.bins.slice(k0, k0 + count),
      }),
    );
  });
}
