import { type EarthObject, LAW_FORMS, type Law, type LawForm, lawInWords } from '@lithagon/core';
import { useState } from 'react';
import { useProject } from '../state/project';
import { useUnits } from '../state/units';
import { Field, Select } from '../ui/Field';
import css from './LayersField.module.css';

/** A layer that goes another way than the others. */
interface LayerRow {
  base: string;
  law: LawForm;
  use: 'typed' | 'fitted to wells';
  v0: number;
  k: number;
  vBase: number;
}

const BLANK: Omit<LayerRow, 'base' | 'law'> = { use: 'typed', v0: 2000, k: 0, vBase: 2500 };
const AS_OTHERS = 'as the others';

/** What each number of a law is, in words, with the unit that it is kept in; those that the law has. */
function numbersOf(law: LawForm): { key: 'v0' | 'k' | 'vBase'; label: string; unit: string }[] {
  const v0 = (label: string) => ({ key: 'v0' as const, label, unit: 'm/s' });
  switch (law) {
    case 'constant':
      return [v0('Velocity')];
    case 'v0 + k·z from the datum':
      return [v0('v0, at the datum'), { key: 'k', label: 'k, more with every metre', unit: '1/s' }];
    case 'v0 + k·z from the top':
      return [v0('v0, at the top'), { key: 'k', label: 'k, more with every metre', unit: '1/s' }];
    case 'v0 + k·t from the top':
      return [v0('v0, at the top'), { key: 'k', label: 'k, more with every second of TWT', unit: 'm/s' }];
    case 'from top to base':
      return [v0('At the top'), { key: 'vBase', label: 'At the base', unit: 'm/s' }];
    case 'velocity volume':
      return [];
  }
}

/** Where an object lies in time on the mean: boundaries are listed from the top down. */
function timeOf(o: EarthObject): number {
  if (o.kind === 'horizon') return o.range[0] + o.range[1];
  if (o.kind !== 'picks' || o.points.length === 0) return 0;
  return (2 * o.points.reduce((sum, p) => sum + p[2], 0)) / o.points.length;
}

/** A number typed and kept when it is left or Enter is pressed. */
function Typed(props: { label: string; value: number; unit: string; onChange(value: number): void }) {
  const [text, setText] = useState<string | null>(null);
  const keep = () => {
    const typed = Number(text?.replace(',', '.').replace('−', '-'));
    if (text !== null && text.trim() !== '' && Number.isFinite(typed)) props.onChange(typed);
    setText(null);
  };
  return (
    <input
      aria-label={props.label}
      inputMode="decimal"
      value={text ?? String(Number(props.value.toPrecision(7)))}
      onChange={(e) => setText(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
    />
  );
}

/** Each layer between the chosen boundaries: how its velocity runs, typed or fitted, and what that means in words. */
export function LayersField(props: {
  label: string;
  help?: string;
  error?: string;
  rows: Partial<LayerRow>[];
  /** Boundaries that are chosen, by id. */
  chosen: string[];
  onChange(rows: Partial<LayerRow>[]): void;
}) {
  const { rows, chosen, onChange } = props;
  const objects = useProject((s) => s.objects);
  const units = useUnits();
  const bases = objects
    .filter((o) => chosen.includes(o.id))
    .sort((a, b) => timeOf(a) - timeOf(b))
    .map((o) => o.name);
  const set = (base: string, change: Partial<LayerRow> | null) => {
    const others = rows.filter((r) => r.base !== base);
    if (!change) return onChange(others);
    const row = { ...BLANK, ...rows.find((r) => r.base === base), base, ...change };
    onChange([...others, row]);
  };
  return (
    <Field
      label={props.label}
      help={props.help}
      error={props.error}
      aside={rows.length > 0 ? String(rows.length) : undefined}
    >
      {() => (
        <div className={css.layers}>
          {bases.length === 0 && <p className={css.words}>Choose boundaries first.</p>}
          {bases.map((base) => {
            const row = rows.find((r) => r.base === base);
            const law = row?.law ?? null;
            const numbers = law ? numbersOf(law) : [];
            const whole = law && ({ ...BLANK, ...row, form: law } as Law & LayerRow);
            const typed = whole?.use !== 'fitted to wells';
            return (
              <fieldset key={base} className={css.layer} aria-label={`Layer down to ${base}`}>
                <div className={css.head}>
                  <b>{base}</b>
                  <Select
                    label={`Velocity down to ${base}`}
                    value={law ?? AS_OTHERS}
                    options={[AS_OTHERS, ...LAW_FORMS].map((v) => ({ value: v, label: v }))}
                    onChange={(v) => set(base, v === AS_OTHERS ? null : { law: v as LawForm })}
                  />
                </div>
                {numbers.length > 0 && (
                  <>
                    <Select
                      label={`Numbers down to ${base}`}
                      value={whole?.use ?? 'typed'}
                      options={['typed', 'fitted to wells'].map((v) => ({ value: v, label: v }))}
                      onChange={(v) => set(base, { use: v as LayerRow['use'] })}
                    />
                    <div className={css.numbers} data-unused={!typed}>
                      {numbers.map(({ key, label, unit }) => (
                        <div key={key} className={css.number}>
                          {label}
                          <span>
                            <Typed
                              label={`${label}, down to ${base}`}
                              unit={unit}
                              value={units.to(whole?.[key] ?? BLANK[key], unit)}
                              onChange={(v) => set(base, { [key]: units.from(v, unit) })}
                            />{' '}
                            {units.of(unit)}
                          </span>
                        </div>
                      ))}
                    </div>
                  </>
                )}
                {whole && (
                  <p className={css.words}>
                    {typed || numbers.length === 0
                      ? `${lawInWords({ form: whole.form, v0: law === 'velocity volume' ? 1 : whole.v0, k: whole.k, vBase: whole.vBase }, (v) => units.text(v, 'm/s', 0))}.`
                      : 'Its numbers are fitted to the wells; what is typed stays here.'}
                  </p>
                )}
              </fieldset>
            );
          })}
        </div>
      )}
    </Field>
  );
}
