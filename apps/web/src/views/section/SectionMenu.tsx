import type { SeismicLine, Volume } from '@lithagon/core';
import { useConversion } from '../../state/conversion';
import { addView } from '../../state/dock';
import { useHere } from '../../state/here';
import { changeSettings, useSettings } from '../../state/views';
import { Select } from '../../ui/Field';
import { Segmented } from '../../ui/Segmented';
import css from '../common/view.module.css';
import { PlayLines } from './PlayLines';

/** How a section is drawn, and what the wheel steps by. */
export function SectionMenu({ shown, onWhole }: { shown: Volume | SeismicLine; onWhole(): void }) {
  const [settings, change] = useSettings('section');
  const here = useHere();
  // time and depth side by side, as soon as something turns the one into the other
  const turns = useConversion((s) => s.model !== null);
  const beside = turns && settings.domain !== 'age' ? (settings.domain === 'twt' ? 'depth' : 'twt') : null;
  const lines = shown.kind === 'volume' && settings.along !== 'path';
  return (
    <>
      <Segmented
        label="How traces are drawn"
        value={settings.traces}
        options={[
          { value: 'density', label: 'Colours' },
          { value: 'wiggle', label: 'Wiggles' },
          { value: 'filled', label: 'Filled' },
          { value: 'both', label: 'Both' },
        ]}
        onChange={(traces) => change({ traces })}
      />
      <span className={css.menuField}>
        Along the top
        <Select
          label="Axis along the top"
          value={settings.axis}
          options={[
            { value: 'line', label: shown.kind === 'volume' ? 'line numbers' : 'CDP' },
            { value: 'distance', label: 'distance' },
            { value: 'x', label: 'X' },
            { value: 'y', label: 'Y' },
          ]}
          onChange={(axis) => change({ axis: axis as typeof settings.axis })}
        />
      </span>
      {shown.kind === 'seismic line' && (
        <label className={css.menuField}>
          Traces at true distance
          <input
            type="checkbox"
            checked={settings.trueDistance}
            onChange={(e) => change({ trueDistance: e.target.checked })}
          />
        </label>
      )}
      {lines && (
        <>
          <label className={css.menuField} title="Lines that the wheel and the arrows step by">
            Step by this many lines
            <input
              className={css.line}
              type="number"
              min={1}
              max={1000}
              value={settings.increment}
              onChange={(e) => change({ increment: Math.max(1, Math.min(1000, Number(e.target.value) || 1)) })}
            />
          </label>
          <PlayLines />
        </>
      )}
      {beside && (
        <button
          type="button"
          className={css.menuAct}
          title="The same line in the other domain, with cursor and zoom locked to this one"
          onClick={() =>
            changeSettings('section', addView('section', { beside: here, direction: 'right' }), { domain: beside })
          }
        >
          {beside === 'depth' ? 'Depth' : 'TWT'} beside it
        </button>
      )}
      <button type="button" className={css.menuAct} onClick={onWhole}>
        Show the whole section
      </button>
    </>
  );
}
