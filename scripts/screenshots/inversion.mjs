// Pictures of inversion: a pair turned against logs, impedance beside its spread and a probability, and net
// pay in four charts.
const LONG = 300000;

/** @param given the page, its address, and how a picture is kept */
export async function inversionPictures({ page, address, keep, settle }) {
  const form = (name) => page.getByRole('complementary', { name, exact: true });
  const run = async (name, made, set = async () => {}) => {
    await page
      .getByRole('button', { name: new RegExp(`^${name} [A-Z]`) })
      .first()
      .click();
    await set(form(name));
    await form(name)
      .getByRole('button', { name: /^Run( on the volume.*)?/ })
      .last()
      .click();
    await page.getByRole('complementary', { name: made }).waitFor({ timeout: LONG });
  };
  const type = async (own, field, value) => {
    const box = own.getByRole('textbox', { name: `${field}, typed`, exact: true });
    await box.fill(value);
    await box.press('Enter');
  };
  await page.goto(address);
  await page.getByRole('button', { name: /Open Quillon worked up/ }).click();
  await page.getByTestId('section-raster').waitFor();
  await settle();
  await page.getByRole('button', { name: /^Invert ?: / }).click();
  await run('Design an operator', /^Operator of/);
  await run('Coloured inversion', /^Relative impedance of/);
  await page
    .getByRole('button', { name: /^Operator of/ })
    .first()
    .click();
  await settle();

  await run('Intercept and gradient', /^Intercept$/);
  await run('Turn a pair', /^Turned pair/, async (own) => {
    await type(own, 'From', '700');
    await type(own, 'To', '1300');
  });
  await page.getByRole('slider', { name: 'Angle of the pair' }).focus();
  for (let n = 0; n < 18; n++) await page.keyboard.press('ArrowRight');
  await settle();
  await keep('turning');

  await run('Net pay', /^Net pay of/, async (own) => {
    await own.getByRole('combobox', { name: 'Relative impedance', exact: true }).selectOption({
      label: 'Relative impedance of Full stack',
    });
    await own.getByRole('combobox', { name: 'Top', exact: true }).selectOption({ label: 'Tolven Top' });
    await own.getByRole('combobox', { name: 'Base', exact: true }).selectOption({ label: 'Tolven Base' });
    await page.getByRole('img', { name: 'Map of net pay' }).waitFor({ timeout: LONG });
  });
  await page.getByRole('button', { name: 'Change its settings' }).click();
  await page.getByRole('button', { name: 'Close the tray' }).click();
  await page.getByRole('tab', { name: 'Pay' }).dblclick();
  await settle();
  await settle();
  await keep('pay');
  await page.getByRole('tab', { name: 'Pay' }).dblclick();
  await page.getByRole('button', { name: 'Close Pay' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();

  await page.getByRole('button', { name: /^Invert ?: / }).click();
  await run('Low-frequency model', /^Low-frequency model of/);
  await run('Impedance with its spread', /^Impedance of/, async (own) => {
    await own.getByRole('combobox', { name: 'Seismic', exact: true }).selectOption({ label: 'Full stack' });
    await type(own, 'From', '700');
    await type(own, 'To', '1300');
  });
  await run('Probability', /^Probability of/, async (own) => {
    await own.getByRole('combobox', { name: 'Gives', exact: true }).selectOption('rock by wells');
    await own.getByRole('combobox', { name: 'Top of the zone' }).selectOption({ label: 'Tolven Top' });
    await own.getByRole('combobox', { name: 'Base of the zone' }).selectOption({ label: 'Tolven Base' });
  });
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: 'Close the tray' }).click();
  await page.getByRole('button', { name: 'Layers of the section' }).click();
  const section = page.getByRole('region', { name: 'Section', exact: true });
  await section.getByLabel('Seismic').selectOption({ label: 'Impedance of Full stack' });
  await section.getByLabel('Laid over it').selectOption({ label: 'Probability of Impedance of Full stack' });
  await page.getByRole('button', { name: 'Layers of the section' }).click();
  await page.getByLabel('What the map shows').selectOption({ label: 'Tolven Top' });
  await page.getByRole('button', { name: 'Settings of the map' }).click();
  await page.getByRole('dialog').getByLabel('Coloured by').selectOption({ label: 'Spread of impedance of Full stack' });
  await page.keyboard.press('Escape');
  await settle();
  await settle();
  await keep('impedance');
}
