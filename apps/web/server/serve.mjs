// The production server: Astro's handler and the built files behind Fastify, cross-origin isolated, on loopback.
import { existsSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import fastifyStatic from '@fastify/static';
import Fastify from 'fastify';
import { headers, inlineScriptHashes } from './policy.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

/** Start serving. `demo` is a folder with `files/` and `project/`, served read-only under /demo/ where it is there. */
export async function serve({ port = 4173, host = '127.0.0.1', demo } = {}) {
  const client = join(root, 'dist/client');
  const { handler } = await import(join(root, 'dist/server/entry.mjs'));
  const fixed = headers(inlineScriptHashes(client));
  const app = Fastify({ logger: false });
  app.addHook('onRequest', async (_request, reply) => {
    // raw headers, so that Astro's own responses carry them too
    for (const [name, value] of Object.entries(fixed)) reply.raw.setHeader(name, value);
  });
  await app.register(fastifyStatic, {
    root: client,
    cacheControl: false,
    decorateReply: true,
    setHeaders: (response, path) => {
      const cache = path.includes('/_astro/') ? 'public, max-age=31536000, immutable' : 'no-cache';
      response.setHeader('cache-control', cache);
    },
  });
  if (demo && existsSync(demo))
    await app.register(fastifyStatic, {
      root: resolve(demo),
      prefix: '/demo/',
      decorateReply: false,
      dotfiles: 'deny',
    });
  // what is no file is Astro's to answer
  app.setNotFoundHandler((request, reply) => {
    reply.hijack();
    handler(request.raw, reply.raw, () => {
      reply.raw.statusCode = 404;
      reply.raw.end('There is nothing here.');
    });
  });
  await app.listen({ port, host });
  return app;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const option = (name, fallback) => {
    const at = process.argv.indexOf(`--${name}`);
    return at > 0 ? process.argv[at + 1] : fallback;
  };
  const port = Number(option('port', '4173'));
  const host = option('host', '127.0.0.1');
  await serve({ port, host, demo: option('demo', join(root, '../../demo-data')) });
  console.log(`Lithagon is at http://${host}:${port}/`);
}
