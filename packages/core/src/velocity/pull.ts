import type { Model } from './model.ts';

/** How much a layer's velocity makes a structure seem higher or lower in time, over a part of the map. */
export interface Pull {
  layer: number;
  /** Greatest less least of its effect, ms: between the 5th and 95th of 100. */
  ms: number;
  /** Effect at the place asked about beside the mean of all, ms; positive where what lies below comes later (sag). */
  here: number;
}

/** Places that it takes before a change with burial is told. */
const ENOUGH = 8;

/**
 * Pull-up and sag: for each layer, the time that it takes less the time that it would take if its velocity followed its burial alone (a
 * straight line through all places).
 * @param places where it is looked at; the first is the one asked about
 */
export function pullsOf(model: Model, places: [number, number][], upTo: number): Pull[] {
  const columns = places.map(([x, y]) => model.column(x, y));
  if (!columns[0]) return [];
  const out: Pull[] = [];
  for (let layer = 0; layer <= upTo; layer++) {
    const rows = columns.flatMap((column, n) => {
      if (!column) return [];
      const base = column.boundaries[layer];
      const top = layer > 0 ? column.boundaries[layer - 1] : { t: column.t[0], z: column.z[0] };
      const [dt, dz] = [base.t - top.t, base.z - top.z];
      return dt > 4 ? [{ n, dt, dz, velocity: (2000 * dz) / dt, middle: 0.5 * (base.z + top.z) }] : [];
    });
    if (rows.length < ENOUGH || rows[0].n !== 0) continue;
    const mean = (of: (r: (typeof rows)[number]) => number) => rows.reduce((s, r) => s + of(r), 0) / rows.length;
    const [mz, mv] = [mean((r) => r.middle), mean((r) => r.velocity)];
    const spread = mean((r) => (r.middle - mz) ** 2);
    const slope = spread > 1 ? mean((r) => (r.middle - mz) * (r.velocity - mv)) / spread : 0;
    const effects = rows.map((r) => r.dt - (2000 * r.dz) / (mv + slope * (r.middle - mz)));
    const sorted = [...effects].sort((a, b) => a - b);
    const at = (part: number) => sorted[Math.round(part * (sorted.length - 1))];
    out.push({
      layer,
      ms: at(0.95) - at(0.05),
      here: effects[0] - effects.reduce((a, b) => a + b, 0) / effects.length,
    });
  }
  return out;
}
