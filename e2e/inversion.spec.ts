import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { hand } from './support/hand.ts';
import { difference, openWorkedUp, pictureOf } from './support/workbench.ts';

const form = (page: Page, name: string) => page.getByRole('complementary', { name, exact: true });
const stepNamed = (page: Page, name: string) =>
  page.getByRole('button', { name: new RegExp(`^${name} [A-Z]`) }).first();
const sheetOf = (page: Page, name: RegExp) => page.getByRole('complementary', { name });
const typed = (page: Page, step: string, field: string) =>
  form(page, step).getByRole('textbox', { name: `${field}, typed`, exact: true });

/** What the page asks its workers for, by name, from here on. */
async function askedOfWorkers(page: Page): Promise<() => Promise<string[]>> {
  await page.addInitScript(() => {
    const asked: string[] = [];
    Object.assign(window, { asked });
    const post = Worker.prototype.postMessage;
    Worker.prototype.postMessage = function (this: Worker, ...args: Parameters<typeof post>) {
      const { path } = (args[0] ?? {}) as { path?: string[] };
      if (path?.[0]) asked.push(path[0]);
      return post.apply(this, args);
    } as typeof post;
  });
  return () => page.evaluate(() => (window as unknown as { asked: string[] }).asked.splice(0));
}

async function serious(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).analyze();
  return violations.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => v.id);
}

test('stacks become a turned impedance, and turning draws again without reading anything', async ({ page }) => {
  const asked = await askedOfWorkers(page);
  await openWorkedUp(page);
  // the set of stacks is told by their headers, and shown with how they compare
  await page
    .getByRole('button', { name: /^Near stack/ })
    .first()
    .click({ timeout: 10_000 });
  await expect(sheetOf(page, /^Near stack/)).toContainText('5° to 15°, by its text header');
  await expect(page.getByRole('img', { name: 'Stacks against the first by time' })).toBeVisible({ timeout: 20_000 });

  const person = hand(page);
  await person.click(page.getByRole('button', { name: /^Invert ?: / }));
  await person.click(stepNamed(page, 'Design an operator'));
  await person.click(form(page, 'Design an operator').getByRole('button', { name: 'Run', exact: true }));
  await expect(page.getByRole('img', { name: 'Spectra of impedance' })).toBeVisible({ timeout: 60_000 });
  await expect(sheetOf(page, /^Operator of/)).toContainText('dB of logs');
  await person.click(stepNamed(page, 'Intercept and gradient'));
  await person.click(form(page, 'Intercept and gradient').getByRole('button', { name: /^Run on the volume/ }));
  await expect(sheetOf(page, /^Intercept$/)).toBeVisible({ timeout: 60_000 });
  await person.click(stepNamed(page, 'Turn a pair'));
  await person.click(form(page, 'Turn a pair').getByRole('button', { name: 'Run', exact: true }));
  const slider = page.getByRole('slider', { name: 'Angle of the pair' });
  await expect(slider).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('img', { name: 'Correlation with logs by angle' })).toBeVisible();
  const turned = page.getByTestId('turned-raster');
  await expect(turned).toBeVisible();
  await person.click(page.getByRole('button', { name: /^Least background, / }));
  await person.click(page.getByRole('button', { name: 'Store this angle…' }));
  await person.click(form(page, 'Turn and store').getByRole('button', { name: /^Run on the volume/ }));
  await expect(sheetOf(page, /^Turned pair of Intercept at -?\d+°$/)).toContainText('relative impedance', {
    timeout: 60_000,
  });
  expect(person.actions).toBeLessThanOrEqual(11);

  // the pair again: every degree is another picture, and no worker is asked for anything
  await page
    .getByRole('button', { name: /^Turned pair of Intercept/ })
    .last()
    .click({ timeout: 10_000 });
  await page.getByRole('button', { name: 'Show in its view' }).click({ timeout: 10_000 });
  await expect(turned).toBeVisible();
  await expect(page.getByText(/^Turned pair of Intercept at -?\d+°$/).first()).toBeVisible();
  const picture = () =>
    turned.evaluate((canvas: HTMLCanvasElement) => {
      const data = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
      let sum = 0;
      for (let n = 0; n < data.length; n += 997) sum = (sum * 31 + data[n]) % 1000003;
      return sum;
    });
  await slider.focus();
  await page.keyboard.press('Home');
  await expect(page.getByText('Angle', { exact: true }).first()).toBeVisible();
  const before = await picture();
  await asked();
  for (let n = 0; n < 12; n++) await page.keyboard.press('ArrowRight');
  await expect.poll(picture).not.toBe(before);
  const reads = (await asked()).filter((name) => !['hearBy', 'cancel'].includes(name));
  expect(reads.filter((name) => /plane|trial|along|run|onHorizon/i.test(name))).toEqual([]);
  expect(await serious(page)).toEqual([]);
});

test('a model, an inversion, realizations that are paged through, and a probability', async ({ page }) => {
  // twenty realizations of a whole survey, beside whatever else is tested
  test.slow();
  const asked = await askedOfWorkers(page);
  await openWorkedUp(page);
  const person = hand(page);
  await person.click(page.getByRole('button', { name: /^Invert ?: / }));
  await person.click(stepNamed(page, 'Low-frequency model'));
  await person.click(form(page, 'Low-frequency model').getByRole('button', { name: /^Run on the volume/ }));
  await expect(sheetOf(page, /^Low-frequency model of/)).toContainText('kg/m²s', { timeout: 60_000 });
  await person.click(stepNamed(page, 'Impedance with its spread'));
  await person.click(form(page, 'Impedance with its spread').getByRole('button', { name: /^Run on the volume/ }));
  await expect(sheetOf(page, /^Impedance of/)).toContainText('impedance', { timeout: 120_000 });
  await person.click(stepNamed(page, 'Draw realizations'));
  for (const [field, value] of [
    ['From', '900'],
    ['To', '1060'],
  ]) {
    await person.type(typed(page, 'Draw realizations', field), value);
    await page.keyboard.press('Enter');
  }
  await person.click(form(page, 'Draw realizations').getByRole('button', { name: /^Run on the volume/ }));
  await expect(sheetOf(page, /^Realization 1$/)).toBeVisible({ timeout: 120_000 });
  await expect(page.getByText('1 of 20')).toBeVisible();
  // like a film: a page is one plane in each view that shows it, and pages before are here already
  const raster = page.getByTestId('section-raster');
  await expect(raster).toHaveAttribute('data-plane', /inline/);
  const first = await pictureOf(page);
  const plane = await raster.getAttribute('data-plane');
  await page.waitForTimeout(500);
  await asked();
  const next = page.getByRole('button', { name: 'Next realization' });
  await next.click({ timeout: 10_000 });
  await expect(page.getByText('2 of 20')).toBeVisible();
  await expect(raster).not.toHaveAttribute('data-plane', plane ?? '');
  await expect.poll(async () => difference(await pictureOf(page), first)).toBeGreaterThan(1);
  const made = (await asked()).filter((name) => !['hearBy', 'cancel'].includes(name));
  expect(made.every((name) => name === 'plane')).toBe(true);
  // those of the section and the scene, and of the lines next to them
  expect(made.length).toBeLessThanOrEqual(8);
  await page.getByRole('button', { name: 'Realization before' }).click({ timeout: 10_000 });
  await expect(raster).toHaveAttribute('data-plane', plane ?? '');

  await person.click(stepNamed(page, 'Probability'));
  await person.type(typed(page, 'Probability', 'To'), '5500000');
  await page.keyboard.press('Enter');
  await person.click(form(page, 'Probability').getByRole('button', { name: /^Run on the volume/ }));
  await expect(sheetOf(page, /^Probability of Impedance/)).toContainText('probability', { timeout: 60_000 });
  expect(person.actions).toBeLessThanOrEqual(13);

  expect(await serious(page)).toEqual([]);
});

test('net pay is calibrated in four charts at once, saved, and gone back to', async ({ page }) => {
  await openWorkedUp(page);
  const person = hand(page);
  await person.click(page.getByRole('button', { name: /^Invert ?: / }));
  await person.click(stepNamed(page, 'Design an operator'));
  await person.click(form(page, 'Design an operator').getByRole('button', { name: 'Run', exact: true }));
  await expect(sheetOf(page, /^Operator of/)).toBeVisible({ timeout: 60_000 });
  await person.click(stepNamed(page, 'Coloured inversion'));
  await person.click(form(page, 'Coloured inversion').getByRole('button', { name: /^Run on the volume/ }));
  await expect(sheetOf(page, /^Relative impedance of/)).toBeVisible({ timeout: 60_000 });
  await person.click(stepNamed(page, 'Net pay'));
  const sheet = form(page, 'Net pay');
  await person.choose(sheet.getByRole('combobox', { name: 'Top', exact: true }), { label: 'Tolven Top' });
  await person.choose(sheet.getByRole('combobox', { name: 'Base', exact: true }), { label: 'Tolven Base' });
  for (const name of [
    'Amplitude against apparent thickness',
    'Wedge through the band of the data',
    'Net pay at wells',
    'Map of net pay',
  ])
    await expect(page.getByRole('img', { name })).toBeVisible({ timeout: 30_000 });
  const scale = page.getByRole('status', { name: 'Scale' });
  const found = Number(await scale.textContent());
  const high = page.getByText(/^P10 \(high\)/);
  const [curve, spread] = [page.getByTestId('tuning-curve'), await high.textContent()];
  const drawn = await curve.getAttribute('d');
  // the scale is moved, and all four with it
  await page.getByRole('slider', { name: 'Scale of net pay' }).focus();
  for (let n = 0; n < 15; n++) await page.keyboard.press('ArrowRight');
  await expect.poll(async () => Number(await scale.textContent())).toBeGreaterThan(1.1 * found);
  await expect(curve).not.toHaveAttribute('d', drawn ?? '');
  await expect(high).not.toHaveText(spread ?? '');
  await person.click(page.getByRole('button', { name: 'As the wells have it' }));
  await expect.poll(async () => Number(await scale.textContent())).toBeCloseTo(found, 6);
  expect(await serious(page)).toEqual([]);
  await person.click(sheet.getByRole('button', { name: 'Run', exact: true }));
  await expect(sheetOf(page, /^Net pay of/)).toBeVisible({ timeout: 60_000 });
  expect(person.actions).toBeLessThanOrEqual(16);
  // the map keeps its settings, and the view opens with them again
  await expect(page.getByRole('img', { name: 'Map of net pay' })).toBeVisible();
  await page.getByRole('button', { name: 'Change its settings' }).click({ timeout: 10_000 });
  await expect(sheet.getByText(/^Takes the place of .*Net pay of/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Net pay at wells and in the area/ }).first()).toBeVisible();
});
