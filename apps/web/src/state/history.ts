import { asLithagonError, type EarthObject, type Frame, frameSchema, objectSchema } from '@lithagon/core';
import { toast } from 'sonner';
import { z } from 'zod';
import { create } from 'zustand';
import { refreshProject, useProject } from './project';

/** A change that a person made to objects, kept so that it can be taken back: the objects before and after. */
export interface Edit {
  name: string;
  before: EarthObject[];
  after: EarthObject[];
  /** The project's frame before and after, where it was changed. */
  frame?: { before: Frame; after: Frame };
}

interface HistoryState {
  done: Edit[];
  undone: Edit[];
}

export const useHistory = create<HistoryState>(() => ({ done: [], undone: [] }));

const editSchema = z.object({
  name: z.string(),
  before: z.array(objectSchema),
  after: z.array(objectSchema),
  frame: z.object({ before: frameSchema, after: frameSchema }).optional(),
});
const historySchema = z.object({ done: z.array(editSchema), undone: z.array(editSchema) });

const MOST = 200;
const keyOf = (projectId: string) => `lithagon-history-${projectId}`;

/** Bring back the history of a project and keep it, so that undo works after a reload. */
export function keepHistory(projectId: string): void {
  try {
    const kept = historySchema.parse(JSON.parse(localStorage.getItem(keyOf(projectId)) ?? '{"done":[],"undone":[]}'));
    useHistory.setState(kept);
  } catch {
    useHistory.setState({ done: [], undone: [] });
  }
  useHistory.subscribe((state) => {
    // where the browser keeps no more, the oldest edits are given up first
    for (let kept = state; ; kept = { done: kept.done.slice(Math.ceil(kept.done.length / 2)), undone: [] })
      try {
        localStorage.setItem(keyOf(projectId), JSON.stringify(kept));
        return;
      } catch {
        if (kept.done.length === 0) return;
      }
  });
}

/** Objects that an undo or redo may bring back; their arrays stay until the edit is forgotten. */
export function heldByHistory(): EarthObject[] {
  const { done, undone } = useHistory.getState();
  return [...done, ...undone].flatMap((e) => [...e.before, ...e.after]);
}

/**
 * An object as an edit wants it. One that was made again since the edit keeps what it is now; only what people call and
 * colour it follows.
 */
function asWanted(wanted: EarthObject, instead: EarthObject[]): EarthObject {
  const now = useProject.getState().byId.get(wanted.id);
  const then = instead.find((o) => o.id === wanted.id);
  if (!now || !then) return wanted;
  if (now.revision === then.revision)
    // copies for other planes that were cut meanwhile stay
    return wanted.kind === 'volume' && now.kind === 'volume' && wanted.revision === now.revision
      ? { ...wanted, layouts: now.layouts }
      : wanted;
  const { name, color, tags } = wanted;
  return { ...now, name, color, tags };
}

/** Put objects as they should be; what was there `instead` and is not among them goes. */
async function put(wanted: EarthObject[], instead: EarthObject[], frame?: Frame): Promise<void> {
  const objects = wanted.map((o) => asWanted(o, instead));
  const remove = instead.filter((o) => !objects.some((each) => each.id === o.id)).map((o) => o.id);
  try {
    await useProject.getState().store?.commit({ put: objects, remove, facts: frame ? { frame } : undefined });
  } catch (cause) {
    toast.error(asLithagonError(cause).sentence);
    throw cause;
  }
  await refreshProject();
}

/** Change objects by name and remember how to take it back. */
export async function edit(
  name: string,
  before: EarthObject[],
  after: EarthObject[],
  frame?: Edit['frame'],
): Promise<void> {
  await put(after, before, frame?.after);
  useHistory.setState((s) => ({ done: [...s.done, { name, before, after, frame }].slice(-MOST), undone: [] }));
}

let turn: Promise<unknown> = Promise.resolve();

/** Take handwork that comes quickly in turn, so that each stroke builds on what the one before it made. */
export function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const next = turn.then(work);
  turn = next.catch(() => undefined);
  return next;
}

/** Take the last edit back: in turn, so that a key pressed twice takes two edits back. */
export const undo = (): Promise<void> =>
  inTurn(async () => {
    const last = useHistory.getState().done.at(-1);
    if (!last) return;
    await put(last.before, last.after, last.frame?.before);
    useHistory.setState((s) => ({ done: s.done.slice(0, -1), undone: [...s.undone, last] }));
  });

export const redo = (): Promise<void> =>
  inTurn(async () => {
    const last = useHistory.getState().undone.at(-1);
    if (!last) return;
    await put(last.after, last.before, last.frame?.after);
    useHistory.setState((s) => ({ done: [...s.done, last], undone: s.undone.slice(0, -1) }));
  });
