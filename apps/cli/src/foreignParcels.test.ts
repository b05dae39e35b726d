import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { HOSTILE } from '../../../packages/core/src/testing/hostileParcels.ts';
import { call } from './testing/foreign.ts';
import { GOOD } from './testing/good.ts';

const dir = mkdtempSync(join(tmpdir(), 'lithagon-parcels-'));
const project = join(dir, 'project');
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** A project's objects as they leave one by one. */
async function leaving(from: string): Promise<string[]> {
  const listed = JSON.parse((await call('list', '--project', from, '--json')).out) as { name: string; kind: string }[];
  const extension = (kind: string) => ({ volume: 'sgy', logs: 'las', polygon: 'geojson' })[kind] ?? 'csv';
  const out: string[] = [];
  for (const { name, kind } of listed) {
    const to = join(dir, `out.${extension(kind)}`);
    expect((await call('export', `${kind}/${name}`, to, '--project', from)).code).toBe(0);
    out.push(`${kind} ${name} ${readFileSync(to).toString('base64')}`);
  }
  return out;
}

describe('parcels of others, on the command line', () => {
  let before: string[] = [];
  beforeAll(async () => {
    mkdirSync(join(dir, 'good'));
    for (const [file, { bytes, declare = [] }] of Object.entries(GOOD)) {
      writeFileSync(join(dir, 'good', file), bytes);
      const said = declare.flatMap((d) => ['--declare', d]);
      expect((await call('load', join(dir, 'good', file), '--project', project, ...said)).code).toBe(0);
    }
    before = await leaving(project);
    expect(before.length).toBe(5);
  });
  test('there are forty and more', () => {
    expect(HOSTILE.length).toBeGreaterThanOrEqual(40);
  });
  test('one that was written here opens with all that was in it', async () => {
    const parcel = join(dir, 'whole.parcel');
    expect((await call('export', '.', parcel, '--project', project)).code).toBe(0);
    const again = join(dir, 'again');
    expect((await call('load', parcel, '--project', again)).code).toBe(0);
    expect(await leaving(again)).toEqual(before);
  });
  test('one that is opened over a project is refused, and nothing is changed', async () => {
    const parcel = join(dir, 'whole.parcel');
    const { code, err } = await call('load', parcel, '--project', project);
    expect(code).toBe(1);
    expect(err).toMatch(/holds a project already\. Give a folder that does not exist yet/);
    expect(await leaving(project)).toEqual(before);
  });
  test.each(
    HOSTILE.map((parcel) => [parcel.name, parcel] as const),
  )('%s: opens whole, or is refused by a sentence that says what to do', async (_, parcel) => {
    const path = join(dir, 'foreign.parcel');
    const to = join(dir, 'foreign');
    rmSync(to, { recursive: true, force: true });
    writeFileSync(path, new Uint8Array(await (await parcel.make()).arrayBuffer()));
    const { code, out, err } = await call('load', path, '--project', to);
    if (code === 0) {
      expect(parcel.mayOpen).toBe(true);
      expect((await call('list', '--project', to)).code).toBe(0);
      expect(out).not.toBe('');
    } else {
      expect(code).toBe(1);
      expect(err).toMatch(/foreign\.parcel cannot be opened as a parcel: .+\. .+\./);
      expect(err).not.toMatch(/not foreseen|undefined/);
      // nothing that could be taken for a project is left
      expect(existsSync(join(to, 'project.json'))).toBe(false);
    }
  });
  test('what was there before is as it was', async () => {
    expect(await leaving(project)).toEqual(before);
    cpSync(project, join(dir, 'copy'), { recursive: true });
    expect(await leaving(join(dir, 'copy'))).toEqual(before);
  });
});
