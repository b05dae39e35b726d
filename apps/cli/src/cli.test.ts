import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineStep, forgetStep, number, registerStep } from '@lithagon/core';
import { afterAll, expect, test } from 'vitest';
import { z } from 'zod';
import { makeSegy, PLAIN_SEGY } from '../../../packages/core/src/testing/segyWriter.ts';
import { main } from './main.ts';
import type { Output } from './output.ts';

const dir = mkdtempSync(join(tmpdir(), 'lithagon-cli-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const project = join(dir, 'project');

writeFileSync(
  join(dir, 'a.sgy'),
  makeSegy(PLAIN_SEGY, (n) => Array.from({ length: n }, (_, k) => k)),
);
writeFileSync(join(dir, 'tops.csv'), 'well,top,md_m\nQN-1,Brack Top,600\n');
writeFileSync(join(dir, 'heads.csv'), 'well,x_m,y_m,kb_m\nQN-1,1050,2050,25\n');

async function call(...args: string[]) {
  const said = { out: '', err: '' };
  const write = (to: 'out' | 'err') => (text: string) => {
    said[to] += `${text}\n`;
  };
  const output: Output = { out: write('out'), err: write('err'), interactive: false };
  const code = await main(args, output);
  return { code, ...said, json: () => JSON.parse(said.out) };
}

test('inspect says what a file is and what must be declared', async () => {
  const { code, json } = await call('inspect', join(dir, 'a.sgy'), '--json');
  expect(code).toBe(0);
  const [report] = json();
  expect(report.takenFor).toBe('3D seismic volume');
  expect(report.positions[0]).toMatchObject({ inline: 189, crossline: 193, x: 181, y: 185 });
  expect(report.questions.map((q: { key: string }) => q.key)).toEqual(['domain', 'quantity']);
  expect(report.numbers).toEqual({
    revision: '1.0',
    format: 1,
    byteOrder: 'big',
    textEncoding: 'EBCDIC',
    traces: 42,
    samples: 30,
    interval: 4,
    start: 0,
    inlines: { first: 1, last: 6, step: 1, count: 6 },
    crosslines: { first: 11, last: 17, step: 1, count: 7 },
    bins: 42,
    live: 42,
    missing: 0,
    duplicate: 0,
    binM: [25, 25],
    residualM: expect.objectContaining({ rms: expect.closeTo(0, 6) }),
  });
});

test('load refuses what nobody has declared, then loads it; waiting objects are listed', async () => {
  const refused = await call('load', join(dir, 'a.sgy'), '--project', project, '--json');
  expect(refused.code).toBe(1);
  expect(refused.json().error).toMatchObject({ code: 'undeclared', object: 'a.sgy' });
  expect(refused.err).toContain('Declare domain=twt');
  const loaded = await call(
    'load',
    join(dir, 'a.sgy'),
    '--project',
    project,
    '--declare',
    'domain=twt',
    '--declare',
    'quantity=amplitude',
    '--declare',
    'crs=EPSG:32740',
    '--declare',
    'name=Full',
  );
  expect(loaded.code).toBe(0);
  await call('load', join(dir, 'tops.csv'), '--project', project);
  const before = (await call('list', '--project', project, '--json')).json();
  expect(before.find((o: { kind: string }) => o.kind === 'tops')).toMatchObject({
    name: 'QN-1 tops',
    waitingFor: 'the head of well QN-1',
    outOfDate: false,
  });
  await call('load', join(dir, 'heads.csv'), '--project', project);
  const after = (await call('list', '--project', project, '--json')).json();
  expect(after.find((o: { kind: string }) => o.kind === 'tops').waitingFor).toBeUndefined();
  expect(JSON.parse(readFileSync(join(project, 'project.json'), 'utf8')).facts.frame.crs).toBe('EPSG:32740');
});

test('do runs a step; show gives its trail', async () => {
  const done = await call(
    'do',
    'attributes.variance',
    '--project',
    project,
    '--in',
    'seismic=Full',
    '--set',
    'windowMs=20',
    '--name',
    'Var',
  );
  expect(done.err).toContain('attributes.variance');
  expect(done.code).toBe(0);
  const shown = (await call('show', 'volume/Var', '--project', project, '--json')).json();
  expect(shown.madeBy).toMatchObject({ step: 'attributes.variance', params: { windowMs: 20, radius: 1 } });
  expect(shown.outOfDate).toBe(false);
});

test('every step is listed with its parameters as JSON Schema', async () => {
  const { json } = await call('steps', 'attributes.variance', '--json');
  expect(json().params.properties.windowMs).toMatchObject({ unit: 'ms', minimum: 4, maximum: 200, default: 36 });
});

test('what is wrong is said by name, with the right exit code, and changes nothing', async () => {
  const before = readFileSync(join(project, 'project.json'), 'utf8');
  const cases: [string[], number, RegExp][] = [
    [['do', 'attributes.variance', '--project', project, '--in', 'seismic=Ful'], 1, /no object called “Ful”.*“Full”/],
    [
      ['do', 'attributes.variance', '--project', project, '--in', 'seismic=Full', '--set', 'windowMs=900'],
      1,
      /Window \(windowMs\) is more than 200 ms/,
    ],
    [['do', 'attributes.varience', '--project', project], 1, /no step called/],
    [['show', 'Nothing', '--project', project], 1, /no object called/],
    [['load', join(dir, 'missing.sgy'), '--project', project], 1, /There is no file/],
    [['load', join(dir, 'a.sgy'), '--project', project, '--declare', 'domain'], 2, /key=value/],
    [['list', '--project', join(dir, 'nowhere')], 1, /no project/],
    [['fly'], 2, /unknown command/],
    [['load', '--project', project], 2, /missing required argument/],
  ];
  for (const [args, code, sentence] of cases) {
    const result = await call(...args);
    expect(result.code, args.join(' ')).toBe(code);
    expect(result.err, args.join(' ')).toMatch(sentence);
  }
  expect(readFileSync(join(project, 'project.json'), 'utf8')).toBe(before);
});

test('a recipe that asks for what is not known is refused before anything is run', async () => {
  const recipe = join(dir, 'bad.recipe.json');
  const fresh = join(dir, 'fresh');
  writeFileSync(
    recipe,
    JSON.stringify({
      lithagon: 'recipe',
      version: 1,
      title: 'T',
      files: [{ file: 'a.sgy', declare: { domain: 'twt', quantity: 'amplitude' } }],
      steps: [
        { id: 'v', step: 'attributes.variance', name: 'V', inputs: { seismic: ['a'] }, params: { windowMs: -1 } },
      ],
    }),
  );
  const refused = await call('run', recipe, '--project', fresh);
  expect(refused.code).toBe(1);
  expect((await call('list', '--project', fresh, '--json')).json()).toEqual([]);
  const done = await call('run', recipe, '--project', fresh, '--set', 'v.windowMs=40');
  expect(done.code).toBe(0);
  expect((await call('list', '--project', fresh, '--json')).json().map((o: { name: string }) => o.name)).toEqual([
    'a',
    'V',
  ]);
});

test('a recipe reads nothing outside the folder of its files, by no name and no link', async () => {
  const files = join(dir, 'recipe-files');
  mkdirSync(files);
  writeFileSync(join(dir, 'secret.csv'), 'well,x_m,y_m,kb_m\nSECRET,1,2,3\n');
  symlinkSync(join(dir, 'secret.csv'), join(files, 'link.csv'));
  symlinkSync(dir, join(files, 'up'));
  for (const file of [
    '../secret.csv',
    join(dir, 'secret.csv'),
    'link.csv',
    'up/secret.csv',
    'a/../../secret.csv',
    '.',
  ]) {
    const recipe = join(files, 'r.recipe.json');
    writeFileSync(recipe, JSON.stringify({ lithagon: 'recipe', version: 1, title: 'T', files: [{ file }], steps: [] }));
    const to = join(dir, `outside-${Math.random()}`);
    const refused = await call('run', recipe, '--project', to);
    expect(refused.code, file).toBe(1);
    expect(refused.err, file).toMatch(/which is not in the folder of its files\. Nothing of it was read\./);
    expect((await call('list', '--project', to, '--json')).json(), file).toEqual([]);
  }
});

test('what is not there, or cannot be opened, is said as it is, and no folder is left', async () => {
  const never = join(dir, 'never-made');
  const missing = await call('load', join(dir, 'missing.parcel'), '--project', never);
  expect(missing.err).toContain('There is no file');
  writeFileSync(join(dir, 'no.parcel'), 'no parcel');
  const broken = await call('load', join(dir, 'no.parcel'), '--project', never);
  expect(broken.err).toContain('no.parcel cannot be opened as a parcel: it is no zip file, or was cut short.');
  expect(existsSync(never)).toBe(false);
});

test('what cannot be read is set aside by name, written out as it is, and thrown away', async () => {
  const copy = join(dir, 'with-bad');
  cpSync(project, copy, { recursive: true });
  const path = join(copy, 'project.json');
  const state = JSON.parse(readFileSync(path, 'utf8'));
  const bad = { ...state.objects[0], vertical: { ...state.objects[0].vertical, step: 0 } };
  const others = state.objects.slice(1);
  writeFileSync(path, JSON.stringify({ ...state, objects: [bad, ...others] }));
  const listed = await call('list', '--project', copy, '--json');
  expect(listed.json()).toHaveLength(others.length);
  expect(listed.err).toContain(`${bad.name} cannot be read and is set aside (vertical.step:`);
  // a change keeps it
  writeFileSync(join(dir, 'more.csv'), 'well,x_m,y_m,kb_m\nQN-99,1,2,3\n');
  expect((await call('load', join(dir, 'more.csv'), '--project', copy)).code).toBe(0);
  const out = join(dir, 'aside.json');
  await call('aside', '--project', copy, '--out', out);
  expect(JSON.parse(readFileSync(out, 'utf8'))[0].raw).toEqual(bad);
  expect((await call('aside', '--project', copy, '--discard')).out).toContain('thrown away');
  expect((await call('aside', '--project', copy)).out).toContain('Everything in the project can be read.');
  expect(existsSync(join(copy, 'project.lock'))).toBe(false);
});

test('export writes what fits, refuses what does not, and notes it in the ledger', async () => {
  const path = join(dir, 'path.csv');
  expect((await call('export', 'QN-1', path, '--project', project)).code).toBe(0);
  expect(readFileSync(path, 'utf8').split('\n')[0]).toBe('md_m,x_m,y_m,tvd_m,tvdss_m');
  const tops = join(dir, 'tops-out.csv');
  await call('export', 'QN-1 tops', tops, '--project', project);
  expect(readFileSync(tops, 'utf8')).toContain('QN-1,Brack Top,600,1050,2050,575,');
  const refused = await call('export', 'Full', join(dir, 'full.tif'), '--project', project);
  expect(refused.code).toBe(1);
  expect(refused.err).toContain('Full is a volume, which cannot be written as “.tif”');
  const { ledger } = JSON.parse(readFileSync(join(project, 'project.json'), 'utf8'));
  expect(ledger.filter((l: { what: string }) => l.what === 'out').map((l: { name: string }) => l.name)).toEqual([
    'QN-1',
    'QN-1 tops',
  ]);
});

test('a project is packed, opened elsewhere, and a parcel cut short is refused without a trace', async () => {
  const parcel = join(dir, 'whole.parcel');
  expect((await call('export', '.', parcel, '--project', project)).code).toBe(0);
  const copy = join(dir, 'copy');
  expect((await call('load', parcel, '--project', copy)).code).toBe(0);
  const names = async (at: string) =>
    (await call('list', '--project', at, '--json')).json().map((o: { name: string }) => o.name);
  expect(await names(copy)).toEqual(await names(project));
  const again = await call('load', parcel, '--project', copy);
  expect(again.code).toBe(1);
  expect(again.err).toContain('holds a project already');
  const cut = join(dir, 'cut.parcel');
  writeFileSync(cut, new Uint8Array(readFileSync(parcel)).subarray(0, 2000));
  const refused = await call('load', cut, '--project', join(dir, 'never'));
  expect(refused.code).toBe(1);
  expect(refused.err).toContain('cut.parcel cannot be opened as a parcel: it is no zip file, or was cut short');
  expect((await call('list', '--project', join(dir, 'never'))).code).toBe(1);
});

test('rebuild makes again what is out of date, and says when nothing is', async () => {
  expect((await call('rebuild', '--project', project)).out).toContain('Everything is up to date.');
  const file = join(project, 'project.json');
  const state = JSON.parse(readFileSync(file, 'utf8'));
  const full = state.objects.find((o: { name: string }) => o.name === 'Full');
  full.revision = 'another';
  writeFileSync(file, JSON.stringify(state));
  const old = (await call('show', 'volume/Var', '--project', project, '--json')).json();
  expect(old).toMatchObject({ outOfDate: true, why: 'Full has changed since' });
  expect((await call('rebuild', '--project', project)).out).toContain('made again: Var');
  const now = (await call('show', 'volume/Var', '--project', project, '--json')).json();
  expect(now).toMatchObject({ id: old.id, outOfDate: false });
  expect(now.revision).not.toBe(old.revision);
});

test('the trail of a result leaves as a recipe that makes it again elsewhere', async () => {
  const recipe = join(dir, 'var.recipe.json');
  await call('export', 'volume/Var', recipe, '--project', project);
  const elsewhere = join(dir, 'elsewhere');
  expect((await call('run', recipe, '--project', elsewhere, '--files', dir)).code).toBe(0);
  const [a, b] = await Promise.all(
    [project, elsewhere].map(async (at) => (await call('show', 'volume/Var', '--project', at, '--json')).json()),
  );
  expect(b.statistics).toEqual(a.statistics);
});

test('broken files get one sentence by name and leave the project as it was', async () => {
  const whole = new Uint8Array(readFileSync(join(dir, 'a.sgy')));
  writeFileSync(join(dir, 'cut.sgy'), whole.subarray(0, 3700));
  writeFileSync(join(dir, 'text.sgy'), 'this is no seismic at all\n'.repeat(300));
  writeFileSync(
    join(dir, 'empty.las'),
    '~Version\nVERS. 2.0 :\nWRAP. NO :\n~Well\nNULL. -999.25 :\n~Curve\nDEPT.M :\n~ASCII\n',
  );
  writeFileSync(join(dir, 'short.csv'), 'well,top\nQN-1,Brack Top\n');
  const before = readFileSync(join(project, 'project.json'), 'utf8');
  for (const name of ['cut.sgy', 'text.sgy', 'empty.las', 'short.csv']) {
    const refused = await call(
      'load',
      join(dir, name),
      '--project',
      project,
      '--declare',
      'domain=twt',
      '--declare',
      'quantity=amplitude',
    );
    expect(refused.code, name).toBe(1);
    expect(refused.err, name).toContain(name);
    expect(refused.err.trim().split('\n').length, name).toBe(1);
  }
  expect(readFileSync(join(project, 'project.json'), 'utf8')).toBe(before);
});

test('a step made up on the spot is listed and run like any other', async () => {
  const params = z.object({
    by: number({ title: 'Factor', description: 'What samples are multiplied by.' }, { min: -9, max: 9, initial: 2 }),
  });
  registerStep(
    defineStep({
      id: 'volumes.note',
      version: 1,
      stage: 'volumes',
      title: 'Note',
      summary: 'Says a number.',
      source: 'Made up (2026)',
      reach: 'global',
      inputs: { seismic: { kind: 'volume', title: 'Seismic' } },
      params,
      outputs: { table: { kind: 'result table', title: 'Number' } },
      run: async ({ params: p }) => ({
        table: { kind: 'result table', columns: [{ name: 'Number', unit: '' }], rows: [[p.by]] },
      }),
    }),
  );
  const { json } = await call('steps', 'volumes.note', '--json');
  expect(json().params.properties.by).toMatchObject({ title: 'Factor', minimum: -9, maximum: 9, default: 2 });
  const done = await call(
    'do',
    'volumes.note',
    '--project',
    project,
    '--in',
    'seismic=Full',
    '--set',
    'by=3',
    '--name',
    'Three',
  );
  expect(done.code).toBe(0);
  expect((await call('show', 'Three', '--project', project, '--json')).json().rows).toEqual([[3]]);
  forgetStep('volumes.note');
});
