import type { Domain } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import type { Window } from '../raster/Raster';
import type { SectionLine } from './geometry';

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
}

export const scales = ({ window, box }: Pick<Frame, 'window' | 'box'>) => ({
  x: scaleLinear([window.x0, window.x1], [box.left, box.left + box.width]),
  y: scaleLinear([window.y0, window.y1], [box.top, box.top + box.height]),
});
