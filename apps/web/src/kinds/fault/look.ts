import type { Domain, EarthObject, Fault } from '@lithagon/core';
import { pebble } from '../../color/maps';
import { hiddenByNet, setOfFault } from '../../state/faultFilter';
import { useProject } from '../../state/project';
import { INK, otherDomain } from '../define';

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

/** Why a fault is not drawn: it is in the other domain, or hidden by the net. */
export const notDrawn = (object: Fault, domain: Domain): string | null =>
  otherDomain(object, domain) ?? hiddenByNet(object, useProject.getState().objects);
