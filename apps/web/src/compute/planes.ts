import type { ArrayRef, Horizon, Plane, Volume } from '@lithagon/core';
import { forViews, tryOut, unwrap } from './pool';

/** Planes read lately, at most this many bytes of them. */
const MOST_BYTES = 192 << 20;
const cache = new Map<string, Float32Array>();
const pending = new Map<string, Promise<Float32Array>>();
let held = 0;

function keep(key: string, data: Float32Array): void {
  cache.set(key, data);
  held += data.byteLength;
  for (const [oldest, value] of cache) {
    if (held <= MOST_BYTES) break;
    cache.delete(oldest);
    held -= value.byteLength;
  }
}

/** A step tried on a plane: its parameters are part of what is cached. */
export interface LiveStep {
  step: string;
  params: Record<string, unknown>;
  inputs: Record<string, string[]>;
}

const liveKey = (live: LiveStep) => `${live.step}${JSON.stringify([live.params, live.inputs])}`;

export function planeKey(volume: Volume, plane: Plane, index: number, live?: LiveStep | null): string {
  return `${volume.id}@${volume.revision}/${plane}/${index}${live ? `/${liveKey(live)}` : ''}`;
}

/** How long the last trial of a step with given parameters took in its worker, reading included. */
const trialMs = new Map<string, number>();

export function trialTook(live: LiveStep): number | undefined {
  return trialMs.get(liveKey(live));
}

/** A plane that is already here, or undefined. */
export function planeNow(key: string): Float32Array | undefined {
  const data = cache.get(key);
  if (data) {
    cache.delete(key);
    cache.set(key, data);
  }
  return data;
}

/** Trials under way, by what they are asked with: others give way to the latest. */
const trials = new Map<string, { of: string; stop(): void }>();

/** A plane of a step tried on a volume. */
function tryPlane(
  projectId: string,
  volume: Volume,
  plane: Plane,
  index: number,
  live: LiveStep,
): Promise<Float32Array> {
  const of = liveKey(live);
  const key = planeKey(volume, plane, index, live);
  // what is tried with other parameters is not wanted any more
  for (const [other, trial] of trials) {
    if (trial.of === of) continue;
    trial.stop();
    trials.delete(other);
    pending.delete(other);
  }
  const { done, stop } = tryOut((remote, task) =>
    remote.trial(task, projectId, live.step, live.params, live.inputs, volume, plane, index),
  );
  trials.set(key, { of, stop });
  return done
    .then(({ data, evaluateMs }) => {
      trialMs.set(of, evaluateMs);
      return data;
    })
    .finally(() => trials.delete(key));
}

/** A plane of a volume, or of a step tried on it. */
export function readPlane(
  projectId: string,
  volume: Volume,
  plane: Plane,
  index: number,
  live?: LiveStep | null,
): Promise<Float32Array> {
  const key = planeKey(volume, plane, index, live);
  const here = planeNow(key);
  if (here) return Promise.resolve(here);
  let promise = pending.get(key);
  if (!promise) {
    const read = live
      ? tryPlane(projectId, volume, plane, index, live)
      : // planes of live volumes are worked out, and so they wait for each other and not before what is stored
        volume.layouts
        ? forViews()
            .plane(projectId, volume, plane, index)
            .then((outcome) => unwrap(outcome) as Float32Array)
        : tryOut((remote) => remote.plane(projectId, volume, plane, index)).done;
    promise = read
      .then((data) => {
        keep(key, data);
        return data;
      })
      .finally(() => pending.get(key) === promise && pending.delete(key));
    pending.set(key, promise);
  }
  return promise;
}

/** Traces of a volume at places on the map, between its own traces where they lie there; NaN outside it. */
export function readAlong(
  projectId: string,
  volume: Volume,
  key: string,
  points: [number, number][],
): Promise<Float32Array> {
  const here = planeNow(key);
  if (here) return Promise.resolve(here);
  let promise = pending.get(key);
  if (!promise) {
    promise = forViews()
      .along(projectId, volume, points)
      .then((outcome) => {
        const data = unwrap(outcome) as Float32Array;
        keep(key, data);
        return data;
      })
      .finally(() => pending.delete(key));
    pending.set(key, promise);
  }
  return promise;
}

/** Values of a volume on the bins of a horizon. */
export function readOnHorizon(projectId: string, volume: Volume, horizon: Horizon): Promise<Float32Array> {
  const key = `${volume.id}@${volume.revision}/on ${horizon.id}@${horizon.revision}`;
  const here = planeNow(key);
  if (here) return Promise.resolve(here);
  let promise = pending.get(key);
  if (!promise) {
    promise = forViews()
      .onHorizon(projectId, volume, horizon)
      .then((outcome) => {
        const data = unwrap(outcome) as Float32Array;
        keep(key, data);
        return data;
      })
      .finally(() => pending.delete(key));
    pending.set(key, promise);
  }
  return promise;
}

/** A first look at a plane of a large volume that is not here yet; null where there is none. */
export async function readFirstLook(
  projectId: string,
  volume: Volume,
  plane: Plane,
  index: number,
): Promise<Float32Array | null> {
  if (!volume.layouts?.coarse) return null;
  return unwrap(await forViews().coarsePlane(projectId, volume, plane, index)) as Float32Array | null;
}

const arrays = new Map<string, Promise<Float32Array>>();

/** Values of a horizon or curve. */
export function readArray(projectId: string, key: string, ref: ArrayRef): Promise<Float32Array> {
  let promise = arrays.get(key);
  if (!promise) {
    promise = forViews()
      .array(projectId, ref)
      .then((outcome) => unwrap(outcome) as Float32Array);
    promise.catch(() => arrays.delete(key));
    arrays.set(key, promise);
  }
  return promise;
}

/** Values of a horizon in the other domain, by the velocities of a source; the key stands for all of it. */
export function readTurnedHorizon(
  projectId: string,
  key: string,
  horizon: Horizon,
  source: string,
  to: 'twt' | 'depth',
): Promise<Float32Array> {
  let promise = arrays.get(key);
  if (!promise) {
    promise = forViews()
      .turnedHorizon(projectId, horizon, source, to)
      .then((outcome) => unwrap(outcome) as Float32Array);
    promise.catch(() => arrays.delete(key));
    arrays.set(key, promise);
  }
  return promise;
}
