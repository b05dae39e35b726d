import { type Declarations, type HeaderTable, TRACE_FIELDS } from '@lithagon/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState } from 'react';
import { runJob } from '../../compute/pool';
import { Select } from '../../ui/Field';
import css from './LoadSheet.module.css';

const PAGE = 100;
const ROW = 21;
const ROLES = ['inline', 'crossline', 'x', 'y', 'cdp', 'shotpoint'];

/** Trace headers as a table: rows are read as they come into sight. Empty fields are left out. */
export function TraceHeaders(props: { file: File; declare: Declarations; onDeclare(said: Declarations): void }) {
  const { file, declare, onDeclare } = props;
  const [pages, setPages] = useState<Map<number, number[][]>>(new Map());
  const [facts, setFacts] = useState<Pick<HeaderTable, 'traces' | 'spread'> | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const asked = useRef(new Set<number>());
  const rows = useVirtualizer({
    count: facts?.traces ?? 0,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const shown = rows.getVirtualItems();
  const need = facts ? [...new Set(shown.map((r) => Math.floor(r.index / PAGE)))] : [0];
  // a file that changes begins anew by its key in the sheet
  useEffect(() => {
    for (const page of need) {
      if (asked.current.has(page)) continue;
      asked.current.add(page);
      void runJob((remote, task) => remote.headers(task, file, page * PAGE, PAGE)).then((table) => {
        setPages((all) => new Map(all).set(page, table.rows));
        setFacts({ traces: table.traces, spread: table.spread });
      });
    }
  });
  const columns = TRACE_FIELDS.map((field, n) => ({ ...field, n })).filter(
    ({ n }) => facts && (facts.spread[n].distinct > 1 || facts.spread[n].max !== 0 || facts.spread[n].min !== 0),
  );
  const roleOf = (byte: number) => ROLES.find((role) => declare[`byte.${role}`] === String(byte)) ?? '';
  if (!facts) return <p className={css.note}>Reading trace headers …</p>;
  const grid = { gridTemplateColumns: `70px repeat(${columns.length}, 88px)` };
  return (
    <>
      <p className={css.note}>
        {facts.traces} traces; fields that are 0 throughout are left out. The spread of a field is that of traces from
        all over the file.
      </p>
      <div ref={scroller} className={css.virtual}>
        <div className={css.headRow} style={grid}>
          <span>Trace</span>
          {columns.map((c) => (
            <span key={c.byte}>
              <b className="num">{c.byte}</b> {c.meaning || `${c.size} bytes`}
              <small className="num">
                {facts.spread[c.n].distinct === 1
                  ? `all ${facts.spread[c.n].min}`
                  : `${facts.spread[c.n].min} … ${facts.spread[c.n].max}`}
              </small>
              {c.size === 4 && (
                <Select
                  label={`What byte ${c.byte} is`}
                  value={roleOf(c.byte)}
                  options={[{ value: '', label: '–' }, ...ROLES.map((role) => ({ value: role, label: role }))]}
                  onChange={(role) => role && onDeclare({ [`byte.${role}`]: String(c.byte) })}
                />
              )}
            </span>
          ))}
        </div>
        <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {shown.map((row) => {
            const values = pages.get(Math.floor(row.index / PAGE))?.[row.index % PAGE];
            return (
              <div key={row.key} className={`num ${css.dataRow}`} style={{ ...grid, top: row.start, height: ROW }}>
                <span>{row.index + 1}</span>
                {columns.map((c) => (
                  <span key={c.byte}>{values ? values[c.n] : '…'}</span>
                ))}
              </div>
            );
          })}
        </div>
      </div>
    </>
  );
}
