import type { Horizon, Volume } from '@lithagon/core';
import type { PlotDesk } from '../../state/plotDesk';
import { useUnits } from '../../state/units';
import { Select } from '../../ui/Field';
import css from './Crossplot.module.css';

/** Between what the samples of volumes are taken: horizons, or times or depths that are typed. */
export function VolumeZone(props: {
  desk: PlotDesk;
  along: Volume;
  horizons: Horizon[];
  onChange(part: Partial<PlotDesk>): void;
}) {
  const { desk, along, horizons, onChange } = props;
  const units = useUnits();
  const si = along.domain === 'twt' ? 'ms' : 'm';
  const what = along.domain === 'twt' ? 'time' : 'depth';
  const ends = [
    { word: 'from', horizon: 'top', typed: 'fromVertical' },
    { word: 'to', horizon: 'base', typed: 'toVertical' },
  ] as const;
  return (
    <>
      {ends.map(({ word, horizon, typed }) => (
        <span key={word} className={css.axis}>
          {word}
          <Select
            label={word === 'from' ? 'From horizon' : 'To horizon'}
            value={desk[horizon]}
            options={[{ value: '', label: `a ${what}` }, ...horizons.map((h) => ({ value: h.id, label: h.name }))]}
            onChange={(id) => onChange({ [horizon]: id })}
          />
          {desk[horizon] === '' && (
            <label>
              <input
                className={css.short}
                type="number"
                aria-label={`${word === 'from' ? 'From' : 'To'} ${what}`}
                value={Number(units.to(desk[typed], si).toFixed(1))}
                onChange={(e) => onChange({ [typed]: units.from(Number(e.target.value) || 0, si) })}
              />
              {units.of(si)}
            </label>
          )}
        </span>
      ))}
    </>
  );
}
