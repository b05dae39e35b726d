import { activeRelation, asLithagonError, type Tie } from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { useProject } from '../../state/project';
import { requestOf, tieAsked } from '../../views/tie/request';

type Series = Tie['chain']['synthetic'];

/** Synthetics worked out so far, by project and relation. */
const made = new Map<string, Promise<Series>>();

/** The synthetic of the tie of a well that is in use, in the time of the seismic; null where it is not tied, or not yet worked out. */
export function useSynthetic(well: string): Series | null {
  const projectId = useProject((s) => s.id);
  const objects = useProject((s) => s.objects);
  const relation = useMemo(() => activeRelation(objects, well), [objects, well]);
  const [series, setSeries] = useState<{ key: string; series: Series } | null>(null);
  const key = relation ? `${projectId}/${relation.id}@${relation.revision}` : '';
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the relation
  useEffect(() => {
    const request = relation && requestOf(relation.madeBy.inputs, relation.madeBy.params, false);
    if (!request) return;
    let wanted = true;
    let promise = made.get(key);
    if (!promise) {
      promise = tieAsked(projectId, request, 0).then(({ chain }) => ({
        ...chain.synthetic,
        firstMs: chain.synthetic.firstMs + chain.shiftMs,
      }));
      promise.catch(() => made.delete(key));
      made.set(key, promise);
    }
    promise.then(
      (now) => wanted && setSeries({ key, series: now }),
      (cause) => {
        const sentence = `${well} has no synthetic to show: ${asLithagonError(cause).sentence}`;
        if (wanted) toast.error(sentence, { id: sentence });
      },
    );
    return () => {
      wanted = false;
    };
  }, [key]);
  return series?.key === key ? series.series : null;
}
