import type { EarthObject } from '../../earth/objects.ts';
import { activeRelation } from '../wells/wells.ts';
import { dependents } from './catalogue.ts';

/**
 * Objects that are out of date: an input has another revision than the one they were made from, is gone, or is
 * itself out of date. The value says which input, in words.
 */
export function outOfDate(objects: EarthObject[]): Map<string, string> {
  const byId = new Map(objects.map((o) => [o.id, o]));
  const out = new Map<string, string>();
  const seen = new Set<string>();
  const visit = (object: EarthObject): void => {
    if (seen.has(object.id)) return;
    seen.add(object.id);
    for (const [role, references] of Object.entries(object.madeBy.inputs))
      for (const reference of references) {
        const [id, revision] = reference.split('@');
        const input = byId.get(id);
        if (!input) {
          out.set(object.id, 'something that it was made from is gone');
          continue;
        }
        visit(input);
        if (input.revision !== revision) out.set(object.id, `${input.name} has changed since`);
        else if (out.has(id)) out.set(object.id, `${input.name} is out of date`);
        else if (role.endsWith('.time-depth relation') && input.kind === 'time-depth relation') {
          const active = activeRelation(objects, input.well);
          // a tie that was made with a wavelet is nothing that the wavelet can be made from
          if (active && active.id !== id && !dependents(objects, [object.id]).includes(active))
            out.set(object.id, `${active.name} is the active tie of ${input.well} now`);
        }
      }
  };
  for (const object of objects) visit(object);
  return out;
}
