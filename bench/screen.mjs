// In headless Chromium: a volume of 400 MB and one of 2 GB loaded, and their planes on the screen.
import { rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { serve } from '../apps/web/server/serve.mjs';
import { chromium as browserPath } from '../scripts/setup.mjs';
import { writeSurvey } from './large.mjs';
import { median, newProject, slowest } from './support.mjs';

const PORT = 4178;

/** Load a SEG-Y file of amplitudes in two-way time. @returns seconds until it is there, and until it is cut for all planes */
async function load(page, path) {
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
  // copies for the other planes are cut behind it
  const cutting = page.getByText(/^Cutting /).first();
  await cutting.waitFor();
  await cutting.waitFor({ state: 'hidden', timeout: 400000 });
  return { seconds, cut: (performance.now() - started) / 1000 };
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

async function planes(page, what) {
  const out = [];
  await page.getByRole('button', { name: 'Settings of the section' }).click();
  await page.getByLabel('Step by this many lines').fill('37');
  await page.keyboard.press('Escape');
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
    await newProject(page, PORT);
    const { seconds, cut } = await load(page, path);
    const megabytes = statSync(path).size / 1e6;
    results.push(
      {
        what: `SEG-Y of ${what} to stored slabs in Chromium, when the volume is there`,
        value: megabytes / seconds,
        unit: 'MB/s',
      },
      { what: 'the same, when it is cut for all planes', value: megabytes / cut, unit: 'MB/s' },
    );
    rmSync(path);
    results.push(...(await planes(page, what)));
  }
  await browser.close();
  return results;
}
