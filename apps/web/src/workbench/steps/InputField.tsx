import type { EarthObject, InputSpec } from '@lithagon/core';
import { fitting } from '../../actions/initial';
import { Field, Select } from '../../ui/Field';
import css from '../sheet/Sheet.module.css';

/** What a step takes in under one role: one object, or any number of those that fit. */
export function InputField(props: {
  spec: InputSpec;
  objects: EarthObject[];
  chosen: string[];
  onChange(ids: string[]): void;
}) {
  const { spec, chosen, onChange } = props;
  const fits = fitting(spec, props.objects);
  if (!spec.many)
    return (
      <Field label={spec.title}>
        {(id) => (
          <Select
            id={id}
            value={chosen[0] ?? ''}
            options={[
              ...(spec.optional ? [{ value: '', label: 'none' }] : []),
              ...fits.map((o) => ({ value: o.id, label: o.name })),
            ]}
            onChange={(v) => onChange(v ? [v] : [])}
          />
        )}
      </Field>
    );
  return (
    <details className={css.many}>
      <summary>
        {spec.title}
        <span>
          {chosen.length} of {fits.length}
        </span>
      </summary>
      {fits.length > 3 && (
        <span className={css.allNone}>
          <button type="button" aria-label={`All of ${spec.title}`} onClick={() => onChange(fits.map((o) => o.id))}>
            All
          </button>
          <button type="button" aria-label={`None of ${spec.title}`} onClick={() => onChange([])}>
            None
          </button>
        </span>
      )}
      {fits.map((o) => (
        <label key={o.id}>
          <input
            type="checkbox"
            checked={chosen.includes(o.id)}
            onChange={(e) => onChange(e.target.checked ? [...chosen, o.id] : chosen.filter((id) => id !== o.id))}
          />
          {o.name}
        </label>
      ))}
    </details>
  );
}
