import { type BinGrid, toIndex, toMap } from '../earth/binGrid.ts';
import { LithagonError } from '../earth/errors.ts';
import type { Volume } from '../earth/objects.ts';
import { leastSquares } from '../numerics/leastSquares.ts';
import { loadedRevision } from './make.ts';

/** A bin by its line numbers, and where it is on the map, metres. */
export interface PlacedBin {
  inline: number;
  crossline: number;
  x: number;
  y: number;
}

const indexOf = ({ inline, crossline }: BinGrid, at: { inline: number; crossline: number }): [number, number] => [
  (at.inline - inline.first) / inline.step,
  (at.crossline - crossline.first) / crossline.step,
];

/** A bin grid laid over another by its line numbers. */
export function placedLike(binGrid: BinGrid, other: BinGrid): BinGrid {
  const at = (i: number, j: number) =>
    toMap(
      other,
      ...indexOf(other, {
        inline: binGrid.inline.first + i * binGrid.inline.step,
        crossline: binGrid.crossline.first + j * binGrid.crossline.step,
      }),
    );
  const [origin, a, b] = [at(0, 0), at(1, 0), at(0, 1)];
  const { inline, crossline } = binGrid;
  return {
    inline,
    crossline,
    origin,
    perInline: [a[0] - origin[0], a[1] - origin[1]],
    perCrossline: [b[0] - origin[0], b[1] - origin[1]],
  };
}

/** A bin grid through three bins or more of known places; refuses what spans no area, or bins that disagree. */
export function placedAt(binGrid: BinGrid, bins: PlacedBin[]): BinGrid {
  const refuse = (why: string, fix: string): never => {
    throw new LithagonError('place', why, { fix });
  };
  if (bins.length < 3 || bins.some((b) => !Object.values(b).every(Number.isFinite)))
    refuse('A grid is placed by three bins, each with inline, crossline, X and Y.', 'Give three corners of it.');
  const design = bins.map((b) => [1, ...indexOf(binGrid, b)]);
  const [{ x: x0, y: y0 }] = bins;
  const [cx, cy] = [
    leastSquares(
      design,
      bins.map((b) => b.x - x0),
    ),
    leastSquares(
      design,
      bins.map((b) => b.y - y0),
    ),
  ];
  if (!cx || !cy) return refuse('The bins lie on one line, which places no grid.', 'Give three corners of it.');
  const { inline, crossline } = binGrid;
  const placed: BinGrid = {
    inline,
    crossline,
    origin: [x0 + cx[0], y0 + cy[0]],
    perInline: [cx[1], cy[1]],
    perCrossline: [cx[2], cy[2]],
  };
  const [a, b] = [Math.hypot(cx[1], cy[1]), Math.hypot(cx[2], cy[2])];
  if (Math.abs(cx[1] * cy[2] - cx[2] * cy[1]) < 0.05 * a * b)
    refuse('These places make a grid without an area.', 'Check which inline, crossline, X and Y belong together.');
  for (const bin of bins) {
    const [i, j] = indexOf(binGrid, bin);
    const [gi, gj] = toIndex(placed, bin.x, bin.y);
    if (Math.abs(gi - i) > 0.5 || Math.abs(gj - j) > 0.5)
      refuse(
        `Inline ${bin.inline}, crossline ${bin.crossline} lies more than half a bin from where the other places have it.`,
        'Check the places.',
      );
  }
  return placed;
}

/** A volume in its place: a new revision, so that what was made from it is out of date. */
export function placedVolume(volume: Volume, binGrid: BinGrid): Volume {
  return { ...volume, binGrid, revision: loadedRevision(volume.revision, { binGrid }) };
}
