import { extentOf } from '@lithagon/core';
import type { LogsDesk, Track } from '../../state/logsTemplate';
import type { WellColumn } from './columns';
import { type Mark, type TrackBox, trackMarks } from './marks';

export const HEAD = 92;
export const AXIS = 40;
const GAP = 66;
/** Width of a letter of a top's name, and what stands before it. */
const LETTER = 6;
const BEFORE_NAME = 10;
/** Tracks are narrowed to this part of their width where that lets all wells be seen. */
export const NARROWEST = 0.44;
export const TRACK_GAP = 3;

/** A well's place in the panel. */
export interface WellBox {
  column: WellColumn;
  left: number;
  width: number;
  /** Added to the axis of this well so that the chosen top hangs level. */
  hung: number;
  /** Whether it has the top that it should hang on. */
  hangs: boolean;
  axis: { left: number; width: number };
  tracks: { track: Track; box: TrackBox }[];
  y(md: number): number;
}

export interface Panel {
  wells: WellBox[];
  width: number;
  top: number;
  height: number;
  window: [number, number];
}

/** What a well is moved by so that a top lies at zero of the shared axis. */
export function hangOf(column: WellColumn, hang: string | null): { hung: number; hangs: boolean } {
  if (hang === null) return { hung: 0, hangs: true };
  const top = column.tops.find((t) => t.name === hang);
  const at = top ? column.axisAt(top.md) : Number.NaN;
  return Number.isNaN(at) ? { hung: 0, hangs: false } : { hung: -at, hangs: true };
}

/** The part of the shared axis that the wells' logs take up, down to their deepest top; that of their tops without any. */
export function wholeWindow(columns: WellColumn[], hang: string | null): [number, number] {
  const logs: number[] = [];
  const tops: number[] = [];
  for (const c of columns) {
    const { hung, hangs } = hangOf(c, hang);
    if (!hangs) continue;
    for (const curve of c.curves.values())
      for (const md of [curve.firstM, curve.firstM + curve.stepM * (curve.values.length - 1)])
        logs.push(c.axisAt(md) + hung);
    for (const t of c.tops) tops.push(c.axisAt(t.md) + hung);
  }
  const known = (values: number[]) => values.filter((v) => !Number.isNaN(v) && v > -1e5);
  const [low, high] = [extentOf(known(logs))[0], extentOf(known([...logs, ...tops]))[1]];
  if (Number.isFinite(low)) return high > low ? [low, high] : [0, 1000];
  const [first, last] = extentOf(known(tops));
  if (!Number.isFinite(first)) return [0, 1000];
  // tops alone: with room above and below them
  const room = 0.1 * (last - first) || 100;
  return [first - room, last + room];
}

/** A window moved no further than where a tenth of it still holds something. */
export function inReach([a, b]: [number, number], whole: [number, number]): [number, number] {
  const span = b - a;
  const from = Math.max(whole[0] - 0.9 * span, Math.min(whole[1] - 0.1 * span, a));
  return [from, from + span];
}

/** Lay wells out from left to right; `spacing` gives the distance from each well to the next in metres. */
export function layOut(
  columns: WellColumn[],
  desk: LogsDesk,
  size: { width: number; height: number },
  window: [number, number],
  spacing: number[],
  scroll = 0,
): Panel {
  const height = Math.max(20, size.height - HEAD - 4);
  const wide = desk.tracks.reduce((s, t) => s + t.width, 0);
  const longest = Math.max(0, ...(columns.at(-1)?.tops ?? []).map((t) => t.name.length));
  // what the names of the last well's tops take beyond the gap
  const last = Math.max(0, Math.min(100, BEFORE_NAME + LETTER * longest - GAP));
  const room =
    (size.width - 12 - GAP * columns.length - last) / Math.max(1, columns.length) -
    AXIS -
    TRACK_GAP * desk.tracks.length;
  const part = Math.max(NARROWEST, Math.min(1, room / Math.max(1, wide)));
  const own = AXIS + wide * part + TRACK_GAP * desk.tracks.length;
  const total = spacing.reduce((a, b) => a + b, 0);
  // true spacing shares out what is left over after every pair has room for its zones
  const free = Math.max(0, size.width - columns.length * own - Math.max(0, columns.length - 1) * GAP - 12);
  let left = 6 - scroll;
  const wells = columns.map((column, n): WellBox => {
    const { hung, hangs } = hangOf(column, desk.hang);
    const y = (md: number) => HEAD + ((column.axisAt(md) + hung - window[0]) / (window[1] - window[0])) * height;
    const mdAt = (at: number) => column.mdAt(window[0] + ((at - HEAD) / height) * (window[1] - window[0]) - hung);
    const from = mdAt(HEAD);
    const to = mdAt(HEAD + height);
    let x = left + AXIS;
    const tracks = desk.tracks.map((track) => {
      const box: TrackBox = { left: x, width: track.width * part, top: HEAD, height, y, mdAt, from, to };
      x += track.width * part + TRACK_GAP;
      return { track, box };
    });
    const box = { column, left, width: own, hung, hangs, axis: { left, width: AXIS }, tracks, y };
    const more = desk.spaced && total > 0 ? (free * (spacing[n] ?? 0)) / total : 0;
    left += own + GAP + more;
    return box;
  });
  return { wells, width: left + last + scroll, top: HEAD, height, window };
}

/** All marks of the tracks of a well. */
export function wellMarks(well: WellBox, desk: LogsDesk, faciesNames: string[]): { box: TrackBox; marks: Mark[] }[] {
  return well.tracks.map(({ track, box }) => ({
    box,
    marks: trackMarks(track, well.column, desk.styles, box, faciesNames),
  }));
}
