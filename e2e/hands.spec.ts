import { expect, type Page, test } from '@playwright/test';
import { boxOf } from './support/hand.ts';
import { lineSegy } from './support/segy.ts';
import { difference, drop, newProject, openWorkedUp, pictureOf } from './support/workbench.ts';

const section = (page: Page) => page.getByRole('region', { name: 'Section', exact: true });
const region = (page: Page) => page.getByRole('region', { name: 'Map', exact: true });

test('a horizon is picked on a slice of the map, snapped and followed', async ({ page }) => {
  await openWorkedUp(page);
  await region(page).getByLabel('What the map shows').selectOption('slice');
  await expect(page.getByTestId('map-raster').first()).toHaveAttribute('data-plane', /slice/);
  await page.getByRole('button', { name: /^Interpret ?: / }).click();
  await page.getByRole('button', { name: 'Pick a horizon', exact: true }).click();
  await page.getByLabel('Event', { exact: true }).selectOption('zero rising');
  const map = await boxOf(page.getByRole('img', { name: 'Map', exact: true }));
  const at = (fx: number, fy: number): [number, number] => [map.x + fx * map.width, map.y + fy * map.height];
  await page.mouse.move(...at(0.45, 0.5));
  const pointer = region(page).getByTestId('pick-pointer');
  await expect(pointer).toContainText(/snapped · zero rising ± 16 ms · (at \d|none here)/);
  await page.getByRole('radio', { name: 'Followed' }).click();
  await page.getByLabel('Snap within').press('End');
  await page.mouse.click(...at(0.45, 0.5));
  await expect(page.getByText('1 pick so far.')).toBeVisible();
  await page.mouse.move(...at(0.52, 0.56));
  await page.mouse.click(...at(0.52, 0.56));
  await expect(page.getByText(/^\d\d+ picks so far\.$/)).toBeVisible();
  const marks = region(page).locator('[data-picks="Picked horizon"]');
  await expect(marks.locator('[data-on-slice]')).not.toHaveAttribute('data-on-slice', /^[01]$/);
  // the right button takes one away
  const before = await page.getByText(/picks so far/).textContent();
  await page.mouse.click(...at(0.45, 0.5), { button: 'right' });
  await expect(page.getByText(/picks so far/)).not.toHaveText(before ?? '');
});

test('2D lines are joined into one section that turns where they cross', async ({ page }) => {
  await newProject(page);
  const files = {
    'QL-07.sgy': lineSegy([511500, 7644000], [516500, 7645600]),
    'QL-12.sgy': lineSegy([514800, 7642600], [513900, 7648000]),
  };
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  for (const name of Object.keys(files)) {
    await drop(page, [name], files);
    await sheet.getByRole('radio', { name: 'Two-way time' }).click();
    await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
    await sheet.getByRole('button', { name: 'Load 1 file' }).click();
    await expect(sheet).toBeHidden();
  }
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /line$/, { timeout: 30_000 });
  const alone = await pictureOf(page);
  await page.getByRole('button', { name: 'Join 2D lines' }).click();
  await page.getByLabel('Go on along').selectOption({ label: 'QL-12' });
  await expect(page.getByLabel('QL-12 from CDP')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /\+/);
  await expect(section(page).locator('[data-joint="QL-12"]')).toHaveCount(1);
  await expect(page.getByLabel('Line of the section')).toHaveValue('joined');
  expect(difference(alone, await pictureOf(page))).toBeGreaterThan(2);
  // turned round, it is another section
  const joined = await pictureOf(page);
  await page.getByRole('button', { name: 'Join 2D lines' }).click();
  await page.getByRole('button', { name: 'Turn QL-12 round' }).click();
  await page.keyboard.press('Escape');
  await expect.poll(async () => difference(joined, await pictureOf(page))).toBeGreaterThan(1);
});

test('synthetics stand along the wells of a section, and a view has colours of its own', async ({ page }) => {
  await openWorkedUp(page);
  await section(page).getByRole('button', { name: 'Layers' }).click();
  await page.getByLabel('Along wells').selectOption('synthetic');
  await expect(section(page).getByTestId('synthetic-along').first()).toBeVisible({ timeout: 20_000 });
  const shared = await pictureOf(page);
  const scene = page.getByRole('region', { name: 'Scene', exact: true });
  await section(page).getByRole('button', { name: 'Colours of Full stack' }).click();
  await page.getByLabel('In this view alone').check();
  await page.getByLabel('Reverse colours').check();
  await page.keyboard.press('Escape');
  await expect.poll(async () => difference(shared, await pictureOf(page))).toBeGreaterThan(2);
  // the scene has the shared ones
  await scene.getByRole('button', { name: 'Colours of Full stack' }).click();
  await expect(page.getByLabel('Reverse colours')).not.toBeChecked();
  await expect(page.getByText('Section has colours of its own.')).toBeVisible();
  await page.keyboard.press('Escape');
  await section(page).getByRole('button', { name: 'Colours of Full stack' }).click();
  await page.getByLabel('In this view alone').uncheck();
  await expect.poll(async () => difference(shared, await pictureOf(page))).toBeLessThan(1);
});

test('what stands in the scene has a menu by the right button', async ({ page }) => {
  await openWorkedUp(page);
  const scene = page.getByRole('region', { name: 'Scene', exact: true });
  const canvas = scene.getByTestId('scene-canvas');
  const box = await boxOf(canvas);
  const menu = scene.getByRole('menu');
  // somewhere over the survey a horizon, fault or well stands in front
  let found = false;
  for (let n = 0; n < 25 && !found; n++) {
    const [fx, fy] = [0.3 + 0.1 * (n % 5), 0.3 + 0.1 * Math.floor(n / 5)];
    await page.mouse.click(box.x + fx * box.width, box.y + fy * box.height, { button: 'right' });
    found = await menu.isVisible();
  }
  expect(found).toBe(true);
  const name = (await menu.getAttribute('aria-label')) ?? '';
  await menu.getByRole('menuitem', { name: 'Open its sheet' }).click();
  await expect(page.getByRole('complementary', { name })).toBeVisible();
  // a drag with that button turns the scene and opens nothing
  await page.mouse.move(box.x + 0.5 * box.width, box.y + 0.5 * box.height);
  await page.mouse.down({ button: 'right' });
  await page.mouse.move(box.x + 0.6 * box.width, box.y + 0.5 * box.height, { steps: 4 });
  await page.mouse.up({ button: 'right' });
  await expect(menu).toBeHidden();
});
