import type { Picks } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../picture/path';
import { useTool } from '../../state/tool';
import { useLabels } from '../../views/common/labels/Labels';
import { inFrame, scales } from '../../views/section/frame';
import { reachOf, traceOf } from '../../views/section/geometry';
import { placesAlong } from '../../views/section/layers/labelPlaces';
import type { SectionLayerProps } from '../define';

/** Marks nearer to each other than this hide what they stand on, pixels. */
const APART = 9;

/** Of picks close together those that leave the seismic to be seen. */
function apart(on: [number, number][]): [number, number][] {
  let last = Number.NEGATIVE_INFINITY;
  return on.filter(([px]) => {
    if (px - last < APART) return false;
    last = px;
    return true;
  });
}

/** Picks of a horizon that lie on the section, those being made filled; what was drawn free-hand is joined by broken lines. */
export function PicksOnSection({ object, frame, opacity, color, selected }: SectionLayerProps<Picks>) {
  const current = useTool(({ tool }) => tool?.kind === 'pick' && tool.id === object.id);
  const { x, y } = scales(frame);
  const { line } = frame;
  // of many picks few lie on a line: they are sought once for each
  const here = useMemo(() => {
    const reach = reachOf(line);
    return object.points
      .flatMap((p): [number, number][] => {
        const [trace, off] = traceOf(line, p[0], p[1]);
        return off <= reach ? [[trace, p[2]]] : [];
      })
      .sort((a, b) => a[0] - b[0]);
  }, [object, line]);
  const turn = inFrame(frame, object.domain);
  const on = here.map(([t, v]): [number, number] => [x(t), y(turn(t, v))]).filter(([, py]) => !Number.isNaN(py));
  const ink = object.color ?? (color.startsWith('#') ? color : '#1f766d');
  const at = placesAlong(on, frame.box.left, frame.box.left + frame.box.width).slice(0, 20);
  useLabels(
    object.id,
    (current || selected) && at.length > 0 ? [{ id: object.id, text: object.name, color: ink, at, rank: 4 }] : [],
  );
  return (
    <g data-object={object.id} opacity={opacity} data-picks={object.name}>
      <path d={pathText(on)} fill="none" stroke="#fffdf7" strokeOpacity={0.7} strokeWidth={3} />
      <path
        d={pathText(on)}
        fill="none"
        stroke={ink}
        strokeWidth={1.2}
        strokeDasharray={object.event === 'free-hand' ? '3 3' : undefined}
      />
      {apart(on).map(([px, py]) => (
        <path
          key={`${px} ${py}`}
          d={`M${px - 4} ${py}L${px} ${py - 4}L${px + 4} ${py}L${px} ${py + 4}Z`}
          fill={current ? ink : '#fffdf7'}
          stroke={current ? '#fffdf7' : ink}
          strokeWidth={1.4}
        >
          <title>{object.name}</title>
        </path>
      ))}
    </g>
  );
}
