import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import { visible } from '../../earth/text.ts';

const position = z.array(z.number()).min(2);
const geometry = z.discriminatedUnion('type', [
  z.object({ type: z.literal('Polygon'), coordinates: z.array(z.array(position)) }),
  z.object({ type: z.literal('MultiPolygon'), coordinates: z.array(z.array(z.array(position))) }),
  z.object({ type: z.literal('LineString'), coordinates: z.array(position) }),
  z.object({ type: z.literal('MultiLineString'), coordinates: z.array(z.array(position)) }),
  z.object({ type: z.literal('Point'), coordinates: position }),
  z.object({ type: z.literal('MultiPoint'), coordinates: z.array(position) }),
]);
const feature = z.object({
  type: z.literal('Feature'),
  properties: z.record(z.string(), z.unknown()).nullable().optional(),
  geometry: z.unknown(),
});
const geometries = z.object({ type: z.literal('GeometryCollection'), geometries: z.array(z.unknown()) });
const collection = z.object({
  type: z.literal('FeatureCollection'),
  name: z.string().optional(),
  crs: z.object({ properties: z.object({ name: z.string() }) }).optional(),
  features: z.array(feature),
});

export interface Shape {
  name: string;
  closed: boolean;
  rings: [number, number][][];
}

/** A point of a file of shapes, in its coordinates. */
export interface NamedPoint {
  /** Empty where it has none. */
  name: string;
  at: [number, number];
}

export interface GeoJson {
  shapes: Shape[];
  points: NamedPoint[];
  /**
   * `EPSG:n` where the file names one; by the standard (RFC 7946) it is longitude and latitude otherwise. Nothing where its
   * coordinates cannot be those.
   */
  crs?: string;
  skipped: number;
}

/** A feature or a geometry by itself is a GeoJSON text, too (RFC 7946, section 2). */
function collected(raw: unknown): unknown {
  const type = (raw as { type?: unknown } | null)?.type;
  if (type === 'FeatureCollection' || typeof type !== 'string') return raw;
  const one = type === 'Feature' ? raw : { type: 'Feature', properties: {}, geometry: raw };
  return { type: 'FeatureCollection', features: [one] };
}

/** Polygons, lines and points of a GeoJSON file. Refuses what is not GeoJSON or holds none of them. */
export function parseGeoJson(name: string, text: string): GeoJson {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new LithagonError('geojson', `${name} is not valid JSON.`, {
      object: name,
      fix: 'It may have been cut short: copy it again.',
    });
  }
  const asCollection = collection.safeParse(collected(raw));
  if (!asCollection.success)
    throw new LithagonError('geojson', `${name} is JSON but not GeoJSON.`, {
      object: name,
      fix: 'Features, collections of them and geometries are read.',
    });
  const { features, crs, name: title } = asCollection.data;
  const shapes: Shape[] = [];
  const points: NamedPoint[] = [];
  let skipped = 0;
  const pairs = (ring: number[][]) => ring.map(([a, b]) => [a, b] as [number, number]);
  for (const f of features) {
    const own = f.properties?.name;
    const said = [typeof own === 'number' ? String(own) : own, title].find((t) => typeof t === 'string' && t.trim());
    const label = visible((said as string | undefined) ?? name.replace(/\.[^.]*$/, '')).slice(0, 200);
    const several = geometries.safeParse(f.geometry);
    for (const part of several.success ? several.data.geometries : [f.geometry]) {
      const g = geometry.safeParse(part);
      if (!g.success) {
        skipped++;
        continue;
      }
      const { type, coordinates } = g.data;
      const places = type === 'Point' ? [coordinates] : type === 'MultiPoint' ? coordinates : [];
      // a point that has no name of its own goes without one
      for (const [a, b] of places) points.push({ name: own == null ? '' : label, at: [a, b] });
      if (type === 'Polygon') shapes.push({ name: label, closed: true, rings: coordinates.map(pairs) });
      else if (type === 'MultiPolygon')
        shapes.push({ name: label, closed: true, rings: coordinates.flat().map(pairs) });
      else if (type === 'LineString') shapes.push({ name: label, closed: false, rings: [pairs(coordinates)] });
      else if (type === 'MultiLineString') shapes.push({ name: label, closed: false, rings: coordinates.map(pairs) });
    }
  }
  if (shapes.length + points.length === 0)
    throw new LithagonError('geojson', `${name} holds no polygon, line or point.`, {
      object: name,
      fix: 'Ask for the file again: these are what GeoJSON can place on a map.',
    });
  const code = /EPSG:+(\d+)/i.exec(crs?.properties.name ?? '');
  const inDegrees = ([x, y]: [number, number]) => Math.abs(x) <= 360 && Math.abs(y) <= 90;
  const degrees =
    shapes.every((s) => s.rings.every((ring) => ring.every(inDegrees))) && points.every((p) => inDegrees(p.at));
  return { shapes, points, crs: code ? `EPSG:${code[1]}` : degrees ? 'EPSG:4326' : undefined, skipped };
}
