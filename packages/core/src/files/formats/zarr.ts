import { zipNames } from '../../formats/zip.ts';
import { blank } from '../inspecting.ts';
import { inspectZarr, objectsOfZarr } from '../loadZarr.ts';
import { defineFormat } from './define.ts';

export const zarr = defineFormat({
  name: 'Zarr',
  async sniff({ mark, source }) {
    if (mark !== 0x504b0304 && mark !== 0x504b0506) return 0;
    const names = await zipNames(source).catch(() => null);
    // what was cut short is refused by the reader of what most zip files here are
    return !names || names.some((n) => /(^|\/)(zarr\.json|\.zarray|\.zgroup)$/.test(n)) ? 8 : 0;
  },
  inspect: async (source) => ({ ...blank(source, 'Zarr', ''), ...(await inspectZarr(source)) }),
  load: objectsOfZarr,
});
