import {
  activeRelation,
  asLithagonError,
  type EarthObject,
  type LithagonError,
  type Tie,
  type TieParams,
  type TimeDepthRelation,
} from '@lithagon/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useProject } from '../../state/project';
import { type Setup, useSelection } from '../../state/selection';
import { requestOf, type TieRequest, tieAsked } from './request';

/** Traces shown on each side of the path. */
const BESIDE = 8;

export function useTieRequest(): TieRequest | null {
  const setup = useSelection((s) => s.setup);
  const selected = useSelection((s) => s.object);
  const byId = useProject((s) => s.byId);
  const objects = useProject((s) => s.objects);
  const last = useRef<string | null>(null);
  return useMemo(() => {
    if (setup?.step === 'tie.well') return requestOf(setup.inputs, setup.params, true);
    const relations = objects.filter((o): o is TimeDepthRelation => o.kind === 'time-depth relation');
    const object: EarthObject | undefined = selected ? byId.get(selected) : undefined;
    if (object?.kind === 'time-depth relation') last.current = object.id;
    const shown =
      relations.find((r) => r.id === last.current) ??
      relations.find((r) => activeRelation(objects, r.well)?.id === r.id);
    const request = shown && requestOf(shown.madeBy.inputs, shown.madeBy.params, false);
    return request ? { ...request, relation: shown.id } : null;
  }, [setup, selected, byId, objects]);
}

interface TieState {
  tie: Tie | null;
  problem: LithagonError | null;
  tookMs: number;
}

/** The tie as its parameters stand; the newest request wins, and the last answer stays while the next is made. */
export function useTie(request: TieRequest | null): TieState {
  const projectId = useProject((s) => s.id);
  const [state, setState] = useState<TieState>({
    tie: null,
    problem: null,
    tookMs: 0,
  });
  const busy = useRef(false);
  const wanted = useRef<TieRequest | null>(null);
  const key = JSON.stringify(request);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the request
  useEffect(() => {
    wanted.current = request;
    const next = async () => {
      if (busy.current || !wanted.current) return;
      busy.current = true;
      const now = wanted.current;
      const started = performance.now();
      try {
        const tie = await tieAsked(projectId, now, BESIDE);
        setState({ tie, problem: null, tookMs: performance.now() - started });
      } catch (cause) {
        setState({ tie: null, problem: asLithagonError(cause), tookMs: 0 });
      }
      busy.current = false;
      if (wanted.current !== now) void next();
    };
    void next();
  }, [key, projectId]);
  return state;
}

/** Change parameters of the tie being set up. */
export function changeTie(change: Partial<TieParams>): void {
  useSelection.setState((s): { setup: Setup | null } => ({
    setup: s.setup ? { ...s.setup, params: { ...s.setup.params, ...change } } : null,
  }));
}
