import { type Random, randomFor } from './random.ts';

/**
 * What each layer is made of: porosity falls with burial (Athy 1930) and velocity follows porosity
 * (Raymer, Hunt & Gardner 1980); fluids replace each other by Gassmann (1951). SI: m/s, kg/m³, Pa.
 */
export interface Rock {
  vp: number;
  vs: number;
  rho: number;
}

interface Lithology {
  phi0: number;
  /** Depth (m) over which porosity falls by e. */
  compactionM: number;
  matrixVp: number;
  grain: number;
  /** Vs = a·Vp − b. */
  vsSlope: number;
  vsOffset: number;
  gammaRay: number;
  /** Porosity against burial at every metre: an exponential per point would be half the cost of a survey. */
  porosity: Float64Array;
}

/** Density at the formation (kg/m³) and bulk modulus (Pa). */
interface PoreFluid {
  k: number;
  rho: number;
}

/** What the rocks and fluids of a seed are: no two seeds share a number, and none is a handbook's. */
export interface Rocks {
  seaWater: Rock;
  brineVp: number;
  brine: PoreFluid;
  oil: PoreFluid;
  gas: PoreFluid;
  /** Reservoir volume over volume at 15 °C and 101.325 kPa. */
  oilFactor: number;
  gasFactor: number;
  /** Exponent of Brie's mixing of gas and brine. */
  brie: number;
  sandGrain: number;
  sandBulk: number;
  sandMatrixVp: number;
  /** Gamma ray (gAPI) of channel sand, what the background has more, and of shale in the reservoir. */
  sandGamma: [channel: number, more: number, shale: number];
  /** Archie's a, m and n, brine at the formation's temperature and shale, ohm·m. */
  electric: { a: number; m: number; n: number; brine: number; shale: number };
  layers: (Lithology | null)[];
}

export const LAYERS = [
  'Sea water',
  'Harrow Clay',
  'Lantern Silt',
  'Brack Marl',
  'Merrow Shale',
  'Tolven Sandstone',
  'Sable Shale',
  'Pell Limestone',
  'Osmund Basement',
] as const;

/** Middles about which seeds vary. */
const MIDDLE: (Omit<Lithology, 'porosity'> | null)[] = [
  null,
  { phi0: 0.55, compactionM: 1900, matrixVp: 4000, grain: 2680, vsSlope: 0.79, vsOffset: 890, gammaRay: 78 },
  { phi0: 0.5, compactionM: 1900, matrixVp: 4300, grain: 2670, vsSlope: 0.8, vsOffset: 880, gammaRay: 60 },
  { phi0: 0.42, compactionM: 2000, matrixVp: 5000, grain: 2700, vsSlope: 0.62, vsOffset: 300, gammaRay: 48 },
  { phi0: 0.47, compactionM: 1600, matrixVp: 4480, grain: 2710, vsSlope: 0.78, vsOffset: 850, gammaRay: 104 },
  null,
  { phi0: 0.45, compactionM: 1650, matrixVp: 4560, grain: 2710, vsSlope: 0.78, vsOffset: 850, gammaRay: 96 },
  { phi0: 0.2, compactionM: 2500, matrixVp: 6050, grain: 2710, vsSlope: 0.56, vsOffset: 60, gammaRay: 24 },
  { phi0: 0.05, compactionM: 4000, matrixVp: 5700, grain: 2690, vsSlope: 0.58, vsOffset: 20, gammaRay: 118 },
];

/** A value by up to `most` of itself off a middle and never within `least` of it. */
function off(random: Random, middle: number, least: number, most: number): number {
  const by = random.between(least, most);
  return middle * (random() < 0.5 ? 1 - by : 1 + by);
}

/** The rocks and fluids of a seed. */
export function drawRocks(seed: number): Rocks {
  const random = randomFor(seed, 'rocks');
  const brineVp = off(random, 1560, 0.002, 0.015);
  const brineRho = off(random, 1034, 0.008, 0.025);
  return {
    seaWater: { vp: off(random, 1500, 0.004, 0.014), vs: 0, rho: off(random, 1027, 0.001, 0.003) },
    brineVp,
    brine: { k: brineRho * brineVp * brineVp, rho: brineRho },
    oil: { k: off(random, 1.02e9, 0.01, 0.08), rho: off(random, 776, 0.005, 0.04) },
    gas: { k: off(random, 0.035e9, 0.01, 0.1), rho: off(random, 118, 0.01, 0.12) },
    oilFactor: off(random, 1.26, 0.004, 0.04),
    gasFactor: off(random, 0.0092, 0.01, 0.07),
    brie: off(random, 3.1, 0.06, 0.2),
    sandGrain: off(random, 2652, 0.0015, 0.0075),
    sandBulk: off(random, 37e9, 0.01, 0.05),
    sandMatrixVp: off(random, 4080, 0.001, 0.012),
    sandGamma: [off(random, 23, 0.05, 0.3), off(random, 16, 0.05, 0.25), off(random, 88, 0.02, 0.08)],
    electric: {
      a: off(random, 1, 0.02, 0.08),
      m: off(random, 1.98, 0.025, 0.09),
      n: off(random, 1.98, 0.025, 0.1),
      brine: off(random, 0.062, 0.08, 0.4),
      shale: off(random, 2.4, 0.1, 0.35),
    },
    layers: MIDDLE.map((middle, layer) => {
      if (!middle) return null;
      const mudrock = layer === 4 || layer === 6;
      const lithology = {
        ...middle,
        phi0: off(random, middle.phi0, 0.003, mudrock ? 0.015 : 0.03),
        compactionM: off(random, middle.compactionM, 0.005, mudrock ? 0.02 : 0.05),
        matrixVp: off(random, middle.matrixVp, 0.001, mudrock ? 0.008 : 0.018),
        grain: off(random, middle.grain, 0.001, 0.006),
        vsSlope: off(random, middle.vsSlope, 0.002, 0.015),
        gammaRay: off(random, middle.gammaRay, 0.02, 0.08),
      };
      const { phi0, compactionM } = lithology;
      return {
        ...lithology,
        porosity: Float64Array.from({ length: 4000 }, (_, m) => phi0 * Math.exp(-m / compactionM)),
      };
    }),
  };
}

/** The rock of a layer at a burial (m below the sea bed), with a relative change of velocity `dv` and of bedding `bed`. */
export function rockOf(rocks: Rocks, layer: number, burialM: number, dv: number, bed: number, out: Rock): Rock {
  const lithology = rocks.layers[layer];
  if (!lithology) {
    out.vp = rocks.seaWater.vp;
    out.vs = rocks.seaWater.vs;
    out.rho = rocks.seaWater.rho;
    return out;
  }
  const phi = porosityOf(rocks, layer, burialM);
  const solid = 1 - phi;
  out.vp = (solid * solid * lithology.matrixVp + phi * rocks.brineVp) * (1 + dv) * (1 + 0.75 * bed);
  out.vs = Math.max(120, lithology.vsSlope * out.vp - lithology.vsOffset);
  out.rho = (solid * lithology.grain + phi * rocks.brine.rho) * (1 + 0.25 * bed);
  return out;
}

export function porosityOf(rocks: Rocks, layer: number, burialM: number): number {
  const table = rocks.layers[layer]?.porosity;
  if (!table) return 1;
  const burial = Math.min(3998, Math.max(0, burialM));
  const m = Math.floor(burial);
  return table[m] + (burial - m) * (table[m + 1] - table[m]);
}

export function gammaOf(rocks: Rocks, layer: number): number {
  return rocks.layers[layer]?.gammaRay ?? 0;
}

/** Clean sand of porosity `phi` filled with `water` (part) and `oil` or `gas`; Brie mixing for gas, Wood for oil. */
export function sandOf(
  rocks: Rocks,
  phi: number,
  burialM: number,
  water: number,
  fluid: 'oil' | 'gas' | 'brine',
  dv: number,
  out: Rock,
): Rock {
  const { brine, sandGrain, sandBulk } = rocks;
  const solid = 1 - phi;
  const wet = (solid * solid * (rocks.sandMatrixVp + 0.28 * burialM) + phi * rocks.brineVp) * (1 + dv);
  const wetRho = solid * sandGrain + phi * brine.rho;
  const vs = Math.max(200, 0.8 * wet - 790);
  const mu = wetRho * vs * vs;
  const kWet = wetRho * wet * wet - (4 / 3) * mu;
  if (fluid === 'brine' || water >= 0.999) {
    out.vp = wet;
    out.vs = vs;
    out.rho = wetRho;
    return out;
  }
  const other = rocks[fluid];
  const kMix =
    fluid === 'gas'
      ? (brine.k - other.k) * water ** rocks.brie + other.k
      : 1 / (water / brine.k + (1 - water) / other.k);
  const rhoMix = water * brine.rho + (1 - water) * other.rho;
  // Gassmann in the form K/(K0−K) − Kf/(φ(K0−Kf)) = the same for either fluid.
  const frame = kWet / (sandBulk - kWet) - brine.k / (phi * (sandBulk - brine.k));
  const q = frame + kMix / (phi * (sandBulk - kMix));
  const k = (sandBulk * q) / (1 + q);
  out.rho = solid * sandGrain + phi * rhoMix;
  out.vp = Math.sqrt((k + (4 / 3) * mu) / out.rho);
  out.vs = Math.sqrt(mu / out.rho);
  return out;
}
