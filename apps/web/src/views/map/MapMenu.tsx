import { useSettings } from '../../state/views';
import { Select } from '../../ui/Field';
import { Segmented } from '../../ui/Segmented';
import css from '../common/view.module.css';

/** How a map is drawn; `upon` is what a horizon may be coloured by. */
export function MapMenu({ onWhole, upon }: { onWhole(): void; upon: { value: string; label: string }[] }) {
  const [settings, change] = useSettings('map');
  return (
    <>
      {upon.length > 1 && (
        <span className={css.menuField}>
          Coloured by
          <Select
            label="Coloured by"
            value={upon.some((u) => u.value === settings.upon) ? (settings.upon ?? '') : ''}
            options={upon}
            onChange={(value) => change({ upon: value === '' ? null : value })}
          />
        </span>
      )}
      <span className={css.menuField}>
        Coordinates
        <Segmented
          label="Coordinates"
          value={settings.graticule}
          options={[
            { value: 'map', label: 'X, Y' },
            { value: 'degrees', label: 'Lon, lat' },
            { value: 'none', label: 'None' },
          ]}
          onChange={(graticule) => change({ graticule })}
        />
      </span>
      <label className={css.menuField}>
        Contours
        <input type="checkbox" checked={settings.contours} onChange={(e) => change({ contours: e.target.checked })} />
      </label>
      <label className={css.menuField}>
        Light from the north-west
        <input type="checkbox" checked={settings.light} onChange={(e) => change({ light: e.target.checked })} />
      </label>
      <button type="button" className={css.menuAct} onClick={onWhole}>
        Show the whole map
      </button>
    </>
  );
}
