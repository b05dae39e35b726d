import { type Domain, type EarthObject, type Fault, turnerOf } from '@lithagon/core';
import { pebble } from '../../color/maps';
import { hiddenByNet, setOfFault } from '../../state/faultFilter';
import { useProject } from '../../state/project';
import type { Turning } from '../../views/section/useTurned';
import { INK, turnable } from '../define';

/** The colour of the set that a fault is in, where it is in one. */
export function setColor({ id }: Fault, objects: EarthObject[]): string | null {
  const own = setOfFault(id, objects);
  return own && own.set >= 0 ? pebble(own.set) : null;
}

/** What stands for a fault in lists. */
export const faultColor = (object: Fault, objects: EarthObject[]): string => setColor(object, objects) ?? INK();

/** The same drawn on data, whatever the theme. */
export const drawnColor = (object: Fault, objects: EarthObject[]): string =>
  object.color ?? setColor(object, objects) ?? '#17191b';

/** And as a surface in the scene. */
export const sceneColor = (object: Fault, objects: EarthObject[]): string =>
  object.color ?? setColor(object, objects) ?? '#6f6a62';

/** Why a fault is not drawn: nothing turns it into that domain, or it is hidden by the net. */
export const notTurned = (object: Fault, domain: Domain): string | null =>
  turnable(object, domain) ?? hiddenByNet(object, useProject.getState().objects);

/** A fault in a domain, its sticks turned point by point; points that the model does not reach are left out. */
export function faultIn(object: Fault, domain: Domain, turning: Pick<Turning, 'model'> | null): Fault {
  if (object.domain === domain || !turning || domain === 'age') return object;
  const turn = turnerOf(turning.model, domain);
  const sticks = object.sticks
    .map((stick) => stick.map(([x, y, v]): [number, number, number] => [x, y, turn(x, y, v)]))
    .map((stick) => stick.filter((p) => !Number.isNaN(p[2])))
    .filter((stick) => stick.length > 0);
  return { ...object, domain, sticks };
}
