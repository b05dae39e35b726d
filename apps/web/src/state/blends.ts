import type { Blend } from '@lithagon/core';
import { create } from 'zustand';

/** Colours that stand out, as parts of the three channels, and how far around them. */
export interface Lit {
  blend: string;
  at: [number, number, number];
  reach: number;
}

interface Blends {
  /** A blend as it is while its ends are dragged: nothing is kept until they are let go. */
  draft: Blend | null;
  lit: Lit | null;
}

export const useBlends = create<Blends>(() => ({ draft: null, lit: null }));

/** A blend as it is to be drawn. */
export function useDrawnBlend(blend: Blend): Blend;
export function useDrawnBlend(blend: Blend | undefined): Blend | undefined;
export function useDrawnBlend(blend: Blend | undefined): Blend | undefined {
  const draft = useBlends((s) => s.draft);
  return blend && draft?.id === blend.id ? draft : blend;
}
