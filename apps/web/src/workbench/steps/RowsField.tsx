import { Plus, X } from 'lucide-react';
import { IconButton } from '../../ui/Button';
import { Field } from '../../ui/Field';
import css from '../sheet/Sheet.module.css';

type Row = Record<string, unknown>;

/** A parameter that is a list of rows, such as layers with typed constants: a small table to type into. */
export function RowsField(props: {
  label: string;
  help?: string;
  columns: Record<string, { type?: string }>;
  rows: Row[];
  onChange(rows: Row[]): void;
}) {
  const { columns, rows, onChange } = props;
  const names = Object.keys(columns);
  const isNumber = (name: string) => columns[name].type === 'number' || columns[name].type === 'integer';
  const change = (n: number, name: string, text: string) => {
    const value = isNumber(name) ? Number(text.replace(',', '.')) : text;
    if (isNumber(name) && (text.trim() === '' || Number.isNaN(value))) return;
    onChange(rows.map((row, r) => (r === n ? { ...row, [name]: value } : row)));
  };
  const blank = () => Object.fromEntries(names.map((name) => [name, isNumber(name) ? 0 : '']));
  return (
    <Field label={props.label} help={props.help} aside={String(rows.length)}>
      {() => (
        <div className={css.rows}>
          {rows.length > 0 && (
            <div className={css.row}>
              {names.map((name) => (
                <span key={name}>{name}</span>
              ))}
            </div>
          )}
          {rows.map((row, n) => (
            <div key={`${n} ${JSON.stringify(row)}`} className={css.row}>
              {names.map((name) => (
                <input
                  key={name}
                  aria-label={`${name}, row ${n + 1} of ${props.label}`}
                  defaultValue={String(row[name] ?? '')}
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
