import {
  columnOf,
  depthOfTime,
  type EarthObject,
  MEAN_OF,
  type Model,
  pathOf,
  relationOf,
  type SeismicLine,
  toMap,
  type Volume,
  velocityOfTime,
  type Well,
} from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { pebble } from '../../color/maps';
import { readAlong } from '../../compute/planes';
import { useModels } from '../../state/conversion';
import { useProject } from '../../state/project';
import { usePlace } from '../../state/views';
import { indexAt, shownVolume } from '../common/survey';
import { useLinkedCursor } from '../common/useLinkedCursor';

/** One source of velocities at a place. */
export interface Source {
  id: string;
  name: string;
  kind: 'model' | 'volume' | 'well';
  color: string;
  /** Of what is a mean from time nought down. */
  mean: boolean;
  /** TWT (ms), velocity (m/s): corners of steps and lines. */
  velocity: [number, number][];
  /** TWT (ms), depth (m). */
  depth: [number, number][];
  /** Of a model: TWT of the boundaries of its layers, with their names. */
  boundaries: { name: string; t: number }[];
  /** Of a well: how far off it is, m. */
  off?: number;
}

/** Time between the points of a curve, ms, and the time to which curves go where nothing says so. */
const STEP = 4;
/** Wells farther off than this are not near, m; and most of them. */
const NEAR_M = 3000;
const MOST_WELLS = 5;

export interface Here {
  x: number;
  y: number;
}

/** Where the velocity view looks: at the cursor of linked views, else where sections run through. */
export function useHereOnMap(): Here | null {
  const objects = useProject((s) => s.objects);
  const cursor = useLinkedCursor();
  const place = usePlace();
  const volume = useMemo(() => shownVolume(objects, null), [objects]);
  const line = useMemo(() => objects.find((o): o is SeismicLine => o.kind === 'seismic line'), [objects]);
  if (cursor) return { x: cursor.x, y: cursor.y };
  if (volume) {
    const [x, y] = toMap(volume.binGrid, indexAt(volume, 'inline', place), indexAt(volume, 'crossline', place));
    return { x, y };
  }
  const middle = line?.path[line.path.length >> 1];
  return middle ? { x: middle[0], y: middle[1] } : null;
}

/** Last time of anything that is looked at, ms. */
function latestOf(objects: EarthObject[]): number {
  const ends = objects.flatMap((o) =>
    (o.kind === 'volume' || o.kind === 'seismic line') && o.domain === 'twt'
      ? [o.vertical.first + o.vertical.step * (o.vertical.count - 1)]
      : [],
  );
  return ends.length > 0 ? Math.max(...ends) : 3000;
}

function ofModel(id: string, name: string, color: string, model: Model, here: Here, latest: number): Source | null {
  const column = model.column(here.x, here.y);
  if (!column) return null;
  const velocity: Source['velocity'] = [];
  const depth: Source['depth'] = [];
  // corners of boundaries and evenly between them
  const knots = [0, ...column.t, latest].filter((t) => t <= latest);
  const times = new Set(knots.flatMap((t) => [t - 1e-6, t + 1e-6]));
  for (let t = 0; t <= latest; t += STEP) times.add(t);
  for (const t of [...times].filter((v) => v >= 0).sort((a, b) => a - b)) {
    velocity.push([t, velocityOfTime(column, t)]);
    depth.push([t, depthOfTime(column, t)]);
  }
  const boundaries = column.boundaries
    .map((b, n) => ({ name: model.bases[n], t: b.t }))
    .filter((b) => Number.isFinite(b.t) && b.t <= latest);
  return { id, name, kind: 'model', color, mean: false, velocity, depth, boundaries };
}

function ofVolume(volume: Volume, trace: Float32Array, color: string): Source | null {
  const { first, step } = volume.vertical;
  const mean = volume.quantity in MEAN_OF;
  const known = Array.from(trace, (v, k): [number, number] => [first + k * step, v]).filter(([, v]) => v > 0);
  if (known.length < 2) return null;
  // means run in lines from sample to sample, intervals in steps
  const velocity = mean
    ? known
    : known.flatMap(([t, v], n): [number, number][] => [
        [t, v],
        [known[n + 1]?.[0] ?? t, v],
      ]);
  const average = volume.quantity === 'average velocity';
  const column = mean
    ? null
    : columnOf(0, { waterVelocity: 1500 }, [
        {
          law: { form: 'velocity volume', v0: 1, k: 0 },
          base: Number.POSITIVE_INFINITY,
          trace: {
            values: known.map(([, v]) => v),
            domain: 'twt',
            first: known[0][0],
            step,
            samples: 'the interval below it',
          },
        },
      ]);
  return {
    id: volume.id,
    name: volume.name,
    kind: 'volume',
    color,
    mean,
    velocity,
    // an RMS velocity is no depth, an average is
    depth: column
      ? known.map(([t]) => [t, depthOfTime(column, t)])
      : average
        ? known.map(([t, v]) => [t, (v * t) / 2000])
        : [],
    boundaries: [],
  };
}

function ofWell(objects: EarthObject[], well: Well, here: Here, color: string): Source | null {
  const relation = relationOf(objects, well.name);
  if (!relation || relation.twt.length < 2) return null;
  const path = pathOf(objects, well);
  let off = Number.POSITIVE_INFINITY;
  path.x.forEach((x, n) => {
    off = Math.min(off, Math.hypot(x - here.x, path.y[n] - here.y));
  });
  const velocity: [number, number][] = [];
  // ties have a point every metre or two: over less than this it is noise that is drawn
  let last = 0;
  for (let n = 1; n < relation.twt.length; n++) {
    const dt = relation.twt[n] - relation.twt[last];
    if (dt < 20 && n < relation.twt.length - 1) continue;
    if (dt <= 0) continue;
    const v = (2000 * (relation.tvdss[n] - relation.tvdss[last])) / dt;
    velocity.push([relation.twt[last], v], [relation.twt[n], v]);
    last = n;
  }
  return {
    id: well.id,
    name: well.name,
    kind: 'well',
    color,
    mean: false,
    velocity,
    depth: Array.from(relation.twt, (t, n) => [t, relation.tvdss[n]]),
    boundaries: [],
    off,
  };
}

/** Traces of volumes at a place, once it has been looked at for a moment. */
function useTracesAt(volumes: Volume[], here: Here | null): Map<string, Float32Array> {
  const projectId = useProject((s) => s.id);
  const [traces, setTraces] = useState(new Map<string, Float32Array>());
  const key = here
    ? `${here.x.toFixed(1)} ${here.y.toFixed(1)} ${volumes.map((v) => `${v.id}@${v.revision}`).join()}`
    : '';
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for place and volumes
  useEffect(() => {
    if (!here || volumes.length === 0) return;
    let wanted = true;
    const timer = setTimeout(() => {
      void Promise.all(
        volumes.map(async (v) => {
          const read = readAlong(projectId, v, `${v.id}@${v.revision}/at/${here.x.toFixed(1)} ${here.y.toFixed(1)}`, [
            [here.x, here.y],
          ]);
          return [v.id, await read.catch(() => new Float32Array(0))] as const;
        }),
      ).then((all) => wanted && setTraces(new Map(all)));
    }, 60);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [key, projectId]);
  return traces;
}

/** Every source of velocities at a place; the model in use comes first. */
export function useSources(here: Here | null): { sources: Source[]; latest: number; inUse: string | null } {
  const objects = useProject((s) => s.objects);
  const { inUse, models } = useModels();
  const volumes = useMemo(
    () =>
      objects.filter(
        (o): o is Volume =>
          o.kind === 'volume' && o.domain === 'twt' && / velocity$/.test(o.quantity) && o.quantity !== 'S velocity',
      ),
    [objects],
  );
  const traces = useTracesAt(volumes, here);
  const latest = useMemo(() => latestOf(objects), [objects]);
  const [x, y] = [here?.x, here?.y];
  const wells = useMemo(() => {
    if (x === undefined || y === undefined) return [];
    return objects
      .filter((o): o is Well => o.kind === 'well')
      .flatMap((w) => ofWell(objects, w, { x, y }, '#17191b') ?? [])
      .filter((w) => (w.off ?? 0) <= NEAR_M)
      .sort((a, b) => (a.off ?? 0) - (b.off ?? 0))
      .slice(0, MOST_WELLS);
  }, [objects, x, y]);
  const sources: Source[] = [];
  if (here) {
    for (const [n, m] of models.entries()) {
      const source = ofModel(m.id, m.name, pebble(n), m.model, here, latest);
      if (source) sources.push(source);
    }
    for (const [n, v] of volumes.entries()) {
      const trace = traces.get(v.id);
      const source = trace ? ofVolume(v, trace, pebble(models.length + n)) : null;
      if (source) sources.push(source);
    }
  }
  return { sources: [...sources, ...wells], latest, inUse };
}
