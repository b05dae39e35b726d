import { expect, type Page, test } from '@playwright/test';
import { hand } from './support/hand.ts';
import { difference, openWorkedUp, pictureOf } from './support/workbench.ts';

const form = (page: Page, name: string) => page.getByRole('complementary', { name, exact: true });
const stepNamed = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} [A-Z]`) });

/** Colours of the map's own canvas, as a few numbers. */
const mapPicture = (page: Page) =>
  page
    .getByTestId('map-raster')
    .first()
    .evaluate((canvas: HTMLCanvasElement) => {
      const data = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
      const out = new Array<number>(24).fill(0);
      for (let n = 0; n < data.length; n += 4)
        for (let c = 0; c < 3; c++) out[3 * Math.floor((8 * n) / data.length) + c] += data[n + c];
      return out.map((v) => v / Math.max(1, data.length / 32));
    });

test('waveform classes are seen on the map while their number moves, and kept', async ({ page }) => {
  await openWorkedUp(page);
  const horizon = await mapPicture(page);
  const person = hand(page);
  await person.click(page.getByRole('button', { name: /^Attributes ?: / }));
  await person.click(stepNamed(page, 'Waveform classes'));
  const sheet = form(page, 'Waveform classes');
  await person.click(sheet.getByRole('button', { name: 'Try on the map' }));
  await expect(page.getByText('class, a trial')).toBeVisible();
  const eight = await mapPicture(page);
  expect(difference(horizon, eight)).toBeGreaterThan(1);
  await sheet.getByRole('slider', { name: 'Classes' }).focus();
  await person.press('Home');
  await expect.poll(async () => difference(eight, await mapPicture(page))).toBeGreaterThan(0.5);
  await person.click(sheet.getByRole('button', { name: 'Run', exact: true }));
  await expect(page.getByRole('button', { name: /^Waveform classes of Full stack/ })).toBeVisible({ timeout: 60_000 });
  // the map that was made is shown, and its centres stand beside it in its colours
  await expect(page.getByLabel('What the map shows')).toContainText('Waveform classes of Full stack');
  const centres = page.getByRole('img', { name: 'Waveforms that 2 classes are centred on' });
  await expect(centres.locator('[data-class]')).toHaveCount(2);
  await expect(page.getByText(/^class, a trial$/)).toBeHidden();
  expect(person.actions).toBeLessThanOrEqual(10);
  // beside the classes: their match, the second best, the centres and the gains
  for (const name of ['Match of waveform classes', 'Second-best class', 'Class centres', 'Gain of classes'])
    await expect(page.getByRole('button', { name: new RegExp(`^${name} of Full stack`) })).toBeVisible();
});

test('coherence along dip is tried on the line in view, and says why where it cannot', async ({ page }) => {
  await openWorkedUp(page);
  const seismic = await pictureOf(page);
  await page.getByRole('button', { name: /^Attributes ?: / }).click();
  await stepNamed(page, 'Coherence').click();
  await form(page, 'Coherence').getByRole('button', { name: 'Try on this line' }).click();
  await expect.poll(async () => difference(seismic, await pictureOf(page)), { timeout: 30_000 }).toBeGreaterThan(5);
  await form(page, 'Coherence').getByRole('button', { name: 'Close' }).click();
  await expect.poll(async () => difference(seismic, await pictureOf(page))).toBeLessThan(1);
  await stepNamed(page, 'On a horizon').click();
  const sheet = form(page, 'On a horizon');
  await sheet.getByRole('button', { name: 'Try on the map' }).click();
  await expect(page.getByText(/amplitude, .*a trial/)).toBeVisible();
  await sheet.getByLabel('Gives').selectOption('thickness');
  await expect(sheet.getByText('A thickness needs a base.')).toBeVisible();
});
