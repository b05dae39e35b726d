import { type BinGrid, crosslineAt, inlineAt, toMap } from '../../earth/binGrid.ts';
import { unitsOf } from '../../earth/display.ts';
import type { Horizon, QuantityMap, Well } from '../../earth/objects.ts';
import { csvText } from '../../formats/csv/write.ts';
import { geotiffOf } from '../../formats/geotiff/write.ts';
import { writeHdf5 } from '../../formats/hdf5/write.ts';
import { polyData } from '../../formats/vtk/write.ts';
import { pathOf } from '../../project/wells/wells.ts';
import { readWhole } from '../../storage/arrays.ts';
import { pointAtMd } from '../../wells/path.ts';
import type { Out } from './out.ts';
import { inProjectUnits, plain, round } from './rows.ts';

type Surface = Horizon | QuantityMap;

/** What the values of a surface are: a column's name with its unit. */
const columnOf = (surface: Surface) =>
  surface.kind === 'map' ? plain(surface.quantity, surface.unit) : surface.domain === 'twt' ? 'twt_ms' : 'depth_m';

/** A bin grid in the unit of the file. */
function inUnit(binGrid: BinGrid, scale: number): BinGrid {
  const times = ([a, b]: [number, number]): [number, number] => [a * scale, b * scale];
  return {
    ...binGrid,
    origin: times(binGrid.origin),
    perInline: times(binGrid.perInline),
    perCrossline: times(binGrid.perCrossline),
  };
}

export async function surfaceCsv({ store, frame, map }: Out, surface: Surface): Promise<string> {
  const values = await readWhole(store, surface.values);
  const match = surface.kind === 'horizon' && surface.confidence ? await readWhole(store, surface.confidence) : null;
  const { binGrid } = surface;
  const columns = binGrid.crossline.count;
  return csvText(
    ...inProjectUnits(
      [
        ['inline', 'crossline', `x_${map.unit}`, `y_${map.unit}`, columnOf(surface), ...(match ? ['match'] : [])],
        Array.from(values, (v, n) => {
          const [i, j] = [Math.floor(n / columns), n % columns];
          const [x, y] = toMap(binGrid, i, j);
          const row = [
            inlineAt(binGrid, i),
            crosslineAt(binGrid, j),
            round(x * map.scale, 2),
            round(y * map.scale, 2),
            round(v, 3),
          ];
          return match ? [...row, round(match[n], 3)] : row;
        }),
      ],
      unitsOf(frame),
    ),
  );
}

export async function surfaceGeotiff({ store, frame, map }: Out, surface: Surface): Promise<Uint8Array> {
  const code = /^EPSG:(\d+)$/.exec(frame?.crs ?? '');
  const values = await readWhole(store, surface.values);
  return await geotiffOf(values, inUnit(surface.binGrid, map.scale), code ? Number(code[1]) : null);
}

/** A surface of triangles; elevations are negative depths (or times), and the values stand beside as point data. */
export async function surfaceVtk({ store, map }: Out, surface: Surface): Promise<Uint8Array[]> {
  const values = await readWhole(store, surface.values);
  const { binGrid } = surface;
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  const index = new Int32Array(ni * nj).fill(-1);
  let count = 0;
  for (let n = 0; n < values.length; n++) if (!Number.isNaN(values[n])) index[n] = count++;
  const points = new Float32Array(3 * count);
  const data = new Float32Array(count);
  for (let n = 0; n < values.length; n++) {
    if (index[n] < 0) continue;
    const [x, y] = toMap(binGrid, Math.floor(n / nj), n % nj);
    points.set([x * map.scale, y * map.scale, surface.kind === 'map' ? 0 : -values[n]], 3 * index[n]);
    data[index[n]] = values[n];
  }
  const corners: number[] = [];
  for (let i = 0; i + 1 < ni; i++)
    for (let j = 0; j + 1 < nj; j++) {
      const [a, b, c, d] = [i * nj + j, i * nj + j + 1, (i + 1) * nj + j, (i + 1) * nj + j + 1].map((n) => index[n]);
      if (a >= 0 && b >= 0 && c >= 0) corners.push(a, b, c);
      if (b >= 0 && d >= 0 && c >= 0) corners.push(b, d, c);
    }
  const offsets = Int32Array.from({ length: corners.length / 3 }, (_, n) => 3 * (n + 1));
  return polyData(points, [{ name: columnOf(surface), values: data }], {
    name: 'Polys',
    connectivity: Int32Array.from(corners),
    offsets,
  });
}

async function* once(rows: number, values: Float32Array) {
  yield { rows, values };
}

export async function surfaceHdf5({ store, frame, map }: Out, surface: Surface): Promise<Uint8Array> {
  const values = await readWhole(store, surface.values);
  const { binGrid } = surface;
  const shape = [binGrid.inline.count, binGrid.crossline.count];
  const of = (c: 0 | 1) =>
    Float32Array.from(values, (_, n) => toMap(binGrid, Math.floor(n / shape[1]), n % shape[1])[c] * map.scale);
  const unit = { units: map.unit };
  return writeHdf5(
    [
      {
        name: 'values',
        shape,
        parts: once(shape[0], values),
        attributes: { long_name: columnOf(surface), dimensions: 'inline crossline' },
      },
      { name: 'x', shape, parts: once(shape[0], of(0)), attributes: unit },
      { name: 'y', shape, parts: once(shape[0], of(1)), attributes: unit },
    ],
    {
      name: surface.name,
      crs: frame?.crs ?? '',
      first_inline: binGrid.inline.first,
      first_crossline: binGrid.crossline.first,
    },
  );
}

/** A well's path as a line; elevations are negative TVDSS, measured depth stands beside. */
export async function pathVtk({ store, map }: Out, well: Well): Promise<Uint8Array[]> {
  const path = pathOf(await store.list(), well);
  const last = well.totalMdM ?? path.md[path.md.length - 1];
  const count = Math.max(2, Math.ceil(last / 10) + 1);
  const md = Float32Array.from({ length: count }, (_, n) => (last * n) / (count - 1));
  const points = new Float32Array(3 * count);
  md.forEach((m, n) => {
    const p = pointAtMd(path, m);
    points.set([p.x * map.scale, p.y * map.scale, -p.tvdss], 3 * n);
  });
  return polyData(points, [{ name: 'md_m', values: md }], {
    name: 'Lines',
    connectivity: Int32Array.from({ length: count }, (_, n) => n),
    offsets: Int32Array.of(count),
  });
}
