import { expect, type Page, test } from '@playwright/test';
import { boxOf, hand, markOf } from './support/hand.ts';
import { lineSegy } from './support/segy.ts';
import { difference, drop, newProject, openWorkedUp, pictureOf } from './support/workbench.ts';

const section = (page: Page) => page.getByRole('region', { name: 'Section', exact: true });

test('two volumes are compared by swipe, in turns and by their difference, in few actions', async ({ page }) => {
  await openWorkedUp(page);
  const person = hand(page);
  await person.click(section(page).getByRole('button', { name: 'Compare with another volume' }));
  await person.choose(page.getByLabel('Full stack with'), { label: 'Far stack' });
  await person.press('Escape');
  const second = page.getByTestId('compared-raster');
  await expect(second).toHaveAttribute('data-plane', /inline/);
  const edge = page.getByRole('slider', { name: 'Edge between Full stack and Far stack' });
  const box = await boxOf(edge);
  const raster = await boxOf(page.getByTestId('section-raster'));
  await person.drag([box.x + 6, box.y + 200], [raster.x + raster.width * 0.25, box.y + 200]);
  await expect(edge).toHaveAttribute('aria-valuenow', '25');
  expect(person.actions).toBeLessThanOrEqual(8);
  // both are of one line, and are not one picture
  const [a, b] = await Promise.all(
    ['section-raster', 'compared-raster'].map((id) => page.getByTestId(id).getAttribute('data-plane')),
  );
  expect(a?.split('/').slice(1)).toEqual(b?.split('/').slice(1));
  expect(a?.split('@')[0]).not.toBe(b?.split('@')[0]);
  // by arrows too
  await edge.press('ArrowRight');
  await expect(edge).toHaveAttribute('aria-valuenow', '27');

  await section(page).getByRole('button', { name: 'Compare with another volume' }).click();
  await page.getByRole('radio', { name: 'Difference' }).click();
  await expect(page.getByTestId('difference-raster')).toBeVisible();
  await page.getByRole('radio', { name: 'Flicker' }).click();
  await page.keyboard.press('Escape');
  for (const name of ['Far stack', 'Full stack'])
    await expect(page.getByRole('status').filter({ hasText: name })).toBeVisible();

  await section(page).getByRole('button', { name: 'Compare with another volume' }).click();
  await page.getByRole('button', { name: 'Side by side instead' }).click();
  const other = page.getByRole('region', { name: 'Section 2' });
  await expect(other.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/);
  await expect(other.getByText('Far stack', { exact: true })).toBeVisible();
  // they move together
  const number = section(page).getByLabel('Line number');
  const first = Number(await number.inputValue());
  await other.getByTestId('section-raster').hover();
  await page.mouse.wheel(0, 120);
  await expect(number).toHaveValue(String(first + 1));
  // and no longer when one of them looks by itself
  await other.getByRole('button', { name: 'Section 2 is linked to group A' }).click();
  await page.getByRole('menuitemradio', { name: /By itself/ }).click();
  await other.getByTestId('section-raster').hover();
  await page.mouse.wheel(0, 120);
  await expect(other.getByLabel('Line number')).toHaveValue(String(first + 2));
  await expect(number).toHaveValue(String(first + 1));
});

test('a section runs along a line through three wells, in few actions', async ({ page }) => {
  await openWorkedUp(page);
  const map = page.getByRole('img', { name: 'Map', exact: true });
  const before = await pictureOf(page);
  const person = hand(page);
  await person.click(page.getByRole('button', { name: 'Draw a line for the section' }));
  const wells = ['QN-1', 'QN-2', 'QN-4'];
  // opening the sheet makes the map narrower
  await expect(page.getByRole('complementary', { name: 'Draw a line for the section' })).toBeVisible();
  for (const name of wells.slice(0, 2)) await person.clickAt(...(await markOf(map, name)));
  const [x, y] = await markOf(map, 'QN-4');
  await page.mouse.dblclick(x, y);
  expect(person.actions + 1).toBeLessThanOrEqual(5);
  await expect(page.getByLabel('Line of the section')).toContainText('Through QN-1, QN-2, QN-4');
  await expect(
    page.getByRole('img', { name: 'Section along a line through QN-1, QN-2, QN-4 of Full stack' }),
  ).toBeVisible();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /along/);
  expect(difference(before, await pictureOf(page))).toBeGreaterThan(2);
  // both wells inside the survey stand on it
  for (const name of ['QN-1', 'QN-2'])
    await expect(section(page).locator('svg text').filter({ hasText: name })).toBeVisible();
  await expect(section(page).getByText('distance (km)')).toBeAttached();
  // it comes back after a reload, and the inlines when they are chosen
  await page.reload();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /along/, { timeout: 60_000 });
  await page.getByLabel('Line of the section').selectOption('inline');
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/);
});

test('a 2D line is picked free-hand and again snapped, in few actions, and both are named and seen to differ', async ({
  page,
}) => {
  await newProject(page);
  const person = hand(page);
  await drop(page, ['QL-07.sgy'], { 'QL-07.sgy': lineSegy([511500, 7644000], [516500, 7645600]) });
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await person.click(sheet.getByRole('radio', { name: 'Two-way time' }));
  await person.click(sheet.getByRole('button', { name: 'Yes, amplitude' }));
  await person.click(sheet.getByRole('button', { name: 'Load 1 file' }));
  // a project of 2D lines alone shows the first of them
  const raster = page.getByTestId('section-raster');
  await expect(raster).toHaveAttribute('data-plane', /line$/, { timeout: 30_000 });
  await person.click(page.getByRole('button', { name: /^Interpret ?: / }));
  await person.click(page.getByRole('button', { name: 'Pick a horizon', exact: true }));
  await person.click(page.getByRole('radio', { name: 'Free-hand' }));
  const box = await boxOf(raster);
  const stroke: [[number, number], [number, number]] = [
    [box.x + 0.2 * box.width, box.y + 0.45 * box.height],
    [box.x + 0.7 * box.width, box.y + 0.4735 * box.height],
  ];
  await person.drag(...stroke);
  await expect(page.getByText(/^\d+ picks so far\.$/)).toBeVisible();
  await expect(page.getByTestId('pick-pointer')).toContainText('free-hand');
  await person.click(page.getByRole('button', { name: 'Pick a horizon', exact: true }));
  await person.drag(...stroke);
  await expect(page.getByTestId('pick-pointer')).toContainText('snapped · trough ± 16 ms');
  await person.click(page.getByRole('button', { name: 'Done' }));
  // dropping the file is one more
  expect(person.actions + 1).toBeLessThanOrEqual(12);

  const curves = section(page).locator('[data-picks]');
  await expect(curves).toHaveCount(2);
  const [free, snapped] = await Promise.all([0, 1].map((n) => curves.nth(n).locator('path').nth(1).getAttribute('d')));
  expect(free).not.toBe(snapped);
  for (const [name, event] of [
    ['Picked horizon', 'free-hand'],
    ['Picked horizon 2', 'trough'],
  ]) {
    await page.getByRole('button', { name: new RegExp(`^${name} \\d+ picks`) }).click();
    await expect(page.getByRole('complementary', { name }).getByText(event, { exact: true })).toBeVisible();
  }
});

test('two places are measured in the section and on the map', async ({ page }) => {
  await openWorkedUp(page);
  await page.keyboard.press('m');
  const sheet = page.getByRole('complementary', { name: 'Measure' });
  await expect(sheet).toBeVisible();
  const raster = await boxOf(page.getByTestId('section-raster'));
  await page.mouse.click(raster.x + 100, raster.y + 150);
  await page.mouse.click(raster.x + 200, raster.y + 250);
  for (const fact of ['Distance', 'Azimuth', 'Interval time', 'Dip', 'Interval velocity'])
    await expect(sheet.getByText(fact, { exact: true })).toBeVisible();
  const map = await boxOf(page.getByRole('img', { name: 'Map', exact: true }));
  await page.mouse.click(map.x + map.width / 2 - 40, map.y + map.height / 2);
  await page.mouse.click(map.x + map.width / 2 + 40, map.y + map.height / 2);
  await expect(sheet.getByText(/^(90|89|91)° \(E\)$/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Done' }).click();
  await expect(sheet).toBeHidden();
});

test('a known sample has the known colour in section, map slice and scene, and its value is read out in each', async ({
  page,
}) => {
  await openWorkedUp(page);
  const map = page.getByRole('region', { name: 'Map', exact: true });
  await map.getByLabel('What the map shows').selectOption({ label: 'Slice of Full stack' });
  await expect(map.getByTestId('map-raster')).toHaveAttribute('data-plane', /slice/);
  const readout = page.getByRole('contentinfo');
  const valueAt = async (x: number, y: number) => {
    await page.mouse.move(x - 3, y);
    await page.mouse.move(x, y);
    const text = await readout.innerText();
    const number = (name: string) =>
      Number(
        new RegExp(`${name}\\s*([−-]?[\\d\u202f.]+)`)
          .exec(text)?.[1]
          ?.replace('−', '-')
          .replace(/\u202f/g, ''),
      );
    return { il: number('IL'), xl: number('XL'), twt: number('TWT'), value: number('Amplitude') };
  };
  /** Colour of a canvas at a place of the page. */
  const colorAt = (id: string, x: number, y: number) =>
    page.getByTestId(id).evaluate(
      (canvas: HTMLCanvasElement, [px, py]) => {
        const box = canvas.getBoundingClientRect();
        const data = canvas
          .getContext('2d')
          ?.getImageData(
            Math.floor(((px - box.left) / box.width) * canvas.width),
            Math.floor(((py - box.top) / box.height) * canvas.height),
            1,
            1,
          ).data;
        return [...(data ?? [])].slice(0, 3);
      },
      [x, y],
    );
  const raster = await boxOf(page.getByTestId('section-raster'));
  // the colour of a value by the ends that the colour bar gives: a ramp of 256 shades, read at the middle of its ends
  const bar = page.getByRole('button', { name: 'Colours of Full stack' }).first();
  const end = Number(
    (await bar.innerText())
      .split('\n')
      .at(-1)
      ?.replace(/\u202f/g, ''),
  );
  expect(end).toBeGreaterThan(100);
  const ramp = await bar
    .locator('div')
    .first()
    .evaluate((e) => {
      const stops = [...getComputedStyle(e).backgroundImage.matchAll(/rgb\((\d+), (\d+), (\d+)\)/g)];
      return stops.map((s) => [Number(s[1]), Number(s[2]), Number(s[3])]);
    });
  const known = (value: number) => {
    const at = Math.max(0, Math.min(1, (value + end) / (2 * end))) * (ramp.length - 1);
    const [a, b] = [ramp[Math.floor(at)], ramp[Math.ceil(at)]];
    return a.map((v, c) => v + (at - Math.floor(at)) * (b[c] - v));
  };
  const apart = (a: number[], b: number[]) => Math.max(...a.map((v, c) => Math.abs(v - b[c])));
  let seen = 0;
  for (const [fx, fy] of [
    [0.3, 0.06],
    [0.5, 0.3],
    [0.62, 0.45],
    [0.8, 0.53],
  ]) {
    const [x, y] = [raster.x + fx * raster.width, raster.y + fy * raster.height];
    const { value } = await valueAt(x, y);
    expect(Number.isFinite(value)).toBe(true);
    // the readout takes the nearest trace and the colour what lies between: within a few shades
    if (apart(await colorAt('section-raster', x, y), known(value)) < 26) seen++;
  }
  expect(seen).toBeGreaterThanOrEqual(3);

  // drawn near, a plane of the scene is no smaller than its samples
  const scene = await boxOf(page.getByTestId('scene-canvas'));
  await page.mouse.move(scene.x + scene.width * 0.5, scene.y + scene.height * 0.3);
  for (let n = 0; n < 16; n++) await page.mouse.wheel(0, -240);
  // it is drawn whole once it stands
  const whole = () => page.getByTestId('scene-canvas').evaluate((c: HTMLCanvasElement) => c.width);
  await expect.poll(whole).toBe(Math.round(scene.width));
  let [alike, met] = [0, 0];
  for (const fy of [0.14, 0.18, 0.22])
    for (const fx of [0.2, 0.3, 0.4, 0.48, 0.75, 0.85]) {
      const [px, py] = [scene.x + fx * scene.width, scene.y + fy * scene.height];
      const { value } = await valueAt(px, py);
      if (!Number.isFinite(value)) continue;
      met++;
      if (apart(await colorAt('scene-canvas', px, py), known(value)) < 40) alike++;
    }
  expect(met).toBeGreaterThan(4);
  expect(alike / met).toBeGreaterThan(0.6);

  // the map's slice at the section's own line gives the value that the section gives there
  const box = await boxOf(map.getByTestId('map-raster'));
  const [mx, my] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.click(mx, my);
  const slice = await valueAt(mx, my);
  expect(apart(await colorAt('map-raster', mx, my), known(slice.value))).toBeLessThan(26);
  const number = section(page).getByLabel('Line number');
  await expect(number).toHaveValue(String(slice.il));
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline\/\d+$/);
  // find the same trace and time in the section by the readout itself
  let [x, y] = [raster.x + raster.width / 2, raster.y + raster.height / 2];
  for (let n = 0; n < 12; n++) {
    const at = await valueAt(x, y);
    x += (slice.xl - at.xl) * (raster.width / 96);
    y += (slice.twt - at.twt) * (raster.height / 1800);
    if (at.xl === slice.xl && Math.abs(at.twt - slice.twt) < 1.2) break;
  }
  const here = await valueAt(x, y);
  expect(here.xl).toBe(slice.xl);
  const perMs = Math.abs((await valueAt(x, y + 2)).value - here.value) / 2 + 60;
  expect(Math.abs(here.value - slice.value)).toBeLessThan(perMs * 3);
});

/** Red of the section's pixels, as many of them at any size of the picture: the mean of each block of the larger. */
const redOf = (page: Page, times: number) =>
  page.getByTestId('section-raster').evaluate((canvas: HTMLCanvasElement, f) => {
    const { data, width, height } = (canvas.getContext('2d') as CanvasRenderingContext2D).getImageData(
      0,
      0,
      canvas.width,
      canvas.height,
    );
    const out: number[] = [];
    for (let y = 0; y < Math.floor(height / f); y += 7)
      for (let x = 0; x < Math.floor(width / f); x += 7) {
        let sum = 0;
        for (let a = 0; a < f; a++) for (let b = 0; b < f; b++) sum += data[4 * ((y * f + a) * width + x * f + b)];
        out.push(sum / (f * f));
      }
    return out;
  }, times);

test('a picture at double size is the same picture', async ({ browser, baseURL }) => {
  const pictures: number[][] = [];
  for (const deviceScaleFactor of [1, 2]) {
    const context = await browser.newContext({
      baseURL,
      viewport: { width: 1280, height: 800 },
      deviceScaleFactor,
      colorScheme: 'light',
    });
    const page = await context.newPage();
    await openWorkedUp(page);
    const raster = page.getByTestId('section-raster');
    await expect(raster).toHaveAttribute('data-draw-ms', /\d/);
    const { width } = await boxOf(raster);
    expect(await raster.evaluate((c: HTMLCanvasElement) => c.width)).toBe(Math.round(width * deviceScaleFactor));
    // once it has come to rest
    let last: number[] = [];
    await expect
      .poll(async () => {
        const before = last;
        last = await redOf(page, deviceScaleFactor);
        return before.length > 0 && difference(before, last);
      })
      .toBe(0);
    pictures.push(last);
    await context.close();
  }
  expect(pictures[1]).toHaveLength(pictures[0].length);
  expect(difference(pictures[0], pictures[1])).toBeLessThan(2);
});
