import type { Stratigraphy, Top, Units } from '@lithagon/core';
import type { WellColumn } from './columns';
import { type Mark, type TrackBox, trackMarks } from './marks';
import { type LogsDesk, styleOf, type Track } from './template';

export const HEAD = 92;
const AXIS = 40;
const GAP = 66;
/** Width of a letter of a top's name, and what stands before it. */
const LETTER = 6;
const BEFORE_NAME = 10;
/** Width of a letter of a curve's name or limits. */
const SMALL_LETTER = 5;
const BOLD_LETTER = 4.5;
/** Tracks are narrowed to this part of their width where that lets all wells be seen. */
export const NARROWEST = 0.44;
const TRACK_GAP = 3;

/** A well's place in the panel. */
export interface WellBox {
  column: WellColumn;
  left: number;
  width: number;
  /** Added to the axis of this well so that the chosen top hangs level. */
  hung: number;
  /** Whether it has the top that it should hang on. */
  hangs: boolean;
  axis: { left: number; width: number };
  tracks: { track: Track; box: TrackBox }[];
  y(md: number): number;
}

export interface Panel {
  wells: WellBox[];
  width: number;
  top: number;
  height: number;
  window: [number, number];
}

/** What a well is moved by so that a top lies at zero of the shared axis. */
export function hangOf(column: WellColumn, hang: string | null): { hung: number; hangs: boolean } {
  if (hang === null) return { hung: 0, hangs: true };
  const top = column.tops.find((t) => t.name === hang);
  const at = top ? column.axisAt(top.md) : Number.NaN;
  return Number.isNaN(at) ? { hung: 0, hangs: false } : { hung: -at, hangs: true };
}

/** The part of the shared axis that the wells' tops and logs take up. */
export function wholeWindow(columns: WellColumn[], hang: string | null): [number, number] {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const c of columns) {
    const { hung, hangs } = hangOf(c, hang);
    if (!hangs) continue;
    for (const curve of c.curves.values()) {
      const ends = [curve.firstM, curve.firstM + curve.stepM * (curve.values.length - 1)].map(
        (md) => c.axisAt(md) + hung,
      );
      for (const e of ends)
        if (!Number.isNaN(e)) {
          low = Math.min(low, e);
          high = Math.max(high, e);
        }
    }
    for (const t of c.tops) {
      const a = c.axisAt(t.md) + hung;
      if (!Number.isNaN(a) && a > -1e5) high = Math.max(high, a);
    }
  }
  return high > low ? [low, high] : [0, 1000];
}

/** A window moved no further than where a tenth of it still holds something. */
export function inReach([a, b]: [number, number], whole: [number, number]): [number, number] {
  const span = b - a;
  const from = Math.max(whole[0] - 0.9 * span, Math.min(whole[1] - 0.1 * span, a));
  return [from, from + span];
}

/** Lay wells out from left to right; `spacing` gives the distance from each well to the next in metres. */
export function layOut(
  columns: WellColumn[],
  desk: LogsDesk,
  size: { width: number; height: number },
  window: [number, number],
  spacing: number[],
  scroll = 0,
): Panel {
  const height = Math.max(20, size.height - HEAD - 4);
  const wide = desk.tracks.reduce((s, t) => s + t.width, 0);
  const longest = Math.max(0, ...(columns.at(-1)?.tops ?? []).map((t) => t.name.length));
  // what the names of the last well's tops take beyond the gap
  const last = Math.max(0, Math.min(100, BEFORE_NAME + LETTER * longest - GAP));
  const room =
    (size.width - 12 - GAP * columns.length - last) / Math.max(1, columns.length) -
    AXIS -
    TRACK_GAP * desk.tracks.length;
  const part = Math.max(NARROWEST, Math.min(1, room / Math.max(1, wide)));
  const own = AXIS + wide * part + TRACK_GAP * desk.tracks.length;
  const total = spacing.reduce((a, b) => a + b, 0);
  // true spacing shares out what is left over after every pair has room for its zones
  const free = Math.max(0, size.width - columns.length * own - Math.max(0, columns.length - 1) * GAP - 12);
  let left = 6 - scroll;
  const wells = columns.map((column, n): WellBox => {
    const { hung, hangs } = hangOf(column, desk.hang);
    const y = (md: number) => HEAD + ((column.axisAt(md) + hung - window[0]) / (window[1] - window[0])) * height;
    const mdAt = (at: number) => column.mdAt(window[0] + ((at - HEAD) / height) * (window[1] - window[0]) - hung);
    const from = mdAt(HEAD);
    const to = mdAt(HEAD + height);
    let x = left + AXIS;
    const tracks = desk.tracks.map((track) => {
      const box: TrackBox = { left: x, width: track.width * part, top: HEAD, height, y, mdAt, from, to };
      x += track.width * part + TRACK_GAP;
      return { track, box };
    });
    const box = { column, left, width: own, hung, hangs, axis: { left, width: AXIS }, tracks, y };
    const more = desk.spaced && total > 0 ? (free * (spacing[n] ?? 0)) / total : 0;
    left += own + GAP + more;
    return box;
  });
  return { wells, width: left + last + scroll, top: HEAD, height, window };
}

/** Zones of a well between its tops, from the top down, with the unit that each is. */
function zonesOf(column: WellColumn, stratigraphy: Stratigraphy | undefined) {
  const tops = column.tops.filter((t) => t.kind === 'top');
  return tops.map((top, n) => ({
    top,
    base: tops[n + 1] as Top | undefined,
    unit: stratigraphy?.units.find((u) => u.top === top.name),
  }));
}

/** Beds between neighbouring wells, coloured by unit, and lines that join their tops. */
export function zoneMarks(panel: Panel, stratigraphy: Stratigraphy | undefined): Mark[] {
  const out: Mark[] = [];
  panel.wells.forEach((a, n) => {
    const right = a.left + a.width;
    for (const z of zonesOf(a.column, stratigraphy)) {
      if (!z.unit || !a.hangs) continue;
      const y0 = a.y(z.top.md);
      const y1 = z.base ? a.y(z.base.md) : y0;
      if (!(y1 > y0)) continue;
      out.push({
        kind: 'rect',
        x: a.left,
        y: y0,
        width: 5,
        height: y1 - y0,
        color: z.unit.color,
        pattern: z.unit.pattern,
      });
    }
    const b = panel.wells[n + 1];
    if (!b || !a.hangs || !b.hangs) return;
    const here = zonesOf(a.column, stratigraphy);
    const there = zonesOf(b.column, stratigraphy);
    for (const z of here) {
      const w = there.find((t) => t.top.name === z.top.name);
      if (!w) continue;
      const [y0, y1] = [a.y(z.top.md), b.y(w.top.md)];
      if (Number.isNaN(y0 + y1)) continue;
      // a bed whose base is not the same top in both wells is left open
      if (z.unit && z.base && w.base && z.base.name === w.base.name)
        out.push({
          kind: 'area',
          points: Float32Array.from([right, y0, b.left, y1, b.left, b.y(w.base.md), right, a.y(z.base.md)]),
          color: z.unit.color,
          pattern: z.unit.pattern,
        });
      const points = z.unit?.unconformity ? wavy(right, y0, b.left, y1) : Float32Array.from([right, y0, b.left, y1]);
      out.push({ kind: 'line', points, color: z.unit?.unconformity ? '#b3322b' : '#22262a', width: 1.1 });
    }
  });
  return out;
}

/** An unconformity is drawn as one: a line that waves. */
function wavy(x0: number, y0: number, x1: number, y1: number): Float32Array {
  const count = Math.max(6, Math.round(Math.abs(x1 - x0) / 3));
  return Float32Array.from({ length: 2 * (count + 1) }, (_, n) => {
    const f = (n >> 1) / count;
    return n % 2 === 0 ? x0 + f * (x1 - x0) : y0 + f * (y1 - y0) + 2 * Math.sin(f * count * 1.2);
  });
}

/** Round numbers along a depth axis. */
export function ticks(from: number, to: number, height: number): number[] {
  const rough = ((to - from) / height) * 46;
  const power = 10 ** Math.floor(Math.log10(Math.max(1e-6, rough)));
  const step = [1, 2, 5, 10].map((f) => f * power).find((s) => s >= rough) ?? 10 * power;
  const out: number[] = [];
  for (let t = Math.ceil(from / step) * step; t <= to; t += step) out.push(t);
  return out;
}

/** Marks of a well's axis: its own depths, whatever it hangs on. */
export function axisMarks(well: WellBox, panel: Panel, unitOf: (v: number) => number, ink: string): Mark[] {
  const [from, to] = [panel.window[0] - well.hung, panel.window[1] - well.hung];
  const shown = [unitOf(from), unitOf(to)];
  return ticks(shown[0], shown[1], panel.height).map((t): Mark => {
    const y = panel.top + ((t - shown[0]) / (shown[1] - shown[0])) * panel.height;
    return {
      kind: 'text',
      x: well.left + AXIS - 5,
      y: y + 3.5,
      text: String(Math.round(t * 100) / 100),
      color: ink,
      size: 10,
      anchor: 'end',
    };
  });
}

/** Headings of a well and of its tracks, with the curves' limits. */
export function headMarks(
  well: WellBox,
  desk: LogsDesk,
  facts: string[],
  units: Units,
  ink: { text: string; soft: string },
): Mark[] {
  const out: Mark[] = [
    { kind: 'text', x: well.left + 2, y: 14, text: well.column.well.name, color: ink.text, size: 13, weight: 640 },
  ];
  facts.slice(0, 2).forEach((f, n) => {
    out.push({ kind: 'text', x: well.left + 2, y: 27 + 11.5 * n, text: f, color: ink.soft, size: 10.5 });
  });
  for (const { track, box } of well.tracks) {
    if (track.beds) {
      out.push({
        kind: 'text',
        x: box.left + box.width / 2,
        y: HEAD - 6,
        text: track.title.slice(0, Math.max(1, Math.floor((box.width + TRACK_GAP) / SMALL_LETTER))),
        color: ink.soft,
        size: 9.5,
        anchor: 'middle',
      });
      continue;
    }
    const named = track.curves.map((key): { name: string; ends: [string, string] | null; color: string } => {
      const curve = well.column.curves.get(key);
      const name = SHORT[key] ?? key.slice(0, 8);
      if (!curve) return { name, ends: null, color: ink.soft };
      const style = styleOf(key, curve, well.column.well.name, desk.styles);
      const shown = (v: number) => String(Number(units.to(v, curve.unit).toPrecision(3)));
      return { name, ends: [shown(style.from), shown(style.to)], color: style.color };
    });
    const fits = (letters: number) => letters * SMALL_LETTER < box.width;
    // names stand above the limits where a track is too narrow for all three in a row, and so do limits too wide for one
    const narrow = named.some(({ name, ends }) => ends && !fits(name.length + ends.join('').length + 2));
    const split = named.some(({ ends }) => ends && !fits(ends.join('').length + 1));
    const rows = split ? 3 : narrow ? 2 : 1;
    named.slice(0, [5, 3, 2][rows - 1]).forEach(({ name, ends, color }, n) => {
      const y = HEAD - 6 - (2 + 10 * rows) * n;
      const middle = box.left + box.width / 2;
      const text = (x: number, at: number, value: string, anchor?: 'middle' | 'end', weight?: number) =>
        out.push({ kind: 'text', x, y: at, text: value, color, size: 9, anchor, weight });
      if (!ends) {
        text(middle, y, `no ${name}`.slice(0, Math.floor(box.width / SMALL_LETTER)), 'middle');
        return;
      }
      out.push({
        kind: 'line',
        points: Float32Array.from([box.left, y + 2.5, box.left + box.width, y + 2.5]),
        color,
        width: 1.2,
      });
      text(box.left, split ? y - 9.5 : y, ends[0]);
      text(box.left + box.width, y, ends[1], 'end');
      text(
        middle,
        y - 9.5 * (rows - 1),
        name.slice(0, Math.max(2, Math.floor(box.width / BOLD_LETTER))),
        'middle',
        600,
      );
    });
  }
  return out;
}

const SHORT: Record<string, string> = {
  'gamma ray': 'GR',
  sonic: 'P slow.',
  'shear sonic': 'S slow.',
  density: 'density',
  neutron: 'neutron',
  resistivity: 'resist.',
  caliper: 'caliper',
  'shale volume': 'shale',
  porosity: 'φ total',
  'effective porosity': 'φ eff.',
  'water saturation': 'Sw',
  'net flag': 'net',
  'P impedance': 'P imp.',
  'S impedance': 'S imp.',
};

/** Tops across a well's tracks. */
export function topMarks(well: WellBox, ink: { text: string; fault: string }): Mark[] {
  const left = well.left + AXIS;
  const right = well.left + well.width;
  return well.column.tops.flatMap((top): Mark[] => {
    const y = well.y(top.md);
    if (Number.isNaN(y)) return [];
    const cut = top.kind === 'fault cut';
    return [
      {
        kind: 'line',
        points: Float32Array.from([left, y, right, y]),
        color: cut ? ink.fault : ink.text,
        width: cut ? 1.6 : 1.1,
        dash: cut ? [6, 3] : undefined,
      },
    ];
  });
}

/** All marks of the tracks of a well. */
export function wellMarks(well: WellBox, desk: LogsDesk, faciesNames: string[]): { box: TrackBox; marks: Mark[] }[] {
  return well.tracks.map(({ track, box }) => ({
    box,
    marks: trackMarks(track, well.column, desk.styles, box, faciesNames),
  }));
}
