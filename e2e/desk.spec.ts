import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { difference, openWorkedUp, pictureOf } from './support/workbench.ts';

test('display changes redraw and compute nothing', async ({ page }) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: /^Full stack/ }).click();
  const before = await pictureOf(page);
  const plane = await page.getByTestId('section-raster').getAttribute('data-plane');
  await page.getByLabel('Colour map').selectOption('ink');
  await expect.poll(async () => difference(before, await pictureOf(page))).toBeGreaterThan(5);
  const ink = await pictureOf(page);
  await page.getByRole('checkbox', { name: 'Reverse colours' }).check();
  await expect.poll(async () => difference(ink, await pictureOf(page))).toBeGreaterThan(1);
  await page.getByRole('slider', { name: 'Gain' }).focus();
  for (let n = 0; n < 12; n++) await page.keyboard.press('ArrowRight');
  await expect(page.getByText('× 2.30')).toBeVisible();
  // the same samples are shown throughout
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', plane ?? '');
});

test('the processor and the graphics card draw the same sections and maps, and the choice is kept', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.getByLabel('What the map shows').selectOption('slice');
  await expect(page.getByTestId('map-raster')).toHaveAttribute('data-plane', /slice/);
  const pixels = async () => {
    const texts = await page.evaluate(() =>
      ['section-raster', 'map-raster'].map((id) => {
        const canvas = document.querySelector<HTMLCanvasElement>(`[data-testid="${id}"]`);
        const context = canvas?.getContext('2d');
        if (!canvas || !context) return '';
        const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
        let text = '';
        for (let n = 0; n < data.length; n += 8192) text += String.fromCharCode(...data.subarray(n, n + 8192));
        return btoa(text);
      }),
    );
    return texts.map((text) => Buffer.from(text, 'base64'));
  };
  const first = await pixels();
  const now = async () => {
    await page.keyboard.press('Control+k');
    await page.getByPlaceholder('Find an object or action').last().fill('Draw sections and maps with');
    const option = page.getByRole('option', { name: /^Draw sections and maps with/ });
    const text = (await option.innerText()).trim();
    return { option, text };
  };
  const before = await now();
  await before.option.click();
  const raster = page.getByTestId('section-raster');
  await expect.poll(() => page.evaluate(() => localStorage.getItem('lithagon-drawing'))).not.toBeNull();
  await expect(raster).toBeVisible();
  await page.waitForFunction(
    () => Number(document.querySelector<HTMLElement>('[data-testid="map-raster"]')?.dataset.drawMs) > 0,
  );
  const second = await pixels();
  for (const [n, a] of first.entries()) {
    const b = second[n];
    expect(b).toHaveLength(a.length);
    let [apart, shown, far] = [0, 0, 0];
    for (let p = 0; p < a.length; p += 4) {
      // a bin's width of antialiasing lies round a turned grid
      if (a[p + 3] !== 255 || b[p + 3] !== 255) continue;
      shown++;
      const most = Math.max(...[0, 1, 2].map((c) => Math.abs(a[p + c] - b[p + c])));
      apart += most;
      if (most > 12) far++;
    }
    expect(shown).toBeGreaterThan(20_000);
    expect(apart / shown).toBeLessThan(2);
    expect(far / shown).toBeLessThan(0.005);
  }
  await page.reload();
  await expect(raster).toHaveAttribute('data-plane', /inline/, { timeout: 60_000 });
  expect((await now()).text).not.toBe(before.text);
});

test('variance is tried on the line while its window changes, then run for the volume, and its trail is shown', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: /^Attributes ?: / }).click();
  await page.getByRole('button', { name: /^Variance Lateral change/ }).click();
  const sheet = page.getByRole('complementary', { name: 'Variance' });
  await expect(sheet.getByRole('button', { name: /Run on the volume · about \d+ s/ })).toBeVisible();
  const seismic = await pictureOf(page);
  await sheet.getByRole('button', { name: 'Try on this line' }).click();
  await expect(page.getByText('live', { exact: true })).toBeVisible();
  await expect.poll(async () => difference(seismic, await pictureOf(page))).toBeGreaterThan(5);
  const short = await pictureOf(page);
  await sheet.getByRole('slider', { name: 'Window' }).focus();
  for (let n = 0; n < 15; n++) await page.keyboard.press('ArrowRight');
  await expect(sheet.getByLabel('Window, typed')).toHaveValue('96');
  await expect.poll(async () => difference(short, await pictureOf(page))).toBeGreaterThan(1);
  const trial = await pictureOf(page);
  await sheet.getByRole('button', { name: /Run on the volume/ }).click();
  await expect(page.getByRole('heading', { name: 'Trail' })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('Window 96 ms · Radius 1 traces')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Full stack', exact: true })).toBeVisible();
  // what was stored is what was tried, apart from where its colours end
  await expect.poll(async () => difference(trial, await pictureOf(page))).toBeLessThan(difference(trial, seismic));
});

test('a volume that is kept live takes no space, is looked at like any other, and is stored later in its place', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: /^Attributes ?: / }).click();
  await page.getByRole('button', { name: /^Variance Lateral change/ }).click();
  const seismic = await pictureOf(page);
  const form = page.getByRole('complementary', { name: 'Variance' });
  await form.getByRole('textbox', { name: 'Name' }).fill('Edges');
  await form.getByRole('button', { name: 'Keep live' }).click();
  const sheet = page.getByRole('complementary', { name: 'Edges' });
  await expect(sheet.getByText(/^live: worked out where it is looked at/)).toBeVisible({ timeout: 60_000 });
  await expect.poll(async () => difference(seismic, await pictureOf(page))).toBeGreaterThan(5);
  const live = await pictureOf(page);
  await sheet.getByRole('button', { name: 'Store' }).click();
  await expect(sheet.getByText(/^live: worked out/)).toBeHidden({ timeout: 60_000 });
  await expect(page.getByRole('button', { name: 'Edges', exact: false }).first()).toBeVisible();
  // the colours end where those of all samples do now, and not of a few lines
  await expect.poll(async () => difference(live, await pictureOf(page))).toBeLessThan(difference(live, seismic) / 3);
});

test('a renamed well keeps its tops and times, after a reload too', async ({ page }) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: /^Wells ?: / }).click();
  await page
    .getByRole('button', { name: /^QN-1 oil/ })
    .first()
    .click();
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await name.fill('Fell-1');
  await name.press('Enter');
  await expect(page.getByRole('button', { name: /^Fell-1 oil/ }).first()).toBeVisible();
  await page.reload();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 90_000 });
  const tops = page.getByRole('button', { name: /^QN-1 tops/ }).first();
  await page.getByRole('button', { name: /^What Fell-1 has/ }).click();
  await tops.click();
  const sheet = page.getByRole('complementary', { name: 'QN-1 tops' });
  await expect(sheet.getByText('Fell-1', { exact: true })).toBeVisible();
  await expect(sheet.getByText(/^Waits for/)).toHaveCount(0);
  await expect(page.getByText('out of date', { exact: true })).toHaveCount(0);
});

test('time and depth switch per view; what cannot be shown is listed with its reason', async ({ page }) => {
  await openWorkedUp(page);
  const map = page.getByRole('region', { name: 'Map' });
  await map.getByRole('button', { name: /^\d+ objects not shown in TWT: why$/ }).click();
  await expect(page.getByText(/Sea Bed is in depth; convert it, or switch this view/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Settings of the map' }).click();
  await page.getByRole('dialog').getByRole('radio', { name: 'Depth' }).click();
  await page.keyboard.press('Escape');
  await map.getByLabel('What the map shows').selectOption({ label: 'Sea Bed' });
  await expect(map.getByText(/Depth \(m\), every/)).toBeVisible();
  const section = page.getByRole('region', { name: 'Section' });
  await expect(section.getByRole('radio', { name: 'TWT' })).toBeChecked();
  await section.getByRole('radio', { name: 'Depth' }).click();
  // the seismic was taken to depth, and stands in for itself there
  await expect(section.getByText('Depth (m)')).toBeVisible();
  await expect(section.getByText(/^Full stack in depth/)).toBeAttached();
});

test('a rename is undone and redone by name, also after a reload, and makes nothing out of date', async ({ page }) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: /^Full stack/ }).click();
  const name = page.getByRole('textbox', { name: 'Name' });
  await name.fill('Full stack, final');
  await name.press('Enter');
  await expect(page.getByRole('button', { name: /^Full stack, final/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Attributes ?: 1 object$/ })).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Undo: Rename Full stack to Full stack, final' }).click();
  await expect(page.getByRole('button', { name: /^Full stack amplitude/ })).toBeVisible();
  await page.getByRole('button', { name: 'Redo: Rename Full stack to Full stack, final' }).click();
  await expect(page.getByRole('button', { name: /^Full stack, final/ })).toBeVisible();
});

test('planes are dragged in the scene, and the section follows', async ({ page }) => {
  await openWorkedUp(page);
  const scene = await page.getByTestId('scene-canvas').boundingBox();
  if (!scene) throw new Error('the scene has no size');
  const trace = await page.getByTestId('section-trace').getAttribute('d');
  await page.mouse.move(scene.x + scene.width * 0.4, scene.y + scene.height * 0.4);
  await page.mouse.down();
  await page.mouse.move(scene.x + scene.width * 0.4 + 40, scene.y + scene.height * 0.4 + 30, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByTestId('section-trace')).not.toHaveAttribute('d', trace ?? '');
});

test('the keyboard reaches the work: palette, keys, lines', async ({ page }) => {
  await openWorkedUp(page);
  const number = page.getByLabel('Line number');
  const first = Number(await number.inputValue());
  await page.keyboard.press('.');
  await expect(number).toHaveValue(String(first + 1));
  await page.keyboard.press('Shift+>');
  await expect(number).toHaveValue(String(first + 11));
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('Find an object or action').fill('Osmund');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary', { name: 'Osmund Fault' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
});

test('lines are stepped by a chosen number with wheel and arrows, and a section says its scale', async ({ page }) => {
  await openWorkedUp(page);
  const number = page.getByLabel('Line number');
  const first = Number(await number.inputValue());
  await page.getByRole('button', { name: 'Settings of the section' }).click();
  await page.getByLabel('Step by this many lines').fill('5');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Next line' }).click();
  await expect(number).toHaveValue(String(first + 5));
  await page.getByTestId('section-raster').hover();
  await page.mouse.wheel(0, -100);
  await expect(number).toHaveValue(String(first));
  const scale = async () =>
    Number((await page.getByTestId('section-scale').innerText()).match(/^1 : ([\d\s]+)/)?.[1].replace(/\s/g, ''));
  const whole = await scale();
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -300);
  await page.keyboard.up('Control');
  await expect.poll(scale).toBeLessThan(whole);
});

for (const scheme of ['light', 'dark'] as const)
  test(`nothing serious for those who read with other means (${scheme})`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme });
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'Lithagon' })).toBeVisible();
    const look = async () => {
      const { violations } = await new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).analyze();
      return violations
        .filter((v) => v.impact === 'serious' || v.impact === 'critical')
        .map((v) => `${v.id}: ${v.nodes[0]?.html}`);
    };
    expect(await look()).toEqual([]);
    await openWorkedUp(page);
    await page.getByRole('button', { name: /^Full stack/ }).click();
    expect(await look()).toEqual([]);
    await page.getByRole('button', { name: /^Interpret ?: / }).click();
    await page.getByRole('button', { name: 'Pick a horizon' }).click();
    expect(await look()).toEqual([]);
    await page.getByRole('button', { name: 'Done' }).click();
    await page.getByRole('button', { name: /^Tie ?: / }).click();
    await page.getByRole('button', { name: /^Tie a well/ }).click();
    await expect(page.getByText('How good is it?')).toBeVisible();
    expect(await look()).toEqual([]);
    await page.keyboard.press('Escape');
    await page.keyboard.press('l');
    await page.getByRole('button', { name: 'Take all, west to east' }).click();
    await expect(page.getByTestId('logs-canvas')).toBeVisible();
    expect(await look()).toEqual([]);
    await page.keyboard.press('x');
    await expect(page.getByTestId('crossplot-raster')).toHaveAttribute('data-took-ms', /\d/, { timeout: 60_000 });
    expect(await look()).toEqual([]);
    await page.getByRole('button', { name: 'Catalogue of all objects' }).click();
    await expect(page.getByLabel('Find objects')).toBeVisible();
    expect(await look()).toEqual([]);
    await page.goto('/methods/');
    expect(await look()).toEqual([]);
  });
