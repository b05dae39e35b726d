import { LithagonError, stopIf } from '../../earth/errors.ts';
import type { EarthObject, Logs, Well, WellTable } from '../../earth/objects.ts';
import { bedded, intervals } from '../../facies/beds.ts';
import { type Method, noveltyOf, tempered, train, type Validation, validate } from '../../facies/classifier.ts';
import type { Prior, Samples } from '../../facies/samples.ts';
import { during } from '../../numerics/stop.ts';
import type { Store } from '../../storage/store.ts';
import { type DepthAxis, wellCurves } from './curves.ts';

export interface FaciesSettings {
  method: Method;
  /** Classes or names of the curves that are learned from. */
  curves: string[];
  /** Names of the tops between which it is learned and predicted; the whole log where they are empty. */
  from: string;
  to: string;
  prior: Prior;
  leastBedM: number;
  seed: number;
}

/** Most samples that are learned from: neighbours say the same. */
const MOST = 4000;

/** One well as a classifier sees it. */
interface Seen {
  well: Well;
  axis: DepthAxis;
  logs: Logs[];
  /** Depth indexes at which every curve is known. */
  at: Int32Array;
  features: Float64Array;
}

async function seenOf(store: Store, objects: EarthObject[], well: Well, s: FaciesSettings): Promise<Seen | string> {
  const curves = wellCurves(store, objects, well, s.curves);
  if (!curves) return `${well.name} has none of ${s.curves.join(', ')}`;
  const values: Float32Array[] = [];
  const logs: Logs[] = [];
  for (const name of s.curves) {
    const held = curves.held(name);
    const found = await curves.get(name);
    if (!held || !found) return `${well.name} has no ${name}`;
    logs.push(held.logs);
    // resistivity means more by its decades
    values.push(held.curve.class === 'resistivity' ? found.map((v) => (v > 0 ? Math.log10(v) : Number.NaN)) : found);
  }
  const bound = (name: string, otherwise: number) => {
    if (!name) return otherwise;
    const top = curves.tops.find((t) => t.name === name);
    return top ? top.md : Number.NaN;
  };
  const [from, to] = [bound(s.from, 0), bound(s.to, Number.POSITIVE_INFINITY)];
  if (Number.isNaN(from + to) && !Number.isFinite(to)) return `${well.name} has no top “${s.from}”`;
  if (!(to > from)) return `${well.name} has no interval from “${s.from}” to “${s.to}”`;
  const at: number[] = [];
  for (let n = 0; n < curves.axis.count; n++) {
    const md = curves.md(n);
    if (md >= from && md < to && values.every((v) => v[n] === v[n])) at.push(n);
  }
  if (at.length === 0) return `${well.name} has no depth at which all of ${s.curves.join(', ')} are known`;
  const features = new Float64Array(at.length * values.length);
  at.forEach((n, k) => {
    for (let c = 0; c < values.length; c++) features[k * values.length + c] = values[c][n];
  });
  return { well, axis: curves.axis, logs, at: Int32Array.from(at), features };
}

/** Facies that a person described or painted at a depth, or null. */
export function faciesAt(table: WellTable | undefined, md: number): string | null {
  const row = table?.rows.find((r) => md >= Number(r[0]) && md < Number(r[1]));
  return row ? String(row[2]) : null;
}

/** The facies that a person gave a well, not those that were predicted. */
export function describedFacies(objects: EarthObject[], well: string): WellTable | undefined {
  return objects.find(
    (o): o is WellTable => o.kind === 'facies' && o.well === well && o.madeBy.step !== 'wells.facies',
  );
}

/** Facies of a well as they are shown: described ones, else those predicted last. */
export function shownFacies(objects: EarthObject[], well: string): WellTable | undefined {
  const predicted = objects
    .filter((o): o is WellTable => o.kind === 'facies' && o.well === well && o.madeBy.step === 'wells.facies')
    .sort((a, b) => b.madeBy.started.localeCompare(a.madeBy.started));
  return describedFacies(objects, well) ?? predicted[0];
}

export interface PredictedWell {
  well: string;
  axis: DepthAxis;
  rows: [number, number, string][];
  /** `[class]` of curves on the axis. */
  probabilities: Float32Array[];
  distance: Float32Array;
  /** Part of the samples that lie outside what was learned. */
  outside: number;
}

export interface FaciesResult {
  classes: string[];
  curves: string[];
  validation: Validation | null;
  samples: { well: string; features: Float64Array; labels: Int32Array }[];
  predicted: PredictedWell[];
  /** Distance beyond which nothing is guessed. */
  limit: number;
  notes: string[];
  used: Logs[];
}

/** Learn facies from the wells in which they are described, say how well that is known, and predict them in others. */
export async function faciesOf(
  store: Store,
  objects: EarthObject[],
  trained: Well[],
  targets: Well[],
  s: FaciesSettings,
  run: { signal?: AbortSignal; progress?(part: number): void } = {},
): Promise<FaciesResult> {
  const notes: string[] = [];
  const used = new Set<Logs>();
  const rows: { features: number[]; label: string; well: string }[] = [];
  for (const well of trained) {
    const table = describedFacies(objects, well.name);
    const seen = await seenOf(store, objects, well, s);
    if (typeof seen === 'string' || !table) {
      notes.push(`${typeof seen === 'string' ? seen : `${well.name} has no facies`}; nothing was learned from it.`);
      continue;
    }
    for (const logs of seen.logs) used.add(logs);
    const width = s.curves.length;
    seen.at.forEach((n, k) => {
      const label = faciesAt(table, seen.axis.firstM + n * seen.axis.stepM);
      if (label !== null)
        rows.push({ features: [...seen.features.subarray(k * width, (k + 1) * width)], label, well: well.name });
    });
  }
  const every = Math.max(1, Math.ceil(rows.length / MOST));
  const kept = rows.filter((_, n) => n % every === 0);
  const counts = new Map<string, number>();
  for (const r of kept) counts.set(r.label, (counts.get(r.label) ?? 0) + 1);
  const few = [...counts].filter(([, n]) => n < 8).map(([label]) => label);
  if (few.length > 0) notes.push(`${few.join(', ')}: fewer than eight samples, too few to learn from.`);
  const classes = [...counts.keys()].filter((c) => !few.includes(c)).sort();
  const taken = kept.filter((r) => classes.includes(r.label));
  if (classes.length < 2)
    throw new LithagonError(
      'facies',
      `There are samples of ${classes.length === 0 ? 'no facies' : `${classes[0]} only`}, and two kinds at least are needed.`,
      {
        fix: 'Describe or paint facies in a well that has the chosen curves, or widen the interval.',
      },
    );
  const width = s.curves.length;
  const samples: Samples = {
    features: Float64Array.from(taken.flatMap((r) => r.features)),
    count: taken.length,
    width,
    labels: Int32Array.from(taken, (r) => classes.indexOf(r.label)),
    classes: classes.length,
  };
  const wells = taken.map((r) => r.well);
  const options = { method: s.method, prior: s.prior, seed: s.seed };
  stopIf(run.signal);
  const several = new Set(wells).size > 1;
  const validation = several ? during(run.signal, () => validate(samples, wells, options)) : null;
  if (!several)
    notes.push('Facies are described in one well only, so nothing can be said of how well they are known elsewhere.');
  run.progress?.(0.5);
  const classifier = during(run.signal, () => train(samples, options));
  const novelty = noveltyOf(samples);
  const predicted: PredictedWell[] = [];
  for (const [n, well] of targets.entries()) {
    stopIf(run.signal);
    const seen = await seenOf(store, objects, well, s);
    if (typeof seen === 'string') {
      notes.push(`${seen}; nothing was predicted in it.`);
      continue;
    }
    for (const logs of seen.logs) used.add(logs);
    const temper = validation?.temper ?? 1;
    predicted.push(during(run.signal, () => predict(seen, classes, classifier, novelty, temper, s.leastBedM, notes)));
    run.progress?.(0.5 + (0.5 * (n + 1)) / targets.length);
  }
  return {
    classes,
    curves: s.curves,
    validation,
    samples: [...new Set(wells)].map((well) => {
      const own = taken.flatMap((r, n) => (r.well === well ? [n] : []));
      return {
        well,
        features: Float64Array.from(own.flatMap((n) => taken[n].features)),
        labels: Int32Array.from(own, (n) => samples.labels[n]),
      };
    }),
    predicted,
    limit: novelty.limit,
    notes,
    used: [...used],
  };
}

function predict(
  seen: Seen,
  classes: string[],
  classifier: ReturnType<typeof train>,
  novelty: ReturnType<typeof noveltyOf>,
  temper: number,
  leastBedM: number,
  notes: string[],
): PredictedWell {
  const { axis, at } = seen;
  const k = classes.length;
  const p = tempered(classifier(seen.features, at.length), k, temper);
  const far = novelty.distance(seen.features, at.length);
  const whole = new Float64Array(axis.count * k).fill(Number.NaN);
  const distance = new Float32Array(axis.count).fill(Number.NaN);
  let outside = 0;
  at.forEach((n, q) => {
    distance[n] = far[q];
    // where nothing like it was seen, nothing is guessed
    if (far[q] > novelty.limit) outside++;
    else for (let c = 0; c < k; c++) whole[n * k + c] = p[q * k + c];
  });
  const part = outside / at.length;
  if (part > 0.1)
    notes.push(
      `${seen.well.name}: ${(100 * part).toFixed(0)} % of its samples lie outside what was learned from; no facies are given there.`,
    );
  const beds = bedded(whole, k, Math.max(1, Math.round(leastBedM / axis.stepM)));
  const md = (n: number) => axis.firstM + n * axis.stepM;
  return {
    well: seen.well.name,
    axis,
    rows: intervals(beds).map((i) => [md(i.from), md(i.to), classes[i.class]]),
    probabilities: classes.map((_, c) => Float32Array.from({ length: axis.count }, (_, n) => whole[n * k + c])),
    distance,
    outside: part,
  };
}
