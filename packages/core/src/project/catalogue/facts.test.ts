import { beforeAll, describe, expect, test } from 'vitest';
import { unitsOf } from '../../earth/display.ts';
import type { EarthObject, SeismicLine, Volume } from '../../earth/objects.ts';
import { memoryStore } from '../../storage/memory.ts';
import type { Store } from '../../storage/store.ts';
import { layeredField } from '../../testing/layeredField.ts';
import { MADE, madeHorizon } from '../../testing/objects.ts';
import { madeVolume } from '../../testing/volume.ts';
import { factsOf, listObjects } from './facts.ts';

type Contacts = Extract<EarthObject, { kind: 'contacts' }>;

const FIELD = unitsOf({ display: 'field' });
const factOf = (object: EarthObject, label: string, units = unitsOf(null)) =>
  factsOf(object, units).find((f) => f.label === label)?.value;
const made = <O extends EarthObject>(object: Omit<O, 'id' | 'revision' | 'stage' | 'madeBy'>): O =>
  ({ id: `${object.kind}-1`, revision: '1', stage: 'data', madeBy: MADE, ...object }) as O;

let objects: EarthObject[];
let store: Store;
beforeAll(async () => {
  const field = await layeredField();
  store = field.store;
  objects = await store.list();
});

describe('facts', () => {
  test('of every object of a field begin with its kind, and none is empty or not a number', () => {
    for (const units of [unitsOf(null), FIELD])
      for (const object of objects) {
        const facts = factsOf(object, units);
        expect(facts[0]).toEqual({ label: 'Kind', value: object.kind });
        expect(facts.length).toBeGreaterThan(1);
        for (const { label, value } of facts) {
          expect(label).not.toBe('');
          expect(value).not.toMatch(/NaN|undefined|Infinity|^$/);
        }
      }
  });

  test('of a volume give its lines, its bin and its samples, lengths in the units that are shown', async () => {
    const volume = await madeVolume(memoryStore(), (i) => i - 3);
    expect(factOf(volume, 'Inlines')).toBe('1000 to 1011 (12)');
    expect(factOf(volume, 'Bin')).toBe('25.00 × 25.00 m');
    expect(factOf(volume, 'Bin', FIELD)).toBe('82.02 × 82.02 ft');
    expect(factOf(volume, 'Samples')).toBe('20 from 100 by 4 ms');
    // time is the same in both
    expect(factOf(volume, 'Samples', FIELD)).toBe('20 from 100 by 4 ms');
    const deep: Volume = { ...volume, domain: 'depth' };
    expect(factOf(deep, 'Samples', FIELD)).toBe('20 from 328.08 by 13.1234 ft');
    expect(factOf(deep, 'Domain', FIELD)).toBe('Depth, ft');
    expect(factOf(volume, 'Polarity')).toBe('+ is harder');
    expect(factOf({ ...volume, polarity: undefined }, 'Polarity')).toBe('not declared');
    expect(factOf({ ...volume, quantity: 'variance' }, 'Polarity')).toBeUndefined();
    expect(factOf(volume, 'Kept in')).toBeUndefined();
    const { inline } = volume.layouts;
    const compact = { ...volume, layouts: { inline: { ...inline, scaled: { factor: 0.02, offset: 0 } } } };
    expect(factOf(compact, 'Kept in')).toBe('16 bits, to 0.0100');
    const velocity: Volume = { ...volume, quantity: 'interval velocity', unit: 'm/s' };
    expect(factOf(velocity, 'Quantity', FIELD)).toBe('interval velocity, ft/s');
    expect(factOf(velocity, 'Range', FIELD)).toContain('to 26.25');
  });

  test('of a 2D line: its length from its path, or that it waits for one; its depths in feet where feet are shown', () => {
    const line = made<SeismicLine>({
      kind: 'seismic line',
      name: 'L-1',
      domain: 'depth',
      quantity: 'amplitude',
      unit: '',
      vertical: { first: 0, step: 5, count: 100 },
      path: [
        [0, 0],
        [300, 400],
      ],
      cdps: [101, 140],
      shotpoints: [50, 70],
      samples: { key: 'l/samples', shape: [2, 100], chunk: [2, 100] },
      statistics: { min: 0, max: 1, mean: 0, rms: 1, count: 1, nulls: 0, absolute: {}, percentiles: {} },
    });
    expect(factOf(line, 'Length')).toBe('500 m');
    expect(factOf(line, 'Length', FIELD)).toBe('1640 ft');
    expect([factOf(line, 'CDP'), factOf(line, 'Shotpoint')]).toEqual(['101 to 140', '50 to 70']);
    expect(factOf(line, 'Samples', FIELD)).toBe('100 from 0 by 16.4042 ft');
    expect(factOf({ ...line, path: [], shotpoints: undefined }, 'Length')).toBe('from its navigation');
    expect(factOf({ ...line, shotpoints: undefined }, 'Shotpoint')).toBeUndefined();
  });

  test('of contacts say whether each was found or typed, and that there is none', () => {
    const contacts = made<Contacts>({
      kind: 'contacts',
      name: 'Contacts',
      gocM: null,
      gocRange: null,
      owcM: 1500,
      owcRange: [1495, 1507],
      misfitPa: 12_000,
    } as never);
    expect(factOf(contacts, 'Gas–oil')).toBe('none');
    expect(factOf(contacts, 'Oil–water')).toBe('1500.0 m TVDSS (1495.0 to 1507.0)');
    expect(factOf(contacts, 'Oil–water', FIELD)).toBe('4921.3 ft TVDSS (4904.9 to 4944.2)');
    expect(factOf({ ...contacts, owcRange: null, misfitPa: undefined }, 'Oil–water')).toBe('1500.0 m TVDSS (typed)');
    expect(factOf({ ...contacts, owcRange: null, base: 'at or below' }, 'Oil–water')).toBe(
      'at or below 1500.0 m TVDSS, the deepest oil',
    );
    expect(factOf({ ...contacts, gocM: 1500, base: 'assumed' }, 'Gas–water')).toBe(
      '1500.0 m TVDSS (1495.0 to 1507.0), against water that was assumed',
    );
    expect(factOf(contacts, 'Misfit', FIELD)).toMatch(/^2 psi rms$/);
  });

  test('of a horizon: its range in time or depth, and how much of it is there', async () => {
    const horizon = await madeHorizon(memoryStore(), 'Bed', 'depth', (i, j) => (i < 6 ? Number.NaN : 1000 + j));
    expect(factOf(horizon, 'Range')).toBe('1000.0 to 1014.0 m');
    expect(factOf(horizon, 'Range', FIELD)).toBe('3280.8 to 3326.8 ft');
    expect(factOf(horizon, 'Filled')).toBe('50.0 % of its bins');
    const inTime = await madeHorizon(memoryStore(), 'Bed', 'twt', () => 800);
    expect(factOf(inTime, 'Range', FIELD)).toBe('800.0 to 800.0 ms');
  });
});

describe('the list of a project', () => {
  test('tells what is out of date, and what waits for what', async () => {
    const [volume] = objects.filter((o): o is Volume => o.kind === 'volume');
    const child: Volume = {
      ...volume,
      id: 'child',
      name: 'Made of it',
      madeBy: { ...MADE, inputs: { seismic: [`${volume.id}@an older one`] } },
    };
    const orphan = made<EarthObject>({
      kind: 'tops',
      name: 'X tops',
      well: 'X',
      columns: [],
      rows: [['A', 1]],
    } as never);
    const listed = listObjects([...objects, child, orphan]);
    expect(listed.find((o) => o.id === volume.id)).toMatchObject({ outOfDate: false, quantity: 'amplitude' });
    expect(listed.find((o) => o.id === 'child')?.outOfDate).toBe(true);
    expect(listed.find((o) => o.name === 'X tops')?.waitingFor).toContain('X');
    expect(listed).toHaveLength(objects.length + 2);
  });
});
