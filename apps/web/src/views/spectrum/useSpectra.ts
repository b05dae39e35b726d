import type { Spectra, Volume } from '@lithagon/core';
import { asLithagonError } from '@lithagon/core';
import { useEffect, useState } from 'react';
import { tryOut } from '../../compute/pool';
import { useProject } from '../../state/project';

/** Which part of a volume a spectrum is of, by the ids of objects. */
export interface Asked {
  line?: { plane: 'inline' | 'crossline'; index: number };
  outline?: string;
  around: { horizon: string; above: number; below: number } | { from: number; to: number };
}

/** How long a part must be wanted before its spectrum is worked out, ms: lines that are passed by have none. */
const PASSING = 120;

/** Spectra of what is asked for; those that came last while the next are worked out. */
export function useSpectra(
  volume: Volume | undefined,
  asked: Asked | null,
): { spectra: Spectra | null; problem: string | null; busy: boolean } {
  const projectId = useProject((s) => s.id);
  const horizon = useProject((s) =>
    asked && 'horizon' in asked.around ? s.byId.get(asked.around.horizon)?.revision : undefined,
  );
  const [state, setState] = useState<{ key: string; spectra: Spectra | null; problem: string | null }>({
    key: '',
    spectra: null,
    problem: null,
  });
  const key = volume && asked ? `${volume.id}@${volume.revision} ${horizon ?? ''} ${JSON.stringify(asked)}` : '';
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for what is asked
  useEffect(() => {
    if (!volume || !asked) return;
    let wanted = true;
    let stop = () => undefined as unknown;
    const timer = setTimeout(() => {
      const tried = tryOut((remote, task) => remote.spectra(task, projectId, volume, asked));
      stop = tried.stop;
      tried.done.then(
        (spectra) => wanted && setState({ key, spectra, problem: null }),
        (cause) => wanted && setState({ key, spectra: null, problem: asLithagonError(cause).sentence }),
      );
    }, PASSING);
    return () => {
      wanted = false;
      clearTimeout(timer);
      stop();
    };
  }, [key, projectId]);
  return { ...state, busy: key !== '' && state.key !== key };
}
