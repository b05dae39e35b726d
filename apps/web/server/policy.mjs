// The headers that every response carries, and the content security policy written out from what the pages need.
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Hashes of the inline scripts of the built pages: the only inline scripts that may run. */
export function inlineScriptHashes(clientDir) {
  const hashes = new Set();
  const visit = (dir) => {
    for (const entry of readdirSync(dir, { withFileTypes: true })) {
      const path = join(dir, entry.name);
      if (entry.isDirectory()) visit(path);
      else if (entry.name.endsWith('.html'))
        for (const [, body] of readFileSync(path, 'utf8').matchAll(/<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g))
          if (body) hashes.add(`'sha256-${createHash('sha256').update(body).digest('base64')}'`);
    }
  };
  visit(clientDir);
  return [...hashes];
}

export function headers(scriptHashes) {
  return {
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-embedder-policy': 'require-corp',
    'cross-origin-resource-policy': 'same-origin',
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'no-referrer',
    'content-security-policy': [
      "default-src 'self'",
      `script-src 'self' 'wasm-unsafe-eval' ${scriptHashes.join(' ')}`,
      // docking and dialogs set positions as styles
      "style-src 'self' 'unsafe-inline'",
      "img-src 'self' data: blob:",
      "font-src 'self'",
      "connect-src 'self'",
      "worker-src 'self'",
      "object-src 'none'",
      "base-uri 'none'",
      "form-action 'self'",
      "frame-ancestors 'none'",
    ].join('; '),
  };
}
