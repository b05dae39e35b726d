import type { ResultTable } from '@lithagon/core';
import { Button } from '../ui/Button';
import { formatValue } from '../views/common/look';
import css from './Sheet.module.css';

/** Large numbers in thousands of thousands, so that a volume can be read at a glance. */
function readable(value: number | string | null): string {
  if (value === null) return 'none';
  if (typeof value === 'string') return value;
  const size = Math.abs(value);
  if (size >= 1e9) return `${formatValue(value / 1e9)} × 10⁹`;
  if (size >= 1e6) return `${formatValue(value / 1e6)} × 10⁶`;
  return formatValue(value);
}

const quoted = (cell: unknown) =>
  /[",\n]/.test(String(cell)) ? `"${String(cell).replaceAll('"', '""')}"` : String(cell ?? '');

/** A table as CSV: column names with units, full precision. */
function csvOf(table: ResultTable): string {
  const head = table.columns.map((c) => (c.unit ? `${c.name} (${c.unit})` : c.name));
  return [head, ...table.rows].map((row) => row.map(quoted).join(',')).join('\n');
}

/** A result table, with a way to take it out as CSV. */
export function ResultRows({ table }: { table: ResultTable }) {
  const save = () => {
    const url = URL.createObjectURL(new Blob([`${csvOf(table)}\n`], { type: 'text/csv' }));
    const link = document.createElement('a');
    link.href = url;
    link.download = `${table.name}.csv`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(url), 10_000);
  };
  return (
    <>
      <div className={css.results}>
        <table>
          <thead>
            <tr>
              {table.columns.map((c) => (
                <th key={c.name}>
                  {c.name} {c.unit && <small>{c.unit}</small>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((row, n) => (
              <tr key={n}>
                {row.map((cell, c) => (
                  <td key={c} className={typeof cell === 'number' ? 'num' : undefined}>
                    {readable(cell)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className={css.go}>
        <Button small onClick={save}>
          Save as CSV
        </Button>
      </div>
    </>
  );
}
