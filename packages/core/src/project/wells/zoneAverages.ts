import type { EarthObject, Well } from '../../earth/objects.ts';
import type { Store } from '../../storage/store.ts';
import { pointAtMd } from '../../wells/path.ts';
import { netFlag } from '../../wells/petrophysics.ts';
import { wellCurves } from './curves.ts';

export type Leg = 'gas' | 'oil';

export interface AverageOptions {
  topName: string;
  baseName: string;
  contacts: { goc: number | null; owc: number };
  /** What counts as net where a well has no net flag, or always where `flags` is false. */
  cutoffs: { mostShale: number; leastPorosity: number };
  flags: boolean;
}

/** One leg of a zone: thicknesses are true vertical, in metres. */
export interface LegAverage {
  well: string;
  leg: Leg;
  grossM: number;
  netM: number;
  netToGross: number;
  /** Of the net rock, weighted by thickness; NaN where there is none. */
  porosity: number;
  /** Of the net rock, weighted by pore thickness; NaN where there is none. */
  water: number;
  /** Thickness in which a curve is missing and nothing is averaged. */
  unknownM: number;
}

/** A value over several wells, and its standard deviation between them; null of fewer than two. */
export interface Spread {
  value: number;
  spread: number | null;
}

export interface ZoneAverages {
  legs: Partial<Record<Leg, { netToGross: Spread; porosity: Spread; water: Spread }>>;
  wells: LegAverage[];
  /** Wells that give nothing, with the reason, and what else is to be known of the averages. */
  notes: string[];
}

const LEGS: Leg[] = ['gas', 'oil'];

/** The legs of a zone in one well from its interpreted curves; a sentence where it has none. */
async function legsOf(
  store: Store,
  around: EarthObject[],
  well: Well,
  o: AverageOptions,
): Promise<{ legs: LegAverage[]; notes: string[] } | string> {
  const logs = wellCurves(store, around, well, ['effective porosity', 'porosity']);
  if (!logs) return `${well.name} has no interpreted porosity`;
  const mdOf = (name: string) => logs.tops.find((t) => t.name === name)?.md ?? Number.NaN;
  const [from, to] = [mdOf(o.topName), mdOf(o.baseName)];
  if (!(to > from)) return `${well.name} lacks “${o.topName}” or “${o.baseName}”`;
  const phi = (await logs.get('effective porosity')) ?? (await logs.get('porosity'));
  const water = await logs.get('water saturation');
  const shale = await logs.get('shale volume');
  const flag = o.flags ? await logs.get('net flag') : null;
  if (!phi || !water) return `${well.name} has no interpreted ${phi ? 'water saturation' : 'porosity'}`;
  if (!flag && !shale) return `${well.name} has neither a net flag nor a shale volume`;
  const sums = Object.fromEntries(
    LEGS.map((leg) => [leg, { gross: 0, net: 0, pore: 0, water: 0, unknown: 0 }]),
  ) as Record<Leg, { gross: number; net: number; pore: number; water: number; unknown: number }>;
  const half = logs.axis.stepM / 2;
  for (let k = 0; k < phi.length; k++) {
    const md = logs.md(k);
    const [a, b] = [Math.max(from, md - half), Math.min(to, md + half)];
    if (b <= a) continue;
    const [upper, lower] = [pointAtMd(logs.path, a).tvdss, pointAtMd(logs.path, b).tvdss];
    const thick = Math.abs(lower - upper);
    const z = (upper + lower) / 2;
    if (z >= o.contacts.owc) continue;
    const sum = sums[o.contacts.goc !== null && z < o.contacts.goc ? 'gas' : 'oil'];
    const counts = flag ? flag[k] : netFlag(shale?.[k] ?? Number.NaN, phi[k], 0, { ...o.cutoffs, mostWater: 1 });
    if (Number.isNaN(counts) || (counts >= 1 && Number.isNaN(phi[k] + water[k]))) {
      sum.unknown += thick;
      continue;
    }
    sum.gross += thick;
    if (counts < 1) continue;
    sum.net += thick;
    sum.pore += thick * phi[k];
    sum.water += thick * phi[k] * water[k];
  }
  const legs = LEGS.filter((leg) => sums[leg].gross > 0).map((leg): LegAverage => {
    const { gross, net, pore, water: wet, unknown } = sums[leg];
    return {
      well: well.name,
      leg,
      grossM: gross,
      netM: net,
      netToGross: net / gross,
      porosity: net > 0 ? pore / net : Number.NaN,
      water: pore > 0 ? wet / pore : Number.NaN,
      unknownM: unknown,
    };
  });
  if (legs.length === 0) return `${well.name} meets the zone below its contact only`;
  const notes = legs
    .filter((l) => l.unknownM > 0.05 * l.grossM)
    .map((l) => `In ${l.well} ${l.unknownM.toFixed(1)} m of the ${l.leg} leg lack a curve and were left out.`);
  if (o.flags && !flag) notes.push(`${well.name} has no net flag: the cutoffs given were taken.`);
  return { legs, notes };
}

/** Values of wells weighted by what stands for them, and how far they lie apart. */
function spreadOf(values: number[], weights: number[]): Spread {
  const known = values.map((_, n) => n).filter((n) => Number.isFinite(values[n]) && weights[n] > 0);
  const total = known.reduce((sum, n) => sum + weights[n], 0);
  const value = known.reduce((sum, n) => sum + weights[n] * values[n], 0) / total;
  const mean = known.reduce((sum, n) => sum + values[n], 0) / known.length;
  const variance = known.reduce((sum, n) => sum + (values[n] - mean) ** 2, 0) / (known.length - 1);
  return { value, spread: known.length > 1 ? Math.sqrt(variance) : null };
}

/**
 * Average a zone over wells within each fluid's leg, from the curves that were interpreted: net-to-gross by true vertical
 * thickness, porosity by net thickness, saturation by pore thickness.
 */
export async function zoneAverages(
  store: Store,
  around: EarthObject[],
  wells: Well[],
  o: AverageOptions,
): Promise<ZoneAverages> {
  const all: LegAverage[] = [];
  const notes: string[] = [];
  for (const well of wells) {
    const found = await legsOf(store, around, well, o);
    if (typeof found === 'string') notes.push(`${found}: it gives no averages.`);
    else {
      all.push(...found.legs);
      notes.push(...found.notes);
    }
  }
  const legs: ZoneAverages['legs'] = {};
  for (const leg of LEGS) {
    const own = all.filter((l) => l.leg === leg);
    if (!own.some((l) => l.netM > 0)) continue;
    const net = own.map((l) => l.netM);
    legs[leg] = {
      netToGross: spreadOf(
        own.map((l) => l.netToGross),
        own.map((l) => l.grossM),
      ),
      porosity: spreadOf(
        own.map((l) => l.porosity),
        net,
      ),
      water: spreadOf(
        own.map((l) => l.water),
        own.map((l) => (Number.isFinite(l.porosity) ? l.netM * l.porosity : 0)),
      ),
    };
  }
  return { legs, wells: all, notes };
}
