import { z } from 'zod';
import { latticeSchema } from './lattice.ts';
import { QUANTITIES, type Quantity } from './units.ts';

/** Time or depth (or geological age): declared on everything that has a vertical position, never implied. */
export const domainSchema = z.enum(['twt', 'depth', 'age']);
export type Domain = z.infer<typeof domainSchema>;

export const quantitySchema = z.enum(Object.keys(QUANTITIES) as [Quantity, ...Quantity[]]);

/** A reference to an array in the array store, chunked as Zarr v3 chunks are. */
export const arrayRefSchema = z.object({
  key: z.string(),
  shape: z.array(z.int().positive()),
  chunk: z.array(z.int().positive()),
  /** Whether its chunks lie in one folder. Of many chunks, a folder for every index takes as long as their writing. */
  flat: z.boolean().optional(),
  /** Where values are kept as 16-bit integers: `value = offset + factor·n`. */
  scaled: z.object({ factor: z.number().positive(), offset: z.number() }).optional(),
});
export type ArrayRef = z.infer<typeof arrayRefSchema>;

/** How an object came to be. `inputs` hold `id@revision`. */
export const madeBySchema = z.object({
  step: z.string(),
  version: z.int(),
  params: z.record(z.string(), z.unknown()),
  inputs: z.record(z.string(), z.array(z.string())),
  /** Role of this object among the outputs of its run. */
  output: z.string().optional(),
  /** Name of the file that it was read from, where it was. */
  file: z.string().optional(),
  started: z.string(),
  tookMs: z.number(),
  warnings: z.array(z.string()),
  engine: z.string(),
});
export type MadeBy = z.infer<typeof madeBySchema>;

const base = {
  id: z.string(),
  name: z.string().min(1).max(200),
  /** Hash of what made it: for what was loaded, of its samples and declarations. */
  revision: z.string(),
  stage: z.string(),
  color: z.string().optional(),
  tags: z.array(z.string()).optional(),
  /** What people wrote about it. */
  note: z.string().max(20000).optional(),
  madeBy: madeBySchema,
};

const statistics = z.object({
  min: z.number(),
  max: z.number(),
  mean: z.number(),
  rms: z.number(),
  count: z.int(),
  nulls: z.int(),
  /** Absolute value below which 90, 95, 98, 99, 99.5 % of samples lie. */
  absolute: z.record(z.string(), z.number()),
  /** Value below which the given percentage lies. */
  percentiles: z.record(z.string(), z.number()),
});
export type Statistics = z.infer<typeof statistics>;

export const volumeSchema = z.object({
  ...base,
  kind: z.literal('volume'),
  lattice: latticeSchema,
  domain: domainSchema,
  quantity: quantitySchema,
  unit: z.string(),
  polarity: z.enum(['harder-positive', 'harder-negative']).optional(),
  /** Vertical samples: first and step in ms (twt) or m (depth). */
  vertical: z.object({ first: z.number(), step: z.number().positive(), count: z.int().positive() }),
  /** The same samples chunked for each kind of plane; `inline` is always there. */
  layouts: z.object({
    inline: arrayRefSchema,
    crossline: arrayRefSchema.optional(),
    slice: arrayRefSchema.optional(),
    /** Every `by`-th trace of a large volume, cut the same three ways, for a first look. */
    coarse: z
      .object({ by: z.int().min(2), inline: arrayRefSchema, crossline: arrayRefSchema, slice: arrayRefSchema })
      .optional(),
  }),
  statistics,
  traces: z.object({ live: z.int(), missing: z.int(), duplicate: z.int() }),
  text: z.array(z.string()).optional(),
});
export type Volume = z.infer<typeof volumeSchema>;

/** Seismic along a 2D line. */
export const lineSchema = z.object({
  ...base,
  kind: z.literal('seismic line'),
  domain: domainSchema,
  quantity: quantitySchema,
  unit: z.string(),
  polarity: z.enum(['harder-positive', 'harder-negative']).optional(),
  vertical: z.object({ first: z.number(), step: z.number().positive(), count: z.int().positive() }),
  /** Map coordinates of each trace, metres; empty where only its navigation has them. */
  path: z.array(z.tuple([z.number(), z.number()])),
  cdps: z.array(z.number()),
  /** Shotpoint of each trace, where the file or a table gives it. */
  shotpoints: z.array(z.number()).optional(),
  /** `[trace][sample]`. */
  samples: arrayRefSchema,
  statistics,
  text: z.array(z.string()).optional(),
});
export type SeismicLine = z.infer<typeof lineSchema>;

/** Where the traces or shots of a 2D line lie; it is found by the line's name. */
export const navigationSchema = z.object({
  ...base,
  kind: z.literal('navigation'),
  line: z.string(),
  by: z.enum(['cdp', 'shotpoint']),
  /** Number, then map coordinates in metres. */
  points: z.array(z.tuple([z.number(), z.number(), z.number()])),
});
export type Navigation = z.infer<typeof navigationSchema>;

export const wellSchema = z.object({
  ...base,
  kind: z.literal('well'),
  x: z.number(),
  y: z.number(),
  /** Elevation of the kelly bushing above mean sea level, metres. */
  kbM: z.number(),
  totalMdM: z.number().optional(),
  status: z.string().optional(),
});
export type Well = z.infer<typeof wellSchema>;

/** Which curve a mnemonic stands for. */
export const curveClassSchema = z.enum([
  'gamma ray',
  'sonic',
  'shear sonic',
  'density',
  'neutron',
  'resistivity',
  'caliper',
  'density correction',
  'shale volume',
  'porosity',
  'effective porosity',
  'water saturation',
  'net flag',
  'bad hole',
  'P impedance',
  'S impedance',
  'velocity ratio',
  'facies probability',
  'distance to training',
  'other',
]);
export type CurveClass = z.infer<typeof curveClassSchema>;

export const logsSchema = z.object({
  ...base,
  kind: z.literal('logs'),
  well: z.string(),
  depth: z.object({ firstM: z.number(), stepM: z.number(), count: z.int() }),
  curves: z.array(
    z.object({
      mnemonic: z.string(),
      class: curveClassSchema,
      unit: z.string(),
      fileUnit: z.string(),
      description: z.string(),
      data: arrayRefSchema,
      min: z.number(),
      max: z.number(),
      nulls: z.int(),
    }),
  ),
});
export type Logs = z.infer<typeof logsSchema>;

/**
 * Rows of tops are name and measured depth; those that were picked here or carried also say how sure they are (0 to 1),
 * whether they are a top or a fault cut, the section (m) that a cut misses (positive) or repeats (negative), and how
 * they came.
 */
export const TOP_COLUMNS = [
  { name: 'Top', unit: '' },
  { name: 'MD', unit: 'm' },
  { name: 'Confidence', unit: '' },
  { name: 'Kind', unit: '' },
  { name: 'Missing section', unit: 'm' },
  { name: 'How', unit: '' },
];

/** A table of rows about one well: directional survey, tops, checkshots, pressures, fluid samples, core points, facies. */
export const wellTableSchema = z.object({
  ...base,
  kind: z.enum(['directional surveys', 'tops', 'checkshots', 'pressures', 'fluid samples', 'core points', 'facies']),
  well: z.string(),
  columns: z.array(z.object({ name: z.string(), unit: z.string() })),
  rows: z.array(z.array(z.union([z.number(), z.string(), z.null()]))),
  /** What times of checkshots are counted from; the seismic datum where it is not given. */
  reference: z.enum(['datum', 'msl', 'kb']).optional(),
  /** Seismic datum and replacement velocity of the project when times of another reference were loaded. */
  datumM: z.number().optional(),
  replacementVelocity: z.number().positive().optional(),
});
export type WellTable = z.infer<typeof wellTableSchema>;

/** Order and look of the rocks, youngest first: what lies below each top down to the next. */
export const stratigraphySchema = z.object({
  ...base,
  kind: z.literal('stratigraphic column'),
  units: z.array(
    z.object({
      /** The top that the unit begins with. */
      top: z.string().min(1).max(200),
      /** What the unit is called. */
      zone: z.string().min(1).max(200),
      color: z.string(),
      pattern: z.enum(['none', 'sand', 'shale', 'silt', 'marl', 'limestone', 'basement']),
      /** Whether its top is an unconformity, below which beds may be missing. */
      unconformity: z.boolean(),
    }),
  ),
});
export type Stratigraphy = z.infer<typeof stratigraphySchema>;

export const faultSchema = z.object({
  ...base,
  kind: z.literal('fault'),
  domain: domainSchema,
  /** Sticks from the top down: map coordinates in metres and TWT (ms) or depth (m). */
  sticks: z.array(z.array(z.tuple([z.number(), z.number(), z.number()]))),
});
export type Fault = z.infer<typeof faultSchema>;

/** Which event of the waveform is followed. */
export const eventSchema = z.enum(['trough', 'peak', 'zero rising', 'zero falling']);

/** What a person picked of one horizon on sections, and where its track was taken out. */
export const picksSchema = z.object({
  ...base,
  kind: z.literal('picks'),
  domain: domainSchema,
  event: eventSchema,
  /** Map coordinates in metres and TWT (ms) or depth (m). */
  points: z.array(z.tuple([z.number(), z.number(), z.number()])),
  /** Rings on the map that a track enters only from a pick inside them. */
  erased: z.array(z.array(z.tuple([z.number(), z.number()]))),
});
export type Picks = z.infer<typeof picksSchema>;

export const polygonSchema = z.object({
  ...base,
  kind: z.literal('polygon'),
  closed: z.boolean(),
  rings: z.array(z.array(z.tuple([z.number(), z.number()]))),
});
export type Polygon = z.infer<typeof polygonSchema>;

export const horizonSchema = z.object({
  ...base,
  kind: z.literal('horizon'),
  domain: domainSchema,
  lattice: latticeSchema,
  /** `[inline][crossline]`, ms or m, NaN where there is none. */
  values: arrayRefSchema,
  confidence: arrayRefSchema.optional(),
  range: z.tuple([z.number(), z.number()]),
  filled: z.number(),
});
export type Horizon = z.infer<typeof horizonSchema>;

/** Depths of fluid contacts, m below the datum; null where there is no such contact. */
export const contactsSchema = z.object({
  ...base,
  kind: z.literal('contacts'),
  gocM: z.number().nullable(),
  owcM: z.number(),
  /** What the data allow, about 95 %; null where typed. */
  gocRange: z.tuple([z.number(), z.number()]).nullable(),
  owcRange: z.tuple([z.number(), z.number()]).nullable(),
  /** rms misfit of the pressures. */
  misfitPa: z.number().optional(),
});
export type FluidContacts = z.infer<typeof contactsSchema>;

/** A quantity over the bins of a survey. */
export const mapSchema = z.object({
  ...base,
  kind: z.literal('map'),
  lattice: latticeSchema,
  quantity: z.string(),
  unit: z.string(),
  /** `[inline][crossline]`, NaN where there is none. */
  values: arrayRefSchema,
  range: z.tuple([z.number(), z.number()]),
});
export type QuantityMap = z.infer<typeof mapSchema>;

/** Layers between horizons, from the sea bed down, each with `v(z) = v0 + k·z`, z below the datum. */
export const velocityModelSchema = z.object({
  ...base,
  kind: z.literal('velocity model'),
  /** Bins of the maps of v0, where there are any. */
  lattice: latticeSchema.optional(),
  /** Velocity of sea water, m/s. */
  waterVelocity: z.number(),
  layers: z.array(
    z.object({
      /** The horizon at the layer's base. */
      base: z.string(),
      v0: z.number(),
      k: z.number(),
      /** v0 bin by bin `[inline][crossline]` where a velocity volume guides the layer sideways. */
      v0Map: arrayRefSchema.optional(),
      /** rms misfit at the wells, metres, and how many points it rests on; zero points where typed or carried down. */
      rms: z.number(),
      points: z.int(),
    }),
  ),
});
export type VelocityModel = z.infer<typeof velocityModelSchema>;

/** A wavelet at a sample interval of its own. */
export const waveletSchema = z.object({
  ...base,
  kind: z.literal('wavelet'),
  stepMs: z.number().positive(),
  /** Time of the first sample, ms; 0 is the reflector. */
  firstMs: z.number(),
  samples: z.array(z.number()),
  method: z.enum([
    'Ricker',
    'Ormsby',
    'Butterworth',
    'Klauder',
    'statistical',
    'least squares',
    'average',
    'imported',
    'turned',
  ]),
  /** Constant phase it was given, degrees. */
  phaseDeg: z.number(),
  /** Angle of incidence of the stack that it belongs to, degrees. */
  angleDeg: z.number().optional(),
  /** Of an estimate: half width of each sample's 90 % interval, part of the trace that it predicts, wells, length of the window. */
  estimate: z
    .object({
      halfWidth: z.array(z.number()),
      predictability: z.number(),
      /** Power signal-to-noise by frequency (Hz). */
      band: z.array(z.object({ hz: z.number(), signalToNoise: z.number() })),
      wells: z.array(z.string()),
      /** Cross-validated error relative to the trace, by length tried (ms). */
      tried: z.array(z.object({ lengthMs: z.number(), noise: z.number(), error: z.number() })),
    })
    .optional(),
});
export type Wavelet = z.infer<typeof waveletSchema>;

/** Depth against two-way time down a well, as a tie was accepted. */
export const relationSchema = z.object({
  ...base,
  kind: z.literal('time-depth relation'),
  well: z.string(),
  /** `[TVDSS m, TWT ms]`, both rising, from the datum down. */
  pairs: z.array(z.tuple([z.number(), z.number()])).min(2),
  /** Drift (checkshot − sonic, ms) at the knees of its correction. */
  knees: z.array(z.object({ tvdss: z.number(), driftMs: z.number() })),
  shiftMs: z.number(),
  phaseDeg: z.number(),
  /** Correlation of synthetic and seismic in the window (ms) that it was measured in. */
  correlation: z.number(),
  windowMs: z.tuple([z.number(), z.number()]),
  /** When it was last made the well's active one; its making, where it never was. */
  activated: z.string().optional(),
  /** Times that were pinned or found by alignment: TWT of the calibrated sonic, and what is added to it there, ms. */
  pins: z.array(z.object({ twt: z.number(), shiftMs: z.number() })).optional(),
  /** How the match stands against chance and against others. */
  evidence: z
    .object({
      /** Part of matches with noise of the same band, searched as widely, that are as good. */
      chance: z.number(),
      runnerUp: z.object({ shiftMs: z.number(), correlation: z.number() }).nullable(),
      /** Best correlation with either polarity. */
      asDeclared: z.number(),
      turnedOver: z.number(),
      predictability: z.number(),
      /** 90 % half width of the shift, ms. */
      uncertaintyMs: z.number(),
      /** Greatest difference of implied velocity from the calibrated sonic, part. */
      velocityChange: z.number(),
      /** Sentences that speak against the tie. */
      warnings: z.array(z.string()),
    })
    .optional(),
  /** Why it was accepted against its warnings. */
  reason: z.string().optional(),
});
export type TimeDepthRelation = z.infer<typeof relationSchema>;

/** Synthetic traces of a well at angles of incidence. */
export const gatherSchema = z.object({
  ...base,
  kind: z.literal('synthetic gather'),
  well: z.string(),
  anglesDeg: z.array(z.number()).min(1),
  firstMs: z.number(),
  stepMs: z.number().positive(),
  /** `[angle][sample]`. */
  samples: arrayRefSchema,
  /** How reflections were computed. */
  form: z.string(),
});
export type SyntheticGather = z.infer<typeof gatherSchema>;

/** What is plotted along one axis of a crossplot. */
export const plotAxisSchema = z.object({
  /** Class of curve, or id of a map or volume. */
  of: z.string(),
  log: z.boolean().default(false),
});

/** Points inside a polygon drawn in a crossplot, kept as a class of rock. */
export const plotClassSchema = z.object({
  ...base,
  kind: z.literal('crossplot class'),
  x: plotAxisSchema,
  y: plotAxisSchema,
  /** Values along x and y in SI units. */
  ring: z.array(z.tuple([z.number(), z.number()])).min(3),
});
export type PlotClass = z.infer<typeof plotClassSchema>;

/** A table of results. */
export const resultTableSchema = z.object({
  ...base,
  kind: z.literal('result table'),
  columns: z.array(z.object({ name: z.string(), unit: z.string() })),
  rows: z.array(z.array(z.union([z.number(), z.string(), z.null()]))),
  /** The same as records for programs, where the table is one of volumes. */
  records: z.array(z.record(z.string(), z.unknown())).optional(),
});
export type ResultTable = z.infer<typeof resultTableSchema>;

export const objectSchema = z.discriminatedUnion('kind', [
  velocityModelSchema,
  resultTableSchema,
  mapSchema,
  contactsSchema,
  waveletSchema,
  relationSchema,
  gatherSchema,
  plotClassSchema,
  stratigraphySchema,
  volumeSchema,
  lineSchema,
  navigationSchema,
  wellSchema,
  logsSchema,
  wellTableSchema,
  faultSchema,
  picksSchema,
  polygonSchema,
  horizonSchema,
]);
export type EarthObject = z.infer<typeof objectSchema>;
/** An object of one kind. */
export type ObjectOf<K extends Kind> = EarthObject extends infer O
  ? O extends { kind: string }
    ? K extends O['kind']
      ? O
      : never
    : never
  : never;
export type Kind = EarthObject['kind'];

/** What a project is measured in. */
export const frameSchema = z.object({
  crs: z.string(),
  crsName: z.string(),
  /** Unit of the map's coordinates in files and on the screen; inside they are metres. */
  unit: z.enum(['m', 'ft', 'us-ft']),
  /** Elevation of the seismic datum, where TWT is 0, above mean sea level, metres. */
  datumM: z.number().default(0),
  /** Velocity between the datum and the ground or sea, m/s: what brings times of another datum to this one. */
  replacementVelocity: z.number().positive().default(1500),
  /** Sign of an increase of impedance that seismic is taken to have where a file does not say. */
  polarity: z.enum(['harder-positive', 'harder-negative']).default('harder-positive'),
  /** Units of depths, velocities, logs, pressures and volumes on the screen and in tables that go out. */
  display: z.enum(['metric', 'field']),
});
export type Frame = z.infer<typeof frameSchema>;

/** How values of an object's domain read: “TWT” in ms or “Depth” in m. */
export function domainUnit(domain: Domain): string {
  return domain === 'twt' ? 'ms' : domain === 'depth' ? 'm' : 'units of age';
}
