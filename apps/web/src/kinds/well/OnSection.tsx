import type { Well } from '@lithagon/core';
import { pathText } from '../../picture/path';
import { usePlotSelection } from '../../state/plotSelection';
import { useSettings } from '../../state/views';
import { useLabels } from '../../views/common/labels/Labels';
import type { Wish } from '../../views/common/labels/place';
import type { ShownWell } from '../../views/common/survey';
import { type Frame, scales } from '../../views/section/frame';
import { traceOf, wellAlong } from '../../views/section/geometry';
import type { SectionLayerProps } from '../define';
import { LogAlong } from './LogAlong';
import { SyntheticAlong } from './SyntheticAlong';

/** How far off a section a well may lie to be drawn on it, metres. */
const REACH_M = 130;
const INK = '#17191b';

/** A well's path with its tops, where it comes near the section. */
export function WellOnSection({ well, frame, opacity }: SectionLayerProps<Well>) {
  const { x, y } = scales(frame);
  const [{ log }] = useSettings('section');
  const points = well
    ? wellAlong(frame.line, well, frame.domain, REACH_M).map(([t, v]) => [x(t), y(v)] as [number, number])
    : [];
  const tops = well && points.length > 1 ? topsOn(well, frame) : [];
  const wishes: Wish[] = [];
  if (well && points.length > 1) {
    const [px, py] = points[0];
    const first = Math.max(frame.box.top + 14, py + 14);
    // a well at the edge keeps its name inside
    const half = 4 * well.well.name.length;
    const at = Math.max(frame.box.left + half, Math.min(frame.box.left + frame.box.width - half, px));
    wishes.push({
      id: well.well.id,
      text: well.well.name,
      color: INK,
      bold: true,
      anchor: 'middle',
      at: Array.from({ length: 8 }, (_, n) => [at, first + 15 * n]),
      rank: 5,
    });
    for (const [n, t] of tops.entries())
      wishes.push({
        id: `${well.well.id} ${n}`,
        text: t.name,
        color: INK,
        at: [
          [t.x + 10, t.y + 4],
          [t.x + 10, t.y + 13],
          [t.x + 10, t.y - 6],
        ],
        rank: 1,
      });
  }
  useLabels(`well ${well?.well.id}`, wishes);
  if (!well || points.length < 2) return null;
  return (
    <g fill="none" data-object={well.well.id} opacity={opacity}>
      <path d={pathText(points)} stroke="#fffdf7" strokeOpacity={0.8} strokeWidth={4} />
      <path d={pathText(points)} stroke={INK} strokeWidth={1.5} />
      <LitUp frame={frame} well={well} />
      {log === 'synthetic' && <SyntheticAlong well={well} frame={frame} reach={REACH_M} />}
      {log && log !== 'synthetic' && <LogAlong well={well} of={log} frame={frame} reach={REACH_M} />}
      {tops.map((t, n) => (
        <g key={n}>
          <path d={`M${t.x - 7} ${t.y}h14`} stroke="#fffdf7" strokeWidth={4} />
          <path d={`M${t.x - 7} ${t.y}h14`} stroke={INK} strokeWidth={1.6}>
            <title>{t.name}</title>
          </path>
        </g>
      ))}
    </g>
  );
}

/** Tops of a well that lie on a section, on the screen. */
function topsOn(well: ShownWell, frame: Frame): { name: string; x: number; y: number }[] {
  const { x, y } = scales(frame);
  return well.tops.flatMap((t) => {
    const [trace, off] = traceOf(frame.line, t.x, t.y);
    const vertical = frame.domain === 'twt' ? t.twt : t.tvdss;
    return off <= REACH_M && Number.isFinite(vertical) ? [{ name: t.name, x: x(trace), y: y(vertical) }] : [];
  });
}

/** Parts of a well whose points are selected in a crossplot. */
function LitUp({ frame, well }: { frame: Frame; well: ShownWell }) {
  const now = usePlotSelection((s) => s.now);
  const intervals = now?.wells.get(well.well.name);
  if (!now || !intervals) return null;
  const { x, y } = scales(frame);
  return (
    <g data-testid="lit-section">
      {intervals.map(([from, to]) => {
        const ends = [from, to].map((md) => {
          const [px, py, tvdss, twt] = well.at(md);
          const [trace] = traceOf(frame.line, px, py);
          return [x(trace), y(frame.domain === 'twt' ? twt : tvdss)] as [number, number];
        });
        return <path key={from} d={pathText(ends)} stroke={now.color} strokeWidth={7} strokeOpacity={0.85} />;
      })}
    </g>
  );
}
