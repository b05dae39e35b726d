import type { BinGrid } from '../earth/binGrid.ts';
import type { Units } from '../earth/display.ts';
import type { EarthObject } from '../earth/objects.ts';
import type { Out } from '../files/out/out.ts';

/** One line of what there is to say of an object. */
export interface Fact {
  label: string;
  value: string;
}

/** How positions go to another coordinate system. */
export interface Move {
  point(x: number, y: number): [number, number];
  binGrid(binGrid: BinGrid): BinGrid;
}

/** A format that a kind leaves in: what it is called, and how it is written, part by part where it is large. */
export interface Format<O> {
  title: string;
  write(out: Out, object: O): AsyncIterable<Uint8Array> | Promise<Uint8Array | Uint8Array[] | string>;
}

/**
 * What everything else needs to know of a kind of object. There is one for each kind, in a folder of its own, and one that
 * lacks an answer does not compile.
 */
export interface KindOf<O extends { kind: string } = EarthObject> {
  /** One of them and several, as they are called on screen. */
  title: string;
  plural: string;
  /** What there is to say of one, besides its kind and domain. */
  facts(object: O, units: Units): Fact[];
  /** What tells it apart from others of its kind, in a word or two. */
  aside(object: O, units: Units): string;
  /** The same with every position in another coordinate system; null for a kind without positions. */
  moved: ((object: O, move: Move) => O) | null;
  /** Corners or points on the map by which a view finds where it lies. */
  places(object: O): [number, number][];
  /** Formats that it leaves in, by extension. */
  formats: Record<string, Format<O>>;
  /** What of it a person gives, where it is drawn from nothing: its revision follows from that. */
  drawn?(object: O): unknown;
}

/** A kind with its type forgotten. */
// biome-ignore lint/suspicious/noExplicitAny: the registry holds kinds of every type of object
export type AnyKind = KindOf<any>;

export const defineKind = <O extends { kind: string }>(kind: KindOf<O>): KindOf<O> => kind;

export const fixed = (v: number, places: number) => v.toFixed(places);

export const counted = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;
