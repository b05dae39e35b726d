import type { EarthObject, TurnedPair, Volume } from '@lithagon/core';
import { create } from 'zustand';

/** A turned pair as it is while its angle is dragged: nothing is kept until it is let go. */
export const useTurning = create<{ draft: { id: string; angleDeg: number } | null }>(() => ({ draft: null }));

/** The angle at which a pair is to be drawn. */
export function useTurnedAngle(pair: TurnedPair | undefined): number {
  const draft = useTurning((s) => s.draft);
  return draft && draft.id === pair?.id ? draft.angleDeg : (pair?.angleDeg ?? 0);
}

/** The two volumes of a pair; nothing where one of them is gone. */
export function volumesOfPair(pair: TurnedPair | undefined, objects: EarthObject[]): [Volume, Volume] | null {
  const of = (role: string) => {
    const id = pair?.madeBy.inputs[role]?.[0]?.split('@')[0];
    const found = objects.find((o) => o.id === id);
    return found?.kind === 'volume' ? found : null;
  };
  const [a, b] = [of('intercept'), of('gradient')];
  return a && b ? [a, b] : null;
}
