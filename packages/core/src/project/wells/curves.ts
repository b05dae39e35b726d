import type { CurveClass, EarthObject, Logs, ObjectOf, Well } from '../../earth/objects.ts';
import { readWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { resampled, type Sampled } from '../../wells/edit.ts';
import { pointAtMd, type WellPath } from '../../wells/path.ts';
import { pathOf, topsOf } from './wells.ts';

/** A curve with the set of logs that holds it. */
export interface HeldCurve {
  logs: Logs;
  curve: Logs['curves'][number];
}

/** Logs of a rock that is not there, as with another fluid: taken only where they are asked for. */
const supposed = (o: Logs) => o.madeBy.step === 'wells.substitute';

/**
 * Every set of logs of a well, the ones to be taken first: what was computed before what was loaded, and of the computed
 * the newest. Loaded ones go by their names, so that the order of loading changes nothing.
 */
export function logsInOrder(objects: EarthObject[], well: string): Logs[] {
  const loaded = (o: Logs) => o.madeBy.file !== undefined;
  return objects
    .filter((o): o is ObjectOf<'logs'> => o.kind === 'logs' && o.well === well)
    .sort((a, b) => {
      if (supposed(a) !== supposed(b)) return supposed(a) ? 1 : -1;
      if (loaded(a) !== loaded(b)) return loaded(a) ? 1 : -1;
      return loaded(a)
        ? a.name.localeCompare(b.name, 'en', { numeric: true })
        : b.madeBy.started.localeCompare(a.madeBy.started);
    });
}

/** The curve of a class (or of a mnemonic) that a well is worked with: the newest edit, else what was loaded. */
export function curveOf(objects: EarthObject[], well: string, name: string): HeldCurve | null {
  const wanted = name.toLowerCase();
  const sets = logsInOrder(objects, well);
  for (const logs of sets.filter(supposed)) {
    const curve = logs.curves.find((c) => supposedName(logs, c.class) === wanted);
    if (curve) return { logs, curve };
  }
  for (const by of ['class', 'mnemonic'] as const)
    for (const logs of sets) {
      const curve = logs.curves.find((c) => c[by].toLowerCase() === wanted);
      if (curve) return { logs, curve };
    }
  return null;
}

/** How a curve of a rock that is not there is asked for: `sonic (gas)`. */
const supposedName = (logs: Logs, cls: string) => `${cls} (${String(logs.madeBy.params.instead ?? 'supposed')})`;

/** Every curve of a well by what it is: one for each class, and those of no class by their mnemonics. */
export function curvesOf(objects: EarthObject[], well: string): Map<string, HeldCurve> {
  const out = new Map<string, HeldCurve>();
  for (const logs of logsInOrder(objects, well))
    for (const curve of logs.curves) {
      // several curves of one class, as probabilities are, go by their mnemonics
      const many = curve.class === 'other' || curve.class === 'facies probability';
      const key = many ? curve.mnemonic : supposed(logs) ? supposedName(logs, curve.class) : curve.class;
      if (!out.has(key)) out.set(key, { logs, curve });
    }
  return out;
}

export async function sampledOf(store: Store, { logs, curve }: HeldCurve): Promise<Sampled> {
  return { firstM: logs.depth.firstM, stepM: logs.depth.stepM, values: await readWhole(store, curve.data) };
}

/** An even axis of measured depth, metres. */
export interface DepthAxis {
  firstM: number;
  stepM: number;
  count: number;
}

/** The axis of a set of logs. */
export const axisOf = (logs: Logs): DepthAxis => ({ ...logs.depth });

/** A well with its curves on one axis, for computing with them. */
export interface WellCurves {
  well: Well;
  axis: DepthAxis;
  path: WellPath;
  /** A curve by class or mnemonic, NaN where it is not known; null where the well has none. */
  get(name: string): Promise<Float32Array | null>;
  held(name: string): HeldCurve | null;
  md(n: number): number;
  tvdss(n: number): number;
  tops: { name: string; md: number }[];
}

/** The curves of a well on the axis of the first set of logs that has one of these classes; null where none has. */
export function wellCurves(store: Store, objects: EarthObject[], well: Well, first: string[]): WellCurves | null {
  const found = first.map((name) => curveOf(objects, well.name, name)).find((held) => held !== null);
  if (!found) return null;
  const axis = axisOf(found.logs);
  const path = pathOf(objects, well);
  const md = (n: number) => axis.firstM + n * axis.stepM;
  return {
    well,
    axis,
    path,
    held: (name) => curveOf(objects, well.name, name),
    async get(name) {
      const held = curveOf(objects, well.name, name);
      if (!held) return null;
      const sampled = await sampledOf(store, held);
      const same =
        sampled.values.length === axis.count &&
        Math.abs(sampled.firstM - axis.firstM) < 1e-6 &&
        Math.abs(sampled.stepM - axis.stepM) < 1e-9;
      return same ? sampled.values : resampled(sampled, axis.firstM, axis.stepM, axis.count);
    },
    md,
    tvdss: (n) => pointAtMd(path, md(n)).tvdss,
    tops: topsOf(objects, well.name).filter((t) => t.kind === 'top'),
  };
}

/** Classes of curve that a well has, in words. */
export function has(objects: EarthObject[], well: string, ...classes: CurveClass[]): boolean {
  return classes.every((c) => curveOf(objects, well, c) !== null);
}
