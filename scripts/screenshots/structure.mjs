// Pictures of structure that is found: faults beside their net, one closed by a throw, a section by age, and an age slice in the
// colours of a blend.
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
  const line = page.getByRole('region', { name: 'Section', exact: true }).getByRole('textbox').first();

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
  await page.getByRole('searchbox', { name: 'Find in Interpret' }).fill('Osmund');
  await page
    .getByRole('button', { name: /^Osmund Fault/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Close it by a throw…' }).click();
  await line.fill('1050');
  await line.press('Enter');
  const close = form('Close a fault');
  await close
    .getByRole('button', { name: /^-?\d+ ms · 0\.\d\d$/ })
    .first()
    .click();
  await settle();
  await keep('throw');
  await close.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('searchbox', { name: 'Find in Interpret' }).fill('');

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
  await keep('age');

  await page.getByRole('button', { name: /^Attributes ?: / }).click();
  await run('Colour blend', async (own) => {
    for (const [role, of] of [
      ['First', 'Far stack'],
      ['Second', 'Mid stack'],
      ['Third', 'Near stack'],
    ])
      await own.getByLabel(role, { exact: true }).first().selectOption({ label: of });
    await own.getByRole('textbox', { name: 'Name', exact: true }).fill('Far, mid, near');
  });
  await page.getByRole('button', { name: /^Interpret ?: / }).click();
  await run('Age slices', async (own) => {
    await own.getByLabel('How many, typed').fill('30');
    await own.getByLabel('How many, typed').press('Enter');
  });
  await page.getByRole('button', { name: 'Show in its view' }).click();
  await page.getByRole('button', { name: 'Close the tray' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('tab', { name: 'Map' }).dblclick();
  await settle();
  await page.getByLabel('Coloured by').first().selectOption({ label: 'Far, mid, near' });
  for (let n = 0; n < 16; n++) await page.getByRole('button', { name: 'Older page' }).first().click();
  await settle();
  await settle();
  await keep('slices');
}
