import { type BinGrid, cornersOf } from '../earth/binGrid.ts';
import type { Crs } from '../earth/crs.ts';
import type { EarthObject, Frame } from '../earth/objects.ts';
import { metresPerUnit, transformBetween } from '../earth/transform.ts';
import type { Move } from '../kinds/define.ts';
import { kindOf } from '../kinds/index.ts';
import { leastSquares } from '../numerics/leastSquares.ts';
import { loadedRevision } from './make.ts';

type ToMap = (x: number, y: number) => [number, number];

/** What another coordinate system would do to a project, before it is done. */
export interface Reframing {
  /** What converting does and how well; null where no transformation is known, with the reason in `refused`. */
  says: string | null;
  refused?: string;
  /** A well's head and a survey's corner: as they stand, relabelled, and converted. */
  examples: { name: string; now: [number, number]; relabelled: [number, number]; converted: [number, number] | null }[];
}

/** From metres along the axes of one system to those of another; the operation is chosen for a place `at`, where one is given. */
export function mapBetween(from: Crs, to: Crs, at?: [number, number]): { says: string; toMap: ToMap } {
  const [a, b] = [metresPerUnit(from), metresPerUnit(to)];
  const { says, convert } = transformBetween(from, to, at && [at[0] / a, at[1] / a]);
  return {
    says,
    toMap: (x, y) => {
      const [px, py] = convert(x / a, y / a);
      return [px * b, py * b];
    },
  };
}

/**
 * The same numbers said to be of another system: positions inside are metres, so that they move where its unit is another.
 * Null where nothing moves.
 */
export function relabelBetween(from: Crs, to: Crs): ToMap | null {
  const scale = metresPerUnit(to) / metresPerUnit(from);
  return Math.abs(scale - 1) < 1e-12 ? null : (x, y) => [x * scale, y * scale];
}

/** A place of a project, metres: its first well, or the corner of a volume. */
export function placeOf(objects: EarthObject[]): [number, number] | undefined {
  const well = objects.find((o) => o.kind === 'well');
  if (well?.kind === 'well') return [well.x, well.y];
  const volume = objects.find((o) => o.kind === 'volume' && !o.binGrid.local);
  return volume?.kind === 'volume' ? cornersOf(volume.binGrid)[0] : undefined;
}

/** One well and one corner, in the units of each system. */
export function previewReframe(objects: EarthObject[], from: Crs, to: Crs): Reframing {
  const [a, b] = [metresPerUnit(from), metresPerUnit(to)];
  let says: string | null = null;
  let refused: string | undefined;
  let toMap: ToMap | null = null;
  const well = objects.find((o) => o.kind === 'well');
  const volume = objects.find((o) => o.kind === 'volume');
  const places: [string, [number, number]][] = [];
  if (well?.kind === 'well') places.push([well.name, [well.x, well.y]]);
  if (volume?.kind === 'volume' && !volume.binGrid.local)
    places.push([`first corner of ${volume.name}`, cornersOf(volume.binGrid)[0]]);
  try {
    ({ says, toMap } = mapBetween(from, to, placeOf(objects)));
  } catch (cause) {
    refused = (cause as Error).message;
  }
  return {
    says,
    refused,
    examples: places.map(([name, [x, y]]) => {
      const converted = toMap?.(x, y);
      return {
        name,
        now: [x / a, y / a],
        // the same numbers, said to be of the other system
        relabelled: [x / a, y / a],
        converted: converted ? [converted[0] / b, converted[1] / b] : null,
      };
    }),
  };
}

/** The affine nearest to a converted bin grid: bins of a survey stay a bin grid, off by centimetres at most. */
function convertedBinGrid(binGrid: BinGrid, toMap: ToMap): BinGrid {
  if (binGrid.local) return binGrid;
  const { inline, crossline, origin: o, perInline: p, perCrossline: q } = binGrid;
  const base = toMap(o[0], o[1]);
  const design: number[][] = [];
  const [xs, ys]: number[][] = [[], []];
  for (const f of [0, 0.25, 0.5, 0.75, 1])
    for (const g of [0, 0.25, 0.5, 0.75, 1]) {
      const [i, j] = [f * (inline.count - 1), g * (crossline.count - 1)];
      const [x, y] = toMap(o[0] + i * p[0] + j * q[0], o[1] + i * p[1] + j * q[1]);
      design.push([1, i, j]);
      xs.push(x - base[0]);
      ys.push(y - base[1]);
    }
  const [cx, cy] = [leastSquares(design, xs), leastSquares(design, ys)];
  if (!cx || !cy) {
    // a single line has only one way to go
    const at = (i: number, j: number) => toMap(o[0] + i * p[0] + j * q[0], o[1] + i * p[1] + j * q[1]);
    const [a, b] = [at(1, 0), at(0, 1)];
    return {
      ...binGrid,
      origin: base,
      perInline: [a[0] - base[0], a[1] - base[1]],
      perCrossline: [b[0] - base[0], b[1] - base[1]],
    };
  }
  return {
    ...binGrid,
    origin: [base[0] + cx[0], base[1] + cy[0]],
    perInline: [cx[1], cy[1]],
    perCrossline: [cx[2], cy[2]],
  };
}

/** An object with every position in it moved; the same object where it has none. */
function moved(object: EarthObject, toMap: ToMap): EarthObject {
  const move: Move = { point: toMap, binGrid: (binGrid) => convertedBinGrid(binGrid, toMap) };
  return kindOf(object).moved?.(object, move) ?? object;
}

/**
 * Objects of a project brought from one system to another: those that moved, with new revisions. References between
 * them follow, so that nothing is out of date that was not before.
 */
export function reframed(objects: EarthObject[], toMap: ToMap, to: Frame): EarthObject[] {
  const revisions = new Map<string, string>();
  const next = objects.map((object) => {
    const out = moved(object, toMap);
    if (out === object) return object;
    const revision = loadedRevision(object.revision, { crs: to.crs });
    revisions.set(`${object.id}@${object.revision}`, `${object.id}@${revision}`);
    return { ...out, revision };
  });
  return next
    .map((object): EarthObject => {
      const inputs = Object.fromEntries(
        Object.entries(object.madeBy.inputs).map(([role, refs]) => [role, refs.map((r) => revisions.get(r) ?? r)]),
      );
      return { ...object, madeBy: { ...object.madeBy, inputs } };
    })
    .filter((object, n) => JSON.stringify(object) !== JSON.stringify(objects[n]));
}
