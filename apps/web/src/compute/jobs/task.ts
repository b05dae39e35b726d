import { flagged, type PlainError, plain, type Store } from '@lithagon/core';
import { idbStore } from '../../storage/idbStore';

export type Outcome<T> = { ok: true; value: T } | { ok: false; error: PlainError };

const stores = new Map<string, Promise<Store>>();
const running = new Map<number, AbortController>();

let writer: string | null = null;

/** What jobs that begin from now on show when they change a project. */
export function writeAs(token: string | null): void {
  writer = token;
}

/** The store of a project of this browser, opened once for each holder: a job keeps the one that it began with. */
export function storeOf(projectId: string): Promise<Store> {
  const token = writer;
  const key = `${projectId} ${token}`;
  let store = stores.get(key);
  if (!store) {
    store = idbStore(projectId, () => token);
    store.catch(() => stores.delete(key));
    stores.set(key, store);
  }
  return store;
}

/** What work gives, or the error it meets, as it crosses to the page. */
export async function outcome<T>(work: () => Promise<T>): Promise<Outcome<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (cause) {
    return { ok: false, error: plain(cause) };
  }
}

/** Let messages in between two chunks of work, so that a cancel is heard. */
export const breathe = () =>
  new Promise<void>((resolve) => {
    // a timer would wait four milliseconds each time
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

/** Flags that the page shares, by which a task hears of a cancel while it computes and no message comes through. */
let flags: Int32Array | null = null;

export function hearBy(shared: Int32Array): void {
  flags = shared;
}

/** Work that the page may cancel by the number of its task. */
export function withCancel<T>(task: number, work: (signal: AbortSignal) => Promise<T>): Promise<Outcome<T>> {
  const controller = new AbortController();
  running.set(task, controller);
  const signal = flags ? flagged(flags, task % flags.length, task, controller.signal) : controller.signal;
  return outcome(() => work(signal)).finally(() => running.delete(task));
}

/** A store whose writes give way to messages, so that a cancel reaches a run at every chunk. */
export function yielding(store: Store): Store {
  return {
    ...store,
    writeBytes: async (key, bytes) => {
      await store.writeBytes(key, bytes);
      await breathe();
    },
  };
}

export type Progress = (part: number, what: string) => void;

/** Have a task stop as soon as it hears of it. */
export const cancel = (task: number): void => running.get(task)?.abort();
