import { type Blend, kindNamed, type QuantityMap, type Volume } from '@lithagon/core';
import { Eye, EyeOff, X } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type ReactNode, useState } from 'react';
import { useHere } from '../../state/here';
import { select, useSelection } from '../../state/selection';
import { type Contents, changeContents, titleOf } from '../../state/views';
import { IconButton } from '../../ui/Button';
import { counted } from '../../ui/format';
import { Sortable, SortableItem } from '../../ui/Sortable';
import { keptOf, movedRow, type Row, withoutRow, withRow } from './contents';
import css from './LayerList.module.css';

/** A kind with more rows than this is folded. */
const MANY = 8;

/**
 * What a view shows, what is on top first: each with an eye, its strength, and a place in the order. Objects are dragged
 * here from the tray, or opened by the tray's eye.
 */
export function LayerList(props: {
  rows: Row[];
  contents: Contents;
  ground: ReactNode;
  /** Maps that surfaces may be coloured by, where the view colours them. */
  paints?: (QuantityMap | Blend | Volume)[];
}) {
  const { rows, contents, ground, paints } = props;
  const here = useHere();
  const change = (part: Partial<Contents>) => changeContents(here, part);
  const [open, setOpen] = useState<Set<string>>(new Set());
  const counts = new Map<string, number>();
  for (const { object } of rows) counts.set(object.kind, (counts.get(object.kind) ?? 0) + 1);
  const folded = (kind: string) => (counts.get(kind) ?? 0) > MANY && !open.has(kind);
  const listed = rows.filter((r) => !folded(r.object.kind));
  const groups = [...counts.keys()].filter((kind) => (counts.get(kind) ?? 0) > MANY);
  return (
    <fieldset className={css.list} aria-label={`Layers of the ${titleOf(here).toLowerCase()}`}>
      {ground}
      {rows.length === 0 && <p className={css.none}>Nothing lies over it. Drag objects here from the tray.</p>}
      <Sortable
        ids={listed.map((r) => r.id)}
        onMove={(from, to) =>
          change(
            movedRow(
              rows,
              rows.findIndex((r) => r.id === listed[from].id),
              rows.findIndex((r) => r.id === listed[to].id),
            ),
          )
        }
      >
        {listed.map((row) => (
          <SortableItem key={row.id} id={row.id} label={row.object.name} className={css.row}>
            {(handle) => <LayerRow row={row} handle={handle} {...{ rows, contents, change, paints }} />}
          </SortableItem>
        ))}
      </Sortable>
      {groups.map((kind) => {
        const members = rows.filter((r) => r.object.kind === kind);
        const seen = members.some((r) => r.eye);
        const words = `${counted(members.length, kindNamed(kind).title.toLowerCase(), kindNamed(kind).plural.toLowerCase())}`;
        return (
          <div key={kind} className={css.row}>
            <IconButton
              label={`${seen ? 'Hide' : 'Show'} all ${kindNamed(kind).plural.toLowerCase()}`}
              onClick={() =>
                change({
                  shown: keptOf(rows).map((kept, n) => (rows[n].object.kind === kind ? { ...kept, eye: !seen } : kept)),
                })
              }
            >
              {seen ? <Eye size={14} /> : <EyeOff size={14} />}
            </IconButton>
            <button
              type="button"
              className={css.name}
              aria-expanded={!folded(kind)}
              onClick={() =>
                setOpen((s) => {
                  const next = new Set(s);
                  if (!next.delete(kind)) next.add(kind);
                  return next;
                })
              }
            >
              {words}
            </button>
          </div>
        );
      })}
      <label className={css.follows}>
        <input
          type="checkbox"
          checked={contents.follows}
          onChange={(e) => change(e.target.checked ? { follows: true } : { follows: false, shown: keptOf(rows) })}
        />
        Take in what is made or loaded
      </label>
    </fieldset>
  );
}

function LayerRow(props: {
  row: Row;
  rows: Row[];
  contents: Contents;
  handle: ReactNode;
  paints?: (QuantityMap | Blend | Volume)[];
  change(part: Partial<Contents>): void;
}) {
  const { row, rows, contents, handle, change, paints } = props;
  const selected = useSelection((s) => s.object === row.id);
  const { name } = row.object;
  return (
    <>
      <IconButton
        label={`${row.eye ? 'Hide' : 'Show'} ${name}`}
        onClick={() => change(withRow(rows, contents, row.id, { eye: !row.eye }))}
      >
        {row.eye ? <Eye size={14} /> : <EyeOff size={14} />}
      </IconButton>
      <Popover.Root>
        <Popover.Trigger
          className={css.swatch}
          aria-label={`Strength of ${name}, ${Math.round(100 * row.opacity)} %`}
          title={`Strength: ${Math.round(100 * row.opacity)} %`}
        >
          <i style={{ background: row.color, opacity: 0.25 + 0.75 * row.opacity }} />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content className={css.strength} align="start" sideOffset={3}>
            <label>
              Strength of {name}
              <input
                type="range"
                min={0.1}
                max={1}
                step={0.05}
                value={row.opacity}
                onChange={(e) => change(withRow(rows, contents, row.id, { opacity: Number(e.target.value) }))}
              />
            </label>
            {paints && row.object.kind === 'horizon' && (
              <label>
                Coloured by
                <select
                  value={row.paint ?? ''}
                  onChange={(e) => change(withRow(rows, contents, row.id, { paint: e.target.value || undefined }))}
                >
                  <option value="">its own depth</option>
                  {paints.map((m) => (
                    <option key={m.id} value={m.id}>
                      {m.name}
                    </option>
                  ))}
                </select>
              </label>
            )}
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      <button
        type="button"
        className={`${css.name} ${row.eye && !row.why ? '' : css.faint}`}
        aria-pressed={selected}
        title={row.why ? `${name} ${row.why}` : name}
        onClick={() => select(row.id)}
      >
        {name}
      </button>
      <IconButton label={`Take ${name} out of the list`} onClick={() => change(withoutRow(contents, row.id))}>
        <X size={13} />
      </IconButton>
      {handle}
    </>
  );
}
