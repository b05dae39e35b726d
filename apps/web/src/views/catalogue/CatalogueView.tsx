import { finder } from '@lithagon/core';
import { useTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import { rename } from '../../actions/rename';
import { showObject } from '../../actions/show';
import { colorOf } from '../../kinds';
import { useProject } from '../../state/project';
import { select, useSelection } from '../../state/selection';
import { listed } from '../../ui/dates';
import { Select } from '../../ui/Field';
import { formatBytes } from '../../ui/format';
import { BulkActions } from './BulkActions';
import css from './Catalogue.module.css';
import { type Cells, cellsOf, type Group, rowsOf } from './rows';
import { StorageLine } from './StorageLine';
import { columns, features, type Listed } from './table';

const GROUPS: { value: Group; label: string }[] = [
  { value: 'stage', label: 'by stage' },
  { value: 'kind', label: 'by kind' },
  { value: 'well', label: 'by well' },
  { value: 'tag', label: 'by tag' },
  { value: 'none', label: 'in one list' },
];
const ROW = 25;

/** Everything that the project holds: found by typing, sorted, grouped, and changed many at once. */
export function CatalogueView() {
  const objects = useProject((s) => s.objects);
  const old = useProject((s) => s.old);
  const waiting = useProject((s) => s.waiting);
  const selected = useSelection((s) => s.object);
  const [text, setText] = useState('');
  const [group, setGroup] = useState<Group>('stage');
  const [renaming, setRenaming] = useState<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const last = useRef<string | null>(null);
  const cells = useMemo(() => cellsOf(objects), [objects]);
  const find = useMemo(() => finder(objects), [objects]);
  const data = useMemo(
    () => find(text).map((object): Listed => ({ object, cells: cells.get(object.id) as Cells })),
    [find, text, cells],
  );
  const table = useTable({
    features,
    columns,
    data,
    getRowId: (row: Listed) => row.object.id,
    enableSortingRemoval: false,
    enableMultiSort: true,
    initialState: { sorting: [{ id: 'when', desc: true }] },
  });
  const ordered = table.getRowModel().rows;
  const rows = useMemo(
    () =>
      rowsOf(
        ordered.map((row) => row.original.object),
        group,
      ),
    [ordered, group],
  );
  const found = useMemo(() => rows.flatMap((row) => row.object ?? []), [rows]);
  const bytes = useMemo(() => [...cells.values()].reduce((n, c) => n + c.size, 0), [cells]);
  const marked = table.state.rowSelection;
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 5,
    getItemKey: (n) => rows[n].key,
  });
  const choose = (ids: string[]) => table.setRowSelection(Object.fromEntries(ids.map((id) => [id, true as const])));
  const mark = (id: string, on: boolean, range: boolean) => {
    // what lies between in the list as it is seen, groups and all
    const ids = found.map((o) => o.id);
    const [a, b] = [ids.indexOf(last.current ?? id), ids.indexOf(id)];
    const between = range && a >= 0 ? ids.slice(Math.min(a, b), Math.max(a, b) + 1) : [id];
    choose([...(on ? between : []), ...Object.keys(marked).filter((each) => !between.includes(each))]);
    last.current = id;
  };
  const chosen = objects.filter((o) => marked[o.id]);
  const all = found.length > 0 && found.every((o) => marked[o.id]);
  return (
    <section className={css.catalogue} aria-label="Catalogue">
      <header className={css.tools}>
        <input
          type="search"
          aria-label="Find objects"
          placeholder="Name, kind, tag, well, quantity, file or step"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Select label="Grouping" value={group} options={GROUPS} onChange={(v) => setGroup(v as Group)} />
        <span className={css.count} role="status">
          {found.length === objects.length
            ? `${objects.length} objects`
            : `${found.length} of ${objects.length} objects`}
        </span>
        <BulkActions objects={chosen} onDone={() => table.resetRowSelection(true)} />
      </header>
      <div className={css.head}>
        <input
          type="checkbox"
          aria-label="Mark all that are listed"
          checked={all}
          onChange={(e) => choose(e.target.checked ? found.map((o) => o.id) : [])}
        />
        {table.getHeaderGroups()[0].headers.map(({ column }) => {
          const label = String(column.columnDef.header);
          const sorted = column.getIsSorted();
          return (
            <button
              key={column.id}
              type="button"
              className={css[column.id]}
              aria-label={`Sort by ${label.toLowerCase()}`}
              title="Shift adds it to the order that there is"
              onClick={column.getToggleSortingHandler()}
            >
              {label}
              {sorted ? (sorted === 'desc' ? ' ↓' : ' ↑') : ''}
            </button>
          );
        })}
      </div>
      <div ref={scroller} className={css.scroll}>
        {objects.length === 0 && <p className={css.none}>The project is empty. Drop files anywhere to load them.</p>}
        {objects.length > 0 && found.length === 0 && <p className={css.none}>Nothing has all of these words.</p>}
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const { object, title, count } = rows[item.index];
            const place = { top: item.start, height: ROW };
            if (!object)
              return (
                <div key={item.key} className={css.group} style={place}>
                  {title} <span className="num">{count}</span>
                </div>
              );
            const c = cells.get(object.id);
            if (!c) return null;
            const state = old.has(object.id) ? 'out of date' : waiting.has(object.id) ? 'waits' : '';
            return (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the name in the row is a button that does the same
              <div
                key={item.key}
                className={`${css.row} ${selected === object.id ? css.selected : ''}`}
                style={place}
                onClick={() => select(object.id)}
                onDoubleClick={() => showObject(object)}
              >
                <input
                  type="checkbox"
                  aria-label={`Mark ${object.name}`}
                  checked={marked[object.id] ?? false}
                  onClick={(e) => {
                    e.stopPropagation();
                    mark(object.id, e.currentTarget.checked, e.shiftKey);
                  }}
                  readOnly
                />
                <span className={css.name}>
                  <i style={{ background: colorOf(object, objects) }} />
                  {renaming === object.id ? (
                    <input
                      aria-label={`New name of ${object.name}`}
                      defaultValue={object.name}
                      // biome-ignore lint/a11y/noAutofocus: the field takes the place of the name that was asked to change
                      autoFocus
                      onClick={(e) => e.stopPropagation()}
                      onBlur={(e) => {
                        setRenaming(null);
                        void rename(object, e.target.value);
                      }}
                      onKeyDown={(e) => {
                        if (e.key === 'Enter') e.currentTarget.blur();
                        if (e.key === 'Escape') setRenaming(null);
                      }}
                    />
                  ) : (
                    <button
                      type="button"
                      title="Select; F2 renames"
                      onKeyDown={(e) => {
                        if (e.key === 'F2') setRenaming(object.id);
                      }}
                    >
                      {object.name}
                    </button>
                  )}
                </span>
                <span className={css.kind}>{c.kind}</span>
                <span className={css.about} title={waiting.get(object.id) ?? old.get(object.id)}>
                  {state ? <em>{state}</em> : c.about}
                </span>
                <span className={css.from}>{c.from}</span>
                <span className={css.tags}>
                  {(object.tags ?? []).map((tag) => (
                    <b key={tag}>{tag}</b>
                  ))}
                </span>
                <span className={`num ${css.size}`}>{c.size > 0 ? formatBytes(c.size) : ''}</span>
                <span className={`num ${css.when}`}>{listed(c.when)}</span>
              </div>
            );
          })}
        </div>
      </div>
      <StorageLine bytes={bytes} />
    </section>
  );
}
