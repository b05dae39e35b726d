import { useMemo } from 'react';
import { usePlotSelection } from '../../../state/plotSelection';
import { useProject } from '../../../state/project';
import { activeOf, useSettings } from '../../../state/views';
import type { Size } from '../../common/hooks';
import type { ShownWell } from '../../common/survey';
import css from '../../common/view.module.css';
import { type MapFrame, toScreen } from '../frame';
import { MapRaster } from '../MapRaster';

/** The wells chosen for the Logs view, joined in their order. */
export function WellLine({ frame, size, wells }: { frame: MapFrame; size: Size; wells: ShownWell[] }) {
  const chosen = useSettings('logs', activeOf('logs'))[0].wells;
  const points = chosen.flatMap((id) => {
    const well = wells.find((w) => w.well.id === id)?.well;
    return well ? [toScreen(frame, size, well.x, well.y)] : [];
  });
  return (
    <svg className={css.overlay} aria-hidden="true" style={{ pointerEvents: 'none' }}>
      <polyline points={points.map((p) => p.join()).join(' ')} fill="none" stroke="#1f766d" strokeWidth={2} />
      {points.map(([x, y], n) => (
        <g key={chosen[n]}>
          <circle cx={x} cy={y} r={9} fill="#1f766d" />
          <text x={x} y={y + 4} textAnchor="middle" style={{ fill: '#fffaf2' }}>
            {n + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** What is selected in a crossplot: bins of a map or volume, or the parts of wells that hold such points. */
export function LitUp({ frame, size, wells }: { frame: MapFrame; size: Size; wells: ShownWell[] }) {
  const now = usePlotSelection((s) => s.now);
  const of = useProject((s) => (now?.bins ? s.byId.get(now.bins.of) : undefined));
  const values = useMemo(
    () => (now?.bins ? Float32Array.from(now.bins.mask, (v) => (v ? 1 : Number.NaN)) : null),
    [now],
  );
  if (!now) return null;
  if (values && of && 'binGrid' in of && of.binGrid)
    return (
      <MapRaster
        values={values}
        binGrid={of.binGrid}
        look={{ map: 'ember', low: 0, high: 1.6, reverse: false, opacity: 0.7 }}
        frame={frame}
        size={size}
      />
    );
  return (
    <svg className={css.overlay} aria-hidden="true" style={{ pointerEvents: 'none' }} data-testid="lit-map">
      {wells.flatMap(({ well }) => {
        const metres = (now.wells.get(well.name) ?? []).reduce((s, [a, b]) => s + b - a, 0);
        if (metres === 0) return [];
        const [x, y] = toScreen(frame, size, well.x, well.y);
        return [
          <circle
            key={well.id}
            cx={x}
            cy={y}
            r={Math.min(26, 6 + Math.sqrt(metres))}
            fill={now.color}
            fillOpacity={0.4}
            stroke={now.color}
          />,
        ];
      })}
    </svg>
  );
}
