import { asLithagonError, type EarthObject } from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { readArray } from '../../compute/planes';
import { useProject } from '../../state/project';
import { JOINED, type Settings } from '../../state/views';
import { type Joined, joinedOf, type Part, partsOf, samplesOf } from './joined';

/** The composite that a section shows, with its samples once they are read; null where it shows none. */
export function useJoined(
  objects: EarthObject[],
  settings: Settings['section'],
): { parts: Part[]; joined: Joined; key: string; data: Float32Array | null; problem: string | null } | null {
  const projectId = useProject((s) => s.id);
  const { line, joined: pieces } = settings;
  const parts = useMemo(() => (line === JOINED && pieces ? partsOf(objects, pieces) : []), [objects, line, pieces]);
  const joined = useMemo(() => joinedOf(parts), [parts]);
  const key = parts
    .map(({ line: l, traces }) => `${l.id}@${l.revision}/${traces[0]}-${traces[traces.length - 1]}`)
    .join('+');
  const [read, setRead] = useState<{ key: string; data: Float32Array } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the parts
  useEffect(() => {
    if (parts.length === 0) return;
    let wanted = true;
    Promise.all(parts.map(({ line: l }) => readArray(projectId, `${l.id}@${l.revision}`, l.samples))).then(
      (data) => {
        if (!wanted) return;
        setProblem(null);
        setRead({ key, data: samplesOf(parts, joined, data) });
      },
      (cause) => wanted && setProblem(asLithagonError(cause).sentence),
    );
    return () => {
      wanted = false;
    };
  }, [key, projectId]);
  const data = read?.key === key ? read.data : null;
  return useMemo(
    () => (parts.length > 0 ? { parts, joined, key, data, problem } : null),
    [parts, joined, key, data, problem],
  );
}
