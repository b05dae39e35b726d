// Trims the EPSG registry to what a project frame needs: code, name, area, unit, bounds, projection; and beside each system
// the name that .prj files have for it and for its datum, as the vendor of that format lists them.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const out = new URL('../generated/crs-table.json', import.meta.url);
const self = readFileSync(new URL(import.meta.url), 'utf8').length;
const stamp = new URL('../generated/crs-table.stamp', import.meta.url);
if (!existsSync(out) || !existsSync(stamp) || readFileSync(stamp, 'utf8') !== String(self)) {
  const { resolve } = createRequire(import.meta.url);
  const read = (name) => JSON.parse(readFileSync(resolve(name), 'utf8'));
  const listed = [
    ...read('@esri/proj-codes/pe_list_projcs.json').ProjectedCoordinateSystems,
    ...read('@esri/proj-codes/pe_list_geogcs.json').GeographicCoordinateSystems,
  ];
  const inFiles = new Map();
  for (const { wkid, latestWkid, name, wkt } of listed) {
    const datum = /DATUM\["D_([^"]+)"/.exec(wkt)?.[1] ?? '';
    for (const code of new Set([wkid, latestWkid])) inFiles.set(code, [name, datum]);
  }
  const rows = Object.values(read('epsg-index/all.json'))
    .filter((c) => /PROJCRS|GEOGCRS|CRS-PROJCRS|CRS-GEOGCRS/.test(c.kind) && c.proj4)
    .map((c) => [
      Number(c.code),
      c.name,
      c.area ?? '',
      c.unit ?? '',
      c.bbox,
      // shifts between datums come from elsewhere, with their area and error
      c.proj4.replace(/\s*\+(towgs84|nadgrids)=("[^"]*"|\S+)/g, ''),
      ...(inFiles.get(Number(c.code)) ?? ['', '']),
    ]);
  mkdirSync(new URL('.', out), { recursive: true });
  writeFileSync(out, JSON.stringify(rows));
  writeFileSync(stamp, String(self));
  console.log(`${rows.length} coordinate reference systems`);
}
