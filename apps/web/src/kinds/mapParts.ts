/** A path on the screen through points. */
export function pathText(points: [number, number][], closed = false): string {
  return points.map(([x, y], n) => `${n ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('') + (closed ? 'Z' : '');
}

/** Text over whatever the map shows. */
export const HALO = { fill: 'var(--ink)', stroke: 'var(--vellum)', strokeWidth: 3, paintOrder: 'stroke' } as const;
