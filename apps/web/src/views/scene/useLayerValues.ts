import {
  type ArrayRef,
  type CurveClass,
  channelsOf,
  type Domain,
  type EarthObject,
  type Horizon,
  type Volume,
} from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { readArray, readOnHorizon, readTurnedHorizon } from '../../compute/planes';
import { sceneLayerOf } from '../../kinds/scene';
import { useConversion } from '../../state/conversion';
import { useProject } from '../../state/project';
import type { Row } from '../common/contents';

/** A volume on a surface goes by the two. */
export const onSurface = (surface: EarthObject, volume: Volume): string => `${volume.id} on ${surface.id}`;

const NONE = new Map<string, Float32Array>();

type Wanted = { id: string; key: string } & (
  | { array: ArrayRef }
  | { volume: Volume; horizon: Horizon }
  | { turned: Horizon; source: string; to: 'twt' | 'depth' }
);

/** Values that what is seen asks for, by object, and of the maps that it is coloured by: read once for each revision, and given together. */
export function useLayerValues(
  rows: Row[],
  objects: EarthObject[],
  log: CurveClass | null,
  domain: Domain,
): Map<string, Float32Array> {
  const projectId = useProject((s) => s.id);
  const source = useConversion((s) => s.id);
  const [read, setRead] = useState<{ keys: string; values: Map<string, Float32Array> }>({ keys: '', values: NONE });
  const wanted = rows.flatMap(({ object, eye, why, paint }) => {
    const array = eye && !why ? sceneLayerOf(object)?.values?.(object, { objects, log }) : undefined;
    const key = `${object.id}@${object.revision}/${array?.key}`;
    // a horizon of the other domain is turned as it is read
    const turned = object.kind === 'horizon' && object.domain !== domain && domain !== 'age' && source ? object : null;
    const own: Wanted[] = !array
      ? []
      : turned && source
        ? [{ id: object.id, key: `${key} ${domain}`, turned, source, to: domain as 'twt' | 'depth' }]
        : [{ id: object.id, key, array }];
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
  const keys = wanted.map((w) => w.key).join('\n');
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
              : 'turned' in w
                ? await readTurnedHorizon(projectId, w.key, w.turned, w.source, w.to)
                : await readOnHorizon(projectId, w.volume, w.horizon),
          ] as const,
      ),
    ).then((all) => here && setRead({ keys, values: new Map(all) }));
    return () => {
      here = false;
    };
  }, [keys, projectId]);
  // what was read for another domain or other objects is not drawn as what is wanted now
  // biome-ignore lint/correctness/useExhaustiveDependencies: the keys stand for what is wanted
  return useMemo(() => (read.keys === keys ? read.values : kept(read, wanted)), [read, keys]);
}

/** Of what was read before, what is wanted still. */
function kept(read: { keys: string; values: Map<string, Float32Array> }, wanted: Wanted[]): Map<string, Float32Array> {
  const keys = new Set(read.keys.split('\n'));
  return new Map(
    wanted.flatMap((w): [string, Float32Array][] => {
      const values = keys.has(w.key) ? read.values.get(w.id) : undefined;
      return values ? [[w.id, values]] : [];
    }),
  );
}
