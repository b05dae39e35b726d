// The production server: the built files behind Fastify, cross-origin isolated, on loopback. It gives out files and
// runs nothing, so that what a request can ask of it is bounded by what is there.
import { existsSync } from 'node:fs';
import { createServer, STATUS_CODES } from 'node:http';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import fastifyStatic from '@fastify/static';
import Fastify from 'fastify';
import { headers, inlineScriptHashes } from './policy.mjs';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

const SENTENCES = {
  400: 'This is no request that can be read.',
  404: 'There is nothing here.',
  405: 'Files can only be read here.',
  408: 'The request took too long.',
  431: 'The headers of the request are too long.',
  500: 'The server failed at this.',
};
/** What a status says to people; the server's own words are for its operator. */
const sentence = (status) => `${SENTENCES[status] ?? STATUS_CODES[status] ?? 'No.'}\n`;

/** A request that never came to be one, answered on its bare socket. */
function refuse(fixed, cause, socket) {
  if (cause.code === 'ECONNRESET' || !socket.writable) return void socket.destroy();
  const status = { HPE_HEADER_OVERFLOW: 431, ERR_HTTP_REQUEST_TIMEOUT: 408 }[cause.code] ?? 400;
  const body = sentence(status);
  const lines = Object.entries({
    ...fixed,
    'content-type': 'text/plain; charset=utf-8',
    'content-length': Buffer.byteLength(body),
    connection: 'close',
  }).map(([name, value]) => `${name}: ${value}`);
  socket.end(`HTTP/1.1 ${status} ${STATUS_CODES[status]}\r\n${lines.join('\r\n')}\r\n\r\n${body}`);
}

/** What of a demo folder is there, where nobody makes it. */
const found = (demo) => {
  const is = (part) => (existsSync(join(demo, part)) ? 'there' : 'missing');
  return { files: is('files'), project: is('project'), what: '', part: 0, problem: '' };
};

/**
 * Start serving. `client` is the folder of the built pages; `demo` one with `files/` and `project/`, served under /demo/
 * as soon as they are there; `demoState` says how far they are.
 */
export async function serve({
  port = 4173,
  host = '127.0.0.1',
  client = join(root, 'dist/client'),
  demo,
  demoState = () => found(demo),
} = {}) {
  const fixed = headers(inlineScriptHashes(client));
  const answer = (reply, status) => reply.code(status).type('text/plain; charset=utf-8').send(sentence(status));
  const app = Fastify({
    logger: false,
    // on the bare response, so that whoever answers, and with whatever status, they are there
    serverFactory: (handler) => {
      const take = (request, response) => {
        for (const [name, value] of Object.entries(fixed)) response.setHeader(name, value);
        if (request.headers.host || request.httpVersion === '1.0') return handler(request, response);
        response.writeHead(400, { 'content-type': 'text/plain; charset=utf-8', connection: 'close' });
        response.end(sentence(400));
      };
      // Node's own answers to these would carry no headers
      const server = createServer({ requireHostHeader: false }, take);
      return server.on('checkExpectation', take).on('checkContinue', take);
    },
    clientErrorHandler: (cause, socket) => refuse(fixed, cause, socket),
    frameworkErrors: (_cause, _request, reply) => answer(reply, 400),
  });
  app.addHook('onRequest', async (request, reply) => {
    if (request.method === 'GET' || request.method === 'HEAD') return;
    // what it would send is not waited for
    reply.header('allow', 'GET, HEAD').header('connection', 'close');
    return answer(reply, 405);
  });
  app.setErrorHandler((cause, _request, reply) => {
    const status = cause.statusCode ?? 500;
    return answer(reply, status === 403 ? 404 : status);
  });
  app.setNotFoundHandler((_request, reply) => answer(reply, 404));
  await app.register(fastifyStatic, {
    root: client,
    cacheControl: false,
    redirect: true,
    dotfiles: 'ignore',
    // what the build has packed beside each file
    preCompressed: true,
    setHeaders: (response, path) => {
      const cache = path.includes('/_astro/') ? 'public, max-age=31536000, immutable' : 'no-cache';
      response.setHeader('cache-control', cache);
    },
  });
  if (demo && existsSync(demo)) {
    await app.register(fastifyStatic, {
      root: resolve(demo),
      prefix: '/demo/',
      // what is half made has another name
      allowedPath: (path) => /^\/(files|project)\//.test(path),
      decorateReply: false,
      dotfiles: 'ignore',
      index: false,
      cacheControl: false,
    });
    app.get('/demo/state.json', (_request, reply) => reply.header('cache-control', 'no-store').send(demoState()));
  }
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
