/** What there is to know of a kind of quantity wherever it is stored, drawn, asked for or averaged. SI inside. */
export interface QuantityFacts {
  /** Unit that it is kept in; empty where it has none, 1 where it is a part of a whole. */
  unit: string;
  /** Legal range in that unit. */
  range: [number, number];
  /** Whether its values lie to both sides of nothing, so that its colours do too. */
  symmetric: boolean;
  /** Colour map that it is first drawn in, and whether that runs the other way. */
  colors: { map: 'rust–bone–slate' | 'ink' | 'strata' | 'lichen' | 'ember' | 'compass'; reverse: boolean };
  /** Percent of samples that lie within its colours at first: all, or without the few that would take them for themselves. */
  clip: 99 | 100;
  /** Words for the ends of its range in a legend, where it has such: those of the lower end first. */
  ends?: [string, string];
  /** How values are averaged over a thickness: as they are, or as their inverse, which a wave adds up. */
  average: 'arithmetic' | 'harmonic';
  /** Whether values run on, come round again (as degrees do), or are names. */
  scale: 'continuous' | 'cyclic' | 'categorical';
  /** What may hold it: samples of seismic, bins of a map, curves of a well, cells of a grid. */
  of: ('volume' | 'map' | 'curve' | 'cell')[];
  /** How a curve of it is first drawn: values at the left and right edge of its track, and its line. */
  track?: { from: number; to: number; log: boolean; color: string };
}

const UNBOUNDED: [number, number] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
const POSITIVE: [number, number] = [0, Number.POSITIVE_INFINITY];
const PART: [number, number] = [0, 1];
const RISING = { map: 'strata', reverse: false } as const;
const SIGNED = { map: 'rust–bone–slate', reverse: false } as const;
const GREENING = { map: 'lichen', reverse: false } as const;

const plain = {
  unit: '',
  symmetric: false,
  clip: 100,
  average: 'arithmetic',
  scale: 'continuous',
} as const satisfies Partial<QuantityFacts>;

const velocity = {
  ...plain,
  unit: 'm/s',
  range: [300, 9000],
  colors: RISING,
  average: 'harmonic',
  of: ['volume', 'map', 'cell'],
} as const satisfies QuantityFacts;

/** A curve drawn from one value at the left of its track to another at the right. */
const curve = (
  unit: string,
  range: [number, number],
  [from, to]: [number, number],
  color: string,
  more: Partial<QuantityFacts> = {},
): QuantityFacts => ({
  ...plain,
  unit,
  range,
  colors: RISING,
  of: ['curve'],
  track: { from, to, log: false, color },
  ...more,
});

const PROPERTY: Partial<QuantityFacts> = { of: ['curve', 'map', 'cell'], colors: GREENING };

const table = {
  amplitude: { ...plain, range: UNBOUNDED, symmetric: true, colors: SIGNED, clip: 99, of: ['volume', 'map'] },
  'interval velocity': velocity,
  'RMS velocity': velocity,
  'stacking velocity': velocity,
  'average velocity': velocity,
  intercept: { ...plain, range: UNBOUNDED, symmetric: true, colors: SIGNED, clip: 99, of: ['volume', 'map'] },
  gradient: { ...plain, range: UNBOUNDED, symmetric: true, colors: SIGNED, clip: 99, of: ['volume', 'map'] },
  'relative impedance': {
    ...plain,
    range: UNBOUNDED,
    symmetric: true,
    colors: SIGNED,
    clip: 99,
    of: ['volume', 'map'],
  },
  // standard deviation of a logarithm, which is about that of a part
  spread: {
    ...plain,
    unit: '1',
    range: POSITIVE,
    colors: { map: 'ember', reverse: false },
    clip: 99,
    of: ['volume', 'map'],
  },
  'S velocity': velocity,
  impedance: { ...plain, unit: 'kg/m²s', range: [1e5, 3e7], colors: RISING, of: ['volume', 'map', 'cell'] },
  variance: {
    ...plain,
    range: PART,
    colors: { map: 'ink', reverse: true },
    clip: 99,
    ends: ['alike', 'unlike'],
    of: ['volume', 'map'],
  },
  coherence: {
    ...plain,
    range: PART,
    colors: { map: 'ink', reverse: false },
    clip: 99,
    ends: ['unlike', 'alike'],
    of: ['volume', 'map'],
  },
  chaos: {
    ...plain,
    range: PART,
    colors: { map: 'ink', reverse: true },
    clip: 99,
    ends: ['layered', 'chaotic'],
    of: ['volume', 'map'],
  },
  'fault strength': {
    ...plain,
    range: PART,
    colors: { map: 'ember', reverse: false },
    ends: ['unbroken', 'broken'],
    of: ['volume', 'map'],
  },
  'relative age': { ...plain, range: UNBOUNDED, colors: RISING, of: ['volume', 'map'] },
  dip: { ...plain, range: UNBOUNDED, symmetric: true, colors: SIGNED, clip: 99, of: ['volume', 'map'] },
  'dip angle': { ...plain, unit: '°', range: [0, 90], colors: RISING, clip: 99, of: ['volume', 'map'] },
  azimuth: {
    ...plain,
    unit: '°',
    range: [0, 360],
    colors: { map: 'compass', reverse: false },
    scale: 'cyclic',
    of: ['volume', 'map'],
  },
  curvature: { ...plain, range: UNBOUNDED, symmetric: true, colors: SIGNED, clip: 99, of: ['volume', 'map'] },
  envelope: { ...plain, range: POSITIVE, colors: { map: 'ember', reverse: false }, clip: 99, of: ['volume', 'map'] },
  phase: {
    ...plain,
    unit: '°',
    range: [-180, 180],
    colors: { map: 'compass', reverse: false },
    scale: 'cyclic',
    of: ['volume', 'map'],
  },
  frequency: { ...plain, unit: 'Hz', range: UNBOUNDED, colors: RISING, clip: 99, of: ['volume', 'map'] },
  class: { ...plain, range: POSITIVE, colors: RISING, scale: 'categorical', of: ['volume', 'map'] },
  probability: { ...plain, unit: '1', range: PART, colors: GREENING, of: ['volume', 'map'] },
  attribute: { ...plain, range: UNBOUNDED, colors: RISING, of: ['volume', 'map', 'cell'] },
  depth: { ...plain, unit: 'm', range: UNBOUNDED, colors: RISING, of: ['map'] },
  'two-way time': { ...plain, unit: 'ms', range: UNBOUNDED, colors: RISING, of: ['map'] },
  thickness: { ...plain, unit: 'm', range: POSITIVE, colors: GREENING, of: ['map'] },
  confidence: { ...plain, range: PART, colors: GREENING, ends: ['unsure', 'sure'], of: ['map', 'curve'] },
  'gamma ray': curve('gAPI', [-20, 2000], [0, 150], '#3f6b4f'),
  sonic: curve('us/m', [50, 3000], [650, 200], '#5a5f8f'),
  'shear sonic': curve('us/m', [50, 10000], [1500, 300], '#a0709c'),
  density: curve('kg/m3', [500, 6000], [1900, 2800], '#a3452f', { of: ['curve', 'cell', 'volume', 'map'] }),
  neutron: curve('1', [-0.2, 1], [0.54, 0], '#2f6f8f'),
  resistivity: curve('ohm.m', POSITIVE, [0.2, 200], '#7a5a1e', {
    track: { from: 0.2, to: 200, log: true, color: '#7a5a1e' },
  }),
  caliper: curve('m', [0.02, 2], [0.15, 0.4], '#6b6b6b'),
  'density correction': curve('kg/m3', UNBOUNDED, [-250, 250], '#8a7f6a', { symmetric: true, colors: SIGNED }),
  'shale volume': curve('1', PART, [0, 1], '#6f7f4f', PROPERTY),
  porosity: curve('1', PART, [0.5, 0], '#2f6f8f', PROPERTY),
  'effective porosity': curve('1', PART, [0.5, 0], '#1f4f7f', PROPERTY),
  'water saturation': curve('1', PART, [1, 0], '#3d7fb5', PROPERTY),
  'net flag': curve('', [0, 2], [0, 2.2], '#b4641e', { scale: 'categorical' }),
  'bad hole': curve('', PART, [0, 1.1], '#b3322b', { scale: 'categorical', ends: ['good', 'bad'] }),
  'P impedance': curve('kg/m²s', [1e5, 3e7], [3e6, 9e6], '#4f5d6b'),
  'S impedance': curve('kg/m²s', [1e4, 2e7], [1e6, 6e6], '#8f6f9f'),
  'velocity ratio': curve('', [1, 10], [1.4, 3], '#7f4f3f'),
  'facies probability': curve('', PART, [0, 1], '#5f6f3f', { colors: GREENING }),
  'distance to training': curve('', POSITIVE, [0, 8], '#b3322b'),
} satisfies Record<string, QuantityFacts>;

export type Quantity = keyof typeof table;

/** Quantities whose samples swing as seismic does, which what is made for seismic takes too. */
export const SEISMIC_LIKE: Quantity[] = [
  'amplitude',
  'attribute',
  'impedance',
  'intercept',
  'gradient',
  'relative impedance',
];

/** Every quantity that a project may hold. */
export const QUANTITIES: Record<Quantity, QuantityFacts> = table;

const quantities = new Map<string, QuantityFacts>(Object.entries(table));

/** Make a quantity known everywhere. */
export function registerQuantity(name: string, facts: QuantityFacts): void {
  if (quantities.has(name)) throw new Error(`two quantities are called ${name}`);
  quantities.set(name, facts);
}

export function forgetQuantity(name: string): void {
  if (!Object.hasOwn(table, name)) quantities.delete(name);
}

export function isQuantity(name: unknown): name is Quantity {
  return typeof name === 'string' && quantities.has(name);
}

/** Names of quantities that may be held so. */
export const quantitiesOf = (what: QuantityFacts['of'][number]): Quantity[] =>
  [...quantities].flatMap(([name, { of }]) => (of.includes(what) ? [name as Quantity] : []));

/** Facts of a quantity by its name; those of an attribute where nobody knows it. */
export const quantityFacts = (name: string): QuantityFacts => quantities.get(name) ?? table.attribute;

/** Words for the ends of a quantity's range: “0 alike to 1 unlike”; empty where it has none. */
export function endsText(name: string): string {
  const { ends, range } = quantityFacts(name);
  return ends ? `${range[0]} ${ends[0]} to ${range[1]} ${ends[1]}` : '';
}
