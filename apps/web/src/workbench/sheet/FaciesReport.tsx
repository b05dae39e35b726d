import type { ResultTable, Validation } from '@lithagon/core';
import { colorMap } from '../../color/maps';
import css from './Sheet.module.css';

type Report = Validation & { classes: string[]; curves: string[] };

const percent = (v: number) => `${(100 * v).toFixed(0)}\u202f%`;

/** Whether a result table is the report of a facies prediction. */
export const isFaciesReport = (table: ResultTable): boolean => table.madeBy.step === 'wells.facies';

/** How well facies are known in wells that were not learned from: confusion, importance of the curves, reliability. */
export function FaciesReport({ table }: { table: ResultTable }) {
  const report = table.records?.[0] as unknown as Report | undefined;
  if (!report) return null;
  const { classes, curves, confusion, reliability } = report;
  const rgb = colorMap('lichen');
  // room above for the greatest circle
  const [S, TOP, P] = [150, 10, 18];
  const x = (said: number) => 40 + S * said;
  const y = (right: number) => TOP + S * (1 - right);
  return (
    <div className={css.report}>
      <p>
        <b>{percent(report.accuracy)}</b> right in wells left out, against {percent(report.majority)} by always guessing
        the commonest. {report.byWell.map((w) => `${w.well} ${percent(w.accuracy)}`).join(', ')}.
      </p>
      <h3>Described (rows) taken for (columns), %</h3>
      <table className={css.confusion}>
        <thead>
          <tr>
            <th />
            {classes.map((c) => (
              <th key={c} title={c}>
                {c}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {confusion.map((row, r) => {
            const all = row.reduce((a, b) => a + b, 0);
            return (
              <tr key={classes[r]}>
                <th title={classes[r]}>{classes[r]}</th>
                {row.map((n, c) => {
                  const f = all > 0 ? n / all : 0;
                  const k = 3 * Math.round(255 * f);
                  return (
                    <td
                      key={classes[c]}
                      style={{
                        background: `rgb(${rgb[k]},${rgb[k + 1]},${rgb[k + 2]})`,
                        color: f > 0.55 ? '#fffdf7' : '#22262a',
                      }}
                      title={`${n} samples`}
                    >
                      {n === 0 ? '' : (100 * f).toFixed(0)}
                    </td>
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </table>
      <h3>Loss when a curve is shuffled, points of accuracy</h3>
      {curves.map((name, n) => (
        <div key={name} className={css.importance}>
          <span>{name}</span>
          <i style={{ width: `${Math.max(1, Math.min(76, 150 * report.importance[n]))}px` }} />
          <span className="num">{(100 * report.importance[n]).toFixed(1)}</span>
        </div>
      ))}
      <h3>Reliability of the probabilities</h3>
      <svg
        viewBox={`0 0 ${S + 60} ${S + TOP + P}`}
        width={S + 60}
        height={S + TOP + P}
        role="img"
        aria-label="Probability said against part that was right"
        className={css.small}
      >
        <rect x={x(0)} y={y(1)} width={S} height={S} fill="none" stroke="var(--ash)" />
        <line x1={x(0)} y1={y(0)} x2={x(1)} y2={y(1)} stroke="var(--slate)" strokeDasharray="3 3" />
        {reliability.map((t) => (
          <circle
            key={t.said}
            cx={x(t.said)}
            cy={y(t.right)}
            r={2 + Math.min(7, Math.sqrt(t.samples) / 5)}
            fill="var(--verdigris)"
            fillOpacity={0.7}
          >
            <title>{`said ${percent(t.said)}, right ${percent(t.right)}, ${t.samples} samples`}</title>
          </circle>
        ))}
        {[0, 0.5, 1].map((v) => (
          <g key={v} className="num">
            <text x={x(0) - 4} y={y(v) + 4} textAnchor="end">
              {v}
            </text>
            <text x={x(v)} y={y(0) + 12} textAnchor="middle">
              {v}
            </text>
          </g>
        ))}
        <text x={x(0) - 4} y={y(0.75) + 4} textAnchor="end">
          right
        </text>
        <text x={x(0.75)} y={y(0) + 12} textAnchor="middle">
          said
        </text>
      </svg>
      <p className={css.note}>
        On average {(100 * report.calibrationError).toFixed(1)} points off, after tempering by{' '}
        {report.temper.toFixed(2)}.
      </p>
    </div>
  );
}
