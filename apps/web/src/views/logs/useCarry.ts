import { asLithagonError, type Proposal, type Top } from '@lithagon/core';
import * as Comlink from 'comlink';
import { useState } from 'react';
import { toast } from 'sonner';
import { runJob } from '../../compute/pool';
import { useProject } from '../../state/project';
import { track } from '../../state/runs';
import { counted } from '../../ui/format';
import { acceptTops } from './tops';

export interface CarryState {
  proposals: Proposal[];
  notes: string[];
  /** What was asked: wells by their ids, and how tops are carried. */
  asked: Asked;
}

interface Asked {
  trusted: string[];
  wells: string[];
  params: Record<string, unknown>;
}

/** A proposal as a top that says how it came. */
export const topOf = (p: Proposal): Top => ({
  name: p.name,
  md: p.md,
  confidence: p.confidence,
  kind: 'top',
  missingM: null,
  how: `correlated from ${p.from}, match ${p.match.toFixed(2)}`,
});

/** Proposals of tops as they stand: asked for, nudged, accepted or refused; nothing is kept before it is accepted. */
export function useCarry() {
  const projectId = useProject((s) => s.id);
  const [state, setState] = useState<CarryState | null>(null);
  const drop = (gone: (p: Proposal) => boolean) =>
    setState((s) => s && { ...s, proposals: s.proposals.filter((p) => !gone(p)) });
  return {
    state,
    async propose(asked: Asked) {
      const found = await track('Carrying tops', 'wells', (signal, progress) =>
        runJob(
          (remote, task) =>
            remote.carry(
              task,
              projectId,
              asked.trusted,
              asked.wells,
              asked.params,
              Comlink.proxy((part: number) => progress(part)),
            ),
          signal,
        ),
      );
      if (!found) return;
      setState({ ...found, asked });
      if (found.proposals.length === 0)
        toast('No top is proposed: each is there already, or none stands out. The notes say which.');
    },
    nudge: (one: Proposal, md: number) =>
      setState((s) => s && { ...s, proposals: s.proposals.map((p) => (p === one ? { ...p, md } : p)) }),
    async accept(some: Proposal[]) {
      try {
        const wells = [...new Set(some.map((p) => p.well))];
        const done = await acceptTops(
          `Accept ${counted(some.length, 'correlated top')} in ${wells.join(', ')}`,
          some.filter((p) => !p.absent).map((p) => ({ well: p.well, top: topOf(p) })),
        );
        if (done > 0 || some.every((p) => p.absent)) drop((p) => some.includes(p));
      } catch (cause) {
        toast.error(asLithagonError(cause).sentence);
      }
    },
    refuse: (some: Proposal[]) => drop((p) => some.includes(p)),
    close: () => setState(null),
  };
}
