import { depthOfTime, timeOfDepth } from './column.ts';
import type { Model } from './model.ts';

/** A position of one domain in the other at a place; NaN where the model does not reach. */
export type Turn = (x: number, y: number, value: number) => number;

/** Positions in a domain from those of the other. */
export function turnerOf(model: Model, to: 'twt' | 'depth'): Turn {
  const of = to === 'depth' ? depthOfTime : timeOfDepth;
  return (x, y, value) => {
    const column = Number.isNaN(value) ? null : model.column(x, y);
    return column ? of(column, value) : Number.NaN;
  };
}
