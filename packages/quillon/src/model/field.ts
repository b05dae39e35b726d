import { type Block, beddingHeight, blocksAt, drawStructure, layerAt, type Structure } from './earth.ts';
import { randomFor } from './random.ts';
import { drawRocks, porosityOf, type Rock, type Rocks, rockOf, sandOf } from './rocks.ts';
import { findTraps, type Traps } from './traps.ts';

/** Depths (m below mean sea level) of the fluid contacts; what is null is not there. */
export interface Contacts {
  goc: number | null;
  owc: number | null;
}

/** The blocks in which fluids are kept apart. */
export const AREAS = ['Crest', 'East', 'North'] as const;
export type Area = (typeof AREAS)[number];

/** The whole made-up field of a seed. */
export interface Field {
  seed: number;
  /** Which draw of the seed it is: enough, with the seed, to make it again without a search. */
  attempt: number;
  structure: Structure;
  rocks: Rocks;
  traps: Traps;
  contacts: Record<Area, Contacts>;
}

/** What a seed must have to be this field and not another; a draw without it is thrown away. */
function contactsOf(traps: Traps, seed: number): Record<Area, Contacts> | null {
  const random = randomFor(seed, 'contacts');
  const { crest, east } = traps;
  const closure = crest.spillM - crest.topM;
  const owc = Math.min(crest.topM + closure * random.between(0.82, 0.9), traps.northTopM - 5);
  const goc = crest.topM + (owc - crest.topM) * random.between(0.38, 0.46);
  if (owc - crest.topM < 96 || closure > 160) return null;
  if (traps.leakM - east.topM < 42 || traps.leakM > east.spillM + 2) return null;
  return { Crest: { goc, owc }, East: { goc: null, owc: traps.leakM }, North: { goc: null, owc: null } };
}

/** The field of one draw, or null where its traps are not those of this field. */
export function fieldOfDraw(seed: number, attempt: number): Field | null {
  const structure = drawStructure(seed, attempt);
  const traps = findTraps(structure);
  const contacts = contactsOf(traps, seed);
  return contacts && { seed, attempt, structure, rocks: drawRocks(seed), traps, contacts };
}

/** Make the field of a seed: structures are drawn until one has the traps that the field is about. */
export function makeField(seed: number): Field {
  for (let attempt = 0; attempt < 400; attempt++) {
    const field = fieldOfDraw(seed, attempt);
    if (field) return field;
  }
  throw new Error(`No structure of seed ${seed} holds both traps.`);
}

/** Which fluid area a place in Tolven belongs to, from its side of the faults. */
export function areaAt(u: number, v: number, sides: number): Area {
  if ((sides & 1) === 0 && u > 2600) return 'East';
  return (sides & 2) !== 0 && v > 1800 && u < 2800 ? 'North' : 'Crest';
}

/** Whether hydrocarbons of an area can reach a place: within the trap, not a high elsewhere on its flank. */
function reached(field: Field, area: Area, u: number, v: number): boolean {
  const { crest, east } = field.traps;
  if (area === 'Crest') return Math.hypot(u - crest.topU, v - crest.topV) < 1750 && u > 0 && v > 0;
  return area === 'East' && Math.abs(v - east.topV) < 1900;
}

/** Everything about one point. */
export interface Point extends Rock {
  layer: number;
  /** Net reservoir. */
  net: boolean;
  porosity: number;
  /** Water saturation. */
  water: number;
  fluid: 'brine' | 'oil' | 'gas';
  channel: number;
}

export function emptyPoint(): Point {
  return { vp: 0, vs: 0, rho: 0, layer: 0, net: false, porosity: 0, water: 1, fluid: 'brine', channel: 0 };
}

/** What is the same for a whole column: worked out once. */
export interface Column {
  field: Field;
  u: number;
  v: number;
  blocks: Block[];
  weights: Float64Array;
  lateral: number;
  channel: number;
  areas: Area[];
  contacts: (Contacts | null)[];
}

export function columnAt(field: Field, u: number, v: number, deepestM = 3000): Column {
  const { structure } = field;
  const blocks = blocksAt(structure, u, v, deepestM);
  const areas = blocks.map((block) => areaAt(u, v, block.sides));
  return {
    field,
    u,
    v,
    blocks,
    weights: structure.weights(u, v, new Float64Array(3)),
    lateral: structure.lateral(u, v),
    channel: structure.channel(u, v),
    areas,
    contacts: areas.map((area) => (reached(field, area, u, v) ? field.contacts[area] : null)),
  };
}

const BED_STRENGTH = [0, 0.04, 0.046, 0.05, 0.048, 0.022, 0.048, 0.045, 0.03];

/** The rock, fluid and age at a depth (m) of a column. */
export function pointAt(column: Column, z: number, out: Point): Point {
  const { field, u, v } = column;
  let b = 0;
  while (b < column.blocks.length - 1 && z >= column.blocks[b].base) b++;
  const s = column.blocks[b].surfaces;
  const layer = layerAt(s, z);
  const height = beddingHeight(layer, s, z);
  const bedding = field.structure.bedding[layer];
  const bed = layer === 0 ? 0 : BED_STRENGTH[layer] * bedding.at(height, column.weights);
  const burial = z - s[0];
  out.layer = layer;
  out.net = false;
  out.water = 1;
  out.fluid = 'brine';
  out.channel = column.channel;
  if (layer !== 5) {
    let dv = column.lateral;
    if (layer === 1) dv += field.structure.lens(u, v, (z - s[0]) / (s[1] - s[0]));
    out.porosity = porosityOf(field.rocks, layer, burial);
    rockOf(field.rocks, layer, burial, layer === 0 ? 0 : dv, bed, out);
    return out;
  }
  const rank = bedding.bedRank(height, column.weights);
  out.net = rank < 0.52 + 0.4 * column.channel;
  if (!out.net) {
    out.porosity = 0.1 + 0.04 * (rank - 0.5);
    rockOf(field.rocks, 4, burial, column.lateral - 0.06, bed, out);
    return out;
  }
  out.porosity = 0.245 + 0.045 * column.channel + 0.03 * (0.5 - rank) + 0.9 * bed - 0.00003 * (burial - 1000);
  const contacts = column.contacts[b];
  if (contacts?.owc != null && z < contacts.owc) {
    const irreducible = 0.34 - 0.17 * column.channel;
    out.water = irreducible + (1 - irreducible) * Math.exp(-(contacts.owc - z) / 5.5);
    out.fluid = contacts.goc != null && z < contacts.goc ? 'gas' : 'oil';
  }
  sandOf(field.rocks, out.porosity, burial, out.water, out.fluid, column.lateral, out);
  return out;
}

/** Thickest Brack Marl that its age is counted over, m: where less of it is left, its oldest beds were never laid down. */
const BRACK_M = 250;

/** Relative geological age between surfaces, rising downwards by one a layer; what was eroded or never laid down is missing. */
export function ageBetween(s: ArrayLike<number>, z: number): number {
  const layer = layerAt(s, z);
  // the marl is parallel to its top, as its bedding is, and laps onto the unconformity
  if (layer === 3) return 3 + Math.min(1, (z - s[2]) / BRACK_M);
  const tops = [0, s[0], s[1], s[2], s[4], s[5], s[6], s[7], s[8]];
  const bases = [s[0], s[1], s[2], s[3], s[5], s[6], s[7], s[8], s[8] + 1500];
  return layer + Math.min(1, Math.max(0, (z - tops[layer]) / Math.max(1e-6, bases[layer] - tops[layer])));
}

/** The same at a depth of a column. */
export function ageAt(column: Column, z: number): number {
  let b = 0;
  while (b < column.blocks.length - 1 && z >= column.blocks[b].base) b++;
  return ageBetween(column.blocks[b].surfaces, z);
}
