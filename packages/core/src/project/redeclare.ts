import { LithagonError } from '../earth/errors.ts';
import type { CurveClass, EarthObject, Frame, Logs, SeismicLine, Volume } from '../earth/objects.ts';
import { type Quantity, quantityFacts } from '../earth/quantities.ts';
import { dimensionOf, factor, unitNamed } from '../earth/units.ts';
import { loadedRevision } from './make.ts';

/** What a person may declare of seismic, at loading or later. */
export type Declarable = Pick<Volume, 'domain' | 'quantity' | 'unit' | 'polarity'>;

/** What samples are multiplied by to be in the SI unit of their quantity; 1 where it has none. */
export function toSi(quantity: Quantity, unit: string): number {
  const si = quantityFacts(quantity).unit;
  const named = unitNamed(unit);
  return si && named && dimensionOf(si) === dimensionOf(named) ? factor(named, si) : 1;
}

/** A quantity is refused for samples that cannot be it: a velocity cube is not taken for amplitude an hour later. */
export function checkRange(name: string, quantity: Quantity, unit: string, statistics: Volume['statistics']): void {
  const { range, unit: si } = quantityFacts(quantity);
  if (
    unit &&
    si &&
    unitNamed(unit) !== null &&
    dimensionOf(unitNamed(unit) ?? '') !== dimensionOf(si) &&
    dimensionOf(si)
  )
    throw new LithagonError('unit', `${name}: ${quantity} cannot be in “${unit}”.`, {
      object: name,
      fix: `Declare a unit such as ${si}.`,
    });
  const scale = toSi(quantity, unit);
  const { count, percentiles } = statistics;
  const [low, high] = [percentiles[1] * scale, percentiles[99] * scale];
  if (count > 0 && (low < range[0] || high > range[1]))
    throw new LithagonError(
      'range',
      `${name} was declared ${quantity}, but its samples run from ${percentiles[1].toPrecision(4)} to ${percentiles[99].toPrecision(4)}${unit && unit !== si ? ` ${unit}` : ''}; ${quantity} lies between ${range[0]} and ${range[1]} ${si}.`,
      { object: name, fix: 'Declare another quantity or unit. Nothing was changed.' },
    );
}

/** Seismic declared anew: a new revision, so that what was made from it is out of date. */
export function redeclared<T extends Volume | SeismicLine>(object: T, said: Partial<Declarable>): T {
  const next = { ...object, ...said };
  checkRange(object.name, next.quantity, next.unit, object.statistics);
  const { domain, quantity, unit, polarity } = next;
  const params = { ...object.madeBy.params, ...(object.madeBy.file ? said : {}) };
  const revision = loadedRevision(object.revision, { domain, quantity, unit, polarity });
  return { ...next, revision, madeBy: { ...object.madeBy, params } };
}

/**
 * Checkshots that follow a frame whose datum or replacement velocity changes: those of which nobody has said what their
 * times are counted from are counted from its datum, whichever it is.
 */
export function redatumed(objects: EarthObject[], frame: Frame): { before: EarthObject[]; after: EarthObject[] } {
  const { datumM = 0, replacementVelocity = 1500 } = frame;
  const before = objects.filter(
    (o) =>
      o.kind === 'checkshots' &&
      !o.reference &&
      ((o.datumM ?? 0) !== datumM || (o.replacementVelocity ?? 1500) !== replacementVelocity),
  );
  return {
    before,
    after: before.map((o) => ({
      ...o,
      datumM,
      replacementVelocity,
      revision: loadedRevision(o.revision, { datumM, replacementVelocity }),
    })),
  };
}

/** An object that belongs to a well, said to belong to another of a name that almost agrees. */
export function attached<T extends EarthObject & { well: string }>(object: T, well: string): T {
  return {
    ...object,
    well,
    wellId: undefined,
    name: object.name.startsWith(object.well) ? object.name.replace(object.well, () => well) : object.name,
    revision: loadedRevision(object.revision, { well }),
  };
}

/** Logs of which the curves of one name are of another class than was thought. */
export function reclassed(logs: Logs, mnemonic: string, cls: CurveClass): Logs {
  const key = mnemonic.toLowerCase();
  return {
    ...logs,
    curves: logs.curves.map((c) => (c.mnemonic.toLowerCase() === key ? { ...c, class: cls } : c)),
    revision: loadedRevision(logs.revision, { [key]: cls }),
  };
}
