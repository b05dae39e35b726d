import { beforeAll, describe, expect, test } from 'vitest';
import type { Logs, Volume, WellTable } from '../earth/objects.ts';
import { layeredField } from '../testing/layeredField.ts';
import { MADE } from '../testing/objects.ts';
import { attached, checkRange, reclassed, redatumed, redeclared, toSi } from './redeclare.ts';

let seismic: Volume;
let logs: Logs;
beforeAll(async () => {
  const field = await layeredField();
  seismic = field.seismic;
  logs = (await field.store.list()).find((o): o is Logs => o.kind === 'logs') as Logs;
});

/** A volume whose samples run from `low` to `high`. */
const between = (low: number, high: number): Volume => ({
  ...seismic,
  name: 'Cube',
  statistics: {
    ...seismic.statistics,
    min: low,
    max: high,
    percentiles: { '1': low, '50': (low + high) / 2, '99': high },
  },
});

describe('seismic declared anew', () => {
  test('has another revision for every declaration, and its own where nothing is said', () => {
    const velocity = between(1500, 4500);
    const said = [
      { quantity: 'interval velocity', unit: 'm/s' },
      { domain: 'depth' },
      { polarity: 'harder-negative' },
    ] as const;
    const revisions = said.map((s) => redeclared(velocity, s).revision);
    expect(new Set([velocity.revision, ...revisions]).size).toBe(4);
    // to say the same again is the same
    expect(redeclared(velocity, said[0]).revision).toBe(revisions[0]);
    expect(redeclared(velocity, said[0])).toMatchObject({ quantity: 'interval velocity', unit: 'm/s', domain: 'twt' });
  });
  test('is refused where samples cannot be what is said, with their range and what to do', () => {
    const amplitudes = between(-8000, 8000);
    expect(() => redeclared(amplitudes, { quantity: 'interval velocity', unit: 'm/s' })).toThrow(
      /Cube was declared interval velocity, but its samples run from -8000 to 8000; .* lies between/,
    );
    expect(amplitudes.quantity).toBe('amplitude');
    expect(() => redeclared(between(1500, 4500), { quantity: 'variance', unit: '' })).toThrow(/variance/);
  });
  test('in feet a second is held to its range in metres', () => {
    expect(toSi('interval velocity', 'ft/s')).toBeCloseTo(0.3048, 9);
    expect(toSi('amplitude', 'anything')).toBe(1);
    // 15 000 ft/s is rock; 15 000 m/s is not
    const fast = between(5000, 15000);
    expect(() => redeclared(fast, { quantity: 'interval velocity', unit: 'ft/s' })).not.toThrow();
    expect(() => redeclared(fast, { quantity: 'interval velocity', unit: 'm/s' })).toThrow(/15000|1\.500e\+4/);
  });
  test('cannot be in a unit of something else', () => {
    expect(() => checkRange('Cube', 'interval velocity', 'ms', between(1500, 4500).statistics)).toThrow(
      'Cube: interval velocity cannot be in “ms”.',
    );
  });
  test('without a sample is what it is said to be', () => {
    const empty = { ...between(0, 0).statistics, count: 0 };
    expect(() => checkRange('Cube', 'interval velocity', 'm/s', empty)).not.toThrow();
  });
});

describe('what belongs to a well', () => {
  const tops = (name: string): WellTable => ({
    id: 't',
    kind: 'tops',
    name,
    revision: '1',
    stage: 'wells',
    madeBy: MADE,
    well: 'QN1',
    columns: [],
    rows: [],
  });
  test('may be said to belong to one of a name that almost agrees, and is called after it', () => {
    const moved = attached(tops('QN1 tops'), 'QN-1');
    expect(moved).toMatchObject({ well: 'QN-1', name: 'QN-1 tops' });
    expect(moved.revision).not.toBe('1');
    expect(attached(tops('Picks of May'), 'QN-1').name).toBe('Picks of May');
  });
  test('takes a name from a file as it stands, whatever it holds', () => {
    expect(attached(tops('QN1 tops'), '$& $1 <b>').name).toBe('$& $1 <b> tops');
  });
  test('has curves of another class by their mnemonic, however it is written', () => {
    const other = reclassed(logs, 'dt', 'shear sonic');
    expect(other.curves.map((c) => c.class)).toEqual(['shear sonic', 'density', 'gamma ray', 'resistivity']);
    expect(other.revision).not.toBe(logs.revision);
    expect(logs.curves[0].class).toBe('sonic');
  });
});

test('checkshots of which nobody said what they count from follow the datum of the project, and others do not', () => {
  const shots = (name: string, more: object) =>
    ({
      id: name,
      kind: 'checkshots',
      name,
      revision: 'r',
      stage: 'wells',
      well: 'A',
      columns: [],
      rows: [],
      ...more,
    }) as never;
  const frame = { datumM: 300, replacementVelocity: 2000 } as never;
  const { before, after } = redatumed([shots('a', {}), shots('b', { reference: 'msl', datumM: 0 })], frame);
  expect(before.map((o) => o.name)).toEqual(['a']);
  expect(after[0]).toMatchObject({ name: 'a', datumM: 300, replacementVelocity: 2000 });
  expect(after[0].revision).not.toBe('r');
  expect(redatumed(after, frame).before).toEqual([]);
});
