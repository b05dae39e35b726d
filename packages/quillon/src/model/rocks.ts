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

const WATER: Rock = { vp: 1490, vs: 0, rho: 1027 };
const BRINE_VP = 1560;
const BRINE_RHO = 1030;

const LITHOLOGY: (Lithology | null)[] = [
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

/** The rock of a layer at a burial (m below the sea bed), with a relative change of velocity `dv` and of bedding `bed`. */
export function rockOf(layer: number, burialM: number, dv: number, bed: number, out: Rock): Rock {
  const lithology = LITHOLOGY[layer];
  if (!lithology) {
    out.vp = WATER.vp;
    out.vs = WATER.vs;
    out.rho = WATER.rho;
    return out;
  }
  const phi = porosityOf(layer, burialM);
  const solid = 1 - phi;
  out.vp = (solid * solid * lithology.matrixVp + phi * BRINE_VP) * (1 + dv) * (1 + 0.75 * bed);
  out.vs = Math.max(120, lithology.vsSlope * out.vp - lithology.vsOffset);
  out.rho = (solid * lithology.grain + phi * BRINE_RHO) * (1 + 0.25 * bed);
  return out;
}

/** Porosity against burial at every metre: an exponential per point would be half the cost of a survey. */
const POROSITY = LITHOLOGY.map((lithology) =>
  Float64Array.from({ length: 4000 }, (_, m) =>
    lithology ? lithology.phi0 * Math.exp(-m / lithology.compactionM) : 1,
  ),
);

export function porosityOf(layer: number, burialM: number): number {
  const burial = Math.min(3998, Math.max(0, burialM));
  const m = Math.floor(burial);
  const table = POROSITY[layer];
  return table[m] + (burial - m) * (table[m + 1] - table[m]);
}

export function gammaOf(layer: number): number {
  return LITHOLOGY[layer]?.gammaRay ?? 0;
}

/** Fluids at reservoir conditions: bulk modulus (Pa) and density (kg/m³). */
export interface FluidSet {
  brine: { k: number; rho: number };
  oil: { k: number; rho: number };
  gas: { k: number; rho: number };
}

export const FLUIDS: FluidSet = {
  brine: { k: BRINE_RHO * BRINE_VP * BRINE_VP, rho: BRINE_RHO },
  oil: { k: 1.02e9, rho: 776 },
  gas: { k: 0.035e9, rho: 118 },
};

const QUARTZ_K = 36.6e9;

/** Clean sand of porosity `phi` filled with `water` (part) and `oil` or `gas`; Brie mixing (e = 3) for gas, Wood for oil. */
export function sandOf(
  phi: number,
  burialM: number,
  water: number,
  fluid: 'oil' | 'gas' | 'brine',
  dv: number,
  out: Rock,
): Rock {
  const solid = 1 - phi;
  const wet = (solid * solid * (4080 + 0.28 * burialM) + phi * BRINE_VP) * (1 + dv);
  const wetRho = solid * 2650 + phi * BRINE_RHO;
  const vs = Math.max(200, 0.8 * wet - 790);
  const mu = wetRho * vs * vs;
  const kWet = wetRho * wet * wet - (4 / 3) * mu;
  if (fluid === 'brine' || water >= 0.999) {
    out.vp = wet;
    out.vs = vs;
    out.rho = wetRho;
    return out;
  }
  const other = FLUIDS[fluid];
  const brine = FLUIDS.brine;
  const kMix =
    fluid === 'gas' ? (brine.k - other.k) * water ** 3 + other.k : 1 / (water / brine.k + (1 - water) / other.k);
  const rhoMix = water * brine.rho + (1 - water) * other.rho;
  // Gassmann in the form K/(K0−K) − Kf/(φ(K0−Kf)) = the same for either fluid.
  const frame = kWet / (QUARTZ_K - kWet) - brine.k / (phi * (QUARTZ_K - brine.k));
  const q = frame + kMix / (phi * (QUARTZ_K - kMix));
  const k = (QUARTZ_K * q) / (1 + q);
  out.rho = solid * 2650 + phi * rhoMix;
  out.vp = Math.sqrt((k + (4 / 3) * mu) / out.rho);
  out.vs = Math.sqrt(mu / out.rho);
  return out;
}
