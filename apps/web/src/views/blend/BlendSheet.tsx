import { BLEND_AXES, type Blend, CHANNELS, type Channel, type QuantityMap, type Volume } from '@lithagon/core';
import { ArrowLeftRight } from 'lucide-react';
import { Slider } from 'radix-ui';
import { useBlends, useDrawnBlend } from '../../state/blends';
import { edit } from '../../state/history';
import { useUnits } from '../../state/units';
import { IconButton } from '../../ui/Button';
import { Field, Range, Select } from '../../ui/Field';
import ui from '../../ui/ui.module.css';
import { formatValue } from '../common/look';
import css from './BlendSheet.module.css';
import { useChannels } from './useFields';

/** Least and greatest of what a channel holds. */
const extentOf = (of: QuantityMap | Volume): [number, number] =>
  of.kind === 'map' ? of.range : [of.statistics.min, of.statistics.max];

/** Ends, directions and colours of a blend: seen while they are dragged, and kept when they are let go. */
export function BlendSheet({ object }: { object: Blend }) {
  const blend = useDrawnBlend(object);
  const channels = useChannels(object);
  const units = useUnits();
  const show = (part: Partial<Blend>) => useBlends.setState({ draft: { ...blend, ...part } });
  const keep = async (what: string, part: Partial<Blend>) => {
    try {
      await edit(`${what} of ${object.name}`, [object], [{ ...object, ...part, set: true }]);
    } finally {
      useBlends.setState({ draft: null });
    }
  };
  if (channels.length === 0) return <p>What it is made of is not there any more.</p>;
  return (
    <>
      <h3>Channels</h3>
      {channels.map((of, n) => {
        const channel: Channel = CHANNELS[n];
        const ends = blend[channel];
        if (!ends) return null;
        const [low, high] = extentOf(of);
        const turned = ends.from > ends.to;
        const ordered = turned ? [ends.to, ends.from] : [ends.from, ends.to];
        const endsOf = ([a, b]: number[]) => ({ [channel]: turned ? { from: b, to: a } : { from: a, to: b } });
        const figure = (v: number) => formatValue(units.to(v, of.unit));
        return (
          <div key={channel} className={css.channel} data-channel={channel}>
            <div className={css.name}>
              <span title={of.name}>
                {n < 3 ? `${n + 1}: ` : 'Shade: '}
                {of.name}
              </span>
              <IconButton
                label={`Turn ${channel} round`}
                onClick={() => void keep(`Direction of ${channel}`, { [channel]: { from: ends.to, to: ends.from } })}
              >
                <ArrowLeftRight size={13} />
              </IconButton>
            </div>
            <Slider.Root
              className={ui.slider}
              min={Math.min(low, ordered[0])}
              max={Math.max(high, ordered[1])}
              step={(high - low) / 200 || 1}
              value={ordered}
              onValueChange={(v) => show(endsOf(v))}
              onValueCommit={(v) => void keep(`Ends of ${channel}`, endsOf(v))}
            >
              <Slider.Track className={ui.track}>
                <Slider.Range className={ui.range} />
              </Slider.Track>
              <Slider.Thumb className={ui.thumb} aria-label={`Lower end of ${channel}`} />
              <Slider.Thumb className={ui.thumb} aria-label={`Upper end of ${channel}`} />
            </Slider.Root>
            <p className="num">
              absent at {figure(ends.from)}, full at {figure(ends.to)} {units.of(of.unit)}
            </p>
          </div>
        );
      })}
      <div className={css.rest}>
        {blend.shade && (
          <Field label="Shade" aside={`${Math.round(100 * blend.strength)} %`}>
            {() => (
              <Range
                label="Strength of the shade"
                value={blend.strength}
                min={0}
                max={1}
                step={0.05}
                onChange={(strength) => show({ strength })}
                onCommit={(strength) => void keep('Shade', { strength })}
              />
            )}
          </Field>
        )}
        <Field label="Colours" help="Blue and amber are told apart by colour-blind people too.">
          {(id) => (
            <Select
              id={id}
              value={blend.axes}
              options={BLEND_AXES.map((value) => ({ value, label: value }))}
              onChange={(axes) => void keep('Colours', { axes: axes as Blend['axes'] })}
            />
          )}
        </Field>
      </div>
    </>
  );
}
