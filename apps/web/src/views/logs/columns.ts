import {
  type CurveClass,
  curvesOf,
  type EarthObject,
  type Logs,
  pathOf,
  pointAtMd,
  relationOf,
  shotDepths,
  shownFacies,
  type Top,
  topsOf,
  twtOfDepth,
  type Well,
  type WellTable,
} from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { readArray } from '../../compute/planes';
import type { DepthKind } from '../../state/logsTemplate';
import { useProject } from '../../state/project';

/** Values of a curve with extremes of every sixteen, so that any zoom draws few points. */
export interface DrawnCurve {
  key: string;
  class: CurveClass;
  unit: string;
  min: number;
  max: number;
  firstM: number;
  stepM: number;
  values: Float32Array;
  low: Float32Array;
  high: Float32Array;
}

/** A well as the view draws it. */
export interface WellColumn {
  well: Well;
  curves: Map<string, DrawnCurve>;
  tops: Top[];
  facies: WellTable | undefined;
  core: { md: number; porosity: number }[];
  checkshots: number[];
  /** The shared axis at a measured depth, before it is hung; NaN where it is not known. */
  axisAt(md: number): number;
  mdAt(axis: number): number;
  first: number;
  last: number;
}

export const EVERY = 16;

export function extremes(values: Float32Array): [Float32Array, Float32Array] {
  const count = Math.ceil(values.length / EVERY);
  const [low, high] = [new Float32Array(count).fill(Number.NaN), new Float32Array(count).fill(Number.NaN)];
  for (let n = 0; n < values.length; n++) {
    const v = values[n];
    if (v !== v) continue;
    const b = (n / EVERY) | 0;
    if (!(low[b] <= v)) low[b] = v;
    if (!(high[b] >= v)) high[b] = v;
  }
  return [low, high];
}

/** The shared axis down a well and back, from its path and its relation. */
export function axisOf(objects: EarthObject[], well: Well, depth: DepthKind) {
  const path = pathOf(objects, well);
  const relation = depth === 'TWT' ? relationOf(objects, well.name) : null;
  const deepest = Math.max(well.totalMdM ?? 0, path.md[path.md.length - 1]);
  const STEP = 2;
  const table = Float64Array.from({ length: Math.ceil(deepest / STEP) + 2 }, (_, n) => {
    const md = n * STEP;
    if (depth === 'MD') return md;
    const { tvdss } = pointAtMd(path, md);
    if (depth === 'TVDSS') return tvdss;
    if (depth === 'TVD') return tvdss + well.kbM;
    return relation && tvdss >= 0 ? twtOfDepth(relation, tvdss) : Number.NaN;
  });
  const axisAt = (md: number) => {
    const x = md / STEP;
    const n = Math.max(0, Math.min(table.length - 2, Math.floor(x)));
    return table[n] + (x - n) * (table[n + 1] - table[n]);
  };
  const mdAt = (axis: number) => {
    let [low, high] = [0, table.length - 1];
    while (Number.isNaN(table[low]) && low < high) low++;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (table[middle] < axis) low = middle;
      else high = middle;
    }
    const f = (axis - table[low]) / (table[high] - table[low] || 1);
    // straight on beyond both ends, so that rows above and below a well are not folded onto it
    return (low + f) * STEP;
  };
  return { axisAt, mdAt, deepest };
}

const cache = new Map<string, Promise<DrawnCurve>>();

async function load(projectId: string, key: string, logs: Logs, curve: Logs['curves'][number]): Promise<DrawnCurve> {
  const values = await readArray(projectId, `${curve.data.key}@${logs.revision}`, curve.data);
  const [low, high] = extremes(values);
  const { min, max, unit } = curve;
  return {
    key,
    class: curve.class,
    unit,
    min,
    max,
    firstM: logs.depth.firstM,
    stepM: logs.depth.stepM,
    values,
    low,
    high,
  };
}

/** Wells with the curves that a template asks for, as they come. */
export function useColumns(ids: string[], wanted: string[], depth: DepthKind): WellColumn[] {
  const objects = useProject((s) => s.objects);
  const projectId = useProject((s) => s.id);
  const [curves, setCurves] = useState<Map<string, DrawnCurve>>(new Map());
  const needed = useMemo(() => {
    const out: { id: string; key: string; cached: string; logs: Logs; curve: Logs['curves'][number] }[] = [];
    for (const id of ids) {
      const well = objects.find((o): o is Well => o.id === id && o.kind === 'well');
      if (!well) continue;
      const all = curvesOf(objects, well.name);
      for (const key of wanted) {
        const held = all.get(key);
        if (held) out.push({ id, key, cached: `${projectId}/${held.curve.data.key}@${held.logs.revision}`, ...held });
      }
    }
    return out;
  }, [ids, wanted, objects, projectId]);
  useEffect(() => {
    let alive = true;
    void Promise.all(
      needed.map(async (n) => {
        let promise = cache.get(n.cached);
        if (!promise) {
          promise = load(projectId, n.key, n.logs, n.curve);
          promise.catch(() => cache.delete(n.cached));
          cache.set(n.cached, promise);
        }
        return [`${n.id}/${n.key}`, await promise] as const;
      }),
    ).then(
      (pairs) => alive && setCurves(new Map(pairs)),
      () => undefined,
    );
    return () => {
      alive = false;
    };
  }, [needed, projectId]);
  return useMemo(
    () =>
      ids.flatMap((id): WellColumn[] => {
        const well = objects.find((o): o is Well => o.id === id && o.kind === 'well');
        if (!well) return [];
        const { axisAt, mdAt, deepest } = axisOf(objects, well, depth);
        const own = new Map<string, DrawnCurve>();
        for (const key of wanted) {
          const curve = curves.get(`${id}/${key}`);
          if (curve) own.set(key, curve);
        }
        const table = (kind: WellTable['kind']) =>
          objects.find((o): o is WellTable => o.kind === kind && 'well' in o && o.well === well.name);
        const core = table('core points');
        const shots = table('checkshots');
        const porosity = core?.columns.findIndex((c) => /porosity/i.test(c.name)) ?? -1;
        return [
          {
            well,
            curves: own,
            tops: topsOf(objects, well.name),
            facies: shownFacies(objects, well.name),
            core:
              porosity < 0 ? [] : (core?.rows ?? []).map((r) => ({ md: Number(r[0]), porosity: Number(r[porosity]) })),
            checkshots: shots ? shotDepths(objects, shots) : [],
            axisAt,
            mdAt,
            first: 0,
            last: deepest,
          },
        ];
      }),
    [ids, wanted, objects, curves, depth],
  );
}
