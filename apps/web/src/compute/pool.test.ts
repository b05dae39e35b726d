import '../testing/browser';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Outcome } from './jobs/task';

/** Workers as they are started, each with what it was asked to cancel. */
const started: { cancelled: number[]; flags: Int32Array }[] = [];
vi.stubGlobal('Worker', class {});
vi.mock('comlink', () => ({
  wrap: () => {
    const worker = {
      cancelled: [] as number[],
      flags: new Int32Array(0) as Int32Array,
      cancel: (task: number) => void worker.cancelled.push(task),
      writeAs: () => undefined,
      workOn: () => undefined,
      hearBy: (flags: Int32Array) => {
        worker.flags = flags;
      },
    };
    started.push(worker);
    return worker;
  },
}));

const fine = <T>(value: T): Outcome<T> => ({ ok: true, value });
/** Work that lasts until it is let go. */
function held() {
  let letGo: () => void = () => {};
  const done = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  return { done, letGo };
}

let pool: typeof import('./pool');
beforeEach(async () => {
  started.length = 0;
  vi.resetModules();
  Object.assign(navigator, { hardwareConcurrency: 4 });
  pool = await import('./pool');
});

test('a trial is stopped on a worker of its own, which neither views nor jobs wait for', async () => {
  const wait = held();
  const trial = pool.tryOut(() => wait.done.then(() => fine(5)));
  pool.forViews();
  await pool.runJob(async () => fine(0));
  expect(started).toHaveLength(3);
  trial.stop();
  expect(started.map((w) => w.cancelled.length)).toEqual([1, 0, 0]);
  wait.letGo();
  expect(await trial.done).toBe(5);
});

describe('work away from the page', () => {
  test('gives what the worker answered, or its error with what to do', async () => {
    expect(await pool.runJob(async () => fine(7))).toBe(7);
    const error = { code: 'tie', message: 'The well has no sonic.', object: 'QN-1', fix: 'Load it.' };
    await expect(pool.runJob(async () => ({ ok: false, error }) as Outcome<never>)).rejects.toMatchObject(error);
  });
  test('starts a worker only where none is idle, and never more than there are processors beside the page', async () => {
    await pool.runJob(async () => fine(1));
    await pool.runJob(async () => fine(2));
    expect(started).toHaveLength(1);
    const waits = Array.from({ length: 6 }, held);
    const jobs = waits.map(({ done }) => pool.runJob(() => done.then(() => fine(0))));
    expect(started).toHaveLength(3);
    for (const { letGo } of waits) letGo();
    await Promise.all(jobs);
    await pool.runJob(async () => fine(3));
    expect(started).toHaveLength(3);
  });
  test('never takes the worker that answers the views', async () => {
    const views = pool.forViews();
    expect(pool.forViews()).toBe(views);
    let remote: unknown;
    await pool.runJob(async (r) => {
      remote = r;
      return fine(0);
    });
    expect(remote).not.toBe(views);
  });
  test('is cancelled where it runs, by its own number, and not after it has ended', async () => {
    const [first, second] = [held(), held()];
    const [a, b] = [new AbortController(), new AbortController()];
    let task = 0;
    const one = pool.runJob((_, t) => {
      task = t;
      return first.done.then(() => fine(0));
    }, a.signal);
    const two = pool.runJob(() => second.done.then(() => fine(0)), b.signal);
    a.abort();
    expect(started.map((w) => w.cancelled)).toEqual([[task], []]);
    // it hears of it by a flag as well, while it computes and no message comes through
    expect(started.map((w) => [...w.flags].includes(task))).toEqual([true, false]);
    first.letGo();
    second.letGo();
    await Promise.all([one, two]);
    b.abort();
    expect(started[1].cancelled).toEqual([]);
  });
  test('that fails frees its worker', async () => {
    await expect(pool.runJob(() => Promise.reject(new Error('lost')))).rejects.toThrow('lost');
    await pool.runJob(async () => fine(0));
    expect(started).toHaveLength(1);
  });
});
