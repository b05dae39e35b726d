import type { Units } from '../earth/display.ts';
import { type Domain, domainUnit } from '../earth/objects.ts';

/** A quantity with its unit. */
export const quantityText = ({ quantity, unit }: { quantity: string; unit: string }, units: Units): string =>
  [quantity, units.of(unit)].filter(Boolean).join(', ');

/** How samples lie: count, first and step in the unit of their domain. */
export function samplesText(
  { vertical: v, domain }: { vertical: { first: number; step: number; count: number }; domain: Domain },
  units: Units,
): string {
  const step = domainUnit(domain);
  return `${v.count} from ${Number(units.to(v.first, step).toFixed(2))} by ${Number(units.to(v.step, step).toFixed(4))} ${units.of(step)}`;
}
