import { LithagonError } from '@lithagon/core/kept';
import * as Comlink from 'comlink';
import type { Outcome } from './jobs/task';
import type { WorkerApi } from './worker';

/** One worker answers the views, so that a long run never delays them; jobs take turns on the others. */
type Remote = Comlink.Remote<WorkerApi>;

function spawn(): Remote {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'lithagon' });
  return Comlink.wrap<WorkerApi>(worker);
}

let viewWorker: Remote | null = null;
const jobWorkers: { remote: Remote; busy: number }[] = [];
let tasks = 0;

export function forViews(): Remote {
  viewWorker ??= spawn();
  return viewWorker;
}

function leastBusy() {
  const most = Math.max(1, Math.min(4, navigator.hardwareConcurrency - 1));
  const idle = jobWorkers.find((w) => w.busy === 0);
  if (idle) return idle;
  if (jobWorkers.length < most) jobWorkers.push({ remote: spawn(), busy: 0 });
  return jobWorkers.reduce((a, b) => (b.busy < a.busy ? b : a));
}

let writer: string | null = null;

/** What shows that this tab may change its project; jobs begun from now on change it as its holder, or not at all. */
export function writeAs(token: string | null): void {
  writer = token;
}

/** What a worker answered, or the error it met. */
export function unwrap<T>(outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  const { code, message, object, fix } = outcome.error;
  throw new LithagonError(code, message, { object, fix });
}

/** Run a job on a worker of its own; `signal` cancels it there. */
export async function runJob<T>(
  work: (remote: Remote, task: number) => Promise<Outcome<T>>,
  signal?: AbortSignal,
): Promise<T> {
  const worker = leastBusy();
  const task = ++tasks;
  worker.busy++;
  void worker.remote.writeAs(writer);
  const cancel = () => void worker.remote.cancel(task);
  signal?.addEventListener('abort', cancel);
  try {
    return unwrap(await work(worker.remote, task));
  } finally {
    signal?.removeEventListener('abort', cancel);
    worker.busy--;
  }
}
