import type { Bodies } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../picture/path';
import { useArray } from '../../views/common/hooks';
import { useLabels } from '../../views/common/labels/Labels';
import { inFrame, scales } from '../../views/section/frame';
import type { SectionLayerProps } from '../define';
import { alongSection, bodyColor, runsByTrace } from './shapes';

/** Bodies of more outlines than this are not named one by one. */
const NAMED = 8;

/** Outlines of bodies where a section cuts them. */
export function BodiesOnSection({ object, frame, opacity, selected }: SectionLayerProps<Bodies>) {
  const runs = useArray(object.id, object.revision, object.runs);
  const byTrace = useMemo(() => (runs ? runsByTrace(runs, object) : null), [runs, object]);
  const { line } = frame;
  const cut = useMemo(
    () => (runs && byTrace ? alongSection(runs, byTrace, object, line) : []),
    [runs, byTrace, object, line],
  );
  const { x, y } = scales(frame);
  const { first, step } = object.vertical;
  const turn = inFrame(frame, object.domain);
  const shapes = cut.map(({ body, lines }) => ({
    body,
    paths: lines.map((points) => points.map(([t, k]): [number, number] => [x(t), y(turn(t, first + k * step))])),
  }));
  useLabels(
    object.id,
    shapes.slice(0, NAMED).flatMap(({ body, paths }) => {
      const [longest] = [...paths].sort((a, b) => b.length - a.length);
      if (!longest) return [];
      const right = longest.reduce((a, b) => (b[0] > a[0] ? b : a));
      return [
        {
          id: `${object.id} ${body}`,
          text: `body ${body}`,
          color: bodyColor(body),
          rank: 1,
          anchor: 'start' as const,
          at: [
            [right[0] + 4, right[1] + 4],
            [right[0] + 4, right[1] + 16],
          ] as [number, number][],
        },
      ];
    }),
  );
  return (
    <g opacity={opacity} data-object={object.id} data-testid="bodies-section">
      {shapes.map(({ body, paths }) => {
        const d = paths.map((p) => pathText(p, true)).join('');
        return (
          <g key={body} data-body={body} fill="none" strokeLinejoin="round">
            <path d={d} stroke="#fffdf7" strokeWidth={3.4} strokeOpacity={0.85} />
            <path
              d={d}
              stroke={bodyColor(body)}
              strokeWidth={selected ? 2.4 : 1.6}
              fill={bodyColor(body)}
              fillOpacity={0.14}
            />
          </g>
        );
      })}
    </g>
  );
}
