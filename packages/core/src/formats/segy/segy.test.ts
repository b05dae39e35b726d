import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { toMap } from '../../earth/binGrid.ts';
import type { Volume } from '../../earth/objects.ts';
import { inspectFile } from '../../files/inspect.ts';
import { loadFile } from '../../files/load.ts';
import { memoryStore } from '../../storage/memory.ts';
import { readPlane } from '../../storage/planes.ts';
import { exactValue, type MadeSegy, makeSegy } from '../../testing/segyWriter.ts';
import { memorySource } from '../source.ts';

const noCrs = async () => [];
const layouts = [
  { inline: 189, crossline: 193, x: 181, y: 185 },
  { inline: 9, crossline: 21, x: 73, y: 77 },
  { inline: 9, crossline: 21, x: 81, y: 85 },
  { inline: 221, crossline: 225, x: 201, y: 205 },
  { inline: 181, crossline: 185, x: 189, y: 193 },
];

/** Any survey that a SEG-Y file may hold, small enough to check every sample. */
const anySegy = fc
  .record({
    format: fc.constantFrom(1, 2, 3, 5, 6, 8, 10, 11, 16),
    littleEndian: fc.boolean(),
    revision: fc.constantFrom(0, 1, 2) as fc.Arbitrary<0 | 1 | 2>,
    ni: fc.integer({ min: 5, max: 14 }),
    nj: fc.integer({ min: 5, max: 14 }),
    firstInline: fc.integer({ min: 1, max: 9000 }),
    firstCrossline: fc.integer({ min: 1, max: 9000 }),
    stepInline: fc.integer({ min: 1, max: 5 }),
    stepCrossline: fc.integer({ min: 1, max: 5 }),
    samples: fc.integer({ min: 8, max: 40 }),
    intervalUs: fc.constantFrom(500, 1000, 2000, 4000),
    bytes: fc.constantFrom(...layouts),
    scalar: fc.constantFrom(-100, -10, 1),
    angle: fc.oneof(fc.constantFrom(0, 90, 180, 270), fc.integer({ min: 0, max: 359 })),
    bin: fc.constantFrom(12.5, 25, 37.5),
    flip: fc.boolean(),
    order: fc.constantFrom('inline', 'crossline', 'shuffled') as fc.Arbitrary<MadeSegy['order']>,
    gaps: fc.array(fc.nat(), { maxLength: 4 }),
    doubles: fc.array(fc.nat(), { maxLength: 3 }),
    ascii: fc.boolean(),
    extended: fc.integer({ min: 0, max: 2 }),
    delayMs: fc.constantFrom(0, 200, 1000),
    seed: fc.nat(),
  })
  .map((r): { spec: MadeSegy; seed: number } => {
    const line = (first: number, step: number, n: number) => Array.from({ length: n }, (_, k) => first + k * step);
    const c = Math.cos((r.angle * Math.PI) / 180) * r.bin;
    const s = Math.sin((r.angle * Math.PI) / 180) * r.bin;
    const sign = r.flip ? -1 : 1;
    // corners stay, so that the range of line numbers does
    const inner = (n: number) => (1 + (n % (r.ni - 2))) * r.nj + 1 + (n % (r.nj - 2));
    const missing = new Set(r.gaps.map(inner));
    return {
      seed: r.seed,
      spec: {
        ...r,
        inlines: line(r.firstInline, r.stepInline, r.ni),
        crosslines: line(r.firstCrossline, r.stepCrossline, r.nj),
        origin: [500000, 7600000],
        perCrossline: [c, s],
        perInline: [-s * sign, c * sign],
        missing,
        twice: new Set(r.doubles.map(inner).filter((b) => !missing.has(b))),
        extended: r.revision > 0 ? r.extended : 0,
      },
    };
  });

const shuffleBy = (seed: number) => (n: number) => {
  const out = Array.from({ length: n }, (_, k) => k);
  let state = seed || 1;
  for (let k = n - 1; k > 0; k--) {
    state = (Math.imul(state, 1103515245) + 12345) >>> 0;
    const m = state % (k + 1);
    [out[k], out[m]] = [out[m], out[k]];
  }
  return out;
};

describe('SEG-Y', () => {
  test('220 made variants are found, fitted and read to the last sample', async () => {
    await fc.assert(
      fc.asyncProperty(anySegy, async ({ spec, seed }) => {
        const bytes = makeSegy(spec, shuffleBy(seed));
        const store = memoryStore();
        const declare = { domain: 'twt', quantity: 'attribute' };
        const { objects } = await loadFile(memorySource('made.sgy', bytes), declare, { store, crsTable: noCrs });
        const volume = objects[0] as Volume;
        const [ni, nj] = [spec.inlines.length, spec.crosslines.length];
        // inline and crossline may be told apart only by where they stand: the earlier is taken for the inline
        expect(volume.binGrid.inline).toEqual({
          first: spec.inlines[0],
          step: spec.inlines[1] - spec.inlines[0],
          count: ni,
        });
        expect(volume.binGrid.crossline).toEqual({
          first: spec.crosslines[0],
          step: spec.crosslines[1] - spec.crosslines[0],
          count: nj,
        });
        expect(volume.traces).toEqual({
          live: ni * nj - spec.missing.size,
          missing: spec.missing.size,
          duplicate: spec.twice.size,
        });
        expect(volume.vertical).toEqual({ first: spec.delayMs, step: spec.intervalUs / 1000, count: spec.samples });
        const [x, y] = toMap(volume.binGrid, ni - 1, nj - 1);
        const far = [0, 1].map((c) => spec.origin[c] + (ni - 1) * spec.perInline[c] + (nj - 1) * spec.perCrossline[c]);
        expect(Math.hypot(x - far[0], y - far[1])).toBeLessThan(1);
        for (let i = 0; i < ni; i++) {
          const line = await readPlane(store, volume, 'inline', i);
          for (let j = 0; j < nj; j++)
            for (let k = 0; k < spec.samples; k++) {
              const value = line[j * spec.samples + k];
              if (spec.missing.has(i * nj + j)) expect(value).toBeNaN();
              else if (value !== exactValue(spec.format, i, j, k)) expect(value).toBe(exactValue(spec.format, i, j, k));
            }
        }
        const j = nj >> 1;
        const k = spec.samples >> 1;
        const crossline = await readPlane(store, volume, 'crossline', j);
        const slice = await readPlane(store, volume, 'slice', k);
        for (let i = 0; i < ni; i++) expect(crossline[i * spec.samples + k]).toEqual(slice[i * nj + j]);
      }),
      { numRuns: 220, seed: 20260504 },
    );
  });

  const plain: MadeSegy = {
    format: 5,
    littleEndian: false,
    revision: 1,
    inlines: [10, 11, 12, 13, 14, 15],
    crosslines: [20, 21, 22, 23, 24, 25],
    samples: 12,
    intervalUs: 4000,
    bytes: layouts[0],
    scalar: 1,
    origin: [0, 0],
    perInline: [0, 25],
    perCrossline: [25, 0],
    order: 'inline',
    missing: new Set(),
    twice: new Set(),
    ascii: false,
    extended: 0,
    delayMs: 0,
  };
  const straight = (n: number) => Array.from({ length: n }, (_, k) => k);

  test('a file cut short offers its whole traces and says so', async () => {
    const bytes = makeSegy(plain, straight);
    const report = await inspectFile(memorySource('cut.sgy', bytes.subarray(0, bytes.length - 30)));
    expect(report.refused).toBeUndefined();
    expect(report.problems.join(' ')).toContain(
      'The last trace is cut short: 258 bytes of it are there. The 35 whole traces can be used.',
    );
    expect(report.problems.join(' ')).toContain('1 of 36 bins have no trace');
  });

  test('what cannot be read is refused with a reason and changes nothing', async () => {
    const good = makeSegy(plain, straight);
    const wrong = good.slice();
    wrong[3225] = 77;
    const cases: [Uint8Array, RegExp][] = [
      [new Uint8Array(0), /empty/],
      [good.subarray(0, 3000), /only 3000 bytes long/],
      [good.subarray(0, 3700), /shorter than the headers|only 3700 bytes/],
      [wrong, /sample format 77/],
    ];
    const store = memoryStore();
    for (const [bytes, reason] of cases) {
      const declare = { domain: 'twt', quantity: 'amplitude' };
      await expect(loadFile(memorySource('bad.sgy', bytes), declare, { store, crsTable: noCrs })).rejects.toThrow(
        reason,
      );
    }
    expect(await store.list()).toEqual([]);
    expect(await store.arrayOwners()).toEqual([]);
  });

  test('undeclared domain or quantity, and a quantity that the samples contradict, are refused', async () => {
    const store = memoryStore();
    const source = memorySource('a.sgy', makeSegy(plain, straight));
    await expect(loadFile(source, {}, { store, crsTable: noCrs })).rejects.toMatchObject({
      code: 'undeclared',
      fix: expect.stringContaining('domain=twt'),
    });
    await expect(
      loadFile(source, { domain: 'twt', quantity: 'interval velocity' }, { store, crsTable: noCrs }),
    ).rejects.toMatchObject({ code: 'range' });
    expect(await store.list()).toEqual([]);
    expect(await store.arrayOwners()).toEqual([]);
  });

  test('a cancelled load leaves nothing', async () => {
    const store = memoryStore();
    const controller = new AbortController();
    const load = loadFile(
      memorySource('a.sgy', makeSegy(plain, straight)),
      { domain: 'twt', quantity: 'amplitude' },
      {
        store,
        crsTable: noCrs,
        signal: controller.signal,
        onProgress: (part) => part > 0.5 && controller.abort(),
      },
    );
    await expect(load).rejects.toThrow('cancelled');
    expect(await store.list()).toEqual([]);
    expect(await store.arrayOwners()).toEqual([]);
  });
});
