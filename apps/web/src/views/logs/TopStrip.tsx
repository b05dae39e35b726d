import type { Top } from '@lithagon/core';
import { useEffect, useState } from 'react';
import { useUnits } from '../../state/units';
import { Button } from '../../ui/Button';
import css from './Logs.module.css';
import { deleteTop, renameTops, setTop } from './tops';

/** The chosen top of a well: its name, depth, confidence, what a cut misses; changed here, or deleted. */
export function TopStrip(props: { well: string; top: Top; onDone(): void }) {
  const { well, top, onDone } = props;
  const units = useUnits();
  const [name, setName] = useState(top.name);
  useEffect(() => setName(top.name), [top.name]);
  const change = (part: Partial<Top>) => void setTop(well, { ...top, ...part }, top);
  return (
    <fieldset className={css.strip} aria-label={`${top.name} in ${well}`}>
      <b>{well}</b>
      <label>
        Name
        <input
          value={name}
          aria-label="Name of the top"
          onChange={(e) => setName(e.target.value)}
          onBlur={() => void renameTops(top.name, name)}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      </label>
      <span className="num">
        {units.text(top.md, 'm MD')}
        {top.how ? ` · ${top.how}` : ''}
      </span>
      <label>
        Sure
        <select
          value={top.confidence === null ? '' : String(Math.round(top.confidence * 4) / 4)}
          onChange={(e) => change({ confidence: e.target.value === '' ? null : Number(e.target.value) })}
        >
          <option value="">not said</option>
          {[0, 0.25, 0.5, 0.75, 1].map((v) => (
            <option key={v} value={v}>
              {100 * v} %
            </option>
          ))}
        </select>
      </label>
      <label>
        <input
          type="checkbox"
          checked={top.kind === 'fault cut'}
          onChange={(e) => change({ kind: e.target.checked ? 'fault cut' : 'top' })}
        />
        fault cut
      </label>
      {top.kind === 'fault cut' && (
        <label title="Positive: section is missing. Negative: it is repeated.">
          misses ({units.of('m')})
          <input
            className={css.short}
            inputMode="decimal"
            aria-label="Missing section"
            defaultValue={top.missingM === null ? '' : units.to(top.missingM, 'm').toFixed(1)}
            onBlur={(e) => {
              const typed = Number(e.target.value.replace('−', '-'));
              change({ missingM: e.target.value.trim() === '' || Number.isNaN(typed) ? null : units.from(typed, 'm') });
            }}
          />
        </label>
      )}
      <Button
        small
        onClick={() => {
          void deleteTop(well, top);
          onDone();
        }}
      >
        Delete
      </Button>
      <Button small onClick={onDone}>
        Done
      </Button>
    </fieldset>
  );
}
