import { Plus, X } from 'lucide-react';
import { useUnits } from '../state/units';
import { IconButton } from '../ui/Button';
import { Field } from '../ui/Field';
import css from '../workbench/sheet/Sheet.module.css';

type Row = Record<string, unknown>;

/** A column of such rows: what it is called, and the unit that its numbers are kept in. */
export interface RowColumn {
  type?: string;
  title?: string;
  unit?: string;
  enum?: string[];
  default?: unknown;
}

/** A parameter that is a list of rows, such as layers with typed constants: a small table to type into. */
export function RowsField(props: {
  label: string;
  help?: string;
  error?: string;
  columns: Record<string, RowColumn>;
  rows: Row[];
  onChange(rows: Row[]): void;
}) {
  const { columns, rows, onChange } = props;
  const units = useUnits();
  const names = Object.keys(columns);
  const titleOf = (name: string) => columns[name].title ?? name;
  const unitOf = (name: string) => columns[name].unit ?? '';
  const isNumber = (name: string) => columns[name].type === 'number' || columns[name].type === 'integer';
  const change = (n: number, name: string, text: string) => {
    const typed = Number(text.replace(',', '.').replace('−', '-'));
    if (isNumber(name) && (text.trim() === '' || Number.isNaN(typed))) return;
    const value = isNumber(name) ? units.from(typed, unitOf(name)) : text;
    onChange(rows.map((row, r) => (r === n ? { ...row, [name]: value } : row)));
  };
  const shown = (name: string, value: unknown) =>
    isNumber(name) ? String(Number(units.to(Number(value ?? 0), unitOf(name)).toPrecision(7))) : String(value ?? '');
  const blank = () =>
    Object.fromEntries(names.map((name) => [name, columns[name].default ?? (isNumber(name) ? 0 : '')]));
  return (
    <Field label={props.label} help={props.help} error={props.error} aside={String(rows.length)}>
      {() => (
        <div className={css.rows}>
          {rows.length > 0 && (
            <div className={css.row}>
              {names.map((name) => (
                <span key={name}>
                  {titleOf(name)}
                  {unitOf(name) && ` (${units.of(unitOf(name))})`}
                </span>
              ))}
            </div>
          )}
          {rows.map((row, n) => (
            <div key={`${n} ${JSON.stringify(row)}`} className={css.row}>
              {names.map((name) => (
                <input
                  key={name}
                  aria-label={`${titleOf(name)}, row ${n + 1} of ${props.label}`}
                  defaultValue={shown(name, row[name])}
                  onBlur={(e) => change(n, name, e.target.value)}
                  onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
                />
              ))}
              <IconButton label={`Remove row ${n + 1}`} onClick={() => onChange(rows.filter((_, r) => r !== n))}>
                <X size={13} />
              </IconButton>
            </div>
          ))}
          <IconButton label={`Add a row to ${props.label}`} onClick={() => onChange([...rows, blank()])}>
            <Plus size={14} />
          </IconButton>
        </div>
      )}
    </Field>
  );
}
