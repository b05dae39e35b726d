import {
  asLithagonError,
  type EarthObject,
  type LithagonError,
  type Lobe,
  type PayParams,
  type PayWork,
  payScale,
  spreadOfPay,
  stepOf,
  sumsOfPay,
  tuningOf,
} from '@lithagon/core';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { initialParams } from '../../actions/initial';
import type { PayFound } from '../../compute/jobs/inversion';
import { tryOut } from '../../compute/pool';
import { useProject } from '../../state/project';
import { useSelection } from '../../state/selection';

/** What net pay is looked at: as it is set up in the Sheet, else as the map that is selected or was made last. */
export interface PayRequest {
  inputs: Record<string, string[]>;
  params: PayParams;
  /** Whether its parameters may be moved here. */
  open: boolean;
  /** The map whose settings these are. */
  of?: EarthObject;
}

export function usePayRequest(): PayRequest | null {
  const setup = useSelection((s) => s.setup);
  const selected = useSelection((s) => s.object);
  const objects = useProject((s) => s.objects);
  return useMemo(() => {
    if (setup?.step === 'invert.netPay') return { inputs: setup.inputs, params: setup.params as PayParams, open: true };
    const made = objects.filter((o) => o.madeBy.step === 'invert.netPay');
    const of = made.find((o) => o.id === selected) ?? made.findLast((o) => o.madeBy.output === 'netPay');
    const step = stepOf('invert.netPay');
    if (!of || !step) return null;
    const inputs = Object.fromEntries(
      Object.entries(of.madeBy.inputs).map(([role, references]) => [role, references.map((r) => r.split('@')[0])]),
    );
    return { inputs, params: { ...initialParams(step), ...of.madeBy.params } as PayParams, open: false, of };
  }, [setup, selected, objects]);
}

/** Parameters on which what is measured rests: moving others measures nothing again. */
const MEASURED = ['pay', 'marginMs', 'curve', 'least'] as const;

/** Beds, wells and the wedge, measured once for all scales. */
export function usePayWork(request: PayRequest | null): {
  found: PayFound | null;
  work: PayWork | null;
  problem: LithagonError | null;
} {
  const projectId = useProject((s) => s.id);
  const [found, setFound] = useState<PayFound | null>(null);
  const [problem, setProblem] = useState<LithagonError | null>(null);
  const key = request && JSON.stringify([request.inputs, MEASURED.map((p) => request.params[p])]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the request
  useEffect(() => {
    if (!request) return;
    const { done, stop } = tryOut((remote, task) => remote.pay(task, projectId, request.inputs, request.params));
    let left = false;
    done.then(
      (made) => {
        if (left) return;
        setFound(made);
        setProblem(null);
      },
      (cause) => {
        if (left) return;
        setFound(null);
        setProblem(asLithagonError(cause));
      },
    );
    return () => {
      left = true;
      stop();
    };
  }, [key, projectId]);
  const work = useMemo((): PayWork | null => {
    if (!found) return null;
    const lobes = Array.from(found.apparentMs, (apparentMs, n): Lobe | null =>
      Number.isNaN(apparentMs) ? null : { apparentMs, average: found.average[n] },
    );
    const { wedge, crossed, wells, inside, notes } = found;
    return { measures: { lobes, crossed, wedge, tuning: tuningOf(wedge) }, wells, inside, notes };
  }, [found]);
  return { found, work, problem };
}

/** The scale as it is asked for; a reason where there is none. */
export function scaleOrNot(work: PayWork | null, params: PayParams | undefined): ReturnType<typeof payScale> | null {
  if (!work || !params) return null;
  try {
    return payScale(work, params);
  } catch {
    return null;
  }
}

/** Low, middle and high of the mean net pay in the area; worked out when nothing else is. */
export function usePaySpread(
  work: PayWork | null,
  params: PayParams | undefined,
  scale: ReturnType<typeof payScale> | null,
) {
  const later = useDeferredValue(scale);
  return useMemo(() => {
    if (!work || !params || !later) return null;
    const inside = work.measures.lobes.map((l, n) => (work.inside[n] ? l : null));
    const bins = work.inside.reduce((s, v) => s + v, 0) || 1;
    const draws = { ...spreadOfPay(params, later.byWells), draws: 120 };
    const sums = sumsOfPay(inside, work.measures.tuning, later, draws);
    const at = (part: number) => sums[Math.min(sums.length - 1, Math.floor(part * sums.length))] / bins;
    return { low: at(0.1), middle: at(0.5), high: at(0.9) };
  }, [work, params, later]);
}
