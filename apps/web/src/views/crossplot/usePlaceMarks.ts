import { gridAt, type Horizon, type QuantityMap, type Volume } from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { readAlong } from '../../compute/planes';
import { useCursor } from '../../state/cursor';
import type { PlotDesk } from '../../state/plotDesk';
import { useProject } from '../../state/project';
import { useArray } from '../common/hooks';

/** How long the pointer rests before the trace under it is read, ms. */
const REST = 40;
/** Half of what of a trace is marked around the pointer, ms or m. */
const AROUND = 40;

/** Points of the place that the pointer is at in another view: of volumes the trace around it, the sample itself first. */
export interface PlaceMark {
  x: number;
  y: number;
}

const logged = (v: number, log: boolean) => (log ? Math.log10(v) : v);

/** Where the place under the pointer stands in a crossplot of maps or volumes; none of one of logs. */
export function usePlaceMarks(desk: PlotDesk): PlaceMark[] {
  const projectId = useProject((s) => s.id);
  const a = useProject((s) => s.byId.get(desk.x.of));
  const b = useProject((s) => s.byId.get(desk.y.of));
  const cursor = useCursor((s) => s.at);
  const [traces, setTraces] = useState<{ key: string; x: Float32Array; y: Float32Array } | null>(null);
  const volumes = a?.kind === 'volume' && b?.kind === 'volume' ? ([a, b] as [Volume, Volume]) : null;
  const place = cursor && `${Math.round(cursor.x)},${Math.round(cursor.y)}`;
  const key = volumes && place ? `${volumes.map((v) => `${v.id}@${v.revision}`).join()} ${place}` : '';
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for volumes and place
  useEffect(() => {
    if (!volumes || !cursor) return;
    let wanted = true;
    const { x, y } = cursor;
    const timer = setTimeout(() => {
      const read = (v: Volume) =>
        readAlong(projectId, v, `${v.id}@${v.revision}/mark/${place}`, [
          [x, y],
          [x, y],
        ]);
      Promise.all(volumes.map(read)).then(
        ([p, q]) => wanted && setTraces({ key, x: p, y: q }),
        () => undefined,
      );
    }, REST);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [key, projectId]);
  const surface = (o: typeof a) =>
    o?.kind === 'map' || o?.kind === 'horizon' ? (o as QuantityMap | Horizon) : undefined;
  const [m, n] = [surface(a), surface(b)];
  const mValues = useArray(m?.id, m?.revision, m?.values);
  const nValues = useArray(n?.id, n?.revision, n?.values);
  return useMemo(() => {
    const marks: PlaceMark[] = [];
    const put = (x: number, y: number) => {
      const mark = { x: logged(x, desk.x.log), y: logged(y, desk.y.log) };
      if (Number.isFinite(mark.x) && Number.isFinite(mark.y)) marks.push(mark);
    };
    if (!cursor) return marks;
    if (m && n && mValues && nValues)
      put(gridAt(mValues, m.binGrid, cursor.x, cursor.y), gridAt(nValues, n.binGrid, cursor.x, cursor.y));
    if (!volumes || traces?.key !== key || cursor.vertical === null || cursor.domain !== volumes[0].domain)
      return marks;
    const { first, step, count } = volumes[0].vertical;
    const middle = Math.round((cursor.vertical - first) / step);
    const reach = Math.round(AROUND / step);
    for (let off = 0; off <= reach; off++)
      for (const k of off === 0 ? [middle] : [middle - off, middle + off])
        if (k >= 0 && k < count) put(traces.x[k], traces.y[k]);
    return marks;
  }, [cursor, traces, key, volumes, m, n, mValues, nValues, desk.x.log, desk.y.log]);
}
