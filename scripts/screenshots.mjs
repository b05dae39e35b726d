// npm run screenshots: pictures of the main views from the demo data, 1280×800, into docs/screenshots/.
// Needs the demo to be served (npm run demo, in another terminal); `-- --structure` takes only those of faults and ages, `-- --inversion` those of inversion,
// `-- --depth` those of depth.
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { depthPictures } from './screenshots/depth.mjs';
import { inversionPictures } from './screenshots/inversion.mjs';
import { structurePictures } from './screenshots/structure.mjs';
import { chromium as browserPath, root } from './setup.mjs';

const address = process.env.ADDRESS ?? 'http://127.0.0.1:4173';
const browser = await chromium.launch({
  executablePath: browserPath(),
  args: ['--no-sandbox', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' });
const keep = (name) => page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
const settle = () => page.waitForTimeout(2500);
/** Take a view to time or to depth, in its menu. */
async function take(view, domain) {
  await page.getByRole('button', { name: `Settings of the ${view}` }).click();
  await page.getByRole('dialog').getByRole('radio', { name: domain }).click();
  await page.keyboard.press('Escape');
}

for (const [option, pictures] of [
  ['--structure', structurePictures],
  ['--inversion', inversionPictures],
  ['--depth', depthPictures],
])
  if (process.argv.includes(option)) {
    await pictures({ page, address, keep, settle });
    await browser.close();
    process.exit(0);
  }

await page.goto(address);
await page.getByRole('button', { name: /Open Quillon worked up/ }).waitFor();
await page.waitForTimeout(500);
await keep('start');
await page.getByRole('button', { name: /Open Quillon worked up/ }).click();
await page.getByTestId('section-raster').waitFor();
await settle();
await page.mouse.move(600, 470);
await page.waitForTimeout(400);
await keep('desk');
await page.getByRole('button', { name: /^Attributes ?: / }).click();
await page.getByRole('button', { name: /^Waveform classes Parts/ }).click();
await page.getByRole('button', { name: 'Run', exact: true }).click();
await page.getByRole('button', { name: /^Waveform classes of Full stack/ }).waitFor();
await page.getByRole('button', { name: /^Coherence How alike/ }).click();
await page.getByRole('button', { name: 'Try on this line' }).click();
await settle();
await page.getByRole('button', { name: 'Back to the seismic' }).click();
await page
  .getByRole('button', { name: /^Variance variance/ })
  .first()
  .click();
await settle();
await page.getByRole('button', { name: 'Close', exact: true }).click();
// frequencies of the reservoir: a band that is dragged, then three of them blended on its top
await page.getByRole('button', { name: 'Close the tray' }).click();
await page.getByLabel('What the map shows').selectOption({ label: 'Tolven Top' });
await page.keyboard.press('f');
await page.getByTestId('spectrum-chart').waitFor({ timeout: 60000 });
const chart = await page.getByTestId('spectrum-chart').boundingBox();
await page.mouse.move(chart.x + 0.3 * chart.width, chart.y + 60);
await page.mouse.down();
await page.mouse.move(chart.x + 0.42 * chart.width, chart.y + 60, { steps: 8 });
await page.mouse.up();
await settle();
const seismic = await page.getByTestId('section-raster').boundingBox();
await page.mouse.move(seismic.x + 0.4 * seismic.width, seismic.y + 0.58 * seismic.height);
await page.waitForTimeout(900);
await keep('spectrum');
await page.getByLabel('Of what').selectOption('horizon');
await settle();
await page.getByRole('button', { name: 'Blend', exact: true }).click();
await page.getByTestId('blend-legend').waitFor({ timeout: 120000 });
await page.getByRole('button', { name: 'Close Spectrum' }).click();
await page.getByRole('tab', { name: 'Map' }).dblclick();
await settle();
await page.mouse.move(620, 430);
await page.waitForTimeout(900);
await page.getByRole('tab', { name: 'Map' }).dblclick();
await page.getByRole('button', { name: 'Close', exact: true }).click();
await page.getByRole('button', { name: /^Interpret ?: / }).click();
await page.getByLabel('What the map shows').selectOption({ label: 'Tolven Top' });
await settle();
await page.getByRole('button', { name: 'Pick a horizon', exact: true }).click();
await page.getByLabel('Name').fill('Tolven Top picks');
await page.getByLabel('Name').press('Enter');
// beside the tied well's top, where its own mark stands
const top = await page
  .locator('svg text')
  .filter({ hasText: /^Tolven Top$/ })
  .last()
  .boundingBox();
await page.mouse.click(top.x - 18, top.y + top.height / 2 - 1);
await page.waitForTimeout(600);
await page.getByRole('button', { name: 'Track from these picks' }).click();
await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Tolven Top by hand');
await page.getByRole('button', { name: 'Run', exact: true }).click();
await page.getByText(/of its bins/).waitFor({ timeout: 30000 });
await page.getByLabel('What the map shows').selectOption({ label: 'Confidence of Tolven Top by hand' });
await settle();
await keep('tracking');
await page.getByRole('button', { name: /^Tie ?: / }).click();
await page.getByRole('button', { name: /^Tie a well/ }).click();
await page.getByText('How good is it?').waitFor();
await settle();
await keep('tie');
await page.getByText('Section', { exact: true }).first().click();
await page.getByRole('button', { name: 'Close', exact: true }).click();
for (const view of ['section', 'map', 'scene']) await take(view, 'Depth');
await page.getByRole('button', { name: /^Depth ?: / }).click();
await page.getByRole('button', { name: /^Volumes ?: / }).click();
await page.getByRole('button', { name: /^Crest volumes/ }).click();
await page.getByLabel('What the map shows').selectOption({ label: 'Hydrocarbon thickness of Tolven Top in depth' });
await settle();
await keep('volumes');
for (const view of ['section', 'map', 'scene']) await take(view, 'TWT');
await page.getByLabel('What the map shows').selectOption({ label: 'Tolven Top' });
await page.getByRole('button', { name: 'Close', exact: true }).click();
await page.getByRole('button', { name: 'Dark theme' }).click();
await page.getByRole('button', { name: /^Data ?: / }).click();
await settle();
await page.getByRole('button', { name: 'Light theme' }).click();
await page.getByRole('button', { name: 'Settings of the map' }).click();
await page.getByRole('button', { name: 'Save a picture of the map' }).click();
const [picture] = await Promise.all([
  page.waitForEvent('download'),
  page.getByRole('dialog', { name: 'Save a picture' }).getByRole('button', { name: 'Save' }).click(),
]);
await picture.saveAs(join(root, 'docs/screenshots/map.png'));
await page.getByRole('button', { name: 'Catalogue of all objects' }).click();
await settle();
await keep('catalogue');
// wells side by side, with a marker correlated from one of them
await page.keyboard.press('l');
await page.getByRole('button', { name: 'Take all, west to east' }).click();
await settle();
await page.getByRole('button', { name: 'Order the rocks' }).click();
await page.getByRole('button', { name: 'Close', exact: true }).first().click();
await page.getByRole('button', { name: 'Close the tray' }).click();
await page.getByLabel('Hang on').selectOption('Tolven Top');
await settle();
const panel = await page.getByTestId('logs-canvas').boundingBox();
const star = await page.getByLabel('Trust the tops of QN-1').boundingBox();
await page.getByRole('button', { name: 'Pick tops' }).click();
await page.getByLabel('Top to pick').fill('Merrow marker');
await page.mouse.click(star.x - 40, panel.y + 0.55 * panel.height);
await page.getByRole('button', { name: 'Pick tops' }).click();
await page.getByLabel('Trust the tops of QN-1').click();
await page.getByRole('button', { name: 'Correlate tops' }).click();
await page.getByRole('region', { name: 'Correlated tops' }).waitFor({ timeout: 60000 });
await settle();
await keep('logs');
await page.getByRole('region', { name: 'Correlated tops' }).getByRole('button', { name: 'Close' }).click();
await page.getByRole('button', { name: /^Wells ?: / }).click();
await page
  .getByRole('button', { name: /^Facies validation/ })
  .first()
  .click();
await page.getByRole('button', { name: 'Close the tray' }).click();
await page.getByLabel('Hang on').selectOption('');
await settle();
await page.getByRole('button', { name: 'Close', exact: true }).first().click();
await page.keyboard.press('x');
await page.getByTestId('crossplot-raster').waitFor();
await settle();
await page.getByLabel('Colour', { exact: true }).selectOption('facies');
await settle();
const plot = await page.getByTestId('crossplot-raster').boundingBox();
const at = (fx, fy) => [plot.x + fx * plot.width, plot.y + fy * plot.height];
await page.mouse.move(...at(0.3, 0.42));
await page.mouse.down();
for (const [fx, fy] of [
  [0.36, 0.66],
  [0.46, 0.6],
  [0.45, 0.45],
  [0.36, 0.36],
  [0.31, 0.4],
])
  await page.mouse.move(...at(fx, fy), { steps: 4 });
await page.mouse.up();
await settle();
await keep('crossplot');
await page.goto(address);
await page.getByRole('button', { name: /Start Quillon from its raw files/ }).click();
const sheet = page.getByRole('dialog', { name: 'Load files' });
await sheet.waitFor({ timeout: 60000 });
await sheet.getByText('still asks').waitFor({ timeout: 60000 });
await page.evaluate(() => {
  document.documentElement.dataset.theme = 'light';
});
await page.waitForTimeout(600);
await keep('load');
await structurePictures({ page, address, keep, settle });
await inversionPictures({ page, address, keep, settle });
await browser.close();
