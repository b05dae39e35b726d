import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type BinGrid, binArea, cornersOf, sameBins, sameSamples, toIndex, toMap, windOf } from './binGrid.ts';
import { searchCrs } from './crs.ts';
import { crsTable } from './crsTable.ts';
import { asLithagonError, LithagonError, stopIf } from './errors.ts';
import { dimensionOf, factor, unitNamed } from './units.ts';

const binGrid = (angle: number, bin: number, flip: boolean): BinGrid => {
  const [c, s] = [Math.cos(angle) * bin, Math.sin(angle) * bin];
  const sign = flip ? -1 : 1;
  return {
    inline: { first: 1000, step: 2, count: 50 },
    crossline: { first: 2000, step: 1, count: 80 },
    origin: [512400, 7641900],
    perInline: [-s * sign, c * sign],
    perCrossline: [c, s],
  };
};
const anyBinGrid = fc
  .record({
    angle: fc.double({ min: 0, max: 6.28, noNaN: true }),
    bin: fc.constantFrom(6.25, 12.5, 25),
    flip: fc.boolean(),
  })
  .map((r) => binGrid(r.angle, r.bin, r.flip));

describe('binGrid', () => {
  test('index to map and back, either handedness', () => {
    fc.assert(
      fc.property(
        anyBinGrid,
        fc.double({ min: -20, max: 90, noNaN: true }),
        fc.double({ min: -20, max: 90, noNaN: true }),
        (l, i, j) => {
          const [a, b] = toIndex(l, ...toMap(l, i, j));
          expect(a).toBeCloseTo(i, 5);
          expect(b).toBeCloseTo(j, 5);
        },
      ),
    );
  });
  test('area, corners and likeness', () => {
    const a = binGrid(0.4, 25, false);
    expect(binArea(a)).toBeCloseTo(625, 6);
    expect(cornersOf(a)).toHaveLength(4);
    expect(sameBins(a, binGrid(0.4, 25, false))).toBe(true);
    expect(sameBins(a, { ...a, origin: [a.origin[0] + 0.1, a.origin[1]] })).toBe(true);
    expect(sameBins(a, { ...a, origin: [a.origin[0] + 5, a.origin[1]] })).toBe(false);
    expect(sameBins(a, { ...a, inline: { ...a.inline, count: 49 } })).toBe(false);
  });
  test('volumes have the same samples where domain, bins and every time are the same', () => {
    const a = { domain: 'twt', binGrid: binGrid(0.4, 25, false), vertical: { first: 0, step: 4, count: 500 } };
    expect(sameSamples(a, { ...a, vertical: { first: 0.01, step: 4, count: 500 } })).toBe(true);
    for (const vertical of [
      { first: 2, step: 4, count: 500 },
      { first: 0, step: 4.01, count: 500 },
      { first: 0, step: 4, count: 499 },
    ])
      expect(sameSamples(a, { ...a, vertical })).toBe(false);
    expect(sameSamples(a, { ...a, domain: 'depth' })).toBe(false);
    const beside = { ...a.binGrid, origin: [a.binGrid.origin[0] + 25, a.binGrid.origin[1]] as [number, number] };
    expect(sameSamples(a, { ...a, binGrid: beside })).toBe(false);
  });
  test.each([
    [1, 0, 'E'],
    [0, 1, 'N'],
    [-1, -1, 'SW'],
    [0.92, 0.39, 'ENE'],
    [-0.92, -0.39, 'WSW'],
  ])('(%d, %d) is %s', (dx, dy, wind) => {
    expect(windOf(dx, dy)).toBe(wind);
  });
});

describe('units', () => {
  test.each([
    ['ft', 'm', 0.3048],
    ['us-ft', 'm', 1200 / 3937],
    ['us/ft', 'us/m', 1 / 0.3048],
    ['g/cm3', 'kg/m3', 1000],
    ['psi', 'bar', 0.06894757],
    ['stb', 'm3', 0.158987294928],
    ['acre-ft', 'm3', 1233.48183754752],
    ['ms', 's', 0.001],
  ])('%s to %s', (from, to, value) => {
    expect(factor(from, to)).toBeCloseTo(value, 7);
    expect(factor(from, to) * factor(to, from)).toBeCloseTo(1, 12);
  });
  test('spellings met in files', () => {
    expect(['Feet', 'US/F', 'G/CC', 'gapi', 'OHMM', 'V/V', 'metres', 'µs/ft', 'msec'].map(unitNamed)).toEqual([
      'ft',
      'us/ft',
      'g/cm3',
      'gAPI',
      'ohm.m',
      '1',
      'm',
      'us/ft',
      'ms',
    ]);
    expect(unitNamed('furlong')).toBeNull();
    expect(dimensionOf('constructor')).toBeNull();
  });
  test('what measures different things is not converted', () => {
    expect(() => factor('m', 's')).toThrow(/measure different things/);
  });
});

describe('coordinate reference systems', () => {
  test.each([
    ['32740', 32740],
    ['EPSG:32740', 32740],
    ['utm 40s', 32740],
    ['wgs 84 utm zone 40S', 32740],
  ])('“%s” finds EPSG:%d first', async (text, code) => {
    expect(searchCrs(await crsTable(), text)[0].code).toBe(code);
  });
  test('areas are searched, and nonsense finds nothing', async () => {
    const rows = await crsTable();
    expect(rows.length).toBeGreaterThan(5000);
    expect(searchCrs(rows, 'seychelles').length).toBeGreaterThan(0);
    expect(searchCrs(rows, 'qwertyuiop')).toEqual([]);
    expect(searchCrs(rows, '')).toEqual([]);
    expect(searchCrs(rows, '(.*)+[')).toEqual([]);
  });
});

test('errors keep their sentence and say what to do; what was not foreseen says so', () => {
  const error = new LithagonError('a', 'It is broken.', { fix: 'Mend it.' });
  expect(asLithagonError(error)).toBe(error);
  expect(error.sentence).toBe('It is broken. Mend it.');
  expect(asLithagonError(new Error('x')).code).toBe('unexpected');
  const controller = new AbortController();
  stopIf(controller.signal);
  controller.abort();
  expect(() => stopIf(controller.signal)).toThrow('cancelled');
});
