import { curveClassSchema, domainSchema, FREQUENCY_METHODS } from '@lithagon/core';
import { z } from 'zod';
import { LOGS_DESK, type LogsDesk } from '../logsTemplate';
import { PLOT_DESK, type PlotDesk } from '../plotDesk';

/** Views that a desk may hold. */
export const VIEW_KINDS = [
  'section',
  'map',
  'scene',
  'tie',
  'logs',
  'crossplot',
  'spectrum',
  'net',
  'pay',
  'velocity',
  'catalogue',
] as const;
export type ViewKind = (typeof VIEW_KINDS)[number];
/** Views of which a desk may hold more than one: what they show is their own. */
export const SEVERAL: ViewKind[] = ['section', 'map', 'scene', 'logs', 'crossplot'];

const domain = domainSchema;
const point = z.tuple([z.number(), z.number()]);
const part = z.number().min(0).max(1);

/** Another volume laid against the one that a section shows. */
const compareSchema = z.object({
  with: z.string(),
  mode: z.enum(['swipe', 'flicker', 'difference']),
  /** Part of the width left of the edge between the two. */
  at: part,
  /** Changes a second. */
  perSecond: z.number().min(0.2).max(10),
  /** Percentile of absolute differences at which their colours end. */
  clip: z.number().min(50).max(100),
});
export type Compare = z.infer<typeof compareSchema>;

/** A line of one's own: corners on the map, and what they are called where they are wells. */
const pathSchema = z.object({ points: z.array(point).min(2).max(500), names: z.array(z.string()) });
export type Path = z.infer<typeof pathSchema>;

/** A piece of a 2D line, by the CDPs of its ends: backward where the first is the greater. */
const pieceSchema = z.object({ line: z.string(), from: z.number(), to: z.number() });
export type Piece = z.infer<typeof pieceSchema>;

/** What stands for a composite where a 2D line is chosen. */
export const JOINED = 'joined';

const section = {
  domain,
  /** Volume shown; null for that of the desk. */
  volume: z.string().nullable(),
  along: z.enum(['inline', 'crossline', 'path']),
  path: pathSchema.nullable(),
  /** 2D line shown instead of a volume, a composite of several, or null. */
  line: z.string().nullable(),
  /** Pieces of the composite, one after the other. */
  joined: z.array(pieceSchema).min(1).max(40).nullable(),
  /** Lines that the wheel steps by. */
  increment: z.int().min(1).max(1e6),
  /** How samples are drawn. */
  traces: z.enum(['density', 'wiggle', 'filled', 'both']),
  /** Whether traces stand as far apart as on the ground. */
  trueDistance: z.boolean(),
  /** What is written along the top. */
  axis: z.enum(['line', 'distance', 'x', 'y']),
  over: z.object({ volume: z.string(), opacity: part }).nullable(),
  /** What is drawn along wells: a log, by its class, or the synthetic of the tie that is in use. */
  log: z.union([curveClassSchema, z.literal('synthetic')]).nullable(),
  compare: compareSchema.nullable(),
  /** Whether the list of what is shown is open. */
  listed: z.boolean(),
};

const map = {
  domain,
  volume: z.string().nullable(),
  /** Ground of the map: `slice`, a horizon or map, the match of a track; `none`; null for what there is. */
  shows: z.string().nullable(),
  /** Volume or blend whose values a horizon of the map is coloured by, in place of its own. */
  upon: z.string().nullable(),
  /** Whether relief is lit from the north-west. */
  light: z.boolean(),
  contours: z.boolean(),
  /** What the graticule is in. */
  graticule: z.enum(['map', 'degrees', 'none']),
  increment: z.int().min(1).max(1e6),
  listed: z.boolean(),
};

const scene = {
  domain,
  volume: z.string().nullable(),
  exaggeration: z.number().positive().max(1000),
  planes: z.object({ inline: z.boolean(), crossline: z.boolean(), slice: z.boolean() }),
  perspective: z.boolean(),
  /** Whether the volume stands along the section's own line. */
  fence: z.boolean(),
  /** Blend of volumes in whose colours planes are drawn. */
  blend: z.string().nullable(),
  /** Volume, map or blend that the pages of a series of horizons are coloured by. */
  upon: z.string().nullable(),
  /** Log that wells are drawn with, by its class. */
  log: curveClassSchema.nullable(),
  /** Parts of the survey that are shown, from and to: inlines, crosslines, samples. */
  crop: z.tuple([part, part, part, part, part, part]),
  /** Whether the volume is looked through, and how opaque its values are: parts of the colour range and of full. */
  cloud: z.boolean(),
  transfer: z
    .array(z.tuple([part, part]))
    .min(2)
    .max(12),
  listed: z.boolean(),
};

const color = z.string().regex(/^#[0-9a-f]{3,8}$/i);

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

const logs = {
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
};

const crossplot = {
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
  limits: z.array(z.object({ of: z.string(), range: point.nullable() })).max(2),
};

const spectrum = {
  /** Volume that it is of; null for that of the desk. */
  volume: z.string().nullable(),
  /** The line of the section, what lies around a horizon, or all of a range of times. */
  scope: z.enum(['line', 'horizon', 'all']),
  horizon: z.string().nullable(),
  /** Outline inside which it is; null for everywhere. */
  outline: z.string().nullable(),
  above: z.number().min(-500).max(1000),
  below: z.number().min(-500).max(1000),
  /** Range of times, ms; null for all of them. */
  range: point.nullable(),
  method: z.enum(FREQUENCY_METHODS),
  /** m/s; null as the wells have it. */
  velocity: z.number().min(300).max(9000).nullable(),
  decibels: z.boolean(),
  /** Dragged band, Hz. */
  band: point.nullable(),
  /** Frequencies that are to be blended; null for those that are offered. */
  three: z.tuple([z.number(), z.number(), z.number()]).nullable(),
  /** What shades their blend: `none`, `semblance`, or a map. */
  shade: z.string(),
};

const net = {
  /** Whether the density of poles is drawn. */
  density: z.boolean(),
  /** Turns time into depth for faults that were not found in a volume, m/s. */
  velocity: z.number().min(300).max(8000),
};

const velocity = {
  /** Whether depths are drawn less those of the model in use. */
  less: z.boolean(),
};

const SCHEMAS = {
  section,
  map,
  scene,
  tie: {},
  logs,
  crossplot,
  spectrum,
  net,
  pay: {},
  velocity,
  catalogue: {},
} satisfies Record<ViewKind, Record<string, z.ZodType>>;

type SettingsOf<K extends ViewKind> = { [F in keyof (typeof SCHEMAS)[K]]: z.infer<(typeof SCHEMAS)[K][F]> };
export type Settings = { [K in Exclude<ViewKind, 'logs' | 'crossplot'>]: SettingsOf<K> } & {
  logs: LogsDesk;
  crossplot: PlotDesk;
};

/** What a view of each kind begins with. */
export const USUAL: Settings = {
  section: {
    domain: 'twt',
    volume: null,
    along: 'inline',
    path: null,
    line: null,
    joined: null,
    increment: 1,
    traces: 'density',
    trueDistance: false,
    axis: 'line',
    over: null,
    log: null,
    compare: null,
    listed: false,
  },
  map: {
    domain: 'twt',
    volume: null,
    shows: null,
    upon: null,
    light: true,
    contours: true,
    graticule: 'map',
    increment: 1,
    listed: false,
  },
  scene: {
    domain: 'twt',
    volume: null,
    exaggeration: 2,
    planes: { inline: true, crossline: true, slice: true },
    perspective: true,
    fence: true,
    blend: null,
    upon: null,
    log: null,
    crop: [0, 1, 0, 1, 0, 1],
    cloud: false,
    // what lies about nought is clear, what is strong is not
    transfer: [
      [0, 0.5],
      [0.18, 0.12],
      [0.35, 0],
      [0.65, 0],
      [0.82, 0.12],
      [1, 0.5],
    ],
    listed: false,
  },
  tie: {},
  logs: LOGS_DESK,
  crossplot: PLOT_DESK,
  spectrum: {
    volume: null,
    scope: 'line',
    horizon: null,
    outline: null,
    above: 20,
    below: 60,
    range: null,
    method: 'Morlet wavelet',
    velocity: null,
    decibels: false,
    band: null,
    three: null,
    shade: 'semblance',
  },
  net: { density: true, velocity: 2500 },
  pay: {},
  velocity: { less: false },
  catalogue: {},
};

/** Settings of a view as they may come from elsewhere: each is kept where it can be used. */
export function readSettings(kind: ViewKind, value: unknown): Record<string, unknown> {
  if (typeof value !== 'object' || value === null) return {};
  const fields: Record<string, z.ZodType> = SCHEMAS[kind];
  return Object.fromEntries(
    Object.entries(fields).flatMap(([key, schema]) => {
      const parsed = schema.safeParse((value as Record<string, unknown>)[key]);
      return parsed.success ? [[key, parsed.data]] : [];
    }),
  );
}
