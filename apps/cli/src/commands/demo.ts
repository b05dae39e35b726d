import { copyFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeField } from '@lithagon/quillon';
import { type Output, progressLine } from '../output.ts';

/** Write the Quillon files, their truth, and the recipe that works them up. */
export async function demo(dir: string, seed: number, size: 'full' | 'small', output: Output): Promise<void> {
  const onProgress = progressLine(output);
  const { files } = await writeField(dir, { seed, size, onProgress: (what, part) => onProgress(part, what) });
  copyFileSync(fileURLToPath(new URL('../../quillon.recipe.json', import.meta.url)), join(dir, 'quillon.recipe.json'));
  output.out(`${files.length} files of the Quillon field, seed ${seed}, in ${dir}`);
}
