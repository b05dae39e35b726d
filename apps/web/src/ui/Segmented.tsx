import { RadioGroup } from 'radix-ui';
import css from './ui.module.css';

/** A choice of few, side by side. */
export function Segmented<T extends string>(props: {
  label: string;
  value: T;
  options: { value: T; label: string; disabled?: boolean; title?: string }[];
  onChange(value: T): void;
}) {
  return (
    <RadioGroup.Root
      className={css.segmented}
      value={props.value}
      onValueChange={(v) => props.onChange(v as T)}
      aria-label={props.label}
      orientation="horizontal"
    >
      {props.options.map((o) => (
        <RadioGroup.Item key={o.value} value={o.value} disabled={o.disabled} title={o.title} className={css.segment}>
          {o.label}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
