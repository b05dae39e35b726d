import { Slider } from 'radix-ui';
import { type ReactNode, useId } from 'react';
import css from './ui.module.css';

/** A labelled control: label, unit or value at the right, one line of help under it. */
export function Field(props: {
  label: string;
  aside?: ReactNode;
  help?: string;
  /** What is wrong with its value. */
  error?: string;
  children(id: string): ReactNode;
}) {
  const id = useId();
  return (
    <div className={css.field}>
      <div className={css.fieldTop}>
        <label htmlFor={id}>{props.label}</label>
        {props.aside !== undefined && <span className={`num ${css.aside}`}>{props.aside}</span>}
      </div>
      {props.children(id)}
      {props.error && (
        <p className={css.error} role="alert">
          {props.error}
        </p>
      )}
      {props.help && <p className={css.help}>{props.help}</p>}
    </div>
  );
}

export function Select(props: {
  id?: string;
  label?: string;
  value: string;
  options: { value: string; label: string }[];
  onChange(value: string): void;
}) {
  return (
    <select
      id={props.id}
      aria-label={props.label}
      className={css.select}
      value={props.value}
      onChange={(e) => props.onChange(e.target.value)}
    >
      {props.options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  );
}

export function Range(props: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onChange(value: number): void;
  /** Told once it is let go. */
  onCommit?(value: number): void;
}) {
  return (
    <Slider.Root
      className={css.slider}
      value={[props.value]}
      min={props.min}
      max={props.max}
      step={props.step}
      onValueChange={([v]) => props.onChange(v)}
      onValueCommit={([v]) => props.onCommit?.(v)}
    >
      <Slider.Track className={css.track}>
        <Slider.Range className={css.range} />
      </Slider.Track>
      <Slider.Thumb className={css.thumb} aria-label={props.label} />
    </Slider.Root>
  );
}
