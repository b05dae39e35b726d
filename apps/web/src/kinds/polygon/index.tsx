import type { Polygon } from '@lithagon/core';
import { pathText } from '../../picture/path';
import { type MapLayerProps, webKind } from '../define';

/** Areas are dashed, lines as coasts and licences are not. */
function PolygonOnMap({ object, selected, opacity, place }: MapLayerProps<Polygon>) {
  const { closed, rings, name } = object;
  return (
    <g
      fill="none"
      stroke={object.color ?? (closed ? '#7f6a2f' : '#2f6db0')}
      strokeWidth={selected ? 2.6 : 1.3}
      strokeDasharray={closed ? '6 4' : undefined}
      opacity={opacity}
      data-object={object.id}
    >
      {rings.map((ring, n) => (
        <path
          key={n}
          d={pathText(
            ring.map((p) => place(...p)),
            closed,
          )}
        >
          <title>{name}</title>
        </path>
      ))}
    </g>
  );
}

export const polygon = webKind<Polygon>({
  colored: true,
  layers: { map: { order: 30, Draw: PolygonOnMap }, scene: { order: 10, asked: () => true } },
});
