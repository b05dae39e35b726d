// In headless Chromium: SEG-Y to stored slabs, and the repaint of a section for a display change.
import { readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { serve } from '../apps/web/server/serve.mjs';
import { chromium as browserPath } from '../scripts/setup.mjs';

const PORT = 4177;

export async function measure({ files }) {
  await serve({ port: PORT, demo: join(files, '..') });
  const browser = await chromium.launch({ executablePath: browserPath(), args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`http://127.0.0.1:${PORT}/`);
  await page.getByRole('button', { name: /New project/ }).click();
  await page.getByText('A section shows seismic along a line.').waitFor();
  const path = join(files, 'quillon-full.sgy');
  const megabytes = statSync(path).size / 1e6;
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Choose files…' }).first().click(),
  ]);
  await chooser.setFiles(path);
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
  await sheet.getByRole('radio', { name: 'positive' }).click();
  const started = performance.now();
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  await page.getByText(/loaded from 1 file/).waitFor({ timeout: 120000 });
  const load = (performance.now() - started) / 1000;
  const plain = await page.evaluate(async (base64) => {
    const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
    const view = new DataView(bytes.buffer);
    const begun = performance.now();
    const out = new Float32Array(bytes.length / 4);
    for (let n = 900; n < out.length; n++) {
      const word = view.getUint32(4 * n);
      const value = ((word & 0xffffff) / 0x1000000) * 16 ** (((word >>> 24) & 0x7f) - 64);
      out[n] = word >>> 31 ? -value : value;
    }
    return (performance.now() - begun) / 1000 / bytes.length;
  }, readFileSync(path).subarray(0, 8_000_000).toString('base64'));
  const raster = page.getByTestId('section-raster');
  await raster.waitFor();
  await page
    .getByRole('button', { name: /^Full|^quillon/ })
    .first()
    .click();
  await page.getByRole('slider', { name: 'Gain' }).focus();
  const repaints = [];
  for (let n = 0; n < 15; n++) {
    await page.keyboard.press('ArrowRight');
    await page.waitForTimeout(120);
    repaints.push(Number(await raster.getAttribute('data-draw-ms')));
  }
  const box = await raster.boundingBox();
  await browser.close();
  repaints.sort((a, b) => a - b);
  return [
    {
      what: 'SEG-Y of IBM floats to stored slabs in Chromium, when the volume is there',
      value: megabytes / load,
      unit: 'MB/s',
      ratio: (plain * megabytes * 1e6) / load,
      against: 'a plain convert loop on the page',
    },
    {
      what: `section repaint for a display change, ${Math.round(box.width)} × ${Math.round(box.height)}, median`,
      value: repaints[7],
      unit: 'ms',
    },
  ];
}
