import { CHANNELS, type Channel } from '../attributes/blend.ts';
import type { Blend, EarthObject, QuantityMap, Volume } from '../earth/objects.ts';

/** What a blend is of, channel by channel; null where one of them is not there any more. */
export function channelsOf(
  { madeBy }: Blend,
  objects: readonly EarthObject[],
): Partial<Record<Channel, QuantityMap | Volume>> | null {
  const out: Partial<Record<Channel, QuantityMap | Volume>> = {};
  for (const channel of CHANNELS) {
    const id = madeBy.inputs[channel]?.[0]?.split('@')[0];
    if (!id) continue;
    const found = objects.find((o) => o.id === id);
    if (found?.kind !== 'map' && found?.kind !== 'volume') return null;
    out[channel] = found;
  }
  return out.red && out.green && out.blue ? out : null;
}
