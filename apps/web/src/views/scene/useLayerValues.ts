import { type CurveClass, channelsOf, type EarthObject, type QuantityMap } from '@lithagon/core';
import { useEffect, useState } from 'react';
import { readArray } from '../../compute/planes';
import { sceneLayerOf } from '../../kinds/scene';
import { useProject } from '../../state/project';
import type { Row } from '../common/contents';

/** Values that what is seen asks for, by object, and of the maps that it is coloured by: read once for each revision, and given together. */
export function useLayerValues(rows: Row[], objects: EarthObject[], log: CurveClass | null): Map<string, Float32Array> {
  const projectId = useProject((s) => s.id);
  const [values, setValues] = useState(new Map<string, Float32Array>());
  const wanted = rows.flatMap(({ object, eye, why, paint }) => {
    const array = eye && !why ? sceneLayerOf(object)?.values?.(object, { objects, log }) : undefined;
    const own = array ? [{ id: object.id, key: `${object.id}@${object.revision}/${array.key}`, array }] : [];
    const by = array && paint ? objects.find((o) => o.id === paint) : undefined;
    const maps: QuantityMap[] =
      by?.kind === 'map'
        ? [by]
        : by?.kind === 'blend'
          ? Object.values(channelsOf(by, objects) ?? {}).filter((o) => o.kind === 'map')
          : [];
    return [...own, ...maps.map((m) => ({ id: m.id, key: `${m.id}@${m.revision}`, array: m.values }))];
  });
  const keys = wanted.map((w) => w.key).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the keys stand for what is read
  useEffect(() => {
    let here = true;
    void Promise.all(
      wanted.map(async ({ id, key, array }) => [id, await readArray(projectId, key, array)] as const),
    ).then((read) => here && setValues(new Map(read)));
    return () => {
      here = false;
    };
  }, [keys, projectId]);
  return values;
}
