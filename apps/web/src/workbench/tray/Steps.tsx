import { type AnyStep, allSteps } from '@lithagon/core';
import { useState } from 'react';
import { lacks, prepare } from '../../actions/steps';
import { useProject } from '../../state/project';
import { useSelection } from '../../state/selection';
import css from './Tray.module.css';

/** With fewer steps than this there is nothing to look for. */
const MANY = 8;

/** Steps of a bed in rows of one line, by what they are for; those that cannot be made yet come last and say what they need. */
export function Steps({ stage, empty }: { stage: string; empty: boolean }) {
  const objects = useProject((s) => s.objects);
  const setup = useSelection((s) => s.setup);
  const [text, setText] = useState('');
  const all = allSteps().filter((s) => s.stage === stage);
  if (all.length === 0) return empty ? <p className={css.summary}>No step of this stage is here yet.</p> : null;
  const wanted = text.trim().toLowerCase();
  const found = all.filter((s) => `${s.title} ${s.summary}`.toLowerCase().includes(wanted));
  const purposes = [...new Set(found.map((s) => s.purpose ?? ''))];
  const used = (s: AnyStep) => objects.filter((o) => o.madeBy.step === s.id).length;
  const row = (step: AnyStep, missing: string | null) => (
    <button
      key={step.id}
      type="button"
      className={`${css.step} ${setup?.step === step.id ? css.chosen : ''}`}
      disabled={missing !== null}
      title={missing ? `${step.title} needs ${missing}. ${step.summary}` : step.summary}
      onClick={() => prepare(step)}
    >
      <strong>{step.title}</strong>
      <span className={missing ? css.needs : css.unseen}>{missing ? `Needs ${missing}` : step.summary}</span>
    </button>
  );
  return (
    <section aria-label="Make">
      <h3>Make</h3>
      {all.length > MANY && (
        <input
          className={css.filter}
          type="search"
          aria-label="Find a step"
          placeholder="Find a step"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      )}
      {purposes.map((purpose) => {
        const rows = found
          .filter((s) => (s.purpose ?? '') === purpose)
          .map((step) => ({ step, missing: lacks(step, objects), used: used(step) }))
          // what can be made first, of that what was made before
          .sort((a, b) => Number(a.missing !== null) - Number(b.missing !== null) || b.used - a.used);
        return (
          <div key={purpose}>
            {purposes.length > 1 && <h4>{purpose || 'Other'}</h4>}
            {rows.map(({ step, missing }) => row(step, missing))}
          </div>
        );
      })}
      {found.length === 0 && <p className={css.summary}>No step here is called that.</p>}
    </section>
  );
}
