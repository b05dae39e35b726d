import { resolve, sep } from 'node:path';
import { arrayKeySchema, idSchema } from '../earth/objects/common.ts';

/**
 * Where a key of an array, or a prefix of keys that ends with a slash, lies in a folder. A key that would lead out of the
 * folder is no key, whoever wrote it.
 */
export function placeOf(folder: string, key: string): string {
  const name = key.replace(/\/$/, '');
  const place = resolve(folder, name);
  if (!(arrayKeySchema.safeParse(name).success || idSchema.safeParse(name).success) || !place.startsWith(folder + sep))
    throw new Error(`“${key}” is no key of an array`);
  return place;
}
