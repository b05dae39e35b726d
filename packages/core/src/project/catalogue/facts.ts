import { type Units, unitsOf } from '../../earth/display.ts';
import type { EarthObject } from '../../earth/objects.ts';
import type { Fact } from '../../kinds/define.ts';
import { kindOf } from '../../kinds/index.ts';
import { waitingFor } from '../wells/wells.ts';
import { outOfDate } from './staleness.ts';

/** One line of a project's list. */
export interface Listed {
  id: string;
  kind: string;
  name: string;
  stage: string;
  domain?: string;
  quantity?: string;
  unit?: string;
  outOfDate: boolean;
  waitingFor?: string;
}

/** What a project holds, in the order of the work. */
export function listObjects(objects: EarthObject[]): Listed[] {
  const old = outOfDate(objects);
  const waiting = waitingFor(objects);
  return objects.map((o) => ({
    id: o.id,
    kind: o.kind,
    name: o.name,
    stage: o.stage,
    ...('domain' in o ? { domain: o.domain } : {}),
    ...('quantity' in o ? { quantity: o.quantity } : {}),
    ...('unit' in o ? { unit: o.unit } : {}),
    outOfDate: old.has(o.id),
    ...(waiting.has(o.id) ? { waitingFor: waiting.get(o.id) } : {}),
  }));
}

/** What tells an object apart from others of its kind, in a word or two. */
export const asideOf = (object: EarthObject, units: Units = unitsOf(null)): string =>
  kindOf(object).aside(object, units);

/** Facts of one object as labelled lines, the same wherever they are shown. */
export function factsOf(object: EarthObject, units: Units = unitsOf(null)): Fact[] {
  const domain = 'domain' in object ? object.domain : null;
  const said = domain === 'twt' ? 'TWT, ms' : domain === 'depth' ? `Depth, ${units.of('m')}` : 'Age';
  return [
    { label: 'Kind', value: object.kind },
    ...(domain ? [{ label: 'Domain', value: said }] : []),
    ...kindOf(object).facts(object, units),
  ];
}
