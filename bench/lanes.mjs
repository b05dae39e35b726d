// In headless Chromium: the variance of the demo's full stack stored with one worker and with two, beside what plain arithmetic
// gains from the second worker in the same browser.
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { serve } from '../apps/web/server/serve.mjs';
import { chromium as browserPath } from '../scripts/setup.mjs';
import { median, newProject } from './support.mjs';

const PORT = 4181;
const RUNS = 4;

/** A project with the full stack, in a page that is said to have so many processors. */
async function opened(browser, files, processors) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addInitScript((n) => {
    Object.defineProperty(Navigator.prototype, 'hardwareConcurrency', { get: () => n });
  }, processors);
  const page = await context.newPage();
  await newProject(page, PORT);
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Choose files…' }).first().click(),
  ]);
  await chooser.setFiles(join(files, 'quillon-full.sgy'));
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
  await sheet.getByRole('radio', { name: 'positive' }).click();
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  await page.getByText(/loaded from 1 file/).waitFor({ timeout: 120000 });
  await page.waitForTimeout(4000);
  return page;
}

/** Seconds from asking for the variance of the volume to seeing its trail. */
async function variance(page, n) {
  await page.keyboard.press('Escape');
  const step = page.getByRole('button', { name: /^Variance Lateral change/ });
  // a second click on the bed would close its tray
  if (!(await step.isVisible())) await page.getByRole('button', { name: /^Attributes ?: / }).click();
  await step.click();
  const form = page.getByRole('complementary', { name: 'Variance' });
  await form.getByRole('textbox', { name: 'Name' }).fill(`Run ${n}`);
  await page.waitForTimeout(2500);
  const began = performance.now();
  await form.getByRole('button', { name: /Run on the volume/ }).click();
  await page.getByRole('complementary', { name: `Run ${n}` }).waitFor({ timeout: 120000 });
  return (performance.now() - began) / 1000;
}

/** Seconds that so many workers take for the same sums, shared out among them. */
const sums = (page, workers) =>
  page.evaluate(async (count) => {
    const code = `onmessage = ({ data }) => {
      const values = new Float64Array(4096).map((_, n) => n % 17);
      let total = 0;
      for (let n = 0; n < data; n++) total += values[n & 4095] * 1.000001 + (total % 3);
      postMessage(total);
    };`;
    const url = URL.createObjectURL(new Blob([code], { type: 'text/javascript' }));
    const all = Array.from({ length: count }, () => new Worker(url));
    const work = (each) =>
      Promise.all(
        all.map(
          (worker) =>
            new Promise((resolve) => {
              worker.onmessage = resolve;
              worker.postMessage(each);
            }),
        ),
      );
    await work(1e6);
    const began = performance.now();
    await work(6e7 / count);
    for (const worker of all) worker.terminate();
    return (performance.now() - began) / 1000;
  }, workers);

export async function measure({ files }) {
  await serve({ port: PORT, demo: join(files, '..') });
  const browser = await chromium.launch({ executablePath: browserPath(), args: ['--no-sandbox'] });
  const plain = await browser.newPage();
  const times = { 1: [], 2: [] };
  const arithmetic = { 1: [], 2: [] };
  const pages = { 1: await opened(browser, files, 1), 2: await opened(browser, files, 2) };
  for (let n = 0; n < RUNS; n++)
    for (const workers of [1, 2]) {
      times[workers].push(await variance(pages[workers], n));
      arithmetic[workers].push(await sums(plain, workers));
    }
  await browser.close();
  const of = (by, workers) => median(by[workers].slice(1));
  const [gain, plainGain] = [times, arithmetic].map((by) => of(by, 1) / of(by, 2));
  return [
    {
      what: 'variance of the full stack stored in Chromium by two workers, click to result',
      value: of(times, 2),
      unit: 's',
      ratio: gain,
      against: `one worker; plain arithmetic gains ${plainGain.toFixed(2)} ×, of which this is ${(gain / plainGain).toFixed(2)}`,
    },
  ];
}
