import type { ReadTable } from '../formats/csv/tables.ts';
import type { Sketch } from './report.ts';

/** Where the rows of a table lie, for a small map: wells by name, sticks and outlines as lines, else points. */
export function sketchOfTable({ spec, numbers, texts }: ReadTable): Sketch {
  const { x, y } = numbers;
  const sketch: Sketch = { lines: [], points: [] };
  const group = texts.fault ?? texts.polygon ?? texts.line;
  if (spec.kind === 'well heads') sketch.points = Array.from(x, (px, n) => ({ x: px, y: y[n], label: texts.well[n] }));
  else if (spec.kind === 'points' && x.length <= 200)
    sketch.points = Array.from(x, (px, n) => ({ x: px, y: y[n], label: texts.point?.[n] ?? '' }));
  else if (group) {
    const lines = new Map<string, [number, number][]>();
    for (let n = 0; n < x.length; n++) {
      const key = `${group[n]}/${numbers.stick?.[n] ?? ''}`;
      const line = lines.get(key) ?? [];
      line.push([x[n], y[n]]);
      lines.set(key, line);
    }
    sketch.lines = [...lines.values()];
  } else {
    const every = Math.max(1, Math.floor(x.length / 400));
    for (let n = 0; n < x.length; n += every) sketch.points.push({ x: x[n], y: y[n], label: '' });
  }
  return sketch;
}
