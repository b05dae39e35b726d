import type { EarthObject } from '@lithagon/core';
import { cornersOf } from '@lithagon/core';
import type { Size } from '../common/hooks';

/** What part of the earth a map shows: its centre and metres a pixel; north is up. */
export interface MapFrame {
  x: number;
  y: number;
  perPixel: number;
}

export function toScreen(frame: MapFrame, size: Size, x: number, y: number): [number, number] {
  return [size.width / 2 + (x - frame.x) / frame.perPixel, size.height / 2 - (y - frame.y) / frame.perPixel];
}

export function toEarth(frame: MapFrame, size: Size, px: number, py: number): [number, number] {
  return [frame.x + (px - size.width / 2) * frame.perPixel, frame.y - (py - size.height / 2) * frame.perPixel];
}

/** The frame that holds all surveys, or else everything with a position. */
export function fitAll(objects: EarthObject[], size: Size): MapFrame | null {
  const points: [number, number][] = [];
  for (const o of objects) if (o.kind === 'volume' || o.kind === 'horizon') points.push(...cornersOf(o.lattice));
  for (const o of objects) if (o.kind === 'well') points.push([o.x, o.y]);
  if (points.length === 0) for (const o of objects) if (o.kind === 'polygon') points.push(...o.rings.flat());
  if (points.length === 0 || size.width < 50) return null;
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const perPixel = Math.max((x1 - x0) / (size.width - 70), (y1 - y0) / (size.height - 64), 0.5);
  return { x: (x0 + x1) / 2, y: (y0 + y1) / 2, perPixel };
}

/** A round length that is about a quarter of the map's width, in kilometres, or in feet where the map is in feet. */
export function scaleBar(frame: MapFrame, size: Size, feet = false): { metres: number; pixels: number; label: string } {
  const perUnit = feet ? 0.3048 : 1;
  const wanted = (frame.perPixel * size.width * 0.22) / perUnit;
  const power = 10 ** Math.floor(Math.log10(wanted));
  const length = power * (wanted / power >= 5 ? 5 : wanted / power >= 2 ? 2 : 1);
  const metres = length * perUnit;
  const label = feet ? `${length} ft` : length >= 1000 ? `${length / 1000} km` : `${length} m`;
  return { metres, pixels: metres / frame.perPixel, label };
}
