import { askedInputs, type Domain, domainName, type EarthObject } from '@lithagon/core';
import type { ComponentType } from 'react';
import { canTurn, givesWay } from '../state/conversion';
import { useProject } from '../state/project';
import type { Size } from '../views/common/hooks';
import type { ShownWell } from '../views/common/survey';
import type { Surface } from '../views/map/surface';
import type { Frame } from '../views/section/frame';

/** What every layer is given. */
interface LayerProps<O> {
  object: O;
  objects: EarthObject[];
  domain: Domain;
  selected: boolean;
  /** From 0 to 1, as the view's list says. */
  opacity: number;
  well?: ShownWell;
}

/** What a layer of the map is given. */
export interface MapLayerProps<O> extends LayerProps<O> {
  size: Size;
  /** The horizon that the map shows, where it shows one: faults and wells are seen where they meet it. */
  surface: Surface | null;
  /** Where map coordinates lie on the screen. */
  place(x: number, y: number): [number, number];
}

/** What a layer of a section is given. */
export interface SectionLayerProps<O> extends LayerProps<O> {
  frame: Frame;
  /** Whether the object is out of date. */
  old: boolean;
  color: string;
}

/** How a kind of object is drawn in a kind of view. */
export interface Layer<O, P> {
  /** Layers of a higher order are drawn over those of a lower one. */
  order: number;
  Draw: ComponentType<P>;
  /** Why one cannot be drawn there, said after its name; null where it can. */
  missing?(object: O, domain: Domain, well?: ShownWell): string | null;
  /** Whether it is in a view's list only when it is put there. */
  asked?(object: O, objects: EarthObject[]): boolean;
}

/** Whether one was converted to the other. */
const convertedFrom = (made: EarthObject, from: EarthObject): boolean =>
  made.kind === from.kind &&
  made.madeBy.step.startsWith('depth.') &&
  Object.values(askedInputs(made)).some((ids) => ids.includes(from.id));

/** What is drawn in its own domain, or turned into the other, unless it stands there converted or as what it came from. */
export function turnable(object: EarthObject & { domain: Domain }, domain: Domain): string | null {
  const { objects } = useProject.getState();
  const others = objects.filter((o) => o.kind === object.kind && 'domain' in o && o.domain !== object.domain);
  if (object.domain === domain) {
    const source = givesWay(object) ? others.find((o) => convertedFrom(object, o)) : undefined;
    return source ? `is drawn of ${source.name}, by the velocities that are looked at` : null;
  }
  if (!canTurn(object.domain, domain)) return otherDomain(object, domain);
  const there = others.filter((o) => 'domain' in o && o.domain === domain);
  const stored = there.find((o) => convertedFrom(o, object) && !givesWay(o));
  if (stored) return `is shown as ${stored.name}, to which it was converted`;
  const source = there.find((o) => convertedFrom(object, o));
  return source ? `is shown as ${source.name}, of which it was made` : null;
}

/** What is drawn in time alone, or in depth alone. */
export const otherDomain = (object: { domain: Domain }, domain: Domain): string | null =>
  object.domain === domain ? null : `is in ${domainName(object.domain)}; convert it, or switch this view`;

/**
 * What the screen needs to know of a kind of object besides what the core says of it. There is one for each kind, in a folder
 * of its own, and one that lacks an answer does not compile.
 */
export interface WebKind<O = EarthObject> {
  /** What stands for one that has no colour of its own. */
  color(object: O, objects: EarthObject[]): string;
  /** Whether people may give it one. */
  colored: boolean;
  /** Parts of its Sheet below its facts, from the top down. */
  sheet: ComponentType<{ object: O }>[];
  /** What can be begun from the foot of its Sheet. */
  actions: ComponentType<{ object: O }>[];
  /** Opens it in the view that fits it; null where none does. */
  show: ((object: O) => void) | null;
  /** How views draw it; what the scene does of it stands in `kinds/scene.ts`, which is fetched with the scene. */
  layers: {
    map?: Layer<O, MapLayerProps<O>>;
    section?: Layer<O, SectionLayerProps<O>>;
    scene?: Omit<Layer<O, never>, 'Draw'>;
  };
  /** Whether its Sheet says all of it, so that facts would only say it again. */
  sheetIsAll?: true;
}

/** A kind with its type forgotten. */
// biome-ignore lint/suspicious/noExplicitAny: the registry holds kinds of every type of object
export type AnyWebKind = WebKind<any>;

const SLATE = () => 'var(--slate)';
export const INK = () => 'var(--ink)';

/** A kind of which the screen shows its facts and nothing else, but for what is said. */
export const webKind = <O>(said: Partial<WebKind<O>> = {}): WebKind<O> => ({
  color: SLATE,
  colored: false,
  sheet: [],
  actions: [],
  show: null,
  layers: {},
  ...said,
});
