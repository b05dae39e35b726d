import { curveClassSchema } from '@lithagon/core';
import { z } from 'zod';
import { COLOR_MAPS } from '../color/maps';
import type { DeskState } from './desk';
import { LOGS_DESK } from './logsTemplate';
import { PLOT_DESK } from './plotDesk';
import { VIEW_KINDS } from './views/settings';
import { BLANK, kindOfView, linksSchema, readViews, type ViewState } from './views/view';

const color = z.string().regex(/^#[0-9a-f]{3,8}$/i);

const layout = z.looseObject({
  grid: z.looseObject({ root: z.looseObject({}), width: z.number(), height: z.number(), orientation: z.string() }),
  panels: z.record(
    z.string(),
    z.looseObject({
      id: z.string().refine((id) => kindOfView(id) !== undefined),
      contentComponent: z.enum(VIEW_KINDS),
    }),
  ),
});

const fill = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('limit'), curve: z.string(), side: z.enum(['left', 'right']), color }),
  z.object({
    kind: z.literal('between'),
    curves: z.tuple([z.string(), z.string()]),
    colors: z.tuple([color, color]),
  }),
  z.object({ kind: z.literal('value'), curve: z.string() }),
]);

const axis = z.object({ of: z.string(), log: z.boolean() });

/** The fields of a value that pass their schemas. */
function usable(fields: Record<string, z.ZodType>, value: unknown): Record<string, unknown> {
  if (typeof value !== 'object' || value === null) return {};
  return Object.fromEntries(
    Object.entries(fields).flatMap(([key, schema]) => {
      const parsed = schema.safeParse((value as Record<string, unknown>)[key]);
      return parsed.success ? [[key, parsed.data]] : [];
    }),
  );
}

/** A part of a desk whose fields are as usual where they are missing or wrong. */
const given = <T extends object>(usual: T, fields: Record<keyof T, z.ZodType>) =>
  z.looseObject({}).transform((value): T => ({ ...usual, ...usable(fields, value) }));

/** Each part of a desk, as it may come from a file, from the browser's storage or from another version. */
const PARTS = {
  layout: layout.nullable(),
  desk: z.string().nullable(),
  volume: z.string().nullable(),
  views: z.looseObject({}).transform(readViews),
  links: linksSchema,
  active: z.string().nullable(),
  recent: z.array(z.string()).max(200),
  display: z.record(
    z.string(),
    z.object({
      map: z.enum(COLOR_MAPS as [(typeof COLOR_MAPS)[number], ...typeof COLOR_MAPS]),
      reverse: z.boolean(),
      clip: z.number().min(0).max(100),
      gain: z.number().positive(),
      ends: z.tuple([z.number(), z.number()]).nullable().default(null),
    }),
  ),
  logs: given(LOGS_DESK, {
    wells: z.array(z.string()),
    depth: z.enum(['MD', 'TVD', 'TVDSS', 'TWT']),
    hang: z.string().nullable(),
    spaced: z.boolean(),
    window: z.tuple([z.number(), z.number()]).nullable(),
    tracks: z.array(
      z.object({
        id: z.string(),
        title: z.string(),
        width: z.number().positive().max(4000),
        curves: z.array(z.union([curveClassSchema, z.string()])),
        fill: fill.optional(),
        beds: z.literal('facies').optional(),
      }),
    ),
    styles: z.record(z.string(), z.object({ from: z.number(), to: z.number(), log: z.boolean(), color })),
    heading: z.array(z.string()),
    zones: z.boolean(),
    seismic: z.string().nullable(),
  }),
  plot: given(PLOT_DESK, {
    from: z.enum(['logs', 'maps', 'volumes']),
    x: axis,
    y: axis,
    color: z.string().nullable(),
    wells: z.array(z.string()).nullable(),
    top: z.string(),
    base: z.string(),
    area: z.string().nullable(),
    fromVertical: z.number(),
    toVertical: z.number(),
    trends: z.boolean(),
    fit: z.boolean(),
  }),
  stage: z.string().nullable(),
} satisfies Record<Exclude<keyof DeskState, 'theme'>, z.ZodType>;

/** Settings that a desk had once for all views of a kind, as those of the first view. */
function former(value: object): Record<string, ViewState> {
  const { plane, line, increment, domain, mapShows, exaggeration } = value as Record<string, unknown>;
  const of = (id: string) => (domain as Record<string, unknown> | undefined)?.[id];
  const settings = {
    section: { along: plane, line, increment, domain: of('section') },
    map: { shows: mapShows, increment, domain: of('map') },
    scene: { exaggeration, domain: of('scene') },
  };
  return readViews(
    Object.fromEntries(Object.entries(settings).map(([id, each]) => [id, { ...BLANK, settings: each }])),
  );
}

/** What of a desk can be used, part by part: one part that is wrong costs no other. */
export function readDesk(value: unknown): Partial<DeskState> {
  const read = usable(PARTS, value) as Partial<DeskState>;
  const earlier = typeof value === 'object' && value !== null && !('views' in value) && 'plane' in value;
  return earlier ? { ...read, views: former(value) } : read;
}
