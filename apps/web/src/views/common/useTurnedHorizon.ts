import { asLithagonError, type Domain, type Horizon } from '@lithagon/core';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { readTurnedHorizon } from '../../compute/planes';
import { useConversion } from '../../state/conversion';
import { useProject } from '../../state/project';

/** Values of a horizon in the other domain, worked out as they are wanted; null while they are, and where nothing turns them. */
export function useTurnedHorizon(horizon: Horizon | undefined, domain: Domain): Float32Array | null {
  const projectId = useProject((s) => s.id);
  const source = useConversion((s) => s.id);
  const by = useConversion((s) => s.key);
  const wanted = horizon && horizon.domain !== domain && domain !== 'age' && source ? horizon : undefined;
  const key = wanted ? `${wanted.id}@${wanted.revision} ${domain} ${by}` : '';
  const [made, setMade] = useState<{ key: string; values: Float32Array } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for horizon, domain and model
  useEffect(() => {
    if (!wanted || !source || domain === 'age') return;
    let asked = true;
    readTurnedHorizon(projectId, key, wanted, source, domain)
      .then((values) => asked && setMade({ key, values }))
      .catch((cause) => {
        const { sentence } = asLithagonError(cause);
        if (asked) toast.error(sentence, { id: sentence, duration: 12000 });
      });
    return () => {
      asked = false;
    };
  }, [key, projectId]);
  return made?.key === key && key ? made.values : null;
}
