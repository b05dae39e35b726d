import { type ArrayRef, asLithagonError, type Horizon, type Plane, uncutPlanes, type Volume } from '@lithagon/core';
import { useEffect, useLayoutEffect, useState } from 'react';
import { toast } from 'sonner';
import {
  type LiveStep,
  planeKey,
  planeNow,
  readArray,
  readFirstLook,
  readOnHorizon,
  readPlane,
} from '../../compute/planes';
import { useProject } from '../../state/project';

export interface Size {
  width: number;
  height: number;
}

/**
 * The size of an element in CSS pixels, as it changes, whenever it appears.
 * @returns a ref to put on the element, the element once it is there, and its size
 */
export function useSize<E extends HTMLElement>(): [(element: E | null) => void, E | null, Size] {
  const [element, setElement] = useState<E | null>(null);
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useLayoutEffect(() => {
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    measure();
    return () => observer.disconnect();
  }, [element]);
  return [setElement, element, size];
}

export interface PlaneState {
  key: string;
  data: Float32Array;
  index: number;
  /** A first look of a large volume, whose samples are not to be read out. */
  coarse?: boolean;
}

/** How long a plane that takes long to read must be wanted before it is read, ms: those passed by are not. */
const PASSING = 150;

/**
 * The plane asked for, or the last one that came while it is read; neighbours are fetched ahead. A newer request
 * supersedes an older one.
 */
export function usePlane(
  volume: Volume | undefined,
  plane: Plane,
  index: number,
  live?: LiveStep | null,
): [PlaneState | null, string | null] {
  const projectId = useProject((s) => s.id);
  const [state, setState] = useState<PlaneState | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const key = volume ? planeKey(volume, plane, index, live) : '';
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for volume, plane, index and trial
  useEffect(() => {
    if (!volume) return setState(null);
    let wanted = true;
    // without a copy for them, planes are read slowly
    const slow = uncutPlanes(volume).includes(plane);
    const readAhead = () => {
      if (live || slow || !wanted) return;
      const most = plane === 'slice' ? volume.vertical.count : volume.binGrid[plane].count;
      for (const near of [index + 1, index - 1])
        if (near >= 0 && near < most) readPlane(projectId, volume, plane, near).catch(() => undefined);
    };
    const read = async () => {
      try {
        // a first look comes before the whole is asked for, so that neither waits for the other
        const look = live ? null : await readFirstLook(projectId, volume, plane, index).catch(() => null);
        if (!wanted) return;
        if (look) setState({ key: `${key}/coarse`, data: look, index, coarse: true });
        if (slow) await new Promise((resolve) => setTimeout(resolve, PASSING));
        if (!wanted) return;
        const data = await readPlane(projectId, volume, plane, index, live);
        if (!wanted) return;
        setProblem(null);
        setState({ key, data, index });
        readAhead();
      } catch (cause) {
        if (wanted) setProblem(asLithagonError(cause).sentence);
      }
    };
    const now = planeNow(key);
    if (now) {
      setProblem(null);
      setState({ key, data: now, index });
      readAhead();
    } else void read();
    return () => {
      wanted = false;
    };
  }, [key, projectId]);
  return [state, problem];
}

/** The values of an array that is one chunk, or null while it is read. */
export function useArray(
  id: string | undefined,
  revision: string | undefined,
  ref: ArrayRef | undefined,
): Float32Array | null {
  const projectId = useProject((s) => s.id);
  const [data, setData] = useState<Float32Array | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the reference belongs to the revision
  useEffect(() => {
    setData(null);
    if (!ref || !id) return;
    let wanted = true;
    readArray(projectId, `${id}@${revision}`, ref).then(
      (values) => wanted && setData(values),
      (cause) => {
        const { sentence } = asLithagonError(cause);
        // said once, however many views want it
        if (wanted) toast.error(sentence, { id: sentence, duration: 12000 });
      },
    );
    return () => {
      wanted = false;
    };
  }, [projectId, id, revision]);
  return data;
}

/** Volumes on the bins of a horizon, in their order, once all are read; nothing where there is no horizon. */
export function useOnHorizon(volumes: Volume[], horizon: Horizon | undefined): Float32Array[] | null {
  const projectId = useProject((s) => s.id);
  const [state, setState] = useState<{ key: string; fields: Float32Array[] } | null>(null);
  const key = horizon ? `${horizon.id}@${horizon.revision} ${volumes.map((v) => `${v.id}@${v.revision}`).join()}` : '';
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the volumes and the horizon
  useEffect(() => {
    if (!horizon || volumes.length === 0) return setState(null);
    let wanted = true;
    // pages that are passed by are not read
    const still = new Promise((resolve) => setTimeout(resolve, PASSING));
    still
      .then(() => (wanted ? Promise.all(volumes.map((v) => readOnHorizon(projectId, v, horizon))) : null))
      .then(
        (fields) => wanted && fields && setState({ key, fields }),
        (cause) => {
          const { sentence } = asLithagonError(cause);
          if (wanted) toast.error(sentence, { id: sentence, duration: 12000 });
        },
      );
    return () => {
      wanted = false;
    };
  }, [key, projectId]);
  return state && state.key === key ? state.fields : null;
}
