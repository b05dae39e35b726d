import type { Store } from '@lithagon/core';
import { type FolderOptions, folderStore } from '@lithagon/core/node';
import type { Output } from './output.ts';

/** Work on a project folder, which is let go of at the end; what in it cannot be read is named. */
export async function withProject<T>(
  dir: string,
  options: FolderOptions,
  output: Output,
  work: (store: Store) => Promise<T>,
): Promise<T> {
  const store = await folderStore(dir, options);
  try {
    for (const { name, why } of await store.aside())
      output.err(`${name} cannot be read and is set aside (${why}). “lithagon aside” writes it out or throws it away.`);
    return await work(store);
  } finally {
    await store.close?.();
  }
}
