import { nearestOnPath } from '@lithagon/core';
import { useDesk } from '../../../state/desk';
import { useHere } from '../../../state/here';
import { useProject } from '../../../state/project';
import { kindOfView, titleOf } from '../../../state/views';
import { lookIn, viewIn } from '../../../state/views/index';
import { settingsIn } from '../../../state/views/view';
import { useLabels } from '../../common/labels/Labels';
import { shownLine, shownVolume } from '../../common/survey';
import { type Frame, scales } from '../frame';
import type { SectionLine } from '../geometry';
import { cornersAlong } from '../useAlong';

/** Where two pieces of line meet, as a part of the first; null where they do not. */
export function meet(
  [ax, ay]: [number, number],
  [bx, by]: [number, number],
  [cx, cy]: [number, number],
  [dx, dy]: [number, number],
): number | null {
  const det = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
  if (det === 0) return null;
  const f = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / det;
  const g = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / det;
  return f >= 0 && f <= 1 && g >= 0 && g <= 1 ? f : null;
}

/** Within this of each other, m, two lines run along one. */
const ONE_LINE_M = 1;

/** Whether a path runs along a section itself, as that of the other domain does: it crosses it nowhere. */
export function alongSame(line: SectionLine, corners: [number, number][]): boolean {
  if (corners.length < 2) return false;
  const middle = line.place((line.traces - 1) / 2);
  const far = ([x, y]: [number, number]) => line.nearest(x, y)[1];
  return (
    corners.every((corner) => far(corner) < ONE_LINE_M) &&
    [line.from, middle, line.to].every((place) => nearestOnPath(corners, ...place).off < ONE_LINE_M)
  );
}

/** Where other sections of the desk cross this one. */
export function Crossings({ frame }: { frame: Frame }) {
  const here = useHere();
  const objects = useProject((s) => s.objects);
  const desk = useDesk();
  const { line, box } = frame;
  const { x } = scales(frame);
  const open = Object.keys(desk.layout?.panels ?? {}).filter((id) => id !== here && kindOfView(id) === 'section');
  const marks = open.flatMap((id) => {
    const settings = settingsIn('section', viewIn(desk, id));
    const flat = shownLine(objects, settings);
    const shown = flat ?? shownVolume(objects, settings.volume ?? desk.volume, settings.domain);
    const corners = cornersAlong(shown, settings, lookIn(desk, id).place, objects) ?? [];
    if (alongSame(line, corners)) return [];
    return line.bends.slice(1).flatMap((end, n) => {
      const begin = line.bends[n];
      const [a, b] = [line.place(begin), line.place(end)];
      return corners.slice(1).flatMap((to, m) => {
        const f = meet(a, b, corners[m], to);
        return f === null ? [] : [{ id, px: x(begin + f * (end - begin)) }];
      });
    });
  });
  const seen = marks.filter(({ px }) => px > box.left && px < box.left + box.width);
  useLabels(
    'crossings',
    seen.map(({ id, px }, n) => ({
      id: `${id} ${n}`,
      text: titleOf(id),
      color: '#1f766d',
      rank: 1,
      at: [
        [px + 4, box.top + box.height - 6],
        [px + 4, box.top + box.height - 22],
      ],
    })),
  );
  return (
    <g stroke="#1f766d" strokeWidth={1.4} strokeDasharray="7 4" strokeOpacity={0.9}>
      {seen.map(({ id, px }, n) => (
        <path key={`${id} ${n}`} d={`M${px} ${box.top}v${box.height}`} data-crossing={id} />
      ))}
    </g>
  );
}
