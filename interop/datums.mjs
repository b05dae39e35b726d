// Every operation between datums, and a conversion of every datum of the table, with what is stated of it.
import { writeFileSync } from 'node:fs';
import { alongRoute, crsFromRow, DATUM_SHIFTS, datumOf, ellipsoidOf, transformBetween } from '@lithagon/core';

const WORLD = 4326;

/** Write to a file what PROJ is to judge. */
export function writeDatumCases(path, rows) {
  const systems = new Map(rows.map((row) => [row[0], crsFromRow(row)]));
  const world = systems.get(WORLD);
  const operations = [];
  for (const shift of DATUM_SHIFTS) {
    const [code, source, target, , [south, west, north, east]] = shift;
    const [from, to] = [systems.get(source), systems.get(target)];
    if (!from || !to) continue;
    const width = east >= west ? east - west : east + 360 - west;
    const at = [((west + width / 2 + 540) % 360) - 180, (south + north) / 2];
    const route = { legs: [{ shift, back: false }] };
    operations.push({ code, at, ours: alongRoute(route, ellipsoidOf(from), ellipsoidOf(to), at) });
  }
  const conversions = [];
  const refused = new Set();
  const seen = new Map();
  for (const crs of systems.values()) {
    const datum = datumOf(crs);
    if (!crs.bounds || datum === null || crs.code === WORLD) continue;
    const turned = /axis=/.test(crs.proj4);
    const key = `${datum} ${/longlat/.test(crs.proj4)} ${/pm=/.test(crs.proj4)}`;
    seen.set(key, (seen.get(key) ?? 0) + 1);
    // two systems of each datum, and every one whose axes run another way
    if (seen.get(key) > 2 && !turned) continue;
    const [north, west, south, east] = crs.bounds;
    const width = east >= west ? east - west : east + 360 - west;
    for (const [f, g] of [
      [0.5, 0.5],
      [0.3, 0.7],
      [0.7, 0.35],
    ]) {
      const degrees = [((west + f * width + 540) % 360) - 180, south + g * (north - south)];
      try {
        // a place in its own system, whatever the way there is worth
        const base = systems.get(datum) ?? world;
        const at = transformBetween(base, crs, degrees).convert(...degrees);
        const { convert, says } = transformBetween(crs, world, at);
        const accuracy = Number(/stated as good to ([\d.]+)/.exec(says)?.[1] ?? (/one datum/.test(says) ? 0 : 999));
        conversions.push({
          from: `EPSG:${crs.code}`,
          to: `EPSG:${WORLD}`,
          at,
          ours: convert(...at),
          accuracy,
          says,
          ...(/pm=/.test(crs.proj4) ? { greenwich: [`EPSG:${datum}`, `EPSG:${WORLD}`], degrees } : {}),
        });
      } catch (cause) {
        if (!/No transformation is known|lies outside/.test(cause.message)) throw cause;
        refused.add(datum);
      }
    }
  }
  writeFileSync(path, JSON.stringify({ operations, conversions }));
  return { operations: operations.length, conversions: conversions.length, refused: refused.size };
}
