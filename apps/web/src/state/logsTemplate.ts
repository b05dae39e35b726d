import { type CurveClass, quantityFacts } from '@lithagon/core';

/** How curves of a class are drawn wherever nothing else is said; limits are in the unit that they are kept in. */
export interface CurveStyle {
  from: number;
  to: number;
  log: boolean;
  color: string;
}

/** What is filled in a track. */
export type Fill =
  /** To the left or right edge, in one colour. */
  | { kind: 'limit'; curve: string; side: 'left' | 'right'; color: string }
  /** Between two curves, in a colour for each that lies to the left. */
  | { kind: 'between'; curves: [string, string]; colors: [string, string] }
  /** By the curve's own value along a colour map. */
  | { kind: 'value'; curve: string };

export interface Track {
  id: string;
  title: string;
  width: number;
  /** Classes or mnemonics of the curves. */
  curves: string[];
  fill?: Fill;
  /** A track of beds instead of curves. */
  beds?: 'facies';
}

/** How a class of curve is drawn at first: in earth and mineral tones that stay apart on paper. */
export const styleOfClass = (cls: CurveClass): CurveStyle | undefined =>
  cls === 'other' ? undefined : quantityFacts(cls).track;

export const TRACKS: Track[] = [
  {
    id: 'gr',
    title: 'Gamma ray',
    width: 74,
    curves: ['gamma ray'],
    fill: { kind: 'value', curve: 'gamma ray' },
  },
  { id: 'rt', title: 'Resistivity', width: 62, curves: ['resistivity'] },
  {
    id: 'nd',
    title: 'Density, neutron',
    width: 78,
    curves: ['density', 'neutron'],
    fill: { kind: 'between', curves: ['density', 'neutron'], colors: ['#e9c75b', '#b9b3a2'] },
  },
  { id: 'facies', title: 'Facies', width: 30, curves: [], beds: 'facies' },
];

/** Style of a curve: its own in a well, else that of its class, else from its range. */
export function styleOf(
  key: string,
  curve: { class: CurveClass; min: number; max: number },
  well: string,
  styles: Record<string, CurveStyle>,
): CurveStyle {
  const own = styles[`${well}/${key}`] ?? styles[key];
  if (own) return own;
  const known = styleOfClass(curve.class);
  if (known) return known;
  const pad = 0.05 * (curve.max - curve.min) || 1;
  return { from: curve.min - pad, to: curve.max + pad, log: false, color: '#4f5d6b' };
}

export type DepthKind = 'MD' | 'TVD' | 'TVDSS' | 'TWT';

/** What a Logs view shows and how: kept with the desk. */
export interface LogsDesk {
  /** Wells by id, in the order of the line. */
  wells: string[];
  depth: DepthKind;
  /** The top that hangs level, or null for true elevation. */
  hang: string | null;
  /** Whether wells stand apart as they do on the map. */
  spaced: boolean;
  /** Part of the shared axis in view; null fits all. */
  window: [number, number] | null;
  tracks: Track[];
  /** Styles of classes, and of one curve of one well under `WELL/curve`. */
  styles: Record<string, CurveStyle>;
  /** Facts in the heading of each well. */
  heading: string[];
  zones: boolean;
  /** Volume shown between the wells, or null. */
  seismic: string | null;
}

export const LOGS_DESK: LogsDesk = {
  wells: [],
  depth: 'TVDSS',
  hang: null,
  spaced: false,
  window: null,
  tracks: TRACKS,
  styles: {},
  heading: ['status', 'kelly bushing'],
  zones: true,
  seismic: null,
};
