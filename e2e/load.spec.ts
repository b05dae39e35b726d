import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { DEMO } from './support/data.ts';
import { difference, drop, newProject, pictureOf } from './support/workbench.ts';

test('files are dropped, questioned only where they cannot answer, loaded, looked at, and there after a reload', async ({
  page,
}) => {
  await newProject(page);
  await drop(page, [
    'quillon-full.sgy',
    'well-heads.csv',
    'checkshots.csv',
    'well-tops.csv',
    'well-surveys.csv',
    'fault-sticks.csv',
    'crest-outline.geojson',
  ]);
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await expect(sheet.getByText('Well heads', { exact: true })).toBeVisible();
  await expect(sheet.getByText(/still asks: vertical axis, samples are/)).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'Load 7 files' })).toBeDisabled();
  await expect(sheet.getByText('inline 189, crossline 193, X 181, Y 185')).toBeVisible();
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
  await sheet.getByRole('radio', { name: 'positive' }).click();
  await sheet.getByRole('button', { name: 'Load 7 files' }).click();
  await expect(page.getByText(/objects loaded from 7 files/)).toBeVisible({ timeout: 60_000 });

  const raster = page.getByTestId('section-raster');
  await expect(raster).toHaveAttribute('data-plane', /inline/);
  await expect(page.getByText('amplitude, + is harder').first()).toBeVisible();
  const before = await pictureOf(page);
  expect(new Set(before).size).toBeGreaterThan(30);

  // a crossline can be looked at while the volume is still being cut for them, and when it is
  await page.getByLabel('Line of the section').selectOption('crossline');
  await expect(raster).toHaveAttribute('data-plane', /crossline\//);
  const uncut = await pictureOf(page);
  await expect(page.getByText(/^Cutting quillon-full/)).toHaveCount(0, { timeout: 60_000 });
  await page.reload();
  await expect(raster).toHaveAttribute('data-plane', /crossline\//, { timeout: 30_000 });
  await expect.poll(async () => difference(uncut, await pictureOf(page))).toBeLessThan(0.5);
  await page.getByLabel('Line of the section').selectOption('inline');
  await expect(raster).toHaveAttribute('data-plane', /inline\//);

  // one cursor: the readout names the line and the sample under the pointer
  const box = await raster.boundingBox();
  if (!box) throw new Error('the section has no size');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  const readout = page.getByRole('contentinfo');
  await expect(readout).toContainText('Amplitude');
  await expect(readout).toContainText('TWT');

  // the wheel steps lines, and the section's trace moves on the map with it
  const number = page.getByLabel('Line number');
  const first = Number(await number.inputValue());
  const trace = await page.getByTestId('section-trace').getAttribute('d');
  await page.mouse.wheel(0, 120);
  await expect(number).toHaveValue(String(first + 1));
  await expect(page.getByTestId('section-trace')).not.toHaveAttribute('d', trace ?? '');
  await number.fill(String(first + 12));
  await number.press('Enter');
  await expect(raster).toHaveAttribute('data-plane', /inline\//);
  await expect.poll(async () => difference(before, await pictureOf(page))).toBeGreaterThan(2);

  await page.reload();
  await expect(page.getByLabel('Line number')).toHaveValue(String(first + 12));
  await page.getByRole('button', { name: /^Wells ?: / }).click();
  await expect(page.getByRole('button', { name: /QN-4 oil/ })).toBeVisible();
});

test('a coordinate system is found by typing as soon as its sheet is open', async ({ page }) => {
  await newProject(page);
  await page.getByRole('button', { name: 'Choose coordinate system' }).click();
  const sheet = page.getByRole('dialog', { name: 'Frame of the project' });
  await expect(sheet.getByLabel('Name, code or area')).toBeFocused();
  await page.keyboard.type('utm 40s');
  await sheet.getByRole('button', { name: /WGS 84 \/ UTM zone 40S/ }).click();
  await expect(page.getByRole('button', { name: 'EPSG:32740' })).toBeVisible();
  await expect(page.getByText('WGS 84 / UTM zone 40S · metres')).toBeVisible();
});

test('what is broken gets one sentence, and nothing of it is loaded', async ({ page }) => {
  await newProject(page);
  const las = readFileSync(join(DEMO, 'files/QN-1.las'), 'utf8');
  await drop(page, ['cut.sgy', 'letter.sgy', 'empty.las', 'columns.csv', 'shape.geojson'], {
    'cut.sgy': 'C 1 CUT SHORT',
    'letter.sgy': 'Dear colleague, '.repeat(400),
    'empty.las': las.slice(0, las.indexOf('~ASCII')),
    'columns.csv': 'well,colour\nQN-1,red\n',
    'shape.geojson': '{"type":"FeatureCollection","features":[',
  });
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  const says: [string, RegExp][] = [
    ['cut.sgy', /only 13 bytes long, shorter than the headers/],
    ['letter.sgy', /sample format .* which no revision of the standard has/],
    ['empty.las', /no data section/],
    ['columns.csv', /“well”, “colour”, which make up no table that is known/],
    ['shape.geojson', /is not valid JSON/],
  ];
  for (const [file, sentence] of says) {
    await sheet.getByRole('button', { name: new RegExp(`^${file}`) }).click();
    await expect(sheet.getByText(sentence)).toBeVisible();
    await expect(sheet.getByLabel(`Load ${file}`)).toBeDisabled();
  }
  await expect(sheet.getByRole('button', { name: 'Load 0 files' })).toBeDisabled();
  await sheet.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('A section shows seismic along a line.')).toBeVisible();
});

test('a load that is cancelled leaves nothing', async ({ page }) => {
  await newProject(page);
  await drop(page, ['quillon-near.sgy']);
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByLabel('Samples are', { exact: true }).selectOption('amplitude');
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  await page.getByRole('button', { name: 'Cancel Loading quillon-near.sgy' }).click();
  await expect(page.getByText('Loading quillon-near.sgy: cancelled. Nothing of it was kept.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Data ?: 0 objects$/ })).toBeVisible();
  const id = new URL(page.url()).searchParams.get('project') ?? '';
  const kept = await page.evaluate(
    (name) =>
      new Promise<number>((resolve, reject) => {
        const request = indexedDB.open(name);
        request.onerror = () => reject(request.error);
        request.onsuccess = () => {
          const count = request.result.transaction('arrays').objectStore('arrays').count();
          count.onsuccess = () => resolve(count.result);
        };
      }),
    `lithagon-${id}`,
  );
  expect(kept).toBe(0);
});
