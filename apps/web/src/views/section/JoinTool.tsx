import { pathOfLine, type SeismicLine } from '@lithagon/core';
import { ArrowLeftRight, Waypoints, X } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { useProject } from '../../state/project';
import { JOINED, type Piece, useSettings } from '../../state/views';
import { IconButton } from '../../ui/Button';
import { Field, Select } from '../../ui/Field';
import { Sortable, SortableItem } from '../../ui/Sortable';
import css from '../common/view.module.css';
import own from './JoinTool.module.css';
import { wholeOf, withLine } from './joined';

/** One section through several 2D lines, each with the part of it that is read and the way it runs. */
export function JoinTool({ shown }: { shown: SeismicLine }) {
  const objects = useProject((s) => s.objects);
  const [{ line, joined }, change] = useSettings('section');
  const lines = objects.filter(
    (o): o is SeismicLine => o.kind === 'seismic line' && o.domain === shown.domain && pathOfLine(objects, o) !== null,
  );
  if (lines.length < 2) return null;
  const pieces = (line === JOINED && joined) || [wholeOf(shown)];
  const set = (next: Piece[]) =>
    change(next.length > 1 ? { joined: next, line: JOINED } : { joined: null, line: next[0]?.line ?? shown.id });
  const put = (at: number, piece: Partial<Piece>) => set(pieces.map((p, n) => (n === at ? { ...p, ...piece } : p)));
  const ids = pieces.map((p, n) => `${p.line} ${n}`);
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`${css.menuButton} ${css.camera} ${css.spare}`}
        aria-label="Join 2D lines"
        aria-pressed={line === JOINED}
        title="Join 2D lines into one section"
      >
        <Waypoints size={14} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className={css.popover} align="end" sideOffset={4} style={{ width: 360 }}>
          <p className={css.popTitle}>One section through 2D lines</p>
          <div className={own.head} aria-hidden="true">
            <span>line</span>
            <span>from CDP</span>
            <span>to CDP</span>
          </div>
          <Sortable
            ids={ids}
            onMove={(from, to) => {
              const next = [...pieces];
              next.splice(to, 0, ...next.splice(from, 1));
              set(next);
            }}
          >
            {pieces.map((piece, n) => {
              const of = lines.find((l) => l.id === piece.line);
              if (!of) return null;
              return (
                <SortableItem key={ids[n]} id={ids[n]} label={of.name} className={own.piece}>
                  {(handle) => (
                    <>
                      <b title={of.name}>{of.name}</b>
                      <Cdp
                        label={`${of.name} from CDP`}
                        value={piece.from}
                        of={of}
                        onChange={(from) => put(n, { from })}
                      />
                      <Cdp label={`${of.name} to CDP`} value={piece.to} of={of} onChange={(to) => put(n, { to })} />
                      <IconButton
                        label={`Turn ${of.name} round`}
                        onClick={() => put(n, { from: piece.to, to: piece.from })}
                      >
                        <ArrowLeftRight size={13} />
                      </IconButton>
                      <span style={{ display: 'flex' }}>
                        <IconButton
                          label={`Take ${of.name} out`}
                          disabled={pieces.length === 1}
                          onClick={() => set(pieces.filter((_, m) => m !== n))}
                        >
                          <X size={13} />
                        </IconButton>
                        {handle}
                      </span>
                    </>
                  )}
                </SortableItem>
              );
            })}
          </Sortable>
          <Field label="Go on along" help="Where it crosses the line before, the section turns there.">
            {(id) => (
              <Select
                id={id}
                value=""
                options={[
                  { value: '', label: 'choose a line' },
                  ...lines
                    .filter((l) => l.id !== pieces[pieces.length - 1].line)
                    .map((l) => ({ value: l.id, label: l.name })),
                ]}
                onChange={(to) => {
                  const added = lines.find((l) => l.id === to);
                  if (added) set(withLine(objects, pieces, added));
                }}
              />
            )}
          </Field>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A CDP of a line, no further than it reaches. */
function Cdp(props: { label: string; value: number; of: SeismicLine; onChange(value: number): void }) {
  const { label, value, of, onChange } = props;
  const [text, setText] = useState<string | null>(null);
  const ends = [of.cdps[0], of.cdps[of.cdps.length - 1]];
  const go = () => {
    if (text !== null && text !== '' && Number.isFinite(Number(text)))
      onChange(Math.max(Math.min(...ends), Math.min(Math.max(...ends), Number(text))));
    setText(null);
  };
  return (
    <input
      aria-label={label}
      title={`CDP ${ends[0]} to ${ends[1]}`}
      inputMode="numeric"
      value={text ?? value}
      onChange={(e) => setText(e.target.value)}
      onBlur={go}
      onKeyDown={(e) => e.key === 'Enter' && go()}
    />
  );
}
