import {
  type Domain,
  type EarthObject,
  type Model,
  type Picks,
  type Plane,
  turnerOf,
  type Volume,
} from '@lithagon/core';
import { useMemo } from 'react';
import { faultIn } from '../../kinds/fault/look';
import { useConversion } from '../../state/conversion';
import type { Row } from '../common/contents';
import { type PlaneState, usePlane } from '../common/hooks';
import { sectionLine } from '../section/geometry';
import { evenFor, useTurnedSamples, useTurning } from '../section/useTurned';

/** An object in a domain; a horizon is turned as its values are read. */
function turnedObject(object: EarthObject, domain: Domain, model: Model, by: string): EarthObject {
  if (!('domain' in object) || object.domain === domain || domain === 'age') return object;
  const revision = `${object.revision} ${domain} by ${by}`;
  if (object.kind === 'fault') return { ...faultIn(object, domain, { model }), revision };
  if (object.kind === 'picks') {
    const turn = turnerOf(model, domain);
    const points = object.points.map(([x, y, v]): Picks['points'][number] => [x, y, turn(x, y, v)]);
    return { ...object, domain, revision, points: points.filter((p) => !Number.isNaN(p[2])) };
  }
  return object.kind === 'horizon' ? { ...object, revision } : object;
}

/** Rows of a scene with their objects in its domain. */
export function useTurnedRows(rows: Row[], domain: Domain): Row[] {
  const model = useConversion((s) => s.model);
  const trial = useConversion((s) => s.trial);
  const key = useConversion((s) => s.key);
  return useMemo(() => {
    if (!model) return rows;
    const by = `${key} ${JSON.stringify(trial)}`;
    return rows.map((row) => (row.why ? row : { ...row, object: turnedObject(row.object, domain, model, by) }));
  }, [rows, domain, model, key, trial]);
}

/** A volume as it lies in a domain: itself, or turned on the fly; null where the model does not reach. */
export function useVolumeIn(volume: Volume | undefined, domain: Domain): Volume | null {
  const model = useConversion((s) => s.model);
  return useMemo(() => {
    if (!volume || volume.domain === domain) return volume ?? null;
    if (!model || domain === 'age' || volume.domain === 'age') return null;
    const even = evenFor(model, volume, sectionLine(volume.binGrid, 'inline', 0));
    return even && { ...volume, domain, vertical: even };
  }, [volume, domain, model]);
}

/** An inline or crossline of a volume in the domain of a scene. */
export function useTurnedPlane(
  volume: Volume | undefined,
  plane: Exclude<Plane, 'slice'>,
  index: number,
  domain: Domain,
): PlaneState | null {
  const [own] = usePlane(volume, plane, index);
  const binGrid = volume?.binGrid;
  const at = own?.index ?? index;
  const line = useMemo(() => (binGrid ? sectionLine(binGrid, plane, at) : NOWHERE), [binGrid, plane, at]);
  const turning = useTurning(line, volume && volume.domain !== domain ? domain : 'age');
  const turned = useTurnedSamples(volume, line, own, domain, turning);
  return turned?.samples ?? null;
}

const NOWHERE = sectionLine(
  {
    inline: { first: 0, step: 1, count: 1 },
    crossline: { first: 0, step: 1, count: 1 },
    origin: [0, 0],
    perInline: [0, 1],
    perCrossline: [1, 0],
  },
  'inline',
  0,
);
