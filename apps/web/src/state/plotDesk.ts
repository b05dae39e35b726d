import type { PlotRequest } from '@lithagon/core';

/** What a Crossplot shows: kept with the desk. No wells chosen means all. */
export type PlotDesk = Omit<PlotRequest, 'wells' | 'more'> & {
  wells: string[] | null;
  trends: boolean;
  fit: boolean;
  /** Further quantities, and the ranges of them that points must lie in; null for all that they have. */
  limits: { of: string; range: [number, number] | null }[];
};

export const PLOT_DESK: PlotDesk = {
  from: 'logs',
  x: { of: 'sonic', log: false },
  y: { of: 'density', log: false },
  color: 'gamma ray',
  wells: null,
  top: '',
  base: '',
  area: null,
  fromVertical: 0,
  toVertical: 100000,
  limits: [],
  trends: true,
  fit: true,
};
