import type { Plane, Volume } from '@lithagon/core';
import { forViews, unwrap } from './pool';

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

/** A plane of a stored volume, or of a step tried on it. */
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
    const remote = forViews();
    const read = live
      ? remote.trial(projectId, live.step, live.params, live.inputs, volume, plane, index).then((outcome) => {
          const { data, evaluateMs } = unwrap(outcome);
          trialMs.set(liveKey(live), evaluateMs);
          return data as Float32Array;
        })
      : remote.plane(projectId, volume, plane, index).then((outcome) => unwrap(outcome) as Float32Array);
    promise = read
      .then((data) => {
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
  if (!volume.layouts.coarse) return null;
  return unwrap(await forViews().coarsePlane(projectId, volume, plane, index)) as Float32Array | null;
}

const arrays = new Map<string, Promise<Float32Array>>();

/** Values of a horizon or curve. */
export function readArray(projectId: string, key: string, ref: Volume['layouts']['inline']): Promise<Float32Array> {
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
