import { pathOfLine, type SeismicLine } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../picture/path';
import { activeOf, useSettings } from '../../state/views';
import { shownLine } from '../../views/common/survey';
import type { MapLayerProps } from '../define';
import { HALO } from '../mapParts';

/** A 2D line with its name; the one that the section shows stands out as the section's trace does. */
export function LineOnMap({ object: line, objects, opacity, place }: MapLayerProps<SeismicLine>) {
  const [section] = useSettings('section', activeOf('section'));
  const inSection = shownLine(objects, section)?.id === line.id;
  const where = useMemo(() => pathOfLine(objects, line), [objects, line]);
  if (!where) return null;
  const points = where.map((p) => place(...p));
  const [x, y] = points[0];
  return (
    <g opacity={opacity} data-object={line.id}>
      <path
        data-testid={inSection ? 'section-trace' : undefined}
        d={pathText(points)}
        fill="none"
        stroke={inSection ? 'var(--verdigris)' : (line.color ?? 'var(--ink)')}
        strokeWidth={inSection ? 2.6 : 1}
      >
        <title>{line.name}</title>
      </path>
      <text x={x + 4} y={y - 4} {...HALO} fontSize={11}>
        {line.name}
      </text>
    </g>
  );
}
