import type { z } from 'zod';
import { forgetSchema, registerSchema } from '../earth/kinds.ts';
import type { EarthObject, Kind, ObjectOf } from '../earth/objects.ts';
import { blend } from './blend/index.ts';
import { bodies } from './bodies/index.ts';
import { contacts } from './contacts/index.ts';
import type { AnyKind, KindOf } from './define.ts';
import { fault } from './fault/index.ts';
import { faultSets } from './faultSets/index.ts';
import { faultThrow } from './faultThrow/index.ts';
import { gather } from './gather/index.ts';
import { horizon } from './horizon/index.ts';
import { line } from './line/index.ts';
import { logs } from './logs/index.ts';
import { map } from './map/index.ts';
import { navigation } from './navigation/index.ts';
import { operator } from './operator/index.ts';
import { picks } from './picks/index.ts';
import { plotClass } from './plotClass/index.ts';
import { points } from './points/index.ts';
import { polygon } from './polygon/index.ts';
import { relation } from './relation/index.ts';
import { resultTable } from './resultTable/index.ts';
import { stratigraphy } from './stratigraphy/index.ts';
import { turnedPair } from './turnedPair/index.ts';
import { velocityModel } from './velocityModel/index.ts';
import { volume } from './volume/index.ts';
import { wavelet } from './wavelet/index.ts';
import { well } from './well/index.ts';
import { wellTables } from './wellTable/index.ts';

/** Every kind that a project may hold. */
const KINDS: { [K in Kind]: KindOf<ObjectOf<K>> } = {
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

const kinds = new Map<string, AnyKind>(Object.entries(KINDS));

/** What there is to know of an object's kind. */
export function kindOf(object: Pick<EarthObject, 'kind'>): AnyKind {
  return kindNamed(object.kind);
}

export function kindNamed(kind: string): AnyKind {
  const known = kinds.get(kind);
  if (!known) throw new Error(`there is no kind “${kind}”`);
  return known;
}

/** Names of all kinds. */
export const allKinds = (): string[] => [...kinds.keys()];

/** Make a kind known everywhere, with the schema that its objects pass. */
export function registerKind(kind: string, known: AnyKind, schema: z.ZodType): void {
  if (kinds.has(kind)) throw new Error(`two kinds are called ${kind}`);
  kinds.set(kind, known);
  registerSchema(kind, schema);
}

export function forgetKind(kind: string): void {
  kinds.delete(kind);
  forgetSchema(kind);
}
