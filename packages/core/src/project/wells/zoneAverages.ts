import type { EarthObject, Well } from '../../earth/objects.ts';
import type { Store } from '../../storage/store.ts';
import { densityPorosity, poreFill, shaleVolume } from '../../wells/petrophysics.ts';
import { wellCurves } from './curves.ts';

export interface AverageOptions {
  topName: string;
  baseName: string;
  contacts: { goc: number | null; owc: number };
  density: { grain: number; gas: number; oil: number; brine: number };
  /** Largest shale volume and least porosity that count as net. */
  mostShale: number;
  leastPorosity: number;
  /** Resistivity of the brine where no water-bearing rock in the wells tells it, ohm·m. */
  waterOhmM: number;
}

/** Averages over a zone in several wells, weighted by thickness, saturations by pore thickness. */
export interface ZoneAverages {
  netToGross: number;
  porosity: number;
  waterInOil: number | null;
  waterInGas: number | null;
  waterOhmM: number;
  /** Where the brine's resistivity comes from. */
  waterFrom: string;
  wells: string[];
}

interface Sample {
  well: string;
  tvdss: number;
  bulk: number;
  resistivity: number;
  /** Shale volume by the well's own clean and shale lines. */
  shale: number;
}

/** Samples of a zone with the curves that averages need; empty where one is missing. */
async function samplesOf(
  store: Store,
  around: EarthObject[],
  well: Well,
  topName: string,
  baseName: string,
): Promise<Sample[]> {
  const logs = wellCurves(store, around, well, ['density']);
  const mdOf = (name: string) => logs?.tops.find((t) => t.name === name)?.md ?? Number.NaN;
  const [from, to] = [mdOf(topName), mdOf(baseName)];
  if (!logs || !(to > from)) return [];
  const [gr, rho, rt] = await Promise.all(['gamma ray', 'density', 'resistivity'].map(logs.get));
  if (!gr || !rho || !rt) return [];
  const sorted = gr.filter((v) => !Number.isNaN(v)).sort();
  const clean = sorted[Math.floor(0.03 * sorted.length)];
  const shale = sorted[Math.floor(0.97 * sorted.length)];
  const out: Sample[] = [];
  for (let k = 0; k < gr.length; k++) {
    const md = logs.md(k);
    if (md < from || md > to || Number.isNaN(gr[k] + rho[k] + rt[k])) continue;
    out.push({
      well: well.name,
      tvdss: logs.tvdss(k),
      bulk: rho[k],
      resistivity: rt[k],
      shale: shaleVolume(gr[k], clean, shale),
    });
  }
  return out;
}

/** Average a zone over wells; null where no well has gamma ray, density and resistivity in it. */
export async function zoneAverages(
  store: Store,
  around: EarthObject[],
  wells: Well[],
  o: AverageOptions,
): Promise<ZoneAverages | null> {
  const all = (await Promise.all(wells.map((w) => samplesOf(store, around, w, o.topName, o.baseName)))).flat();
  if (all.length < 20) return null;
  // brine by Archie turned round, in clean rock well below the contact
  const wet = all
    .filter((s) => s.tvdss > o.contacts.owc + 5 && s.shale < o.mostShale)
    .map((s) => ({ rt: s.resistivity, phi: densityPorosity(s.bulk, o.density.grain, o.density.brine) }))
    .filter((s) => s.phi > o.leastPorosity)
    .map((s) => s.rt * s.phi ** 2)
    .sort((a, b) => a - b);
  const found = wet.length >= 20;
  const waterOhmM = found ? wet[wet.length >> 1] : o.waterOhmM;
  let [net, pore] = [0, 0];
  const legs = { gas: { pore: 0, water: 0 }, oil: { pore: 0, water: 0 } };
  for (const s of all) {
    const leg =
      s.tvdss >= o.contacts.owc ? 'water' : o.contacts.goc !== null && s.tvdss < o.contacts.goc ? 'gas' : 'oil';
    const hydrocarbon = leg === 'gas' ? o.density.gas : o.density.oil;
    const fill =
      leg === 'water'
        ? { porosity: densityPorosity(s.bulk, o.density.grain, o.density.brine), water: 1 }
        : poreFill(s.bulk, s.resistivity, { grain: o.density.grain, hydrocarbon, brine: o.density.brine, waterOhmM });
    if (s.shale > o.mostShale || fill.porosity < o.leastPorosity) continue;
    net++;
    pore += fill.porosity;
    if (leg === 'water') continue;
    legs[leg].pore += fill.porosity;
    legs[leg].water += fill.porosity * fill.water;
  }
  const water = (leg: { pore: number; water: number }) => (leg.pore > 0 ? leg.water / leg.pore : null);
  return {
    netToGross: net / all.length,
    porosity: net > 0 ? pore / net : 0,
    waterInOil: water(legs.oil),
    waterInGas: water(legs.gas),
    waterOhmM,
    waterFrom: found ? `${wet.length} water-bearing samples` : 'the typed value',
    wells: [...new Set(all.map((s) => s.well))],
  };
}
