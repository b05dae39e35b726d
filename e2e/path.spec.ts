import { expect, type Page, test } from '@playwright/test';
import { drop, newProject, openWorkedUp } from './support/workbench.ts';

const bed = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} ?: `) });

/** Run what the Sheet holds and wait for its result to be selected there. */
async function run(page: Page, name: string, result: string): Promise<void> {
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill(result);
  await page.getByRole('button', { name, exact: true }).click();
  await expect(page.getByRole('complementary', { name: result, exact: true })).toBeVisible({ timeout: 40_000 });
}

/** Pick beside a top of the well in view, to its left, where the label's own line points. */
async function pickAtTop(page: Page, top: string, away: number): Promise<void> {
  const label = page
    .getByRole('region', { name: 'Section' })
    .locator('svg text')
    .filter({ hasText: new RegExp(`^${top}$`) })
    .last();
  const box = await label.boundingBox();
  if (!box) throw new Error(`${top} is not in view`);
  await page.mouse.click(box.x - 10 - away, box.y + box.height / 2 - 1);
}

const grossOf = async (page: Page, name: string) => {
  const row = page.getByRole('complementary', { name }).getByRole('row', { name: /^Gross rock/ });
  return Number(/([\d.]+) × 10⁶/.exec(await row.innerText())?.[1]);
};

test('from raw files to a volume by hand; a contact is changed, the bed weathers, is rebuilt, and the volume follows', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await newProject(page);
  await drop(page, [
    'quillon-full.sgy',
    'well-heads.csv',
    'well-surveys.csv',
    'checkshots.csv',
    'well-tops.csv',
    'pressures.csv',
    'fluid-samples.csv',
    'fault-sticks.csv',
    'crest-outline.geojson',
    'sea-bed.csv',
    'QN-1.las',
    'QN-2.las',
  ]);
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
  await sheet.getByRole('radio', { name: 'positive' }).click();
  await sheet.getByRole('button', { name: 'Load 12 files' }).click();
  await expect(page.getByText(/objects loaded from 12 files/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/);

  // tie: a wavelet from the traces, then the synthetic moved by hand and back by correlation
  await bed(page, 'Tie').click();
  await page.getByRole('button', { name: /^Make a wavelet/ }).click();
  await run(page, 'Run', 'Wavelet');
  await page.getByRole('button', { name: /^Tie a well/ }).click();
  const scores = page.getByRole('figure').filter({ hasText: 'How good is it?' });
  const correlation = async () =>
    Number(/Correlation\s*([−-]?[\d.]+)/.exec(await scores.innerText())?.[1]?.replace('−', '-'));
  await expect.poll(correlation, { timeout: 20_000 }).toBeGreaterThan(0.75);
  const best = await correlation();
  const grip = page.getByRole('slider', { name: 'Shift of the synthetic' });
  const box = await grip.boundingBox();
  if (!box) throw new Error('the synthetic has no size');
  await page.mouse.move(box.x + box.width / 2, box.y + 120);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + 134, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByLabel('Shift', { exact: true })).toHaveValue('typed');
  await expect.poll(correlation).toBeLessThan(best - 0.1);
  await page.getByLabel('Shift', { exact: true }).selectOption('weighed');
  await expect.poll(correlation).toBeCloseTo(best, 1);
  await run(page, 'Accept the tie', 'QN-1 tie');
  await page.getByText('Section', { exact: true }).first().click();

  // interpret: picks beside the tied well's tops, snapped and tracked, then closed
  await bed(page, 'Interpret').click();
  for (const [top, event] of [
    ['Tolven Top', 'trough'],
    ['Tolven Base', 'peak'],
  ]) {
    await page.getByRole('button', { name: 'Pick a horizon' }).click();
    const picking = page.getByRole('complementary', { name: 'Pick a horizon' });
    await picking.getByLabel('Name').fill(`${top} picks`);
    await picking.getByLabel('Name').press('Enter');
    await picking.getByLabel('Event').selectOption(event);
    await pickAtTop(page, top, 8);
    await expect(picking.getByText('1 pick so far.')).toBeVisible();
    await picking.getByRole('button', { name: 'Track from these picks' }).click();
    await run(page, 'Run', `${top} tracked`);
    await expect(page.getByText(/^\d+\.\d % of its bins$/)).toBeVisible();
    await page.getByRole('button', { name: /^Close a horizon/ }).click();
    await page.getByLabel('Horizon', { exact: true }).selectOption({ label: `${top} tracked` });
    await run(page, 'Run', top);
  }
  await expect(page.getByRole('button', { name: /^Undo: Pick on Tolven Base picks/ })).toBeVisible();

  // everything is there after a reload in mid-work, undo by name too
  await page.reload();
  await expect(page.getByRole('button', { name: /^Undo: Pick on Tolven Base picks/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Tolven Base tracked/ })).toBeVisible();

  // depth
  await bed(page, 'Depth').click();
  await page.getByRole('button', { name: /^Layer velocities/ }).click();
  const many = page.getByRole('group').filter({ hasText: 'Boundaries, from the top down' });
  await many.getByText('Boundaries, from the top down').click();
  for (const top of ['Tolven Top', 'Tolven Base'])
    await many.getByRole('checkbox', { name: `${top} tracked` }).uncheck();
  await run(page, 'Run', 'Velocities');
  await page.getByRole('button', { name: /^Correct at wells/ }).click();
  await run(page, 'Run', 'Velocities at wells');
  for (const top of ['Tolven Top', 'Tolven Base']) {
    await page.getByRole('button', { name: /^Horizon to depth/ }).click();
    await page.getByLabel('Horizon', { exact: true }).selectOption({ label: top });
    await run(page, 'Run', `${top} in depth`);
  }

  // volumes take their rock from what was interpreted in the wells
  await bed(page, 'Wells').click();
  for (const [step, made] of [
    ['Shale volume', 'Shale'],
    ['Porosity', 'Pores'],
    ['Water saturation', 'Saturation'],
    ['Net rock and pay', 'Net'],
  ]) {
    await page.getByRole('button', { name: new RegExp(`^${step}`) }).click();
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill(made);
    await page.getByRole('button', { name: 'Run', exact: true }).click();
    await expect(page.getByRole('button', { name: new RegExp(`^${made} of QN-1`) })).toBeVisible({ timeout: 40_000 });
  }

  // volumes
  await bed(page, 'Volumes').click();
  await page.getByRole('button', { name: /^Fluid contacts/ }).click();
  await page.getByText(/^Pressures\d/).click();
  for (const box of await page.getByRole('checkbox', { name: /QN-[345] pressures/ }).all()) await box.uncheck();
  await run(page, 'Run', 'Contacts');
  await page.getByRole('button', { name: /^Volumes in place/ }).click();
  const form = page.getByRole('complementary', { name: 'Volumes in place' });
  await form.getByLabel('Top', { exact: true }).selectOption({ label: 'Tolven Top in depth' });
  await form.getByLabel('Base', { exact: true }).selectOption({ label: 'Tolven Base in depth' });
  await form.getByLabel('Area').selectOption({ label: 'Crest outline' });
  await run(page, 'Run', 'Crest by hand');
  const before = await grossOf(page, 'Crest by hand');
  expect(before).toBeGreaterThan(60);
  expect(before).toBeLessThan(240);

  // a contact typed 20 m higher: the bed weathers until it is rebuilt
  await page.getByRole('button', { name: /^Contacts \d/ }).click();
  await page.getByRole('button', { name: 'Change…' }).click();
  const contacts = page.getByRole('complementary', { name: 'Fluid contacts' });
  await contacts.getByLabel('Contacts', { exact: true }).selectOption('typed');
  await contacts.getByLabel('Oil–water contact, typed').fill('1040');
  await contacts.getByLabel('Oil–water contact, typed').press('Enter');
  await contacts.getByRole('button', { name: 'Run again' }).click();
  await expect(bed(page, 'Volumes')).toHaveAccessibleName(/out of date/);
  await page.getByRole('button', { name: /^Crest by hand out of date/ }).click();
  await expect(page.getByText(/Out of date: Contacts has changed since/)).toBeVisible();
  expect(await grossOf(page, 'Crest by hand')).toBe(before);
  await page.getByRole('button', { name: 'Rebuild', exact: true }).click();
  await expect(bed(page, 'Volumes')).not.toHaveAccessibleName(/out of date/, { timeout: 20_000 });
  await expect.poll(() => grossOf(page, 'Crest by hand')).toBeLessThan(before * 0.9);
});

test('a fault drawn on two lines becomes a surface; sticks are undone and redone by name', async ({ page }) => {
  await openWorkedUp(page);
  await bed(page, 'Interpret').click();
  await page.getByRole('button', { name: 'Draw a fault' }).click();
  const raster = await page.getByTestId('section-raster').boundingBox();
  if (!raster) throw new Error('the section has no size');
  const stick = async () => {
    for (const [x, y] of [
      [0.3, 0.4],
      [0.34, 0.5],
      [0.38, 0.62],
    ])
      await page.mouse.click(raster.x + x * raster.width, raster.y + y * raster.height);
    await page.mouse.click(raster.x + 0.4 * raster.width, raster.y + 0.66 * raster.height, { button: 'right' });
  };
  const sheet = page.getByRole('complementary', { name: 'Draw a fault' });
  await stick();
  await expect(sheet.getByText('1 stick kept. A surface needs two.')).toBeVisible();
  const number = page.getByLabel('Line number');
  await number.fill(String(Number(await number.inputValue()) + 10));
  await number.press('Enter');
  await stick();
  await expect(sheet.getByText('2 sticks kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo: Stick of Drawn fault' }).click();
  await expect(sheet.getByText(/1 stick kept/)).toBeVisible();
  await page.getByRole('button', { name: 'Redo: Stick of Drawn fault' }).click();
  await expect(sheet.getByText('2 sticks kept.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('button', { name: /^Drawn fault 2 sticks/ })).toBeVisible();
});

test('picks are made by keyboard too: arrows move the cursor in the section, P picks, Escape leaves', async ({
  page,
}) => {
  await openWorkedUp(page);
  await bed(page, 'Interpret').click();
  await page.getByRole('button', { name: 'Pick a horizon' }).press('Enter');
  const sheet = page.getByRole('complementary', { name: 'Pick a horizon' });
  await sheet.getByLabel('Event').selectOption('peak');
  const section = page.getByRole('img', { name: /^Section along inline/ });
  await section.focus();
  for (let n = 0; n < 4; n++) await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('contentinfo')).toContainText('TWT');
  // where no peak lies within reach, a sentence says so and nothing is picked: go on down until one does
  const pick = (count: string) =>
    expect(async () => {
      await page.keyboard.press('ArrowDown');
      await page.keyboard.press('ArrowDown');
      await page.keyboard.press('p');
      await expect(sheet.getByText(count)).toBeVisible({ timeout: 700 });
    }).toPass({ timeout: 20_000 });
  await pick('1 pick so far.');
  for (let n = 0; n < 2; n++) await page.keyboard.press('Shift+ArrowRight');
  await pick('2 picks so far.');
  await page.keyboard.press('Escape');
  await expect(sheet).toBeHidden();
});

test('a part of a track is erased on the map, what rests on it weathers, and undo brings it back', async ({ page }) => {
  await openWorkedUp(page);
  await bed(page, 'Interpret').click();
  await page.getByRole('button', { name: /^Tolven Top tracked/ }).click();
  const filled = async () =>
    Number(/([\d.]+) % of its bins/.exec(await page.getByText(/% of its bins/).innerText())?.[1]);
  const before = await filled();
  await page.getByRole('button', { name: 'Erase a part…' }).click();
  const map = await page.getByRole('img', { name: 'Map' }).boundingBox();
  if (!map) throw new Error('the map has no size');
  const [x, y] = [map.x + map.width / 2, map.y + map.height / 2];
  await page.mouse.move(x - 30, y - 30);
  await page.mouse.down();
  for (const [dx, dy] of [
    [30, -30],
    [30, 30],
    [-30, 30],
    [-30, -25],
  ])
    await page.mouse.move(x + dx, y + dy, { steps: 4 });
  await page.mouse.up();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(bed(page, 'Volumes')).toHaveAccessibleName(/out of date/, { timeout: 20_000 });
  await expect.poll(filled).toBeLessThan(before - 3);
  await page.getByRole('button', { name: /^Undo: Erase a part of Tolven Top tracked/ }).click();
  await expect(page.getByRole('button', { name: /^Redo: Erase a part of Tolven Top tracked/ })).toBeVisible();
});

test('an area is drawn on the map by keyboard and kept, and undo takes it away', async ({ page }) => {
  await openWorkedUp(page);
  await bed(page, 'Interpret').click();
  await page.getByRole('button', { name: 'Draw an area' }).press('Enter');
  await page.getByRole('img', { name: 'Map' }).focus();
  for (const key of ['ArrowRight', 'ArrowUp', 'ArrowLeft']) {
    await page.keyboard.press(`Shift+${key}`);
    await page.keyboard.press('p');
  }
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary', { name: 'Drawn area' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo: Draw Drawn area' }).click();
  await expect(page.getByRole('button', { name: /^Drawn area/ })).toBeHidden();
});

test('a tab closed in mid-run leaves nothing half made', async ({ page, context }) => {
  await openWorkedUp(page);
  const address = page.url();
  await bed(page, 'Attributes').click();
  await page.getByRole('button', { name: /^Variance Lateral change/ }).click();
  await page.getByRole('button', { name: /Run on the volume/ }).click();
  await expect(page.getByRole('button', { name: 'Cancel' })).toBeVisible();
  await page.close();
  const next = await context.newPage();
  await next.goto(address);
  await expect(next.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/);
  await expect(bed(next, 'Attributes')).toHaveAccessibleName(/1 object$/);
  const owners = await next.evaluate(async () => {
    const id = new URL(location.href).searchParams.get('project');
    const open = indexedDB.open(`lithagon-${id}`);
    const db = await new Promise<IDBDatabase>((resolve) => {
      open.onsuccess = () => resolve(open.result);
    });
    const all = <T>(store: string, what: 'getAll' | 'getAllKeys') =>
      new Promise<T[]>((resolve) => {
        const request = db.transaction(store).objectStore(store)[what]();
        request.onsuccess = () => resolve(request.result as T[]);
      });
    const objects = JSON.stringify(await all('objects', 'getAll'));
    const keys = await all<string>('arrays', 'getAllKeys');
    return [...new Set(keys.map((k) => k.split('/')[0]))].filter((owner) => !objects.includes(`"key":"${owner}/`));
  });
  expect(owners).toEqual([]);
});

test('a project is saved as a parcel and opened from the start page; one cut short is refused there', async ({
  page,
}) => {
  await openWorkedUp(page);
  const [saved] = await Promise.all([
    page.waitForEvent('download', { timeout: 90_000 }),
    page.getByRole('button', { name: 'Save the project as a parcel' }).click(),
  ]);
  const path = await saved.path();
  await page.goto('/');
  const choose = async (file: string | { name: string; mimeType: string; buffer: Buffer }) => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: /Open a parcel/ }).click(),
    ]);
    await chooser.setFiles(file);
  };
  await choose({ name: 'cut.parcel', mimeType: 'application/zip', buffer: Buffer.from('PK and then nothing') });
  await expect(page.getByRole('alert')).toContainText('cut.parcel cannot be opened as a parcel');
  await choose(path);
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 40_000 });
  await bed(page, 'Volumes').click();
  await expect(page.getByRole('button', { name: /^Crest volumes/ })).toBeVisible();
});

test('the methods page lists every step with its source', async ({ page }) => {
  await page.goto('/methods/');
  for (const title of ['Tie a well', 'Track through the volume', 'Volume to depth', 'Volumes in place'])
    await expect(page.getByRole('heading', { name: new RegExp(`^${title}`) })).toBeVisible();
  const variance = page.locator('[id="attributes.variance"]');
  await expect(variance.getByText(/After Marfurt et al. \(1998\)/)).toBeVisible();
});
