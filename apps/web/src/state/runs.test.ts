import { LithagonError } from '@lithagon/core';
import { expect, test, vi } from 'vitest';

const told: { kind: string; text: string; more?: { description?: string } }[] = [];
vi.mock('sonner', () => ({
  toast: Object.assign((text: string) => void told.push({ kind: 'plain', text }), {
    error: (text: string, more: { description?: string }) => void told.push({ kind: 'error', text, more }),
  }),
}));
const { track, useRuns } = await import('./runs');

test('a job is listed with its progress while it works, and no longer', async () => {
  let seen: { title: string; part: number }[] = [];
  const made = await track('Variance', 'attributes', async (_, progress) => {
    progress(0.4);
    seen = useRuns.getState().runs.map(({ title, part }) => ({ title, part }));
    return 7;
  });
  expect(made).toBe(7);
  expect(seen).toEqual([{ title: 'Variance', part: 0.4 }]);
  expect(useRuns.getState().runs).toEqual([]);
});

test('one that is cancelled says that nothing was changed', async () => {
  const ended = track(
    'Tracking',
    'interpret',
    (signal) =>
      new Promise((_, reject) => {
        signal.addEventListener('abort', () => reject(new DOMException('cancelled', 'AbortError')));
      }),
  );
  useRuns.getState().runs[0].cancel();
  expect(await ended).toBeNull();
  expect(told.at(-1)).toEqual({ kind: 'plain', text: 'Tracking: cancelled. Nothing of it was kept.' });
  expect(useRuns.getState().runs).toEqual([]);
});

test('one that fails says what happened and what to do', async () => {
  const made = await track('Load', 'data', async () => {
    throw new LithagonError('file', 'The file is cut short.', { fix: 'Ask for it again.' });
  });
  expect(made).toBeNull();
  expect(told.at(-1)).toMatchObject({
    kind: 'error',
    text: 'The file is cut short.',
    more: { description: 'Ask for it again.' },
  });
});

test('jobs at one time keep their own progress', async () => {
  const go: (() => void)[] = [];
  const one = (title: string, part: number) =>
    track(title, 'data', async (_, progress) => {
      progress(part);
      await new Promise<void>((resolve) => go.push(resolve));
    });
  const both = [one('A', 0.1), one('B', 0.9)];
  expect(useRuns.getState().runs.map((r) => [r.title, r.part])).toEqual([
    ['A', 0.1],
    ['B', 0.9],
  ]);
  for (const end of go) end();
  await Promise.all(both);
});
