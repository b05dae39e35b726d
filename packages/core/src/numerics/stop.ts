import { stopIf } from '../earth/errors.ts';

/** What the work that is going on in this thread is told to stop by. */
let asked: AbortSignal | undefined;

/**
 * Do work that goes on without a pause, so that loops deep in it hear whether it is to stop. It belongs to the work alone:
 * what runs before and after it in the same thread hears of its own signal, or of none.
 */
export function during<T>(signal: AbortSignal | undefined, work: () => T): T {
  const before = asked;
  asked = signal;
  try {
    stopIf(signal);
    return work();
  } finally {
    asked = before;
  }
}

/** Stop here if that is asked for: called by loops a few times in a tenth of a second. */
export const heed = (): void => stopIf(asked);
