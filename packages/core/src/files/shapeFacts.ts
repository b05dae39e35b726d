import type { GeoJson } from '../formats/geojson/parse.ts';
import type { FileReport } from './report.ts';

export type FoundShapes = Pick<GeoJson, 'shapes' | 'points'>;

export function shapesTitle({ shapes, points }: FoundShapes): string {
  const [shape] = shapes;
  const named = shapes.length === 1 ? (shape.closed ? 'Polygon' : 'Line') : `${shapes.length} shapes`;
  const places = points.length === 1 ? '1 point' : `${points.length} points`;
  if (points.length === 0) return named;
  return shapes.length === 0 ? places : `${named} and ${places}`;
}

export function shapeFacts({ shapes, points }: FoundShapes): FileReport['facts'] {
  const few = (names: string[]) => [...new Set(names)].filter(Boolean).slice(0, 40).join(', ');
  return [
    ...(shapes.length > 0 ? [{ label: 'Shapes', value: few(shapes.map((s) => s.name)) }] : []),
    ...(points.length > 0
      ? [
          {
            label: 'Points',
            value: `${points.length}${points.some((p) => p.name) ? `: ${few(points.map((p) => p.name))}` : ''}`,
          },
        ]
      : []),
  ];
}

export function sketchOfShapes({ shapes, points }: FoundShapes): FileReport['sketch'] {
  const labels = points.length <= 200;
  return {
    lines: shapes.flatMap((s) => s.rings),
    points: points.slice(0, 4000).map(({ name, at: [x, y] }) => ({ x, y, label: labels ? name : '' })),
  };
}
