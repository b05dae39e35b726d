import type { EarthObject } from '@lithagon/core';
import type { ComponentType } from 'react';
import type { Size } from '../views/common/hooks';

/** What a layer of the map is given. */
export interface MapLayerProps<O> {
  object: O;
  objects: EarthObject[];
  size: Size;
  domain: 'twt' | 'depth';
  selected: boolean;
  /** Where map coordinates lie on the screen. */
  place(x: number, y: number): [number, number];
}

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
  /** How views draw it. */
  layers: { map?: ComponentType<MapLayerProps<O>> };
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
