import { LithagonError } from '../earth/errors.ts';
import { crosslineAt, inlineAt, toMap } from '../earth/lattice.ts';
import type { EarthObject, Frame } from '../earth/objects.ts';
import { csvText } from '../formats/csv/write.ts';
import { geotiffOf } from '../formats/geotiff/write.ts';
import { relationOf } from '../project/seeds.ts';
import { pathOf } from '../project/wells.ts';
import { readWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';
import { pointAtMd } from '../wells/path.ts';
import { twtOfDepth } from '../wells/timeDepth.ts';

const GRID = { csv: 'CSV, a row a bin', tif: 'GeoTIFF' };
const TABLE = { csv: 'CSV' };

/** Formats that an object can leave in, by extension. */
export function exportFormats(object: EarthObject): Record<string, string> {
  switch (object.kind) {
    case 'horizon':
    case 'map':
      return GRID;
    case 'polygon':
      return { geojson: 'GeoJSON', csv: 'CSV, a row a point' };
    case 'volume':
    case 'contacts':
    case 'logs':
    case 'velocity model':
      return {};
    default:
      return TABLE;
  }
}

const round = (v: number, places: number) => (Number.isNaN(v) ? v : Number(v.toFixed(places)));

/** A column's name with its unit, plain enough for any program: “Depth in well (m TVDSS)” → `depth_in_well_m_tvdss`. */
const plain = (name: string, unit: string) =>
  `${name} ${unit}`
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_|_$/g, '');

/**
 * An object in an open format.
 * @param extension without its dot: one of `exportFormats(object)`
 */
export async function exportObject(
  store: Store,
  object: EarthObject,
  extension: string,
  frame: Frame | null,
): Promise<Uint8Array> {
  const formats = exportFormats(object);
  if (!Object.hasOwn(formats, extension)) {
    const can = Object.keys(formats);
    throw new LithagonError(
      'export',
      `${object.name} is a ${object.kind}, which cannot be written as “.${extension}”.`,
      {
        object: object.name,
        fix: can.length > 0 ? `It can be written as ${can.map((e) => `.${e}`).join(' or ')}.` : 'Nothing was written.',
      },
    );
  }
  const text = (t: string) => new TextEncoder().encode(t);
  if (object.kind === 'horizon' || object.kind === 'map') {
    const values = await readWhole(store, object.values);
    const { lattice } = object;
    if (extension === 'tif') {
      const code = /^EPSG:(\d+)$/.exec(frame?.crs ?? '');
      return geotiffOf(values, lattice, code ? Number(code[1]) : null);
    }
    const match = object.kind === 'horizon' && object.confidence ? await readWhole(store, object.confidence) : null;
    const columns = lattice.crossline.count;
    const vertical =
      object.kind === 'map' ? plain(object.quantity, object.unit) : object.domain === 'twt' ? 'twt_ms' : 'depth_m';
    return text(
      csvText(
        ['inline', 'crossline', 'x_m', 'y_m', vertical, ...(match ? ['match'] : [])],
        Array.from(values, (v, n) => {
          const [i, j] = [Math.floor(n / columns), n % columns];
          const [x, y] = toMap(lattice, i, j);
          const row = [inlineAt(lattice, i), crosslineAt(lattice, j), round(x, 2), round(y, 2), round(v, 3)];
          return match ? [...row, round(match[n], 3)] : row;
        }),
      ),
    );
  }
  if (object.kind === 'polygon') {
    if (extension === 'csv')
      return text(
        csvText(
          ['ring', 'x_m', 'y_m'],
          object.rings.flatMap((ring, n) => ring.map(([x, y]) => [n + 1, round(x, 2), round(y, 2)])),
        ),
      );
    const geometry = object.closed
      ? { type: 'Polygon', coordinates: object.rings }
      : { type: 'MultiLineString', coordinates: object.rings };
    const crs = frame
      ? { crs: { type: 'name', properties: { name: frame.crs.replace(/^EPSG:/, 'urn:ogc:def:crs:EPSG::') } } }
      : {};
    const feature = { type: 'Feature', properties: { name: object.name }, geometry };
    return text(`${JSON.stringify({ type: 'FeatureCollection', ...crs, features: [feature] }, null, 1)}\n`);
  }
  const [head, rows] = await tableOf(store, object);
  return text(csvText(head, rows));
}

async function tableOf(store: Store, object: EarthObject): Promise<[string[], unknown[][]]> {
  switch (object.kind) {
    case 'well': {
      const path = pathOf(await store.list(), object);
      const last = object.totalMdM ?? path.md[path.md.length - 1];
      const mds = [...new Set([...path.md, last])].filter((md) => md <= last);
      return [
        ['md_m', 'x_m', 'y_m', 'tvd_m', 'tvdss_m'],
        mds.map((md) => {
          const p = pointAtMd(path, md);
          return [round(md, 2), round(p.x, 2), round(p.y, 2), round(p.tvdss + object.kbM, 2), round(p.tvdss, 2)];
        }),
      ];
    }
    case 'tops': {
      const objects = await store.list();
      const well = objects.find((o) => o.kind === 'well' && o.name === object.well);
      if (well?.kind !== 'well') break;
      const path = pathOf(objects, well);
      const relation = relationOf(objects, well.name);
      return [
        ['well', 'top', 'md_m', 'x_m', 'y_m', 'tvdss_m', 'twt_ms'],
        object.rows.map(([name, md]) => {
          const p = pointAtMd(path, Number(md));
          const twt = relation ? round(twtOfDepth(relation, p.tvdss), 2) : null;
          return [object.well, name, md, round(p.x, 2), round(p.y, 2), round(p.tvdss, 2), twt];
        }),
      ];
    }
    case 'fault':
      return [
        ['fault', 'stick', 'x_m', 'y_m', object.domain === 'twt' ? 'twt_ms' : 'depth_m'],
        object.sticks.flatMap((stick, n) => stick.map((p) => [object.name, n + 1, ...p.map((v) => round(v, 2))])),
      ];
    case 'picks':
      return [
        ['x_m', 'y_m', object.domain === 'twt' ? 'twt_ms' : 'depth_m'],
        object.points.map((p) => p.map((v) => round(v, 2))),
      ];
    case 'time-depth relation':
      return [['tvdss_m', 'twt_ms'], object.pairs];
    case 'wavelet':
      return [
        ['time_ms', 'amplitude'],
        object.samples.map((v, n) => [round(object.firstMs + n * object.stepMs, 3), v]),
      ];
    default:
  }
  if ('rows' in object && 'columns' in object) return [object.columns.map((c) => plain(c.name, c.unit)), object.rows];
  throw new LithagonError('export', `${object.name} has no rows to write.`, { object: object.name });
}
