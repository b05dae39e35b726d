import { quantityFacts, stepOf } from '@lithagon/core';
import { quantityText } from '../common/ColorBar';
import type { FieldLook } from '../raster/field';

/** What the first result of a step is, where that is something else than what goes in. */
function quantityOf(step: string) {
  const known = stepOf(step);
  const [role] = Object.keys(known?.outputs ?? {});
  return known?.local?.outputs?.[role]?.quantity;
}

const looks = new WeakMap<Float32Array, { low: number; high: number }>();

/**
 * How a trial is drawn before there are statistics: a bounded quantity over its legal range, any other in its colours, or in
 * those of the volume where it stays what it was, to where 99 of 100 of the trial's samples lie.
 */
export function liveLook(step: string, data: Float32Array | undefined, own: FieldLook): FieldLook {
  const quantity = quantityOf(step);
  const facts = quantity ? quantityFacts(quantity) : null;
  const colors = facts ? facts.colors : { map: own.map, reverse: own.reverse };
  const [least, most] = facts?.range ?? [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  // a legal range that is all of the scale, as that of a part is; one of what rock may be is far too wide
  if (facts?.ends) return { ...colors, low: least, high: most };
  if (!data) return { ...own, ...colors };
  const signed = facts ? facts.symmetric : own.low < 0;
  const known = looks.get(data) ?? endsOf(data, signed);
  looks.set(data, known);
  return { ...own, ...colors, ...known };
}

/** Where 99 of 100 samples lie: to both sides alike where they are signed. */
function endsOf(data: Float32Array, signed: boolean): { low: number; high: number } {
  const every = Math.max(1, Math.floor(data.length / 20000));
  const values: number[] = [];
  for (let n = 0; n < data.length; n += every)
    if (!Number.isNaN(data[n])) values.push(signed ? Math.abs(data[n]) : data[n]);
  values.sort((a, b) => a - b);
  if (values.length === 0) return { low: signed ? -1 : 0, high: 1 };
  const at = (part: number) => values[Math.floor(part * (values.length - 1))];
  const high = at(0.99) || (signed ? 1 : 0);
  const low = signed ? -high : at(0.01);
  return { low, high: high > low ? high : low + 1 };
}

/** What the colours of a trial stand for. */
export function liveText(step: string, volume: Parameters<typeof quantityText>[0]): string {
  const quantity = quantityOf(step);
  if (!quantity) return `trial: ${quantityText(volume)}`;
  return `trial: ${quantityText({ quantity, unit: quantityFacts(quantity).unit })}`;
}
