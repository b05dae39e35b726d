import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import { drop, newProject } from '../e2e/support/workbench.ts';

/** Everything that a project's database holds, and what is wrong with it. */
async function stateOf(page: Page, id: string) {
  return page.evaluate(
    (name) =>
      new Promise<{ objects: Record<string, string>; wrong: string[]; owners: string[] }>((resolve, reject) => {
        const request = indexedDB.open(name);
        request.onerror = () => reject(request.error);
        request.onsuccess = () => {
          const tx = request.result.transaction(['objects', 'arrays']);
          const objects = tx.objectStore('objects').getAll();
          const keys = tx.objectStore('arrays').getAllKeys();
          const lengths = new Map<string, number>();
          const cursor = tx.objectStore('arrays').openCursor();
          cursor.onsuccess = () => {
            if (!cursor.result) return;
            lengths.set(String(cursor.result.key), cursor.result.value.byteLength);
            cursor.result.continue();
          };
          tx.oncomplete = () => {
            const wrong: string[] = [];
            const refs = (
              value: unknown,
              found: { key: string; shape: number[]; chunk: number[]; flat?: boolean; scaled?: object }[] = [],
            ) => {
              if (typeof value === 'object' && value !== null) {
                if ('key' in value && 'chunk' in value) found.push(value as never);
                else for (const each of Object.values(value)) refs(each, found);
              }
              return found;
            };
            for (const object of objects.result)
              for (const ref of refs(object)) {
                const counts = ref.shape.map((n, axis) => Math.ceil(n / ref.chunk[axis]));
                const total = counts.reduce((a, b) => a * b, 1);
                const bytes = ref.chunk.reduce((a, b) => a * b, ref.scaled ? 2 : 4);
                for (let n = 0; n < total; n++) {
                  const at: number[] = [];
                  for (let axis = counts.length - 1, rest = n; axis >= 0; axis--) {
                    at.unshift(rest % counts[axis]);
                    rest = Math.floor(rest / counts[axis]);
                  }
                  const key = `${ref.key}/${['c', ...at].join(ref.flat ? '.' : '/')}`;
                  if (lengths.get(key) !== bytes)
                    wrong.push(`${object.name}: ${key} has ${lengths.get(key)} bytes of ${bytes}`);
                }
              }
            request.result.close();
            resolve({
              objects: Object.fromEntries(objects.result.map((o) => [o.id, `${o.kind} ${o.name} ${o.revision}`])),
              wrong,
              owners: [...new Set(keys.result.map((key) => String(key).split('/')[0]))],
            });
          };
        };
      }),
    `lithagon-${id}`,
  );
}
const idOf = (page: Page) => new URL(page.url()).searchParams.get('project') ?? '';
const settled = (page: Page) => expect(page.getByText(/^Cutting /)).toHaveCount(0, { timeout: 60_000 });

/** A project with a volume that was loaded from a file and cut. */
async function withVolume(page: Page): Promise<string> {
  await newProject(page);
  await load(page, 'quillon-full.sgy');
  await expect(page.getByText(/1 object loaded/)).toBeVisible({ timeout: 60_000 });
  await page.waitForTimeout(600);
  await settled(page);
  return idOf(page);
}
async function load(page: Page, file: string) {
  await drop(page, [file]);
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByLabel('Samples are', { exact: true }).selectOption('amplitude');
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
}
async function run(page: Page) {
  const tray = page.getByRole('complementary', { name: 'Attributes' });
  if (!(await tray.isVisible())) await page.getByRole('button', { name: /^Attributes ?: / }).click();
  await tray.getByRole('button', { name: /^Variance Lateral/ }).click();
  await page.getByRole('button', { name: /^Run/ }).click();
}
async function reopen(context: BrowserContext, id: string): Promise<Page> {
  const page = await context.newPage();
  await page.goto(`/work/?project=${id}`);
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 60_000 });
  return page;
}
/** What was there before is there as it was, all that is listed is whole. */
async function check(page: Page, id: string, before: Record<string, string>) {
  const now = await stateOf(page, id);
  expect(now.wrong).toEqual([]);
  for (const [key, what] of Object.entries(before)) expect(now.objects[key]).toBe(what);
  return now;
}

// two halves, side by side
for (const half of [0, 1])
  test(`fifty tabs are closed in mid-work, half ${half}: nothing is lost, nothing half made is listed, nothing is left`, async ({
    context,
    page,
  }) => {
    const id = await withVolume(page);
    const { objects: before } = await stateOf(page, id);
    let tab = page;
    for (let n = 0; n < 25; n++) {
      if (n % 2 === half) await load(tab, 'quillon-near.sgy');
      else await run(tab);
      await tab.waitForTimeout(((2 * n + half) * 137) % 1500);
      const closing = tab;
      tab = await context.newPage();
      await closing.close({ runBeforeUnload: false });
      await tab.goto(`/work/?project=${id}`);
      await expect(tab.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 60_000 });
      const now = await check(tab, id, before);
      const listed = Object.keys(now.objects);
      // what was loaded before the tab was closed makes the next name longer; it is taken away again
      if (listed.length > 6) {
        await settled(tab);
        await tab.evaluate(
          ({ name, keep }) =>
            new Promise<void>((resolve) => {
              const request = indexedDB.open(name);
              request.onsuccess = () => {
                const tx = request.result.transaction('objects', 'readwrite');
                const keys = tx.objectStore('objects').getAllKeys();
                keys.onsuccess = () => {
                  for (const key of keys.result) if (!keep.includes(String(key))) tx.objectStore('objects').delete(key);
                };
                tx.oncomplete = () => {
                  request.result.close();
                  resolve();
                };
              };
            }),
          { name: `lithagon-${id}`, keep: Object.keys(before) },
        );
        await tab.reload();
        await expect(tab.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 60_000 });
      }
    }
    await tab.reload();
    await expect(tab.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 60_000 });
    await settled(tab);
    const end = await stateOf(tab, id);
    expect(
      end.owners.filter(
        (owner) => !Object.keys(end.objects).some((key) => owner === key || owner.startsWith(`${key}.`)),
      ),
    ).toEqual([]);
  });

const WORK: Record<string, (page: Page) => Promise<unknown>> = {
  load: (page) => load(page, 'quillon-near.sgy'),
  run: (page) => run(page),
  edit: async (page) => {
    await page
      .getByRole('button', { name: /quillon-full/ })
      .first()
      .click();
    await page.getByLabel('Name', { exact: true }).fill('Renamed');
    await page.keyboard.press('Enter');
  },
};

for (const [name, work] of Object.entries(WORK))
  for (const second of ['opens and looks', 'takes over', 'opens, and the first is closed'] as const)
    test(`two tabs: while one is at ${name}, another ${second}`, async ({ context, page }) => {
      const id = await withVolume(page);
      const { objects: before } = await stateOf(page, id);
      await work(page);
      const other = await reopen(context, id);
      await expect(other.getByText('This project is open in another tab.')).toBeVisible();
      if (second === 'takes over') await other.getByRole('button', { name: 'Work here instead' }).click();
      if (second === 'opens, and the first is closed') await page.close({ runBeforeUnload: false });
      else await expect(page.getByRole('button', { name: /^Cancel / })).toHaveCount(0, { timeout: 60_000 });
      await other.waitForTimeout(1000);
      const volume = Object.keys(before)[0];
      const now = await stateOf(other, id);
      expect(now.wrong).toEqual([]);
      expect(now.objects[volume]).toBeDefined();
      // what the first tab was at is there whole where it kept the project
      if (second === 'opens and looks') expect(Object.keys(now.objects).length).toBe(name === 'edit' ? 1 : 2);
      // who holds the project now can work on
      if (second === 'takes over') {
        await run(other);
        await expect
          .poll(
            async () => Object.values((await stateOf(other, id)).objects).filter((o) => /Variance/.test(o)).length,
            { timeout: 60_000 },
          )
          .toBeGreaterThan(0);
        expect((await stateOf(other, id)).wrong).toEqual([]);
      }
    });

test('a quota that fills: a sentence, and the project as it was', async ({ context, page }) => {
  const id = await withVolume(page);
  let { objects: before } = await stateOf(page, id);
  let refused = 0;
  const session = await context.newCDPSession(page);
  const { origin } = new URL(page.url());
  const quota = async (quotaSize?: number) => session.send('Storage.overrideQuotaForOrigin', { origin, quotaSize });
  for (const left of [0, 2e6, 6e6])
    for (const work of [WORK.load, WORK.run]) {
      await quota();
      await page.goto(`/work/?project=${id}`);
      await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 60_000 });
      // the database takes less once it has tidied up
      const used = await page.evaluate(async () => (await navigator.storage.estimate()).usage ?? 0);
      await quota(used + left);
      await work(page);
      const sentence = page.getByText(
        /gives this site no more space|gave up keeping the data|has .* left for this site/,
      );
      // what the database has tidied away meanwhile may be room enough
      const ended = async () =>
        (await sentence.count()) > 0 ||
        Object.keys((await stateOf(page, id)).objects).length > Object.keys(before).length;
      await expect.poll(ended, { timeout: 60_000 }).toBe(true);
      await expect(page.getByText('not foreseen')).toHaveCount(0);
      const now = await check(page, id, before);
      if (Object.keys(now.objects).length === Object.keys(before).length) refused++;
      before = now.objects;
    }
  await quota();
  expect(refused).toBeGreaterThan(2);
});
