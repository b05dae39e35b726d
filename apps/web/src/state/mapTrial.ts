import type { MadeMap } from '@lithagon/core';
import { create } from 'zustand';

/** The map that the step being set up would give as it stands; null where none is tried. It is shown in place of what a map shows. */
export const useMapTrial = create<{ map: MadeMap | null; tookMs: number }>(() => ({ map: null, tookMs: 0 }));
