// Packs what the build has made once, so that the server need not: beside each file that gains by it one in Brotli and one
// in gzip, for browsers that take nothing else.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { extname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const client = fileURLToPath(new URL('../dist/client', import.meta.url));
const PACKED = new Set(['.html', '.css', '.js', '.json', '.svg', '.wasm', '.webmanifest']);
/** Smaller files fit one packet anyhow. */
const LEAST = 1024;
/** Larger ones are packed less hard: the last tenth of a library takes longer than all else together. */
const LARGE = 150_000;

const [toBrotli, toGzip] = [promisify(brotliCompress), promisify(gzip)];

function* filesIn(dir) {
  for (const entry of readdirSync(dir, { withFileTypes: true })) {
    const path = join(dir, entry.name);
    if (entry.isDirectory()) yield* filesIn(path);
    else if (PACKED.has(extname(path)) && statSync(path).size >= LEAST) yield path;
  }
}

// each on a thread of its own
await Promise.all(
  Array.from(filesIn(client), async (path) => {
    const content = readFileSync(path);
    const quality = content.length > LARGE ? 9 : 11;
    const params = { [constants.BROTLI_PARAM_QUALITY]: quality, [constants.BROTLI_PARAM_SIZE_HINT]: content.length };
    writeFileSync(`${path}.br`, await toBrotli(content, { params }));
    writeFileSync(`${path}.gz`, await toGzip(content, { level: 9 }));
  }),
);
