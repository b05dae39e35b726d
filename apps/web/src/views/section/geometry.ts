import {
  type BinGrid,
  crosslineAt,
  cutByLine,
  type Domain,
  type Fault,
  gridAt,
  type Horizon,
  inlineAt,
  meshOfSticks,
  toIndex,
  toMap,
  type Volume,
} from '@lithagon/core';
import { verticalOf } from '../common/domains';
import type { ShownWell } from '../common/survey';

/** A vertical section along a line of a survey, or along a 2D line with its bends. */
export interface SectionLine {
  /** Traces on the section. */
  traces: number;
  from: [number, number];
  to: [number, number];
  /** What is counted along it, and the number of a fractional trace. */
  along: 'inline' | 'crossline' | 'CDP' | 'distance';
  number(trace: number): number;
  /** Map position of a fractional trace. */
  place(trace: number): [number, number];
  /** Fractional trace nearest to a map position, and how far off the section that is (m). */
  nearest(x: number, y: number): [trace: number, off: number];
  /** Traces at which it bends, both ends included: straight between them. */
  bends: number[];
}

export function sectionLine(binGrid: BinGrid, plane: 'inline' | 'crossline', index: number): SectionLine {
  const traces = plane === 'inline' ? binGrid.crossline.count : binGrid.inline.count;
  const place = (n: number) => (plane === 'inline' ? toMap(binGrid, index, n) : toMap(binGrid, n, index));
  return {
    traces,
    from: place(0),
    to: place(traces - 1),
    along: plane === 'inline' ? 'crossline' : 'inline',
    number: (n) => (plane === 'inline' ? crosslineAt(binGrid, n) : inlineAt(binGrid, n)),
    place,
    nearest(x, y) {
      const [i, j] = toIndex(binGrid, x, y);
      const trace = plane === 'inline' ? j : i;
      const [px, py] = place(trace);
      return [trace, Math.hypot(x - px, y - py)];
    },
    bends: [0, traces - 1],
  };
}

/** The section of a 2D line along its path. */
export function seismicLine(path: [number, number][], cdps: number[], along: 'CDP' | 'distance' = 'CDP'): SectionLine {
  const last = path.length - 1;
  const between = <T>(n: number, at: (a: number, b: number, f: number) => T): T => {
    const a = Math.max(0, Math.min(last - 1, Math.floor(n)));
    return at(a, Math.min(last, a + 1), n - a);
  };
  return {
    traces: path.length,
    from: path[0],
    to: path[last],
    along,
    number: (n) => between(n, (a, b, f) => cdps[a] + f * (cdps[b] - cdps[a])),
    place: (n) =>
      between(n, (a, b, f) => [path[a][0] + f * (path[b][0] - path[a][0]), path[a][1] + f * (path[b][1] - path[a][1])]),
    nearest(x, y) {
      let best: [number, number] = [0, Number.POSITIVE_INFINITY];
      for (let n = 0; n < last; n++) {
        const [dx, dy] = [path[n + 1][0] - path[n][0], path[n + 1][1] - path[n][1]];
        const length = dx * dx + dy * dy;
        const f = length > 0 ? Math.max(0, Math.min(1, ((x - path[n][0]) * dx + (y - path[n][1]) * dy) / length)) : 0;
        const off = Math.hypot(x - path[n][0] - f * dx, y - path[n][1] - f * dy);
        if (off < best[1]) best = [n + f, off];
      }
      return best;
    },
    bends: bendsOf(path),
  };
}

/** Metres from the beginning of a path to each of its points. */
export function distancesAlong(path: [number, number][]): number[] {
  let far = 0;
  return path.map(([x, y], n) => {
    if (n > 0) far += Math.hypot(x - path[n - 1][0], y - path[n - 1][1]);
    return far;
  });
}

/** Most traces that a line of one's own is given. */
const MOST_TRACES = 6000;

/** Places every so many metres along a path through corners, each of which is one. */
export function spacedAlong(corners: [number, number][], metres: number): [number, number][] {
  const far = distancesAlong(corners);
  const apart = Math.max(metres, far[far.length - 1] / MOST_TRACES);
  const out: [number, number][] = [corners[0]];
  for (let n = 1; n < corners.length; n++) {
    const [[ax, ay], [bx, by]] = [corners[n - 1], corners[n]];
    const parts = Math.max(1, Math.round((far[n] - far[n - 1]) / apart));
    for (let k = 1; k <= parts; k++) out.push([ax + ((bx - ax) * k) / parts, ay + ((by - ay) * k) / parts]);
  }
  return out;
}

/** A line whose traces stand as far apart as on the ground: as many, evenly spaced, read between those that there are. */
export function evenly(
  path: [number, number][],
  data: Float32Array,
): { path: [number, number][]; data: Float32Array; at: number[] } {
  const far = distancesAlong(path);
  const count = path.length;
  const samples = data.length / count;
  const out = new Float32Array(data.length);
  const places: [number, number][] = [];
  const at: number[] = [];
  let n = 0;
  for (let t = 0; t < count; t++) {
    const wanted = (far[count - 1] * t) / Math.max(1, count - 1);
    while (n < count - 2 && far[n + 1] < wanted) n++;
    const f = far[n + 1] > far[n] ? Math.max(0, Math.min(1, (wanted - far[n]) / (far[n + 1] - far[n]))) : 0;
    for (let k = 0; k < samples; k++) {
      const [a, b] = [data[n * samples + k], data[(n + 1) * samples + k]];
      out[t * samples + k] = f === 0 ? a : f === 1 ? b : a + f * (b - a);
    }
    places.push([path[n][0] + f * (path[n + 1][0] - path[n][0]), path[n][1] + f * (path[n + 1][1] - path[n][1])]);
    at.push(n + f);
  }
  return { path: places, data: out, at };
}

/** Points of a path at which it bends, to two metres (Douglas & Peucker 1973, Cartographica 10, 112–122). */
function bendsOf(path: [number, number][]): number[] {
  const kept = new Set([0, path.length - 1]);
  const visit = (a: number, b: number) => {
    const [dx, dy] = [path[b][0] - path[a][0], path[b][1] - path[a][1]];
    const length = Math.hypot(dx, dy) || 1;
    let [worst, at] = [2, -1];
    for (let n = a + 1; n < b; n++) {
      const off = Math.abs((path[n][0] - path[a][0]) * dy - (path[n][1] - path[a][1]) * dx) / length;
      if (off > worst) [worst, at] = [off, n];
    }
    if (at < 0) return;
    kept.add(at);
    visit(a, at);
    visit(at, b);
  };
  visit(0, path.length - 1);
  return [...kept].sort((a, b) => a - b);
}

/** Map position of a fractional trace of a section. */
export const placeOf = (line: SectionLine, trace: number): [number, number] => line.place(trace);

/** Fractional trace nearest to a map position, and how far off the section that is (m). */
export const traceOf = (line: SectionLine, x: number, y: number): [trace: number, off: number] => line.nearest(x, y);

/** How far off a section what belongs to it may lie: half of the way from one trace to the next, metres. */
export const reachOf = (line: SectionLine): number =>
  0.55 * Math.hypot(...placeOf(line, 1).map((v, c) => v - placeOf(line, 0)[c]));

/** Values of a horizon along a section, interpolated between its bins; NaN where a corner is missing. */
export function horizonAlong(
  line: SectionLine,
  horizon: Horizon,
  values: Float32Array,
): [trace: number, value: number][] {
  const { binGrid } = horizon;
  return Array.from({ length: line.traces }, (_, t) => {
    const [x, y] = placeOf(line, t);
    const [i, j] = toIndex(binGrid, x, y);
    const near = i > -0.01 && j > -0.01 && i < binGrid.inline.count - 0.99 && j < binGrid.crossline.count - 0.99;
    return [t, near ? gridAt(values, binGrid, x, y) : Number.NaN];
  });
}

/** A fault where it crosses a section, as segments in trace and vertical. */
export function faultAlong(line: SectionLine, fault: Fault): [number, number, number, number][] {
  const mesh = meshOfSticks(fault.sticks);
  return line.bends.slice(1).flatMap((end, n) => {
    const begin = line.bends[n];
    const [from, to] = [line.place(begin), line.place(end)];
    const perTrace = Math.hypot(to[0] - from[0], to[1] - from[1]) / Math.max(1, end - begin);
    return cutByLine(mesh, from, to).map(([a, va, b, vb]): [number, number, number, number] => [
      begin + a / perTrace,
      va,
      begin + b / perTrace,
      vb,
    ]);
  });
}

/** The part of a well path that lies within `reach` metres of a section, in trace and vertical. */
export function wellAlong(line: SectionLine, well: ShownWell, domain: Domain, reach: number): [number, number][] {
  const out: [number, number][] = [];
  for (const [x, y, tvdss, twt] of well.points) {
    const vertical = verticalOf(domain, twt, tvdss);
    const [trace, off] = traceOf(line, x, y);
    if (off <= reach && Number.isFinite(vertical) && vertical >= 0 && trace >= 0 && trace <= line.traces - 1)
      out.push([trace, vertical]);
  }
  return out;
}

/** The value of a plane nearest to a trace and vertical position, straight from the array. */
export function valueAt(
  volume: Pick<Volume, 'vertical'>,
  data: Float32Array,
  trace: number,
  vertical: number,
): number | null {
  const { first, step, count } = volume.vertical;
  const x = (vertical - first) / step;
  const k = Math.floor(x);
  const t = Math.round(trace);
  if (k < 0 || k >= count - 1 || t < 0 || (t + 1) * count > data.length) return null;
  const [a, b] = [data[t * count + k], data[t * count + k + 1]];
  const value = a + (x - k) * (b - a);
  return Number.isNaN(value) ? null : value;
}

/** A CSS pixel in metres: 1/96 inch. */
const PIXEL_M = 0.0254 / 96;

/**
 * How much of the earth a section shows: metres across, 1 : n to the nearest hundred, and centimetres on the screen for
 * each second (or thousand metres) down.
 */
export function scaleOf(
  line: SectionLine,
  window: { x0: number; x1: number; y0: number; y1: number },
  box: { width: number; height: number },
): { metres: number; scale: number; perSecond: number } {
  const length = line.bends.slice(1).reduce((sum, end, n) => {
    const [a, b] = [line.place(line.bends[n]), line.place(end)];
    return sum + Math.hypot(b[0] - a[0], b[1] - a[1]);
  }, 0);
  const metres = length * ((window.x1 - window.x0) / Math.max(1, line.traces - 1));
  return {
    metres,
    scale: Math.round(metres / (box.width * PIXEL_M) / 100) * 100,
    perSecond: (100 * box.height * PIXEL_M) / ((window.y1 - window.y0) / 1000),
  };
}
