import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { makeNetcdf, makeShp } from '../packages/core/src/testing/rasters.ts';
import { DEMO } from './support/data.ts';
import { drop, newProject } from './support/workbench.ts';

/** The demo field's volume with places of its trace headers overwritten. */
function volume(change: (view: DataView, at: number, n: number) => void): Buffer {
  const bytes = Buffer.from(new Uint8Array(readFileSync(join(DEMO, 'files/quillon-full.sgy'))));
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const trace = 240 + 4 * view.getInt16(3220);
  for (let n = 0, at = 3600; at < bytes.length; at += trace, n++) change(view, at, n);
  return bytes;
}
const without = volume((view, at) => {
  for (const byte of [72, 76, 80, 84, 180, 184]) view.setInt32(at + byte, 0);
});
const gathers = volume((view, at, n) => {
  view.setInt32(at + 36, 100 * (n % 5));
  for (const byte of [20, 188, 192]) view.setInt32(at + byte, Math.floor(n / 5));
});

test('what others send is named, asked about or refused with a remedy, and nothing is taken silently', async ({
  page,
}) => {
  await newProject(page);
  await drop(page, ['gathers.sgy', 'names.bin', 'stations.geojson', 'leads.csv'], {
    'gathers.sgy': gathers,
    'names.bin': Buffer.from([0x1f, 0x8b, 8, 0, ...new Array(4000).fill(77)]),
    'stations.geojson': JSON.stringify({
      type: 'FeatureCollection',
      features: [
        { type: 'Feature', properties: { name: 'S1' }, geometry: { type: 'Point', coordinates: [57, -21.2] } },
      ],
    }),
    'leads.csv': 'name,x,y\nA,499100,7650100\nB,499200,7650200\n',
  });
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByText('gathers.sgy', { exact: true }).click();
  await expect(
    sheet.getByText(/holds gathers of about 5 traces with offsets from 0 to 400: its traces are not stacked/),
  ).toBeVisible();
  await expect(sheet.getByText(/Stack them, or write each range of offsets/)).toBeVisible();
  await sheet.getByText('names.bin', { exact: true }).click();
  await expect(sheet.getByText(/is a gzip file, which is not read/)).toBeVisible();
  await sheet.getByText('stations.geojson', { exact: true }).click();
  await expect(sheet.getByText('The project is to be in', { exact: false }).first()).toBeVisible();
  await expect(sheet.getByText(/longitude and latitude \(WGS 84\), and the project has no system yet/)).toBeVisible();
  await sheet.getByText('leads.csv', { exact: true }).click();
  await expect(sheet.getByText('Points', { exact: true }).first()).toBeVisible();
});

test('a volume without coordinates lies on a grid of its own until it is placed as another', async ({ page }) => {
  await newProject(page);
  const declare = async () => {
    const sheet = page.getByRole('dialog', { name: 'Load files' });
    await sheet.getByRole('radio', { name: 'Two-way time' }).click();
    await sheet.getByRole('button', { name: 'Yes, amplitude' }).click();
    return sheet;
  };
  await drop(page, ['quillon-full.sgy']);
  await (await declare()).getByRole('button', { name: 'Load 1 file' }).click();
  await expect(page.getByText(/loaded from 1 file/)).toBeVisible({ timeout: 60_000 });
  await drop(page, ['nameless.sgy'], { 'nameless.sgy': without });
  const sheet = await declare();
  await expect(sheet.getByText(/It has no coordinates: it lies on a grid of its own/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  await expect(page.getByText(/loaded from 1 file/).last()).toBeVisible({ timeout: 60_000 });
  await page
    .getByRole('button', { name: /^nameless/ })
    .first()
    .click();
  await expect(page.getByText('not on the map yet: a grid of its own')).toBeVisible();
  await page.getByLabel('Line numbers are those of').selectOption({ label: 'quillon-full' });
  await expect(page.getByText('not on the map yet: a grid of its own')).toHaveCount(0);
  await page.screenshot({ path: 'test-results/foreign-placed.png' });
  await expect(page.getByText('Place it on the map')).toHaveCount(0);
});

test('a netCDF grid and a shapefile of points are loaded and shown', async ({ page }) => {
  await newProject(page);
  const axis = (name: string, first: number, step: number, count: number) => ({
    name,
    dimensions: [name],
    type: 'double' as const,
    values: Array.from({ length: count }, (_, n) => first + n * step),
  });
  const values = Array.from({ length: 30 * 40 }, (_, n) => 1500 + 50 * Math.sin(n / 60) + (n % 40));
  const grid = makeNetcdf(
    [
      ['x', 40],
      ['y', 30],
    ],
    [
      axis('x', 499_000, 50, 40),
      axis('y', 7_652_000, -50, 30),
      { name: 'depth', dimensions: ['y', 'x'], type: 'float', values, attributes: { units: 'm' } },
    ],
  );
  await drop(page, ['top.nc', 'stations.shp'], {
    'top.nc': Buffer.from(grid),
    'stations.shp': Buffer.from(makeShp(1, [[[499_400, 7_651_000]], [[500_200, 7_651_600]], [[500_700, 7_650_700]]])),
  });
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByText('top.nc', { exact: true }).click();
  await expect(sheet.getByText(/The file says “m”/)).toBeVisible();
  await sheet.getByRole('radio', { name: 'depth', exact: true }).click();
  await sheet.getByRole('button', { name: 'Yes, m' }).click();
  await sheet.getByRole('button', { name: 'Yes, downwards' }).click();
  await sheet.getByRole('button', { name: 'Load 2 files' }).click();
  await expect(page.getByText(/loaded from 2 files/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('button', { name: /Stations/ }).first()).toBeVisible();
  await page.screenshot({ path: 'test-results/foreign-map.png' });
});
