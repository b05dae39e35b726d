// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { type Demo, useDemo, waitingFor } from './useDemo';

let answers: (Partial<Demo> | number)[] = [];
let asked = 0;
beforeEach(() => {
  asked = 0;
  vi.useFakeTimers();
  vi.stubGlobal('fetch', async () => {
    const answer = answers[Math.min(asked++, answers.length - 1)];
    return typeof answer === 'number'
      ? { ok: false, status: answer }
      : { ok: true, json: async () => ({ what: '', part: 0, problem: '', ...answer }) };
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const passes = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

test('the server is asked until both parts are there, and each is told as soon as it is', async () => {
  answers = [
    { files: 'making', project: 'missing', what: 'Shooting the survey', part: 0.42 },
    { files: 'there', project: 'making', what: 'Tolven Top', part: 0.5 },
    { files: 'there', project: 'there' },
  ];
  const { result } = renderHook(() => useDemo());
  expect(waitingFor(result.current, 'project')).toBeNull();
  await passes(0);
  expect(waitingFor(result.current, 'files')).toBe('Being made now: Shooting the survey, 42 %.');
  expect(waitingFor(result.current, 'project')).toBe('Comes after the raw files: Shooting the survey, 42 %.');
  await passes(1000);
  expect(waitingFor(result.current, 'files')).toBeNull();
  expect(waitingFor(result.current, 'project')).toBe('Being made now: Tolven Top, 50 %.');
  await passes(1000);
  expect(waitingFor(result.current, 'project')).toBeNull();
  await passes(10_000);
  expect(asked).toBe(3);
});

test('without a demo, or where it failed, it says what to do and asks no more', async () => {
  answers = [404];
  const missing = renderHook(() => useDemo());
  await passes(5000);
  expect(waitingFor(missing.result.current, 'files')).toContain('npm run demo');
  expect(asked).toBe(1);
  missing.unmount();
  answers = [{ files: 'missing', project: 'missing', problem: 'The demo field could not be made: no room.' }];
  const failed = renderHook(() => useDemo());
  await passes(5000);
  expect(waitingFor(failed.result.current, 'project')).toBe('The demo field could not be made: no room.');
  expect(asked).toBe(2);
});

test('an answer that is no state counts as none', async () => {
  answers = [{ files: 'elsewhere' as never, project: 'there' }];
  const { result } = renderHook(() => useDemo());
  await passes(0);
  expect(result.current.files).toBe('missing');
});
