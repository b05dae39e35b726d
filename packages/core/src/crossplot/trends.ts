import { greenbergCastagna, mudrockVs } from '../rocks/shear.ts';
import { gardner } from '../tie/elastic.ts';

/** A trend of rock physics between two classes of curve, in the units that these are kept in. */
export interface Trend {
  name: string;
  x: string;
  y: string;
  at(x: number): number;
  from: number;
  to: number;
}

const slowness = (v: number) => 1e6 / v;

/** Trends that can be laid over a crossplot of two logs, either way round. */
export const TRENDS: Trend[] = [
  { name: 'Gardner', x: 'sonic', y: 'density', from: 160, to: 650, at: (dt) => gardner(1e6 / dt) },
  { name: 'mudrock line', x: 'sonic', y: 'shear sonic', from: 160, to: 600, at: (dt) => slowness(mudrockVs(1e6 / dt)) },
  {
    name: 'sandstone',
    x: 'sonic',
    y: 'shear sonic',
    from: 160,
    to: 600,
    at: (dt) => slowness(greenbergCastagna(1e6 / dt, { sandstone: 1 })),
  },
  {
    name: 'shale',
    x: 'sonic',
    y: 'shear sonic',
    from: 160,
    to: 600,
    at: (dt) => slowness(greenbergCastagna(1e6 / dt, { shale: 1 })),
  },
  {
    name: 'limestone',
    x: 'sonic',
    y: 'shear sonic',
    from: 160,
    to: 500,
    at: (dt) => slowness(greenbergCastagna(1e6 / dt, { limestone: 1 })),
  },
  {
    name: 'quartz and brine',
    x: 'porosity',
    y: 'density',
    from: 0,
    to: 0.45,
    at: (phi) => 2650 * (1 - phi) + 1030 * phi,
  },
  {
    name: 'calcite and brine',
    x: 'porosity',
    y: 'density',
    from: 0,
    to: 0.45,
    at: (phi) => 2710 * (1 - phi) + 1030 * phi,
  },
  { name: 'sandstone', x: 'neutron', y: 'density', from: 0, to: 0.45, at: (n) => 2650 - 1620 * (n + 0.035) },
  { name: 'limestone', x: 'neutron', y: 'density', from: 0, to: 0.45, at: (n) => 2710 - 1680 * n },
];

/** Trends that fit two axes, as points along the first. */
export function trendsFor(x: string, y: string): { name: string; points: [number, number][] }[] {
  return TRENDS.flatMap((t) => {
    const points = Array.from({ length: 60 }, (_, n): [number, number] => {
      const v = t.from + ((t.to - t.from) * n) / 59;
      return [v, t.at(v)];
    }).filter(([, v]) => Number.isFinite(v) && v > 0);
    if (t.x === x && t.y === y) return [{ name: t.name, points }];
    return t.x === y && t.y === x ? [{ name: t.name, points: points.map(([a, b]): [number, number] => [b, a]) }] : [];
  });
}
