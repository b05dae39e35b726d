import type { EarthObject, Horizon, Volume } from '@lithagon/core';
import type { PlotDesk } from '../../state/plotDesk';

/** Horizons that can bound samples of a volume, from the shallowest down. */
export function zoneHorizons(objects: EarthObject[], volume: Volume | undefined): Horizon[] {
  return objects
    .filter((o): o is Horizon => o.kind === 'horizon' && o.domain === volume?.domain)
    .sort((a, b) => a.range[0] + a.range[1] - b.range[0] - b.range[1]);
}

/** Samples that a zone has at least. */
const LEAST = 5;

/** Where a crossplot of volumes begins: between the deepest horizon and the next one above it, or else the middle tenth of the samples. */
export function usualZone(
  objects: EarthObject[],
  volume: Volume | undefined,
): Pick<PlotDesk, 'top' | 'base' | 'fromVertical' | 'toVertical'> {
  const { first, step, count } = volume?.vertical ?? { first: 0, step: 0, count: 1 };
  const at = (part: number) => first + Math.round(part * (count - 1)) * step;
  const horizons = zoneHorizons(objects, volume);
  const middle = (h: Horizon) => (h.range[0] + h.range[1]) / 2;
  const base = horizons.at(-1);
  // two pickings of one event bound nothing
  const top = base && horizons.findLast((h) => middle(base) - middle(h) > LEAST * step);
  return {
    top: top ? top.id : '',
    base: top ? base.id : '',
    fromVertical: at(0.45),
    toVertical: at(0.55),
  };
}
