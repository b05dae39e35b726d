import type { At } from '../useWindow';

/** What one tool makes of the pointer and of keys on a section; what it leaves out is looking, and nothing else. */
export interface Hands {
  cursor: string;
  /** A press; whether it may become a stroke. */
  down?(at: At, event: React.PointerEvent): void;
  /** The pointer held down over the picture. */
  drag?(at: At, event: React.PointerEvent): void;
  up?(at: At, event: React.PointerEvent): void;
  /** A double click, or Enter. */
  end?(): void;
  /** The right button. @returns whether it was for the tool */
  turn?(at: At): boolean;
  /** P where the cursor stands. */
  put?(at: At): void;
  /** Backspace. */
  back?(): void;
}

export const LOOK: Hands = { cursor: 'crosshair' };
