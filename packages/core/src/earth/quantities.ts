/** What there is to know of a kind of quantity wherever it is stored, drawn, asked for or averaged. SI inside. */
export interface QuantityFacts {
  unit: string;
  /** Legal range in the SI unit. */
  range: [number, number];
  /** Whether its values lie to both sides of nothing, so that its colours do too. */
  symmetric: boolean;
  /** Colour map that it is first drawn in, and whether that runs the other way. */
  colors: { map: 'rust–bone–slate' | 'ink' | 'strata'; reverse: boolean };
  /** Percent of samples that lie within its colours at first: all, or without the few that would take them for themselves. */
  clip: 99 | 100;
  /** Words for the ends of its range in a legend, where it has such: the least first. */
  ends?: [string, string];
  /** How values are averaged over a thickness: as they are, or as their inverse, which a wave adds up. */
  average: 'arithmetic' | 'harmonic';
  /** Whether values run on, come round again (as degrees do), or are names. */
  scale: 'continuous' | 'cyclic' | 'categorical';
}

const UNBOUNDED: [number, number] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
const RISING = { map: 'strata', reverse: false } as const;
const SIGNED = { map: 'rust–bone–slate', reverse: false } as const;

const velocity = {
  unit: 'm/s',
  range: [300, 9000],
  symmetric: false,
  colors: RISING,
  clip: 100,
  average: 'harmonic',
  scale: 'continuous',
} as const satisfies QuantityFacts;

const plain = { unit: '', symmetric: false, clip: 100, average: 'arithmetic', scale: 'continuous' } as const;

export const QUANTITIES = {
  amplitude: { ...plain, range: UNBOUNDED, symmetric: true, colors: SIGNED, clip: 99 },
  'interval velocity': velocity,
  'RMS velocity': velocity,
  'stacking velocity': velocity,
  'average velocity': velocity,
  impedance: { ...plain, unit: 'kg/m²s', range: [1e5, 3e7], colors: RISING },
  variance: { ...plain, range: [0, 1], colors: { map: 'ink', reverse: true }, clip: 99, ends: ['alike', 'unlike'] },
  attribute: { ...plain, range: UNBOUNDED, colors: RISING },
} as const satisfies Record<string, QuantityFacts>;

export type Quantity = keyof typeof QUANTITIES;

export function isQuantity(name: string): name is Quantity {
  return Object.hasOwn(QUANTITIES, name);
}

/** Facts of a quantity by its name; those of an attribute where nobody knows it. */
export const quantityFacts = (name: string): QuantityFacts => QUANTITIES[isQuantity(name) ? name : 'attribute'];
