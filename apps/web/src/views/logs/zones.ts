import type { Stratigraphy, Top } from '@lithagon/core';
import type { Panel, WellBox } from './layout';
import type { Mark } from './marks';

type Unit = Stratigraphy['units'][number];
type UnitOf = (top: Top) => Unit | undefined;
type Point = [x: number, y: number];

const WAVE = '#b3322b';
const LINE = '#22262a';
/** Width of the strip of a well's own zones, at its left. */
const STRIP = 5;

/**
 * Beds between neighbouring wells, coloured by unit, and lines that join their tops.
 * @param sheer whether what lies behind them, such as seismic, is to be seen through them
 */
export function zoneMarks(panel: Panel, stratigraphy: Stratigraphy | undefined, sheer = false): Mark[] {
  const unitOf: UnitOf = (top) => stratigraphy?.units.find((u) => u.top === top.name);
  return panel.wells.flatMap((well, n) => {
    if (!well.hangs) return [];
    const next = panel.wells[n + 1];
    const between = next?.hangs ? bedsBetween(well, next, unitOf) : [];
    return [...ownZones(well, unitOf), ...(sheer ? between.map(seenThrough) : between)];
  });
}

const seenThrough = (mark: Mark): Mark =>
  mark.kind === 'area' ? { kind: 'area', points: mark.points, color: `${mark.color}4d` } : mark;

const topsDown = (well: WellBox) =>
  well.column.tops.filter((t) => t.kind === 'top' && !Number.isNaN(well.y(t.md))).sort((a, b) => a.md - b.md);

/** A well's own zones, as a strip down its side. */
function ownZones(well: WellBox, unitOf: UnitOf): Mark[] {
  const tops = topsDown(well).filter(unitOf);
  return tops.slice(0, -1).flatMap((top, n): Mark[] => {
    const unit = unitOf(top);
    const [y, base] = [well.y(top.md), well.y(tops[n + 1].md)];
    if (!unit || !(base > y)) return [];
    return [
      { kind: 'rect', x: well.left, y, width: STRIP, height: base - y, color: unit.color, pattern: unit.pattern },
    ];
  });
}

/**
 * What lies between two wells. Beds run between the tops that both have; what only one of them has in between ends
 * half-way, as a wedge on the bed below: it pinched out, or it was not picked over there. A top that is no unit's
 * parts no bed.
 */
function bedsBetween(a: WellBox, b: WellBox, unitOf: UnitOf): Mark[] {
  const [left, right] = [a.left + a.width, b.left];
  const [tops, others] = [topsDown(a), topsDown(b)];
  const shared = tops.flatMap((top) => {
    const other = others.find((t) => t.name === top.name);
    return other ? [{ top, other, from: [left, a.y(top.md)] as Point, to: [right, b.y(other.md)] as Point }] : [];
  });
  const lines = shared.map((s): Mark => {
    const wave = unitOf(s.top)?.unconformity;
    const points = wave ? wavy(s.from, s.to) : flat(s.from, s.to);
    return { kind: 'line', points, color: wave ? WAVE : LINE, width: 1.1 };
  });
  const beds: Mark[] = [];
  const bounds = shared.filter((s) => unitOf(s.top));
  bounds.forEach((s, n) => {
    const unit = unitOf(s.top);
    const below = bounds[n + 1];
    // tops that cross between the wells bound no bed
    if (!unit || !below || below.other.md <= s.other.md) return;
    beds.push(area(unit, s.from, s.to, below.to, below.from));
    const tip: Point = [(left + right) / 2, (below.from[1] + below.to[1]) / 2];
    for (const [well, x, own, upper, lower] of [
      [a, left, tops, s.top, below.top],
      [b, right, others, s.other, below.other],
    ] as const) {
      const extra = own.filter((t) => unitOf(t) && t.md > upper.md && t.md < lower.md);
      extra.forEach((top, k) => {
        const [y, base] = [well.y(top.md), well.y((extra[k + 1] ?? lower).md)];
        const wedge = unitOf(top);
        if (wedge) beds.push(area(wedge, [x, y], tip, [x, base]));
        lines.push({ kind: 'line', points: flat([x, y], tip), color: LINE, width: 0.8, dash: [4, 3] });
      });
    }
  });
  return [...beds, ...lines];
}

const flat = (...points: Point[]) => Float32Array.from(points.flat());

function area(unit: Unit, ...corners: Point[]): Mark {
  return { kind: 'area', points: flat(...corners), color: unit.color, pattern: unit.pattern };
}

/** An unconformity is drawn as one: a line that waves. */
function wavy([x0, y0]: Point, [x1, y1]: Point): Float32Array {
  const count = Math.max(6, Math.round(Math.abs(x1 - x0) / 3));
  return Float32Array.from({ length: 2 * (count + 1) }, (_, n) => {
    const f = (n >> 1) / count;
    return n % 2 === 0 ? x0 + f * (x1 - x0) : y0 + f * (y1 - y0) + 2 * Math.sin(f * count * 1.2);
  });
}
