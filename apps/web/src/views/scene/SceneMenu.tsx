import { useMemo } from 'react';
import { useProject } from '../../state/project';
import { useSettings } from '../../state/views';
import { Select } from '../../ui/Field';
import { Segmented } from '../../ui/Segmented';
import { curveClassesOf } from '../common/survey';
import css from '../common/view.module.css';
import type { FieldLook } from '../raster/field';
import { CropFields } from './CropFields';
import { TransferCurve } from './TransferCurve';

/** Where one stands to look at a scene, in its own axes. */
export const STANDS = {
  Oblique: [4.2, 4.6, 7.4],
  Above: [0, 10, 0.01],
  'From south': [0, 1.2, 9.6],
  'From east': [9.6, 1.2, 0],
  'From north': [0, 1.2, -9.6],
  'From west': [-9.6, 1.2, 0],
} as const;
export type Stand = keyof typeof STANDS;

/** How a scene is drawn, and from where. */
export function SceneMenu({ look, onStand }: { look: FieldLook; onStand(stand: Stand): void }) {
  const [settings, change] = useSettings('scene');
  const objects = useProject((s) => s.objects);
  const logs = useMemo(() => curveClassesOf(objects), [objects]);
  const blends = objects.filter((o) => o.kind === 'blend' && o.domain === settings.domain);
  return (
    <>
      <label className={css.menuField} title="How much steeper than true the scene is drawn, taking 1 ms of TWT as 1 m">
        Vertical exaggeration
        <input
          className={css.line}
          type="number"
          min={0.5}
          max={20}
          step={0.5}
          value={settings.exaggeration}
          onChange={(e) => change({ exaggeration: Math.max(0.5, Math.min(20, Number(e.target.value) || 1)) })}
        />
      </label>
      {(['inline', 'crossline', 'slice'] as const).map((name) => (
        <label key={name} className={css.menuField}>
          {{ inline: 'Inline', crossline: 'Crossline', slice: 'Slice' }[name]}
          <input
            type="checkbox"
            checked={settings.planes[name]}
            onChange={(e) => change({ planes: { ...settings.planes, [name]: e.target.checked } })}
          />
        </label>
      ))}
      {blends.length > 0 && (
        <span className={css.menuField}>
          Planes show
          <Select
            label="Planes of the scene show"
            value={settings.blend ?? ''}
            options={[{ value: '', label: 'the volume' }, ...blends.map((b) => ({ value: b.id, label: b.name }))]}
            onChange={(blend) => change({ blend: blend || null })}
          />
        </span>
      )}
      <label className={css.menuField}>
        Along the section’s own line
        <input type="checkbox" checked={settings.fence} onChange={(e) => change({ fence: e.target.checked })} />
      </label>
      <span className={css.menuField}>
        Wells with
        <Select
          label="Log of wells in the scene"
          value={settings.log ?? ''}
          options={[{ value: '', label: 'no log' }, ...logs.map((c) => ({ value: c, label: c }))]}
          onChange={(log) => change({ log: (log || null) as typeof settings.log })}
        />
      </span>
      <label className={css.menuField}>
        Look through the volume
        <input type="checkbox" checked={settings.cloud} onChange={(e) => change({ cloud: e.target.checked })} />
      </label>
      {settings.cloud && (
        <TransferCurve points={settings.transfer} look={look} onChange={(transfer) => change({ transfer })} />
      )}
      <CropFields crop={settings.crop} onChange={(crop) => change({ crop })} />
      <Segmented
        label="Perspective"
        value={settings.perspective ? 'perspective' : 'parallel'}
        options={[
          { value: 'perspective', label: 'Perspective' },
          { value: 'parallel', label: 'Parallel' },
        ]}
        onChange={(to) => change({ perspective: to === 'perspective' })}
      />
      <fieldset className={css.stands} aria-label="Look from">
        {(Object.keys(STANDS) as Stand[]).map((stand) => (
          <button key={stand} type="button" className={css.menuAct} onClick={() => onStand(stand)}>
            {stand}
          </button>
        ))}
      </fieldset>
    </>
  );
}
