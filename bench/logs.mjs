// In headless Chromium: ten wells of ten curves of 20 000 samples, loaded as LAS; three wells at a time in view, whole, and scrolled.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { serve } from '../apps/web/server/serve.mjs';
import { chromium as browserPath } from '../scripts/setup.mjs';
import { median, newProject, noise, slowest } from './support.mjs';

const PORT = 4180;
const WELLS = 10;
const SAMPLES = 20_000;
const CURVES = [
  ['GR', 'GAPI', 'gamma ray', 20, 140],
  ['DT', 'US/M', 'sonic', 200, 500],
  ['DTS', 'US/M', 'shear sonic', 400, 900],
  ['RHOB', 'KG/M3', 'density', 2000, 2700],
  ['NPHI', 'V/V', 'neutron', 0.05, 0.45],
  ['RT', 'OHMM', 'resistivity', 0.5, 100],
  ['CALI', 'MM', 'caliper', 200, 320],
  ['SP', 'MV', 'SP', -80, 20],
  ['PEF', 'B/E', 'PEF', 1, 6],
  ['DRHO', 'KG/M3', 'density correction', -50, 100],
];

function writeWells(dir) {
  const random = noise(7);
  const heads = ['well,x,y,kb_m'];
  const paths = [join(dir, 'heads.csv')];
  for (let w = 1; w <= WELLS; w++) {
    heads.push(`L-${w},${510000 + 400 * w},7640000,25`);
    const rows = [
      '~Version',
      'VERS. 2.0 :',
      'WRAP. NO :',
      '~Well',
      'STRT.M 500 :',
      `STOP.M ${500 + 0.15 * (SAMPLES - 1)} :`,
      'STEP.M 0.15 :',
      'NULL. -999.25 :',
      `WELL. L-${w} :`,
      '~Curve',
      'DEPT.M :',
      ...CURVES.map(([name, unit]) => `${name}.${unit} :`),
      '~A',
    ];
    const at = CURVES.map(() => 0.5);
    for (let k = 0; k < SAMPLES; k++) {
      const values = CURVES.map(([, , , low, high], c) => {
        at[c] = Math.min(1, Math.max(0, at[c] + 0.05 * random()));
        return (low + at[c] * (high - low)).toFixed(4);
      });
      rows.push(`${(500 + 0.15 * k).toFixed(2)} ${values.join(' ')}`);
    }
    const path = join(dir, `L-${w}.las`);
    writeFileSync(path, rows.join('\n'));
    paths.push(path);
  }
  writeFileSync(paths[0], heads.join('\n'));
  return paths;
}

export async function measure({ files, dir }) {
  await serve({ port: PORT, demo: join(files, '..') });
  const browser = await chromium.launch({ executablePath: browserPath(), args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await newProject(page, PORT);
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Choose files…' }).first().click(),
  ]);
  await chooser.setFiles(writeWells(dir));
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  const began = performance.now();
  await sheet.getByRole('button', { name: /^Load \d+ files/ }).click();
  await page.getByText(/loaded from \d+ files/).waitFor({ timeout: 120000 });
  const seconds = (performance.now() - began) / 1000;
  // every curve in a track of its own, however narrow
  await page.keyboard.press('l');
  await page.getByRole('button', { name: 'Take all, west to east' }).click();
  await page.waitForTimeout(800);
  await page.evaluate(
    (curves) => {
      const key = `lithagon-desk-${new URLSearchParams(location.search).get('project')}`;
      const change = () => {
        const desk = JSON.parse(localStorage.getItem(key));
        desk.logs.tracks = curves.map((name) => ({ id: name, title: name, width: 40, curves: [name] }));
        desk.logs.window = null;
        localStorage.setItem(key, JSON.stringify(desk));
      };
      // the page writes its own desk as it goes
      addEventListener('pagehide', change);
    },
    CURVES.map((c) => c[2]),
  );
  await page.reload();
  const canvas = page.getByTestId('logs-canvas');
  await canvas.waitFor();
  await page.waitForTimeout(3000);
  const scroll = () =>
    page.evaluate(async () => {
      const target = document.querySelector('[data-testid="logs-canvas"]');
      const frames = [];
      const draws = [];
      let last = await new Promise(requestAnimationFrame);
      for (let n = 0; n < 60; n++) {
        target.dispatchEvent(
          new WheelEvent('wheel', { deltaY: n % 20 < 10 ? 40 : -40, bubbles: true, cancelable: true }),
        );
        const now = await new Promise(requestAnimationFrame);
        frames.push(now - last);
        draws.push(Number(target.dataset.drawMs));
        last = now;
      }
      return { frames, draws };
    });
  await scroll();
  const { frames, draws } = await scroll();
  await browser.close();
  const what = `${WELLS} wells of ${CURVES.length} curves of ${SAMPLES.toLocaleString('en').replace(',', ' ')} samples`;
  return [
    {
      what: `${what} loaded from LAS`,
      value: (WELLS * CURVES.length * SAMPLES) / 1e6 / seconds,
      unit: 'million values/s',
    },
    { what: `${what} scrolled, frame, median of 60`, value: median(frames), unit: 'ms' },
    { what: `${what} scrolled, frame, slowest of 60`, value: slowest(frames), unit: 'ms' },
    { what: `${what}, drawn, median of 60`, value: median(draws), unit: 'ms' },
  ];
}
