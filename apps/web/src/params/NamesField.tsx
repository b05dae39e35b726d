import { listed } from '@lithagon/core';
import { useRef } from 'react';
import { Field, Select } from '../ui/Field';
import css from '../workbench/sheet/Sheet.module.css';

interface NamesProps {
  label: string;
  help?: string;
  value: string;
  /** What the chosen wells have. */
  held: string[];
  onChange(value: string): void;
}

/** A parameter that names one top or curve, chosen among those that there are. */
export function NameField({ label, help, value, held, empty, onChange }: NamesProps & { empty: boolean }) {
  const options = held.map((name) => ({ value: name, label: name }));
  if (empty) options.unshift({ value: '', label: 'none' });
  if (!options.some((o) => o.value === value))
    options.push({ value, label: value ? `${value}, which no chosen well has` : 'no chosen well has one' });
  return (
    <Field label={label} help={help}>
      {(id) => <Select id={id} value={value} options={options} onChange={onChange} />}
    </Field>
  );
}

/** A parameter that names several: each is taken or left by a click. */
export function NameListField({ label, help, value, held, onChange }: NamesProps) {
  const chosen = listed(value);
  const all = [...held, ...chosen.filter((name) => !held.includes(name))];
  const toggle = (name: string) =>
    onChange((chosen.includes(name) ? chosen.filter((c) => c !== name) : [...chosen, name]).join(', '));
  return (
    <Field label={label} help={help} aside={`${chosen.length} of ${all.length}`}>
      {() => (
        <fieldset className={css.chips} aria-label={label}>
          {all.map((name) => (
            <button
              key={name}
              type="button"
              aria-pressed={chosen.includes(name)}
              title={held.includes(name) ? undefined : 'No chosen well has it'}
              className={held.includes(name) ? css.chip : `${css.chip} ${css.lacking}`}
              onClick={() => toggle(name)}
            >
              {name}
            </button>
          ))}
        </fieldset>
      )}
    </Field>
  );
}

/** A formula, with the names that may stand in it; a click puts one where the caret is. */
export function FormulaField({ label, help, value, held, onChange }: NamesProps) {
  const typed = useRef<HTMLTextAreaElement>(null);
  const put = (name: string) => {
    const field = typed.current;
    if (!field) return;
    field.setRangeText(name, field.selectionStart, field.selectionEnd, 'end');
    field.focus();
    onChange(field.value);
  };
  return (
    <Field label={label} help={help}>
      {(id) => (
        <>
          <textarea
            id={id}
            ref={typed}
            className={`${css.typed} ${css.formula}`}
            rows={3}
            spellCheck={false}
            value={value}
            onChange={(e) => onChange(e.target.value)}
          />
          <fieldset className={css.chips} aria-label="Curves to put in">
            {held.map((name) => (
              <button key={name} type="button" className={css.chip} onClick={() => put(name)}>
                {name}
              </button>
            ))}
          </fieldset>
        </>
      )}
    </Field>
  );
}
