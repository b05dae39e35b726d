import { asLithagonError, checkParams, stepOf } from '@lithagon/core';
import { useEffect, useState } from 'react';
import { tryOut } from '../../compute/pool';
import { useMapTrial as useTrial } from '../../state/mapTrial';
import { useProject } from '../../state/project';
import type { Setup } from '../../state/selection';

/** Work out the map that a step being set up would give, again whenever its parameters move; the latest wins. */
export function useMapTrial(setup: Setup): string | null {
  const projectId = useProject((s) => s.id);
  const [problem, setProblem] = useState<string | null>(null);
  const wanted = setup.live && stepOf(setup.step)?.maps !== undefined;
  const asked = JSON.stringify([setup.step, setup.params, setup.inputs]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is asked is compared by what it says
  useEffect(() => {
    if (!wanted) return;
    const step = stepOf(setup.step);
    try {
      if (step) checkParams(step, setup.params);
    } catch {
      // the form says what is wrong with them
      return;
    }
    let latest = true;
    const { done, stop } = tryOut((remote, task) =>
      remote.trialMap(task, projectId, setup.step, setup.params, setup.inputs),
    );
    done.then(
      ({ map, evaluateMs }) => {
        if (!latest) return;
        setProblem(null);
        useTrial.setState({ map, tookMs: evaluateMs });
      },
      (cause) => {
        if (!latest) return;
        setProblem(asLithagonError(cause).sentence);
        useTrial.setState({ map: null });
      },
    );
    return () => {
      latest = false;
      stop();
    };
  }, [wanted, asked, projectId]);
  useEffect(() => {
    if (!wanted) setProblem(null);
    return () => useTrial.setState({ map: null });
  }, [wanted]);
  return wanted ? problem : null;
}
