import type { Frame } from '../../earth/objects.ts';

/** Features in the project's system, which RFC 7946 leaves to be named as its forerunner did. */
export function geoJsonText(frame: Frame | null, shapes: { name: string; geometry: object }[]): string {
  const crs = frame
    ? { crs: { type: 'name', properties: { name: frame.crs.replace(/^EPSG:/, 'urn:ogc:def:crs:EPSG::') } } }
    : {};
  const features = shapes.map(({ name, geometry }) => ({ type: 'Feature', properties: { name }, geometry }));
  return `${JSON.stringify({ type: 'FeatureCollection', ...crs, features }, null, 1)}\n`;
}
