import type { Horizon, QuantityMap } from '../earth/objects.ts';
import { surfaceCsv, surfaceGeotiff, surfaceHdf5, surfaceVtk } from '../files/out/surface.ts';
import type { Format } from './define.ts';

/** Formats of what has one value a bin. */
export const SURFACE_FORMATS: Record<string, Format<Horizon | QuantityMap>> = {
  csv: { title: 'CSV, a row a bin', write: surfaceCsv },
  tif: { title: 'GeoTIFF', write: surfaceGeotiff },
  vtp: { title: 'VTK surface', write: surfaceVtk },
  h5: { title: 'HDF5', write: surfaceHdf5 },
};
