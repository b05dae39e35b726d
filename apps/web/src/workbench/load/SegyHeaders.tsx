import type { Declarations, SegyReport } from '@lithagon/core';
import { Button } from '../../ui/Button';
import css from './LoadSheet.module.css';

const KEYS_3D = ['inline', 'crossline', 'x', 'y'] as const;
const KEYS_2D = ['cdp', 'x', 'y', 'shotpoint', 'line'] as const;
const LABELS: Record<string, string> = {
  inline: 'Inline',
  crossline: 'Crossline',
  x: 'X',
  y: 'Y',
  cdp: 'CDP',
  shotpoint: 'Shotpoint',
  line: 'Line number',
};

/** Where numbers and coordinates stand in trace headers: what was found, with its reasons, and what else it may be. */
export function SegyHeaders(props: { segy: SegyReport; declare: Declarations; onDeclare(said: Declarations): void }) {
  const { segy, declare, onDeclare } = props;
  const flat = Boolean(segy.linePositions);
  const keys: readonly string[] = flat ? KEYS_2D : KEYS_3D;
  const ranked = ((flat ? segy.linePositions : segy.positions) ?? []) as unknown as (Record<string, number> & {
    why: string;
  })[];
  const used = (key: string) => Number(declare[`byte.${key}`] ?? ranked[0]?.[key] ?? 0);
  const chosen = (p: Record<string, number>) => keys.every((key) => used(key) === p[key]);
  return (
    <>
      <p className={css.note}>
        {flat
          ? 'Bytes at which CDP numbers rise evenly and coordinates keep an even distance, the most likely first.'
          : 'Bytes at which numbers make a full grid and coordinates follow it, the most likely first.'}{' '}
        The score is 1 where everything agrees.
      </p>
      <table className={css.table}>
        <thead>
          <tr>
            {keys.map((key) => (
              <th key={key}>{LABELS[key]}</th>
            ))}
            <th>Score</th>
            <th>Because</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {ranked.map((p) => (
            <tr key={keys.map((key) => p[key]).join(' ')} className={chosen(p) ? css.used : ''}>
              {keys.map((key) => (
                <td key={key} className="num">
                  {p[key] || '–'}
                </td>
              ))}
              <td className="num">{p.score.toFixed(2)}</td>
              <td>{p.why}</td>
              <td>
                {chosen(p) ? (
                  'used'
                ) : (
                  <Button
                    small
                    onClick={() => onDeclare(Object.fromEntries(keys.map((key) => [`byte.${key}`, String(p[key])])))}
                  >
                    Use
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className={css.bytes}>
        {keys.map((key) => (
          <label key={key}>
            {LABELS[key]} byte
            <input
              type="number"
              min={flat ? 0 : 1}
              max={237}
              value={used(key) || ''}
              onChange={(e) => onDeclare({ [`byte.${key}`]: e.target.value || String(ranked[0]?.[key] ?? 0) })}
            />
          </label>
        ))}
      </div>
      {!flat && (
        <p className={css.note}>
          <button type="button" className={css.all} onClick={() => onDeclare({ as: 'lines' })}>
            Take it for 2D lines
          </button>
        </p>
      )}
      {flat && (
        <p className={css.note}>
          <button type="button" className={css.all} onClick={() => onDeclare({ as: 'volume' })}>
            Take it for a 3D volume
          </button>
        </p>
      )}
    </>
  );
}
