import type { Declarations, SegyReport } from '@lithagon/core';
import { formatValue } from '../../views/common/look';
import css from './LoadSheet.module.css';

const FIELDS = [
  { key: 'inlines', label: 'Inlines' },
  { key: 'crosslines', label: 'Crosslines' },
  { key: 'window', label: 'Times or depths' },
] as const;

/** A part of the volume instead of all of it, and 16 bits instead of 32. */
export function SegyRange(props: { segy: SegyReport; declare: Declarations; onDeclare(said: Declarations): void }) {
  const { segy, declare, onDeclare } = props;
  const { whole, compact } = segy;
  if (!whole) return null;
  return (
    <section className={css.range} aria-label="How much of it">
      <h4>How much of it</h4>
      <div className={css.bytes}>
        {FIELDS.map(({ key, label }) => (
          <label key={key}>
            {label}
            <input
              className={css.wide}
              placeholder={`${whole[key][0]}-${whole[key][1]}`}
              value={declare[key] ?? ''}
              onChange={(e) => onDeclare({ [key]: e.target.value })}
            />
          </label>
        ))}
      </div>
      {compact && (
        <label className={css.check}>
          <input
            type="checkbox"
            checked={declare.storage === 'compact'}
            onChange={(e) => onDeclare({ storage: e.target.checked ? 'compact' : '' })}
          />
          Keep it in 16 bits: half the space, samples off by at most about {formatValue(compact.error)}, which is{' '}
          {((100 * compact.error) / (compact.rms || 1)).toPrecision(2)} % of their rms
        </label>
      )}
    </section>
  );
}
