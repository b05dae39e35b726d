import { stepOf } from '@lithagon/core';
import { defaultDisplay } from '../../state/desk';
import type { FieldLook } from '../raster/field';

/** How a trial is drawn before there are statistics: over the legal range of its quantity. */
export function liveLook(step: string): FieldLook {
  const quantity = stepOf(step)?.local?.quantity ?? 'attribute';
  const display = defaultDisplay(quantity);
  return { map: display.map, reverse: display.reverse, low: 0, high: 1 };
}
