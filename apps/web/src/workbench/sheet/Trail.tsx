import { type EarthObject, isByHand, shownParams, stepOf } from '@lithagon/core';
import { useProject } from '../../state/project';
import { select } from '../../state/selection';
import { ago, spoken } from '../../ui/dates';
import css from './Sheet.module.css';

/** How an object was made: what it rests on, the step with its parameters, and what rests on it. */
export function Trail({ object }: { object: EarthObject }) {
  const objects = useProject((s) => s.objects);
  const byId = useProject((s) => s.byId);
  const old = useProject((s) => s.old);
  const { madeBy } = object;
  const inputs = Object.entries(madeBy.inputs).map(([role, refs]) => ({
    role: role.split('.').at(-1) ?? role,
    from: refs.map((r) => ({ id: r.split('@')[0], revision: r.split('@')[1] })),
  }));
  const above = objects.filter((o) =>
    Object.values(o.madeBy.inputs)
      .flat()
      .some((r) => r.startsWith(`${object.id}@`)),
  );
  const byHand = isByHand(madeBy);
  const title = madeBy.file
    ? `Loaded from ${madeBy.file}`
    : byHand
      ? 'Given by hand'
      : (stepOf(madeBy.step)?.title ?? madeBy.step);
  return (
    <ul className={css.trail}>
      {inputs
        .filter(({ from }) => from.length > 0)
        .map(({ role, from }) => (
          <li key={role}>
            {role}:{' '}
            {from.map(({ id, revision }, n) => {
              const input = byId.get(id);
              return (
                <span key={id}>
                  {n > 0 && ', '}
                  {input ? (
                    <button type="button" onClick={() => select(id)}>
                      {input.name}
                    </button>
                  ) : (
                    'gone'
                  )}
                  {(input && input.revision !== revision) || old.has(id) ? <em> changed since</em> : ''}
                </span>
              );
            })}
          </li>
        ))}
      <li>
        <b>{title}</b>
        {!madeBy.file && !byHand && ` · version ${madeBy.version}`}
        <br />
        {shownParams(madeBy.step, madeBy.params)
          .map(({ title, value }) => `${title} ${value}`)
          .join(' · ')}
        <br />
        <time dateTime={madeBy.started} title={ago(madeBy.started)}>
          {spoken(madeBy.started)}
        </time>
        {!byHand && `, took ${(madeBy.tookMs / 1000).toFixed(1)} s`}
        <br />
        revision <span className="num">{object.revision.slice(0, 8)}</span>
      </li>
      {above.map((o) => (
        <li key={o.id}>
          rests on it:{' '}
          <button type="button" onClick={() => select(o.id)}>
            {o.name}
          </button>{' '}
          {old.has(o.id) ? 'out of date' : ''}
        </li>
      ))}
    </ul>
  );
}
