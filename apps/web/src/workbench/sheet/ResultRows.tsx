import type { ResultTable } from '@lithagon/core';
import { useUnits } from '../../state/units';
import { formatValue } from '../../views/common/look';
import css from './Sheet.module.css';

/** Large numbers in thousands of thousands, so that a volume can be read at a glance. */
function readable(value: number | string | null): string {
  if (value === null) return '–';
  if (typeof value === 'string') return value;
  const size = Math.abs(value);
  if (size >= 1e9) return `${formatValue(value / 1e9)} × 10⁹`;
  if (size >= 1e6) return `${formatValue(value / 1e6)} × 10⁶`;
  return formatValue(value);
}

/** A result table. */
export function ResultRows({ table }: { table: ResultTable }) {
  const units = useUnits();
  return (
    <div className={css.results}>
      <table>
        <thead>
          <tr>
            {table.columns.map((c) => (
              <th key={c.name}>
                {c.name} {c.unit && <small>{units.of(c.unit)}</small>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row, n) => (
            <tr key={n}>
              {row.map((cell, c) => (
                <td key={c} className={typeof cell === 'number' ? 'num' : undefined}>
                  {readable(typeof cell === 'number' ? units.to(cell, table.columns[c]?.unit ?? '') : cell)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
