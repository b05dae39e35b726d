import { LithagonError } from '../../earth/errors.ts';

/** Positions along one line. */
export interface NavigationLine {
  line: string;
  /** Point number, then grid easting and northing. */
  points: [number, number, number][];
}

/** Whether a text has records of P1/90. */
export function looksLikeP190(text: string): boolean {
  const lines = text.split(/\r\n|\n|\r/, 60);
  return (
    lines.filter((l) => /^H\d{4}/.test(l)).length >= 2 ||
    lines.filter((l) => /^[SVCGQAETZ].{18}[\s\d]{6}.*\d{6}\.\d{2}[NS]/.test(l)).length >= 2
  );
}

/**
 * Read positions of a P1/90 file (UKOOA P1/90 Post Plot Data Exchange Tape, 1990): columns 2–13 line name, 20–25 point
 * number, 47–55 grid easting, 56–64 grid northing. Where a file has common midpoints or vessel positions beside sources,
 * the first kind present of C (common midpoint), S (centre of source), V (vessel) is taken.
 */
export function parseP190(name: string, text: string): { lines: NavigationLine[]; kind: string; skipped: number } {
  const kinds = ['C', 'S', 'V'];
  const found = new Map<string, Map<string, [number, number, number][]>>();
  let skipped = 0;
  for (const record of text.split(/\r\n|\n|\r/)) {
    const kind = record.charAt(0);
    if (!kinds.includes(kind)) continue;
    const [number, x, y] = [record.slice(19, 25), record.slice(46, 55), record.slice(55, 64)].map((t) =>
      t.trim() === '' ? Number.NaN : Number(t),
    );
    if (![number, x, y].every(Number.isFinite)) {
      skipped++;
      continue;
    }
    const lines = found.get(kind) ?? new Map<string, [number, number, number][]>();
    const line = record.slice(1, 13).trim();
    const points = lines.get(line) ?? [];
    points.push([number, x, y]);
    lines.set(line, points);
    found.set(kind, lines);
  }
  const kind = kinds.find((k) => found.has(k));
  const lines = kind ? [...(found.get(kind) ?? [])].map(([line, points]) => ({ line, points })) : [];
  if (!kind || lines.length === 0)
    throw new LithagonError('p190', `${name} holds no positions of P1/90 that can be read.`, {
      object: name,
      fix: 'It needs records S, V or C with a point number and grid coordinates.',
    });
  return { lines, kind, skipped };
}
