import { create } from 'zustand';

/** Views whose lines go by, and how many a second. */
export const usePlaying = create<Record<string, number>>(() => ({}));

/** Let the lines of a view go by, so many a second; 0 stops them. */
export function play(view: string, perSecond: number): void {
  usePlaying.setState({ [view]: perSecond });
}
