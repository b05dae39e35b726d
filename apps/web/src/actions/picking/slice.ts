import {
  type Bin,
  followOnSlice,
  type Picks,
  snapTo,
  toIndex,
  toMap,
  type Volume,
  type Wall,
  walledOff,
} from '@lithagon/core';
import { toast } from 'sonner';
import { readAlong } from '../../compute/planes';
import { inTurn } from '../../state/history';
import { useProject } from '../../state/project';
import type { PickTool } from '../../state/tool';
import { counted } from '../../ui/format';
import { asNow, picksOf, putPicks, takeAway } from './picks';

/** A slice as picking needs it. */
export interface PickedSlice {
  volume: Volume;
  /** TWT of the slice, ms, and its samples. */
  time: number;
  values: Float32Array;
  /** Pieces of the faults that are shown, where they meet the slice, in bins. */
  walls: Wall[];
}

/** The bin at a place of the map; null outside the survey. */
export function binAt({ volume: { binGrid } }: PickedSlice, x: number, y: number): Bin | null {
  const [i, j] = toIndex(binGrid, x, y).map(Math.round);
  return i >= 0 && j >= 0 && i < binGrid.inline.count && j < binGrid.crossline.count ? [i, j] : null;
}

/** Half of the way from one bin to the next: what lies nearer is the same bin's, metres. */
const reachOf = ({ volume: { binGrid } }: PickedSlice) =>
  0.55 * Math.min(Math.hypot(...binGrid.perInline), Math.hypot(...binGrid.perCrossline));

/** How far from a slice picks may lie to count as on it, ms: what snapping may move them by. */
export const sliceReach = ({ volume }: Pick<PickedSlice, 'volume'>, tool: PickTool) =>
  Math.max(tool.how === 'free-hand' ? 0 : tool.snapMs, volume.vertical.step);

/**
 * Picks in bins of a slice: at its time, or at the event nearest to that on each trace; bins that have none within reach are
 * left out.
 */
export async function picksInBins(tool: PickTool, on: PickedSlice, bins: Bin[]): Promise<Picks['points']> {
  const { volume, time } = on;
  const places = bins.map(([i, j]) => toMap(volume.binGrid, i, j));
  if (tool.how === 'free-hand') return places.map(([x, y]) => [x, y, time]);
  const { first, step, count } = volume.vertical;
  const key = `${volume.id}@${volume.revision}/bins/${bins.map((b) => b.join()).join(';')}`;
  const data = await readAlong(useProject.getState().id, volume, key, places);
  const traces = { data, samples: count, first, step };
  return places.flatMap(([x, y], n): Picks['points'] => {
    const at = snapTo(traces, n, time, tool.event, tool.snapMs);
    return Number.isNaN(at) ? [] : [[x, y, at]];
  });
}

/** The path on a slice from the last pick to a bin, where that pick stands on this slice; the bin alone otherwise. */
export function pathOnSlice(tool: PickTool, on: PickedSlice, to: Bin): Bin[] {
  const from = tool.how === 'followed' && tool.last ? binAt(on, tool.last[0], tool.last[1]) : null;
  if (!from || !tool.last || Math.abs(tool.last[2] - on.time) > sliceReach(on, tool)) return [to];
  const { inline, crossline } = on.volume.binGrid;
  const slice = { values: on.values, rows: inline.count, columns: crossline.count };
  return followOnSlice(slice, tool.event, from, to, on.walls) ?? [to];
}

/** Add a pick where a slice was clicked, as the tool is set. */
export const pickOnSlice = (picking: PickTool, on: PickedSlice, x: number, y: number): Promise<void> =>
  inTurn(async () => {
    const tool = asNow(picking);
    const bin = binAt(on, x, y);
    if (!bin) return;
    const picks = await picksInBins(tool, on, pathOnSlice(tool, on, bin));
    if (picks.length === 0) {
      toast(`No ${tool.event} lies within ${tool.snapMs} ms of the slice there. Nothing was picked.`);
      return;
    }
    await putPicks(tool, picks, reachOf(on), (name) =>
      picks.length > 1 ? `Follow ${counted(picks.length, 'trace')} on ${name}` : `Pick on ${name}`,
    );
  });

/** Put picks along a line drawn on a slice with the pointer held down, one in each bin that it passes. */
export const drawOnSlice = (picking: PickTool, on: PickedSlice, stroke: [number, number][]): Promise<void> =>
  inTurn(async () => {
    const tool = asNow(picking);
    const bins = new Map<string, Bin>();
    for (const [n, to] of stroke.entries()) {
      const from = stroke[n - 1] ?? to;
      const steps = Math.max(1, Math.ceil(Math.hypot(to[0] - from[0], to[1] - from[1]) / reachOf(on)));
      for (let k = 0; k <= steps; k++) {
        const f = k / steps;
        const bin = binAt(on, from[0] + f * (to[0] - from[0]), from[1] + f * (to[1] - from[1]));
        if (bin) bins.set(bin.join(), bin);
      }
    }
    const picks = await picksInBins(tool, on, [...bins.values()]);
    if (picks.length > 0)
      await putPicks(tool, picks, reachOf(on), (name) => `Draw ${counted(picks.length, 'pick')} on ${name}`);
  });

/** Take out the picks on a slice of which something is true. */
export const rubOnSlice = (picking: PickTool, on: PickedSlice, hit: (x: number, y: number) => boolean): Promise<void> =>
  inTurn(() => takeAway(picking, ([x, y, time]) => Math.abs(time - on.time) <= sliceReach(on, picking) && hit(x, y)));

/** Take out the pick on a slice that is nearest to a place, within `reach` metres. */
export const unpickOnSlice = (picking: PickTool, on: PickedSlice, x: number, y: number, reach: number): Promise<void> =>
  inTurn(async () => {
    const far = (p: number[]) => Math.hypot(p[0] - x, p[1] - y);
    const here = (picksOf(asNow(picking))?.points ?? []).filter(
      (p) => Math.abs(p[2] - on.time) <= sliceReach(on, picking) && far(p) <= reach,
    );
    const nearest = here.reduce<number[] | null>((a, p) => (!a || far(p) < far(a) ? p : a), null);
    if (nearest) await takeAway(picking, (p) => p === nearest);
  });

/** Whether no fault that is shown stands between two places of a slice. */
export function sameSide(on: PickedSlice, from: [number, number], to: [number, number]): boolean {
  const { binGrid } = on.volume;
  return !walledOff(toIndex(binGrid, ...from), toIndex(binGrid, ...to), on.walls);
}
