import { type EarthObject, type Fault, type FaultSets, planeOfFault, poleOf, toNet } from '@lithagon/core';
import { pebble } from '../../color/maps';
import { hiddenByNet, setOfFault } from '../../state/faultFilter';

/** A fault as the net shows it. */
export interface Pole {
  fault: Fault;
  dip: number;
  azimuth: number;
  areaM2: number;
  /** Mean strength, where it was found in a volume. */
  strength: number | null;
  /** Place on the disc, y to the north. */
  at: [number, number];
  /** Number of its set in what is shown; −1 where it is in none. */
  set: number;
  color: string;
  hidden: string | null;
}

/** Colour of what is in no set. */
export const UNSORTED = '#5d656c';

/** Faults that have a plane, with where their poles lie. */
export function polesOf(faults: Fault[], objects: EarthObject[], velocity: number): Pole[] {
  return faults.flatMap((fault) => {
    const plane = planeOfFault(fault, velocity);
    if (!plane) return [];
    const set = setOfFault(fault.id, objects)?.set ?? -1;
    return [
      {
        fault,
        ...plane,
        strength: fault.found?.strength ?? null,
        at: toNet(poleOf(plane)),
        set,
        color: set >= 0 ? pebble(set) : UNSORTED,
        hidden: hiddenByNet(fault, objects),
      },
    ];
  });
}

/** The latest sorting there is. */
export const latestSets = (objects: EarthObject[]): FaultSets | undefined =>
  objects.findLast((o): o is FaultSets => o.kind === 'fault sets');

/** A plane in words. */
export const planeText = ({ dip, azimuth }: { dip: number; azimuth: number }): string =>
  `strike ${Math.round((azimuth + 270) % 360)}°, dips ${Math.round(dip)}° to ${Math.round(azimuth)}°`;
