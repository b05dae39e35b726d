import { checkParams, stepOf, type Tie, type TieParams } from '@lithagon/core';
import { forViews, unwrap } from '../../compute/pool';

/** What the Tie view follows: the tie being set up in the Sheet, else the relation that is selected. */
export interface TieRequest {
  well: string;
  seismic: string;
  wavelet: string;
  /** The well whose times are taken where it has no checkshots. */
  like: string | null;
  /** The accepted relation that is shown; null for a draft. */
  relation: string | null;
  params: TieParams;
  /** Whether it is a draft that can be changed by hand. */
  draft: boolean;
}

/** The tie that inputs and parameters of a step ask for; null where they do not say one. */
export function requestOf(
  inputs: Record<string, string[]>,
  params: Record<string, unknown>,
  draft: boolean,
): TieRequest | null {
  const step = stepOf('tie.well');
  const [well, seismic, wavelet, like = null] = ['well', 'seismic', 'wavelet', 'like'].map(
    (role) => inputs[role]?.[0]?.split('@')[0],
  );
  if (!step || !well || !seismic || !wavelet) return null;
  try {
    return { well, seismic, wavelet, like, relation: null, params: checkParams(step, params) as TieParams, draft };
  } catch {
    return null;
  }
}

/** Work a tie out, with traces of so many bins on each side of the path. */
export async function tieAsked(projectId: string, now: TieRequest, beside: number): Promise<Tie> {
  return unwrap(
    await forViews().tie(projectId, now.well, now.seismic, now.wavelet, now.like, now.params, beside),
  ) as Tie;
}
