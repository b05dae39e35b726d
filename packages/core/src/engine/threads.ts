import { Worker } from 'node:worker_threads';
import { type PlainError, thrown } from '../earth/errors.ts';
import type { Found } from './lanes.ts';
import { inThreads, type JobRunner, type LaneMessage, type LaneThread } from './runner.ts';

/** A thread of Node that is a lane; it does not keep the process alive while it waits. */
function spawn(died: () => void): LaneThread & { stop(): void } {
  // from the sources, threads are those of the build
  const built = import.meta.url.endsWith('.ts') ? '../../dist/engine/thread.js' : './thread.js';
  const worker = new Worker(new URL(built, import.meta.url), { execArgv: [] });
  worker.unref();
  let asked = 0;
  const waiting = new Map<number, { resolve(found: Found[]): void; reject(cause: unknown): void }>();
  worker.on('message', ({ id, found, error }: { id: number; found: Found[]; error?: PlainError }) => {
    const who = waiting.get(id);
    waiting.delete(id);
    if (waiting.size === 0) worker.unref();
    if (error) who?.reject(thrown(error));
    else who?.resolve(found);
  });
  worker.on('error', (cause) => {
    for (const who of waiting.values()) who.reject(cause);
    waiting.clear();
    died();
  });
  return {
    ask: (message: LaneMessage) =>
      new Promise((resolve, reject) => {
        worker.ref();
        waiting.set(++asked, { resolve, reject });
        worker.postMessage({ id: asked, message });
      }),
    stop: () => void worker.terminate(),
  };
}

/** Lanes in threads of Node, for stores that have a door; they are started when they are first asked, and end with `stop`. */
export function threadRunner(count: number, alone: JobRunner): JobRunner & { stop(): void } {
  const started: ReturnType<typeof spawn>[] = [];
  const threads = Array.from(
    { length: count },
    (_, n): LaneThread => ({
      ask(message) {
        // one that died is no lane any more
        started[n] ??= spawn(() => {
          delete started[n];
        });
        return started[n].ask(message);
      },
    }),
  );
  return {
    ...inThreads(threads, alone),
    stop: () => {
      for (const thread of started) thread?.stop();
    },
  };
}
