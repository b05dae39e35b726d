import { expect, type Page, test } from '@playwright/test';
import { boxOf, hand, markOf } from './support/hand.ts';
import { openWorkedUp } from './support/workbench.ts';

const logs = (page: Page) => page.getByTestId('logs-canvas');

test('a correlation of five wells: from the map, tops, hung, carried, zones, facies predicted, headings composed', async ({
  page,
}) => {
  await openWorkedUp(page);
  const map = page.getByRole('img', { name: 'Map', exact: true });
  await page.getByRole('button', { name: 'Close the tray' }).click();
  const person = hand(page);
  await person.press('l');
  await person.click(page.getByRole('button', { name: 'Choose on the map' }));
  await expect(page.getByRole('complementary', { name: 'Choose wells' })).toBeVisible();
  for (const name of ['QN-3', 'QN-2', 'QN-1', 'QN-4', 'QN-5']) await person.clickAt(...(await markOf(map, name)));
  await person.click(page.getByRole('button', { name: 'Show 5 wells side by side' }));
  await expect(page.getByText('QN-3 – QN-2 – QN-1 – QN-4 – QN-5')).toBeVisible();
  await expect(logs(page)).toHaveAttribute('data-draw-ms', /\d/);

  await person.click(page.getByRole('button', { name: 'Pick tops' }));
  await person.type(page.getByLabel('Top to pick'), 'Marker A');
  const box = await boxOf(logs(page));
  const body = await boxOf(page.getByLabel('Trust the tops of QN-1'));
  await person.clickAt(body.x - 40, box.y + 0.62 * box.height);
  await expect(page.getByRole('group', { name: 'Marker A in QN-1' })).toBeVisible();

  await person.choose(page.getByLabel('Hang on'), 'Tolven Top');
  await expect(page.getByText('hung on Tolven Top').first()).toBeVisible();

  await person.click(page.getByLabel('Trust the tops of QN-1'));
  await person.click(page.getByRole('button', { name: 'Correlate tops' }));
  const carried = page.getByRole('region', { name: 'Correlated tops' });
  await expect(carried).toBeVisible({ timeout: 90_000 });
  const offered = carried.getByRole('row').filter({ hasText: 'Marker A' });
  const count = await offered.count();
  expect(count).toBeGreaterThanOrEqual(3);
  // each says how well it matches, what comes next, and how it closes round other wells
  await expect(offered.first()).toContainText(/0\.\d\d/);
  for (let n = 0; n < count; n++) await person.click(carried.getByRole('button', { name: /^Accept all of/ }).first());
  await expect(carried.getByText('No proposal is left.')).toBeVisible();

  await person.click(page.getByRole('button', { name: 'Order the rocks' }));
  await expect(page.getByRole('complementary', { name: 'Stratigraphic column' })).toContainText('Marker A');

  await person.click(page.getByRole('button', { name: /^Wells ?: / }));
  await person.click(page.getByRole('button', { name: /^Predict facies/ }));
  await person.click(page.getByRole('button', { name: 'Run', exact: true }));
  await expect(page.getByRole('button', { name: /^Predicted facies of QN-1 / })).toBeVisible({ timeout: 90_000 });

  await person.click(page.getByRole('button', { name: 'Tracks…' }));
  await person.click(page.getByRole('dialog').getByLabel('tie', { exact: true }));
  expect(person.actions).toBeLessThan(25);
  await page.keyboard.press('Escape');

  // what was accepted says how it came, and undo takes the last of it away again: first the column, then a well's tops
  const picked = page.getByRole('button', { name: /^QN-\d picked tops \d/ });
  await page.getByRole('searchbox', { name: 'Find in Wells' }).fill('picked tops');
  await page.getByRole('searchbox', { name: 'Find in Wells' }).blur();
  const before = await picked.count();
  expect(before).toBe(count + 1);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(picked).toHaveCount(before - 1);
});

test('wells are put in between others on the map, and taken out by a second click', async ({ page }) => {
  await openWorkedUp(page);
  const map = page.getByRole('img', { name: 'Map', exact: true });
  await page.getByRole('button', { name: 'Close the tray' }).click();
  await page.keyboard.press('l');
  await page.getByRole('button', { name: 'Choose on the map' }).click();
  const person = hand(page);
  for (const name of ['QN-3', 'QN-5']) await person.clickAt(...(await markOf(map, name)));
  await person.clickAt(...(await markOf(map, 'QN-1')), true);
  for (const name of ['QN-2', 'QN-2']) await person.clickAt(...(await markOf(map, name)));
  await page.getByRole('button', { name: 'Show 3 wells side by side' }).click();
  await expect(page.getByText('QN-3 – QN-1 – QN-5')).toBeVisible();
  // and so is one that is added in the panel
  await page.getByLabel('Add a well').selectOption({ label: 'QN-4' });
  await expect(page.getByText('QN-3 – QN-1 – QN-4 – QN-5')).toBeVisible();
});

test('a top is dragged, renamed in all wells and deleted; one that would cross another is refused by name', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.keyboard.press('l');
  await page.getByRole('button', { name: 'Take all, west to east' }).click();
  await page.getByRole('button', { name: 'Order the rocks' }).click();
  const column = page.getByRole('complementary', { name: 'Stratigraphic column' });
  await expect(column).toBeVisible();
  const order = async () => (await column.getByText(/^\s*from /).allInnerTexts()).map((t) => t.trim());
  const before = await order();
  // by keyboard: taken hold of, one place down, let go
  await column
    .getByRole('button', { name: /^Drag .* to another place$/ })
    .first()
    .press('Space');
  await page.waitForTimeout(300);
  await page.keyboard.press('ArrowDown');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect.poll(order).toEqual([before[1], before[0], ...before.slice(2)]);
  await page.keyboard.press('Control+z');
  await expect.poll(order).toEqual(before);
  // and by the pointer
  const [a, b] = [await boxOf(column.getByText(before[0])), await boxOf(column.getByText(before[1]))];
  await page.mouse.move(a.x + 6, a.y + 8);
  await page.mouse.down();
  await page.mouse.move(b.x + 6, b.y + 12, { steps: 8 });
  await page.mouse.up();
  await expect.poll(order).toEqual([before[1], before[0], ...before.slice(2)]);
  await page.keyboard.press('Control+z');
  await expect.poll(order).toEqual(before);
  const panel = page.getByRole('application', { name: 'Logs of wells side by side' });
  const gripOf = async (): Promise<[number, number]> => {
    const names = panel.locator('svg text').filter({ hasText: /^Tolven Base$/ });
    const label = await boxOf(names.first());
    return [label.x - 30, label.y + label.height - 1];
  };
  let grip = await gripOf();
  // far above Tolven Top
  await page.mouse.move(...grip);
  await page.mouse.down();
  await page.mouse.move(grip[0], grip[1] - 90, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText(/Tolven Base would lie above Tolven Top in QN-3/)).toBeVisible();
  const strip = page.getByRole('group', { name: 'Tolven Base in QN-3' });
  await expect(strip).toBeVisible();
  // the strip took some of the panel's height
  grip = await gripOf();
  await page.mouse.move(...grip);
  await page.mouse.down();
  await page.mouse.move(grip[0], grip[1] + 6, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo: Move Tolven Base in QN-3' })).toBeVisible();
  await strip.getByLabel('Name of the top').fill('Sand base');
  await strip.getByLabel('Name of the top').press('Enter');
  await expect(panel.locator('svg text').filter({ hasText: /^Sand base$/ })).toHaveCount(5);
  await page.keyboard.press('Control+z');
  await expect(panel.locator('svg text').filter({ hasText: /^Sand base$/ })).toHaveCount(0);
});

test('a formula says what it would give as it is typed, is held back while units do not agree, and runs', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: /^Wells ?: / }).click();
  await page.getByRole('button', { name: /^Formula/ }).click();
  const sheet = page.getByRole('complementary', { name: 'Formula' });
  await sheet.getByRole('textbox', { name: 'Formula' }).fill('density + ');
  await sheet.getByRole('button', { name: 'sonic', exact: true }).click();
  await expect(sheet.getByText('density and sonic (slowness) cannot be added')).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'Run', exact: true })).toBeDisabled();
  const typed = sheet.getByRole('textbox', { name: 'Formula' });
  await typed.fill('density / so');
  await typed.press('End');
  await page.keyboard.type('n');
  await expect(sheet.getByRole('listbox').getByRole('option', { name: /^sonic/ })).toBeVisible();
  // what has only just come up is not taken: nobody can have seen it
  await page.waitForTimeout(200);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(typed).toHaveText('density / sonic');
  await sheet.getByLabel('Called').fill('AI');
  await expect(sheet.getByText('AI will be in kg/m²s.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Run', exact: true }).click();
  const made = page.getByRole('complementary', { name: 'Formula of QN-1' });
  await expect(made.getByText(/other, kg\/m²s/)).toBeVisible();
});

test('facies are painted with a brush, and the panel is printed as an SVG on paper', async ({ page }) => {
  await openWorkedUp(page);
  await page.keyboard.press('l');
  await page.getByRole('button', { name: 'Take all, west to east' }).click();
  await page.getByRole('button', { name: 'Paint facies' }).click();
  await page.getByLabel('Facies to paint').fill('Tight streak');
  const box = await boxOf(logs(page));
  const x = (await boxOf(page.getByLabel('Trust the tops of QN-3'))).x - 30;
  await page.mouse.move(x, box.y + 0.5 * box.height);
  await page.mouse.down();
  await page.mouse.move(x, box.y + 0.55 * box.height, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo: Paint Tight streak in QN-3' })).toBeVisible();
  await page.getByLabel('Scale', { exact: true }).selectOption('500');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Print to scale' }).click(),
  ]);
  const stream = await file.createReadStream();
  let svg = '';
  for await (const part of stream) svg += part;
  expect(/<svg [^>]*width="[\d.]+mm"/.test(svg)).toBe(true);
  for (const part of ['QN-3', 'Tolven Top', '1 : 500 on paper', '<clipPath'])
    expect({ part, there: svg.includes(part) }).toEqual({ part, there: true });
});

test('a tie by hand and an automatic one; ties are versions, and any can be made active', async ({ page }) => {
  await openWorkedUp(page);
  const person = hand(page);
  await person.click(page.getByRole('button', { name: /^Tie ?: / }));
  await person.click(page.getByRole('button', { name: /^Tie a well/ }));
  const sheet = page.getByRole('complementary', { name: 'Tie a well' });
  await person.choose(sheet.getByLabel('Well', { exact: true }), { label: 'QN-2' });
  await expect(page.getByText(/QN-2 · Full stack · .* · draft/)).toBeVisible();
  await expect(page.getByText('How good is it?')).toBeVisible();
  await expect(page.getByText(/of noise is as good/)).toBeVisible();
  const slider = page.getByRole('slider', { name: 'Shift of the synthetic' });
  const grip = await boxOf(slider);
  const middle: [number, number] = [grip.x + grip.width / 2, grip.y + grip.height / 2];
  const before = await slider.getAttribute('aria-valuetext');
  await person.drag(middle, [middle[0], middle[1] + 9]);
  await expect(slider).not.toHaveAttribute('aria-valuetext', before ?? '');
  await person.clickAt(middle[0], middle[1] - 60, true);
  const pin = page.getByRole('slider', { name: /^Pin at/ });
  await expect(pin).toHaveCount(1);
  await person.click(page.getByRole('button', { name: 'Accept the tie' }));
  await expect(page.getByRole('heading', { name: 'Tie a well' })).toHaveCount(0);
  await expect(page.getByText('All ties')).toBeVisible();
  const rows = page.getByRole('row').filter({ hasText: 'QN-2' });
  await expect(rows).toHaveCount(2);

  await person.click(page.getByRole('button', { name: /^Tie a well/ }));
  await person.choose(sheet.getByLabel('Well', { exact: true }), { label: 'QN-2' });
  await person.choose(sheet.getByLabel('Stretch', { exact: true }), 'automatic');
  await expect(page.getByRole('slider', { name: /^Pin at/ }).first()).toBeVisible();
  await person.click(page.getByRole('button', { name: 'Accept the tie' }));
  await expect(rows).toHaveCount(3);
  expect(person.actions).toBeLessThan(12);

  // the newest is active; an older one can be, and what rests on the other weathers
  await expect(rows.filter({ hasText: 'make active' })).toHaveCount(2);
  await rows.first().getByRole('button', { name: 'make active' }).click();
  await expect(rows.first()).toContainText('active');
  await expect(page.getByRole('button', { name: /^Undo: Make .* active/ })).toBeVisible();
});

test('points drawn round in a crossplot light up in logs, map and section, and are kept as a class', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.keyboard.press('x');
  const raster = page.getByTestId('crossplot-raster');
  await expect(raster).toHaveAttribute('data-took-ms', /\d/, { timeout: 60_000 });
  const box = await boxOf(raster);
  const at = (fx: number, fy: number): [number, number] => [box.x + fx * box.width, box.y + fy * box.height];
  await page.mouse.move(...at(0.2, 0.1));
  await page.mouse.down();
  for (const [fx, fy] of [
    [0.8, 0.1],
    [0.8, 0.8],
    [0.2, 0.8],
    [0.2, 0.2],
  ])
    await page.mouse.move(...at(fx, fy), { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText(/\d points selected/)).toBeVisible();
  await expect(page.getByTestId('lit-map').locator('circle').first()).toBeVisible();
  await page.getByRole('button', { name: 'Keep as a class' }).click();
  await expect(page.getByRole('button', { name: 'Undo: Keep Class' })).toBeVisible();
  await page.getByLabel('Colour', { exact: true }).selectOption('');
  await expect(page.getByText('points in a cell')).toBeVisible();
  await page.getByLabel('Colour', { exact: true }).selectOption('facies');
  await expect(page.getByText('no facies')).toBeVisible();
});

/** The title of a crossplot of volumes once its points are there. */
const GATHERED = /^Full stack against [^·]*· [\d\u202f]+ points$/;

test('what is chosen in a crossplot of volumes lights up sample by sample in the section', async ({ page }) => {
  await openWorkedUp(page);
  await page.keyboard.press('x');
  await page.getByLabel('Points from').selectOption('Volumes');
  const raster = page.getByTestId('crossplot-raster');
  await expect(page.getByText(GATHERED)).toBeVisible({ timeout: 60_000 });
  await expect(raster).toHaveAttribute('data-took-ms', /\d/);
  const box = await boxOf(raster);
  const at = (fx: number, fy: number): [number, number] => [box.x + fx * box.width, box.y + fy * box.height];
  await page.mouse.move(...at(0.55, 0.1));
  await page.mouse.down();
  for (const [fx, fy] of [
    [0.95, 0.1],
    [0.95, 0.9],
    [0.6, 0.9],
  ])
    await page.mouse.move(...at(fx, fy), { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText(/\d points selected/)).toBeVisible({ timeout: 30_000 });
  await page.getByText('Section', { exact: true }).first().click();
  const lit = page.getByTestId('lit-raster');
  await expect(lit).toBeVisible({ timeout: 30_000 });
  // the zone begins between two horizons: what is lit stays between them
  const heights = () =>
    lit.evaluate((canvas: HTMLCanvasElement) => {
      const data = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
      const rows = new Set<number>();
      for (let p = 3; p < data.length; p += 4) if (data[p] > 0) rows.add(Math.floor(p / 4 / canvas.width));
      return { lowest: Math.max(...rows) / canvas.height, highest: Math.min(...rows) / canvas.height };
    });
  await expect.poll(async () => (await heights()).lowest).toBeGreaterThan(0);
  const { lowest, highest } = await heights();
  expect(highest).toBeGreaterThan(0.45);
  expect(lowest).toBeLessThan(0.7);
});

test('a crossplot of volumes is of a zone between horizons, or of typed times in the project’s units', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.keyboard.press('x');
  await page.getByLabel('Points from').selectOption('Volumes');
  const count = async () => {
    const title = page.getByText(GATHERED);
    await expect(title).toBeVisible({ timeout: 60_000 });
    return Number((await title.innerText()).replace(/.*·|\D/g, ''));
  };
  const zone = await count();
  expect(zone).toBeGreaterThan(1000);
  await expect(page.getByLabel('From horizon')).toHaveValue(/./);
  await page.getByLabel('From horizon').selectOption('');
  await page.getByLabel('To horizon').selectOption('');
  await page.getByLabel('From time').fill('1000');
  await page.getByLabel('To time').fill('1040');
  // eleven samples of 4 ms in every bin of the survey, then six
  await expect.poll(async () => (await count()) % 11).toBe(0);
  const eleven = await count();
  await page.getByLabel('To time').fill('1020');
  await expect.poll(count).toBe((eleven / 11) * 6);
  // an outline keeps what lies in it
  await page.getByRole('button', { name: 'Settings of the crossplot' }).click();
  await page.getByLabel('Inside').selectOption({ index: 1 });
  await expect.poll(count).toBeLessThan((eleven / 11) * 6);
});
