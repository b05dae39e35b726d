import type { Points } from '@lithagon/core';
import type { MapLayerProps } from '../define';
import { HALO } from '../mapParts';

/** Most names of points that are written beside them: more cannot be read. */
const MOST_NAMES = 60;

/** Points as crosses with their names, as far as these can be read; those in sight alone. */
export function PointsOnMap({ object: points, selected, opacity, size, place }: MapLayerProps<Points>) {
  const seen = points.points.flatMap((p, n) => {
    const [x, y] = place(...p);
    return x > 0 && y > 0 && x < size.width && y < size.height ? [{ x, y, name: points.names[n] }] : [];
  });
  const [arm, named] = [selected ? 5 : 3.5, seen.length <= MOST_NAMES];
  return (
    <g opacity={opacity} data-object={points.id}>
      <path
        d={seen
          .map(({ x, y }) => `M${x - arm} ${y - arm}l${2 * arm} ${2 * arm}m0 ${-2 * arm}l${-2 * arm} ${2 * arm}`)
          .join('')}
        fill="none"
        stroke={points.color ?? '#7a3b69'}
        strokeWidth={selected ? 2.2 : 1.4}
      >
        <title>{points.name}</title>
      </path>
      {named &&
        seen.map(({ x, y, name }, n) => (
          <text key={n} x={x + 6} y={y - 5} {...HALO} fontSize={11}>
            {name}
          </text>
        ))}
    </g>
  );
}
