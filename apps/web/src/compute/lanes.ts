import { inThread, inThreads, type JobRunner, type LaneThread, localOf, type PlainError, thrown } from '@lithagon/core';

type Found = Awaited<ReturnType<LaneThread['ask']>>;

/** A worker of a worker that is a lane; it is let go of after a while without work. */
const IDLE = 20_000;

function lane(): LaneThread {
  let worker: Worker | null = null;
  let asked = 0;
  /** Runs under way: it is kept for them, whatever the other lanes are waited for. */
  let open = 0;
  let idle: ReturnType<typeof setTimeout> | undefined;
  const waiting = new Map<number, { resolve(found: Found): void; reject(cause: unknown): void }>();
  const start = () => {
    const made = new Worker(new URL('./lane.ts', import.meta.url), { type: 'module', name: 'lithagon lane' });
    made.onmessage = ({ data }: MessageEvent<{ id: number; found: Found; error?: PlainError }>) => {
      const who = waiting.get(data.id);
      waiting.delete(data.id);
      if (data.error) who?.reject(thrown(data.error));
      else who?.resolve(data.found);
      clearTimeout(idle);
      idle = setTimeout(() => {
        if (waiting.size > 0 || open > 0) return;
        worker?.terminate();
        worker = null;
      }, IDLE);
    };
    made.onerror = (event) => {
      for (const who of waiting.values()) who.reject(new Error(event.message || 'a worker could not be started'));
      waiting.clear();
      worker = null;
      open = 0;
    };
    return made;
  };
  return {
    ask: (message) =>
      new Promise((resolve, reject) => {
        if (message.what === 'begin') open++;
        if (message.what === 'end') open--;
        worker ??= start();
        waiting.set(++asked, { resolve, reject });
        worker.postMessage({ id: asked, message });
      }),
  };
}

/** Most lanes of one run: more would not be fed by the browser's database. */
const MOST = 8;
let runner: JobRunner = inThread(localOf);

/** Have local steps of this worker worked on by so many processors, where memory can be shared. */
export function workOn(processors: number): void {
  const alone = inThread(localOf);
  const may = typeof SharedArrayBuffer !== 'undefined' && typeof Worker !== 'undefined';
  runner = may ? inThreads(Array.from({ length: Math.min(MOST, processors) }, lane), alone) : alone;
}

/** Where local steps of this worker are worked on. */
export const lanes = (): JobRunner => runner;
