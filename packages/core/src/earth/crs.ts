/** A coordinate reference system of the EPSG registry, as far as a project frame needs it. */
export interface Crs {
  code: number;
  name: string;
  area: string;
  unit: string;
  /** South, west, north, east in degrees, as the registry lists them: north, west, south, east. */
  bounds: [number, number, number, number] | null;
  proj4: string;
}

export type CrsRow = [
  code: number,
  name: string,
  area: string,
  unit: string,
  bounds: number[] | null,
  proj4: string,
  /** What .prj files call it and its datum; empty where no such name is known. */
  nameInFiles?: string,
  datumInFiles?: string,
];

export function crsFromRow(row: CrsRow): Crs {
  return { code: row[0], name: row[1], area: row[2], unit: row[3], bounds: row[4] as Crs['bounds'], proj4: row[5] };
}

/** Find systems by part of a code, name or area; every word must be found somewhere. Best first. */
export function searchCrs(rows: CrsRow[], text: string, most = 30): Crs[] {
  const words = text
    .toLowerCase()
    .replace(/epsg:?/g, ' ')
    .split(/[\s,/]+/)
    .filter(Boolean);
  if (words.length === 0) return [];
  const found: { row: CrsRow; worth: number }[] = [];
  for (const row of rows) {
    const code = String(row[0]);
    const name = row[1].toLowerCase();
    const area = row[2].toLowerCase();
    let worth = 0;
    for (const word of words) {
      if (code === word) worth += 100;
      else if (code.startsWith(word) && word.length > 2) worth += 20;
      else if (new RegExp(`(^|[^a-z0-9])${word.replace(/[^a-z0-9]/g, '\\$&')}($|[^a-z0-9])`).test(name)) worth += 12;
      else if (name.includes(word)) worth += 6;
      else if (area.includes(word)) worth += 2;
      else {
        worth = -1;
        break;
      }
    }
    if (worth > 0) found.push({ row, worth: worth + (name.startsWith('wgs 84') ? 1.5 : 0) - name.length / 100 });
  }
  return found
    .sort((a, b) => b.worth - a.worth)
    .slice(0, most)
    .map((f) => crsFromRow(f.row));
}
