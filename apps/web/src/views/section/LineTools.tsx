import type { Volume } from '@lithagon/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { stepLine } from '../../actions/lines';
import { useDesk } from '../../state/desk';
import { Segmented } from '../../ui/Segmented';
import { clampLine } from '../common/survey';
import css from '../common/view.module.css';

/** Which line of a volume a section shows: inline or crossline, its number, and what the wheel steps by. */
export function LineTools(props: {
  binGrid: Volume['binGrid'];
  plane: 'inline' | 'crossline';
  number: number;
  /** After the other kind of line was chosen. */
  onTurn(): void;
}) {
  const { binGrid, plane, number } = props;
  const increment = useDesk((s) => s.increment);
  const go = (wanted: number) => {
    const { first, step } = binGrid[plane];
    useDesk.setState((s) => ({ lines: { ...s.lines, [plane]: clampLine(binGrid, plane, (wanted - first) / step) } }));
  };
  return (
    <>
      <Segmented
        label="Kind of line"
        value={plane}
        options={[
          { value: 'inline', label: 'Inline' },
          { value: 'crossline', label: 'Crossline' },
        ]}
        onChange={(value) => {
          props.onTurn();
          useDesk.setState({ plane: value });
        }}
      />
      <span className={css.stepper}>
        <button type="button" className={css.step} aria-label="Line before" onClick={() => stepLine(-1)}>
          <ChevronLeft size={14} />
        </button>
        <LineNumber number={number} onGo={go} />
        <button type="button" className={css.step} aria-label="Next line" onClick={() => stepLine(1)}>
          <ChevronRight size={14} />
        </button>
      </span>
      <label title="Lines that the wheel and the arrows step by">
        by{' '}
        <input
          className={css.line}
          style={{ width: 34 }}
          aria-label="Step by this many lines"
          type="number"
          min={1}
          max={50}
          value={increment}
          onChange={(e) => useDesk.setState({ increment: Math.max(1, Math.min(50, Number(e.target.value) || 1)) })}
        />
      </label>
    </>
  );
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
