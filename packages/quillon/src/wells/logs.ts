import { columnAt, emptyPoint, type Field, type Point, pointAt } from '../model/field.ts';
import { randomFor } from '../model/random.ts';
import { gammaOf } from '../model/rocks.ts';
import { type Path, positionAt } from './paths.ts';

/** Log step in metres (half a foot). */
export const LOG_STEP = 0.1524;
const NULL = -999.25;

export interface Curve {
  mnemonic: string;
  unit: string;
  description: string;
  values: Float64Array;
}

export interface LogFile {
  well: string;
  depthUnit: 'M' | 'FT';
  depth: Float64Array;
  curves: Curve[];
  nullValue: number;
}

/** How each well's run differs: curve names, units, interval and what went wrong. */
interface Run {
  names: string[];
  depthUnit: 'M' | 'FT';
  slowness: 'US/FT' | 'US/M';
  fromMd: number;
  shearFromMd: number;
  densityGap: [number, number] | null;
}

const RUNS: Record<string, Run> = {
  'QN-1': {
    names: ['GR', 'DT', 'DTS', 'RHOB', 'NPHI', 'RT', 'CALI'],
    depthUnit: 'M',
    slowness: 'US/FT',
    fromMd: 390,
    shearFromMd: 600,
    densityGap: [868, 889],
  },
  'QN-2': {
    names: ['GAM', 'AC', 'ACS', 'DEN', 'NEUT', 'RES', 'CAL'],
    depthUnit: 'FT',
    slowness: 'US/FT',
    fromMd: 420,
    shearFromMd: 880,
    densityGap: null,
  },
  'QN-3': {
    names: ['GR', 'SONIC', 'SHEAR', 'DENS', 'NPOR', 'RT', 'CALI'],
    depthUnit: 'M',
    slowness: 'US/M',
    fromMd: 480,
    shearFromMd: 900,
    densityGap: null,
  },
  'QN-4': {
    names: ['GR_1', 'DT', 'DTS', 'RHOB', 'NPHI', 'RD', 'CALI'],
    depthUnit: 'M',
    slowness: 'US/FT',
    fromMd: 450,
    shearFromMd: 700,
    densityGap: [700, 716],
  },
  'QN-5': {
    names: ['GR', 'DT', 'DTS', 'RHOB', 'NPHI', 'RT', 'CALI'],
    depthUnit: 'M',
    slowness: 'US/FT',
    fromMd: 400,
    shearFromMd: 800,
    densityGap: null,
  },
};

/** The point of the earth at a measured depth of a path. */
export function pointOnPath(field: Field, path: Path, md: number, out: Point): Point {
  const at = positionAt(path, md);
  return pointAt(columnAt(field, at.u, at.v), at.tvdss, out);
}

export function logsOf(field: Field, path: Path): LogFile {
  const run = RUNS[path.name];
  const random = randomFor(field.seed, `logs ${path.name}`);
  const count = Math.floor((path.totalMd - 6 - run.fromMd) / LOG_STEP);
  const depth = new Float64Array(count);
  const values = run.names.map(() => new Float64Array(count).fill(NULL));
  const [gr, dt, dts, rhob, nphi, rt, cali] = values;
  const toSlowness = run.slowness === 'US/FT' ? 304800 : 1e6;
  const point = emptyPoint();
  const { electric, sandGamma } = field.rocks;
  const [channelGamma, backgroundMore, shaleGamma] = sandGamma;
  const vertical = path.inclinationDeg === 0;
  const fixed = vertical ? columnAt(field, path.headU, path.headV) : null;
  let drift = 0;
  let washout = 0;
  for (let n = 0; n < count; n++) {
    const md = run.fromMd + n * LOG_STEP;
    depth[n] = run.depthUnit === 'FT' ? md / 0.3048 : md;
    if (fixed) pointAt(fixed, positionAt(path, md).tvdss, point);
    else pointOnPath(field, path, md, point);
    const shaly = point.layer === 5 ? (point.net ? 0 : 1) : point.layer === 7 || point.layer === 8 ? 0 : 1;
    // soft clay caves in: the caliper opens and the density pad reads mud
    drift = 0.995 * drift + 0.1 * random.normal();
    washout = 0.97 * washout + 0.03 * (shaly && drift > 1.35 ? 1 : 0);
    cali[n] = 8.5 + 0.05 * random.normal() + 4.5 * washout;
    const clay =
      point.layer === 5
        ? point.net
          ? channelGamma + backgroundMore * (1 - point.channel)
          : shaleGamma
        : gammaOf(field.rocks, point.layer);
    gr[n] = Math.max(4, clay + 5 * drift + 2.5 * random.normal());
    dt[n] = toSlowness / point.vp + 0.25 * random.normal() + 6 * washout;
    if (random() < 0.0006) dt[n] += (random() < 0.5 ? -1 : 1) * random.between(18, 55);
    if (md >= run.shearFromMd) dts[n] = toSlowness / point.vs + 0.6 * random.normal();
    const gap = run.densityGap;
    if (!gap || md < gap[0] || md > gap[1])
      rhob[n] = point.rho / 1000 + 0.006 * random.normal() - 0.32 * washout * Math.abs(1 + 0.4 * random.normal());
    nphi[n] =
      point.porosity * (point.fluid === 'gas' ? 0.62 + 0.38 * point.water : 1) + 0.22 * shaly + 0.008 * random.normal();
    // Archie's law; shale conducts
    rt[n] =
      (shaly
        ? electric.shale
        : (electric.a * electric.brine) / (Math.max(0.05, point.porosity) ** electric.m * point.water ** electric.n)) *
      Math.exp(0.06 * random.normal());
  }
  const units = ['GAPI', run.slowness, run.slowness, 'G/CC', 'V/V', 'OHMM', 'IN'];
  const descriptions = [
    'Gamma ray',
    'Compressional slowness',
    'Shear slowness',
    'Bulk density',
    'Neutron porosity',
    'Deep resistivity',
    'Caliper',
  ];
  return {
    well: path.name,
    depthUnit: run.depthUnit,
    depth,
    nullValue: NULL,
    curves: values.map((v, k) => ({ mnemonic: run.names[k], unit: units[k], description: descriptions[k], values: v })),
  };
}
