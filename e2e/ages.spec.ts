import { expect, type Page, test } from '@playwright/test';
import { boxOf, hand } from './support/hand.ts';
import { openWorkedUp } from './support/workbench.ts';

const form = (page: Page, name: string) => page.getByRole('complementary', { name, exact: true });
const stepNamed = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} [A-Z]`) });

test('ages from three horizons and two faults, their slices turned like pages, a horizon through a place, and a section by age', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await openWorkedUp(page);
  const person = hand(page);
  await person.click(page.getByRole('button', { name: /^Interpret ?: / }));
  await person.click(stepNamed(page, 'Relative age'));
  const ages = form(page, 'Relative age');
  await expect(ages.locator('summary', { hasText: 'Horizons' })).toContainText('3 of');
  await expect(ages.locator('summary', { hasText: 'Faults' })).toContainText('2 of 2');
  await expect(ages.locator('summary', { hasText: 'Unconformities' })).toContainText('0 of');
  await person.click(ages.getByRole('button', { name: /^Run on the volume/ }));
  await expect(page.getByRole('button', { name: /^Relative age of Full stack/ })).toBeVisible({ timeout: 120_000 });

  await person.click(stepNamed(page, 'Age slices'));
  await person.click(form(page, 'Age slices').getByRole('button', { name: 'Run', exact: true }));
  await expect(form(page, 'Age slice 1')).toBeVisible({ timeout: 60_000 });
  // one page of the series is drawn, in every view the same
  const drawn = page
    .getByRole('region', { name: 'Section', exact: true })
    .locator('svg')
    .getByText(/^Age slice \d$/);
  await expect(drawn).toHaveCount(1);
  await expect(drawn).toHaveText('Age slice 5');
  await person.click(page.getByRole('button', { name: 'Show in its view' }));
  await expect(drawn).toHaveText('Age slice 1');
  const map = page.getByRole('region', { name: 'Map', exact: true });
  await expect(map.getByRole('status')).toHaveText(/^1 of 9/);
  await person.click(map.getByRole('button', { name: 'Older page' }));
  await expect(drawn).toHaveText('Age slice 2');
  await expect(page.getByRole('region', { name: 'Scene', exact: true }).getByRole('status')).toHaveText(/^2 of 9/);

  await person.click(stepNamed(page, 'Age slices'));
  await person.click(form(page, 'Age slices').getByRole('button', { name: /^Point at it/ }));
  const section = await boxOf(page.getByTestId('section-raster'));
  await person.clickAt(section.x + 0.4 * section.width, section.y + 0.5 * section.height);
  await person.click(form(page, 'Age slices').getByRole('button', { name: 'Run', exact: true }));
  await expect(page.getByRole('complementary', { name: /^Age slice/ })).toContainText('Take through a place', {
    timeout: 60_000,
  });

  await person.click(stepNamed(page, 'Volume to age'));
  await person.click(form(page, 'Volume to age').getByRole('button', { name: /^Run on the volume/ }));
  await expect(page.getByRole('button', { name: /^By age of Full stack/ })).toBeVisible({ timeout: 60_000 });
  await person.click(page.getByRole('button', { name: 'Show in its view' }));
  await expect(page.getByText('Relative age', { exact: true }).first()).toBeVisible();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/);
  expect(person.actions).toBeLessThanOrEqual(14);

  // the wells have no place by age, and it is said why
  const notShown = page
    .getByRole('region', { name: 'Section', exact: true })
    .getByRole('button', { name: /not shown in relative age/ });
  await notShown.click();
  await expect(page.getByText('has no place by age').first()).toBeVisible();
  await page.keyboard.press('Escape');
});

test('a page is coloured by a volume, and the pages turn by keys', async ({ page }) => {
  test.setTimeout(240_000);
  await openWorkedUp(page);
  await page.getByRole('button', { name: /^Interpret ?: / }).click();
  await stepNamed(page, 'Relative age').click();
  await form(page, 'Relative age').getByRole('combobox', { name: 'Level' }).selectOption('low');
  await form(page, 'Relative age')
    .getByRole('button', { name: /^Run on the volume/ })
    .click();
  await expect(page.getByRole('button', { name: /^Relative age of Full stack/ })).toBeVisible({ timeout: 120_000 });
  await stepNamed(page, 'Age slices').click();
  await form(page, 'Age slices').getByRole('button', { name: 'Run', exact: true }).click();
  await expect(form(page, 'Age slice 1')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Show in its view' }).click();
  const map = page.getByRole('region', { name: 'Map', exact: true });
  await map.getByRole('button', { name: 'Settings of the map' }).click();
  await page.getByRole('combobox', { name: 'Coloured by' }).last().selectOption({ label: 'Full stack' });
  await page.keyboard.press('Escape');
  await expect(map.getByText(/amplitude.* on Age slice 1/)).toBeVisible({ timeout: 30_000 });
  await map.getByRole('img', { name: 'Map', exact: true }).focus();
  for (const n of [2, 3]) {
    await page.keyboard.press('PageDown');
    await expect(map.getByText(new RegExp(`amplitude.* on Age slice ${n}`))).toBeVisible({ timeout: 30_000 });
  }
  await page.keyboard.press('PageUp');
  await expect(map.getByRole('status')).toHaveText(/^2 of 9/);
});
