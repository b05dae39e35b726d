import { sameSamples, toMap } from '../earth/binGrid.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject, Volume, Well } from '../earth/objects.ts';
import { gridAt } from '../horizons/grid.ts';
import { insideRings } from '../numerics/rings.ts';
import { readWhole } from '../storage/arrays.ts';
import { readInlines, shapeOf, slabOf } from '../storage/planes.ts';
import type { Store } from '../storage/store.ts';
import { wellCurves } from './wells/curves.ts';
import { faciesAt, shownFacies } from './wells/facies.ts';

/** What is plotted against what, and where it comes from. */
export interface PlotRequest {
  from: 'logs' | 'maps' | 'volumes';
  /** Classes or names of curves, or ids of maps, horizons or volumes. */
  x: { of: string; log: boolean };
  y: { of: string; log: boolean };
  color: string | null;
  /** Further quantities by which points may be limited, named as those of the axes are. */
  more?: string[];
  wells: string[];
  /**
   * The zone that points are of: logs are taken between two tops by name, volumes between two horizons by id. Where one is
   * empty, logs go on to their end and volumes to the time or depth below.
   */
  top: string;
  base: string;
  /** Polygon inside which maps and volumes are taken, or null. */
  area: string | null;
  /** Times or depths between which volumes are taken where no horizon bounds them. */
  fromVertical: number;
  toVertical: number;
}

/** Points with what each of them is. */
export interface PlotPoints {
  x: Float32Array;
  y: Float32Array;
  color: Float32Array | null;
  /** What each point has of the further quantities. */
  more: Float32Array[];
  unitsMore: string[];
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

/** Points as they are gathered; what has no value on one of the axes is left out. */
function gathering(r: PlotRequest) {
  const out = { x: new Growing(), y: new Growing(), c: new Growing(), place: new Growing(), depth: new Growing() };
  const further = (r.more ?? []).map(() => new Growing());
  return {
    notes: [] as string[],
    /** @param more the further quantities of the point, in their order */
    push(x: number, y: number, c: number, place: number, depth: number, more: (n: number) => number): void {
      const [a, b] = [r.x.log ? Math.log10(x) : x, r.y.log ? Math.log10(y) : y];
      if (!Number.isFinite(a) || !Number.isFinite(b)) return;
      out.x.push(a);
      out.y.push(b);
      out.c.push(c);
      out.place.push(place);
      out.depth.push(depth);
      for (let n = 0; n < further.length; n++) further[n].push(more(n));
    },
    done(
      units: [string, string, string],
      unitsMore: string[],
      wells: string[] = [],
      classes: string[] = [],
    ): PlotPoints {
      return {
        x: out.x.done(),
        y: out.y.done(),
        color: r.color ? out.c.done() : null,
        more: further.map((f) => f.done()),
        unitsMore,
        unitX: units[0],
        unitY: units[1],
        unitColor: units[2],
        place: Int32Array.from(out.place.done()),
        depth: out.depth.done(),
        wells,
        classes,
        notes: this.notes,
      };
    },
  };
}

/** Gather the points of a crossplot; logarithmic axes hold decimal logarithms, and what has none is left out. */
export async function plotPoints(store: Store, objects: EarthObject[], r: PlotRequest): Promise<PlotPoints> {
  if (r.from === 'logs') return ofLogs(store, objects, r);
  const area = objects.find((o) => o.id === r.area);
  const inside = area?.kind === 'polygon' ? insideRings(area.rings) : () => true;
  return (r.from === 'maps' ? ofMaps : ofVolumes)(store, objects, r, inside);
}

/** Samples of curves, well by well. */
async function ofLogs(store: Store, objects: EarthObject[], r: PlotRequest): Promise<PlotPoints> {
  const points = gathering(r);
  const wells = objects.filter((o): o is Well => o.kind === 'well' && r.wells.includes(o.id));
  const byFacies = r.color === FACIES;
  const described = objects.flatMap((o) => (o.kind === 'facies' ? o.rows.map((row) => String(row[2])) : []));
  const classes = byFacies ? [...new Set(described)].sort() : [];
  let units: [string, string, string] = ['', '', ''];
  let unitsMore: string[] = [];
  for (const [n, well] of wells.entries()) {
    const curves = wellCurves(store, objects, well, [r.x.of]);
    const [x, y, c] = [
      await curves?.get(r.x.of),
      await curves?.get(r.y.of),
      r.color && !byFacies ? await curves?.get(r.color) : null,
    ];
    const more = await Promise.all((r.more ?? []).map(async (of) => await curves?.get(of)));
    const table = byFacies ? shownFacies(objects, well.name) : undefined;
    if (!curves || !x || !y) {
      points.notes.push(`${well.name} has no ${x ? r.y.of : r.x.of}.`);
      continue;
    }
    units = [
      curves.held(r.x.of)?.curve.unit ?? '',
      curves.held(r.y.of)?.curve.unit ?? '',
      r.color && !byFacies ? (curves.held(r.color)?.curve.unit ?? '') : '',
    ];
    unitsMore = (r.more ?? []).map((of, m) => curves.held(of)?.curve.unit ?? unitsMore[m] ?? '');
    const mdOf = (name: string, otherwise: number) =>
      name ? (curves.tops.find((t) => t.name === name)?.md ?? Number.NaN) : otherwise;
    const [from, to] = [mdOf(r.top, 0), mdOf(r.base, Number.POSITIVE_INFINITY)];
    if (!(to > from)) {
      points.notes.push(`${well.name} has no zone from ${r.top || 'its top'} to ${r.base || 'its end'}.`);
      continue;
    }
    for (let k = 0; k < x.length; k++) {
      const md = curves.md(k);
      if (md < from || md >= to) continue;
      const named = table ? faciesAt(table, md) : null;
      const color = named !== null ? classes.indexOf(named) : c ? c[k] : Number.NaN;
      points.push(x[k], y[k], color, n, md, (m) => more[m]?.[k] ?? Number.NaN);
    }
  }
  return points.done(
    units,
    unitsMore,
    wells.map((w) => w.name),
    classes,
  );
}

type Inside = (x: number, y: number) => boolean;

/** Bins of the map or horizon across; the others are read where its bins are, between theirs. */
async function ofMaps(store: Store, objects: EarthObject[], r: PlotRequest, inside: Inside): Promise<PlotPoints> {
  const points = gathering(r);
  const grid = async (id: string | null) => {
    const o = objects.find((each) => each.id === id);
    if (o?.kind !== 'map' && o?.kind !== 'horizon') return null;
    const unit = o.kind === 'map' ? o.unit : o.domain === 'twt' ? 'ms' : 'm';
    return { binGrid: o.binGrid, values: await readWhole(store, o.values), unit };
  };
  const [x, y, c] = [await grid(r.x.of), await grid(r.y.of), await grid(r.color)];
  const more = await Promise.all((r.more ?? []).map(grid));
  if (!x || !y)
    throw new LithagonError('crossplot', 'Two maps or horizons are needed.', { fix: 'Choose one for each axis.' });
  const [ni, nj] = [x.binGrid.inline.count, x.binGrid.crossline.count];
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const [px, py] = toMap(x.binGrid, i, j);
      if (!inside(px, py)) continue;
      const color = c ? gridAt(c.values, c.binGrid, px, py) : Number.NaN;
      points.push(x.values[i * nj + j], gridAt(y.values, y.binGrid, px, py), color, i * nj + j, 0, (m) => {
        const of = more[m];
        return of ? gridAt(of.values, of.binGrid, px, py) : Number.NaN;
      });
    }
  return points.done(
    [x.unit, y.unit, c?.unit ?? ''],
    more.map((m) => m?.unit ?? ''),
  );
}

/** First and last sample of every bin, from horizons or the typed range; a bin without both has none. */
async function spans(store: Store, objects: EarthObject[], r: PlotRequest, volume: Volume, inside: Inside) {
  const [ni, nj, nk] = shapeOf(volume);
  const { first, step } = volume.vertical;
  const bound = async (id: string, typed: number): Promise<(x: number, y: number) => number> => {
    if (!id) return () => typed;
    const horizon = objects.find((o) => o.id === id);
    if (horizon?.kind !== 'horizon' || horizon.domain !== volume.domain)
      throw new LithagonError(
        'crossplot',
        `What should bound the samples is not a horizon of ${volume.name}'s domain.`,
        {
          fix: `Choose a horizon in ${volume.domain === 'twt' ? 'TWT' : 'depth'}, or type a range.`,
        },
      );
    const values = await readWhole(store, horizon.values);
    return (x, y) => gridAt(values, horizon.binGrid, x, y);
  };
  const [top, base] = [await bound(r.top, r.fromVertical), await bound(r.base, r.toVertical)];
  const from = new Int32Array(ni * nj);
  const to = new Int32Array(ni * nj).fill(-1);
  let total = 0;
  for (let n = 0; n < from.length; n++) {
    const [x, y] = toMap(volume.binGrid, Math.floor(n / nj), n % nj);
    const [a, b] = [top(x, y), base(x, y)];
    if (!inside(x, y) || !(b >= a)) continue;
    from[n] = Math.max(0, Math.ceil((a - first) / step));
    to[n] = Math.min(nk - 1, Math.floor((b - first) / step));
    total += Math.max(0, to[n] - from[n] + 1);
  }
  return { from, to, total };
}

/** Samples of volumes of one grid, thinned evenly where there are too many. */
async function ofVolumes(store: Store, objects: EarthObject[], r: PlotRequest, inside: Inside): Promise<PlotPoints> {
  const points = gathering(r);
  const volume = (id: string | null) => {
    const o = objects.find((each) => each.id === id);
    return o?.kind === 'volume' ? o : null;
  };
  const [x, y, c] = [volume(r.x.of), volume(r.y.of), volume(r.color)];
  if (!x || !y) throw new LithagonError('crossplot', 'Two volumes are needed.', { fix: 'Choose one for each axis.' });
  const more = (r.more ?? []).map(volume);
  for (const other of [y, c, ...more])
    if (other && !sameSamples(other, x))
      throw new LithagonError('crossplot', `${other.name} and ${x.name} have not the same lines and samples.`, {
        fix: 'Choose volumes of one grid, or resample one to the other.',
      });
  const [ni, nj, nk] = shapeOf(x);
  const { first, step } = x.vertical;
  const { from, to, total } = await spans(store, objects, r, x, inside);
  const every = Math.max(1, Math.ceil(Math.sqrt(total / MOST)));
  if (every > 1) points.notes.push(`Every ${every}th inline and crossline is plotted.`);
  // slab by slab, so that none is read twice
  const thick = slabOf(x);
  for (let i0 = 0; i0 < ni; i0 += thick) {
    const i1 = Math.min(ni, i0 + thick);
    const [a, b, d, ...further] = await Promise.all(
      [x, y, c, ...more].map((v) => (v ? readInlines(store, v, i0, i1) : null)),
    );
    if (!a || !b) break;
    for (let i = Math.ceil(i0 / every) * every; i < i1; i += every)
      for (let j = 0; j < nj; j += every) {
        const [bin, at] = [i * nj + j, ((i - i0) * nj + j) * nk];
        for (let k = from[bin]; k <= to[bin]; k++)
          points.push(
            a[at + k],
            b[at + k],
            d ? d[at + k] : Number.NaN,
            bin,
            first + k * step,
            (m) => further[m]?.[at + k] ?? Number.NaN,
          );
      }
  }
  return points.done(
    [x.unit, y.unit, c?.unit ?? ''],
    more.map((m) => m?.unit ?? ''),
  );
}

/** Points whose further quantities lie within ranges, one for each; all of them where there are none. */
export function within(points: PlotPoints, ranges: readonly (readonly [number, number])[]): PlotPoints {
  if (ranges.length === 0) return points;
  const kept: number[] = [];
  for (let n = 0; n < points.x.length; n++)
    if (ranges.every(([from, to], m) => points.more[m][n] >= from && points.more[m][n] <= to)) kept.push(n);
  const floats = (of: Float32Array) => Float32Array.from(kept, (n) => of[n]);
  return {
    ...points,
    x: floats(points.x),
    y: floats(points.y),
    color: points.color && floats(points.color),
    more: points.more.map(floats),
    place: Int32Array.from(kept, (n) => points.place[n]),
    depth: floats(points.depth),
  };
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
