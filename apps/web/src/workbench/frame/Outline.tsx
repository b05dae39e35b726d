import type { Crs } from '@lithagon/core';
import css from './Frame.module.css';
import { LAND } from './land';

const W = 240;
const H = 120;
const x = (lon: number) => ((lon + 180) / 360) * W;
const y = (lat: number) => ((90 - lat) / 180) * H;

/** Where in the world a coordinate system is for. */
export function Outline({ crs }: { crs: Crs | null }) {
  const box = crs?.bounds;
  const area = box && { north: box[0], west: box[1], south: box[2], east: box[3] };
  // an area over the date line is drawn in two parts
  const parts = area
    ? area.west <= area.east
      ? [[area.west, area.east]]
      : [
          [area.west, 180],
          [-180, area.east],
        ]
    : [];
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className={css.outline}
      role="img"
      aria-label={crs ? `Area of ${crs.name}` : 'World'}
    >
      {[-60, -30, 0, 30, 60].map((lat) => (
        <path key={lat} d={`M0 ${y(lat)}H${W}`} stroke="var(--ash)" strokeWidth={lat === 0 ? 0.6 : 0.3} />
      ))}
      {LAND.map((ring) => (
        <path
          key={ring[0].join()}
          d={`M${ring.map(([lon, lat]) => `${x(lon).toFixed(1)} ${y(lat).toFixed(1)}`).join('L')}Z`}
          fill="var(--ash)"
        />
      ))}
      {area &&
        parts.map(([west, east]) => (
          <rect
            key={west}
            x={x(west)}
            y={y(area.north)}
            width={Math.max(1.5, x(east) - x(west))}
            height={Math.max(1.5, y(area.south) - y(area.north))}
            fill="var(--ochre)"
            fillOpacity={0.35}
            stroke="var(--ochre)"
            strokeWidth={0.8}
          />
        ))}
    </svg>
  );
}
