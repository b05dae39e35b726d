import {
  type ArrayRef,
  type CurveClass,
  channelsOf,
  type EarthObject,
  type Horizon,
  type Volume,
} from '@lithagon/core';
import { useEffect, useState } from 'react';
import { readArray, readOnHorizon } from '../../compute/planes';
import { sceneLayerOf } from '../../kinds/scene';
import { useProject } from '../../state/project';
import type { Row } from '../common/contents';

/** A volume on a surface goes by the two. */
export const onSurface = (surface: EarthObject, volume: Volume): string => `${volume.id} on ${surface.id}`;

type Wanted = { id: string; key: string } & ({ array: ArrayRef } | { volume: Volume; horizon: Horizon });

/** Values that what is seen asks for, by object, and of the maps that it is coloured by: read once for each revision, and given together. */
export function useLayerValues(rows: Row[], objects: EarthObject[], log: CurveClass | null): Map<string, Float32Array> {
  const projectId = useProject((s) => s.id);
  const [values, setValues] = useState(new Map<string, Float32Array>());
  const wanted = rows.flatMap(({ object, eye, why, paint }) => {
    const array = eye && !why ? sceneLayerOf(object)?.values?.(object, { objects, log }) : undefined;
    const own: Wanted[] = array ? [{ id: object.id, key: `${object.id}@${object.revision}/${array.key}`, array }] : [];
    const by = array && paint ? objects.find((o) => o.id === paint) : undefined;
    const painters: EarthObject[] =
      by?.kind === 'blend' ? Object.values(channelsOf(by, objects) ?? {}) : by ? [by] : [];
    return [
      ...own,
      ...painters.flatMap((m): Wanted[] => {
        if (m.kind === 'map') return [{ id: m.id, key: `${m.id}@${m.revision}`, array: m.values }];
        if (m.kind !== 'volume' || object.kind !== 'horizon') return [];
        const id = onSurface(object, m);
        return [{ id, key: `${id}@${object.revision},${m.revision}`, volume: m, horizon: object }];
      }),
    ];
  });
  const keys = wanted.map((w) => w.key).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the keys stand for what is read
  useEffect(() => {
    let here = true;
    void Promise.all(
      wanted.map(
        async (w) =>
          [
            w.id,
            'array' in w
              ? await readArray(projectId, w.key, w.array)
              : await readOnHorizon(projectId, w.volume, w.horizon),
          ] as const,
      ),
    ).then((read) => here && setValues(new Map(read)));
    return () => {
      here = false;
    };
  }, [keys, projectId]);
  return values;
}
