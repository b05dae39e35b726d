// Pictures of structure that is found: faults beside their net, and a section by age.
const LONG = 240000;

/** @param given the page, its address, and how a picture is kept */
export async function structurePictures({ page, address, keep, settle }) {
  const form = (name) => page.getByRole('complementary', { name, exact: true });
  const step = async (name) => {
    await page.getByRole('button', { name: new RegExp(`^${name} [A-Z]`) }).click();
    return form(name);
  };
  const run = async (name, set = async () => {}) => {
    const own = await step(name);
    await set(own);
    await own
      .getByRole('button', { name: /^Run( on the volume.*)?$/ })
      .last()
      .click();
    await own.waitFor({ state: 'detached', timeout: LONG });
  };

  await page.goto(address);
  await page.getByRole('button', { name: /Open Quillon worked up/ }).click();
  await page.getByTestId('section-raster').waitFor();
  await settle();
  await page.getByRole('button', { name: /^Interpret ?: / }).click();
  await run('Fault strength');
  await run('Fault ridges');
  await run('Fault surfaces');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: /^Data ?: / }).click();
  await page.getByRole('button', { name: /^Full stack/ }).dblclick();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.keyboard.press('o');
  await page.getByRole('button', { name: 'Find sets' }).click();
  await page.getByRole('list', { name: 'Sets' }).getByRole('checkbox').first().waitFor({ timeout: LONG });
  await page.getByRole('button', { name: 'Close the tray' }).click();
  await page.locator('[data-pole="Fault 1"]').click({ force: true });
  await settle();
  await settle();
  await keep('net');

  await page.getByRole('button', { name: 'Close Net' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: /^Interpret ?: / }).click();
  await run('Relative age', async (own) => {
    await own.locator('summary', { hasText: 'Horizons' }).click();
    // the two cross where the sand between them pinches out
    await own.getByLabel('Tolven Top', { exact: true }).first().uncheck();
    await own.locator('summary', { hasText: 'Faults' }).click();
    await own.getByRole('button', { name: 'None of Faults' }).click();
    for (const name of ['Osmund Fault', 'Antithetic']) await own.getByRole('checkbox', { name, exact: true }).check();
  });
  await run('Where ages are valid');
  await run('Volume to age', async (own) => {
    await own.getByLabel('Volume', { exact: true }).selectOption({ label: 'Full stack' });
    await own.getByLabel('Not below').selectOption({ label: 'Ages valid down to of Relative age of Full stack' });
  });
  await page.getByRole('button', { name: 'Show in its view' }).click();
  await settle();
  await settle();
}
