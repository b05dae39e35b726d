import type { Declarations, NameMatch } from '@lithagon/core';
import { Select } from '../../ui/Field';
import css from './LoadSheet.module.css';

/** Names of wells that nearly agree with those of the project: a person says which are the same. */
export function NameTable(props: { names: NameMatch[]; declare: Declarations; onDeclare(said: Declarations): void }) {
  const { names, declare, onDeclare } = props;
  const open = names.filter(({ name, suggested }) => suggested && !declare[`well.${name}`]);
  return (
    <section className={css.questions} aria-label="Names that almost agree">
      <p className={css.hint}>These names are not in the project, but nearly. Nothing is merged unless you say so.</p>
      {open.length > 1 && (
        <button
          type="button"
          className={css.all}
          onClick={() => onDeclare(Object.fromEntries(open.map((n) => [`well.${n.name}`, n.suggested ?? ''])))}
        >
          All {open.length} as suggested
        </button>
      )}
      {names.map(({ name, suggested, others }) => {
        const value = declare[`well.${name}`] ?? '';
        return (
          <div key={name} className={css.question}>
            <b>{name}</b>
            <Select
              label={`Well that ${name} means`}
              value={value}
              options={[
                { value: '', label: 'a well of its own' },
                ...others.map((other) => ({ value: other, label: other })),
              ]}
              onChange={(other) => onDeclare({ [`well.${name}`]: other })}
            />
            {suggested && value === '' && (
              <button type="button" className={css.all} onClick={() => onDeclare({ [`well.${name}`]: suggested })}>
                It is {suggested}
              </button>
            )}
          </div>
        );
      })}
    </section>
  );
}
