import { type Bedding, makeBedding } from './bedding.ts';
import { along, depthOfPlane, displacement, drawFaults, type Fault, isFaulted, planeAt, SURFACES } from './faults.ts';
import { type Random, randomFor } from './random.ts';
import { bump, type Field, ramp, wavyField } from './shapes.ts';

/** The shape of the layers before fluids: everything that a seed decides about structure, thickness and bedding. */
export interface Structure {
  seed: number;
  faults: Fault[];
  /** The crest of the dome, in survey coordinates. */
  crestU: number;
  crestV: number;
  /** Depths of `SURFACES` (m) at a place, for the side of each fault given by the bits of `sides` (1 = hanging wall). */
  surfaces(u: number, v: number, sides: number, out: Float64Array): Float64Array;
  /** Part (0..1) of channel sand against heterolithic background at a place. */
  channel: Field;
  /** Relative lateral change of velocity. */
  lateral: Field;
  /** Relative slowing of the Harrow Clay at a place and a relative height in it. */
  lens(u: number, v: number, height: number): number;
  bedding: Bedding[];
  /** Weights that blend the bedding logs from place to place. */
  weights(u: number, v: number, out: Float64Array): Float64Array;
}

export function drawStructure(seed: number, attempt: number): Structure {
  const random: Random = randomFor(seed, `structure ${attempt}`);
  const faults = drawFaults(random);
  const crestU = 2080 + random.between(-160, 160);
  const crestV = 1480 + random.between(-140, 140);
  const domeM = random.between(136, 156);
  const domeU = random.between(700, 860);
  const domeV = random.between(700, 840);
  const tolvenM = 1092 + random.between(-35, 45);
  const tilt = random.between(0.018, 0.03);
  const footTilt = random.between(0.075, 0.1);
  const southPlunge = random.between(70, 95);
  const northPlunge = random.between(14, 24);
  const relief = wavyField(random, 6, 1500, 4500);
  const seaBed = wavyField(random, 7, 1800, 6000);
  const shallow = wavyField(random, 8, 1600, 5000);
  const erosion = wavyField(random, 11, 900, 2600);
  const thickness = wavyField(random, 5, 1400, 3600);
  const deep = wavyField(random, 9, 1800, 5000);
  const baseThickness = random.between(46, 56);
  const pinchU = random.between(520, 760);
  const pinchV = random.between(2900, 3200);
  const beltPhase = random.between(0, 2 * Math.PI);
  const beltWave = random.between(1900, 2600);
  const beltWidth = random.between(360, 480);
  const beltShift = random.between(-150, 150);
  const lateralWave = wavyField(random, 0.0055, 2200, 6000);
  const lensStrength = random.between(0.85, 1.15);
  const lensU = crestU + random.between(-250, 250);
  const lensV = crestV + random.between(-200, 200);
  const lensSu = random.between(560, 760);
  const lensSv = random.between(560, 760);
  const bedding = SURFACES.map((_, k) => makeBedding(random, k === 5 ? 160 : 700, k === 5 ? 0.5 : 1));
  const blend = [0, 1].map(() => wavyField(random, 0.9, 1500, 4000));

  const structureOf: Field = (u, v) =>
    -domeM * bump(u - crestU, v - crestV, domeU, domeV) +
    tilt * (crestU - u) +
    relief(u, v) +
    // the eastern side falls away from the fault, and plunges along it: faster to the south
    footTilt * 380 * Math.log1p(Math.exp((u - 3520) / 380)) -
    30 * ramp(u, 2900, 3700) +
    ramp(u, 2600, 3600) * (v < 1750 ? southPlunge * ((1750 - v) / 1400) ** 2 : northPlunge * ((v - 1750) / 1200) ** 2);
  const channel: Field = (u, v) => {
    const centre = crestV + beltShift + 330 * Math.sin((2 * Math.PI * u) / beltWave + beltPhase) + 0.12 * (u - crestU);
    return 1 - ramp(Math.abs(v - centre), beltWidth * 0.7, beltWidth * 1.25);
  };
  const tolvenThickness: Field = (u, v) => {
    const pinch = ramp((u - pinchU) * 0.55 - (v - pinchV) * 0.84, -650, 500);
    const full = Math.min(70, Math.max(25, baseThickness + thickness(u, v) + 13 * (channel(u, v) - 0.4)));
    return full * pinch;
  };
  const nominal = new Float64Array(SURFACES.length);
  let thick = 0;
  let nominalU = Number.NaN;
  let nominalV = Number.NaN;
  /** The layers before faulting; the same place is asked for once per side of its faults. */
  const layDown = (u: number, v: number) => {
    if (u === nominalU && v === nominalV) return;
    nominalU = u;
    nominalV = v;
    const s = structureOf(u, v);
    nominal[0] = 85 + Math.max(-24, Math.min(24, seaBed(u, v) + 0.0035 * (u - 2500)));
    nominal[1] = 402 + 0.12 * s + shallow(u, v);
    nominal[2] = 618 + 0.28 * s + 0.6 * shallow(u, v);
    nominal[5] = tolvenM + s;
    nominal[3] = Math.max(nominal[2] + 12, 716 + 0.42 * s + erosion(u, v));
    // what the unconformity removed: more over the crest than off it
    nominal[4] = Math.min(nominal[5] - 600 + 0.05 * (u - 2500), nominal[3] - 40);
    thick = tolvenThickness(u, v);
    nominal[6] = nominal[5] + thick;
    nominal[7] = nominal[5] + 52 + 172 + deep(u, v);
    nominal[8] = nominal[7] + 225 - deep(u, v) * 1.5;
  };
  const surfaces = (u: number, v: number, sides: number, out: Float64Array) => {
    layDown(u, v);
    for (let k = 0; k < nominal.length; k++) out[k] = nominal[k];
    for (let f = 0; f < faults.length; f++) {
      const [n, t] = along(faults[f], u, v);
      if (!isFaulted(faults[f], t)) continue;
      const hanging = ((sides >> f) & 1) === 1;
      for (let k = 1; k < nominal.length; k++) out[k] += displacement(faults[f], k, n, t, hanging);
    }
    // beds keep their order wherever displacements differ
    if (out[6] < out[5]) out[6] = out[5];
    if (thick < 1) out[6] = out[5];
    return out;
  };
  return {
    seed,
    faults,
    crestU,
    crestV,
    surfaces,
    channel,
    lateral: (u, v) => Math.max(-0.02, Math.min(0.02, lateralWave(u, v))),
    lens: (u, v, height) =>
      -0.046 *
      lensStrength *
      bump(u - lensU, v - lensV, lensSu, lensSv) *
      (ramp(height, 0.15, 0.35) - ramp(height, 0.65, 0.85)),
    bedding,
    weights(u, v, out) {
      const a = blend[0](u, v);
      const b = blend[1](u, v);
      out[0] = Math.cos(a) * Math.cos(b);
      out[1] = Math.sin(a) * Math.cos(b);
      out[2] = Math.sin(b);
      return out;
    },
  };
}

/** A vertical stretch of a column on one side of every fault. */
export interface Block {
  top: number;
  base: number;
  sides: number;
  surfaces: Float64Array;
}

/** The faults met below a place, as depths, and the surfaces of each stretch between them, from the top down. */
export function blocksAt(structure: Structure, u: number, v: number, deepestM: number): Block[] {
  const cuts: { z: number; f: number }[] = [];
  let sides = 0;
  for (let f = 0; f < structure.faults.length; f++) {
    const fault = structure.faults[f];
    const [n, t] = along(fault, u, v);
    if (!isFaulted(fault, t)) continue;
    const z = depthOfPlane(fault, n, t);
    if (z > 0) {
      sides |= 1 << f;
      if (z < deepestM) cuts.push({ z, f });
    }
  }
  cuts.sort((a, b) => a.z - b.z);
  const blocks: Block[] = [];
  let top = 0;
  for (const cut of [...cuts, { z: deepestM, f: -1 }]) {
    blocks.push({
      top,
      base: cut.z,
      sides,
      surfaces: structure.surfaces(u, v, sides, new Float64Array(SURFACES.length)),
    });
    if (cut.f >= 0) sides &= ~(1 << cut.f);
    top = cut.z;
  }
  return blocks;
}

/** Which side of each fault a point is on, as bits (1 = hanging wall). */
export function sidesAt(structure: Structure, u: number, v: number, z: number): number {
  let sides = 0;
  structure.faults.forEach((fault, f) => {
    const [n, t] = along(fault, u, v);
    if (!isFaulted(fault, t)) return;
    if (n > planeAt(fault, z, t)) sides |= 1 << f;
  });
  return sides;
}

/** Layer number (as in `LAYERS`) at depth `z` given the surfaces of its side. */
export function layerAt(surfaces: ArrayLike<number>, z: number): number {
  if (z < surfaces[0]) return 0;
  if (z < surfaces[1]) return 1;
  if (z < surfaces[2]) return 2;
  if (z < surfaces[3]) return 3;
  if (z < surfaces[5]) return 4;
  if (z < surfaces[6]) return 5;
  if (z < surfaces[7]) return 6;
  if (z < surfaces[8]) return 7;
  return 8;
}

/** Height (m) in the layer's own bedding, and relative geological age (rising downwards, one unit a layer). */
export function beddingHeight(layer: number, s: ArrayLike<number>, z: number): number {
  switch (layer) {
    case 1:
      return ((z - s[0]) / (s[1] - s[0])) * 320;
    case 2:
      return ((z - s[1]) / (s[2] - s[1])) * 215;
    case 3: // parallel to its top: it laps onto the unconformity
      return z - s[2];
    case 4: // from the notional top that was removed: its beds are cut by the unconformity
      return ((z - s[4]) / (s[5] - s[4])) * 600;
    case 5:
      return ((z - s[5]) / Math.max(1, s[6] - s[5])) * 50;
    case 6:
      return ((z - s[6]) / (s[7] - s[6])) * 172;
    case 7:
      return ((z - s[7]) / (s[8] - s[7])) * 222;
    case 8:
      return z - s[8];
    default:
      return 0;
  }
}
