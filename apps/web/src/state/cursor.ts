import type { Domain } from '@lithagon/core';
import { create } from 'zustand';

/** Where the pointer is in the earth: one cursor for all views. */
interface Cursor {
  /** Map coordinates, metres. */
  x: number;
  y: number;
  /** TWT in ms or depth in m, where the view that the pointer is in has one. */
  vertical: number | null;
  domain: Domain;
  value: number | null;
  quantity: string;
  unit: string;
  /** The view that the pointer is in. */
  from: string;
}

interface CursorState {
  at: Cursor | null;
}

export const useCursor = create<CursorState>(() => ({ at: null }));
