import type { SeismicLine, Volume } from '@lithagon/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { stepLine } from '../../actions/lines';
import { useHere } from '../../state/here';
import { useProject } from '../../state/project';
import { goTo, JOINED, useSettings } from '../../state/views';
import { Select } from '../../ui/Field';
import css from '../common/view.module.css';
import { usePlayedLines } from './PlayLines';

const KINDS = { inline: 'Inline', crossline: 'Crossline' } as const;

/** What a section runs along: inlines, crosslines, a line of one's own or a 2D line, and which of them. */
export function LineTools(props: {
  shown: Volume | SeismicLine;
  number?: number;
  /** After the other kind of line was chosen. */
  onTurn?(): void;
}) {
  const { shown, number } = props;
  const here = useHere();
  const objects = useProject((s) => s.objects);
  const [settings, change] = useSettings('section');
  usePlayedLines();
  const flat = objects.filter((o): o is SeismicLine => o.kind === 'seismic line');
  const hasVolume = objects.some((o) => o.kind === 'volume');
  const plane = shown.kind === 'volume' && settings.along !== 'path' ? settings.along : null;
  const joined = settings.line === JOINED;
  const value = joined ? JOINED : shown.kind === 'seismic line' ? shown.id : settings.along;
  const choose = (to: string) => {
    props.onTurn?.();
    if (to === 'inline' || to === 'crossline' || to === 'path') change({ along: to, line: null });
    else change({ line: to });
  };
  return (
    <>
      <span className={css.choice}>
        <Select
          label="Line of the section"
          value={value}
          options={[
            ...(hasVolume
              ? [
                  ...Object.entries(KINDS).map(([k, label]) => ({ value: k, label })),
                  ...(settings.path ? [{ value: 'path', label: nameOf(settings.path.names) }] : []),
                ]
              : []),
            ...flat.map((l) => ({ value: l.id, label: l.name })),
            ...(settings.joined ? [{ value: JOINED, label: 'Joined lines' }] : []),
          ]}
          onChange={choose}
        />
      </span>
      {!joined && (settings.along !== 'path' || shown.kind === 'seismic line') ? (
        <span className={css.stepper}>
          <button type="button" className={css.step} aria-label="Line before" onClick={() => stepLine(-1, here)}>
            <ChevronLeft size={14} />
          </button>
          {plane && shown.kind === 'volume' && number !== undefined && (
            <LineNumber number={number} onGo={(wanted) => goTo(here, { [plane]: nearest(shown, plane, wanted) })} />
          )}
          <button type="button" className={css.step} aria-label="Next line" onClick={() => stepLine(1, here)}>
            <ChevronRight size={14} />
          </button>
        </span>
      ) : null}
    </>
  );
}

const nameOf = (names: string[]) => (names.length > 0 ? `Through ${names.join(', ')}` : 'Line of your own');

/** The line of a survey nearest to a number, no further than it reaches. */
function nearest({ binGrid }: Volume, plane: 'inline' | 'crossline', wanted: number): number {
  const { first, step, count } = binGrid[plane];
  const index = Math.max(0, Math.min(count - 1, Math.round((wanted - first) / step)));
  return first + index * step;
}

function LineNumber(props: { number: number; onGo(number: number): void }) {
  const [text, setText] = useState<string | null>(null);
  const go = () => {
    if (text !== null && text !== '' && Number.isFinite(Number(text))) props.onGo(Number(text));
    setText(null);
  };
  return (
    <input
      className={css.line}
      aria-label="Line number"
      inputMode="numeric"
      value={text ?? props.number}
      onFocus={(e) => e.target.select()}
      onChange={(e) => setText(e.target.value)}
      onBlur={go}
      onKeyDown={(e) => e.key === 'Enter' && go()}
    />
  );
}
