import { type Frame, redatumed, unitsOf } from '@lithagon/core';
import { useId } from 'react';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { Segmented } from '../../ui/Segmented';
import css from './Frame.module.css';

/** Units, seismic datum, replacement velocity and polarity of the project. */
export function FrameFields({ frame }: { frame: Frame }) {
  const units = unitsOf(frame);
  const id = useId();
  const say = (name: string, change: Partial<Frame>) => {
    const next = { ...frame, ...change };
    const { before, after } = redatumed(useProject.getState().objects, next);
    void edit(name, before, after, { before: frame, after: next });
  };
  const number = (label: string, key: 'datumM' | 'replacementVelocity', si: string, help: string, usual: number) => (
    <div className={css.field}>
      <label htmlFor={id + key}>{label}</label>
      <span>
        <input
          id={id + key}
          key={frame.display}
          type="number"
          defaultValue={Number(units.to(frame[key] ?? usual, si).toFixed(2))}
          onBlur={(e) => {
            const value = units.from(Number(e.target.value), si);
            const legal =
              Number.isFinite(value) && (key === 'datumM' ? Math.abs(value) < 9000 : value > 100 && value < 9000);
            if (legal && Math.abs(value - (frame[key] ?? usual)) > 1e-6)
              say(`${label} ${e.target.value}`, { [key]: value });
          }}
        />{' '}
        {units.of(si)}
      </span>
      <small>{help}</small>
    </div>
  );
  return (
    <div className={css.fields}>
      <div className={css.field}>
        <span>Units</span>
        <Segmented
          label="Units"
          value={frame.display}
          options={[
            { value: 'metric', label: 'Metric' },
            { value: 'field', label: 'Field' },
          ]}
          onChange={(display) => say(`${display === 'field' ? 'Field' : 'Metric'} units`, { display })}
        />
        <small>
          {frame.display === 'field'
            ? 'Depths in feet, velocities in ft/s, slowness in µs/ft, pressures in psi, rock in acre-feet, oil in stb, gas in scf.'
            : 'Depths in metres, velocities in m/s, slowness in µs/m, pressures in MPa, rock in m³, oil and gas in Sm³.'}
        </small>
      </div>
      <div className={css.field}>
        <span>Seismic polarity</span>
        <Segmented
          label="Polarity convention"
          value={frame.polarity ?? 'harder-positive'}
          options={[
            { value: 'harder-positive', label: '+ is harder' },
            { value: 'harder-negative', label: '− is harder' },
          ]}
          onChange={(polarity) => say('Polarity convention', { polarity })}
        />
        <small>Offered for seismic that is loaded; each volume keeps its own.</small>
      </div>
      {number('Seismic datum', 'datumM', 'm', 'Elevation above mean sea level at which TWT is 0.', 0)}
      {number(
        'Replacement velocity',
        'replacementVelocity',
        'm/s',
        'Between the datum and where times of checkshots are counted from.',
        1500,
      )}
    </div>
  );
}
