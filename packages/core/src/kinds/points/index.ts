import type { Points } from '../../earth/objects.ts';
import { geoJsonText } from '../../files/out/geojson.ts';
import { csv, round } from '../../files/out/rows.ts';
import { counted, defineKind } from '../define.ts';

export const points = defineKind<Points>({
  title: 'Points',
  plural: 'Points',
  facts: (object) => [{ label: 'Points', value: String(object.points.length) }],
  aside: (object) => counted(object.points.length, 'point'),
  moved: (object, { point }) => ({ ...object, points: object.points.map(([x, y]) => point(x, y)) }),
  places: (object) => object.points,
  formats: {
    geojson: {
      title: 'GeoJSON',
      write: async ({ frame, map }, object) =>
        geoJsonText(
          frame,
          object.points.map(([x, y], n) => ({
            name: object.names[n] || object.name,
            geometry: { type: 'Point', coordinates: [x * map.scale, y * map.scale] },
          })),
        ),
    },
    csv: {
      title: 'CSV, a row a point',
      write: csv((object, { xy, map }) => [
        ['name', ...xy],
        object.points.map(([x, y], n) => [object.names[n], round(x * map.scale, 2), round(y * map.scale, 2)]),
      ]),
    },
  },
});
