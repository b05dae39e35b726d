import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { boxOf, hand } from './support/hand.ts';
import { difference, openWorkedUp, pictureOf } from './support/workbench.ts';

const form = (page: Page, name: string) => page.getByRole('complementary', { name, exact: true });
const stepNamed = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} [A-Z]`) });

/** What those who read with other means would miss or stumble over. */
async function troubles(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes[0]?.html}`);
}

/** Colours of the map's own canvas, as a few numbers. */
const mapPicture = (page: Page) =>
  page
    .getByTestId('map-raster')
    .first()
    .evaluate((canvas: HTMLCanvasElement) => {
      const data = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
      const out = new Array<number>(24).fill(0);
      for (let n = 0; n < data.length; n += 4)
        for (let c = 0; c < 3; c++) out[3 * Math.floor((8 * n) / data.length) + c] += data[n + c];
      return out.map((v) => v / Math.max(1, data.length / 32));
    });

test('waveform classes are seen on the map while their number moves, and kept', async ({ page }) => {
  await openWorkedUp(page);
  const horizon = await mapPicture(page);
  const person = hand(page);
  await person.click(page.getByRole('button', { name: /^Attributes ?: / }));
  await person.click(stepNamed(page, 'Waveform classes'));
  const sheet = form(page, 'Waveform classes');
  // the window that waveforms are taken from is drawn on the section
  await expect(page.getByTestId('setup-window')).toBeVisible();
  await person.click(sheet.getByRole('button', { name: 'Try on the map' }));
  await expect(page.getByText('class, a trial')).toBeVisible();
  const eight = await mapPicture(page);
  expect(difference(horizon, eight)).toBeGreaterThan(1);
  await sheet.getByRole('slider', { name: 'Classes' }).focus();
  await person.press('Home');
  await expect.poll(async () => difference(eight, await mapPicture(page))).toBeGreaterThan(0.5);
  await person.click(sheet.getByRole('button', { name: 'Run', exact: true }));
  await expect(page.getByRole('button', { name: /^Waveform classes of Full stack/ })).toBeVisible({ timeout: 60_000 });
  // the map that was made is shown, and its centres stand beside it in its colours
  await expect(page.getByLabel('What the map shows')).toContainText('Waveform classes of Full stack');
  const centres = page.getByRole('img', { name: 'Waveforms that 2 classes are centred on' });
  await expect(centres.locator('[data-class]')).toHaveCount(2);
  await expect(page.getByText(/^class, a trial$/)).toBeHidden();
  await expect(page.getByRole('img', { name: 'Variance told, by number of classes' })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Classes' })).toContainText('Class 2');
  expect(person.actions).toBeLessThanOrEqual(10);
  // beside the classes: their match, the second best, the centres and the gains
  for (const name of ['Match of waveform classes', 'Second-best class', 'Class centres', 'Gain of classes'])
    await expect(page.getByRole('button', { name: new RegExp(`^${name} of Full stack`) })).toBeVisible();
});

test('coherence along dip is tried on the line in view, and says why where it cannot', async ({ page }) => {
  await openWorkedUp(page);
  const seismic = await pictureOf(page);
  await page.getByRole('button', { name: /^Attributes ?: / }).click();
  await stepNamed(page, 'Coherence').click();
  await form(page, 'Coherence').getByRole('button', { name: 'Try on this line' }).click();
  await expect.poll(async () => difference(seismic, await pictureOf(page)), { timeout: 30_000 }).toBeGreaterThan(5);
  await form(page, 'Coherence').getByRole('button', { name: 'Close' }).click();
  await expect.poll(async () => difference(seismic, await pictureOf(page))).toBeLessThan(1);
  await stepNamed(page, 'On a horizon').click();
  const sheet = form(page, 'On a horizon');
  await sheet.getByRole('button', { name: 'Try on the map' }).click();
  await expect(page.getByText(/amplitude, .*a trial/)).toBeVisible();
  await sheet.getByLabel('Gives').selectOption('thickness');
  await expect(sheet.getByText('A thickness needs a base.')).toBeVisible();
});

test('three frequencies of a horizon are blended under a shade, and its colours are found in cube and map', async ({
  page,
}) => {
  await openWorkedUp(page);
  const horizon = await mapPicture(page);
  const person = hand(page);
  await person.press('f');
  const view = page.getByRole('region', { name: 'Spectrum' }).last();
  await expect(view.getByTestId('spectrum-chart')).toBeVisible({ timeout: 30_000 });
  await person.choose(view.getByLabel('Of what'), 'horizon');
  await person.choose(view.getByLabel('Horizon'), { label: 'Tolven Top' });
  await expect(view.getByText(/\d Hz$/).first()).toBeVisible();
  await person.click(view.getByRole('button', { name: 'Blend', exact: true }));
  const legend = page.getByTestId('blend-legend');
  await expect(legend).toBeVisible({ timeout: 90_000 });
  expect(person.actions).toBeLessThanOrEqual(15);
  const blended = await mapPicture(page);
  expect(difference(horizon, blended)).toBeGreaterThan(3);
  expect(await troubles(page)).toEqual([]);
  // three maps and a shade are objects of their own
  await expect(page.getByRole('button', { name: /^\d[\d.]* Hz on Tolven Top/ })).toHaveCount(3);
  await expect(page.getByRole('button', { name: /^Least semblance on Tolven Top/ })).toBeVisible();

  // an end that moves draws again, and is one edit that can be taken back
  const sheet = page.locator('aside').last();
  const end = sheet.getByRole('slider', { name: 'Upper end of red' });
  await end.focus();
  await page.keyboard.press('Home');
  await expect.poll(async () => difference(blended, await mapPicture(page))).toBeGreaterThan(0.4);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => difference(blended, await mapPicture(page))).toBeLessThan(0.2);
  await sheet.getByRole('button', { name: 'Turn blue round' }).click();
  await expect.poll(async () => difference(blended, await mapPicture(page))).toBeGreaterThan(0.4);
  await sheet.getByLabel('Colours').selectOption('blue, grey, amber');
  await expect(legend.locator('[data-of="safe-0"]')).toHaveCount(1);

  // a colour of the cube is lit where it lies, and what the pointer is at is marked in the cube
  const all = await mapPicture(page);
  await legend.getByRole('button', { name: /^Colour cube/ }).click({ position: { x: 44, y: 60 } });
  await expect.poll(async () => difference(all, await mapPicture(page))).toBeGreaterThan(0.4);
  await legend.getByRole('button', { name: 'Light all' }).click();
  await expect.poll(async () => difference(all, await mapPicture(page))).toBeLessThan(0.2);
  const map = await boxOf(page.getByTestId('map-raster').first());
  const marks = legend.locator('circle');
  const before = await marks.count();
  await page.mouse.move(map.x + 0.45 * map.width, map.y + 0.6 * map.height);
  await expect(marks).toHaveCount(before + 1);
});

test('a band that is dragged on the spectrum is tried on the section, with its smear at the pointer', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.keyboard.press('f');
  const chart = page.getByTestId('spectrum-chart');
  await expect(chart).toBeVisible({ timeout: 30_000 });
  const seismic = await pictureOf(page);
  const box = await boxOf(chart);
  const last = Number(await chart.getAttribute('data-last'));
  const at = (hz: number): [number, number] => [box.x + 48 + (hz / last) * (box.width - 62), box.y + 60];
  await hand(page).drag(at(20), at(32));
  await expect(page.getByText(/smears a thin bed over \d+ ms/)).toBeVisible();
  await expect.poll(async () => difference(seismic, await pictureOf(page)), { timeout: 30_000 }).toBeGreaterThan(5);
  const low = await pictureOf(page);
  // the whole band moves when it is dragged by its middle; the sheet has opened, and the chart is narrower now
  const now = await boxOf(chart);
  const x = (hz: number): [number, number] => [now.x + 48 + (hz / last) * (now.width - 62), now.y + 60];
  await hand(page).drag(x(26), x(60));
  await expect.poll(async () => difference(low, await pictureOf(page)), { timeout: 30_000 }).toBeGreaterThan(3);
  const hz = Number(
    await form(page, 'Frequencies').getByRole('slider', { name: 'Frequency' }).getAttribute('aria-valuenow'),
  );
  expect(Math.abs(hz - 60)).toBeLessThan(3);
  const section = await boxOf(page.getByTestId('section-raster'));
  await page.mouse.move(section.x + 0.4 * section.width, section.y + 0.5 * section.height);
  const smear = page.getByTestId('smear');
  await expect(smear).toBeVisible();
  const wide = Number(await smear.getAttribute('data-ms'));
  await expect(smear).toContainText(/\d+ ms · \d+ m/);
  // a narrower band smears more
  const edge = page.getByRole('slider', { name: 'Band ends' });
  await edge.focus();
  for (let n = 0; n < 8; n++) await page.keyboard.press('ArrowLeft');
  await page.mouse.move(section.x + 0.42 * section.width, section.y + 0.5 * section.height);
  await expect.poll(async () => Number(await smear.getAttribute('data-ms'))).toBeGreaterThan(1.1 * wide);
  await expect(page.getByTestId('gather-raster')).toBeVisible();
  expect(await troubles(page)).toEqual([]);
});

test('a blend of live volumes lies over the section and colours planes of the scene, and is of one domain', async ({
  page,
}) => {
  await openWorkedUp(page);
  await page.getByRole('button', { name: /^Attributes ?: / }).click();
  for (const hz of [15, 30, 50]) {
    await stepNamed(page, 'Frequencies').click();
    const sheet = form(page, 'Frequencies');
    const typed = sheet.locator('input').first();
    await typed.fill(String(hz));
    await typed.press('Enter');
    await sheet.getByLabel('Name').fill(`At ${hz}`);
    await sheet.getByRole('button', { name: 'Keep live' }).click();
    await expect(page.getByRole('button', { name: new RegExp(`^At ${hz} `) })).toBeVisible();
  }
  const scene = page.getByTestId('scene-canvas');
  await expect(scene).toBeVisible();
  await stepNamed(page, 'Colour blend').click();
  const blend = form(page, 'Colour blend');
  for (const [role, label] of [
    ['First', 'At 15'],
    ['Second', 'At 30'],
    ['Third', 'At 50'],
  ])
    await blend.getByLabel(role).selectOption({ label });
  await blend.getByRole('button', { name: 'Run' }).click();
  await expect(page.getByTestId('blend-raster')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId('blend-legend').first()).toBeVisible();
  const colours = (canvas: HTMLCanvasElement) => {
    const data = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
    let [strong, all] = [0, 0];
    // the part of the picture that is neither grey nor of one hue's brightness
    for (let n = 0; n < data.length; n += 4) {
      if (data[n + 3] === 0) continue;
      all++;
      if (data[n + 1] > data[n] + 24 || data[n + 2] > data[n] + 40) strong++;
    }
    return strong / Math.max(1, all);
  };
  expect(await page.getByTestId('blend-raster').evaluate(colours)).toBeGreaterThan(0.1);
  expect(await troubles(page)).toEqual([]);
  const plain = await scene.evaluate(colours);
  await page.getByRole('button', { name: 'Settings of the scene' }).click();
  await page.getByLabel('Planes of the scene show').selectOption({ label: 'Blend of At 15' });
  await expect.poll(() => scene.evaluate(colours), { timeout: 30_000 }).toBeGreaterThan(plain + 0.02);
});

test('a body comes of three frequencies by a class with a limited third axis, seen in the views while it is drawn', async ({
  page,
}) => {
  await openWorkedUp(page);
  const person = hand(page);
  await person.press('f');
  await expect(page.getByTestId('spectrum-chart')).toBeVisible({ timeout: 30_000 });
  await person.click(page.getByRole('button', { name: 'As volumes' }));
  await expect(page.getByText(/are among the attributes, as live volumes/)).toBeVisible({ timeout: 60_000 });
  await person.press('x');
  const plot = page.getByRole('region', { name: 'Crossplot' }).last();
  await person.choose(plot.getByLabel('Points from'), 'Volumes');
  const names = await plot.getByLabel('Across').locator('option').allInnerTexts();
  const three = names.filter((n) => / Hz of Full stack/.test(n));
  expect(three.length).toBe(3);
  await person.choose(plot.getByLabel('Across'), { label: three[0] });
  await person.choose(plot.getByLabel('Up'), { label: three[1] });
  await person.choose(plot.getByLabel('Limit by'), { label: three[2] });
  await expect(plot.getByText(new RegExp(`^${three[0].replace('.', '\\.')} against .* points$`))).toBeVisible({
    timeout: 90_000,
  });
  const raster = page.getByTestId('crossplot-raster');
  await expect(raster).toHaveAttribute('data-took-ms', /\d/, { timeout: 30_000 });
  const box = await boxOf(raster);
  const at = (fx: number, fy: number): [number, number] => [box.x + fx * box.width, box.y + fy * box.height];
  await page.mouse.move(...at(0.3, 0.05));
  await page.mouse.down();
  for (const [fx, fy] of [
    [0.97, 0.05],
    [0.97, 0.9],
    [0.3, 0.9],
  ])
    await page.mouse.move(...at(fx, fy), { steps: 4 });
  await page.mouse.up();
  const selected = async () => Number((await plot.getByText(/points selected/).innerText()).replace(/\D/g, ''));
  await expect.poll(selected, { timeout: 30_000 }).toBeGreaterThan(0);
  const all = await selected();
  // what is drawn is lit on the map and on planes of the scene
  const scene = page.getByTestId('scene-canvas');
  const lit = await scene.getAttribute('data-view');
  // the third axis takes part of them out
  const least = plot.getByRole('slider', { name: /^Least / });
  await least.focus();
  for (let n = 0; n < 6; n++) await page.keyboard.press('PageUp');
  await expect.poll(selected, { timeout: 30_000 }).toBeLessThan(all);
  await expect.poll(() => scene.getAttribute('data-view')).not.toBe(lit);
  // the ring and the limit were drawn by hand
  const ringAndLimit = 2;
  await person.click(plot.getByRole('button', { name: 'Keep as a class' }));
  await person.click(plot.getByRole('button', { name: 'Give samples their class' }));
  await expect(page.getByRole('button', { name: /^Class of / }).first()).toBeVisible({ timeout: 60_000 });
  await person.click(stepNamed(page, 'Bodies'));
  await person.click(form(page, 'Bodies').getByRole('button', { name: /^Run on the volume/ }));
  await expect(page.getByRole('heading', { name: 'The largest' })).toBeVisible({ timeout: 90_000 });
  expect(person.actions + ringAndLimit).toBeLessThanOrEqual(14);
  // its footprint is on the map, and what a section cuts of it on the section
  await expect(page.getByTestId('bodies-map').locator('[data-body="1"]')).toHaveCount(1);
  await expect(page.locator('tr[data-body="1"]')).toContainText(/\d/);

  expect(await troubles(page)).toEqual([]);

  // a brush takes a part out, and the run that lays it on again keeps it
  const volume = page.locator('tr[data-body="1"] td').nth(1);
  const before = Number(await volume.innerText());
  await page.getByRole('button', { name: 'Change…' }).click();
  const again = form(page, 'Bodies');
  await again.getByRole('button', { name: 'Take out' }).click();
  const cut = await boxOf(page.getByTestId('bodies-section').locator('[data-body="1"] path').last());
  const middle = cut.y + cut.height / 2;
  await page.mouse.move(cut.x + 0.1 * cut.width, middle);
  await page.mouse.down();
  await expect(page.getByTestId('body-brush')).toBeVisible();
  await page.mouse.move(cut.x + 0.9 * cut.width, middle, { steps: 30 });
  await page.mouse.up();
  await expect(again.getByText(/\d+ touches/)).toBeVisible();
  await again.getByRole('button', { name: /^Run/ }).click();
  await expect.poll(async () => Number(await volume.innerText()), { timeout: 60_000 }).not.toBe(before);
});
