import { quantityFacts, type SeismicLine, type Volume } from '@lithagon/core';
import { useState } from 'react';
import { COLOR_MAPS, type ColorMapName } from '../../color/maps';
import { useDesk } from '../../state/desk';
import { setDisplay, setOwnColors } from '../../state/displays';
import { useUnits } from '../../state/units';
import { titleOf } from '../../state/views';
import { displayOf } from '../../state/views/display';
import { Button } from '../../ui/Button';
import { Field, Range, Select } from '../../ui/Field';
import css from './DisplayForm.module.css';
import { Histogram } from './Histogram';
import { CLIPS, lookOf } from './look';

/** How a volume is drawn, in every view or in one that has colours of its own: nothing here computes anything. */
export function DisplayForm({ volume, view }: { volume: Volume | SeismicLine; view?: string }) {
  const shared = useDesk((s) => s.display);
  const views = useDesk((s) => s.views);
  const own = view === undefined ? undefined : views[view]?.colors[volume.id];
  const apart = Object.keys(views).filter((id) => id !== view && views[id].colors[volume.id]);
  const display = own ?? displayOf(shared, volume);
  const set = (change: Partial<typeof display>) => setDisplay(volume, change, view);
  const at = CLIPS.indexOf(display.clip);
  const look = lookOf(volume, display);
  return (
    <>
      <h3 className={css.title}>Display</h3>
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
      <Histogram volume={volume} look={look} onEnds={(ends) => set({ ends })} />
      <Ends
        key={`${look.low} ${look.high}`}
        low={look.low}
        high={look.high}
        symmetric={quantityFacts(volume.quantity).symmetric}
        unit={volume.unit}
        onChange={(ends) => set({ ends })}
      />
      {display.ends ? (
        <Button small onClick={() => set({ ends: null })}>
          Back to {display.clip} % of samples
        </Button>
      ) : (
        <>
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
        </>
      )}
      <label className={css.check}>
        Reverse colours
        <input type="checkbox" checked={display.reverse} onChange={(e) => set({ reverse: e.target.checked })} />
      </label>
      {view !== undefined && (
        <label className={css.check}>
          In this view alone
          <input
            type="checkbox"
            checked={own !== undefined}
            onChange={(e) => setOwnColors(volume, view, e.target.checked)}
          />
        </label>
      )}
      {!own && apart.length > 0 && (
        <p className={css.apart}>
          {apart.map(titleOf).join(', ')} {apart.length === 1 ? 'has' : 'have'} colours of{' '}
          {apart.length === 1 ? 'its' : 'their'} own.
        </p>
      )}
    </>
  );
}

/** The values at which colours end, typed; of signed quantities both sides end alike. */
function Ends(props: {
  low: number;
  high: number;
  symmetric: boolean;
  unit: string;
  onChange(ends: [number, number]): void;
}) {
  const { low, high, symmetric, unit } = props;
  const units = useUnits();
  const text = (v: number) => Number(units.to(v, unit).toPrecision(4)).toString();
  const [from, setFrom] = useState(text(low));
  const [to, setTo] = useState(text(high));
  const keep = () => {
    const [a, b] = [units.from(Number(from), unit), units.from(Number(to), unit)];
    if (from === text(low) && to === text(high)) return;
    if (symmetric && b > 0) props.onChange([-b, b]);
    else if (Number.isFinite(a) && Number.isFinite(b) && b > a) props.onChange([a, b]);
    else {
      setFrom(text(low));
      setTo(text(high));
    }
  };
  const field = (label: string, value: string, change: (text: string) => void) => (
    <input
      aria-label={label}
      inputMode="decimal"
      value={value}
      onChange={(e) => change(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  );
  return (
    <div className={css.ends}>
      {!symmetric && field('Lowest value coloured', from, setFrom)}
      <span>{symmetric ? '±' : 'to'}</span>
      {field('Highest value coloured', to, setTo)}
      <span>{units.of(unit)}</span>
    </div>
  );
}
