import { LithagonError } from '../../earth/errors.ts';

/** A variable of a netCDF file, with what is needed to read a grid from it. */
export interface NetcdfVariable {
  name: string;
  shape: number[];
  /** Names of its dimensions; null where the file does not give them. */
  dimensions: string[] | null;
  attributes: Record<string, string | number | number[]>;
  read(): ArrayLike<number>;
}

export interface NetcdfFile {
  variables: NetcdfVariable[];
  attributes: NetcdfVariable['attributes'];
  close(): void;
}

const textOf = (value: unknown) => (typeof value === 'string' ? value.replace(/\0+$/, '') : value);

function refuse(name: string, why: string): never {
  throw new LithagonError('netcdf', `${name} cannot be read as netCDF: ${why}.`, {
    object: name,
    fix: 'It may have been cut short: copy it again.',
  });
}

/** A file of the classic format (netCDF-3, also with 64-bit offsets), through netcdfjs. */
async function classic(name: string, bytes: Uint8Array): Promise<NetcdfFile> {
  if (bytes[3] > 2) refuse(name, `its version ${bytes[3]} of the classic format is none that is read`);
  const { NetCDFReader } = await import('netcdfjs');
  try {
    const file = new NetCDFReader(bytes);
    const attributesOf = (list: { name: string; value: unknown }[]) =>
      Object.fromEntries(list.map(({ name: key, value }) => [key, textOf(value)])) as NetcdfVariable['attributes'];
    return {
      attributes: attributesOf(file.globalAttributes),
      variables: file.variables
        .filter((v) => v.type !== 'char')
        .map((v) => ({
          name: v.name,
          shape: v.dimensions.map((d) => file.dimensions[d].size || (file.recordDimension.length ?? 0)),
          dimensions: v.dimensions.map((d) => file.dimensions[d].name),
          attributes: attributesOf(v.attributes),
          read: () => (file.getDataVariable(v) as number[] | number[][]).flat() as number[],
        })),
      close: () => undefined,
    };
  } catch (cause) {
    return refuse(name, (cause as Error).message.replace(/\.$/, '').slice(0, 120));
  }
}

/** A file of HDF5 (netCDF-4), through h5wasm; of its first group only. */
async function hdf5(name: string, bytes: Uint8Array): Promise<NetcdfFile> {
  const h5 = (await import('h5wasm')).default;
  const library = await h5.ready;
  const { FS } = library;
  // what is damaged is told by what is thrown, and not on the console
  library.activate_throwing_error_handler();
  const path = `in-${crypto.randomUUID()}.h5`;
  FS.writeFile(path, bytes);
  const gone = () => FS.unlink(path);
  try {
    const file = new h5.File(path, 'r');
    const attributesOf = (attrs: Record<string, { value: unknown }>) => {
      const out: NetcdfVariable['attributes'] = {};
      for (const key of Object.keys(attrs)) {
        if (['DIMENSION_LIST', 'REFERENCE_LIST'].includes(key)) continue;
        const value = attrs[key].value;
        if (typeof value === 'string' || typeof value === 'number') out[key] = textOf(value) as string | number;
        else if (ArrayBuffer.isView(value)) {
          const all = Array.from(value as unknown as ArrayLike<number>, Number);
          out[key] = all.length === 1 ? all[0] : all;
        } else if (Array.isArray(value) && typeof value[0] === 'string') out[key] = textOf(value[0]) as string;
      }
      return out;
    };
    // dimensions are scales that are attached to an axis, or a scale by itself
    const dimensionsOf = (item: InstanceType<typeof h5.Dataset>, key: string, rank: number): string[] | null => {
      if (String((item.attrs.CLASS as { value?: unknown } | undefined)?.value ?? '').startsWith('DIMENSION_SCALE'))
        return [key];
      const names: string[] = [];
      for (let axis = 0; axis < rank; axis++) {
        const [scale] = item.get_attached_scales(axis);
        if (!scale) return null;
        names.push(scale.replace(/^\//, ''));
      }
      return names;
    };
    const variables: NetcdfVariable[] = [];
    for (const key of file.keys()) {
      const item = file.get(key);
      if (!(item instanceof h5.Dataset) || typeof item.dtype !== 'string' || !/^[<>|]?[fiubhlqBHILQd]/.test(item.dtype))
        continue;
      const shape = item.shape ?? [];
      variables.push({
        name: key,
        shape,
        dimensions: dimensionsOf(item, key, shape.length),
        attributes: attributesOf(item.attrs as never),
        read: () => Array.from(item.value as ArrayLike<number | bigint>, Number),
      });
    }
    return {
      variables,
      attributes: attributesOf(file.attrs as never),
      close: () => {
        file.close();
        gone();
      },
    };
  } catch (cause) {
    gone();
    return refuse(name, (cause as Error).message.slice(0, 120) || 'its HDF5 is damaged');
  }
}

/** The variables of a netCDF file, classic or HDF5, told apart by its first bytes. */
export async function openNetcdf(name: string, bytes: Uint8Array): Promise<NetcdfFile> {
  const file = await (bytes[0] === 0x43 ? classic(name, bytes) : hdf5(name, bytes));
  // what a header says may lie beyond the end of the file, which shows when it is read
  const variables = file.variables.map((v) => ({
    ...v,
    read: () => {
      try {
        return v.read();
      } catch {
        return refuse(name, `the numbers of “${v.name.slice(0, 60)}” cannot be read`);
      }
    },
  }));
  return { ...file, variables };
}
