import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { boxOf, hand } from './support/hand.ts';
import { lineSegy } from './support/segy.ts';
import { difference, drop, newProject, openWorkedUp, pictureOf } from './support/workbench.ts';

const form = (page: Page, name: string) => page.getByRole('complementary', { name, exact: true });
const stepNamed = (page: Page, name: string) =>
  page.getByRole('button', { name: new RegExp(`^${name} [A-Z]`) }).first();
const bed = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} ?: `) });
const sectionOf = (page: Page, name = 'Section') => page.locator(`section[aria-label="${name}"]`);
const depthOf = (page: Page, name = 'Section') =>
  sectionOf(page, name)
    .getByRole('radiogroup', { name: `${name}: time or depth` })
    .getByRole('radio', { name: 'Depth' });

async function openVelocity(page: Page): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Open Velocity');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('group', { name: 'Velocity by time' })).toBeVisible({ timeout: 20_000 });
}

test('seismic and a velocity cube from files become a depth volume, checked at wells, in few actions', async ({
  page,
}) => {
  test.setTimeout(150_000);
  await newProject(page);
  const person = hand(page);
  await drop(page, [
    'quillon-full.sgy',
    'velocity-interval.sgy',
    'well-heads.csv',
    'well-surveys.csv',
    'well-tops.csv',
    'checkshots.csv',
  ]);
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await person.click(sheet.getByRole('radio', { name: 'Two-way time' }));
  await person.click(sheet.getByRole('button', { name: 'the same for all' }).first());
  await person.click(sheet.getByRole('button', { name: 'Yes, amplitude' }));
  await person.click(sheet.getByRole('radio', { name: 'positive' }));
  // what the cube is, is told by its samples, and why
  await person.click(sheet.getByRole('button', { name: /velocity-interval/ }));
  await expect(sheet.getByText(/as no mean from time 0 can: they look like interval velocities/)).toBeVisible();
  await person.click(sheet.getByRole('button', { name: 'Yes, interval velocity' }));
  await person.click(sheet.getByRole('button', { name: 'Load 6 files' }));
  await expect(page.getByText(/objects loaded from 6 files/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/);

  // no horizon, no model: the cube alone
  await person.click(bed(page, 'Depth'));
  await person.click(stepNamed(page, 'Volume to depth or time'));
  await person.click(form(page, 'Volume to depth or time').getByRole('button', { name: /^Run on the volume/ }));
  const made = page.getByRole('complementary', { name: /^Converted of quillon-full|^Converted/ });
  await expect(made).toContainText('Depth, m', { timeout: 60_000 });
  await person.click(made.getByRole('button', { name: 'Show in its view' }));
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/);
  await expect(sectionOf(page).locator('svg text').filter({ hasText: 'Depth (m)' })).toBeVisible();
  // wells with their tops lie on it by depth
  await expect(
    sectionOf(page)
      .locator('svg text')
      .filter({ hasText: /^QN-1$/ }),
  ).toBeVisible();
  await expect(
    sectionOf(page)
      .locator('svg text')
      .filter({ hasText: /^Tolven Top$/ }),
  ).toBeVisible();
  // dropping the files is one more
  expect(person.actions + 1).toBeLessThanOrEqual(15);
});

test('a 2D line of water, sediment and crust in depth beside time, and its picture, in few actions', async ({
  page,
}) => {
  test.setTimeout(150_000);
  await newProject(page);
  await drop(page, ['QL-07.sgy'], { 'QL-07.sgy': lineSegy([511500, 7644000], [516500, 7645600]) });
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  const raster = page.getByTestId('section-raster').first();
  await expect(raster).toHaveAttribute('data-plane', /line$/, { timeout: 30_000 });
  await bed(page, 'Interpret').click();
  const box = await boxOf(raster);
  for (const [name, at] of [
    ['Sea floor', 0.25],
    ['Top of crust', 0.55],
    ['Moho', 0.85],
  ] as const) {
    await page.getByRole('button', { name: 'Pick a horizon', exact: true }).click();
    const picking = form(page, 'Pick a horizon');
    await picking.getByLabel('Name').fill(name);
    await picking.getByLabel('Name').press('Enter');
    await picking.getByRole('radio', { name: 'Free-hand' }).click();
    await page.mouse.move(box.x + 0.05 * box.width, box.y + at * box.height);
    await page.mouse.down();
    await page.mouse.move(box.x + 0.95 * box.width, box.y + (at + 0.05) * box.height, { steps: 12 });
    await page.mouse.up();
    await expect(page.getByText(/^\d+ picks so far\.$/)).toBeVisible();
    await picking.getByRole('button', { name: 'Done' }).click();
  }

  const person = hand(page);
  await person.click(bed(page, 'Depth'));
  await person.click(stepNamed(page, 'Layer velocities'));
  const layers = form(page, 'Layer velocities');
  const law = (base: string) => layers.getByRole('combobox', { name: `Velocity down to ${base}` });
  const number = (what: string, base: string) => layers.getByRole('textbox', { name: `${what}, down to ${base}` });
  await person.choose(law('Sea floor'), 'constant');
  await person.type(number('Velocity', 'Sea floor'), '1500');
  await person.choose(law('Top of crust'), 'from top to base');
  await person.type(number('At the top', 'Top of crust'), '1500');
  await person.type(number('At the base', 'Top of crust'), '2400');
  await person.choose(law('Moho'), 'from top to base');
  await person.type(number('At the top', 'Moho'), '5500');
  await person.type(number('At the base', 'Moho'), '6500');
  await number('At the base', 'Moho').press('Enter');
  // which velocity holds where stands there in words
  await expect(layers).toContainText('5500 m/s at the layer’s top, rising evenly with depth to 6500 m/s at its base');
  await person.click(layers.getByRole('button', { name: 'Run', exact: true }));
  await expect(form(page, 'Velocity model')).toContainText('2400 m/s at its base', { timeout: 20_000 });
  await person.click(sectionOf(page).getByRole('button', { name: 'Settings of the section' }));
  await person.click(page.getByRole('button', { name: 'Depth beside it' }));
  const depth = sectionOf(page, 'Section 2');
  await expect(depth.getByTestId('section-raster')).toBeVisible({ timeout: 20_000 });
  await expect(depth.locator('svg text').filter({ hasText: 'Depth (m)' })).toBeVisible();
  // picks of time stand in both, and a picture leaves in depth
  await expect(depth.locator('[data-picks]')).toHaveCount(3);
  await page.keyboard.press('Escape');
  await person.click(depth.getByRole('button', { name: 'Settings of the section' }));
  await person.click(page.getByRole('button', { name: /^Save a picture of the section/ }));
  const picture = page.getByRole('dialog', { name: 'Save a picture' });
  await person.click(picture.getByRole('radio', { name: 'To scale' }));
  await expect(picture.getByLabel('cm to the km of depth')).toBeVisible();
  const saved = page.waitForEvent('download');
  await person.click(picture.getByRole('button', { name: 'Save', exact: true }));
  expect((await saved).suggestedFilename()).toMatch(/\.png$/);
  expect(person.actions).toBeLessThanOrEqual(20);

  // zooming in time zooms in depth: the two are locked by the model
  const axisOf = () => depth.textContent();
  const before = await axisOf();
  const time = await boxOf(sectionOf(page).getByTestId('section-raster'));
  await page.mouse.move(time.x + 0.5 * time.width, time.y + 0.4 * time.height);
  await page.keyboard.down('Control');
  for (let n = 0; n < 6; n++) await page.mouse.wheel(0, -120);
  await page.keyboard.up('Control');
  await expect.poll(axisOf).not.toBe(before);
});

test('velocities of every source stand beside each other; one that is dragged moves the section, and can be kept', async ({
  page,
}) => {
  await openWorkedUp(page);
  await openVelocity(page);
  await page.getByRole('button', { name: 'Close the tray' }).click();
  const sources = page.getByRole('list', { name: 'Sources of velocity' });
  for (const name of ['Velocities at wells', 'Interval velocity', 'Stacking velocity', 'QN-1'])
    await expect(sources.getByText(name, { exact: true })).toBeVisible({ timeout: 20_000 });
  await depthOf(page).click();
  await expect(page.getByRole('img', { name: /^Section along/ }).first()).toBeVisible();
  await page.waitForTimeout(500);
  const before = await pictureOf(page);
  const handle = page.getByRole('slider', { name: 'Velocity down to Brack Top' });
  await handle.focus();
  for (let n = 0; n < 6; n++) await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/tried: nothing is changed yet/)).toBeVisible();
  // what is stored gives way to what it would be
  await expect(sectionOf(page).getByLabel('Converted by')).toBeVisible();
  expect(difference(before, await pictureOf(page))).toBeGreaterThan(0.01);
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(page.getByText(/^Drag a ring sideways/)).toBeVisible();
  await handle.press('ArrowRight');
  await page.getByRole('button', { name: 'Keep as a model' }).click();
  await expect(sources.getByText('Velocities at wells, down to Brack Top × 1.005')).toBeVisible({ timeout: 20_000 });
  const { violations } = await new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).analyze();
  expect(violations.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => v.id)).toEqual([]);
});

test('what is in time shows in depth on the fly, and says what would show where nothing turns it', async ({ page }) => {
  await openWorkedUp(page);
  await page
    .getByRole('button', { name: /^Near stack/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Show in its view' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: 'Close the tray' }).click();
  await depthOf(page).click();
  await expect(sectionOf(page).getByLabel('Converted by')).toHaveValue(/velocity-model/);
  await expect(
    sectionOf(page)
      .locator('svg text')
      .filter({ hasText: /^Brack Top$/ })
      .first(),
  ).toBeVisible();
  await expect(sectionOf(page).locator('svg text').filter({ hasText: 'Depth (m)' })).toBeVisible();
  // the map of the other domain takes horizons along
  const map = page.locator('section[aria-label="Map"]');
  await map.getByRole('button', { name: 'Settings of the map' }).click();
  await page
    .getByRole('radiogroup', { name: 'Time or depth', exact: true })
    .getByRole('radio', { name: 'Depth' })
    .click();
  await page.keyboard.press('Escape');
  await map.getByLabel('What the map shows').selectOption({ label: 'Brack Top, converted' });
  await expect(map.getByText(/^Depth \(m\), every/)).toBeVisible({ timeout: 20_000 });

  // without velocities it is said what would show, and offered
  await newProject(page);
  await drop(page, ['quillon-full.sgy']);
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
  await sheet.getByRole('radio', { name: 'positive' }).click();
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 60_000 });
  await depthOf(page).click();
  await expect(sectionOf(page).getByText(/as soon as there are velocities/)).toBeVisible();
  await sectionOf(page).getByRole('button', { name: 'Model velocities…' }).click();
  await expect(form(page, 'Layer velocities')).toBeVisible();
});

test('residuals and closures of an uncertain depth stand in tables and on the map', async ({ page }) => {
  test.setTimeout(150_000);
  await openWorkedUp(page);
  await bed(page, 'Depth').click();
  await page.getByRole('button', { name: /^Residuals of Velocities of wells/ }).click();
  const table = page.getByRole('complementary', { name: /^Residuals of Velocities/ });
  await expect(table.getByRole('columnheader', { name: /Residual with the well left out/ })).toBeVisible();
  await table.getByRole('button', { name: 'Show on the map' }).click();
  await expect(page.locator('section[aria-label="Map"] [data-marks]')).toHaveAttribute('data-marks', /^[1-9]/);
  await stepNamed(page, 'Depth uncertainty').click();
  const step = form(page, 'Depth uncertainty');
  const typed = step.getByRole('textbox', { name: 'Realizations, typed' });
  await typed.fill('12');
  await typed.press('Enter');
  await step.getByRole('button', { name: 'Run', exact: true }).click();
  const deviation = page.getByRole('complementary', { name: /^Depth deviation of/ });
  await expect(deviation).toBeVisible({ timeout: 90_000 });
  await deviation.getByRole('button', { name: 'Show in its view' }).click();
  await expect(page.locator('section[aria-label="Map"]').getByText(/^depth deviation/)).toBeVisible();
});
