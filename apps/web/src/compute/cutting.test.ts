import '../testing/browser';
import { LithagonError, memoryStore, type Store, uncutPlanes, type Volume } from '@lithagon/core';
import { madeVolume } from '@lithagon/core/testing/volume';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';

vi.mock('sonner', () => ({ toast: Object.assign(() => undefined, { error: () => undefined }) }));
/** Jobs as they reach a worker, which cuts when it is told to. */
const asked: { id: string; done(): Promise<void>; fail(): void }[] = [];
let store: Store;
vi.mock('./pool', () => ({
  runJob: (work: (remote: object, task: number) => Promise<boolean>, signal: AbortSignal) =>
    new Promise((resolve, reject) => {
      signal.addEventListener('abort', () => reject(new DOMException('stopped', 'AbortError')));
      const cut = async (_: number, __: string, id: string) => {
        asked.push({
          id,
          async done() {
            const volume = (await store.get(id)) as Volume | null;
            const { cutPlanes } = await import('@lithagon/core');
            resolve(volume !== null && (await cutPlanes(store, volume)) !== null);
          },
          fail: () => reject(new LithagonError('room', 'The disk is full.', { fix: 'Delete something.' })),
        });
        return true;
      };
      void work({ cut }, 1);
    }),
}));
const { refreshProject, useProject } = await import('../state/project');
const { useRuns } = await import('../state/runs');
const { keepCutting } = await import('./cutting');

const quiet = () => vi.advanceTimersByTimeAsync(1000);
let forget: () => void;

beforeEach(async () => {
  vi.useFakeTimers();
  asked.length = 0;
  store = memoryStore();
  for (const name of ['One', 'Two']) {
    const volume = await madeVolume(store, (i) => i, { name });
    await store.commit({ put: [{ ...volume, layouts: { inline: volume.layouts.inline } }] });
  }
  useRuns.setState({ runs: [] });
  useProject.setState({ id: 'p', store, writer: true, objects: [] });
  forget = keepCutting();
});
afterEach(() => {
  forget();
  vi.useRealTimers();
});

describe('volumes that are not cut for all planes', () => {
  test('are cut one after the other, and seen in the project as they are done', async () => {
    await refreshProject();
    await quiet();
    expect(asked.map((a) => a.id)).toEqual(['volume-One']);
    expect(useRuns.getState().runs.map((r) => r.title)).toEqual(['Cutting One for crosslines and slices']);
    await asked[0].done();
    await quiet();
    expect(asked.map((a) => a.id)).toEqual(['volume-One', 'volume-Two']);
    await asked[1].done();
    await quiet();
    expect(useRuns.getState().runs).toEqual([]);
    const { objects } = useProject.getState();
    expect(objects.map((o) => o.kind === 'volume' && uncutPlanes(o))).toEqual([[], []]);
    await quiet();
    expect(asked).toHaveLength(2);
  });

  test('wait until nothing else is at work, and for a tab that may change the project', async () => {
    const run = { id: 9, title: 'Loading', stage: 'data', part: 0, started: 0, cancel: () => undefined };
    useRuns.setState({ runs: [run] });
    await refreshProject();
    await quiet();
    expect(asked).toEqual([]);
    useProject.setState({ writer: false });
    useRuns.setState({ runs: [] });
    await quiet();
    expect(asked).toEqual([]);
    useProject.setState({ writer: true });
    await quiet();
    expect(asked).toHaveLength(1);
  });

  test('are cut after all where one that was deleted meanwhile comes back', async () => {
    await refreshProject();
    await quiet();
    const gone = (await store.get('volume-One')) as Volume;
    await store.commit({ remove: [gone.id] });
    await asked[0].done();
    await quiet();
    expect(asked.map((a) => a.id)).toEqual(['volume-One', 'volume-Two']);
    await asked[1].done();
    await store.commit({ put: [gone] });
    await refreshProject();
    await quiet();
    expect(asked.map((a) => a.id)).toEqual(['volume-One', 'volume-Two', 'volume-One']);
  });

  test('are let be once their cutting was cancelled or failed; the next has its turn', async () => {
    await refreshProject();
    await quiet();
    useRuns.getState().runs[0].cancel();
    await quiet();
    expect(asked.map((a) => a.id)).toEqual(['volume-One', 'volume-Two']);
    asked[1].fail();
    await quiet();
    expect(asked).toHaveLength(2);
    expect(useRuns.getState().runs).toEqual([]);
  });
});
