import { z } from 'zod';

/** A regular axis of line numbers: `first + index·step`. */
export const axisSchema = z.object({ first: z.number(), step: z.number(), count: z.int().positive() });
export type Axis = z.infer<typeof axisSchema>;

/**
 * Where the bins of a survey are: an affine map from line indexes to map coordinates (metres).
 * `(x, y) = origin + i·perInline + j·perCrossline`, `i` and `j` being indexes from 0.
 */
export const binGridSchema = z.object({
  inline: axisSchema,
  crossline: axisSchema,
  origin: z.tuple([z.number(), z.number()]),
  perInline: z.tuple([z.number(), z.number()]),
  perCrossline: z.tuple([z.number(), z.number()]),
  /** Whether it has no place on the map: coordinates are then lengths from its own corner. */
  local: z.literal(true).optional(),
});
export type BinGrid = z.infer<typeof binGridSchema>;

export function toMap(binGrid: BinGrid, i: number, j: number): [x: number, y: number] {
  const { origin: o, perInline: a, perCrossline: b } = binGrid;
  return [o[0] + i * a[0] + j * b[0], o[1] + i * a[1] + j * b[1]];
}

/** Fractional line indexes of a map position. */
export function toIndex(binGrid: BinGrid, x: number, y: number): [i: number, j: number] {
  const { origin: o, perInline: a, perCrossline: b } = binGrid;
  const det = a[0] * b[1] - a[1] * b[0];
  const dx = x - o[0];
  const dy = y - o[1];
  return [(dx * b[1] - dy * b[0]) / det, (a[0] * dy - a[1] * dx) / det];
}

export function inlineAt(binGrid: BinGrid, i: number): number {
  return binGrid.inline.first + i * binGrid.inline.step;
}

export function crosslineAt(binGrid: BinGrid, j: number): number {
  return binGrid.crossline.first + j * binGrid.crossline.step;
}

/** Area of a bin in m². */
export function binArea(binGrid: BinGrid): number {
  const { perInline: a, perCrossline: b } = binGrid;
  return Math.abs(a[0] * b[1] - a[1] * b[0]);
}

/** The four corners in map coordinates, round the outside. */
export function cornersOf(binGrid: BinGrid): [number, number][] {
  const i = binGrid.inline.count - 1;
  const j = binGrid.crossline.count - 1;
  return [toMap(binGrid, 0, 0), toMap(binGrid, 0, j), toMap(binGrid, i, j), toMap(binGrid, i, 0)];
}

/** Whether two bin grids have the same bins, to a hundredth of a bin. */
export function sameBins(a: BinGrid, b: BinGrid): boolean {
  if (a.inline.count !== b.inline.count || a.crossline.count !== b.crossline.count || a.local !== b.local) return false;
  const near = 0.01 * Math.sqrt(binArea(a));
  const [ca, cb] = [cornersOf(a), cornersOf(b)];
  return ca.every((corner, n) => Math.hypot(corner[0] - cb[n][0], corner[1] - cb[n][1]) < near);
}

/** What says where the samples of a volume lie. */
interface Gridded {
  domain: string;
  binGrid: BinGrid;
  vertical: { first: number; step: number; count: number };
}

/** Whether two volumes have their samples at the same places, to a hundredth of a bin and of a sample. */
export function sameSamples(a: Gridded, b: Gridded): boolean {
  const [p, q] = [a.vertical, b.vertical];
  const near = 0.01 * p.step;
  const last = (v: typeof p) => v.first + v.step * (v.count - 1);
  return (
    a.domain === b.domain &&
    p.count === q.count &&
    Math.abs(p.first - q.first) < near &&
    Math.abs(last(p) - last(q)) < near &&
    sameBins(a.binGrid, b.binGrid)
  );
}

const WINDS = ['N', 'NNE', 'NE', 'ENE', 'E', 'ESE', 'SE', 'SSE', 'S', 'SSW', 'SW', 'WSW', 'W', 'WNW', 'NW', 'NNW'];

/** Compass point of a direction in map coordinates. */
export function windOf(dx: number, dy: number): string {
  const azimuth = (Math.atan2(dx, dy) * 180) / Math.PI;
  return WINDS[Math.round(((azimuth + 360) % 360) / 22.5) % 16];
}
