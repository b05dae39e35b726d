import type { CurveClass, EarthObject, QuantityMap } from '@lithagon/core';
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
    const map = array && paint ? objects.find((o): o is QuantityMap => o.id === paint && o.kind === 'map') : undefined;
    return map ? [...own, { id: map.id, key: `${map.id}@${map.revision}`, array: map.values }] : own;
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
