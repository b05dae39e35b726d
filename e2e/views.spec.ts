import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { boxOf, markOf } from './support/hand.ts';
import { openWorkedUp } from './support/workbench.ts';

const section = (page: Page) => page.getByRole('region', { name: 'Section', exact: true });

test('each view holds its own list: an object is hidden in one, faint in another, and that survives a reload', async ({
  page,
}) => {
  await openWorkedUp(page);
  const horizons = section(page).locator('svg text').filter({ hasText: 'Tolven Base' });
  await expect(horizons.first()).toBeVisible();
  await section(page).getByRole('button', { name: 'Layers of the section' }).click();
  const list = page.getByRole('group', { name: 'Layers of the section' });
  await list.getByRole('button', { name: 'Hide Brack Top' }).click();
  await expect(section(page).locator('svg text').filter({ hasText: 'Brack Top' })).toHaveCount(1);
  await list.getByRole('button', { name: 'Take Tolven Top out of the list' }).click();
  await expect(list.getByText('Tolven Top', { exact: true })).toHaveCount(0);
  await page.reload();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 60_000 });
  await expect(list.getByRole('button', { name: 'Show Brack Top' })).toBeVisible();
  await expect(list.getByText('Tolven Top', { exact: true })).toHaveCount(0);
  // dragged from the tray it is back
  await page.getByRole('button', { name: /^Interpret ?: / }).click();
  await page
    .getByRole('button', { name: /^Tolven Top/, exact: false })
    .first()
    .dragTo(page.getByRole('img', { name: /^Section along/ }));
  await expect(list.getByText(/^Tolven Top/).first()).toBeVisible();
});

test('views are opened from a place that is seen, fill the desk, and are closed', async ({ page }) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: 'Open a view here' }).first().click();
  await page.getByRole('menuitem', { name: /^Map/ }).click();
  const second = page.getByRole('region', { name: 'Map 2' });
  await expect(second.getByRole('img', { name: 'Map' })).toBeVisible();
  // what it shows is its own
  await second.getByLabel('What the map shows').selectOption({ label: 'Slice of Full stack' });
  await expect(second.getByTestId('map-raster')).toHaveAttribute('data-plane', /slice/);
  await expect(page.getByRole('region', { name: 'Map', exact: true }).getByLabel('What the map shows')).not.toHaveValue(
    'slice',
  );
  await page.getByRole('tab', { name: 'Map 2' }).getByText('Map 2').dblclick();
  await expect(page.getByTestId('scene-canvas')).toBeHidden();
  await page.getByRole('button', { name: 'Give the desk back' }).click();
  await expect(page.getByTestId('scene-canvas')).toBeVisible();
  await page.getByRole('button', { name: 'Close Map 2' }).click();
  await expect(second).toHaveCount(0);
  await expect(page.getByTestId('section-raster')).toBeVisible();
});

/** What of the workbench does not lie inside the window, or has no size, by name. */
const outOfSight = (page: Page) =>
  page.evaluate(() => {
    const shown = [...document.querySelectorAll<HTMLElement>('header, nav, main, aside, footer, [data-view-body]')];
    const cut = shown.filter((e) => {
      const { left, right, top, bottom, width, height } = e.getBoundingClientRect();
      return width > 0 && (left < -1 || right > innerWidth + 1 || top < -1 || bottom > innerHeight + 1 || height < 8);
    });
    // a header keeps its menu, whatever else it has no room for
    const menus = [...document.querySelectorAll<HTMLElement>('button[aria-label^="Settings of the"]')].filter((e) => {
      const { right, width } = e.getBoundingClientRect();
      const host = e.closest('section')?.getBoundingClientRect();
      return width < 8 || !host || right > host.right + 1;
    });
    return [...cut, ...menus].map((e) => e.getAttribute('aria-label') ?? e.className);
  });

test.describe('text at 150 %', () => {
  // the page zoomed to one and a half: as many pixels, fewer of the page's own
  test.use({ viewport: { width: 853, height: 533 }, deviceScaleFactor: 1.5 });
  test('loses nothing: every part is in sight, with the sheet open too', async ({ page }) => {
    await openWorkedUp(page);
    expect(await outOfSight(page)).toEqual([]);
    await page
      .getByRole('button', { name: /^Full stack/ })
      .first()
      .click();
    await expect(page.getByRole('complementary', { name: 'Full stack' })).toBeVisible();
    expect(await outOfSight(page)).toEqual([]);
    const box = await boxOf(page.getByTestId('section-raster'));
    expect(box.width).toBeGreaterThan(60);
    await page.keyboard.press('Control+k');
    await page.getByPlaceholder('Find an object or action').last().fill('Measure');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('complementary', { name: 'Measure' })).toBeVisible();
  });
});

test.describe('a large screen', () => {
  test.use({ viewport: { width: 2560, height: 1440 } });
  test('is filled, and everything is in sight', async ({ page }) => {
    await openWorkedUp(page);
    expect(await outOfSight(page)).toEqual([]);
    const box = await boxOf(page.getByTestId('section-raster'));
    expect(box.width).toBeGreaterThan(1000);
    expect(box.height).toBeGreaterThan(1000);
  });
});

test('a view in a window of its own stays linked with the others', async ({ page }) => {
  await openWorkedUp(page);
  const number = section(page).getByLabel('Line number');
  const first = Number(await number.inputValue());
  const [other] = await Promise.all([
    page.waitForEvent('popup'),
    page.getByRole('region', { name: 'Map' }).first().getByRole('button', { name: 'Into a window of its own' }).click(),
  ]);
  const map = other.getByRole('img', { name: 'Map', exact: true });
  await expect(map).toBeVisible();
  await expect(page.getByRole('img', { name: 'Map', exact: true })).toHaveCount(0);
  const trace = other.getByTestId('section-trace');
  const before = await trace.getAttribute('d');
  await page.getByTestId('section-raster').hover();
  await page.mouse.wheel(0, 120);
  await expect(number).toHaveValue(String(first + 1));
  await expect(trace).not.toHaveAttribute('d', before ?? '');
});

test('an object has a menu where it is drawn, and edits are listed to go back to', async ({ page }) => {
  await openWorkedUp(page);
  const map = page.getByRole('img', { name: 'Map', exact: true });
  const [x, y] = await markOf(map, 'QN-1');
  await page.mouse.click(x - 4, y, { button: 'right' });
  const menu = page.getByRole('menu', { name: 'QN-1' });
  await expect(menu).toBeVisible();
  await menu.getByRole('menuitem', { name: 'Hide it here' }).click();
  await expect(map.locator('[data-well="QN-1"]')).toHaveCount(0);
  await expect(map.locator('[data-well="QN-2"]')).toHaveCount(1);

  for (const name of ['First', 'Second']) {
    await page
      .getByRole('button', { name: /^(Near stack|First)/ })
      .first()
      .click();
    const field = page.getByRole('textbox', { name: 'Name', exact: true });
    await field.fill(name);
    await field.press('Enter');
    await expect(page.getByRole('button', { name: new RegExp(`^${name}`) }).first()).toBeVisible();
  }
  await page.getByRole('button', { name: 'Edits, to go back to' }).click();
  await page.getByRole('menuitem', { name: 'Rename Near stack to First' }).click();
  await expect(page.getByRole('button', { name: /^Near stack/ }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Edits, to go back to' }).click();
  await page.getByRole('menuitem', { name: 'Rename First to Second' }).click();
  await expect(page.getByRole('button', { name: /^Second/ }).first()).toBeVisible();
});

test('the first walk goes round the workbench and is left at any moment', async ({ page }) => {
  await openWorkedUp(page);
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('Find an object or action').last().fill('Walk through');
  await page.getByRole('option', { name: 'Walk through the workbench' }).click();
  const card = page.getByRole('dialog', { name: 'A first walk' });
  const count = Number(/of (\d+)/.exec(await card.innerText())?.[1]);
  for (let n = 1; n < count; n++) {
    await expect(card).toContainText(`${n} of ${count}`);
    await card.getByRole('button', { name: 'Next' }).click();
  }
  await card.getByRole('button', { name: 'Done' }).click();
  await expect(card).toHaveCount(0);
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('Find an object or action').last().fill('Walk through');
  await page.getByRole('option', { name: 'Walk through the workbench' }).click();
  await page.keyboard.press('Escape');
  await expect(card).toHaveCount(0);
});

test('each step has a page in the field guide, with what it works out and when not to use it', async ({ page }) => {
  await page.goto('/methods/');
  await page.getByRole('link', { name: 'Band-pass' }).click();
  await expect(page.getByRole('heading', { name: /^Band-pass/ })).toBeVisible();
  await expect(page.getByRole('img', { name: 'A made-up section before the step' })).toBeVisible();
  for (const heading of ['What it works out', 'When not to use it', 'Where it comes from'])
    await expect(page.getByRole('heading', { name: heading })).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).analyze();
  expect(violations.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => v.id)).toEqual([]);
});
