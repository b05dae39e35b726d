import { LithagonError } from '../../earth/errors.ts';
import type { GridFile } from '../esri/ascii.ts';
import { type NetcdfFile, type NetcdfVariable, openNetcdf } from './variables.ts';

const MOST_CELLS = 100e6;
/** How far a step between coordinates may be from the others, as a part of it. */
const UNEVEN = 1e-3;

type Way = 'x' | 'y';
const NAMES: Record<Way, RegExp> = {
  x: /^(x|x_?coord(inate)?|easting|east|lon|long|longitude)$/i,
  y: /^(y|y_?coord(inate)?|northing|north|lat|latitude)$/i,
};
const STANDARD: Record<Way, RegExp> = { x: /projection_x|longitude/, y: /projection_y|latitude/ };

/** Along which way of the map a variable counts (CF conventions 1.10, sections 4 and 5). */
function wayOf({ name, shape, attributes }: NetcdfVariable): Way | null {
  if (shape.length !== 1) return null;
  for (const way of ['x', 'y'] as const) {
    const { axis, standard_name, units } = attributes;
    if (String(axis ?? '').toLowerCase() === way || STANDARD[way].test(String(standard_name ?? ''))) return way;
    if (/^degrees?_?(east|e)$/i.test(String(units ?? ''))) return 'x';
    if (/^degrees?_?(north|n)$/i.test(String(units ?? ''))) return 'y';
    if (NAMES[way].test(name)) return way;
  }
  return null;
}

const numbers = (value: unknown): number[] =>
  typeof value === 'number' ? [value] : Array.isArray(value) ? value.map(Number) : [];

/** First coordinate and even step of an axis. */
function stepOf(file: string, axis: NetcdfVariable): { first: number; step: number } {
  const values = axis.read();
  const count = values.length;
  const step = (values[count - 1] - values[0]) / (count - 1);
  let off = 0;
  for (let n = 0; n < count; n++) off = Math.max(off, Math.abs(values[n] - values[0] - n * step));
  if (!(Math.abs(step) > 0) || off > UNEVEN * Math.abs(step) * Math.max(1, Math.sqrt(count)))
    throw new LithagonError('netcdf', `${file}: the values of “${axis.name}” are not evenly spaced.`, {
      object: file,
      fix: 'Grids with even steps are read: regrid it first, or write it as points.',
    });
  return { first: values[0], step };
}

/** What scale, offset and missing values make of the numbers of a variable (CF conventions 1.10, sections 2.5 and 8.1). */
function valuesOf({ attributes, read }: NetcdfVariable, notes: string[]): Float32Array {
  const [scale] = numbers(attributes.scale_factor);
  const [offset] = numbers(attributes.add_offset);
  const none = new Set([...numbers(attributes._FillValue), ...numbers(attributes.missing_value)]);
  const [low, high] = numbers(attributes.valid_range);
  if (scale !== undefined || offset !== undefined)
    notes.push(`Its numbers were multiplied by ${scale ?? 1} and ${offset ?? 0} was added, as the file says.`);
  return Float32Array.from(read(), (v) =>
    none.has(v) || v < low || v > high || !Number.isFinite(v) ? Number.NaN : v * (scale ?? 1) + (offset ?? 0),
  );
}

/** The system that a file names in a grid mapping (CF conventions 1.10, section 5.6), or by degrees. */
function systemOf({ variables, attributes }: NetcdfFile, grid: NetcdfVariable, axis: NetcdfVariable) {
  const mapping = variables.find((v) => v.name === grid.attributes.grid_mapping);
  const places = [grid.attributes, mapping?.attributes ?? {}, attributes];
  for (const place of places) {
    const code = /^(?:epsg:)?(\d{4,5})$/i.exec(String(place.epsg_code ?? place.epsg ?? place.EPSG ?? ''))?.[1];
    if (code) return { crs: `EPSG:${code}` };
    const wkt = place.crs_wkt ?? place.spatial_ref ?? place.esri_pe_string;
    if (typeof wkt === 'string' && wkt.includes('[')) return { wkt };
  }
  return /^degree/i.test(String(axis.attributes.units ?? '')) ? { crs: 'EPSG:4326' } : {};
}

/**
 * The grid of a netCDF file, classic or HDF5: one variable of two dimensions with even coordinates along both.
 * @param wanted name of the variable, where there are several
 * @returns the grid, and the names of all variables that are grids
 */
export async function parseNetcdf(
  name: string,
  bytes: Uint8Array,
  wanted?: string,
): Promise<{ grid: GridFile; names: string[] }> {
  const refuse = (why: string, fix: string): never => {
    throw new LithagonError('netcdf', `${name} ${why}.`, { object: name, fix });
  };
  const file = await openNetcdf(name, bytes);
  try {
    const { variables } = file;
    const axes = variables.flatMap((v) => {
      const way = wayOf(v);
      return way ? [{ v, way }] : [];
    });
    const flat = (v: NetcdfVariable) => v.shape.filter((n) => n !== 1);
    const found = variables.flatMap((v) => {
      const shape = flat(v);
      if (shape.length !== 2 || shape.some((n) => n < 2)) return [];
      const names = v.dimensions?.filter((_, n) => v.shape[n] !== 1) ?? null;
      const along = (at: number) =>
        axes.filter(({ v: axis }) =>
          names ? (axis.dimensions?.[0] ?? axis.name) === names[at] : axis.shape[0] === shape[at],
        );
      const pairs = along(0).flatMap((a) =>
        along(1)
          .filter((b) => b.way !== a.way)
          .map((b) => ({ v, shape, first: a, second: b })),
      );
      // rows follow each other northwards or southwards in nearly all files, which decides where lengths do not
      const likely = pairs.find(({ first }) => first.way === 'y') ?? pairs[0];
      return likely ? [likely] : [];
    });
    const names = found.map(({ v }) => v.name);
    if (found.length === 0)
      return refuse(
        'holds no variable of two dimensions with coordinates along both',
        'A grid needs one, as the CF conventions have it: z(y, x) with x(x) and y(y).',
      );
    const chosen = found.find(({ v }) => v.name === wanted) ?? (wanted ? undefined : found[0]);
    if (!chosen) return refuse(`holds no grid “${wanted}”`, `It has: ${names.join(', ')}.`);
    const { v, shape, first, second } = chosen;
    if (shape[0] * shape[1] > MOST_CELLS)
      return refuse(`is ${shape.join(' × ')} cells`, 'Grids of up to 100 million cells are read.');
    const notes: string[] = [];
    const values = valuesOf(v, notes);
    if (values.length !== shape[0] * shape[1])
      return refuse('has fewer numbers than cells', 'It may have been cut short: copy it again.');
    const steps = { [first.way]: stepOf(name, first.v), [second.way]: stepOf(name, second.v) } as Record<
      Way,
      { first: number; step: number }
    >;
    const way = (of: Way): [number, number] => (of === 'x' ? [steps.x.step, 0] : [0, steps.y.step]);
    const unit = String(v.attributes.units ?? '');
    return {
      names,
      grid: {
        rows: shape[0],
        columns: shape[1],
        values,
        origin: [steps.x.first, steps.y.first],
        perRow: way(first.way),
        perColumn: way(second.way),
        ...systemOf(file, v, first.v),
        unit: unit || undefined,
        title: String(v.attributes.long_name ?? v.name),
        notes,
      },
    };
  } finally {
    file.close();
  }
}
