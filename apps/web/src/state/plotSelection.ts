import { create } from 'zustand';

/** Points that are selected in a crossplot, as they light up in the other views. */
export interface PlotSelection {
  color: string;
  /** Intervals of measured depth by the name of the well. */
  wells: Map<string, [number, number][]>;
  /** Bins of a bin grid that hold selected points, `[inline][crossline]`, and whose bin grid it is (id of a map or volume). */
  bins: { of: string; mask: Uint8Array } | null;
  /** Of volumes, what a sample must pass to be selected: ids, a ring of their values, and where it lies. */
  samples: {
    x: string;
    y: string;
    xLog: boolean;
    yLog: boolean;
    ring: [number, number][];
    /** Horizons by id above and below it; a time or depth where one is empty. */
    top: string;
    base: string;
    from: number;
    to: number;
    /** Further volumes, and the ranges of them that a sample must lie in. */
    limits: { of: string; range: [number, number] }[];
  } | null;
}

export const usePlotSelection = create<{ now: PlotSelection | null }>(() => ({ now: null }));
