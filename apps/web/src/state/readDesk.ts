import { z } from 'zod';
import type { DeskState } from './desk';
import { displaysSchema } from './views/display';
import { VIEW_KINDS } from './views/settings';
import { BLANK, kindOfView, linksSchema, readViews, type ViewState } from './views/view';

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

/** Each part of a desk, as it may come from a file, from the browser's storage or from another version. */
const PARTS = {
  layout: layout.nullable(),
  desk: z.string().nullable(),
  volume: z.string().nullable(),
  views: z.looseObject({}).transform(readViews),
  links: linksSchema,
  active: z.string().nullable(),
  recent: z.array(z.string()).max(200),
  display: displaysSchema,
  stage: z.string().nullable(),
} satisfies Record<Exclude<keyof DeskState, 'theme'>, z.ZodType>;

/** Settings that a desk had once beside its views, as those of the first view of each kind. */
function former(value: object): Record<string, ViewState> {
  const { plane, line, increment, domain, mapShows, exaggeration, logs, plot } = value as Record<string, unknown>;
  const of = (id: string) => (domain as Record<string, unknown> | undefined)?.[id];
  const settings = {
    section: { along: plane, line, increment, domain: of('section') },
    map: { shows: mapShows, increment, domain: of('map') },
    scene: { exaggeration, domain: of('scene') },
    logs,
    crossplot: plot,
  };
  return readViews(
    Object.fromEntries(Object.entries(settings).map(([id, each]) => [id, { ...BLANK, settings: each }])),
  );
}

/** Keys by which a desk of former versions is known. */
const FORMER = ['plane', 'logs', 'plot'];

/** What of a desk can be used, part by part: one part that is wrong costs no other. */
export function readDesk(value: unknown): Partial<DeskState> {
  const read = usable(PARTS, value) as Partial<DeskState>;
  const earlier = typeof value === 'object' && value !== null && FORMER.some((key) => key in value);
  return earlier ? { ...read, views: { ...former(value), ...read.views } } : read;
}
