import type { Domain, PickEvent } from '@lithagon/core';
import { create } from 'zustand';

/** How a pick is made: as drawn, at the event nearest to it, or on every trace along the event between two picks. */
export type PickHow = 'free-hand' | 'snapped' | 'followed';

/** A place in a view: map coordinates in metres, and TWT or depth where the view has it. */
export type MeasuredPoint = [x: number, y: number, vertical: number | null];

/** What the pointer does in a section or on the map, beside looking. */
export type Tool =
  /** Picks go to the object `id`; null until the first one makes it. */
  | {
      kind: 'pick';
      id: string | null;
      name: string;
      how: PickHow;
      event: PickEvent;
      snapMs: number;
      /** Last pick of the stretch under way: what is followed begins there. */
      last: [number, number, number] | null;
      /** What the pointer takes away instead of picking. */
      rub: 'brush' | 'ring' | 'between faults' | null;
      /** Radius of the brush, pixels. */
      brush: number;
    }
  /** Sticks go to the fault `id`; the one being drawn waits here. */
  | { kind: 'fault'; id: string | null; name: string; stick: [number, number, number][] }
  /** A ring drawn on the map takes a part out of the track of a horizon. */
  | { kind: 'erase'; horizon: string; ring: [number, number][] }
  /** A ring drawn on the map becomes an area. */
  | { kind: 'area'; name: string; ring: [number, number][] }
  /** Wells are clicked on the map in the order in which they stand in the Logs view. */
  | { kind: 'wells' }
  /** Corners on the map of a line that a section is to run along; wells that it passes by name. */
  | { kind: 'line'; points: [number, number][]; names: (string | null)[] }
  /** A place in a section becomes parameters of the step that is set up. */
  | { kind: 'place'; keys: [string, string, string]; sets: Record<string, unknown> }
  /** A brush takes samples out of bodies or puts them in: metres to each side, and ms or metres up and down. */
  | { kind: 'body brush'; does: 'takes out' | 'puts in'; wide: number; tall: number }
  /** A fault is closed on the section by a trial throw; its sides are compared about a level (null: the middle), over a height. */
  | { kind: 'close'; fault: string; throw: number; at: number | null; height: number }
  /** Two places in one view, and what lies between them. */
  | { kind: 'measure'; view: string | null; domain: Domain; points: MeasuredPoint[] };

/** Tools that set up a step: its form stays open beside them. */
export type StepTool = Extract<Tool, { kind: 'place' | 'body brush' }>;
export const isStepTool = (tool: Tool): tool is StepTool => tool.kind === 'place' || tool.kind === 'body brush';

export type PickTool = Extract<Tool, { kind: 'pick' }>;

export const useTool = create<{ tool: Tool | null }>(() => ({ tool: null }));

export function takeTool(tool: Tool | null): void {
  useTool.setState({ tool });
}

/** How the tool is set, in the words that stand at the pointer. */
export function settingOf(tool: PickTool): string {
  if (tool.rub === 'brush') return 'takes away: brush';
  if (tool.rub === 'ring') return 'takes away: inside a ring';
  if (tool.rub) return 'takes away: between faults';
  if (tool.how === 'free-hand') return 'free-hand';
  return `${tool.how} · ${tool.event} ± ${tool.snapMs} ms`;
}
