import { z } from 'zod';
import { type Displays, displaysSchema } from './display';
import { readSettings, type Settings, USUAL, VIEW_KINDS, type ViewKind } from './settings';

/** Groups of views that share cursor, place and zoom. */
export const LINKS = ['A', 'B', 'C', 'D'] as const;
export type Link = (typeof LINKS)[number];

const place = z.number().nullable();
const placeSchema = z.object({ inline: place, crossline: place, twt: place, depth: place, age: place.default(null) });

/** Where one looks: line numbers, and the time (ms), depth (m) or age of a slice; null follows the data. */
export type Place = z.infer<typeof placeSchema>;
export const NOWHERE: Place = { inline: null, crossline: null, twt: null, depth: null, age: null };

const windowsSchema = z.record(z.string(), z.array(z.number()).max(4));
/** Parts in view, by what they are parts of: line numbers, time, depth, the map. */
export type Windows = z.infer<typeof windowsSchema>;

/** Where a group looks, or a view that is in none. */
const lookSchema = z.object({ place: placeSchema, windows: windowsSchema });
export type Look = z.infer<typeof lookSchema>;

const shownSchema = z.object({
  id: z.string(),
  eye: z.boolean(),
  opacity: z.number().min(0).max(1),
  /** Map that a surface of the scene is coloured by, in place of its depth. */
  paint: z.string().optional(),
});
/** An object in the list of a view: the first is drawn on top. */
export type Shown = z.infer<typeof shownSchema>;

const contentsSchema = z.object({
  shown: z.array(shownSchema).max(5000),
  /** What was taken out of a list that follows the project. */
  out: z.array(z.string()).max(5000),
  /** Whether what is made or loaded comes into the list by itself. */
  follows: z.boolean(),
});
export type Contents = z.infer<typeof contentsSchema>;

/** What one view of a desk shows, and how. */
export interface ViewState {
  link: Link | null;
  own: Look;
  contents: Contents;
  /** Colours that are this view's alone, by volume. */
  colors: Displays;
  settings: Record<string, unknown>;
}

export const BLANK: ViewState = {
  link: 'A',
  own: { place: NOWHERE, windows: {} },
  contents: { shown: [], out: [], follows: true },
  colors: {},
  settings: {},
};

const ID = /^([a-z]+)(?:-[1-9]\d*)?$/;

/** Which view a panel of the desk holds: `section-2` is a section. */
export function kindOfView(id: string): ViewKind | undefined {
  return VIEW_KINDS.find((kind) => kind === ID.exec(id)?.[1]);
}

/** A view's name on its tab. */
export function titleOf(id: string): string {
  const [kind, number] = id.split('-');
  return `${kind[0].toUpperCase()}${kind.slice(1)}${number ? ` ${number}` : ''}`;
}

/** What a view of a kind is set to; what was never changed is as usual. */
export function settingsIn<K extends ViewKind>(kind: K, view: ViewState | undefined): Settings[K] {
  return { ...USUAL[kind], ...view?.settings } as Settings[K];
}

const link = z.enum(LINKS);

/** Views of a desk as they may come from elsewhere; one that is wrong in a part is as usual in that. */
export function readViews(value: unknown): Record<string, ViewState> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return {};
  return Object.fromEntries(
    Object.entries(value as Record<string, unknown>).flatMap(([id, each]) => {
      const kind = kindOfView(id);
      if (!kind || typeof each !== 'object' || each === null) return [];
      const given = each as Record<string, unknown>;
      const part = <T>(key: string, schema: z.ZodType<T>, usual: T): T => {
        const parsed = schema.safeParse(given[key]);
        return parsed.success ? parsed.data : usual;
      };
      const view: ViewState = {
        link: part('link', link.nullable(), BLANK.link),
        own: part('own', lookSchema, BLANK.own),
        contents: part('contents', contentsSchema, BLANK.contents),
        colors: part('colors', displaysSchema, BLANK.colors),
        settings: readSettings(kind, given.settings),
      };
      return [[id, view]];
    }),
  );
}

export const linksSchema = z.partialRecord(link, lookSchema);
