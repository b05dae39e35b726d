import { AREAS, type Area, type Contacts, columnAt, emptyPoint, type Field, pointAt } from '../model/field.ts';
import { randomFor } from '../model/random.ts';
import { fromMap } from '../model/survey.ts';

/** Volumes of one zone in one area, above its lowest contact, in m³ and standard m³. */
export interface Volume {
  area: string;
  zone: string;
  contacts: { goc_m: number | null; owc_m: number | null };
  grossRockVolume_m3: number;
  netRockVolume_m3: number;
  poreVolume_m3: number;
  hydrocarbonPoreVolume_m3: number;
  oilInPlace_sm3: number;
  gasInPlace_sm3: number;
}

interface Sum {
  gross: number;
  net: number;
  pore: number;
  oil: number;
  gas: number;
}

/** The rectangle, in survey coordinates, that volumes are integrated over. */
const U: [number, number] = [0, 4975];
const V: [number, number] = [0, 3975];

export type Inside = (u: number, v: number) => boolean;

export function insideRing(ring: [x: number, y: number][]): Inside {
  const points = ring.map(([x, y]) => fromMap(x, y));
  return (u, v) => {
    let inside = false;
    for (let a = 0, b = points.length - 1; a < points.length; b = a++) {
      const [ua, va] = points[a];
      const [ub, vb] = points[b];
      if (va > v !== vb > v && u < ((ub - ua) * (v - va)) / (vb - va) + ua) inside = !inside;
    }
    return inside;
  };
}

function finish(field: Field, area: string, contacts: Contacts, s: Sum): Volume {
  return {
    area,
    zone: 'Tolven Sandstone',
    contacts: { goc_m: contacts.goc, owc_m: contacts.owc },
    grossRockVolume_m3: s.gross,
    netRockVolume_m3: s.net,
    poreVolume_m3: s.pore,
    hydrocarbonPoreVolume_m3: s.oil + s.gas,
    oilInPlace_sm3: s.oil / field.rocks.oilFactor,
    gasInPlace_sm3: s.gas / field.rocks.gasFactor,
  };
}

const none = (): Sum => ({ gross: 0, net: 0, pore: 0, oil: 0, gas: 0 });

/** Volumes by integration on columns `stepM` apart with `dz` metres between points. */
export function volumesOnColumns(field: Field, outline: Inside, stepM: number, dz: number): Volume[] {
  const sums: Record<string, Sum> = { 'Crest outline': none() };
  for (const area of AREAS) sums[area] = none();
  const point = emptyPoint();
  for (let u = U[0] + stepM / 2; u < U[1]; u += stepM)
    for (let v = V[0] + stepM / 2; v < V[1]; v += stepM) {
      const column = columnAt(field, u, v);
      column.blocks.forEach((block, b) => {
        const contacts = column.contacts[b];
        if (contacts?.owc == null) return;
        const from = Math.max(block.top, block.surfaces[5]);
        const to = Math.min(block.base, block.surfaces[6], contacts.owc);
        if (to <= from) return;
        const steps = Math.max(1, Math.ceil((to - from) / dz));
        const cell = (stepM * stepM * (to - from)) / steps;
        const here = none();
        for (let n = 0; n < steps; n++) {
          pointAt(column, from + ((n + 0.5) * (to - from)) / steps, point);
          here.gross += cell;
          if (!point.net) continue;
          here.net += cell;
          here.pore += cell * point.porosity;
          if (point.fluid !== 'brine') here[point.fluid] += cell * point.porosity * (1 - point.water);
        }
        const add = (to: Sum) => {
          for (const key of Object.keys(to) as (keyof Sum)[]) to[key] += here[key];
        };
        add(sums[column.areas[b]]);
        if (column.areas[b] === 'Crest' && outline(u, v)) add(sums['Crest outline']);
      });
    }
  return [...AREAS, 'Crest outline'].map((area) =>
    finish(field, area, field.contacts[(area in field.contacts ? area : 'Crest') as Area], sums[area]),
  );
}

/** The same by random points, with the standard error of the gross volume: a second opinion that shares no grid. */
export function volumesByPoints(field: Field, area: Area, points: number): { volume: Volume; grossError: number } {
  const random = randomFor(field.seed, `points ${area}`);
  const contacts = field.contacts[area];
  const sum = none();
  const trap = area === 'East' ? field.traps.east : field.traps.crest;
  const lowest = contacts.owc ?? 0;
  const box = (U[1] - U[0]) * (V[1] - V[0]) * (lowest - trap.topM + 5);
  const point = emptyPoint();
  let hits = 0;
  for (let n = 0; n < points; n++) {
    const u = random.between(...U);
    const v = random.between(...V);
    const z = random.between(trap.topM - 5, lowest);
    const column = columnAt(field, u, v);
    const b = column.blocks.findIndex((block) => z < block.base);
    if (column.areas[b] !== area || column.contacts[b]?.owc == null) continue;
    pointAt(column, z, point);
    if (point.layer !== 5) continue;
    hits++;
    sum.gross++;
    if (!point.net) continue;
    sum.net++;
    sum.pore += point.porosity;
    if (point.fluid !== 'brine') sum[point.fluid] += point.porosity * (1 - point.water);
  }
  const scale = box / points;
  for (const key of Object.keys(sum) as (keyof Sum)[]) sum[key] *= scale;
  return { volume: finish(field, area, contacts, sum), grossError: scale * Math.sqrt(hits) };
}
