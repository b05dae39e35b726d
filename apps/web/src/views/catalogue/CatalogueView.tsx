import { finder } from '@lithagon/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import { rename } from '../../actions/rename';
import { showObject } from '../../actions/show';
import { colorOf } from '../../kinds';
import { useProject } from '../../state/project';
import { select, useSelection } from '../../state/selection';
import { Select } from '../../ui/Field';
import { formatBytes } from '../../ui/format';
import { BulkActions } from './BulkActions';
import css from './Catalogue.module.css';
import { type Column, cellsOf, type Group, rowsOf, type Sort, sorted } from './rows';
import { StorageLine } from './StorageLine';

const COLUMNS: { key: Column; label: string }[] = [
  { key: 'name', label: 'Name' },
  { key: 'kind', label: 'Kind' },
  { key: 'about', label: 'About' },
  { key: 'from', label: 'Made by' },
  { key: 'tags', label: 'Tags' },
  { key: 'size', label: 'Size' },
  { key: 'when', label: 'When' },
];
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
  const [sort, setSort] = useState<Sort>({ by: 'when', down: true });
  const [group, setGroup] = useState<Group>('stage');
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [renaming, setRenaming] = useState<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const last = useRef<string | null>(null);
  const cells = useMemo(() => cellsOf(objects), [objects]);
  const find = useMemo(() => finder(sorted(objects, cells, sort)), [objects, cells, sort]);
  const found = useMemo(() => find(text), [find, text]);
  const rows = useMemo(() => rowsOf(found, group), [found, group]);
  const bytes = useMemo(() => [...cells.values()].reduce((n, c) => n + c.size, 0), [cells]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 5,
    getItemKey: (n) => rows[n].key,
  });
  const mark = (id: string, on: boolean, range: boolean) => {
    const next = new Set(marked);
    const ids = found.map((o) => o.id);
    const [a, b] = [ids.indexOf(last.current ?? id), ids.indexOf(id)];
    for (const each of range && a >= 0 ? ids.slice(Math.min(a, b), Math.max(a, b) + 1) : [id])
      if (on) next.add(each);
      else next.delete(each);
    last.current = id;
    setMarked(next);
  };
  const chosen = objects.filter((o) => marked.has(o.id));
  const all = found.length > 0 && found.every((o) => marked.has(o.id));
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
        <BulkActions objects={chosen} onDone={() => setMarked(new Set())} />
      </header>
      <div className={css.head}>
        <input
          type="checkbox"
          aria-label="Mark all that are listed"
          checked={all}
          onChange={(e) => setMarked(e.target.checked ? new Set(found.map((o) => o.id)) : new Set())}
        />
        {COLUMNS.map((c) => (
          <button
            key={c.key}
            type="button"
            className={css[c.key]}
            aria-label={`Sort by ${c.label.toLowerCase()}`}
            onClick={() =>
              setSort({ by: c.key, down: sort.by === c.key ? !sort.down : c.key === 'size' || c.key === 'when' })
            }
          >
            {c.label}
            {sort.by === c.key ? (sort.down ? ' ↓' : ' ↑') : ''}
          </button>
        ))}
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
                  checked={marked.has(object.id)}
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
                <span className={`num ${css.when}`}>{c.when.slice(0, 16).replace('T', ' ')}</span>
              </div>
            );
          })}
        </div>
      </div>
      <StorageLine bytes={bytes} />
    </section>
  );
}
