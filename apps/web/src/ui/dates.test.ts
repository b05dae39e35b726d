import { afterEach, describe, expect, test, vi } from 'vitest';
import { ago, listed, spoken } from './dates';

afterEach(() => {
  vi.useRealTimers();
});

describe('moments', () => {
  // without a zone a moment is of the place where one sits, wherever these tests run
  test('are of the place where one sits', () => {
    const here = new Date(2026, 2, 1, 14, 5).toISOString();
    expect(listed(here)).toBe('2026-03-01 14:05');
    expect(spoken(here)).toBe('1 Mar 2026, 14:05');
  });
  test('are told by how long ago they were', () => {
    vi.useFakeTimers();
    vi.setSystemTime(new Date('2026-03-01T14:05:00Z'));
    expect(ago('2026-03-01T11:05:00Z')).toBe('3 hours ago');
  });
  test('that cannot be read are left out', () => {
    expect(listed('')).toBe('');
    expect(spoken('soon')).toBe('at an unknown time');
    expect(ago('soon')).toBe('');
  });
});
