import type { Units } from '@lithagon/core';
import { type LogsDesk, styleOf } from '../../state/logsTemplate';
import { HEAD, TRACK_GAP, type WellBox } from './layout';
import type { Mark } from './marks';

/** Width of a letter of a curve's name or limits. */
const SMALL_LETTER = 5;
const BOLD_LETTER = 4.5;

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
