import { allKinds, type EarthObject, type Kind, type ObjectOf } from '@lithagon/core';
import { blend } from './blend';
import { bodies } from './bodies';
import { contacts } from './contacts';
import { type AnyWebKind, type WebKind, webKind } from './define';
import { fault } from './fault';
import { faultSets } from './faultSets';
import { faultThrow } from './faultThrow';
import { gather } from './gather';
import { horizon } from './horizon';
import { line } from './line';
import { logs } from './logs';
import { map } from './map';
import { navigation } from './navigation';
import { operator } from './operator';
import { picks } from './picks';
import { plotClass } from './plotClass';
import { points } from './points';
import { polygon } from './polygon';
import { relation } from './relation';
import { resultTable } from './resultTable';
import { stratigraphy } from './stratigraphy';
import { turnedPair } from './turnedPair';
import { velocityModel } from './velocityModel';
import { volume } from './volume';
import { wavelet } from './wavelet';
import { well } from './well';
import { wellTables } from './wellTable';

const KINDS: { [K in Kind]: WebKind<ObjectOf<K>> } = {
  volume,
  'seismic line': line,
  navigation,
  well,
  logs,
  ...wellTables,
  'stratigraphic column': stratigraphy,
  wavelet,
  'time-depth relation': relation,
  'synthetic gather': gather,
  horizon,
  fault,
  'fault sets': faultSets,
  'fault throw': faultThrow,
  picks,
  polygon,
  points,
  'velocity model': velocityModel,
  map,
  blend,
  bodies,
  contacts,
  'crossplot class': plotClass,
  operator,
  'turned pair': turnedPair,
  'result table': resultTable,
};

const kinds = new Map<string, AnyWebKind>(Object.entries(KINDS));

/** What the screen needs to know of an object's kind; of one that only the core knows, its facts are shown. */
export function webKindOf({ kind }: Pick<EarthObject, 'kind'>): AnyWebKind {
  const known = kinds.get(kind);
  if (known) return known;
  if (!allKinds().includes(kind)) throw new Error(`there is no kind “${kind}”`);
  return webKind();
}

/** Make a kind that the core knows known to the screen. */
export function registerWebKind(kind: string, known: AnyWebKind): void {
  kinds.set(kind, known);
}

export function forgetWebKind(kind: string): void {
  kinds.delete(kind);
}

/** The colour that stands for an object, the same wherever it is drawn or listed. */
export const colorOf = (object: EarthObject, objects: EarthObject[]): string =>
  object.color ?? webKindOf(object).color(object, objects);
