import { z } from 'zod';
import { idSchema } from '../earth/objects/common.ts';
import { curveClassSchema, type EarthObject, frameSchema, objectSchema } from '../earth/objects.ts';
import { hasher } from '../numerics/hash.ts';
import { migrated, READ, VERSION } from './migrate.ts';
import type { LedgerEntry, ProjectFacts } from './store.ts';

export const factsSchema = z.object({
  id: idSchema,
  name: z.string().min(1).max(200),
  created: z.string(),
  frame: frameSchema.nullable(),
  curveClasses: z.record(z.string(), curveClassSchema).optional(),
  desks: z.array(z.object({ name: z.string(), state: z.record(z.string(), z.unknown()) })).optional(),
});

export const ledgerEntrySchema = z.object({
  at: z.string(),
  what: z.enum(['in', 'out', 'made', 'removed', 'changed']),
  object: z.string(),
  name: z.string(),
  note: z.string(),
});

/** `project.json`: what a project holds besides its arrays, in a folder and in a parcel alike. */
export interface ProjectFile {
  lithagon: typeof VERSION;
  facts: ProjectFacts;
  objects: EarthObject[];
  ledger: LedgerEntry[];
}

/** Something in a project that cannot be read: it is kept as it is, and shown nowhere but where it is named. */
export interface Aside {
  /** Tells it from others that are set aside. */
  key: string;
  name: string;
  /** What is wrong with it. */
  why: string;
  raw: unknown;
}

/** A project as it was read: what is whole, and what was set aside. */
export interface OpenedProject {
  facts: ProjectFacts;
  objects: EarthObject[];
  ledger: LedgerEntry[];
  aside: Aside[];
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function nameOf(raw: unknown): string {
  if (!isRecord(raw)) return 'something that is no object';
  const { name, kind, id } = raw;
  return (
    [name, id, kind].find((each): each is string => typeof each === 'string' && each !== '') ?? 'an unnamed object'
  );
}

/** The same for the same content, whenever it is read. */
const keyOf = (raw: unknown): string =>
  hasher()
    .text(JSON.stringify(raw) ?? '')
    .digest();

/**
 * Tell objects that can be read from those that cannot: what does not pass its schema, has an id that another has, or
 * keeps arrays in the place of another's, is set aside.
 * @param raws objects as they were kept
 */
export function sortOut(raws: unknown[]): { objects: EarthObject[]; aside: Aside[] } {
  const objects: EarthObject[] = [];
  const aside: Aside[] = [];
  const put = (raw: unknown, why: string) => aside.push({ key: keyOf(raw), name: nameOf(raw).slice(0, 200), why, raw });
  const ids = new Set<string>();
  for (const raw of raws) {
    const parsed = objectSchema.safeParse(raw);
    if (!parsed.success) {
      const [issue] = parsed.error.issues;
      put(
        raw,
        `${issue.path.length > 0 ? `${issue.path.join('.')}: ` : ''}${issue.message.replace('Invalid input: ', '')}`,
      );
    } else if (ids.has(parsed.data.id)) put(raw, `its id ${parsed.data.id} is another object’s too`);
    else {
      ids.add(parsed.data.id);
      objects.push(parsed.data);
    }
  }
  const owners = new Map<string, string>();
  return {
    objects: objects.filter((object) => {
      const roots = rootsOf(object);
      const taken = roots.find((root) => (root !== object.id && ids.has(root)) || owners.has(root));
      if (taken) put(object, `its data are said to lie with those of another object (${taken})`);
      else for (const root of roots) owners.set(root, object.id);
      return !taken;
    }),
    aside,
  };
}

/** First parts of the keys of an object's arrays: what is removed with it. */
export function rootsOf(value: unknown): string[] {
  const found = new Set<string>();
  const visit = (each: unknown, depth: number): void => {
    if (typeof each !== 'object' || each === null || depth > 12) return;
    if ('key' in each && 'chunk' in each && typeof each.key === 'string') found.add(each.key.split('/')[0]);
    else for (const inner of Object.values(each)) visit(inner, depth + 1);
  };
  visit(value, 0);
  return [...found];
}

const isFact = (key: unknown): key is string => typeof key === 'string' && key.startsWith('facts.');

/** A project as it is written: what was set aside stays in it as it was. */
export function writtenProject({ facts, objects, ledger, aside }: OpenedProject): string {
  const more = aside.length > 0 ? { aside } : {};
  return `${JSON.stringify({ lithagon: VERSION, facts, objects, ledger, ...more }, null, 1)}\n`;
}

/**
 * Read what a project file holds, as far as it can be read.
 * @returns null where it is no project of this version at all
 */
export function readProject(raw: unknown): OpenedProject | null {
  if (!isRecord(raw) || !isRecord(raw.facts) || !Array.isArray(raw.objects)) return null;
  if (!READ.includes(raw.lithagon as number)) return null;
  const before = (Array.isArray(raw.aside) ? raw.aside : []).filter(isRecord);
  // a later version may be able to read what an earlier one could not
  const { objects, aside } = sortOut([
    ...raw.objects,
    ...before.filter(({ key }) => !isFact(key)).map((each) => each.raw),
  ]);
  for (const { key, name, why, raw } of before)
    if (isFact(key)) aside.push({ key, name: String(name), why: String(why), raw });
  const given = raw.facts;
  const facts: Record<string, unknown> = {
    id: crypto.randomUUID(),
    name: 'Untitled',
    created: new Date(0).toISOString(),
    frame: null,
  };
  for (const [key, schema] of Object.entries(factsSchema.shape)) {
    if (given[key] === undefined) continue;
    const parsed = schema.safeParse(given[key]);
    if (parsed.success) facts[key] = parsed.data;
    else {
      const what = { frame: 'the project’s frame', desks: 'the saved desks' }[key] ?? `the project’s ${key}`;
      aside.push({ key: `facts.${key}`, name: what, why: parsed.error.issues[0].message, raw: given[key] });
    }
  }
  const ledger = (Array.isArray(raw.ledger) ? raw.ledger : []).flatMap((entry) => {
    const parsed = ledgerEntrySchema.safeParse(entry);
    return parsed.success ? [parsed.data] : [];
  });
  const now = raw.lithagon === VERSION ? objects : migrated(objects);
  return { facts: facts as unknown as ProjectFacts, objects: now, ledger, aside };
}
