import { stepOf } from '@lithagon/core';
import { defaultDisplay } from '../../state/desk';
import { quantityText } from '../common/ColorBar';
import type { FieldLook } from '../raster/field';

const quantityOf = (step: string) => (stepOf(step)?.local ?? stepOf(step)?.trial)?.quantity;

const looks = new WeakMap<Float32Array, FieldLook>();

/**
 * How a trial is drawn before there are statistics: a new quantity over its legal range, one that stays what it was in
 * the colours of the volume, which end where 99 of 100 of the trial's samples do.
 */
export function liveLook(step: string, data: Float32Array | undefined, own: FieldLook): FieldLook {
  const quantity = quantityOf(step);
  if (quantity) {
    const display = defaultDisplay(quantity);
    return { map: display.map, reverse: display.reverse, low: 0, high: 1 };
  }
  if (!data) return own;
  const known = looks.get(data);
  if (known) return { ...known, map: own.map, reverse: own.reverse };
  const every = Math.max(1, Math.floor(data.length / 20000));
  const sizes: number[] = [];
  for (let n = 0; n < data.length; n += every) if (!Number.isNaN(data[n])) sizes.push(Math.abs(data[n]));
  sizes.sort((a, b) => a - b);
  const clip = sizes[Math.floor(0.99 * (sizes.length - 1))] || 1;
  const look = own.low < 0 ? { ...own, low: -clip, high: clip } : own;
  looks.set(data, look);
  return look;
}

/** What the colours of a trial stand for. */
export function liveText(step: string, volume: Parameters<typeof quantityText>[0]): string {
  return quantityOf(step) ? 'trial, 0 alike to 1 unlike' : `trial: ${quantityText(volume)}`;
}
