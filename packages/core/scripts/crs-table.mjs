// Trims the EPSG registry to what a project frame needs: code, name, area, unit, bounds, projection.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const out = new URL('../generated/crs-table.json', import.meta.url);
if (!existsSync(out)) {
  const path = createRequire(import.meta.url).resolve('epsg-index/all.json');
  const all = JSON.parse(readFileSync(path, 'utf8'));
  const rows = Object.values(all)
    .filter((c) => /PROJCRS|GEOGCRS|CRS-PROJCRS|CRS-GEOGCRS/.test(c.kind) && c.proj4)
    .map((c) => [Number(c.code), c.name, c.area ?? '', c.unit ?? '', c.bbox, c.proj4]);
  mkdirSync(new URL('.', out), { recursive: true });
  writeFileSync(out, JSON.stringify(rows));
  console.log(`${rows.length} coordinate reference systems`);
}
