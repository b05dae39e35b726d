import type { BinGrid } from '../earth/binGrid.ts';
import { type Logs, TOP_COLUMNS, type Well, type WellTable } from '../earth/objects.ts';
import { RunningStatistics } from '../numerics/statistics.ts';
import { writeWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import type { Store } from '../storage/store.ts';
import { type StoredVolume, volumeWriter } from '../storage/volumes.ts';
import { MADE, madeHorizon } from './objects.ts';
import { even } from './random.ts';

/** A small earth in closed form: water, three layers of constant velocity that dip, a reservoir between Top and Base. */
export const EARTH = { water: 1490, seaM: 100, v: [1800, 2500, 3000], zoneM: 60, owcM: 755 };
export const FIELD: BinGrid = {
  inline: { first: 1, step: 1, count: 18 },
  crossline: { first: 101, step: 1, count: 24 },
  origin: [0, 0],
  perInline: [0, 25],
  perCrossline: [25, 0],
};
export const WELL_AT = { i: 9, j: 12 };

/** Depth of Top below a bin, m. */
export const topM = (i: number, j: number) => 690 + 2.5 * j + 1.2 * i;

/** TWT (ms) of a depth below a bin. */
export function twtOf(i: number, j: number, z: number): number {
  const { water, seaM, v, zoneM } = EARTH;
  const top = topM(i, j);
  const parts = [
    [0, seaM, water],
    [seaM, top, v[0]],
    [top, top + zoneM, v[1]],
    [top + zoneM, 1e5, v[2]],
  ];
  return parts.reduce((t, [from, to, speed]) => t + (2000 * Math.max(0, Math.min(z, to) - from)) / speed, 0);
}

/** Reflectors besides the two of the zone, by their height over Top (m), all above or below the zone. */
function bedding(): { d: number; r: number }[] {
  const random = even(17);
  return Array.from({ length: 46 }, (_, n) => ({ d: -420 + 14 * n + 5 * random(), r: 0.05 * random() })).filter(
    ({ d }) => d < -14 || d > EARTH.zoneM + 14,
  );
}

const ricker = (ms: number) => {
  const q = ((Math.PI * 28 * ms) / 1000) ** 2;
  return (1 - 2 * q) * Math.exp(-q);
};

/** Porosity, saturation and shale of the zone: the upper three quarters are sand full of oil above the contact. */
export const ROCK = { porosity: 0.25, water: 0.3, oil: 800, brine: 1030, waterOhmM: 0.06 };

/** Bulk density of the sand by its water saturation, kg/m³. */
const sandDensity = (water: number) =>
  (1 - ROCK.porosity) * 2650 + ROCK.porosity * (water * ROCK.brine + (1 - water) * ROCK.oil);

async function logsOf(store: Store, well: string): Promise<Logs> {
  const [firstM, stepM] = [300, 0.25];
  const { i, j } = WELL_AT;
  const top = topM(i, j);
  const count = Math.round((1050 - firstM) / stepM);
  const reflectors = bedding().sort((a, b) => a.d - b.d);
  // density carries the reflections of the bedding; above the zone it is made to end at 2200
  const above = reflectors.filter((r) => r.d < 0);
  const below = reflectors.filter((r) => r.d > 0);
  const values = {
    sonic: new Float32Array(count),
    density: new Float32Array(count),
    gr: new Float32Array(count),
    rt: new Float32Array(count),
  };
  for (let n = 0; n < count; n++) {
    const z = firstM + n * stepM;
    const d = z - top;
    const zone = d < 0 ? 0 : d < EARTH.zoneM ? 1 : 2;
    const isSand = zone === 1 && d < 0.75 * EARTH.zoneM;
    values.sonic[n] = 1e6 / EARTH.v[zone];
    let rho = zone === 0 ? 2200 : 2350;
    if (zone === 0) for (const r of above) if (r.d > d) rho *= (1 - r.r) / (1 + r.r);
    if (zone === 2) for (const r of below) if (r.d <= d) rho *= (1 + r.r) / (1 - r.r);
    const water = z > EARTH.owcM ? 1 : ROCK.water;
    values.density[n] = isSand ? sandDensity(water) : zone === 1 ? 2400 : rho;
    values.gr[n] = isSand ? 30 : 110;
    values.rt[n] = isSand ? ROCK.waterOhmM / (ROCK.porosity * water) ** 2 : 4;
  }
  const id = `logs-${well}`;
  const curve = async (mnemonic: string, name: Logs['curves'][number]['class'], unit: string, data: Float32Array) => ({
    mnemonic,
    class: name,
    unit,
    fileUnit: unit,
    description: '',
    data: await writeWhole(store, `${id}/${mnemonic}`, [count], data, ['sample']),
    min: Math.min(...data),
    max: Math.max(...data),
    nulls: 0,
  });
  return {
    id,
    kind: 'logs',
    name: `${well} logs`,
    revision: '1',
    stage: 'wells',
    madeBy: MADE,
    well,
    depth: { firstM, stepM, count },
    curves: [
      await curve('DT', 'sonic', 'us/m', values.sonic),
      await curve('RHOB', 'density', 'kg/m3', values.density),
      await curve('GR', 'gamma ray', 'gAPI', values.gr),
      await curve('RT', 'resistivity', 'ohm.m', values.rt),
    ],
  };
}

const table = (kind: WellTable['kind'], well: string, rows: WellTable['rows']): WellTable => ({
  id: `${kind}-${well}`,
  kind,
  name: `${well} ${kind}`,
  revision: '1',
  stage: 'wells',
  madeBy: MADE,
  well,
  columns: kind === 'tops' ? TOP_COLUMNS : [],
  rows,
});

/** The field in a store: seismic with a little noise, one vertical well with logs, tops and checkshots, the sea bed. */
export async function layeredField(noise = 0.02): Promise<{ store: Store; seismic: StoredVolume; well: Well }> {
  const store = memoryStore('Layered');
  const [ni, nj, nk] = [FIELD.inline.count, FIELD.crossline.count, 301];
  const writer = await volumeWriter(store, 'seismic', [ni, nj, nk]);
  const slab = new Float32Array(writer.slab * nj * nk).fill(Number.NaN);
  const random = even(5);
  const reflectors = bedding();
  const { v, zoneM } = EARTH;
  const well: Well = {
    id: 'well-1',
    kind: 'well',
    name: 'T-1',
    revision: '1',
    stage: 'wells',
    madeBy: MADE,
    x: WELL_AT.j * 25,
    y: WELL_AT.i * 25,
    kbM: 0,
    totalMdM: 1050,
  };
  const logs = await logsOf(store, well.name);
  // the two contrasts of the zone, from the densities on both sides of them
  const coefficient = (a: number, b: number) => (b - a) / (b + a);
  const inside = [
    { d: 0, r: coefficient(v[0] * 2200, v[1] * sandDensity(ROCK.water)) },
    { d: 0.75 * zoneM, r: coefficient(sandDensity(1), 2400) },
    { d: zoneM, r: coefficient(v[1] * 2400, v[2] * 2350) },
  ];
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const events = [...reflectors, ...inside].map(({ d, r }) => ({ t: twtOf(i, j, topM(i, j) + d), r }));
      events.push({ t: twtOf(i, j, EARTH.seaM), r: 0.3 });
      for (let k = 0; k < nk; k++) {
        let value = noise * random();
        for (const e of events) if (Math.abs(4 * k - e.t) < 60) value += e.r * ricker(4 * k - e.t);
        slab[(i * nj + j) * nk + k] = 10000 * value;
      }
    }
  for (let i0 = 0; i0 < ni; i0 += writer.slab) await writer.write(i0, slab);
  await writer.finish();
  const statistics = new RunningStatistics();
  statistics.add(slab.subarray(0, ni * nj * nk));
  const seismic: StoredVolume = {
    id: 'seismic',
    kind: 'volume',
    name: 'Seismic',
    revision: '1',
    stage: 'data',
    madeBy: MADE,
    binGrid: FIELD,
    domain: 'twt',
    quantity: 'amplitude',
    unit: '',
    polarity: 'harder-positive',
    vertical: { first: 0, step: 4, count: nk },
    layouts: writer.layouts,
    statistics: statistics.finish(),
    traces: { live: ni * nj, missing: 0, duplicate: 0 },
  };
  const { i, j } = WELL_AT;
  const top = topM(i, j);
  const shots = Array.from({ length: 16 }, (_, n) => 200 + 50 * n).map((z): [number, number, number] => [
    z,
    z,
    twtOf(i, j, z),
  ]);
  await store.commit({
    put: [
      seismic,
      well,
      logs,
      table('tops', well.name, [
        ['Sea Bed', EARTH.seaM],
        ['Top', top],
        ['Base', top + zoneM],
      ]),
      table('checkshots', well.name, shots),
    ],
  });
  await madeHorizon(store, 'Sea Bed', 'depth', () => EARTH.seaM, FIELD);
  return { store, seismic, well };
}
