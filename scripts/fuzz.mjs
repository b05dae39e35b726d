// Mutates good files of every kind and loads them: no crash, no hang, no half-loaded object, a sentence every time.
import { spawnSync } from 'node:child_process';
import { parseArgs } from 'node:util';

const { values } = parseArgs({
  options: { n: { type: 'string', default: '1000' }, seed: { type: 'string', default: '1' } },
});
const { status } = spawnSync('npx', ['vitest', 'run', 'packages/core/src/files/fuzz.test.ts'], {
  stdio: 'inherit',
  env: { ...process.env, FUZZ_N: values.n, FUZZ_SEED: values.seed },
});
process.exitCode = status ?? 1;
