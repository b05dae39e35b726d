import type { QuantityMap, ResultTable } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { pathText } from '../../picture/path';
import { useProject } from '../../state/project';
import css from './Sheet.module.css';

const [W, H, LEFT, TOP, FOOT] = [226, 110, 34, 8, 30];

/** What part of the variance classes tell, by how many they are: where the curve bends one more tells little. */
export function GainCurve({ object }: { object: QuantityMap }) {
  const objects = useProject((s) => s.objects);
  const table = objects.find(
    (o): o is ResultTable =>
      o.kind === 'result table' && o.madeBy.run === object.madeBy.run && o.madeBy.output === 'gains',
  );
  const rows = (table?.rows ?? []).map((r): [number, number] => [Number(r[0]), Number(r[1])]);
  if (object.madeBy.output !== 'classes' || rows.length < 3) return null;
  const x = scaleLinear([1, rows[rows.length - 1][0]], [LEFT + 6, W - 8]);
  const y = scaleLinear([0, 100], [H - FOOT, TOP]);
  const chosen = Number(object.madeBy.params.classes);
  const at = rows.find(([n]) => n === chosen);
  return (
    <>
      <h3>Gain of more classes</h3>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width={W}
        height={H}
        role="img"
        aria-label="Variance told, by number of classes"
        className={css.small}
      >
        {[0, 50, 100].map((v) => (
          <g key={v}>
            <line x1={LEFT} x2={W} y1={y(v)} y2={y(v)} stroke="var(--ash)" strokeWidth={0.6} />
            <text x={LEFT - 4} y={y(v) + 4} textAnchor="end">
              {v}
            </text>
          </g>
        ))}
        <path d={pathText(rows.map(([n, v]) => [x(n), y(v)]))} fill="none" stroke="var(--ink)" strokeWidth={1.3} />
        {rows.map(([n, v]) => (
          <circle
            key={n}
            cx={x(n)}
            cy={y(v)}
            r={n === chosen ? 4 : 2}
            fill={n === chosen ? 'var(--ochre)' : 'var(--ink)'}
          />
        ))}
        {x.ticks(6).map((n) => (
          <text key={n} x={x(n)} y={H - FOOT + 13} textAnchor="middle">
            {n}
          </text>
        ))}
        <text x={(LEFT + W) / 2} y={H - 3} textAnchor="middle">
          classes; told of the variance (%)
        </text>
      </svg>
      {at && (
        <p className={css.note}>
          {chosen} classes tell {at[1].toFixed(0)} % of the variance of the waveforms.
        </p>
      )}
    </>
  );
}
