import type { CurveClass } from '@lithagon/core';

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

/** Colours of classes: earth and mineral tones that stay apart on paper. */
export const STYLES: Partial<Record<CurveClass, CurveStyle>> = {
  'gamma ray': { from: 0, to: 150, log: false, color: '#3f6b4f' },
  sonic: { from: 650, to: 200, log: false, color: '#5a5f8f' },
  'shear sonic': { from: 1500, to: 300, log: false, color: '#a0709c' },
  density: { from: 1900, to: 2800, log: false, color: '#a3452f' },
  neutron: { from: 0.54, to: 0, log: false, color: '#2f6f8f' },
  resistivity: { from: 0.2, to: 200, log: true, color: '#7a5a1e' },
  caliper: { from: 0.15, to: 0.4, log: false, color: '#6b6b6b' },
  'density correction': { from: -250, to: 250, log: false, color: '#8a7f6a' },
  'shale volume': { from: 0, to: 1, log: false, color: '#6f7f4f' },
  porosity: { from: 0.5, to: 0, log: false, color: '#2f6f8f' },
  'effective porosity': { from: 0.5, to: 0, log: false, color: '#1f4f7f' },
  'water saturation': { from: 1, to: 0, log: false, color: '#3d7fb5' },
  'net flag': { from: 0, to: 2.2, log: false, color: '#b4641e' },
  'bad hole': { from: 0, to: 1.1, log: false, color: '#b3322b' },
  'P impedance': { from: 3e6, to: 9e6, log: false, color: '#4f5d6b' },
  'S impedance': { from: 1e6, to: 6e6, log: false, color: '#8f6f9f' },
  'velocity ratio': { from: 1.4, to: 3, log: false, color: '#7f4f3f' },
  'facies probability': { from: 0, to: 1, log: false, color: '#5f6f3f' },
  'distance to training': { from: 0, to: 8, log: false, color: '#b3322b' },
};

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
  const known = STYLES[curve.class];
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
