import { asLithagonError, type Preview } from '@lithagon/core';
import { toast } from 'sonner';
import { create } from 'zustand';

export interface Run {
  id: number;
  title: string;
  stage: string;
  part: number;
  started: number;
  cancel(): void;
}

/** Jobs at work, and the map that one of them is making, as far as it has come. */
export const useRuns = create<{ runs: Run[]; preview: Preview | null }>(() => ({ runs: [], preview: null }));

let next = 1;

/** Show a job while it works, with progress and cancel; tell how it ended. */
export async function track<T>(
  title: string,
  stage: string,
  work: (signal: AbortSignal, progress: (part: number) => void) => Promise<T>,
): Promise<T | null> {
  const id = next++;
  const controller = new AbortController();
  const update = (change: Partial<Run>) =>
    useRuns.setState((s) => ({ runs: s.runs.map((r) => (r.id === id ? { ...r, ...change } : r)) }));
  const run: Run = { id, title, stage, part: 0, started: Date.now(), cancel: () => controller.abort() };
  useRuns.setState((s) => ({ runs: [...s.runs, run] }));
  try {
    return await work(controller.signal, (part) => update({ part }));
  } catch (cause) {
    const error = asLithagonError(cause);
    if (error.code === 'cancelled') toast(`${title}: ${error.message.replace(/^C/, 'c')}`);
    else toast.error(error.message, { description: error.fix, duration: 12000 });
    return null;
  } finally {
    useRuns.setState((s) => ({ runs: s.runs.filter((r) => r.id !== id) }));
  }
}
