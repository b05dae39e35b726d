import type { Polygon } from '../../earth/objects.ts';
import { geoJsonText } from '../../files/out/geojson.ts';
import { csv, round } from '../../files/out/rows.ts';
import { defineKind } from '../define.ts';

export const polygon = defineKind<Polygon>({
  title: 'Outline',
  plural: 'Outlines',
  facts: ({ rings }) => [{ label: 'Points', value: String(rings.reduce((n, r) => n + r.length, 0)) }],
  aside: ({ closed }) => (closed ? 'area' : 'line'),
  moved: (object, { point }) => ({ ...object, rings: object.rings.map((ring) => ring.map(([x, y]) => point(x, y))) }),
  places: ({ rings }) => rings.flat(),
  formats: {
    geojson: {
      title: 'GeoJSON',
      async write({ frame, map }, { name, closed, rings }) {
        const coordinates = rings.map((ring) => ring.map(([x, y]) => [x * map.scale, y * map.scale]));
        return geoJsonText(frame, [{ name, geometry: { type: closed ? 'Polygon' : 'MultiLineString', coordinates } }]);
      },
    },
    csv: {
      title: 'CSV, a row a point',
      write: csv(({ rings }, { xy, map }) => [
        ['ring', ...xy],
        rings.flatMap((ring, n) => ring.map(([x, y]) => [n + 1, round(x * map.scale, 2), round(y * map.scale, 2)])),
      ]),
    },
  },
  drawn: ({ closed, rings }) => [closed, rings],
});
