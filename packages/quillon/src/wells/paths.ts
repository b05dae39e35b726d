import { type Column, columnAt, type Field } from '../model/field.ts';

const RAD = Math.PI / 180;
/** Spacing of directional survey stations (m) and height of the kelly bushing above mean sea level. */
export const STATION_M = 30;
export const KB_M = 25;

/** A well path made of a vertical part, a circular build and a straight tangent: minimum curvature gives it exactly. */
export interface Path {
  name: string;
  headU: number;
  headV: number;
  /** Direction of deviation in survey coordinates, radians from `u` towards `v`. */
  direction: number;
  kickOffMd: number;
  buildEndMd: number;
  inclinationDeg: number;
  totalMd: number;
}

/** Position at a measured depth (m from the kelly bushing): survey coordinates and TVDSS. */
export function positionAt(path: Path, md: number): { u: number; v: number; tvdss: number; inclinationDeg: number } {
  const { kickOffMd: k, buildEndMd: e, inclinationDeg } = path;
  let tvd = Math.min(md, k);
  let away = 0;
  let inclination = 0;
  if (md > k && inclinationDeg > 0) {
    const rate = (inclinationDeg * RAD) / (e - k);
    const turn = Math.min(md, e) - k;
    inclination = rate * turn;
    tvd += Math.sin(inclination) / rate;
    away += (1 - Math.cos(inclination)) / rate;
    if (md > e) {
      tvd += (md - e) * Math.cos(inclination);
      away += (md - e) * Math.sin(inclination);
    }
  } else tvd = md;
  return {
    u: path.headU + away * Math.cos(path.direction),
    v: path.headV + away * Math.sin(path.direction),
    tvdss: tvd - KB_M,
    inclinationDeg: inclination / RAD,
  };
}

/** Depth of a surface in the column where it is really met, or NaN. */
export function surfaceMet(column: Column, surface: number): number {
  for (const block of column.blocks) {
    const z = block.surfaces[surface];
    if (z >= block.top && z < block.base) return z;
  }
  return Number.NaN;
}

function vertical(name: string, u: number, v: number, bottomTvdss: number): Path {
  const totalMd = Math.ceil((bottomTvdss + KB_M) / STATION_M) * STATION_M;
  return {
    name,
    headU: u,
    headV: v,
    direction: 0,
    kickOffMd: totalMd,
    buildEndMd: totalMd,
    inclinationDeg: 0,
    totalMd,
  };
}

/** Where wells were drilled, found from the field so that each meets what its name stands for. */
export function drillWells(field: Field): Path[] {
  const { crest, east } = field.traps;
  const contacts = field.contacts.Crest;
  const goc = contacts.goc as number;
  const owc = contacts.owc as number;
  const top = (u: number, v: number) => surfaceMet(columnAt(field, u, v), 5);
  const base = (u: number, v: number) => surfaceMet(columnAt(field, u, v), 7);

  // QN-1: in the oil leg, on the best sand that a ring around the crest offers
  let one = { u: crest.topU, v: crest.topV, worth: -1 };
  for (let azimuth = 0; azimuth < 360; azimuth += 5)
    for (let r = 150; r < 1100; r += 12.5) {
      const u = crest.topU + r * Math.cos(azimuth * RAD);
      const v = crest.topV + r * Math.sin(azimuth * RAD);
      const z = top(u, v);
      if (!(z > goc + 4 && z < goc + 0.35 * (owc - goc))) continue;
      const worth = field.structure.channel(u, v) - r / 4000;
      if (worth > one.worth) one = { u, v, worth };
    }
  const two = { u: crest.topU + 90, v: crest.topV + 60 };
  let five = { u: east.topU + 400, v: east.topV + 250, worth: -1 };
  for (let du = 300; du <= 800; du += 50)
    for (let dv = -500; dv <= 500; dv += 50) {
      const u = east.topU + du;
      const v = east.topV + dv;
      const z = top(u, v);
      if (!(z < field.traps.leakM - 18)) continue;
      const worth = du / 1000 + Math.abs(dv) / 2000 + 0.3 * field.structure.channel(u, v);
      if (worth > five.worth) five = { u, v, worth };
    }
  const four: Path = {
    name: 'QN-4',
    headU: field.structure.faults[0].originU - 120,
    headV: east.topV + (five.v > east.topV ? -150 : 150),
    direction: 0,
    kickOffMd: 420,
    buildEndMd: 780,
    inclinationDeg: 36,
    totalMd: 1740,
  };
  return [
    vertical('QN-1', one.u, one.v, base(one.u, one.v) + 75),
    vertical('QN-2', two.u, two.v, base(two.u, two.v) + 60),
    vertical('QN-3', 1700, 3260, base(1700, 3260) + 60),
    four,
    vertical('QN-5', five.u, five.v, base(five.u, five.v) + 70),
  ];
}
