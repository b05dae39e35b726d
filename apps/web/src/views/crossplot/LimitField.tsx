import { X } from 'lucide-react';
import { Slider } from 'radix-ui';
import { useUnits } from '../../state/units';
import { IconButton } from '../../ui/Button';
import ui from '../../ui/ui.module.css';
import { formatValue } from '../common/look';
import css from './Crossplot.module.css';

/** A further quantity that points are limited by; no range takes all that they have. */
export interface Limit {
  of: string;
  name: string;
  range: [number, number] | null;
}

/** The range of a further quantity, dragged between the least and the greatest that points have. */
export function LimitField(props: {
  limit: Limit;
  /** Nothing while points with it are still gathered. */
  facts: { unit: string; range: [number, number] } | undefined;
  onChange(range: [number, number]): void;
  onRemove(): void;
}) {
  const { limit, facts, onChange, onRemove } = props;
  const units = useUnits();
  const [low, high] = facts?.range ?? [0, 1];
  const range = limit.range ?? [low, high];
  const shown = (v: number) => formatValue(units.to(v, facts?.unit ?? ''));
  return (
    <span className={css.limit} data-limit={limit.name}>
      <span className={css.limitName} title={limit.name}>
        {limit.name}
      </span>
      <span className="num">{shown(range[0])}</span>
      <Slider.Root
        className={ui.slider}
        min={Math.min(low, range[0])}
        max={Math.max(high, range[1])}
        step={(high - low) / 200 || 1}
        value={range}
        disabled={!facts}
        onValueChange={([from, to]) => onChange([from, to])}
      >
        <Slider.Track className={ui.track}>
          <Slider.Range className={ui.range} />
        </Slider.Track>
        <Slider.Thumb className={ui.thumb} aria-label={`Least ${limit.name}`} />
        <Slider.Thumb className={ui.thumb} aria-label={`Greatest ${limit.name}`} />
      </Slider.Root>
      <span className="num">
        {shown(range[1])} {facts ? units.of(facts.unit) : ''}
      </span>
      <IconButton label={`No limit by ${limit.name}`} onClick={onRemove}>
        <X size={12} />
      </IconButton>
    </span>
  );
}
