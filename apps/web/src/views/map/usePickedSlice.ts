import { type Fault, meshOfSticks, toIndex, type Volume, type Wall } from '@lithagon/core';
import { useMemo } from 'react';
import type { PickedSlice } from '../../actions/picking/slice';
import type { Row } from '../common/contents';
import type { Ground } from './ground';
import { faultTrace, type Surface } from './surface';

/** The slice that a map shows, as picking needs it: its faults, as far as they are shown, are walls. Null where it shows none in TWT. */
export function usePickedSlice(
  slice: Volume | undefined,
  ground: Ground | null,
  level: Surface | null,
  rows: Row[],
): PickedSlice | null {
  const walls = useMemo(() => {
    if (!level || !slice) return [];
    return rows.flatMap(({ object, eye, why }): Wall[] =>
      object.kind === 'fault' && eye && !why
        ? faultTrace(meshOfSticks((object as Fault).sticks), level).map(([a, b]) => [
            ...toIndex(level.binGrid, ...a),
            ...toIndex(level.binGrid, ...b),
          ])
        : [],
    );
  }, [level, slice, rows]);
  const time = typeof ground?.vertical === 'number' ? ground.vertical : null;
  const values = ground?.plane && !ground.plane.coarse ? ground.values : null;
  return useMemo(
    () => (slice?.domain === 'twt' && time !== null && values ? { volume: slice, time, values, walls } : null),
    [slice, time, values, walls],
  );
}
