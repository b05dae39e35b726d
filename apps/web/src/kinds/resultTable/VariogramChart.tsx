import type { ResultTable } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { useUnits } from '../../state/units';
import css from '../../workbench/sheet/Sheet.module.css';

const [W, H] = [262, 132];

export const isVariogram = ({ columns }: ResultTable): boolean =>
  columns[0]?.name === 'Distance' && columns[1]?.name === 'Semivariance';

/** Semivariance of pairs against distance, and the model that was fitted: dots grow with the pairs that they rest on. */
export function VariogramChart({ table }: { table: ResultTable }) {
  const units = useUnits();
  const rows = table.rows.map((r) => r.map(Number));
  const far = Math.max(1, ...rows.map((r) => units.to(r[0], 'm')));
  const most = Math.max(1e-9, ...rows.flatMap((r) => [r[1], r[2]]));
  const x = scaleLinear([0, 1.08 * far], [44, W - 8]);
  const y = scaleLinear([0, 1.15 * most], [H - 22, 8]);
  const pairs = Math.max(1, ...rows.map((r) => r[3]));
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width={W} height={H} role="img" aria-label="Variogram" className={css.small}>
      {y.ticks(3).map((v) => (
        <g key={v}>
          <line x1={44} x2={W - 8} y1={y(v)} y2={y(v)} stroke="var(--ash)" />
          <text x={40} y={y(v) + 4} textAnchor="end">
            {v.toPrecision(2)}
          </text>
        </g>
      ))}
      <path
        d={[[0, 0], ...rows.map((r) => [units.to(r[0], 'm'), r[2]])]
          .map(([a, b], n) => `${n ? 'L' : 'M'}${x(a).toFixed(1)} ${y(b).toFixed(1)}`)
          .join('')}
        fill="none"
        stroke="var(--verdigris)"
        strokeWidth={1.8}
      />
      {rows.map((r, n) => (
        <circle
          key={n}
          cx={x(units.to(r[0], 'm'))}
          cy={y(r[1])}
          r={2 + 4 * Math.sqrt(r[3] / pairs)}
          fill="var(--ochre)"
          fillOpacity={0.7}
        />
      ))}
      {x.ticks(4).map((v) => (
        <text key={v} x={x(v)} y={H - 6} textAnchor="middle">
          {v}
        </text>
      ))}
      <text x={W - 8} y={H - 6} textAnchor="end">
        {units.of('m')}
      </text>
    </svg>
  );
}
