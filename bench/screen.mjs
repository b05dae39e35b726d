// In headless Chromium: a volume of 400 MB and one of 2 GB loaded, their planes on the screen, and a catalogue of 5 000.
import { rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { serve } from '../apps/web/server/serve.mjs';
import { chromium as browserPath } from '../scripts/setup.mjs';
import { writeSurvey } from './large.mjs';

const PORT = 4178;

async function newProject(page, path) {
  await page.goto(`http://127.0.0.1:${PORT}/`);
  await page.getByRole('button', { name: /^New project/ }).click();
  await page.getByText('A section shows seismic along a line.').waitFor();
  if (!path) return 0;
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Choose files…' }).first().click(),
  ]);
  await chooser.setFiles(path);
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  const amplitude = sheet.getByRole('button', { name: 'Yes, amplitude' });
  if (await amplitude.isVisible()) await amplitude.click();
  else await sheet.getByLabel('Quantity').selectOption('amplitude');
  await sheet.getByRole('radio', { name: 'positive' }).click();
  const started = performance.now();
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  await page.getByText(/loaded from 1 file/).waitFor({ timeout: 400000 });
  const seconds = (performance.now() - started) / 1000;
  await page.getByTestId('section-raster').waitFor();
  return seconds;
}

/** From a key press or a turn of the wheel to the frame that shows another plane: first whatever comes, then the whole. */
function timeStep(page, testId, key, down = true) {
  return page.evaluate(
    ([id, press, towards]) =>
      new Promise((resolve) => {
        const raster = document.querySelector(`[data-testid="${id}"]`);
        const before = raster.dataset.plane.replace('/coarse', '');
        const began = performance.now();
        let first = 0;
        const watch = new MutationObserver(() => {
          const { plane } = raster.dataset;
          if (plane.replace('/coarse', '') === before) return;
          first ||= performance.now() - began;
          if (plane.endsWith('/coarse')) return;
          watch.disconnect();
          requestAnimationFrame(() => resolve({ first, whole: performance.now() - began }));
        });
        watch.observe(raster, { attributes: true, attributeFilter: ['data-plane'] });
        if (press) document.body.dispatchEvent(new KeyboardEvent('keydown', { key: press, bubbles: true }));
        else
          raster.dispatchEvent(
            new WheelEvent('wheel', { deltaY: towards ? 100 : -100, bubbles: true, cancelable: true }),
          );
      }),
    [testId, key, down],
  );
}

const slowest = (values) => values.reduce((a, b) => Math.max(a, b), 0);
const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];

async function planes(page, what) {
  const out = [];
  await page.getByLabel('Step by this many lines').fill('37');
  await page.getByLabel('What the map shows').selectOption('slice');
  for (const plane of ['Inline', 'Crossline', 'Slice']) {
    const slice = plane === 'Slice';
    if (!slice) await page.getByRole('radio', { name: plane, exact: true }).click();
    await page.waitForTimeout(1500);
    const step = (ahead) =>
      slice ? timeStep(page, 'map-raster', null, ahead) : timeStep(page, 'section-raster', ahead ? '.' : ',');
    const cold = [];
    const warm = [];
    for (let n = 0; n < 5; n++) {
      cold.push(await step(true));
      await page.waitForTimeout(700);
    }
    for (let n = 0; n < 5; n++) {
      warm.push(await step(n % 2 === 1));
      await page.waitForTimeout(300);
    }
    const name = plane.toLowerCase();
    const add = (how, value) => out.push({ what: `${name} of ${what} on the screen, ${how}`, value, unit: 'ms' });
    add('cold, first look, slowest of 5', slowest(cold.map((c) => c.first)));
    add('cold, whole, slowest of 5', slowest(cold.map((c) => c.whole)));
    add('warm, median of 5', median(warm.map((c) => c.whole)));
  }
  return out;
}

/** Fill a project with objects of made-up names, and time a filter typed in the catalogue. */
async function catalogue(page) {
  await newProject(page);
  await page.evaluate(async () => {
    const id = new URLSearchParams(location.search).get('project');
    const db = await new Promise((resolve) => {
      const open = indexedDB.open(`lithagon-${id}`);
      open.onsuccess = () => resolve(open.result);
    });
    const tx = db.transaction('objects', 'readwrite');
    const madeBy = {
      step: 'drawn',
      version: 1,
      params: {},
      inputs: {},
      started: '2026-01-01T00:00:00Z',
      tookMs: 0,
      warnings: [],
      engine: '',
    };
    for (let n = 0; n < 5000; n++)
      tx.objectStore('objects').put({
        id: `p${n}`,
        kind: 'polygon',
        name: `Area ${n} ${['north', 'crest', 'east'][n % 3]}`,
        revision: `${n}`,
        stage: 'interpret',
        closed: true,
        rings: [
          [
            [0, 0],
            [1, 0],
            [1, 1],
          ],
        ],
        madeBy,
      });
    await new Promise((resolve) => {
      tx.oncomplete = resolve;
    });
    db.close();
  });
  await page.reload();
  await page.getByRole('main', { name: 'Desk' }).waitFor();
  await page.getByRole('button', { name: 'Catalogue of all objects' }).click();
  const field = page.getByLabel('Find objects');
  await field.waitFor();
  const times = [];
  for (const [n, letter] of ['c', 'r', 'e', 's', 't'].entries()) {
    await field.focus();
    await page.evaluate(() => {
      window.typed = new Promise((resolve) => {
        addEventListener(
          'input',
          () => {
            const began = performance.now();
            // the list is drawn anew by the second frame after a letter
            requestAnimationFrame(() => requestAnimationFrame(() => resolve(performance.now() - began)));
          },
          { once: true, capture: true },
        );
      });
    });
    await page.keyboard.type(letter);
    times[n] = await page.evaluate(() => window.typed);
    await page.waitForTimeout(200);
  }
  return {
    what: 'catalogue of 5 000 objects, a letter typed to the second frame after it, slowest of 5',
    value: slowest(times),
    unit: 'ms',
  };
}

export async function measure({ files, dir }) {
  await serve({ port: PORT, demo: join(files, '..') });
  const browser = await chromium.launch({ executablePath: browserPath(), args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const results = [];
  for (const [what, ni, nj, nk] of [
    ['400 MB', 500, 400, 500],
    ['2 GB', 1000, 1000, 500],
  ]) {
    const path = join(dir, 'screen.sgy');
    writeSurvey(path, ni, nj, nk, true);
    const seconds = await newProject(page, path);
    results.push({
      what: `SEG-Y of ${what} to stored slabs in Chromium`,
      value: statSync(path).size / 1e6 / seconds,
      unit: 'MB/s',
    });
    rmSync(path);
    results.push(...(await planes(page, what)));
  }
  results.push(await catalogue(page));
  await browser.close();
  return results;
}
