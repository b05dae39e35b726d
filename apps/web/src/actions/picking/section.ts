import { followEvent, type OnSection, snapTo, type Traces } from '@lithagon/core';
import { toast } from 'sonner';
import { inTurn } from '../../state/history';
import type { PickTool } from '../../state/tool';
import { counted } from '../../ui/format';
import type { Cut } from '../../views/section/frame';
import { placeOf, reachOf, type SectionLine, traceOf } from '../../views/section/geometry';
import { asNow, picksOf, putPicks, takeAway } from './picks';

/** A section as picking needs it. */
export interface Picked {
  line: SectionLine;
  traces: Traces;
  cuts: Cut[];
}

/** How far from the straight line a followed path may lead, and what of the waveform it compares, vertical unit. */
const FOLLOW = { corridor: 60, jump: 6, halfWindow: 24 };

/** Put picks on traces of a section; those that stood there give way. */
const put = (tool: PickTool, line: SectionLine, places: OnSection[], name: (picks: string) => string) =>
  putPicks(
    tool,
    places.map(([t, time]): [number, number, number] => [...placeOf(line, t), time]),
    reachOf(line),
    name,
  );

/** Where a click would put its pick: where it is, or at the event nearest to it; NaN where there is none within reach. */
export function wouldPick(tool: PickTool, { traces }: Picked, trace: number, vertical: number): number {
  return tool.how === 'free-hand' ? vertical : snapTo(traces, trace, vertical, tool.event, tool.snapMs);
}

/** The path from the last pick to a place, where that pick stands on this section; the place alone otherwise. */
export function pathTo(tool: PickTool, on: Picked, trace: number, time: number): OnSection[] {
  const from = tool.last;
  const [at, off] = from ? traceOf(on.line, from[0], from[1]) : [0, Number.POSITIVE_INFINITY];
  if (tool.how !== 'followed' || !from || off > reachOf(on.line)) return [[trace, time]];
  const path = followEvent(on.traces, [Math.round(at), from[2]], [trace, time], {
    event: tool.event,
    ...FOLLOW,
    walls: on.cuts,
  });
  // the click comes last
  return Math.round(at) <= trace ? path : path.reverse();
}

/** Add a pick where a section was clicked, as the tool is set. */
export const pickAt = (picking: PickTool, on: Picked, at: number, vertical: number): Promise<void> =>
  inTurn(async () => {
    const tool = asNow(picking);
    const trace = Math.round(at);
    if (trace < 0 || trace >= on.line.traces) return;
    const time = wouldPick(tool, on, trace, vertical);
    if (Number.isNaN(time)) {
      toast(`No ${tool.event} lies within ${tool.snapMs} ms of there. Nothing was picked.`);
      return;
    }
    const path = pathTo(tool, on, trace, time);
    await put(tool, on.line, path, (name) =>
      path.length > 1 ? `Follow ${counted(path.length, 'trace')} on ${name}` : `Pick on ${name}`,
    );
  });

/** Put picks along a line drawn with the pointer held down, one on each trace that it passes. */
export const pickAlong = (picking: PickTool, on: Picked, stroke: OnSection[]): Promise<void> =>
  inTurn(async () => {
    const tool = asNow(picking);
    const byTrace = new Map<number, number>();
    for (const [n, [t, time]] of stroke.entries()) {
      const [before, was] = stroke[n - 1] ?? [t, time];
      const steps = Math.max(1, Math.abs(Math.round(t) - Math.round(before)));
      for (let k = 0; k <= steps; k++) {
        const trace = Math.round(before + ((t - before) * k) / steps);
        const f = t === before ? 1 : Math.max(0, Math.min(1, (trace - before) / (t - before)));
        if (trace >= 0 && trace < on.line.traces) byTrace.set(trace, was + f * (time - was));
      }
    }
    const places = [...byTrace].flatMap(([trace, time]): OnSection[] => {
      const at = wouldPick(tool, on, trace, time);
      return Number.isNaN(at) ? [] : [[trace, at]];
    });
    if (places.length > 0)
      await put(tool, on.line, places, (name) => `Draw ${counted(places.length, 'pick')} on ${name}`);
  });

/** Take out the pick nearest to a place on a section. */
export const unpickAt = (picking: PickTool, line: SectionLine, trace: number, vertical: number): Promise<void> =>
  inTurn(async () => {
    const before = picksOf(asNow(picking));
    const [x, y] = placeOf(line, trace);
    const far = (p: number[]) => Math.hypot(p[0] - x, p[1] - y) / 25 + Math.abs(p[2] - vertical) / 4;
    const nearest = before?.points.reduce<number[] | null>((a, p) => (!a || far(p) < far(a) ? p : a), null);
    if (nearest && far(nearest) <= 8) await takeAway(picking, (p) => p === nearest);
  });

/** Take out the picks on a section of which something is true. */
export const rubOut = (
  picking: PickTool,
  line: SectionLine,
  hit: (trace: number, time: number) => boolean,
): Promise<void> =>
  inTurn(() => {
    const near = reachOf(line);
    return takeAway(picking, (p) => {
      const [trace, off] = traceOf(line, p[0], p[1]);
      return off <= near && hit(trace, p[2]);
    });
  });

/** Whether no fault stands between two places of a section. */
export function sameBlock(cuts: Cut[], from: OnSection, to: OnSection): boolean {
  const side = (a: OnSection, b: OnSection, p: OnSection) =>
    (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
  return !cuts.some(([x0, y0, x1, y1]) => {
    const [a, b]: OnSection[] = [
      [x0, y0],
      [x1, y1],
    ];
    return side(from, to, a) * side(from, to, b) <= 0 && side(a, b, from) * side(a, b, to) < 0;
  });
}

/**
 * What the neighbouring line would have here: its picks, each on the nearest trace and moved to the event, for traces that have
 * none yet. Nothing is kept until it is accepted.
 * @param reach how far off the neighbouring line may lie, metres
 */
export function carriedOver(tool: PickTool, on: Picked, reach: number): OnSection[] {
  const picks = picksOf(tool);
  if (!picks) return [];
  const near = reachOf(on.line);
  const taken = new Set<number>();
  const beside = new Map<number, { off: number; time: number }>();
  for (const [x, y, time] of picks.points) {
    const [at, off] = traceOf(on.line, x, y);
    const trace = Math.round(at);
    if (trace < 0 || trace >= on.line.traces) continue;
    if (off <= near) taken.add(trace);
    else if (off <= reach && off < (beside.get(trace)?.off ?? Number.POSITIVE_INFINITY))
      beside.set(trace, { off, time });
  }
  return [...beside]
    .filter(([trace]) => !taken.has(trace))
    .flatMap(([trace, { time }]): OnSection[] => {
      const at = wouldPick(tool, on, trace, time);
      return Number.isNaN(at) ? [] : [[trace, at]];
    })
    .sort((a, b) => a[0] - b[0]);
}

/** Keep what was carried over from the neighbouring line. */
export const accept = (picking: PickTool, line: SectionLine, places: OnSection[]): Promise<void> =>
  inTurn(() => put(asNow(picking), line, places, (name) => `Carry ${counted(places.length, 'pick')} over on ${name}`));
