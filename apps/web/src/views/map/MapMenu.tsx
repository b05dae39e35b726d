import { useSettings } from '../../state/views';
import { Segmented } from '../../ui/Segmented';
import css from '../common/view.module.css';

/** How a map is drawn. */
export function MapMenu({ onWhole }: { onWhole(): void }) {
  const [settings, change] = useSettings('map');
  return (
    <>
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
