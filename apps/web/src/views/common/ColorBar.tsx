import { endsText, type SeismicLine, unitsOf, type Volume } from '@lithagon/core';
import type { CSSProperties } from 'react';
import { bandColor, gradientOf } from '../../color/maps';
import { useUnits } from '../../state/units';
import type { FieldLook } from '../raster/field';
import { ColorHandle } from './ColorHandle';
import { formatValue } from './look';
import css from './view.module.css';

/** A colour bar with its ends, quantity and unit; `unit` is that of the values, which are shown in the project's. */
export function ColorBar(props: {
  look: FieldLook;
  text: string;
  unit?: string;
  style?: CSSProperties;
  /** Whose colours it shows: they are changed by dragging it, and in what opens on a click. */
  of?: Volume | SeismicLine;
  /** Names of classes, from the first on: each stands beside its colour. */
  names?: string[];
}) {
  const { look, unit = '' } = props;
  const units = useUnits();
  const shown = (value: number) => formatValue(units.to(value, unit));
  const middle = look.low === -look.high;
  const bar = (
    <>
      <div
        className={css.gradient}
        style={{ background: gradientOf(look.map, 'to right', look.reverse, look.steps) }}
      />
      <div className={css.ends}>
        <span>{look.whole ? Math.round(look.low + 0.5) : shown(look.low)}</span>
        {middle && <span>0</span>}
        <span>{look.whole ? Math.round(look.high - 0.5) : shown(look.high)}</span>
      </div>
    </>
  );
  const names = props.names ?? (props.of && 'classes' in props.of ? props.of.classes : undefined);
  if (look.whole && names && names.length > 0)
    return (
      <div className={css.colorBar} style={props.style}>
        <ol className={css.classNames} aria-label="Classes">
          {names.map((name, n) => {
            const steps = look.steps ?? 1;
            const k = n + 1 - (look.low + 0.5);
            if (k < 0 || k >= steps) return null;
            return (
              <li key={name}>
                <i style={{ background: bandColor(look.map, k, steps, look.reverse) }} />
                {name}
              </li>
            );
          })}
        </ol>
      </div>
    );
  return (
    <div className={css.colorBar} style={props.style}>
      {props.of ? <ColorHandle of={props.of}>{bar}</ColorHandle> : <div className={css.bar}>{bar}</div>}
      <span className={css.barText}>{props.text}</span>
    </div>
  );
}

export function quantityText(
  volume: { quantity: string; unit: string; polarity?: string },
  units = unitsOf(null),
): string {
  const unit = volume.unit ? ` (${units.of(volume.unit)})` : '';
  const polarity =
    volume.quantity !== 'amplitude'
      ? ''
      : volume.polarity === 'harder-positive'
        ? ', + is harder'
        : volume.polarity === 'harder-negative'
          ? ', − is harder'
          : ', polarity not declared';
  const ends = endsText(volume.quantity);
  return `${volume.quantity}${unit}${polarity}${ends ? `, ${ends}` : ''}`;
}
