// In headless Chromium: a project of 5 000 objects, and a filter typed in its catalogue.
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { serve } from '../apps/web/server/serve.mjs';
import { chromium as browserPath } from '../scripts/setup.mjs';
import { median, newProject, slowest } from './support.mjs';

const PORT = 4179;

/** Fill a project with objects of made-up names, and time a filter typed in the catalogue, a digit at a time. */
async function catalogue(page) {
  await newProject(page, PORT);
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
  // every one of these leaves fewer objects, so that the count tells when the list has been drawn anew
  for (const [n, digit] of ['1', '2', '3', '4'].entries()) {
    await field.focus();
    await page.evaluate(() => {
      const count = [...document.querySelectorAll('[role="status"]')].find((e) => /objects/.test(e.textContent));
      window.typed = new Promise((resolve) => {
        const began = new Promise((go) => {
          addEventListener('input', () => go(performance.now()), { once: true, capture: true });
        });
        const watch = new MutationObserver(async () => {
          watch.disconnect();
          const from = await began;
          requestAnimationFrame(() => resolve(performance.now() - from));
        });
        watch.observe(count, { subtree: true, childList: true, characterData: true });
      });
    });
    await page.keyboard.type(digit);
    times[n] = await page.evaluate(() => window.typed);
    await page.waitForTimeout(200);
  }
  return times;
}

export async function measure({ files }) {
  await serve({ port: PORT, demo: join(files, '..') });
  const browser = await chromium.launch({ executablePath: browserPath(), args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const times = await catalogue(page);
  await browser.close();
  const what = 'catalogue of 5 000 objects, a digit typed to the frame of the new list';
  return [
    { what: `${what}, slowest of 4`, value: slowest(times), unit: 'ms' },
    { what: `${what}, median of 4`, value: median(times), unit: 'ms' },
  ];
}
