import {
  cutByLine,
  type Fault,
  type Horizon,
  type Lattice,
  meshOfSticks,
  toIndex,
  toMap,
  type Volume,
} from '@lithagon/core';
import type { ShownWell } from '../common/survey';

/** A vertical section along a line of a survey. */
export interface SectionLine {
  lattice: Lattice;
  plane: 'inline' | 'crossline';
  index: number;
  /** Traces on the section. */
  traces: number;
  from: [number, number];
  to: [number, number];
}

export function sectionLine(lattice: Lattice, plane: 'inline' | 'crossline', index: number): SectionLine {
  const traces = plane === 'inline' ? lattice.crossline.count : lattice.inline.count;
  const at = (n: number) => (plane === 'inline' ? toMap(lattice, index, n) : toMap(lattice, n, index));
  return { lattice, plane, index, traces, from: at(0), to: at(traces - 1) };
}

/** Map position of a fractional trace of a section. */
export function placeOf(line: SectionLine, trace: number): [number, number] {
  return line.plane === 'inline' ? toMap(line.lattice, line.index, trace) : toMap(line.lattice, trace, line.index);
}

/** Fractional trace nearest to a map position, and how far off the section that is (m). */
export function traceOf(line: SectionLine, x: number, y: number): [trace: number, off: number] {
  const [i, j] = toIndex(line.lattice, x, y);
  const trace = line.plane === 'inline' ? j : i;
  const [px, py] = placeOf(line, trace);
  return [trace, Math.hypot(x - px, y - py)];
}

/** Values of a horizon along a section, interpolated between its bins; NaN where a corner is missing. */
export function horizonAlong(
  line: SectionLine,
  horizon: Horizon,
  values: Float32Array,
): [trace: number, value: number][] {
  const { lattice } = horizon;
  const nj = lattice.crossline.count;
  const out: [number, number][] = [];
  for (let t = 0; t < line.traces; t++) {
    const [i, j] = toIndex(lattice, ...placeOf(line, t));
    const i0 = Math.min(lattice.inline.count - 2, Math.max(0, Math.floor(i)));
    const j0 = Math.min(nj - 2, Math.max(0, Math.floor(j)));
    const [fi, fj] = [i - i0, j - j0];
    if (fi < -0.01 || fj < -0.01 || fi > 1.01 || fj > 1.01) {
      out.push([t, Number.NaN]);
      continue;
    }
    const at = (a: number, b: number) => values[(i0 + a) * nj + j0 + b];
    out.push([t, (at(0, 0) * (1 - fj) + at(0, 1) * fj) * (1 - fi) + (at(1, 0) * (1 - fj) + at(1, 1) * fj) * fi]);
  }
  return out;
}

/** A fault where it crosses a section, as segments in trace and vertical. */
export function faultAlong(line: SectionLine, fault: Fault): [number, number, number, number][] {
  const length = Math.hypot(line.to[0] - line.from[0], line.to[1] - line.from[1]);
  const perTrace = length / Math.max(1, line.traces - 1);
  return cutByLine(meshOfSticks(fault.sticks), line.from, line.to).map(([a, va, b, vb]) => [
    a / perTrace,
    va,
    b / perTrace,
    vb,
  ]);
}

/** The part of a well path that lies within `reach` metres of a section, in trace and vertical. */
export function wellAlong(
  line: SectionLine,
  well: ShownWell,
  domain: 'twt' | 'depth',
  reach: number,
): [number, number][] {
  const out: [number, number][] = [];
  for (const [x, y, tvdss, twt] of well.points) {
    const vertical = domain === 'twt' ? twt : tvdss;
    const [trace, off] = traceOf(line, x, y);
    if (off <= reach && Number.isFinite(vertical) && vertical >= 0 && trace >= 0 && trace <= line.traces - 1)
      out.push([trace, vertical]);
  }
  return out;
}

/** The value of a plane nearest to a trace and vertical position, straight from the array. */
export function valueAt(volume: Volume, data: Float32Array, trace: number, vertical: number): number | null {
  const { first, step, count } = volume.vertical;
  const x = (vertical - first) / step;
  const k = Math.floor(x);
  const t = Math.round(trace);
  if (k < 0 || k >= count - 1 || t < 0 || (t + 1) * count > data.length) return null;
  const [a, b] = [data[t * count + k], data[t * count + k + 1]];
  const value = a + (x - k) * (b - a);
  return Number.isNaN(value) ? null : value;
}
