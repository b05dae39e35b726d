import { type BinGrid, binArea, cornersOf, sameBins, toIndex } from '../earth/binGrid.ts';
import type { Units } from '../earth/display.ts';
import type { Volume } from '../earth/objects.ts';

/** How a grid lies to that of a volume that is there already. */
export interface NearGrid {
  volume: Volume;
  /** `same`: bin for bin; `near`: as many lines, off by a part of a bin; `lines`: every so many of its lines, or a part. */
  relation: 'same' | 'near' | 'lines';
  says: string;
}

/**
 * The volume whose bins are those of a bin grid, or nearly: surveys belong together by where they are, not by names.
 */
export function nearGrid(binGrid: BinGrid, volumes: Volume[], units: Units): NearGrid | null {
  if (binGrid.local) return null;
  const bin = Math.sqrt(binArea(binGrid));
  let best: NearGrid | null = null;
  for (const volume of volumes) {
    if (volume.binGrid.local) continue;
    if (sameBins(binGrid, volume.binGrid)) return { volume, relation: 'same', says: `the same bins as ${volume.name}` };
    const [own, other] = [cornersOf(binGrid), cornersOf(volume.binGrid)];
    const alike =
      binGrid.inline.count === volume.binGrid.inline.count &&
      binGrid.crossline.count === volume.binGrid.crossline.count;
    const off = Math.max(...own.map((c, n) => Math.hypot(c[0] - other[n][0], c[1] - other[n][1])));
    if (alike && off < 0.5 * bin && best?.relation !== 'near') {
      best = {
        volume,
        relation: 'near',
        says: `as many lines as ${volume.name}, with corners ${units.text(off, 'm', 2)} apart at most (${(off / bin).toFixed(2)} of a bin)`,
      };
      continue;
    }
    if (best) continue;
    const at = own.map(([x, y]) => toIndex(volume.binGrid, x, y));
    const onBins = at.every(([i, j]) => Math.abs(i - Math.round(i)) < 0.02 && Math.abs(j - Math.round(j)) < 0.02);
    const { inline, crossline } = binGrid;
    const every = [
      Math.abs(at[3][0] - at[0][0]) / Math.max(1, inline.count - 1),
      Math.abs(at[1][1] - at[0][1]) / Math.max(1, crossline.count - 1),
    ];
    const whole = every.every((s) => Math.abs(s - Math.round(s)) < 0.02 && Math.round(s) > 0);
    if (onBins && whole) {
      const [a, b] = every.map(Math.round);
      best = {
        volume,
        relation: 'lines',
        says:
          a === 1 && b === 1
            ? `on the bins of ${volume.name}`
            : `on the bins of ${volume.name}, every ${a} of its inlines and ${b} of its crosslines`,
      };
    }
  }
  return best;
}
