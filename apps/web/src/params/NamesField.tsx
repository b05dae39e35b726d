import { listed } from '@lithagon/core';
import { lazy, Suspense, useRef } from 'react';
import { Field, Select } from '../ui/Field';
import css from '../workbench/sheet/Sheet.module.css';
import type { FormulaHands } from './FormulaEditor';

// an editor is much to load for those who write no formula
const FormulaEditor = lazy(() => import('./FormulaEditor'));

interface NamesProps {
  label: string;
  help?: string;
  error?: string;
  value: string;
  /** What the chosen wells have. */
  held: string[];
  onChange(value: string): void;
}

/** A parameter that names one top or curve, chosen among those that there are. */
export function NameField({ label, help, error, value, held, empty, onChange }: NamesProps & { empty: boolean }) {
  const options = held.map((name) => ({ value: name, label: name }));
  if (empty) options.unshift({ value: '', label: 'none' });
  if (!options.some((o) => o.value === value))
    options.push({ value, label: value ? `${value}, which no chosen well has` : 'no chosen well has one' });
  return (
    <Field label={label} help={help} error={error}>
      {(id) => <Select id={id} value={value} options={options} onChange={onChange} />}
    </Field>
  );
}

/** A parameter that names several: each is taken or left by a click. */
export function NameListField({ label, help, error, value, held, onChange }: NamesProps) {
  const chosen = listed(value);
  const all = [...held, ...chosen.filter((name) => !held.includes(name))];
  const toggle = (name: string) =>
    onChange((chosen.includes(name) ? chosen.filter((c) => c !== name) : [...chosen, name]).join(', '));
  return (
    <Field label={label} help={help} error={error} aside={`${chosen.length} of ${all.length}`}>
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
export function FormulaField({
  label,
  help,
  error,
  value,
  units,
  onChange,
}: Omit<NamesProps, 'held'> & { units: ReadonlyMap<string, string> }) {
  const hands = useRef<FormulaHands>(null);
  return (
    <Field label={label} help={help} error={error}>
      {(id) => (
        <>
          <Suspense fallback={<p className={`${css.typed} ${css.formula}`}>{value}</p>}>
            <FormulaEditor id={id} label={label} value={value} units={units} onChange={onChange} hands={hands} />
          </Suspense>
          <fieldset className={css.chips} aria-label="Curves to put in">
            {[...units].map(([name, unit]) => (
              <button
                key={name}
                type="button"
                className={css.chip}
                title={unit ? `in ${unit}` : 'a plain number'}
                onClick={() => hands.current?.put(name)}
              >
                {name}
              </button>
            ))}
          </fieldset>
        </>
      )}
    </Field>
  );
}
