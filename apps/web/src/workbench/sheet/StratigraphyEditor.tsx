import { type Stratigraphy, withUnits } from '@lithagon/core';
import { edit } from '../../state/history';
import { Button } from '../../ui/Button';
import css from './Sheet.module.css';

const PATTERNS = ['none', 'sand', 'shale', 'silt', 'marl', 'limestone', 'basement'] as const;

/** The order of the rocks, youngest first, with how each is called and drawn: edited here for all wells. */
export function StratigraphyEditor({ column }: { column: Stratigraphy }) {
  const keep = (what: string, units: Stratigraphy['units']) => void edit(what, [column], [withUnits(column, units)]);
  const set = (n: number, change: Partial<Stratigraphy['units'][number]>, what: string) =>
    keep(
      what,
      column.units.map((u, k) => (k === n ? { ...u, ...change } : u)),
    );
  const move = (n: number, by: number) => {
    const next = [...column.units];
    [next[n], next[n + by]] = [next[n + by], next[n]];
    keep(`Move ${column.units[n].top} in the column`, next);
  };
  return (
    <>
      <h3>Units, youngest first</h3>
      {column.units.map((u, n) => (
        <div key={u.top} className={css.unit}>
          <input
            type="color"
            aria-label={`Colour of ${u.zone}`}
            value={u.color}
            onChange={(e) => set(n, { color: e.target.value }, `Recolour ${u.zone}`)}
          />
          <input
            key={u.zone}
            className={css.typed}
            aria-label={`Zone below ${u.top}`}
            defaultValue={u.zone}
            onBlur={(e) =>
              e.target.value.trim() &&
              e.target.value !== u.zone &&
              set(n, { zone: e.target.value.trim().slice(0, 200) }, `Rename zone ${u.zone}`)
            }
          />
          <select
            aria-label={`Pattern of ${u.zone}`}
            value={u.pattern}
            onChange={(e) => set(n, { pattern: e.target.value as never }, `Pattern of ${u.zone}`)}
          >
            {PATTERNS.map((p) => (
              <option key={p} value={p}>
                {p === 'none' ? 'plain' : p}
              </option>
            ))}
          </select>
          <span className={css.unitTop}>from {u.top}</span>
          <label>
            <input
              type="checkbox"
              checked={u.unconformity}
              onChange={(e) => set(n, { unconformity: e.target.checked }, `Unconformity at ${u.top}`)}
            />
            unconformity
          </label>
          <Button small disabled={n === 0} aria-label={`Move ${u.top} up`} onClick={() => move(n, -1)}>
            ↑
          </Button>
          <Button
            small
            disabled={n === column.units.length - 1}
            aria-label={`Move ${u.top} down`}
            onClick={() => move(n, 1)}
          >
            ↓
          </Button>
          <Button
            small
            aria-label={`Take ${u.top} out`}
            onClick={() =>
              keep(
                `Take ${u.top} out of the column`,
                column.units.filter((_, k) => k !== n),
              )
            }
          >
            Remove
          </Button>
        </div>
      ))}
    </>
  );
}
