import type { BinGrid } from '../../earth/binGrid.ts';

/**
 * A map as a GeoTIFF (OGC 19-008r4): float32, rows are inlines and columns crosslines, each value at the middle of its
 * bin; the affine of the survey goes out as it is, rotated where it is, so that nothing is interpolated.
 * @param values `[inline][crossline]`, NaN where there is none
 * @param epsg code of the projected coordinate system, null where it is not known
 */
export async function geotiffOf(values: Float32Array, binGrid: BinGrid, epsg: number | null): Promise<Uint8Array> {
  const { writeArrayBuffer } = await import('geotiff');
  const { origin: o, perInline: a, perCrossline: b } = binGrid;
  // pixel (0, 0) begins half a bin before the first one
  const corner = [o[0] - (a[0] + b[0]) / 2, o[1] - (a[1] + b[1]) / 2];
  const metadata = {
    height: binGrid.inline.count,
    width: binGrid.crossline.count,
    ModelTransformation: [b[0], a[0], 0, corner[0], b[1], a[1], 0, corner[1], 0, 0, 0, 0, 0, 0, 0, 1],
    GTModelTypeGeoKey: 1,
    GTRasterTypeGeoKey: 1,
    ...(epsg === null ? { ProjectedCSTypeGeoKey: 32767 } : { ProjectedCSTypeGeoKey: epsg }),
    GDAL_NODATA: 'nan',
    Software: 'Lithagon',
  };
  return new Uint8Array(writeArrayBuffer(values, metadata as unknown as Parameters<typeof writeArrayBuffer>[1]));
}
