import { LithagonError } from '../earth/errors.ts';
import { toIndex, toMap } from '../earth/lattice.ts';
import type { EarthObject, Volume, Well } from '../earth/objects.ts';
import { insideRings } from '../numerics/rings.ts';
import { readWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';
import { readInlines, shapeOf } from '../storage/volumes.ts';
import { wellCurves } from './curves.ts';
import { faciesAt, shownFacies } from './facies.ts';

/** What is plotted against what, and where it comes from. */
export interface PlotRequest {
  from: 'logs' | 'maps' | 'volumes';
  /** Classes or names of curves, or ids of maps, horizons or volumes. */
  x: { of: string; log: boolean };
  y: { of: string; log: boolean };
  color: string | null;
  /** Wells by id, and the tops between which they are taken; whole logs where empty. */
  wells: string[];
  top: string;
  base: string;
  /** Polygon inside which maps and volumes are taken, or null. */
  area: string | null;
  /** Times or depths between which volumes are taken. */
  fromVertical: number;
  toVertical: number;
}

/** Points with what each of them is. */
export interface PlotPoints {
  x: Float32Array;
  y: Float32Array;
  color: Float32Array | null;
  unitX: string;
  unitY: string;
  unitColor: string;
  /** Index into `wells`, or of the bin `i·nj + j`. */
  place: Int32Array;
  /** Measured depth of logs, vertical position of volumes. */
  depth: Float32Array;
  wells: string[];
  /** Names of the classes that `color` counts, where it does. */
  classes: string[];
  notes: string[];
}

/** Colour of points of logs by the facies of their depths. */
export const FACIES = 'facies';

/** Most points that are kept: beyond it volumes are thinned evenly. */
const MOST = 2_000_000;

class Growing {
  private data: Float32Array = new Float32Array(1 << 14);
  length = 0;
  push(v: number): void {
    if (this.length === this.data.length) {
      const next = new Float32Array(2 * this.data.length);
      next.set(this.data);
      this.data = next;
    }
    this.data[this.length++] = v;
  }
  done(): Float32Array {
    return this.data.slice(0, this.length);
  }
}

/** Gather the points of a crossplot; logarithmic axes hold decimal logarithms, and what has none is left out. */
export async function plotPoints(store: Store, objects: EarthObject[], r: PlotRequest): Promise<PlotPoints> {
  const out = { x: new Growing(), y: new Growing(), c: new Growing(), place: new Growing(), depth: new Growing() };
  const notes: string[] = [];
  const classes: string[] = [];
  const push = (x: number, y: number, c: number, place: number, depth: number) => {
    const [a, b] = [r.x.log ? Math.log10(x) : x, r.y.log ? Math.log10(y) : y];
    if (!Number.isFinite(a) || !Number.isFinite(b)) return;
    out.x.push(a);
    out.y.push(b);
    out.c.push(c);
    out.place.push(place);
    out.depth.push(depth);
  };
  const finish = (units: [string, string, string], wells: string[]): PlotPoints => ({
    x: out.x.done(),
    y: out.y.done(),
    color: r.color ? out.c.done() : null,
    unitX: units[0],
    unitY: units[1],
    unitColor: units[2],
    place: Int32Array.from(out.place.done()),
    depth: out.depth.done(),
    wells,
    classes,
    notes,
  });
  if (r.from === 'logs') {
    const wells = objects.filter((o): o is Well => o.kind === 'well' && r.wells.includes(o.id));
    const byFacies = r.color === FACIES;
    const described = objects.flatMap((o) => (o.kind === 'facies' ? o.rows.map((row) => String(row[2])) : []));
    if (byFacies) classes.push(...[...new Set(described)].sort());
    let units: [string, string, string] = ['', '', ''];
    for (const [n, well] of wells.entries()) {
      const curves = wellCurves(store, objects, well, [r.x.of]);
      const [x, y, c] = [
        await curves?.get(r.x.of),
        await curves?.get(r.y.of),
        r.color && !byFacies ? await curves?.get(r.color) : null,
      ];
      const table = byFacies ? shownFacies(objects, well.name) : undefined;
      if (!curves || !x || !y) {
        notes.push(`${well.name} has no ${x ? r.y.of : r.x.of}.`);
        continue;
      }
      units = [
        curves.held(r.x.of)?.curve.unit ?? '',
        curves.held(r.y.of)?.curve.unit ?? '',
        r.color && !byFacies ? (curves.held(r.color)?.curve.unit ?? '') : '',
      ];
      const mdOf = (name: string, otherwise: number) =>
        name ? (curves.tops.find((t) => t.name === name)?.md ?? Number.NaN) : otherwise;
      const [from, to] = [mdOf(r.top, 0), mdOf(r.base, Number.POSITIVE_INFINITY)];
      if (!(to > from)) {
        notes.push(`${well.name} has no zone from ${r.top || 'its top'} to ${r.base || 'its end'}.`);
        continue;
      }
      for (let k = 0; k < x.length; k++) {
        const md = curves.md(k);
        if (md < from || md >= to) continue;
        const named = table ? faciesAt(table, md) : null;
        push(x[k], y[k], named !== null ? classes.indexOf(named) : c ? c[k] : Number.NaN, n, md);
      }
    }
    return finish(
      units,
      wells.map((w) => w.name),
    );
  }
  const byId = (id: string) => objects.find((o) => o.id === id);
  const area = r.area ? byId(r.area) : undefined;
  const inside = area?.kind === 'polygon' ? insideRings(area.rings) : () => true;
  if (r.from === 'maps') {
    const grid = async (id: string | null) => {
      const o = id ? byId(id) : undefined;
      if (o?.kind !== 'map' && o?.kind !== 'horizon') return null;
      return {
        o,
        values: await readWhole(store, o.values),
        unit: o.kind === 'map' ? o.unit : o.domain === 'twt' ? 'ms' : 'm',
      };
    };
    const [x, y, c] = [await grid(r.x.of), await grid(r.y.of), await grid(r.color)];
    if (!x || !y)
      throw new LithagonError('crossplot', 'Two maps or horizons are needed.', { fix: 'Choose one for each axis.' });
    const { lattice } = x.o;
    const [ni, nj] = [lattice.inline.count, lattice.crossline.count];
    const at = (g: typeof y, px: number, py: number) => {
      const [i, j] = toIndex(g.o.lattice, px, py).map(Math.round);
      const { inline, crossline } = g.o.lattice;
      return i >= 0 && j >= 0 && i < inline.count && j < crossline.count
        ? g.values[i * crossline.count + j]
        : Number.NaN;
    };
    for (let i = 0; i < ni; i++)
      for (let j = 0; j < nj; j++) {
        const [px, py] = toMap(lattice, i, j);
        if (!inside(px, py)) continue;
        push(x.values[i * nj + j], at(y, px, py), c ? at(c, px, py) : Number.NaN, i * nj + j, 0);
      }
    return finish([x.unit, y.unit, c?.unit ?? ''], []);
  }
  const volume = (id: string | null) => {
    const o = id ? byId(id) : undefined;
    return o?.kind === 'volume' ? o : null;
  };
  const [x, y, c] = [volume(r.x.of), volume(r.y.of), volume(r.color)];
  if (!x || !y) throw new LithagonError('crossplot', 'Two volumes are needed.', { fix: 'Choose one for each axis.' });
  await ofVolumes(store, x, y, c, r, inside, push, notes);
  return finish([x.unit, y.unit, c?.unit ?? ''], []);
}

/** Samples of volumes of one grid, thinned evenly where there are too many. */
async function ofVolumes(
  store: Store,
  x: Volume,
  y: Volume,
  c: Volume | null,
  r: PlotRequest,
  inside: (x: number, y: number) => boolean,
  push: (x: number, y: number, c: number, place: number, depth: number) => void,
  notes: string[],
): Promise<void> {
  const [ni, nj, nk] = shapeOf(x);
  for (const other of [y, c])
    if (other && (shapeOf(other).join() !== shapeOf(x).join() || other.domain !== x.domain))
      throw new LithagonError('crossplot', `${other.name} and ${x.name} have not the same lines and samples.`, {
        fix: 'Choose volumes of one grid, or resample one to the other.',
      });
  const { first, step } = x.vertical;
  const k0 = Math.max(0, Math.ceil((r.fromVertical - first) / step));
  const k1 = Math.min(nk - 1, Math.floor((r.toVertical - first) / step));
  const total = ni * nj * Math.max(0, k1 - k0 + 1);
  const every = Math.max(1, Math.ceil(Math.sqrt(total / MOST)));
  if (every > 1) notes.push(`Every ${every}th inline and crossline is plotted.`);
  for (let i = 0; i < ni; i += every) {
    const [a, b, d] = await Promise.all([x, y, c].map((v) => (v ? readInlines(store, v, i, i + 1) : null)));
    if (!a || !b) return;
    for (let j = 0; j < nj; j += every) {
      const [px, py] = toMap(x.lattice, i, j);
      if (!inside(px, py)) continue;
      for (let k = k0; k <= k1; k++)
        push(a[j * nk + k], b[j * nk + k], d ? d[j * nk + k] : Number.NaN, i * nj + j, first + k * step);
    }
  }
}

/** Selected points of logs as intervals of measured depth by well; neighbours closer than a metre are one interval. */
export function selectedIntervals(points: PlotPoints, mask: Uint8Array): Map<string, [number, number][]> {
  const out = new Map<string, [number, number][]>();
  for (let n = 0; n < mask.length; n++) {
    if (!mask[n]) continue;
    const well = points.wells[points.place[n]];
    const own = out.get(well) ?? [];
    if (own.length === 0) out.set(well, own);
    const last = own.at(-1);
    const md = points.depth[n];
    if (last && md - last[1] < 1 && md >= last[1]) last[1] = md;
    else own.push([md, md + 0.15]);
  }
  return out;
}
