import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { hand } from './support/hand.ts';
import { openWorkedUp } from './support/workbench.ts';

const form = (page: Page, name: string) => page.getByRole('complementary', { name, exact: true });
const stepNamed = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} [A-Z]`) });

test('faults are found in the seismic, sorted on the net, and hidden by it everywhere', async ({ page }) => {
  await openWorkedUp(page);
  const person = hand(page);
  await person.click(page.getByRole('button', { name: /^Interpret ?: / }));
  await person.click(stepNamed(page, 'Fault strength'));
  // the dips that are looked for are seen on section and map before anything is waited for
  await expect(page.getByTestId('setup-fan')).toContainText('25° to 78°');
  await expect(page.getByTestId('setup-fan-map')).toContainText('any way');
  await person.click(form(page, 'Fault strength').getByRole('button', { name: /^Run on the volume/ }));
  await expect(page.getByRole('button', { name: /^Fault strength of Full stack/ })).toBeVisible({ timeout: 120_000 });
  await person.click(stepNamed(page, 'Fault ridges'));
  await person.click(form(page, 'Fault ridges').getByRole('button', { name: /^Run on the volume/ }));
  await expect(page.getByRole('button', { name: /^Fault ridges of/ })).toBeVisible({ timeout: 60_000 });
  await person.click(stepNamed(page, 'Fault surfaces'));
  await person.click(form(page, 'Fault surfaces').getByRole('button', { name: 'Run', exact: true }));
  await expect(page.getByRole('button', { name: /^Fault 1/ }).first()).toBeVisible({ timeout: 60_000 });
  await person.press('o');
  await person.click(page.getByRole('button', { name: 'Find sets' }));
  const sets = page.getByRole('list', { name: 'Sets' });
  await expect(sets.getByRole('checkbox').first()).toBeVisible({ timeout: 30_000 });
  expect(person.actions).toBeLessThanOrEqual(14);

  // a pole is a fault: chosen there it is chosen everywhere
  const pole = page.locator('[data-pole="Fault 1"]');
  await pole.click();
  await expect(page.getByRole('complementary', { name: 'Fault 1', exact: true })).toContainText('Dips');
  const drawn = page.locator('[data-object^="fault-"]');
  const before = await drawn.count();
  expect(before).toBeGreaterThan(0);
  // a set that is shut is drawn nowhere
  for (const box of await sets.getByRole('checkbox').all()) await box.uncheck();
  await expect.poll(() => drawn.count()).toBeLessThan(before);
  for (const box of await sets.getByRole('checkbox').all()) await box.check();
  await expect.poll(() => drawn.count()).toBe(before);
  // the handle under the areas hides what is small
  const handle = page.getByRole('slider', { name: 'Least area' });
  await handle.focus();
  for (let n = 0; n < 39; n++) await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/^Area at least .*: 1 of \d+$/)).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).analyze();
  expect(violations.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => v.id)).toEqual([]);

  // throw of the largest over its surface, beside the way it changes along strike
  await page.getByRole('slider', { name: 'Least area' }).press('Home');
  await stepNamed(page, 'Throw of a fault').click();
  const sheet = form(page, 'Throw of a fault');
  await sheet.getByRole('combobox', { name: 'Fault', exact: true }).selectOption({ label: 'Fault 1' });
  await sheet.getByRole('button', { name: 'Run', exact: true }).click();
  await expect(page.getByRole('img', { name: 'Throw by strike and TWT' })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('img', { name: /^Greatest throw along strike/ })).toBeVisible();
  await expect(page.getByText(/km along strike/)).toBeVisible();

  // by hand: it is closed in the section, beds are put back, and what is taken is a pair of picks
  await pole.click();
  await page.getByRole('button', { name: 'Close it by a throw…' }).click();
  const close = form(page, 'Close a fault');
  const away = close.getByRole('button', { name: 'Go to a line that it crosses' });
  const plot = close.getByRole('img', { name: /^Match of the two sides against throw/ });
  await expect(away.or(plot)).toBeVisible();
  if (await away.isVisible()) await away.click();
  const raster = page.getByTestId('section-raster');
  await expect(plot).toBeVisible({ timeout: 20_000 });
  await expect(raster).not.toHaveAttribute('data-plane', /closed/);
  await close
    .getByRole('button', { name: /^-?\d+ ms · 0\.\d\d$/ })
    .first()
    .click({ timeout: 10_000 });
  await close.getByRole('slider', { name: 'Throw' }).press('ArrowRight');
  await expect(raster).toHaveAttribute('data-plane', /closed/);
  const closed = await raster.getAttribute('data-plane');
  await close.getByRole('slider', { name: 'Throw' }).press('ArrowRight');
  await expect(raster).not.toHaveAttribute('data-plane', closed ?? '');
  await expect(page.getByTestId('closing-pair')).toBeVisible();
  await close.getByRole('button', { name: 'Take the throw' }).click({ timeout: 10_000 });
  await expect(page.getByText('The pair is kept in Pairs across Fault 1.')).toBeVisible();
  await close.getByRole('button', { name: 'Done' }).click();
  await expect(raster).not.toHaveAttribute('data-plane', /closed/);
  const pairs = page.getByRole('button', { name: /^Pairs across Fault 1/ });
  await expect(pairs).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click({ timeout: 10_000 });
  await expect(pairs).toHaveCount(0);
});

test('fault strength is tried on the line in view, and follows the dips that are asked for', async ({ page }) => {
  await openWorkedUp(page);
  const person = hand(page);
  await person.click(page.getByRole('button', { name: /^Interpret ?: / }));
  await person.click(stepNamed(page, 'Fault strength'));
  const sheet = form(page, 'Fault strength');
  await person.click(sheet.getByRole('button', { name: /^Try on this line/ }));
  await expect(page.getByText(/trial: fault strength/).first()).toBeVisible({ timeout: 60_000 });
  const fan = page.getByTestId('setup-fan');
  await sheet.getByRole('slider', { name: 'Dips to', exact: true }).press('ArrowLeft');
  await expect(fan).toContainText('25° to 77°');
});
