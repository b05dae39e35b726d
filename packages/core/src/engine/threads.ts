import { Worker } from 'node:worker_threads';
import { type PlainError, thrown } from '../earth/errors.ts';
import type { Found } from './lanes.ts';
import { inThreads, type JobRunner, type LaneMessage, type LaneThread } from './runner.ts';

/** A thread of Node that is a lane; it does not keep the process alive while it waits. */
function spawn(): LaneThread & { stop(): void } {
  const worker = new Worker(new URL('./thread.js', import.meta.url));
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

/** Lanes in threads of Node, for stores that have a door; they end with `stop`. */
export function threadRunner(count: number, alone: JobRunner): JobRunner & { stop(): void } {
  const threads = Array.from({ length: count }, spawn);
  return { ...inThreads(threads, alone), stop: () => threads.forEach((thread) => thread.stop()) };
}
