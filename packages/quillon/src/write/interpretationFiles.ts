import { join } from 'node:path';
import type { Field } from '../model/field.ts';
import { SURVEY, toMap, uOf, vOf } from '../model/survey.ts';
import { type Imaged, meeting } from '../seismic/survey.ts';
import { crestOutline, faultSticks } from '../truth/outline.ts';
import type { Declared } from './seismicFiles.ts';
import { writeCsv, writeJson } from './text.ts';

const polygon = (name: string, ring: [number, number][]) => ({
  type: 'FeatureCollection',
  name,
  crs: { type: 'name', properties: { name: 'urn:ogc:def:crs:EPSG::32740' } },
  features: [
    {
      type: 'Feature',
      properties: { name },
      geometry: {
        type: 'Polygon',
        coordinates: [ring.map(([x, y]) => [Math.round(x * 10) / 10, Math.round(y * 10) / 10])],
      },
    },
  ],
});

/** Fault sticks, outlines, bathymetry, licence and coastline. */
export function writeInterpretation(dir: string, field: Field, imaged: Imaged): Declared[] {
  const declare = {};
  writeCsv(
    join(dir, 'fault-sticks.csv'),
    ['fault', 'stick', ['x_m', 1], ['y_m', 1], ['twt_ms', 1]],
    faultSticks(field, field.structure.faults.slice(0, 2)).map((p) => [p.fault, p.stick, p.x, p.y, p.twt]),
  );
  const ring = crestOutline(field);
  writeCsv(
    join(dir, 'crest-outline.csv'),
    ['polygon', ['x_m', 1], ['y_m', 1]],
    ring.map(([x, y]) => ['Crest outline', x, y]),
  );
  writeJson(join(dir, 'crest-outline.geojson'), polygon('Crest outline', ring));
  const licence: [number, number][] = [
    [-700, -500],
    [5600, -500],
    [5600, 4500],
    [2400, 4500],
    [2400, 5300],
    [-700, 5300],
    [-700, -500],
  ];
  writeJson(
    join(dir, 'licence.geojson'),
    polygon(
      'Licence OS-4',
      licence.map(([u, v]) => toMap(u, v)),
    ),
  );
  const coast: [number, number][] = Array.from({ length: 41 }, (_, n) => {
    const u = -1800 + n * 220;
    return toMap(u, 5900 + 260 * Math.sin(n * 0.9) + 140 * Math.sin(n * 2.3 + 1));
  });
  writeJson(join(dir, 'coastline.geojson'), {
    ...polygon('Coastline', []),
    features: [
      {
        type: 'Feature',
        properties: { name: 'Coastline' },
        geometry: { type: 'LineString', coordinates: coast.map(([x, y]) => [Math.round(x), Math.round(y)]) },
      },
    ],
  });
  const rows: (string | number)[][] = [];
  const { extent } = imaged;
  for (let i = 0; i < extent.inlines; i += 2)
    for (let j = 0; j < extent.crosslines; j += 2) {
      const [inline, crossline] = [extent.inline0 + i, extent.crossline0 + j];
      const [x, y] = toMap(uOf(crossline), vOf(inline));
      rows.push([inline, crossline, x, y, meeting(imaged, i * extent.crosslines + j, 0, 0)[0]]);
    }
  writeCsv(join(dir, 'sea-bed.csv'), ['inline', 'crossline', ['x_m', 1], ['y_m', 1], ['depth_m', 2]], rows);
  return [
    {
      file: 'fault-sticks.csv',
      kind: 'fault sticks',
      what: 'Fault sticks of the Osmund Fault and the Antithetic, in time',
      declare,
    },
    { file: 'crest-outline.csv', kind: 'polygon', what: 'Outline of the Crest accumulation', declare },
    { file: 'crest-outline.geojson', kind: 'polygon', what: 'Outline of the Crest accumulation', declare },
    { file: 'licence.geojson', kind: 'polygon', what: 'Licence outline', declare },
    { file: 'coastline.geojson', kind: 'polygon', what: 'Coastline', declare },
    {
      file: 'sea-bed.csv',
      kind: 'horizon',
      what: `Bathymetry in metres below mean sea level, every ${2 * SURVEY.binM} m`,
      declare,
    },
  ];
}
