import type { EarthObject } from '../../earth/objects.ts';
import { stratigraphyOf, topsByDepth } from './column.ts';
import { curvesOf } from './curves.ts';
import { ELASTIC_CURVES } from './timedLogs.ts';
import { topsOf } from './wells.ts';

/** What a formula may name of every well beside its curves. */
const DEPTHS = ['MD', 'TVDSS'];

const distinct = (names: string[]) => [...new Set(names)];

/** Names of the tops that some wells have, from the youngest down: as the column orders them, else by mean depth. */
export function topNames(objects: EarthObject[], wells: string[]): string[] {
  const own = new Set(wells.flatMap((w) => topsOf(objects, w)).flatMap((t) => (t.kind === 'top' ? [t.name] : [])));
  const column = stratigraphyOf(objects)?.units.map((u) => u.top) ?? [];
  const ordered = [...column, ...topsByDepth(objects).map((t) => t.name)];
  return distinct(ordered).filter((name) => own.has(name));
}

/** What the curves of some wells are called by: classes, and mnemonics where there is no class; no probabilities. */
export function curveNames(objects: EarthObject[], wells: string[]): string[] {
  const own = wells.flatMap((w) => [...curvesOf(objects, w)]);
  return distinct(own.filter(([, held]) => held.logs.madeBy.step !== 'wells.facies').map(([name]) => name));
}

/** Curves of wells as they are known in time: those that a wave averages first. */
export const timedNames = (objects: EarthObject[], wells: string[]): string[] =>
  distinct([...ELASTIC_CURVES, ...curveNames(objects, wells)]);

/**
 * What a formula over curves of some wells may name, in the order in which it is offered: classes with _ for blanks, which
 * wells share, and mnemonics; each with its unit, as the first well has it.
 */
export function formulaUnits(objects: EarthObject[], wells: string[]): Map<string, string> {
  const held = wells.map((w) => curvesOf(objects, w));
  const out = new Map<string, string>();
  for (const name of curveNames(objects, wells)) {
    const word = name.replaceAll(' ', '_');
    if (/^[A-Za-z_]\w*$/.test(word)) out.set(word, held.flatMap((of) => of.get(name)?.curve.unit ?? [])[0] ?? '');
  }
  for (const depth of DEPTHS) out.set(depth, 'm');
  return out;
}
