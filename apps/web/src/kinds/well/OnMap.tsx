import type { Well } from '@lithagon/core';
import { useMemo } from 'react';
import { pathText } from '../../picture/path';
import { useLabels } from '../../views/common/labels/Labels';
import { pathThrough } from '../../views/map/surface';
import type { MapLayerProps } from '../define';

const FLUID_COLORS: [RegExp, string][] = [
  [/gas/i, '#c3362c'],
  [/oil/i, '#2c8a3f'],
  [/water|wet/i, '#2b6cb0'],
];
const INK = '#17191b';

/** A well's head with the colour of its fluid, its path, and where that goes through the horizon shown. */
export function WellOnMap({ object, well, domain, selected, opacity, surface, place }: MapLayerProps<Well>) {
  const [x, y] = place(object.x, object.y);
  const through = useMemo(
    () => (well && surface ? pathThrough(well.points, surface, domain) : null),
    [well, surface, domain],
  );
  const [tx, ty] = through ? place(...through) : [x, y];
  const color = FLUID_COLORS.find(([p]) => p.test(object.status ?? ''))?.[1] ?? '#5d656c';
  useLabels(`well ${object.id}`, [
    {
      id: object.id,
      text: object.name,
      color: INK,
      bold: true,
      rank: selected ? 6 : 5,
      at: [
        [x + 7, y - 5],
        [x + 7, y + 13],
        [x - 7 - 7 * object.name.length, y - 5],
        [x - 7 - 7 * object.name.length, y + 13],
        [x + 7, y - 19],
        [x + 7, y + 27],
      ],
    },
  ]);
  return (
    <g opacity={opacity} data-object={object.id} data-well={object.name}>
      {well && (
        <path d={pathText(well.points.map(([px, py]) => place(px, py)))} fill="none" stroke={INK} strokeWidth={1.3} />
      )}
      {Math.hypot(tx - x, ty - y) > 6 && (
        <path
          d={`M${tx - 4} ${ty}L${tx} ${ty - 4}L${tx + 4} ${ty}L${tx} ${ty + 4}Z`}
          fill={color}
          stroke="#fffdf7"
          strokeWidth={1}
        >
          <title>{object.name} at the horizon shown</title>
        </path>
      )}
      <circle cx={x} cy={y} r={selected ? 6 : 4.4} fill="#fffdf7" stroke={INK} strokeWidth={1.4} />
      <circle cx={x} cy={y} r={2.3} fill={color} />
    </g>
  );
}
