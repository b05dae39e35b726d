import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { makeField } from '../model/field.ts';
import { fromMap } from '../model/survey.ts';
import { type Format, type SegyLayout, toIbm, writeSegy } from './segy.ts';
import { writeCsv, writeJson, writeLas } from './text.ts';
import { writeWells } from './wellFiles.ts';

let dir: string;
beforeAll(() => {
  dir = mkdtempSync(join(tmpdir(), 'quillon-'));
});
afterAll(() => rmSync(dir, { recursive: true }));
const text = (name: string) => readFileSync(join(dir, name), 'utf8');

describe('SEG-Y', () => {
  const layout: SegyLayout = {
    format: 5,
    littleEndian: false,
    revision: 1,
    inline: 189,
    crossline: 193,
    x: 181,
    y: 185,
    scalar: -100,
    text: ['Made-up', 'second line'],
    sampleMs: 4,
    samples: 5,
  };
  const heads = [
    { inline: 1003, crossline: 2001, x: 512345.67, y: 7641900.25 },
    { inline: 1003, crossline: 2002, x: 512370.67, y: 7641900.25 },
  ];
  const write = (more: Partial<SegyLayout> = {}, some = heads) => {
    const path = join(dir, 'a.sgy');
    writeSegy(path, { ...layout, ...more }, some, (n, out) => {
      for (let k = 0; k < out.length; k++) out[k] = 100 * n + k - 2.5;
    });
    return readFileSync(path);
  };

  test('has headers of their lengths, and traces one after the other', () => {
    const file = write();
    expect(file.length).toBe(3600 + 2 * (240 + 20));
    // text in EBCDIC: C, space, 1, space, M
    expect([...file.subarray(0, 5)]).toEqual([0xc3, 0x40, 0xf1, 0x40, 0xd4]);
    expect(file[80]).toBe(0xc3);
    expect([file.readInt16BE(3216), file.readInt16BE(3220), file.readInt16BE(3224)]).toEqual([4000, 5, 5]);
    expect(file.readUInt16BE(3500)).toBe(0x0100);
    for (const [n, head] of heads.entries()) {
      const at = 3600 + n * 260;
      expect(file.readInt32BE(at)).toBe(n + 1);
      expect([file.readInt32BE(at + 188), file.readInt32BE(at + 192)]).toEqual([head.inline, head.crossline]);
      expect(file.readInt16BE(at + 70)).toBe(-100);
      expect([file.readInt32BE(at + 180) / 100, file.readInt32BE(at + 184) / 100]).toEqual([head.x, head.y]);
      expect(file.readFloatBE(at + 240 + 8)).toBe(100 * n - 0.5);
    }
  });
  test('of the other byte order says so by its order, and keeps numbers where it is told to', () => {
    const file = write({ littleEndian: true, revision: 2, inline: 9, crossline: 21, x: 73, y: 77, scalar: 1 });
    expect(file.readUInt32LE(3296)).toBe(16909060);
    expect(file.readUInt16LE(3500)).toBe(0x0200);
    expect([file.readInt32LE(3608), file.readInt32LE(3620)]).toEqual([1003, 2001]);
    expect([file.readInt32LE(3672), file.readInt32LE(3676)]).toEqual([512346, 7641900]);
    expect(file.readFloatLE(3840)).toBe(-2.5);
  });
  test('of whole numbers scales them, and cuts what does not fit', () => {
    const file = write({ format: 3 as Format, sampleScale: 0.5 });
    expect(file.length).toBe(3600 + 2 * (240 + 10));
    expect([0, 1, 2].map((k) => file.readInt16BE(3840 + 2 * k))).toEqual([-5, -3, -1]);
    const tight = write({ format: 3 as Format, sampleScale: 1e-6 });
    expect(tight.readInt16BE(3840)).toBe(-32767);
  });
  test('of IBM floats holds the standard’s own example, and rounds up into the next power', () => {
    expect(toIbm(-118.625)).toBe(0xc276a000);
    expect([toIbm(1), toIbm(0), toIbm(Number.NaN), toIbm(0.0625)]).toEqual([0x41100000, 0, 0, 0x40100000]);
    // all bits of the fraction set, and a little more
    expect(toIbm(16 - 1e-9)).toBe(0x42100000);
  });
  test('of a line has its shotpoint and CDP, and no lines of a survey', () => {
    const file = write({}, [{ inline: 0, crossline: 0, x: 1, y: 2, shotpoint: 1042, cdp: 185 } as never]);
    expect([file.readInt32BE(3620), file.readInt32BE(3796)]).toEqual([185, 1042]);
    expect(file.readInt32BE(3788)).toBe(0);
  });
  test('of more traces than a batch goes on where the last one ended', () => {
    const many = Array.from({ length: 450 }, (_, n) => ({ inline: 1, crossline: n, x: n, y: n }));
    const file = write({}, many);
    expect(file.length).toBe(3600 + 450 * 260);
    for (const n of [199, 200, 399, 449]) {
      expect(file.readInt32BE(3600 + n * 260 + 192)).toBe(n);
      expect(file.readFloatBE(3600 + n * 260 + 240)).toBe(100 * n - 2.5);
    }
  });
});

describe('tables', () => {
  test('write what is not there as nothing, and numbers to their places', () => {
    writeCsv(
      join(dir, 't.csv'),
      ['well', ['md_m', 2], 'n'],
      [
        ['A', 1.005, 7],
        ['B', Number.NaN, null],
      ],
    );
    expect(text('t.csv')).toBe('well,md_m,n\nA,1.00,7\nB,,\n');
    writeJson(join(dir, 't.json'), { a: [1] });
    expect(JSON.parse(text('t.json'))).toEqual({ a: [1] });
  });
  test('LAS has its sections in order, a step that leads from first to last, and a row for each depth', () => {
    const depth = Float64Array.from({ length: 11 }, (_, n) => 100 + 0.5 * n);
    const values = depth.map((d) => d * 2);
    values[3] = -999.25;
    const curves = [{ mnemonic: 'GR', unit: 'GAPI', description: 'Gamma ray', values }];
    const log = { well: 'W-1', depth, depthUnit: 'M', nullValue: -999.25, curves };
    writeLas(join(dir, 'w.las'), log as never, { field: 'Quillon', kb: 25 });
    const las = text('w.las');
    expect([...las.matchAll(/^~(\w)/gm)].map((m) => m[1]).join('')).toBe('VWPCA');
    const of = (m: string) => Number(new RegExp(`^${m}\\s*\\.\\S*\\s+(\\S+) :`, 'm').exec(las)?.[1]);
    expect([of('STRT'), of('STOP'), of('STEP'), of('NULL'), of('EKB')]).toEqual([100, 105, 0.5, -999.25, 25]);
    const rows = las.slice(las.indexOf('~ASCII')).trim().split('\n').slice(1);
    expect(rows).toHaveLength(11);
    expect(rows[3].trim().split(/\s+/).map(Number)).toEqual([101.5, -999.25]);
  });
});

describe.each([1, 4])('the wells of seed %i', (seed) => {
  let made: { file: string; kind: string }[];
  const rows = (name: string) => {
    const [head, ...lines] = text(name).trim().split('\n');
    const names = head.split(',');
    return lines.map((line) => Object.fromEntries(line.split(',').map((cell, n) => [names[n], cell])));
  };
  beforeAll(() => {
    made = writeWells(dir, makeField(seed));
  });
  test('come in files that are all declared, and name no well that has no head', () => {
    const wells = new Set(rows('well-heads.csv').map((r) => r.well));
    expect([...wells]).toEqual(['QN-1', 'QN-2', 'QN-3', 'QN-4', 'QN-5']);
    for (const { file } of made.filter((f) => f.file.endsWith('.csv')))
      for (const row of rows(file)) if (row.well !== undefined) expect(wells).toContain(row.well);
    expect(made.filter((f) => f.file.endsWith('.las'))).toHaveLength(5);
  });
  test('stand inside the survey', () => {
    for (const row of rows('well-heads.csv')) {
      const [u, v] = fromMap(Number(row.x_m), Number(row.y_m));
      expect(u).toBeGreaterThan(0);
      expect(u).toBeLessThan(4975);
      expect(v).toBeGreaterThan(0);
      expect(v).toBeLessThan(3975);
    }
  });
  test('have surveys and tops that go down, within their total depth', () => {
    const total = new Map(rows('well-heads.csv').map((r) => [r.well, Number(r.total_depth_md_m)]));
    for (const file of ['well-surveys.csv', 'well-tops.csv']) {
      let [well, md] = ['', 0];
      for (const row of rows(file)) {
        const next = Number(row.md_m);
        if (row.well === well) expect(next).toBeGreaterThanOrEqual(md);
        expect(next).toBeLessThanOrEqual(total.get(row.well) ?? 0);
        [well, md] = [row.well, next];
      }
    }
  });
});
