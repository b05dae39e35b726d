// In headless Chromium: a volume of 400 MB and one of 2 GB loaded, and their planes on the screen.
import { rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { serve } from '../apps/web/server/serve.mjs';
import { chromium as browserPath } from '../scripts/setup.mjs';
import { writeSurvey } from './large.mjs';
import { loadSegy, timeStep } from './page.mjs';
import { median, newProject, slowest } from './support.mjs';

const PORT = 4178;

async function planes(page, what) {
  const out = [];
  await page.getByRole('button', { name: 'Settings of the section' }).click();
  await page.getByLabel('Step by this many lines').fill('37');
  await page.keyboard.press('Escape');
  await page.getByLabel('What the map shows').selectOption('slice');
  for (const plane of ['Inline', 'Crossline', 'Slice']) {
    const slice = plane === 'Slice';
    if (!slice) await page.getByLabel('Line of the section').selectOption(plane.toLowerCase());
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
    const { seconds, cut } = await loadSegy(page, path);
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
