import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Where the small demo field is made for these tests (by `serve.mjs`). */
export const DEMO = join(fileURLToPath(new URL('../..', import.meta.url)), 'test-results/demo');
