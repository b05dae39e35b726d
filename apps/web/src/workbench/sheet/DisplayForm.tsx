import type { SeismicLine, Volume } from '@lithagon/core';
import { COLOR_MAPS, type ColorMapName } from '../../color/maps';
import { displayOf, setDisplay, useDesk } from '../../state/desk';
import { Field, Range, Select } from '../../ui/Field';
import { CLIPS } from '../../views/common/look';
import css from './Sheet.module.css';

/** How a volume is drawn, in every view: nothing here computes anything. */
export function DisplayForm({ volume }: { volume: Volume | SeismicLine }) {
  const display = displayOf(
    useDesk((s) => s.display),
    volume,
  );
  const set = (change: Partial<typeof display>) => setDisplay(volume.id, volume.quantity, change);
  const at = CLIPS.indexOf(display.clip);
  return (
    <>
      <h3>Display</h3>
      <Field label="Colour map">
        {(id) => (
          <Select
            id={id}
            value={display.map}
            options={COLOR_MAPS.map((m) => ({ value: m, label: m }))}
            onChange={(v) => set({ map: v as ColorMapName })}
          />
        )}
      </Field>
      <Field label="Colours end at" aside={`${display.clip} % of samples`}>
        {() => (
          <Range
            label="Clip percentile"
            value={at < 0 ? 3 : at}
            min={0}
            max={CLIPS.length - 1}
            step={1}
            onChange={(v) => set({ clip: CLIPS[v] })}
          />
        )}
      </Field>
      <Field label="Gain" aside={`× ${display.gain.toFixed(2)}`}>
        {() => (
          <Range
            label="Gain"
            value={Math.log2(display.gain)}
            min={-3}
            max={3}
            step={0.1}
            onChange={(v) => set({ gain: 2 ** v })}
          />
        )}
      </Field>
      <label className={css.color}>
        Reverse colours
        <input
          type="checkbox"
          style={{ width: 16, height: 16 }}
          checked={display.reverse}
          onChange={(e) => set({ reverse: e.target.checked })}
        />
      </label>
    </>
  );
}
