import { type BinGrid, contourSegments, joinedSegments, toMap } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../../picture/path';
import { useUnits } from '../../../state/units';
import { useLabels } from '../../common/labels/Labels';
import type { Wish } from '../../common/labels/place';

/** Every so many contours one is heavier and carries its value. */
const HEAVY = 5;
/** Pixels along a contour from one value to the next, and least length of one that carries any. */
const [EVERY, LEAST] = [260, 70];

/** Contours of a grid, every fifth heavier and with its value where it runs straightest. */
export function Contours(props: {
  values: Float32Array;
  binGrid: BinGrid;
  interval: number;
  unit: string;
  place(x: number, y: number): [number, number];
}) {
  const { values, binGrid, interval, unit, place } = props;
  const units = useUnits();
  const lines = useMemo(
    () =>
      [...contourSegments(values, binGrid.inline.count, binGrid.crossline.count, interval)].flatMap(
        ([level, segments]) =>
          joinedSegments(segments).map((line) => ({ level, line: line.map(([i, j]) => toMap(binGrid, i, j)) })),
      ),
    [values, binGrid, interval],
  );
  const d = { light: '', heavy: '' };
  const wishes: Wish[] = [];
  for (const [n, { level, line }] of lines.entries()) {
    const heavy = Math.round(level / interval) % HEAVY === 0;
    const points = line.map((p) => place(...p));
    d[heavy ? 'heavy' : 'light'] += pathText(points);
    if (!heavy) continue;
    const text = Number(units.to(level, unit).toFixed(3)).toString();
    for (const [m, at] of straightest(points).entries())
      wishes.push({ id: `contour ${n} ${m}`, text, color: '#1b1d1f', rank: 0, anchor: 'middle', ...at });
  }
  useLabels('contours', wishes);
  return (
    <g fill="none" stroke="#1b1d1f" data-testid="contours">
      <path d={d.light} strokeOpacity={0.4} strokeWidth={0.7} />
      <path d={d.heavy} strokeOpacity={0.75} strokeWidth={1.2} />
    </g>
  );
}

/** Places along a line where a value lies well: every so often, where it bends least, upright. */
function straightest(points: [number, number][]): { at: [number, number][]; turn: number }[] {
  const far = [0];
  for (let n = 1; n < points.length; n++)
    far.push(far[n - 1] + Math.hypot(points[n][0] - points[n - 1][0], points[n][1] - points[n - 1][1]));
  const length = far[far.length - 1];
  if (length < LEAST) return [];
  const count = Math.max(1, Math.floor(length / EVERY));
  return Array.from({ length: count }, (_, k) => {
    const [from, to] = [(length * k) / count, (length * (k + 1)) / count];
    let [best, least] = [-1, Number.POSITIVE_INFINITY];
    for (let n = 1; n < points.length - 1; n++) {
      if (far[n] < from || far[n] > to) continue;
      // half the width of a value to either side
      const [a, b] = [at(far[n] - 16), at(far[n] + 16)];
      const bend = Math.hypot(a[0] + b[0] - 2 * points[n][0], a[1] + b[1] - 2 * points[n][1]);
      if (bend < least) [best, least] = [n, bend];
    }
    if (best < 0) return null;
    const [a, b] = [at(far[best] - 16), at(far[best] + 16)];
    let turn = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
    if (turn > 90) turn -= 180;
    if (turn < -90) turn += 180;
    return { at: [points[best]], turn };
  }).filter((p) => p !== null);

  function at(wanted: number): [number, number] {
    let n = 1;
    while (n < far.length - 1 && far[n] < wanted) n++;
    const f = far[n] > far[n - 1] ? Math.max(0, Math.min(1, (wanted - far[n - 1]) / (far[n] - far[n - 1]))) : 0;
    return [
      points[n - 1][0] + f * (points[n][0] - points[n - 1][0]),
      points[n - 1][1] + f * (points[n][1] - points[n - 1][1]),
    ];
  }
}
