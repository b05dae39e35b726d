import type { EarthObject, Fault, FaultSets } from '@lithagon/core';
import { create } from 'zustand';

/** Which faults are drawn, in every view: what the handles and the boxes of the net say. */
interface FaultFilter {
  /** Areas and strengths below these are hidden; faults of which neither is known are not. */
  leastM2: number;
  leastStrength: number;
  /** Names of sets that are shut. */
  shut: string[];
}

export const useFaultFilter = create<FaultFilter>(() => ({ leastM2: 0, leastStrength: 0, shut: [] }));

/** The latest sorting that a fault is in, and the number of its set there; −1 where it is in none of them. */
export function setOfFault(id: string, objects: EarthObject[]): { sets: FaultSets; set: number } | null {
  for (let n = objects.length - 1; n >= 0; n--) {
    const object = objects[n];
    if (object.kind !== 'fault sets') continue;
    const member = object.members.find((m) => m.fault === id);
    if (member) return { sets: object, set: member.set };
  }
  return null;
}

/** Why a fault is hidden by the net, or null. */
export function hiddenByNet({ id, found }: Fault, objects: EarthObject[]): string | null {
  const { leastM2, leastStrength, shut } = useFaultFilter.getState();
  if (found && found.areaM2 < leastM2) return 'is smaller than the handle on the net says';
  if (found && found.strength < leastStrength) return 'is weaker than the handle on the net says';
  if (shut.length === 0) return null;
  const own = setOfFault(id, objects);
  return own && own.set >= 0 && shut.includes(own.sets.sets[own.set].name)
    ? 'is of a set that is shut on the net'
    : null;
}
