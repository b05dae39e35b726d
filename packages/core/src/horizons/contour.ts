/**
 * Contour segments of a grid by marching squares, with linear interpolation; cells with a missing corner have none.
 * @param values `[row][column]`, NaN where missing
 * @returns by level, segments of `[row, column, row, column]`
 */
export function contourSegments(
  values: Float32Array,
  rows: number,
  columns: number,
  interval: number,
): Map<number, number[][]> {
  const out = new Map<number, number[][]>();
  const corners = [0, 0, 0, 0];
  // corners go round the cell: (0,0) (0,1) (1,1) (1,0)
  const row = [0, 0, 1, 1];
  const column = [0, 1, 1, 0];
  for (let a = 0; a + 1 < rows; a++)
    for (let b = 0; b + 1 < columns; b++) {
      let low = Number.POSITIVE_INFINITY;
      let high = Number.NEGATIVE_INFINITY;
      for (let c = 0; c < 4; c++) {
        const v = values[(a + row[c]) * columns + b + column[c]];
        corners[c] = v;
        low = Math.min(low, v);
        high = Math.max(high, v);
      }
      if (Number.isNaN(low) || Number.isNaN(high)) continue;
      for (let level = Math.ceil(low / interval) * interval; level <= high; level += interval) {
        const hits: number[] = [];
        for (let c = 0; c < 4; c++) {
          const d = (c + 1) % 4;
          const [va, vb] = [corners[c], corners[d]];
          if (va < level === vb < level) continue;
          const f = (level - va) / (vb - va);
          hits.push(a + row[c] + f * (row[d] - row[c]), b + column[c] + f * (column[d] - column[c]));
        }
        const segments = out.get(level) ?? [];
        for (let h = 0; h + 3 < hits.length; h += 4) segments.push(hits.slice(h, h + 4));
        if (segments.length > 0) out.set(level, segments);
      }
    }
  return out;
}

/**
 * Segments of contours joined to lines, end to end.
 * @param segments as `contourSegments` gives them for one level
 * @returns lines of `[row, column]`; a closed one ends where it begins
 */
export function joinedSegments(segments: number[][]): [number, number][][] {
  // ends that meet come of the same edge, and so of the same arithmetic but for the order of its corners
  const key = (r: number, c: number) => `${Math.round(r * 1e4)} ${Math.round(c * 1e4)}`;
  const at = new Map<string, number[]>();
  segments.forEach(([r0, c0, r1, c1], n) => {
    for (const k of [key(r0, c0), key(r1, c1)]) at.set(k, [...(at.get(k) ?? []), n]);
  });
  // a contour that touches a corner has pieces of no length there
  const used = new Set(segments.flatMap(([r0, c0, r1, c1], n) => (key(r0, c0) === key(r1, c1) ? [n] : [])));
  const grow = (line: [number, number][]) => {
    for (;;) {
      const [r, c] = line[line.length - 1];
      const next = at.get(key(r, c))?.find((n) => !used.has(n));
      if (next === undefined) return line;
      used.add(next);
      const [r0, c0, r1, c1] = segments[next];
      line.push(key(r0, c0) === key(r, c) ? [r1, c1] : [r0, c0]);
    }
  };
  const lines: [number, number][][] = [];
  segments.forEach(([r0, c0, r1, c1], n) => {
    if (used.has(n)) return;
    used.add(n);
    const forward = grow([
      [r0, c0],
      [r1, c1],
    ]);
    lines.push(grow(forward.reverse()));
  });
  return lines;
}

/** A round contour interval that gives about `count` levels over a range. */
export function contourInterval(low: number, high: number, count = 14): number {
  const raw = Math.max(1e-9, (high - low) / count);
  const power = 10 ** Math.floor(Math.log10(raw));
  const part = raw / power;
  return power * (part < 1.5 ? 1 : part < 3.5 ? 2 : part < 7.5 ? 5 : 10);
}
