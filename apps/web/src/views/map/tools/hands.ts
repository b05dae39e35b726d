/** A place of the map, and the press or move that led there. */
export interface OnMap {
  x: number;
  y: number;
  event: React.PointerEvent | React.MouseEvent | React.KeyboardEvent;
}

/** What one tool makes of the pointer and of keys on the map; what it leaves out is looking. */
export interface Hands {
  /** A press that did not move. */
  click?(at: OnMap): void;
  /** A press, of a tool that draws by holding the pointer down. */
  down?(at: OnMap): void;
  drag?(at: OnMap): void;
  up?(at: OnMap): void;
  /** The right button. */
  turn?(at: OnMap): void;
  /** A double click, or Enter. */
  end?(): void;
  /** Backspace. */
  back?(): void;
}
