import { create } from 'zustand';

/** What the pointer does in a section or on the map, beside looking. */
export type Tool =
  /** Picks go to the object `id`; null until the first one makes it. */
  | {
      kind: 'pick';
      id: string | null;
      name: string;
      event: 'trough' | 'peak' | 'zero rising' | 'zero falling';
      snapMs: number;
    }
  /** Sticks go to the fault `id`; the one being drawn waits here. */
  | { kind: 'fault'; id: string | null; name: string; stick: [number, number, number][] }
  /** A ring drawn on the map takes a part out of the track of a horizon. */
  | { kind: 'erase'; horizon: string; ring: [number, number][] }
  /** A ring drawn on the map becomes an area. */
  | { kind: 'area'; name: string; ring: [number, number][] }
  /** Wells are clicked on the map in the order in which they stand in the Logs view. */
  | { kind: 'wells' };

export const useTool = create<{ tool: Tool | null }>(() => ({ tool: null }));

export function takeTool(tool: Tool | null): void {
  useTool.setState({ tool });
}
