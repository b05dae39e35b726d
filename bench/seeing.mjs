// In headless Chromium, on a volume of 800 MB: what looking costs. A display change beside a bare redraw of the same pixels,
// the next line from the cache and from the store, memory after a thousand lines, and the longest task of the page.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { serve } from '../apps/web/server/serve.mjs';
import { chromium as browserPath } from '../scripts/setup.mjs';
import { writeSurvey } from './large.mjs';
import { loadSegy, timeStep } from './page.mjs';
import { median, newProject, noise, slowest } from './support.mjs';

const PORT = 4179;
const SHAPE = [1000, 500, 400];
const LINES = 1000;
/** Number of the first inline of the survey that is written. */
const FIRST = 1000;

/** Tasks of the page longer than 50 ms, from now on, as the browser reports them. */
const watchTasks = (page) =>
  page.evaluate(() => {
    window.longTasks = [];
    new PerformanceObserver((list) => {
      for (const { duration, startTime } of list.getEntries()) window.longTasks.push([startTime, duration]);
    }).observe({ type: 'longtask' });
  });
const longTasks = (page) => page.evaluate(() => window.longTasks);

/** Reads of planes that the page asks its workers for, counted at the message ports. */
const countMessages = (page) =>
  page.addInitScript(() => {
    window.posted = 0;
    const post = Worker.prototype.postMessage;
    Worker.prototype.postMessage = function (...args) {
      window.posted++;
      return post.apply(this, args);
    };
  });

/** A change of gain from the key press to the picture that shows it, and what of that was drawing, ms. */
const changeGain = (page) =>
  page.evaluate(
    () =>
      new Promise((resolve) => {
        const raster = document.querySelector('[data-testid="section-raster"]');
        const slider = document.querySelector('[role="slider"][aria-label="Gain"]');
        const watch = new MutationObserver(() => {
          const whole = performance.now() - began;
          watch.disconnect();
          resolve({ whole, drawn: Number(raster.dataset.drawMs) });
        });
        watch.observe(raster, { attributes: true, attributeFilter: ['data-draw-ms'] });
        slider.focus();
        const began = performance.now();
        slider.dispatchEvent(
          new KeyboardEvent('keydown', { key: window.gainUp ? 'ArrowLeft' : 'ArrowRight', bubbles: true }),
        );
        window.gainUp = !window.gainUp;
      }),
  );

/** The picture of the section drawn again as it is, by asking its own canvas for it, ms. */
const redraw = (page) =>
  page.evaluate(() => {
    const raster = document.querySelector('[data-testid="section-raster"]');
    raster.dispatchEvent(new Event('redraw'));
    return Number(raster.dataset.drawMs);
  });

/** Go to an inline and wait until it is there whole, ms. */
const goTo = (page, number) =>
  page.evaluate(
    (wanted) =>
      new Promise((resolve) => {
        const raster = document.querySelector('[data-testid="section-raster"]');
        const field = document.querySelector('[aria-label="Line number"]');
        const began = performance.now();
        const done = () => /inline\/\d+$/.test(raster.dataset.plane) && field.value === String(wanted);
        const before = raster.dataset.plane;
        const watch = new MutationObserver(() => {
          if (raster.dataset.plane === before || !done()) return;
          watch.disconnect();
          resolve(performance.now() - began);
        });
        watch.observe(raster, { attributes: true, attributeFilter: ['data-plane'] });
        field.focus();
        Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(field, String(wanted));
        field.dispatchEvent(new Event('input', { bubbles: true }));
        setTimeout(() => field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true })));
        // the line that is already there
        setTimeout(() => {
          if (!done()) return;
          watch.disconnect();
          resolve(Number.NaN);
        }, 400);
        setTimeout(() => resolve(Number.POSITIVE_INFINITY), 20_000);
      }),
    number,
  );

export async function measure({ files, dir }) {
  await serve({ port: PORT, demo: join(files, '..') });
  const browser = await chromium.launch({
    executablePath: browserPath(),
    args: ['--no-sandbox', '--enable-precise-memory-info'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await countMessages(page);
  const path = join(dir, 'seeing.sgy');
  writeSurvey(path, ...SHAPE, true);
  await newProject(page, PORT);
  await loadSegy(page, path);
  rmSync(path);
  await page.waitForTimeout(3000);
  await watchTasks(page);
  const out = [];

  // display changes
  await page
    .getByRole('button', { name: /^seeing/ })
    .first()
    .click();
  await page.getByRole('slider', { name: 'Gain' }).focus();
  await page.waitForTimeout(500);
  const posted = await page.evaluate(() => window.posted);
  const changes = [];
  const bare = [];
  for (let n = 0; n < 41; n++) {
    changes.push(await changeGain(page));
    bare.push(await redraw(page));
    await page.waitForTimeout(30);
  }
  const work = (await page.evaluate(() => window.posted)) - posted;
  const [drawn, plain] = [median(changes.map((c) => c.drawn)), median(bare)];
  out.push({
    what: 'a display change, drawing',
    value: drawn,
    unit: 'ms',
    ratio: drawn / plain,
    against: 'a bare redraw of the same pixels',
  });
  out.push({
    what: 'a display change, from the key to the picture',
    value: median(changes.map((c) => c.whole)),
    unit: 'ms',
  });
  out.push({ what: 'messages to workers in 41 display changes', value: work, unit: '' });
  await page.getByRole('button', { name: 'Close', exact: true }).click();

  // the next line
  const warm = [];
  for (let n = 0; n < 21; n++) {
    warm.push((await timeStep(page, 'section-raster', n % 2 ? '.' : ',')).whole);
    await page.waitForTimeout(60);
  }
  out.push({ what: 'the next line from the cache, median of 21', value: median(warm), unit: 'ms' });
  const random = noise(3);
  const cold = [];
  const visited = new Set();
  const next = () => {
    let n = 0;
    do n = FIRST + Math.floor(((random() + 1) / 2) * SHAPE[0]);
    while (visited.has(n));
    visited.add(n);
    return n;
  };
  for (let n = 0; n < 30; n++) {
    cold.push(await goTo(page, next()));
    await page.waitForTimeout(250);
  }
  const seen = cold.filter((v) => !Number.isNaN(v));
  out.push({ what: 'a line from the store, median of 30', value: median(seen), unit: 'ms' });
  out.push({ what: 'a line from the store, slowest of 30', value: slowest(seen), unit: 'ms' });

  // a thousand lines
  visited.clear();
  for (let n = 0; n < LINES - 30; n++) {
    if (visited.size > SHAPE[0] - 50) visited.clear();
    await goTo(page, next());
  }
  const memory = await page.evaluate(async () => (await performance.measureUserAgentSpecificMemory()).bytes);
  out.push({
    what: `memory of the page and its workers after ${LINES} lines at random of 800 MB`,
    value: memory / 1e6,
    unit: 'MB',
  });
  const tasks = await longTasks(page);
  out.push({ what: 'longest task of the page through all of it', value: slowest(tasks.map((t) => t[1])), unit: 'ms' });
  out.push({ what: 'tasks of the page over 100 ms', value: tasks.filter((t) => t[1] > 100).length, unit: '' });
  await browser.close();
  return out;
}
