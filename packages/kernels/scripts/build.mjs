// Compiles the kernels to WebAssembly with SIMD and no runtime, and embeds the bytes so that every host loads them alike.
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import asc from 'assemblyscript/asc';

process.chdir(new URL('..', import.meta.url).pathname);
const newest = Math.max(...readdirSync('assembly').map((name) => statSync(`assembly/${name}`).mtimeMs));
const out = 'build/kernels.wasm';
let fresh = false;
try {
  fresh = statSync(out).mtimeMs > newest && statSync('src/generated/bytes.ts').mtimeMs > newest;
} catch {}
if (!fresh) {
  mkdirSync('build', { recursive: true });
  mkdirSync('src/generated', { recursive: true });
  const { error, stderr } = await asc.main([
    'assembly/index.ts',
    '--outFile',
    out,
    '-O3',
    '--noAssert',
    '--converge',
    '--runtime',
    'stub',
    '--enable',
    'simd',
    '--importMemory',
    '--initialMemory',
    '2',
  ]);
  if (error) {
    console.error(stderr.toString());
    throw error;
  }
  const base64 = readFileSync(out).toString('base64');
  writeFileSync(
    'src/generated/bytes.ts',
    `/** The compiled kernels, made by scripts/build.mjs. */\nexport const BYTES =\n  '${base64}';\n`,
  );
  console.log(`kernels: ${readFileSync(out).length} bytes`);
}
