import { makeSegy, PLAIN_SEGY } from '../../../../packages/core/src/testing/segyWriter.ts';

const las = (well: string) => `~Version
VERS. 2.0 :
WRAP. NO :
~Well
STRT.M 500 :
STOP.M 502 :
STEP.M 0.5 :
NULL. -999.25 :
WELL. ${well} :
~Curve
DEPT.M :
GR.GAPI :
~A
500 60
500.5 61
501 -999.25
501.5 63
502 64
`;

/** What a project holds before others' files are loaded into it: one object of each usual kind, at UTM zone 40 S. */
export const GOOD: Record<string, { bytes: Uint8Array | string; declare?: string[] }> = {
  'cube.sgy': {
    bytes: makeSegy({ ...PLAIN_SEGY, origin: [499_000, 7_650_000], format: 5 }, (n) =>
      Array.from({ length: n }, (_, k) => k),
    ),
    declare: ['domain=twt', 'quantity=attribute', 'crs=EPSG:32740'],
  },
  'heads.csv': { bytes: 'well,x_m,y_m,kb_m,total_depth_md\nGood 1,499050,7650050,25,2000\n' },
  'good.las': { bytes: las('Good 1') },
  'tops.csv': { bytes: 'well,top,md_m\nGood 1,Upper,600\nGood 1,Lower,900\n' },
  'licence.geojson': {
    bytes: JSON.stringify({
      type: 'FeatureCollection',
      crs: { type: 'name', properties: { name: 'urn:ogc:def:crs:EPSG::32740' } },
      features: [
        {
          type: 'Feature',
          properties: { name: 'Licence' },
          geometry: {
            type: 'Polygon',
            coordinates: [
              [
                [498_000, 7_649_000],
                [500_000, 7_649_000],
                [500_000, 7_651_000],
                [498_000, 7_649_000],
              ],
            ],
          },
        },
      ],
    }),
  },
};
