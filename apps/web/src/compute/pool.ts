import { thrown } from '@lithagon/core/kept';
import * as Comlink from 'comlink';
import type { Outcome } from './jobs/task';
import type { WorkerApi } from './worker';

/**
 * One worker answers the views and one tries steps, so that neither a long run nor a trial ever delays what is looked at; jobs
 * take turns on the others.
 */
type Remote = Comlink.Remote<WorkerApi>;

/** A worker, and the flags by which it hears of a cancel while it computes. */
interface Known {
  remote: Remote;
  flags: Int32Array | null;
  busy: number;
}

/** Tasks under way at once whose flags do not meet. */
const FLAGS = 256;

function spawn(): Known {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'lithagon' });
  const remote = Comlink.wrap<WorkerApi>(worker);
  const flags = typeof SharedArrayBuffer === 'undefined' ? null : new Int32Array(new SharedArrayBuffer(4 * FLAGS));
  if (flags) void remote.hearBy(flags);
  void remote.workOn(navigator.hardwareConcurrency);
  return { remote, flags, busy: 0 };
}

let viewWorker: Known | null = null;
let trialWorker: Known | null = null;
const jobWorkers: Known[] = [];
let tasks = 0;

export function forViews(): Remote {
  viewWorker ??= spawn();
  return viewWorker.remote;
}

/** Have a task of a worker stop: by its flag where it computes, by a message where it waits. */
function stop({ remote, flags }: Known, task: number): void {
  if (flags) Atomics.store(flags, task % flags.length, task);
  void remote.cancel(task);
}

/** Try a step on a worker of its own; `stop` gives up what is not wanted any more. */
export function tryOut<T>(work: (remote: Remote, task: number) => Promise<Outcome<T>>): {
  done: Promise<T>;
  stop(): void;
} {
  trialWorker ??= spawn();
  const worker = trialWorker;
  const task = ++tasks;
  return { done: work(worker.remote, task).then(unwrap), stop: () => stop(worker, task) };
}

function leastBusy(): Known {
  const most = Math.max(1, Math.min(4, navigator.hardwareConcurrency - 1));
  const idle = jobWorkers.find((w) => w.busy === 0);
  if (idle) return idle;
  if (jobWorkers.length < most) jobWorkers.push(spawn());
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
  throw thrown(outcome.error);
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
  const cancel = () => stop(worker, task);
  signal?.addEventListener('abort', cancel);
  try {
    return unwrap(await work(worker.remote, task));
  } finally {
    signal?.removeEventListener('abort', cancel);
    worker.busy--;
  }
}
