// Pictures of depth: time and depth of one line locked by a model with residuals on the map, the velocity view, how far a surface may be
// off with its spill, and a 2D line of three layers.
import { join } from 'node:path';
import { root } from '../setup.mjs';

const LONG = 300000;

/** @param given the page, its address, and how a picture is kept */
export async function depthPictures({ page, address, keep, settle }) {
  const form = (name) => page.getByRole('complementary', { name, exact: true });
  const section = (name) => page.locator(`section[aria-label="${name}"]`);
  const step = (name) =>
    page
      .getByRole('button', { name: new RegExp(`^${name} [A-Z]`) })
      .first()
      .click();
  const beside = async () => {
    await section('Section').getByRole('button', { name: 'Settings of the section' }).click();
    await page.getByRole('button', { name: 'Depth beside it' }).click();
    await page.keyboard.press('Escape');
    await section('Section 2').getByTestId('section-raster').waitFor({ timeout: LONG });
  };
  await page.goto(address);
  await page.getByRole('button', { name: /Open Quillon worked up/ }).click();
  await page.getByTestId('section-raster').waitFor();
  await settle();
  await page.getByRole('button', { name: /^Depth ?: / }).click();
  await page
    .getByRole('button', { name: /^Residuals of Velocities of wells/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Show on the map' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: 'Close the tray' }).click();
  await page.getByRole('button', { name: 'Close Scene' }).click();
  await page.getByLabel('What the map shows').selectOption({ label: 'Tolven Top' });
  await beside();
  await settle();
  const time = await section('Section').getByTestId('section-raster').boundingBox();
  await page.mouse.move(time.x + 0.55 * time.width, time.y + 0.53 * time.height);
  await page.waitForTimeout(600);
  await keep('depth');

  await page.getByRole('button', { name: 'Close Section 2' }).click();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Open Velocity');
  await page.waitForTimeout(400);
  await page.keyboard.press('Enter');
  await page.getByRole('group', { name: 'Velocity by time' }).waitFor({ timeout: LONG });
  await section('Velocity').getByRole('radio', { name: 'Less the model' }).click();
  const line = await section('Section').getByTestId('section-raster').boundingBox();
  await page.mouse.move(line.x + 0.45 * line.width, line.y + 0.53 * line.height);
  await settle();
  await keep('velocity');
  await page.getByRole('button', { name: 'Close Velocity' }).click();

  await page.getByRole('button', { name: /^Depth ?: / }).click();
  await step('Depth uncertainty');
  const own = form('Depth uncertainty');
  await own
    .getByRole('combobox', { name: 'Velocity model', exact: false })
    .selectOption({ label: 'Velocities at wells' });
  await own.getByRole('combobox', { name: /^Area/ }).selectOption({ label: 'Crest outline' });
  await own.getByRole('button', { name: 'Run', exact: true }).click();
  await page.getByRole('complementary', { name: /^Depth deviation of/ }).waitFor({ timeout: LONG });
  // residuals make room for closures
  await page.getByRole('button', { name: 'Layers of the map' }).click();
  await page.getByRole('button', { name: 'Hide all result tables' }).click();
  await page.getByRole('button', { name: 'Layers of the map' }).click();
  await page
    .getByRole('button', { name: /^Closures of/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Show on the map' }).click();
  await page.getByLabel('What the map shows').selectOption({ label: 'Depth deviation of Tolven Top' });
  await page.getByRole('button', { name: 'Close the tray' }).click();
  await settle();
  await keep('uncertainty');

  await page.goto(address);
  await page.getByRole('button', { name: /^New project/ }).click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose files…' }).first().click();
  await (await chooser).setFiles(join(root, 'demo-data/files/QL-07.sgy'));
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
  await sheet.getByRole('radio', { name: 'positive' }).click();
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  const raster = page.getByTestId('section-raster').first();
  await raster.waitFor({ timeout: LONG });
  await page.getByRole('button', { name: /^Interpret ?: / }).click();
  await settle();
  // strokes free-hand along what is seen: places as parts of the picture
  for (const [name, places] of [
    ['Sea bed', [0.063, 0.06, 0.058, 0.055, 0.056, 0.06, 0.066, 0.064, 0.06, 0.062, 0.068]],
    ['Top of crust', [0.66, 0.658, 0.655, 0.632, 0.604, 0.622, 0.66, 0.64, 0.66, 0.68, 0.705]],
    ['End of the line', [0.985, 0.985]],
  ]) {
    await page.getByRole('button', { name: 'Pick a horizon', exact: true }).click();
    const picking = form('Pick a horizon');
    await picking.getByLabel('Name').fill(name);
    await picking.getByLabel('Name').press('Enter');
    await picking.getByRole('radio', { name: 'Free-hand' }).click();
    // the Sheet has taken some of its width
    const box = await raster.boundingBox();
    await page.mouse.move(box.x + 3, box.y + places[0] * box.height);
    await page.mouse.down();
    for (let n = 1; n < places.length; n++)
      await page.mouse.move(box.x + 3 + (n / (places.length - 1)) * (box.width - 6), box.y + places[n] * box.height, {
        steps: Math.ceil(60 / places.length),
      });
    await page.mouse.up();
    await picking.getByRole('button', { name: 'Done' }).click();
  }
  await page.getByRole('button', { name: /^Depth ?: / }).click();
  await step('Layer velocities');
  const layers = form('Layer velocities');
  for (const [base, law, numbers] of [
    ['Sea bed', 'constant', { Velocity: '1500' }],
    ['Top of crust', 'from top to base', { 'At the top': '1500', 'At the base': '2400' }],
    ['End of the line', 'from top to base', { 'At the top': '5500', 'At the base': '6500' }],
  ]) {
    await layers.getByRole('combobox', { name: `Velocity down to ${base}` }).selectOption(law);
    for (const [what, value] of Object.entries(numbers)) {
      const field = layers.getByRole('textbox', { name: `${what}, down to ${base}` });
      await field.fill(value);
      await field.press('Enter');
    }
  }
  await layers.getByRole('button', { name: 'Run', exact: true }).click();
  await form('Velocity model').waitFor({ timeout: LONG });
  await page.getByRole('button', { name: 'Close the tray' }).click();
  await page.getByRole('button', { name: 'Close Map' }).click();
  await page.getByRole('button', { name: 'Close Scene' }).click();
  await beside();
  await settle();
  await keep('line');
}
