import type { EarthObject } from '@lithagon/core';
import { cornersOf, extentOf, kindOf } from '@lithagon/core';
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

type Point = [x: number, y: number];

/** West, east, south and north ends of points. */
function endsOf(points: Point[]): { x0: number; x1: number; y0: number; y1: number } {
  const [[x0, x1], [y0, y1]] = [extentOf(points.map((p) => p[0])), extentOf(points.map((p) => p[1]))];
  return { x0, x1, y0, y1 };
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[(values.length - 1) >> 1];

/** Where the work is: the corners of surveys, or else the half of the wells that lie nearest to their middle. */
function heartOf(objects: EarthObject[]): Point[] {
  const corners = objects.flatMap((o) => (o.kind === 'volume' || o.kind === 'horizon' ? cornersOf(o.binGrid) : []));
  if (corners.length > 0) return corners as Point[];
  const wells = objects.flatMap((o): Point[] => (o.kind === 'well' ? [[o.x, o.y]] : []));
  if (wells.length < 3) return wells;
  const [x, y] = [median(wells.map((w) => w[0])), median(wells.map((w) => w[1]))];
  const far = (w: Point) => Math.hypot(w[0] - x, w[1] - y);
  return wells.sort((a, b) => far(a) - far(b)).slice(0, Math.ceil(wells.length / 2));
}

/** A well is far off when it lies further from the work than so many times its extent, and so many metres. */
const FAR = { times: 8, m: 20_000 };

/** Wells so far from everything else that their coordinates are likely wrong: the map is not made small for them. */
export function farOff(objects: EarthObject[]): { id: string; name: string; why: string }[] {
  const heart = heartOf(objects);
  if (heart.length < 2) return [];
  const { x0, x1, y0, y1 } = endsOf(heart);
  const limit = Math.max(FAR.m, FAR.times * Math.hypot(x1 - x0, y1 - y0));
  return objects.flatMap((o) => {
    if (o.kind !== 'well') return [];
    const away = Math.hypot(Math.max(x0 - o.x, o.x - x1, 0), Math.max(y0 - o.y, o.y - y1, 0));
    if (away <= limit) return [];
    return [
      { id: o.id, name: o.name, why: `lies ${Math.round(away / 1000)} km from the rest; its coordinates may be wrong` },
    ];
  });
}

/** The frame that holds all surveys and wells but those that lie far off, or else outlines. */
export function fitAll(objects: EarthObject[], size: Size): MapFrame | null {
  const far = new Set(farOff(objects).map((w) => w.id));
  let points = objects.flatMap((o): Point[] => {
    if (o.kind === 'volume' || o.kind === 'horizon') return cornersOf(o.binGrid) as Point[];
    return o.kind === 'well' && !far.has(o.id) ? [[o.x, o.y]] : [];
  });
  if (points.length === 0) points = objects.flatMap((o): Point[] => (far.has(o.id) ? [] : kindOf(o).places(o)));
  if (points.length === 0 || size.width < 50) return null;
  const { x0, x1, y0, y1 } = endsOf(points);
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
