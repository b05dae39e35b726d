import { type Domain, domainName, type EarthObject } from '@lithagon/core';
import { colorOf, webKindOf } from '../../kinds';
import type { Layer } from '../../kinds/define';
import type { Contents, Shown } from '../../state/views';
import type { NotShown, ShownWell } from './survey';

/** Views whose layers come from the folders of the kinds. */
export type Layered = 'map' | 'section' | 'scene';

// biome-ignore lint/suspicious/noExplicitAny: layers of every type of object
type AnyLayer = Pick<Layer<any, any>, 'order' | 'missing' | 'asked'>;

export type LayerOf = (object: EarthObject) => AnyLayer | undefined;
export const layersOf =
  (view: Layered): LayerOf =>
  (object) =>
    webKindOf(object).layers[view];

/** An object in the list of a view. */
export interface Row extends Shown {
  object: EarthObject;
  color: string;
  /** Why it is not drawn though its eye is open, or null. */
  why: string | null;
}

/** The list of a view, what is on top first: what was put there, and what comes into it by itself. */
export function rowsOf(
  contents: Contents,
  objects: EarthObject[],
  layerOf: LayerOf,
  domain: Domain,
  wells: ShownWell[],
): Row[] {
  const byId = new Map(objects.map((o) => [o.id, o]));
  const listed = new Set(contents.shown.map((s) => s.id));
  const out = new Set(contents.out);
  const own = contents.shown.filter(({ id }) => {
    const object = byId.get(id);
    return object && layerOf(object);
  });
  const rest = contents.follows
    ? objects
        .filter((o) => !listed.has(o.id) && !out.has(o.id))
        .flatMap((object) => {
          const layer = layerOf(object);
          return layer && !layer.asked?.(object, objects) ? [{ object, order: layer.order }] : [];
        })
        .sort((a, b) => b.order - a.order)
        .map(({ object }): Shown => ({ id: object.id, eye: true, opacity: 1 }))
    : [];
  const place = (id: string) => layerOf(byId.get(id) as EarthObject)?.order ?? 0;
  // what was never moved stands where its kind does
  const all = [...own];
  for (const each of rest) {
    const at = all.findIndex((other) => place(other.id) < place(each.id));
    all.splice(at < 0 ? all.length : at, 0, each);
  }
  const well = new Map(wells.map((w) => [w.well.id, w]));
  return all.map((shown) => {
    const object = byId.get(shown.id) as EarthObject;
    return {
      ...shown,
      object,
      color: colorOf(object, objects),
      why: layerOf(object)?.missing?.(object, domain, well.get(object.id)) ?? null,
    };
  });
}

/** Rows as they are kept. */
export const keptOf = (rows: Row[]): Shown[] =>
  rows.map(({ id, eye, opacity, paint }) => ({ id, eye, opacity, ...(paint ? { paint } : {}) }));

/** The list with one row changed, opened or shut; a row that came by itself is from then on kept. */
export function withRow(rows: Row[], contents: Contents, id: string, change: Partial<Shown>): Partial<Contents> {
  const kept = keptOf(rows);
  if (rows.some((r) => r.id === id)) return { shown: kept.map((s) => (s.id === id ? { ...s, ...change } : s)) };
  return { shown: [{ id, eye: true, opacity: 1, ...change }, ...kept], out: contents.out.filter((o) => o !== id) };
}

/** The list without a row. */
export function withoutRow(contents: Contents, id: string): Partial<Contents> {
  return { shown: contents.shown.filter((s) => s.id !== id), out: [...new Set([...contents.out, id])] };
}

/** The list with a row at the place of another. */
export function movedRow(rows: Row[], from: number, to: number): Partial<Contents> {
  const kept = keptOf(rows);
  return { shown: kept.toSpliced(from, 1).toSpliced(to, 0, kept[from]) };
}

/** What of a project a view cannot show in its domain, and why. */
export function cannotShow(
  objects: EarthObject[],
  layerOf: LayerOf,
  grounds: EarthObject['kind'][],
  domain: Domain,
  wells: ShownWell[],
): NotShown[] {
  const well = new Map(wells.map((w) => [w.well.id, w]));
  return objects.flatMap((o) => {
    const ground = grounds.includes(o.kind) && 'domain' in o && o.domain !== domain;
    const why = ground
      ? `is in ${domainName(o.domain as Domain)}; convert it, or switch this view`
      : layerOf(o)?.missing?.(o, domain, well.get(o.id));
    return why ? [{ name: o.name, why }] : [];
  });
}
