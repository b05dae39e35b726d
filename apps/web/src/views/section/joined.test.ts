import type { EarthObject, SeismicLine } from '@lithagon/core';
import { describe, expect, test } from 'vitest';
import { joinedOf, partsOf, samplesOf, wholeOf, withLine } from './joined';

const line = (id: string, path: [number, number][], step = 4): SeismicLine =>
  ({
    id,
    name: id,
    kind: 'seismic line',
    path,
    cdps: path.map((_, n) => 101 + n),
    vertical: { first: 0, step, count: step === 4 ? 5 : 9 },
  }) as unknown as SeismicLine;

/** East along y = 0, and north along x = 700. */
const east = line(
  'east',
  Array.from({ length: 11 }, (_, n) => [n * 100, 0]),
);
const north = line(
  'north',
  Array.from({ length: 11 }, (_, n) => [700, n * 100 - 200]),
  2,
);
const objects = [east, north] as EarthObject[];

describe('a composite of 2D lines', () => {
  test('turns at the crossing, along the longer arm of each', () => {
    const pieces = withLine(objects, [wholeOf(east)], north);
    expect(pieces).toEqual([
      { line: 'east', from: 101, to: 108 },
      { line: 'north', from: 103, to: 111 },
    ]);
    const joined = joinedOf(partsOf(objects, pieces));
    expect(joined.starts).toEqual([0, 8]);
    expect(joined.path[7]).toEqual([700, 0]);
    expect(joined.path[16]).toEqual([700, 800]);
    expect(joined.from.every(Boolean)).toBe(true);
  });

  test('runs backward where its numbers do, and leaves a gap between ends that do not meet', () => {
    const pieces = [
      { line: 'east', from: 105, to: 101 },
      { line: 'north', from: 111, to: 109 },
    ];
    const joined = joinedOf(partsOf(objects, pieces));
    expect(joined.path.slice(0, 5).map(([x]) => x)).toEqual([400, 300, 200, 100, 0]);
    expect(joined.from[5]).toBeNull();
    expect(joined.path[5]).toEqual([350, 400]);
    expect(joined.starts).toEqual([0, 6]);
  });

  test('has every piece at the times of the first', () => {
    const parts = partsOf(objects, withLine(objects, [wholeOf(east)], north));
    const joined = joinedOf(parts);
    const ramp = (l: SeismicLine) =>
      Float32Array.from(
        { length: l.cdps.length * l.vertical.count },
        (_, n) => l.cdps[Math.floor(n / l.vertical.count)] + (n % l.vertical.count) * l.vertical.step,
      );
    const data = samplesOf(parts, joined, [ramp(east), ramp(north)]);
    // the eighth trace of the one, and the ninth of the composite, which is CDP 103 of the other
    expect([...data.subarray(35, 40)]).toEqual([108, 112, 116, 120, 124]);
    expect([...data.subarray(40, 45)]).toEqual([103, 107, 111, 115, 119]);
  });

  test('follows from its nearer end where lines do not cross', () => {
    const far = line('far', [
      [2000, 0],
      [1500, 0],
    ]);
    expect(withLine([east, far], [wholeOf(east)], far)[1]).toEqual({ line: 'far', from: 102, to: 101 });
  });

  test('leaves out what is gone', () => {
    expect(partsOf([east], [{ line: 'gone', from: 1, to: 2 }, wholeOf(east)])).toHaveLength(1);
  });
});
