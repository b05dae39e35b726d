import type { Domain } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import type { Window } from '../raster/Raster';
import type { SectionLine } from './geometry';
import { type Turning, turnAt } from './useTurned';

/** A piece of a fault on a section: trace and vertical of its two ends. */
export type Cut = [number, number, number, number];

/** What a section shows of the earth, and where on the screen. */
export interface Frame {
  line: SectionLine;
  window: Window;
  box: { left: number; top: number; width: number; height: number };
  domain: Domain;
  /** Where shown faults cross it: horizons end there. */
  cuts: Cut[];
  /** What turns positions of the other domain into its own, where something does. */
  turning: Turning | null;
}

/** Positions of a domain at traces of a section in its own; what cannot be had is NaN. */
export function inFrame(
  { line, domain, turning }: Pick<Frame, 'line' | 'domain' | 'turning'>,
  from: Domain,
): (trace: number, value: number) => number {
  if (from === domain) return (_, value) => value;
  return turning && from !== 'age' ? (trace, value) => turnAt(turning, line, trace, value) : () => Number.NaN;
}

export const scales = ({ window, box }: Pick<Frame, 'window' | 'box'>) => ({
  x: scaleLinear([window.x0, window.x1], [box.left, box.left + box.width]),
  y: scaleLinear([window.y0, window.y1], [box.top, box.top + box.height]),
});
