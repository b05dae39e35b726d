import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { DEMO } from './support/data.ts';
import { lineSegy } from './support/segy.ts';
import { drop, newProject, openWorkedUp } from './support/workbench.ts';

const sheetOf = (page: Page) => page.getByRole('dialog', { name: 'Load files' });

test('the catalogue finds, tags and deletes; what rests on an object is said; undo works after a reload', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: 'Catalogue of all objects' }).click();
  const catalogue = page.getByRole('region', { name: 'Catalogue' });
  const find = catalogue.getByRole('searchbox', { name: 'Find objects' });
  await find.fill('tolven in depth horizon');
  await expect(catalogue.getByRole('status')).toContainText(/^2 of \d+ objects/);
  await catalogue.getByLabel('Mark Tolven Top in depth').click();
  await catalogue.getByLabel('Tag', { exact: true }).fill('prospect');
  await catalogue.getByRole('button', { name: 'Tag', exact: true }).click();
  await find.fill('prospect');
  await expect(catalogue.getByRole('status')).toContainText(/^1 of/);
  await catalogue.getByRole('button', { name: 'Delete…' }).click();
  const ask = page.getByRole('dialog', { name: 'Delete Tolven Top in depth?' });
  await expect(ask.getByRole('list', { name: 'What rests on it' })).toContainText('Crest volumes');
  await ask.getByRole('button', { name: 'Delete Tolven Top in depth' }).click();
  await expect(catalogue.getByText('Nothing has all of these words.')).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Undo: Delete Tolven Top in depth' }).click();
  await page.getByRole('button', { name: 'Catalogue of all objects' }).click();
  await page.getByRole('searchbox', { name: 'Find objects' }).fill('prospect');
  await expect(page.getByRole('region', { name: 'Catalogue' }).getByRole('status')).toContainText(/^1 of/);
  // renamed in place by the keyboard
  const name = page.getByRole('region', { name: 'Catalogue' }).getByRole('button', { name: 'Tolven Top in depth' });
  await name.focus();
  await page.keyboard.press('F2');
  await page.getByLabel('New name of Tolven Top in depth').fill('Reservoir top');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Undo: Rename Tolven Top in depth to Reservoir top' })).toBeEnabled();
});

test('one switch shows field units; another system is relabelled or converted, and taken back', async ({ page }) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: 'EPSG:32740' }).click();
  const frame = page.getByRole('dialog', { name: 'Frame of the project' });
  await frame.getByRole('radio', { name: 'Field' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('contentinfo')).toContainText('field units');
  await page.getByRole('button', { name: /^Depth ?: / }).click();
  await page.getByRole('button', { name: /^Tolven Top in depth/ }).click();
  await expect(page.getByRole('complementary', { name: 'Tolven Top in depth' })).toContainText('Depth, ft');
  await page.getByRole('button', { name: 'Undo: Field units' }).click();
  await expect(page.getByRole('complementary', { name: 'Tolven Top in depth' })).toContainText('Depth, m');

  await page.getByRole('button', { name: 'EPSG:32740' }).click();
  await frame.getByLabel('Name, code or area').fill('wgs 84 utm 39s');
  await frame.getByRole('button', { name: /WGS 84 \/ UTM zone 39S/ }).click();
  await expect(frame.getByRole('row', { name: /QN-1/ })).toContainText('513940.09');
  await expect(frame.getByText(/one datum, so that only the projection changes/)).toBeVisible();
  await frame.getByRole('button', { name: 'Convert' }).click();
  await expect(page.getByText(/Converted: \d+ objects moved/)).toBeVisible();
  await expect(page.getByRole('contentinfo')).toContainText('UTM zone 39S');
  // nothing is out of date: everything is where it was
  await expect(page.getByText('out of date')).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo: Convert to/ }).click();
  await expect(page.getByRole('contentinfo')).toContainText('UTM zone 40S');
});

test('columns are told once and remembered; names that almost agree are matched, never merged unasked', async ({
  page,
}) => {
  await newProject(page);
  const odd = 'Bore;Marker;Along hole\nQN1;Tolven Top;1540,5\nQN-2;Tolven Top;1600,25\n';
  await drop(page, ['well-heads.csv', 'odd.csv'], {
    'odd.csv': odd,
    'well-heads.csv': readFileSync(join(DEMO, 'files/well-heads.csv')),
  });
  const sheet = sheetOf(page);
  await sheet.getByRole('button', { name: /^odd.csv/ }).click();
  await expect(sheet.getByText(/which make up no table that is known/)).toBeVisible();
  await sheet.getByLabel('What Bore is').selectOption('well');
  await sheet.getByLabel('What Along hole is').selectOption('md');
  await expect(sheet.getByText('Kept for the next file with these columns.')).toBeVisible();
  await sheet.getByRole('button', { name: 'It is QN-1' }).click();
  await sheet.getByLabel('Load odd.csv').check();
  await sheet.getByRole('button', { name: 'Load 2 files' }).click();
  await expect(page.getByText(/objects loaded from 2 files/)).toBeVisible();
  await page.getByRole('button', { name: /^Wells ?: / }).click();
  await page.getByRole('button', { name: /^What QN-1 has/ }).click();
  await expect(page.getByRole('button', { name: /^QN-1 tops/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /waits/ })).toHaveCount(0);

  await drop(page, ['more.csv'], { 'more.csv': 'Bore;Marker;Along hole\nQX;Tolven Top;1501\n' });
  await expect(sheet.getByRole('heading', { name: 'Tops' })).toBeVisible();
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  await expect(page.getByRole('button', { name: /^QX tops.*waits/ })).toBeVisible();
  await page.getByRole('button', { name: /^QX tops/ }).click();
  await page.getByLabel('It belongs to').selectOption('QN-3');
  await expect(page.getByRole('button', { name: /^QN-3 tops/ })).toBeVisible();
});

test('a 2D line is loaded, looked at in section and map, and its crossings are listed', async ({ page }) => {
  await newProject(page);
  // two lines that cross near the middle of the survey
  await drop(page, ['QL-07.sgy', 'QL-12.sgy'], {
    'QL-07.sgy': lineSegy([511500, 7644000], [516500, 7645600]),
    'QL-12.sgy': lineSegy([513400, 7647200], [514400, 7642200]),
  });
  const sheet = sheetOf(page);
  await expect(sheet.getByRole('heading', { name: '2D seismic line' })).toBeVisible();
  await sheet.getByRole('radio', { name: 'Trace headers' }).click();
  await expect(sheet.getByText(/fields that are 0 throughout are left out/)).toBeVisible();
  await sheet.getByRole('radio', { name: 'Positions' }).click();
  await expect(sheet.getByText(/CDP numbers step by 1/).first()).toBeVisible();
  await sheet.getByRole('radio', { name: 'Summary' }).click();
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByRole('button', { name: 'the same for all' }).click();
  await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
  await sheet.getByRole('button', { name: 'the same for all' }).last().click();
  await sheet.getByRole('button', { name: 'Load 2 files' }).click();
  await page.getByRole('button', { name: /^QL-12/ }).waitFor({ timeout: 30_000 });
  await page.getByRole('button', { name: /^QL-07/ }).dblclick();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /line$/);
  await expect(page.getByRole('img', { name: 'Section along QL-07' })).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'QL-07' })).toContainText('QL-12');
  await page.getByLabel('Line of the section').selectOption({ label: 'QL-12' });
  await expect(page.getByRole('img', { name: 'Section along QL-12' })).toBeVisible();
});

test('a desk is saved by name, says how it differs, goes back, and survives a reload', async ({ page }) => {
  await openWorkedUp(page);
  const manage = page.getByRole('button', { name: 'Save and manage desks' });
  await manage.click();
  await page.getByLabel('Name of the desk').fill('Ties');
  await page.getByRole('button', { name: 'Save as' }).click();
  const tab = page.getByRole('navigation', { name: 'Desks' }).getByRole('button', { name: 'Ties', exact: true });
  await expect(tab).toHaveAttribute('aria-pressed', 'true');
  const number = page.getByLabel('Line number');
  const first = await number.inputValue();
  await page.keyboard.press('.');
  await expect(number).not.toHaveValue(first);
  const changed = page.getByRole('navigation', { name: 'Desks' }).getByLabel('changed since it was saved');
  await expect(changed).toBeVisible();
  await page.reload();
  await expect(changed).toBeVisible();
  await manage.click();
  await expect(page.getByText(/differs from what was saved in the lines and parts in view/)).toBeVisible();
  await page.getByRole('button', { name: 'Back to what was saved' }).click();
  await expect(number).toHaveValue(first);
  await expect(changed).toHaveCount(0);
});

test('a second tab is told, may look, and takes over cleanly', async ({ page, context }) => {
  await openWorkedUp(page);
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/);
  const told = second.getByRole('alert').filter({ hasText: 'open in another tab' });
  await expect(told).toBeVisible();
  await second
    .getByRole('button', { name: /^Full stack/ })
    .first()
    .click();
  await second.getByRole('complementary', { name: 'Full stack' }).getByLabel('Note').fill('seen');
  await second.getByRole('complementary', { name: 'Full stack' }).getByLabel('New tag').focus();
  await expect(second.getByText(/this one only looks/)).toBeVisible();
  await told.getByRole('button', { name: 'Work here instead' }).click();
  await expect(told).toHaveCount(0);
  await expect(page.getByRole('alert').filter({ hasText: 'open in another tab' })).toBeVisible();
  await second.getByRole('complementary', { name: 'Full stack' }).getByLabel('New tag').fill('checked');
  await second.keyboard.press('Enter');
  await expect(
    second
      .getByRole('button', { name: 'Take the tag “checked” off' })
      .or(second.getByTitle('Take the tag “checked” off')),
  ).toBeVisible();
});

test('a band-pass is tried on the line with its response, run, and the result leaves as SEG-Y and as pictures', async ({
  page,
}) => {
  await newProject(page);
  await drop(page, ['quillon-full.sgy']);
  const load = sheetOf(page);
  await load.getByRole('radio', { name: 'Two-way time' }).click();
  await load.getByRole('button', { name: 'Yes, amplitude' }).click();
  await load.getByRole('button', { name: 'Load 1 file' }).click();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 30_000 });
  await page.getByRole('button', { name: /^Band-pass/ }).click();
  await expect(page.getByRole('img', { name: 'Response over the spectrum of the line' })).toBeVisible();
  await page.getByRole('button', { name: 'Try on this line' }).click();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /data\.bandPass/);
  await page.getByRole('button', { name: /^Run on the volume/ }).click();
  const made = page.getByRole('complementary', { name: /^Band-pass of/ });
  await expect(made).toBeVisible({ timeout: 60_000 });
  await made.getByLabel('SEG-Y samples').selectOption('ibm');
  const [segy] = await Promise.all([
    page.waitForEvent('download'),
    made.getByRole('button', { name: 'SEG-Y', exact: true }).click(),
  ]);
  expect(segy.suggestedFilename()).toMatch(/^Band-pass of .*\.sgy$/);
  const bytes = readFileSync(await segy.path());
  expect(bytes.readInt16BE(3224)).toBe(1);
  expect((bytes.length - 3600) % (240 + 4 * bytes.readUInt16BE(3220))).toBe(0);

  await page.getByRole('button', { name: 'Settings of the section' }).click();
  await page.getByRole('button', { name: 'Save a picture of the section' }).click();
  const sheet = page.getByRole('dialog', { name: 'Save a picture' });
  await sheet.getByRole('radio', { name: /SVG/ }).click();
  await sheet.getByRole('radio', { name: 'To scale' }).click();
  const [picture] = await Promise.all([
    page.waitForEvent('download'),
    sheet.getByRole('button', { name: 'Save' }).click(),
  ]);
  const svg = readFileSync(await picture.path(), 'utf8');
  for (const part of ['<image ', 'No coordinate system declared', '4 cm to the km, 10 cm to the s', 'TWT (ms)'])
    expect(svg).toContain(part);
});

test('projects are listed with size and date, copied, renamed and deleted', async ({ page }) => {
  await newProject(page);
  await drop(page, ['well-heads.csv']);
  await sheetOf(page).getByRole('button', { name: 'Load 1 file' }).click();
  await expect(page.getByText(/loaded from 1 file/)).toBeVisible();
  await page.goto('/');
  const rows = page.getByRole('listitem');
  await expect(rows.filter({ hasText: 'New project' })).toContainText(/\d+ objects/);
  await page.getByRole('button', { name: 'Duplicate' }).click();
  const copy = rows.filter({ hasText: 'New project copy' });
  await expect(copy).toBeVisible();
  await copy.getByRole('button', { name: 'Rename' }).click();
  await page.getByLabel('New name of New project copy').fill('Second try');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Second try' }).click();
  await page.getByRole('button', { name: /^Wells ?: / }).click();
  await expect(page.getByRole('button', { name: /^QN-1/ }).first()).toBeVisible();
  await page.goto('/');
  page.once('dialog', (dialog) => void dialog.accept());
  await page.getByRole('button', { name: 'Delete Second try' }).click();
  await expect(rows.filter({ hasText: 'Second try' })).toHaveCount(0);
});
