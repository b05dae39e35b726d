import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Horizon, Stratigraphy } from '../../earth/objects.ts';
import { pointAtMd } from '../../wells/path.ts';
import { madeByHand } from '../given.ts';
import { loadedRevision, newId } from '../make.ts';
import { pathOf, topsOf } from './wells.ts';

/** The project's stratigraphic column, where it has one. */
export function stratigraphyOf(objects: EarthObject[]): Stratigraphy | undefined {
  return objects.find((o): o is Stratigraphy => o.kind === 'stratigraphic column');
}

/**
 * Refuse a top at a depth that would cross another by the order of the stratigraphic column, by name. Tops at one depth
 * are beds that are missing, and cross nothing.
 */
export function checkOrder(objects: EarthObject[], well: string, name: string, md: number): void {
  const order = stratigraphyOf(objects)?.units.map((u) => u.top) ?? [];
  const own = order.indexOf(name);
  if (own < 0) return;
  for (const other of topsOf(objects, well)) {
    const at = order.indexOf(other.name);
    if (other.kind !== 'top' || at < 0 || at === own) continue;
    if ((at < own && md < other.md - 0.01) || (at > own && md > other.md + 0.01))
      throw new LithagonError(
        'order',
        `${name} would lie ${at < own ? 'above' : 'below'} ${other.name} in ${well}, and the stratigraphic column has it ${at < own ? 'below' : 'above'}.`,
        { object: well, fix: 'Pick it elsewhere, or change the order of the column. Nothing was changed.' },
      );
  }
}

/** Colours of units, youngest first, muted like drawn rock; used again from the start after the last. */
export const UNIT_COLORS = [
  '#d9c9a3',
  '#c8a98a',
  '#b9bf9a',
  '#9fb0a8',
  '#e2c36f',
  '#a9a0b5',
  '#8fb6c4',
  '#b98f86',
  '#a7b58b',
  '#cfb3a1',
];

/** What lies below a top, as it is first called and drawn. */
const unitFrom = (top: string, color: string): Stratigraphy['units'][number] => ({
  top,
  zone: top.replace(/\s+top$/i, ''),
  color,
  pattern: 'none',
  unconformity: /unconformity/i.test(top),
});

/** Names of the tops of all wells, by their mean depth, with the wells that have each. */
export function topsByDepth(objects: EarthObject[]): { name: string; wells: string[] }[] {
  const found = new Map<string, { depths: number[]; wells: string[] }>();
  for (const well of objects)
    if (well.kind === 'well') {
      const path = pathOf(objects, well);
      for (const top of topsOf(objects, well.name)) {
        if (top.kind !== 'top') continue;
        const one = found.get(top.name) ?? { depths: [], wells: [] };
        one.depths.push(pointAtMd(path, top.md).tvdss);
        one.wells.push(well.name);
        found.set(top.name, one);
      }
    }
  const mean = (v: number[]) => v.reduce((a, b) => a + b, 0) / v.length;
  return [...found].sort((a, b) => mean(a[1].depths) - mean(b[1].depths)).map(([name, { wells }]) => ({ name, wells }));
}

/** A name without what differs between spellings: case, blanks and marks. */
const spelt = (name: string) => name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

/** A column from the tops of all wells, by their mean depth; of several spellings of one top it holds the commonest. */
export function columnOfTops(objects: EarthObject[]): Stratigraphy {
  const tops = topsByDepth(objects);
  const commonest = new Map<string, string>();
  for (const { name } of [...tops].sort((a, b) => b.wells.length - a.wells.length))
    if (!commonest.has(spelt(name))) commonest.set(spelt(name), name);
  const names = tops.map((t) => t.name).filter((name) => commonest.get(spelt(name)) === name);
  return withUnits(
    {
      id: newId('stratigraphic column'),
      kind: 'stratigraphic column',
      name: 'Stratigraphic column',
      stage: 'wells',
      revision: '',
      units: [],
      madeBy: madeByHand('wells.draw'),
    },
    names.map((name, n) => unitFrom(name, UNIT_COLORS[n % UNIT_COLORS.length])),
  );
}

/** Tops of wells that a column does not hold, with the top of it that each may be another spelling of. */
export function topsBeside(
  objects: EarthObject[],
  column: Stratigraphy,
): { name: string; wells: string[]; like: string | null }[] {
  return topsByDepth(objects)
    .filter(({ name }) => !column.units.some((u) => u.top === name))
    .map((top) => ({ ...top, like: column.units.find((u) => spelt(u.top) === spelt(top.name))?.top ?? null }));
}

/** The colour that is used least. */
function leastUsed({ units }: Stratigraphy): string {
  const used = (color: string) => units.filter((u) => u.color === color).length;
  return UNIT_COLORS.reduce((a, b) => (used(b) < used(a) ? b : a));
}

/** The column with a top of the wells put where their mean depths have it, in the colour that is used least. */
export function withTop(objects: EarthObject[], column: Stratigraphy, name: string): Stratigraphy {
  const order = topsByDepth(objects).map((t) => t.name);
  const below = new Set(order.slice(order.indexOf(name) + 1));
  const found = column.units.findIndex((u) => below.has(u.top));
  const at = found < 0 ? column.units.length : found;
  return withUnits(column, column.units.toSpliced(at, 0, unitFrom(name, leastUsed(column))));
}

/**
 * The column with a horizon put where its level has it among those horizons that are tops of it; one that was proposed where beds end
 * is an unconformity.
 */
export function withSurface(objects: EarthObject[], column: Stratigraphy, horizon: Horizon): Stratigraphy {
  const level = ({ range }: Horizon) => (range[0] + range[1]) / 2;
  const levelOf = (top: string) => {
    const own = objects.find(
      (o): o is Horizon => o.kind === 'horizon' && o.domain === horizon.domain && (o.top ?? o.name) === top,
    );
    return own && level(own);
  };
  const below = column.units.findIndex(({ top }) => (levelOf(top) ?? Number.NEGATIVE_INFINITY) > level(horizon));
  const color = leastUsed(column);
  const unit = unitFrom(horizon.name, color);
  return withUnits(
    column,
    column.units.toSpliced(below < 0 ? column.units.length : below, 0, {
      ...unit,
      unconformity: unit.unconformity || horizon.madeBy.step === 'interpret.terminations',
    }),
  );
}

/** The column with other units; its revision follows what the order and the names are, not colours. */
export function withUnits(column: Stratigraphy, units: Stratigraphy['units']): Stratigraphy {
  return {
    ...column,
    units,
    revision: loadedRevision(
      'units',
      units.map((u) => [u.top, u.zone, u.unconformity]),
    ),
  };
}
