import type { EarthObject } from '@lithagon/core';
import { webKindOf } from '../kinds';
import { select } from '../state/selection';

/** Open an object in the view that fits it. */
export function showObject(object: EarthObject): void {
  select(object.id);
  webKindOf(object).show?.(object);
}
