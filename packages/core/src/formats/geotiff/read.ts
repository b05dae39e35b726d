import { LithagonError } from '../../earth/errors.ts';
import type { GridFile } from '../esri/ascii.ts';
import { metresOfKeys } from './system.ts';

/** What cells are multiplied by and what is added (GDAL_METADATA, items SCALE and OFFSET of the band). */
async function valueScale(image: {
  getGDALMetadata(sample: number): unknown;
}): Promise<{ scale: number; offset: number }> {
  let said: Record<string, unknown> = {};
  try {
    said = ((await image.getGDALMetadata(0)) ?? {}) as Record<string, unknown>;
  } catch {
    // without readable metadata cells are what they are
  }
  const [scale, offset] = [Number(said.SCALE ?? 1), Number(said.OFFSET ?? 0)];
  return {
    scale: Number.isFinite(scale) && scale !== 0 ? scale : 1,
    offset: Number.isFinite(offset) ? offset : 0,
  };
}

/** Read the first band of a GeoTIFF (OGC 19-008r4) with its affine, rotated or not, and its coordinate system. */
export async function parseGeotiff(name: string, bytes: Uint8Array): Promise<GridFile> {
  const refuse = (why: string, fix: string): never => {
    throw new LithagonError('geotiff', `${name} cannot be read as a GeoTIFF: ${why}.`, { object: name, fix });
  };
  const { fromArrayBuffer } = await import('geotiff');
  const tiff = await fromArrayBuffer(bytes.slice().buffer).catch(() =>
    refuse('it is no TIFF file, or was cut short', 'Copy it again from where it came.'),
  );
  const image = await tiff.getImage().catch(() => refuse('it holds no image', 'Ask for the file again.'));
  const [columns, rows] = [image.getWidth(), image.getHeight()];
  if (!(columns > 1 && rows > 1 && columns * rows <= 100e6))
    refuse(`it is ${columns} × ${rows} cells`, 'Grids of 2 × 2 to 100 million cells are read.');
  const tag = (key: string): unknown => {
    try {
      return (image.fileDirectory as { getValue(k: string): unknown }).getValue(key);
    } catch {
      return undefined;
    }
  };
  let keys: Record<string, unknown> = {};
  try {
    keys = (image.getGeoKeys() ?? {}) as Record<string, unknown>;
  } catch {
    refuse('its georeference is damaged', 'Copy it again from where it came.');
  }
  const matrix = tag('ModelTransformation') as ArrayLike<number> | undefined;
  const scale = tag('ModelPixelScale') as ArrayLike<number> | undefined;
  const tie = tag('ModelTiepoint') as ArrayLike<number> | undefined;
  let corner: [number, number];
  let perRow: [number, number];
  let perColumn: [number, number];
  if (matrix && matrix.length >= 8) {
    perColumn = [matrix[0], matrix[4]];
    perRow = [matrix[1], matrix[5]];
    corner = [matrix[3], matrix[7]];
  } else if (scale && tie && tie.length >= 6) {
    perColumn = [scale[0], 0];
    perRow = [0, -scale[1]];
    corner = [tie[3] - tie[0] * scale[0], tie[4] + tie[1] * scale[1]];
  } else return refuse('it does not say where on the map it lies', 'Write it again with its georeference inside.');
  // pixels are areas unless the file says that they are points
  const half = Number(keys.GTRasterTypeGeoKey) === 2 ? 0 : 0.5;
  const origin: [number, number] = [
    corner[0] + half * (perColumn[0] + perRow[0]),
    corner[1] + half * (perColumn[1] + perRow[1]),
  ];
  const [band] = (await image
    .readRasters({ samples: [0] })
    .catch(() =>
      refuse('its cells cannot be read', 'It may have been cut short: copy it again.'),
    )) as unknown as ArrayLike<number>[];
  const nothing = Number(tag('GDAL_NODATA') === undefined ? Number.NaN : (image.getGDALNoData() ?? Number.NaN));
  const { scale: times, offset: plus } = await valueScale(image);
  const notes: string[] = [];
  if (times !== 1 || plus !== 0)
    notes.push(
      `Its cells were multiplied by ${times}${plus !== 0 ? ` and ${plus} was added` : ''}, as its metadata say.`,
    );
  const values = Float32Array.from(band, (v) => (v === nothing || !Number.isFinite(v) ? Number.NaN : v * times + plus));
  const metres = metresOfKeys(keys);
  const code = Number(keys.ProjectedCSTypeGeoKey ?? keys.GeographicTypeGeoKey);
  return {
    rows,
    columns,
    values,
    origin,
    perRow,
    perColumn,
    ...(code > 0 && code < 32767 ? { crs: `EPSG:${code}` } : { keys }),
    ...(metres ? { metres } : {}),
    notes,
  };
}
