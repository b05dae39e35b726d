import type { RunRequest } from '@lithagon/core';
import { create } from 'zustand';

/** A step being set up in the Sheet. */
export interface Setup extends RunRequest {
  /** Whether its trial is shown on the line in view. */
  live: boolean;
  /** Whether something in a view still holds what sets it up: the Sheet waits until it is let go. */
  held?: boolean;
}

interface SelectionState {
  object: string | null;
  setup: Setup | null;
  loadOpen: boolean;
  /** Files dropped or chosen that the load sheet is looking at. */
  files: File[];
  paletteOpen: boolean;
  helpOpen: boolean;
  /** Whether the project's coordinate system is being declared. */
  frameOpen: boolean;
  /** Whether the first walk is under way. */
  walking: boolean;
}

export const useSelection = create<SelectionState>(() => ({
  object: null,
  setup: null,
  loadOpen: false,
  files: [],
  paletteOpen: false,
  helpOpen: false,
  frameOpen: false,
  walking: false,
}));

export function select(object: string | null): void {
  useSelection.setState({ object, setup: null });
}

export function offerFiles(files: File[]): void {
  useSelection.setState((s) => ({ files: [...s.files, ...files], loadOpen: true }));
}
