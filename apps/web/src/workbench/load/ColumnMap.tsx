import type { Declarations, TableReport } from '@lithagon/core';
import { Select } from '../../ui/Field';
import css from './LoadSheet.module.css';

const UNITS: Record<string, string[]> = {
  m: ['m', 'ft', 'us-ft', 'km'],
  ms: ['ms', 's', 'us'],
  deg: ['deg', 'rad'],
  Pa: ['Pa', 'kPa', 'MPa', 'bar', 'psi'],
  'kg/m3': ['kg/m3', 'g/cm3', 'lb/ft3'],
  '1': ['1', '%'],
  mD: ['mD', 'D'],
};

/** What a table was taken for, column by column, to be corrected over a look at its first rows. */
export function ColumnMap(props: { table: TableReport; declare: Declarations; onDeclare(said: Declarations): void }) {
  const { table, declare, onDeclare } = props;
  const said = Object.keys(declare).some((key) => /^(kind|column\.|unit\.)/.test(key));
  /** Give a column to a key, and take the key from the column that had it. */
  const give = (column: string, key: string) => {
    const before = table.columns.find((c) => c.column === column)?.key;
    onDeclare({ ...(before ? { [`column.${before}`]: '' } : {}), ...(key ? { [`column.${key}`]: column } : {}) });
  };
  return (
    <section className={css.mapping} aria-label="Columns">
      <div className={css.question}>
        <span>Table of</span>
        <Select
          label="Kind of table"
          value={table.kind}
          options={[
            ...(table.kind ? [] : [{ value: '', label: 'choose …' }]),
            ...table.kinds.map((k) => ({ value: k.kind, label: k.title })),
          ]}
          onChange={(kind) => onDeclare({ kind })}
        />
        {said && <span className={css.quiet}>Kept for the next file with these columns.</span>}
      </div>
      <div className={css.scroll}>
        <table className={css.table}>
          <thead>
            <tr>
              {table.columns.map((c) => (
                <th key={c.column}>{c.column}</th>
              ))}
            </tr>
            <tr>
              {table.columns.map((c) => {
                const key = table.keys.find((k) => k.key === c.key);
                const units = key?.unit ? (UNITS[key.unit] ?? [key.unit]) : [];
                return (
                  <td key={c.column}>
                    <Select
                      label={`What ${c.column} is`}
                      value={c.key ?? ''}
                      options={[
                        { value: '', label: '–' },
                        ...table.keys.map((k) => ({
                          value: k.key,
                          label: k.needed ? k.label : `${k.label} (may lack)`,
                        })),
                      ]}
                      onChange={(value) => give(c.column, value)}
                    />
                    {key && units.length > 0 && (
                      <Select
                        label={`Unit of ${c.column}`}
                        value={declare[`unit.${key.key}`] ?? c.unit ?? ''}
                        options={[
                          ...(c.unit || declare[`unit.${key.key}`]
                            ? []
                            : [{ value: '', label: `${key.unit}, assumed` }]),
                          ...[...new Set([...(c.unit ? [c.unit] : []), ...units])].map((u) => ({ value: u, label: u })),
                        ]}
                        onChange={(unit) => onDeclare({ [`unit.${key.key}`]: unit })}
                      />
                    )}
                  </td>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {[0, 1, 2, 3].map((row) => (
              <tr key={row}>
                {table.columns.map((c) => (
                  <td key={c.column} className={c.key ? '' : css.quiet}>
                    {c.cells[row] ?? ''}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
