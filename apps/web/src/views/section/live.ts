import { checkParams, type Quantity, quantityFacts, stepOf, type Volume } from '@lithagon/core';
import { quantityText } from '../common/ColorBar';
import { classLook } from '../common/look';
import type { FieldLook } from '../raster/field';

/** A step as it is tried. */
export interface Tried {
  step: string;
  params: Record<string, unknown>;
}

/** What the first result of a step is, where that is something else than what goes in, with its unit. */
function resultOf({ step, params }: Tried, volume: Volume): { quantity: Quantity; unit: string } | null {
  const known = stepOf(step);
  const [role] = Object.keys(known?.outputs ?? {});
  const local = known?.local;
  if (!known || !local) return null;
  let own = local.outputs?.[role];
  try {
    own = { ...own, ...local.outputOf?.(volume, checkParams(known, params)) };
  } catch {
    // what cannot be worked out gives nothing that could be named
  }
  return own?.quantity ? { quantity: own.quantity, unit: own.unit ?? quantityFacts(own.quantity).unit } : null;
}

const looks = new WeakMap<Float32Array, { low: number; high: number }>();

/**
 * How a trial is drawn before there are statistics: a bounded quantity over its legal range, any other in its colours, or in
 * those of the volume where it stays what it was, to where 99 of 100 of the trial's samples lie.
 */
export function liveLook(tried: Tried, volume: Volume, data: Float32Array | undefined, own: FieldLook): FieldLook {
  const result = resultOf(tried, volume);
  const facts = result ? quantityFacts(result.quantity) : null;
  const colors = facts ? facts.colors : { map: own.map, reverse: own.reverse };
  const [least, most] = facts?.range ?? [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  // a legal range that is all of the scale, as that of a part is; one of what rock may be is far too wide
  if (facts?.ends || facts?.scale === 'cyclic') return { ...colors, low: least, high: most };
  if (!data) return { ...own, ...colors };
  if (facts?.scale === 'categorical') {
    const known = data.filter((v) => !Number.isNaN(v));
    return classLook(
      colors,
      known.reduce((a, b) => Math.min(a, b), 1),
      known.reduce((a, b) => Math.max(a, b), 1),
    );
  }
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
export function liveText(tried: Tried, volume: Volume): string {
  return `trial: ${quantityText(resultOf(tried, volume) ?? volume)}`;
}
