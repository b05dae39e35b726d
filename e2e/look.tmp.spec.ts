import { test } from '@playwright/test';
import { openWorkedUp } from './support/workbench.ts';
test('look', async ({ page }) => {
  test.setTimeout(400_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await openWorkedUp(page);
  await page.getByRole('button', { name: /^Tie ?: / }).click();
  await page.waitForTimeout(5000);
  await page.screenshot({ path: 'test-results/t1.png' });
  await page.getByText('QN-1 tie', { exact: true }).first().click();
  await page.waitForTimeout(1000);
  await page.getByText('Tie', { exact: true }).nth(2).click().catch(() => {});
  await page.getByRole('button', { name: /^Common phase of several wells/ }).first().click();
  await page.waitForTimeout(2500);
  await page.screenshot({ path: 'test-results/t3.png' });
});
