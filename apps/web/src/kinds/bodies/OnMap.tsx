import { type Bodies, contourSegments, type Horizon, joinedSegments, toMap } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../picture/path';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import { useArray } from '../../views/common/hooks';
import { useLabels } from '../../views/common/labels/Labels';
import type { MapLayerProps } from '../define';
import { bodyColor, footprints, runsByTrace } from './shapes';

/** Most bodies whose edge is drawn as a contour. */
const EDGED = 3;

/** Contours of the surface that edges were held against, at the middle of each. */
function useEdges(object: Bodies): { body: number; metres: number; lines: [number, number][][]; of: Horizon }[] {
  const id = object.madeBy.inputs.depth?.[0]?.split('@')[0];
  const of = useProject((s) => (id ? s.byId.get(id) : undefined)) as Horizon | undefined;
  const values = useArray(of?.id, of?.revision, of?.values);
  return useMemo(() => {
    if (!of || !values) return [];
    const [ni, nj] = [of.binGrid.inline.count, of.binGrid.crossline.count];
    return object.bodies.slice(0, EDGED).flatMap(({ edgeM }, n) => {
      if (edgeM === undefined) return [];
      // one level: what is shallower against what is deeper
      const segments =
        contourSegments(
          values.map((v) => v - edgeM),
          ni,
          nj,
          1e9,
        ).get(0) ?? [];
      return [{ body: n + 1, metres: edgeM, lines: joinedSegments(segments), of }];
    });
  }, [object, of, values]);
}

/** Footprints of bodies from above, and where the surface lies as deep as their edges. */
export function BodiesOnMap({ object, opacity, selected, place }: MapLayerProps<Bodies>) {
  const runs = useArray(object.id, object.revision, object.runs);
  const seen = useMemo(() => (runs ? footprints(runsByTrace(runs, object), runs, object) : []), [runs, object]);
  const edges = useEdges(object);
  const units = useUnits();
  const drawn = edges.map(({ lines, of, ...rest }) => ({
    ...rest,
    paths: lines
      .filter((points) => points.length > 8)
      .map((points) => points.map(([i, j]) => place(...toMap(of.binGrid, i, j)))),
  }));
  useLabels(
    object.id,
    drawn.flatMap(({ body, metres, paths }) => {
      const longest = [...paths].sort((a, b) => b.length - a.length)[0];
      if (!longest) return [];
      return [
        {
          id: `${object.id} edge ${body}`,
          text: `edge of ${body}: ${units.text(metres, 'm', 0)}`,
          color: '#17191b',
          rank: 2,
          anchor: 'middle' as const,
          at: [0.1, 0.35, 0.6, 0.85].map((f) => longest[Math.floor(f * (longest.length - 1))]),
        },
      ];
    }),
  );
  return (
    <g opacity={opacity} data-object={object.id} data-testid="bodies-map" fill="none" strokeLinejoin="round">
      {drawn.map(({ body, paths }) => (
        <g key={`edge ${body}`} data-edge={body}>
          <path d={paths.map((p) => pathText(p)).join('')} stroke="#fffdf7" strokeWidth={3} strokeOpacity={0.7} />
          <path d={paths.map((p) => pathText(p)).join('')} stroke="#17191b" strokeWidth={1.2} strokeDasharray="7 4" />
        </g>
      ))}
      {seen.map(({ body, lines }) => {
        const d = lines
          .map((points) =>
            pathText(
              points.map(([i, j]) => place(...toMap(object.binGrid, i, j))),
              true,
            ),
          )
          .join('');
        return (
          <g key={body} data-body={body}>
            <path d={d} stroke="#fffdf7" strokeWidth={3.4} strokeOpacity={0.85} />
            <path d={d} stroke={bodyColor(body)} strokeWidth={selected ? 2.6 : 1.7}>
              <title>
                {object.name}: body {body}
              </title>
            </path>
          </g>
        );
      })}
    </g>
  );
}
