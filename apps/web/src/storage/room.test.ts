import '../testing/browser';
import { afterEach, expect, test } from 'vitest';
import { checkRoom, roomLeft } from './room';

/** A browser that gives this site so much. */
function browser(usage: number, quota: number, persisted = false): void {
  Object.assign(navigator, {
    storage: { estimate: async () => ({ usage, quota }), persisted: async () => persisted },
  });
}
afterEach(() => Object.assign(navigator, { storage: undefined }));

test('what a browser has given is told; one that does not say stops nothing', async () => {
  expect(await roomLeft()).toBeNull();
  await expect(checkRoom('Variance', 1e15)).resolves.toBeUndefined();
  browser(3e9, 10e9, true);
  expect(await roomLeft()).toEqual({ used: 3e9, quota: 10e9, persisted: true });
});

test('a run whose results fit begins; one that would not is refused with both sizes and what to do', async () => {
  browser(3e9, 10e9);
  await expect(checkRoom('Variance', 7e9)).resolves.toBeUndefined();
  const refused = checkRoom('Variance', 8e9);
  await expect(refused).rejects.toThrow(/^Variance would take 8(\.0)?\s?GB, and the browser has 7(\.0)?\s?GB left/);
  await expect(refused).rejects.toMatchObject({ code: 'space', fix: expect.stringContaining('Nothing was begun.') });
});

test('more than what was given already leaves nothing, not less', async () => {
  browser(12e9, 10e9);
  await expect(checkRoom('Crop', 1)).rejects.toThrow(/has 0 \w+ left/);
});
