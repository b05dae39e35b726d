import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { headers } from './policy.mjs';
import { serve } from './serve.mjs';

const dir = mkdtempSync(join(tmpdir(), 'lithagon-serve-'));
let app;
let port;
beforeAll(async () => {
  for (const each of ['client/_astro', 'client/work', 'demo/files', 'demo/project/arrays', 'demo/files.part'])
    mkdirSync(join(dir, each), { recursive: true });
  writeFileSync(join(dir, 'client/index.html'), '<script>go()</script><p>start');
  writeFileSync(join(dir, 'client/work/index.html'), '<p>work');
  writeFileSync(join(dir, 'client/_astro/a.js'), 'a');
  writeFileSync(join(dir, 'client/.env'), 'secret');
  writeFileSync(join(dir, 'demo/files/a.las'), '0123456789');
  writeFileSync(join(dir, 'demo/files.part/half.las'), 'half');
  writeFileSync(join(dir, 'demo/project/project.json'), '{}');
  writeFileSync(join(dir, 'outside.txt'), 'secret');
  symlinkSync(join(dir, 'client/index.html'), join(dir, 'client/link.html'));
  app = await serve({ port: 0, client: join(dir, 'client'), demo: join(dir, 'demo') });
  port = app.server.address().port;
});
afterAll(async () => {
  await app.close();
  rmSync(dir, { recursive: true, force: true });
});

/** Send bytes as they are, and give back the whole answer. */
const raw = (text) =>
  new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1', () => socket.write(text));
    let answer = '';
    socket.on('data', (part) => {
      answer += part;
    });
    socket.on('close', () => resolve(answer));
    socket.on('error', (cause) => (answer ? resolve(answer) : reject(cause)));
    socket.setTimeout(5000, () => socket.destroy());
  });
const request = (method, path, more = '') =>
  raw(`${method} ${path} HTTP/1.1\r\nHost: a\r\nConnection: close\r\n${more}\r\n`);

const long = 'x'.repeat(40_000);
test.each([
  ['GET', '/', '', 200],
  ['HEAD', '/', '', 200],
  ['GET', '/work/', '', 200],
  ['GET', '/work/?project=1', '', 200],
  ['GET', '/work', '', 301],
  ['GET', '/_astro/a.js', '', 200],
  ['GET', '/link.html', '', 200],
  ['GET', '/demo/files/a.las', '', 200],
  ['GET', '/demo/files/a.las', 'Range: bytes=2-4\r\n', 206],
  ['GET', '/demo/files/a.las', 'Range: bytes=99-\r\n', 416],
  ['GET', '/demo/project/project.json', '', 200],
  ['HEAD', '/demo/project/project.json', '', 200],
  ['GET', '/demo/', '', 404],
  ['GET', '/demo/files/', '', 404],
  ['GET', '/demo/files.part/half.las', '', 404],
  ['GET', '/_image?href=/mark.svg&w=99999&f=avif', '', 404],
  ['GET', '/_server-islands/x', '', 404],
  ['GET', '/.env', '', 404],
  ['GET', '/nothing', '', 404],
  ['GET', '/_astro/', '', 404],
  ['GET', '/../outside.txt', '', 404],
  ['GET', '/..%2foutside.txt', '', 404],
  ['GET', '/%2e%2e/outside.txt', '', 404],
  ['GET', '/demo/files/..%2f..%2foutside.txt', '', 404],
  ['GET', '/demo/files/%2e%2e/%2e%2e/outside.txt', '', 404],
  ['GET', '//outside.txt', '', 404],
  ['GET', '/%zz', '', 400],
  ['GET', '/%00', '', 400],
  ['GET', '/', 'Expect: something\r\n', 200],
  ['POST', '/', 'Expect: 100-continue\r\nContent-Length: 9\r\n', 405],
  ['GET', `/${long}`, '', 431],
  ['GET', '/', `X: ${long}\r\n`, 431],
  ['BREW', '/', '', 400],
  ['POST', '/', 'Content-Length: 3\r\n\r\nabc', 405],
  ['POST', '/nothing', 'Content-Length: 0\r\n', 405],
  ['POST', '/', 'Content-Type: application/json\r\nContent-Length: 1\r\n\r\n{', 405],
  ['PUT', '/demo/files/a.las', 'Content-Length: 0\r\n', 405],
  ['DELETE', '/demo/files/a.las', '', 405],
  ['PATCH', '/', '', 405],
  ['OPTIONS', '/', '', 405],
  ['TRACE', '/', '', 405],
  ['PROPFIND', '/', '', 405],
])('%s %s %#', async (method, path, more, status) => {
  const answer = await request(method, path, more);
  const [head, body] = answer.split('\r\n\r\n');
  expect(Number(head.split(' ')[1])).toBe(status);
  const said = Object.fromEntries(
    head
      .split('\r\n')
      .slice(1)
      .map((line) => [line.slice(0, line.indexOf(':')).toLowerCase(), line.slice(line.indexOf(':') + 1).trim()]),
  );
  for (const name of Object.keys(headers([]))) expect(said[name], name).toBeTruthy();
  expect(said['content-security-policy']).toContain("script-src 'self' 'wasm-unsafe-eval' 'sha256-");
  expect(said['x-powered-by']).toBeUndefined();
  if (status === 405) expect(said.allow).toBe('GET, HEAD');
  expect(body).not.toContain('secret');
  expect(body ?? '').not.toMatch(/node_modules|at .*\.m?js|FST_/);
  if (method !== 'HEAD' && status >= 400 && status !== 416) expect(body).toMatch(/^[A-Z].*\.\s*$/);
});

test('files of the demo are served as soon as they are there, and how far it is can be asked', async () => {
  const late = join(dir, 'late');
  mkdirSync(late);
  const state = { files: 'making', project: 'missing', what: 'Shooting the survey', part: 0.25, problem: '' };
  const other = await serve({ port: 0, client: join(dir, 'client'), demo: late, demoState: () => state });
  const at = `http://127.0.0.1:${other.server.address().port}/demo`;
  expect(await (await fetch(`${at}/state.json`)).json()).toEqual(state);
  expect((await fetch(`${at}/files/a.las`)).status).toBe(404);
  mkdirSync(join(late, 'files'));
  writeFileSync(join(late, 'files/a.las'), 'now');
  expect(await (await fetch(`${at}/files/a.las`)).text()).toBe('now');
  await other.close();
  expect(JSON.parse((await request('GET', '/demo/state.json')).split('\r\n\r\n')[1])).toMatchObject({
    files: 'there',
    project: 'there',
  });
});

test('what the build has packed goes out packed to those who take it, and plain to others', async () => {
  writeFileSync(join(dir, 'client/_astro/b.js'), 'x'.repeat(5000));
  writeFileSync(join(dir, 'client/_astro/b.js.br'), brotliCompressSync(Buffer.from('x'.repeat(5000))));
  const packed = await request('GET', '/_astro/b.js', 'Accept-Encoding: gzip, br\r\n');
  expect(packed.toLowerCase()).toContain('content-encoding: br');
  expect(packed.length).toBeLessThan(3000);
  expect(packed.toLowerCase()).toContain('immutable');
  const plain = await request('GET', '/_astro/b.js');
  expect(plain).toContain('x'.repeat(5000));
  const unpacked = await request('GET', '/_astro/a.js', 'Accept-Encoding: br\r\n');
  expect(unpacked.toLowerCase()).not.toContain('content-encoding');
});

test('what is no request at all is refused in a sentence, and the server goes on', async () => {
  for (const text of ['\0\0\0\r\n\r\n', 'GET / HTTP/9.9\r\n\r\n', 'GET / HTTP/1.1\r\n\r\n']) {
    const answer = await raw(text);
    expect(answer).toMatch(/^HTTP\/1.1 400 /);
    expect(answer.toLowerCase()).toContain('x-content-type-options: nosniff');
  }
  expect(await request('GET', '/work/')).toContain('<p>work');
});
