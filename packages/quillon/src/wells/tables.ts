import { columnAt, emptyPoint, type Field, type Point, pointAt } from '../model/field.ts';
import { randomFor } from '../model/random.ts';
import { LAYERS } from '../model/rocks.ts';
import { timeColumn, twtAt } from '../seismic/traces.ts';
import { pointOnPath } from './logs.ts';
import { KB_M, type Path, positionAt } from './paths.ts';

export interface Top {
  well: string;
  name: string;
  md: number;
}

/** The name of the top at which a layer begins. */
const TOP_OF_LAYER = [
  '',
  'Sea Bed',
  'Lantern Top',
  'Brack Top',
  'Brack Unconformity',
  'Tolven Top',
  'Tolven Base',
  'Pell Top',
  'Basement Top',
];

/** Tops where the path goes from one layer into the next below it, and fault cuts where it changes side of a fault. */
export function topsOf(field: Field, path: Path): Top[] {
  const tops: Top[] = [];
  const at = (md: number) => {
    const p = positionAt(path, md);
    const column = columnAt(field, p.u, p.v);
    let b = 0;
    while (b < column.blocks.length - 1 && p.tvdss >= column.blocks[b].base) b++;
    const layer = pointAt(column, p.tvdss, emptyPoint()).layer;
    // above Brack Top the fault moves nothing, so nobody would see a cut
    return { layer, sides: layer >= 3 ? column.blocks[b].sides : 0 };
  };
  const refine = (lo: number, hi: number, changed: (md: number) => boolean) => {
    let [a, b] = [lo, hi];
    while (b - a > 0.005) {
      const m = (a + b) / 2;
      if (changed(m)) b = m;
      else a = m;
    }
    return (a + b) / 2;
  };
  const step = 2;
  let before = at(KB_M + 1);
  for (let md = KB_M + 1 + step; md <= path.totalMd; md += step) {
    const now = at(md);
    const same = before;
    if (before.layer >= 3 && (now.sides & 1) !== (before.sides & 1))
      tops.push({
        well: path.name,
        name: 'Osmund Fault',
        md: refine(md - step, md, (m) => (at(m).sides & 1) !== (same.sides & 1)),
      });
    else if (now.layer > before.layer)
      for (let layer = before.layer + 1; layer <= now.layer; layer++)
        tops.push({
          well: path.name,
          name: TOP_OF_LAYER[layer],
          md: refine(md - step, md, (m) => at(m).layer >= layer),
        });
    before = now;
  }
  return tops;
}

export interface Checkshot {
  well: string;
  md: number;
  tvdss: number;
  twt: number;
}

/** Two-way time below mean sea level at stations down a path, with 1 ms of noise. */
export function checkshotsOf(field: Field, path: Path): Checkshot[] {
  const random = randomFor(field.seed, `checkshots ${path.name}`);
  const out: Checkshot[] = [];
  for (let md = 180; md < path.totalMd - 10; md += 65) {
    const p = positionAt(path, md);
    const exact = twtAt(timeColumn(field, p.u, p.v), p.tvdss);
    out.push({ well: path.name, md, tvdss: p.tvdss, twt: exact + random.normal() });
  }
  return out;
}

export interface Pressure {
  well: string;
  md: number;
  tvdss: number;
  pressureBar: number;
}

const G = 9.80665;

/** Formation pressures in net sand: hydrostatic brine below the contact, the fluids' own gradients above. */
export function pressuresOf(field: Field, path: Path): Pressure[] {
  const random = randomFor(field.seed, `pressures ${path.name}`);
  const out: Pressure[] = [];
  const { brine: water, oil, gas } = field.rocks;
  const point = emptyPoint();
  let last = -100;
  for (let md = 800; md < path.totalMd; md += 0.75) {
    pointOnPath(field, path, md, point);
    if (point.layer !== 5 || !point.net || md - last < 3.2) continue;
    last = md;
    const p = positionAt(path, md);
    const area = p.u > field.structure.faults[0].originU - 150 ? 'East' : 'Crest';
    const { goc, owc } = field.contacts[area];
    const free = owc ?? p.tvdss;
    const oilTo = goc ?? 0;
    const brine = (z: number) => 1.013 + (water.rho * G * z) / 1e5;
    let bar = brine(p.tvdss);
    if (p.tvdss < free) {
      bar = brine(free) - (oil.rho * G * (free - Math.max(p.tvdss, oilTo))) / 1e5;
      if (p.tvdss < oilTo) bar -= (gas.rho * G * (oilTo - p.tvdss)) / 1e5;
    }
    out.push({ well: path.name, md, tvdss: p.tvdss, pressureBar: bar + 0.03 * random.normal() });
  }
  return out;
}

export interface FaciesInterval {
  well: string;
  fromMd: number;
  toMd: number;
  facies: string;
}

export function faciesName(point: Point): string {
  if (point.layer !== 5) return LAYERS[point.layer];
  if (!point.net) return 'Shale';
  return point.channel > 0.5 ? 'Channel sand' : 'Heterolithic sand';
}

/** Facies as described on core and cuttings of one well, in beds of at least half a metre. */
export function faciesOf(field: Field, path: Path): FaciesInterval[] {
  const out: FaciesInterval[] = [];
  const point = emptyPoint();
  for (let md = 700; md < path.totalMd - 5; md += 0.5) {
    const facies = faciesName(pointOnPath(field, path, md, point));
    const last = out.at(-1);
    if (last?.facies === facies) last.toMd = md + 0.5;
    else out.push({ well: path.name, fromMd: md, toMd: md + 0.5, facies });
  }
  return out;
}

/** Core plugs in the reservoir of a well. */
export function coreOf(field: Field, path: Path): { well: string; md: number; porosity: number }[] {
  const random = randomFor(field.seed, `core ${path.name}`);
  const out: { well: string; md: number; porosity: number }[] = [];
  const point = emptyPoint();
  for (let md = 800; md < path.totalMd; md += 0.6) {
    pointOnPath(field, path, md, point);
    if (point.layer === 5)
      out.push({ well: path.name, md, porosity: Math.max(0.01, point.porosity + 0.006 * random.normal()) });
  }
  return out;
}
