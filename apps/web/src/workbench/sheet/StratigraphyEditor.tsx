import { type Stratigraphy, topsBeside, withTop, withUnits } from '@lithagon/core';
import { ArrowDown, ArrowUp, Waves, X } from 'lucide-react';
import { useMemo } from 'react';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { Button, IconButton } from '../../ui/Button';
import { Sortable, SortableItem } from '../../ui/Sortable';
import { renameTops } from '../../views/logs/tops';
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
  const move = (from: number, to: number) => {
    const next = [...column.units];
    next.splice(to, 0, ...next.splice(from, 1));
    keep(`Move ${column.units[from].top} in the column`, next);
  };
  return (
    <>
      <h3>Units, youngest first</h3>
      <Sortable ids={column.units.map((u) => u.top)} onMove={move}>
        {column.units.map((u, n) => (
          <SortableItem key={u.top} id={u.top} label={u.top} className={css.unit}>
            {(handle) => (
              <>
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
                <span className={css.unitTop}>
                  {handle} from {u.top}
                </span>
                <span className={css.unitMoves}>
                  <IconButton
                    label={`Unconformity at ${u.top}`}
                    aria-pressed={u.unconformity}
                    onClick={() => set(n, { unconformity: !u.unconformity }, `Unconformity at ${u.top}`)}
                  >
                    <Waves size={13} />
                  </IconButton>
                  <IconButton label={`Move ${u.top} up`} disabled={n === 0} onClick={() => move(n, n - 1)}>
                    <ArrowUp size={13} />
                  </IconButton>
                  <IconButton
                    label={`Move ${u.top} down`}
                    disabled={n === column.units.length - 1}
                    onClick={() => move(n, n + 1)}
                  >
                    <ArrowDown size={13} />
                  </IconButton>
                  <IconButton
                    label={`Take ${u.top} out`}
                    onClick={() =>
                      keep(
                        `Take ${u.top} out of the column`,
                        column.units.filter((_, k) => k !== n),
                      )
                    }
                  >
                    <X size={13} />
                  </IconButton>
                </span>
              </>
            )}
          </SortableItem>
        ))}
      </Sortable>
      <TopsBeside column={column} />
    </>
  );
}

/** Tops of the wells that the column does not hold: taken in, or found to be another spelling of one that it does. */
function TopsBeside({ column }: { column: Stratigraphy }) {
  const objects = useProject((s) => s.objects);
  const beside = useMemo(() => topsBeside(objects, column), [objects, column]);
  if (beside.length === 0) return null;
  return (
    <>
      <h3>Tops that are not in it</h3>
      {beside.map(({ name, wells, like }) => (
        <div key={name} className={css.beside}>
          <span>
            <b>{name}</b> in {wells.length > 3 ? `${wells.length} wells` : wells.join(', ')}
          </span>
          {like && (
            <Button small onClick={() => void renameTops(name, like)} title={`Rename it in ${wells.join(', ')}`}>
              It is {like}
            </Button>
          )}
          <Button
            small
            onClick={() => void edit(`Take ${name} into the column`, [column], [withTop(objects, column, name)])}
          >
            Take in
          </Button>
        </div>
      ))}
    </>
  );
}
