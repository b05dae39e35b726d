import { colorMap } from '../../color/maps';
import { type CurveStyle, styleOf, type Track } from '../../state/logsTemplate';
import { type DrawnCurve, EVERY, type WellColumn } from './columns';
import { rockOf } from './patterns';

/** What is drawn, whoever draws it: the screen or a file. */
export type Mark =
  | { kind: 'line'; points: Float32Array; color: string; width: number; dash?: number[] }
  | { kind: 'area'; points: Float32Array; color: string; pattern?: string }
  | {
      kind: 'rect';
      x: number;
      y: number;
      width: number;
      height: number;
      color: string;
      stroke?: string;
      pattern?: string;
    }
  | {
      kind: 'text';
      x: number;
      y: number;
      text: string;
      color: string;
      size: number;
      anchor?: 'start' | 'middle' | 'end';
      weight?: number;
    }
  | { kind: 'dot'; x: number; y: number; r: number; color: string };

/** Where a track lies, and how the axis runs down it. */
export interface TrackBox {
  left: number;
  width: number;
  top: number;
  height: number;
  /** Pixels at a measured depth, and back. */
  y(md: number): number;
  mdAt(y: number): number;
  /** Measured depths at the box's upper and lower edge. */
  from: number;
  to: number;
}

/** Part of the width (0 to 1) of a value under a style; beyond the limits it is held just outside. */
export function across(style: CurveStyle, value: number): number {
  const f = style.log
    ? Math.log(value / style.from) / Math.log(style.to / style.from)
    : (value - style.from) / (style.to - style.from);
  return Math.max(-0.02, Math.min(1.02, f));
}

/**
 * A curve as points down a track, parted at nulls. Where samples are denser than rows of pixels, each row has the extremes
 * of what falls into it, taken in the order that makes the line shortest.
 */
export function polylines(curve: DrawnCurve, style: CurveStyle, box: TrackBox): Float32Array[] {
  const out: Float32Array[] = [];
  const perPixel = (box.to - box.from) / box.height / curve.stepM;
  const coarse = perPixel > EVERY / 2;
  const step = coarse ? EVERY : 1;
  const [lows, highs] = coarse ? [curve.low, curve.high] : [curve.values, curve.values];
  const at = (md: number) => Math.floor((md - curve.firstM) / curve.stepM / step);
  const n0 = Math.max(0, at(box.from) - 1);
  const n1 = Math.min(lows.length - 1, at(box.to) + 2);
  const place = (n: number) => box.y(curve.firstM + (n + (coarse ? 0.5 : 0)) * step * curve.stepM);
  const dense = perPixel > step / 2;
  let points: number[] = [];
  let row = { y: Number.NaN, least: 0, most: 0 };
  const endRow = () => {
    if (Number.isNaN(row.y)) return;
    const { y, least, most } = row;
    const [x, before] = [(v: number) => box.left + box.width * across(style, v), points.at(-2)];
    const [a, b] = [x(least), x(most)];
    const turned = before !== undefined && Math.abs(before - b) < Math.abs(before - a);
    if (a === b) points.push(a, y);
    else points.push(turned ? b : a, y, turned ? a : b, y);
    row = { y: Number.NaN, least: 0, most: 0 };
  };
  const flush = () => {
    endRow();
    if (points.length > 2) out.push(Float32Array.from(points));
    points = [];
  };
  for (let n = n0; n <= n1; n++) {
    const [least, most] = [lows[n], highs[n]];
    if (least !== least) {
      flush();
      continue;
    }
    const y = place(n);
    if (dense && Math.floor(y) === Math.floor(row.y)) {
      row.least = Math.min(row.least, least);
      row.most = Math.max(row.most, most);
    } else {
      endRow();
      row = { y, least, most };
    }
  }
  flush();
  return out;
}

/** A value at a depth, linear. */
function valueAt(curve: DrawnCurve, md: number): number {
  const x = (md - curve.firstM) / curve.stepM;
  const n = Math.floor(x);
  if (n < 0 || n + 1 >= curve.values.length) return Number.NaN;
  return curve.values[n] + (x - n) * (curve.values[n + 1] - curve.values[n]);
}

/** Rows of pixels of a track at which a fill is drawn. */
function* rows(box: TrackBox, step: number): Generator<{ y: number; md: number }> {
  for (let y = 0; y < box.height; y += step) {
    yield { y: box.top + y, md: box.mdAt(box.top + y + step / 2) };
  }
}

const FACIES_COLORS = [
  '#e2b65a',
  '#8a8f86',
  '#c98d5a',
  '#5f86a0',
  '#b8a6c9',
  '#7aa37a',
  '#c9b98f',
  '#a2605a',
  '#6f6f8f',
  '#d4cdb8',
  '#98b6b0',
  '#8f7f5f',
];

/** Colour of a facies: by its place among all names of the project, so that it is the same in every well. */
export function faciesColor(name: string, names: string[]): string {
  return FACIES_COLORS[Math.max(0, names.indexOf(name)) % FACIES_COLORS.length];
}

function fillMarks(track: Track, column: WellColumn, styles: Record<string, CurveStyle>, box: TrackBox): Mark[] {
  const { fill } = track;
  if (!fill) return [];
  const of = (key: string) => {
    const curve = column.curves.get(key);
    return curve && { curve, style: styleOf(key, curve, column.well.name, styles) };
  };
  const out: Mark[] = [];
  if (fill.kind === 'value') {
    const one = of(fill.curve);
    if (!one) return out;
    const rgb = colorMap('lichen');
    for (const { y, md } of rows(box, 2)) {
      const v = valueAt(one.curve, md);
      if (Number.isNaN(v)) continue;
      const f = Math.max(0, Math.min(1, across(one.style, v)));
      const c = 3 * Math.round(f * 255);
      out.push({
        kind: 'rect',
        x: box.left,
        y,
        width: box.width * f,
        height: 2.2,
        color: `rgb(${rgb[c]},${rgb[c + 1]},${rgb[c + 2]})`,
      });
    }
    return out;
  }
  if (fill.kind === 'limit') {
    const one = of(fill.curve);
    if (!one) return out;
    for (const points of polylines(one.curve, one.style, box)) {
      const edge = fill.side === 'left' ? box.left : box.left + box.width;
      const ring = new Float32Array(points.length + 4);
      ring.set(points);
      ring.set([edge, points[points.length - 1], edge, points[1]], points.length);
      out.push({ kind: 'area', points: ring, color: fill.color });
    }
    return out;
  }
  const [a, b] = fill.curves.map(of);
  if (!a || !b) return out;
  // a crossover: the colour of whichever lies to the left
  for (const { y, md } of rows(box, 2)) {
    const [p, q] = [valueAt(a.curve, md), valueAt(b.curve, md)];
    if (Number.isNaN(p + q)) continue;
    const [x0, x1] = [across(a.style, p), across(b.style, q)];
    out.push({
      kind: 'rect',
      x: box.left + box.width * Math.min(x0, x1),
      y,
      width: box.width * Math.abs(x1 - x0),
      height: 2.2,
      color: fill.colors[x0 < x1 ? 0 : 1],
    });
  }
  return out;
}

/** Everything inside one track. */
export function trackMarks(
  track: Track,
  column: WellColumn,
  styles: Record<string, CurveStyle>,
  box: TrackBox,
  faciesNames: string[],
): Mark[] {
  const out: Mark[] = [];
  if (track.beds) {
    for (const row of column.facies?.rows ?? []) {
      const [from, to] = [Math.max(Number(row[0]), box.from), Math.min(Number(row[1]), box.to)];
      if (!(to > from)) continue;
      out.push({
        kind: 'rect',
        x: box.left,
        y: box.y(from),
        width: box.width,
        height: Math.max(0.8, box.y(to) - box.y(from)),
        color: faciesColor(String(row[2]), faciesNames),
        pattern: rockOf(String(row[2])),
      });
    }
    return out;
  }
  out.push(...fillMarks(track, column, styles, box));
  for (const key of track.curves) {
    const curve = column.curves.get(key);
    if (!curve) continue;
    const style = styleOf(key, curve, column.well.name, styles);
    for (const points of polylines(curve, style, box)) out.push({ kind: 'line', points, color: style.color, width: 1 });
    if (key === 'porosity' || key === 'effective porosity')
      for (const c of column.core)
        if (c.md > box.from && c.md < box.to)
          out.push({
            kind: 'dot',
            x: box.left + box.width * across(style, c.porosity),
            y: box.y(c.md),
            r: 2,
            color: '#22262a',
          });
  }
  return out;
}
