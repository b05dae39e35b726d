import { cornersOf } from '../earth/binGrid.ts';
import type { EarthObject } from '../earth/objects.ts';
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

/** Where objects lie, in the project's coordinates. */
export function sketchOfObjects(objects: EarthObject[]): Sketch {
  const sketch: Sketch = { lines: [], points: [] };
  for (const o of objects) {
    if (o.kind === 'well') sketch.points.push({ x: o.x, y: o.y, label: o.name });
    else if (o.kind === 'points') for (const [x, y] of o.points) sketch.points.push({ x, y, label: '' });
    else if (o.kind === 'polygon') sketch.lines.push(...o.rings);
    else if (o.kind === 'seismic line' && o.path.length > 0) sketch.lines.push(o.path);
    else if (o.kind === 'navigation') sketch.lines.push(o.points.map(([, x, y]) => [x, y]));
    else if (o.kind === 'fault') sketch.lines.push(...o.sticks.map((s) => s.map(([x, y]): [number, number] => [x, y])));
    else if ('binGrid' in o && o.binGrid && !o.binGrid.local) sketch.lines.push(cornersOf(o.binGrid));
  }
  return sketch;
}
