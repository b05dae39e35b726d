import type { ThrowMatch } from '@lithagon/core';
import { create } from 'zustand';

/** What the section says of the fault that is closed on it: for the sheet that sets the throw. */
export interface Closing extends ThrowMatch {
  fault: string;
  /** Levels between which the fault is on the section. */
  from: number;
  to: number;
  /** The two places of one bed, footwall first, in map coordinates and level; null where the fault is not at both. */
  pair: [x: number, y: number, level: number][] | null;
}

export const useClosing = create<{ closing: Closing | null }>(() => ({ closing: null }));
