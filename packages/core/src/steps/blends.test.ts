import { beforeAll, describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import type { Blend, EarthObject, Horizon, QuantityMap, Volume } from '../earth/objects.ts';
import { exportObject } from '../files/out/export.ts';
import { frequencyGather, spectraOf } from '../project/spectra.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import type { Store } from '../storage/store.ts';
import { FRAME, madeHorizon, TURNED } from '../testing/objects.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep } from './index.ts';

const BIN_GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: 12 },
  crossline: { first: 2000, step: 1, count: 14 },
};
const COLUMNS = 14;
/** Hz of the tone of each half of the survey, and of all of it above the horizon. */
const [WEST, EAST, ABOVE] = [20, 45, 32];
const top = (i: number, j: number) => 601.3 + 4 * i - 2 * j;
const tone = (hz: number, ms: number) => 100 * Math.sin((2 * Math.PI * hz * ms) / 1000);

let store: Store;
let seismic: Volume;
let horizon: Horizon;

beforeAll(async () => {
  store = memoryStore();
  seismic = await madeVolume(
    store,
    (i, j, k) => {
      const under = 4 * k - top(i, j);
      return under < -100 ? tone(ABOVE, under) : tone(j < 7 ? WEST : EAST, under);
    },
    { binGrid: BIN_GRID, samples: 260, first: 0, step: 4, name: 'Tones' },
  );
  horizon = await madeHorizon(store, 'Top', 'twt', (i, j) => (i === 2 && j === 3 ? Number.NaN : top(i, j)), BIN_GRID);
});

const run = (step: string, inputs: Record<string, string[]>, params: Record<string, unknown>, more = {}) =>
  runStep({ step, inputs, params, ...more }, store);

async function mapAt(hz: number, params: Record<string, unknown> = {}) {
  const [map] = (await run(
    'attributes.frequencyMap',
    { seismic: [seismic.id], horizon: [horizon.id] },
    { hz, above: -20, below: 60, ...params },
  )) as QuantityMap[];
  return { map, values: await readWhole(store, map.values) };
}

describe('a frequency on a horizon', () => {
  test('is strong where the tone is that of the place, and what lies outside the window is in it no further than the wavelet', async () => {
    // a horizon between samples: magnitudes are read there, not made of what was read there
    for (const [hz, west, east] of [
      [WEST, 100, 0],
      [EAST, 0, 100],
    ]) {
      const { values } = await mapAt(hz, { cycles: 8, below: 200, above: -150 });
      for (let n = 0; n < values.length; n++) {
        if (n === 2 * COLUMNS + 3) expect(values[n]).toBeNaN();
        else expect(Math.abs(values[n] - (n % COLUMNS < 7 ? west : east))).toBeLessThan(1.5);
      }
    }
  });

  test('is what the same statistic of the stored attribute is', async () => {
    const [volume] = (await run('attributes.frequency', { seismic: [seismic.id] }, { hz: 30 })) as Volume[];
    const [of] = (await run(
      'attributes.onHorizon',
      { horizon: [horizon.id], volume: [volume.id] },
      { gives: 'rms', above: -20, below: 60 },
    )) as QuantityMap[];
    const want = await readWhole(store, of.values);
    const { values } = await mapAt(30);
    for (let n = 0; n < values.length; n++)
      if (n !== 2 * COLUMNS + 3) expect(Math.abs(values[n] / want[n] - 1)).toBeLessThan(0.005);
  });

  test('gives the peak frequency, and refuses what has no mean', async () => {
    const { map, values } = await mapAt(30, { gives: 'peak frequency', taken: 'mean', above: -150, below: 200 });
    expect(map.unit).toBe('Hz');
    expect(Math.abs(values[0] - WEST)).toBeLessThan(1);
    expect(Math.abs(values[13] - EAST)).toBeLessThan(1.5);
    const phases = await mapAt(WEST, { gives: 'phase', taken: 'value', cycles: 8 });
    // a sine that begins at the horizon
    for (const n of [0, 5, 4 * COLUMNS + 1]) expect(Math.abs(phases.values[n] + 90)).toBeLessThan(2);
    await expect(mapAt(30, { gives: 'phase', taken: 'rms' })).rejects.toThrow('A phase has no rms');
  });
});

describe('a spectrum', () => {
  const peak = ({ hz, data }: { hz: number[]; data: number[] }) => hz[data.indexOf(Math.max(...data))];
  test('is of the line, outline or window that is asked for', async () => {
    const around = { horizon, above: -10, below: 200 };
    expect(
      Math.abs(peak(await spectraOf(store, seismic, { around, line: { plane: 'crossline', index: 2 } })) - WEST),
    ).toBeLessThan(1);
    expect(
      Math.abs(peak(await spectraOf(store, seismic, { around, line: { plane: 'crossline', index: 11 } })) - EAST),
    ).toBeLessThan(1);
    const above = await spectraOf(store, seismic, {
      around: { from: 0, to: 350 },
      line: { plane: 'inline', index: 4 },
    });
    expect(Math.abs(peak(above) - ABOVE)).toBeLessThan(1);
    expect(above.traces).toBe(COLUMNS);
    const all = await spectraOf(store, seismic, { around });
    expect(all.traces).toBe(12 * COLUMNS - 1);
    // what is the same on neighbours is no noise
    const at = all.hz.findIndex((f) => f >= WEST);
    expect(all.noise[at]).toBeLessThan(0.3 * all.data[at]);
  });
  test('says where there is nothing', async () => {
    await expect(spectraOf(store, seismic, { around: { horizon, above: 5000, below: -4990 } })).rejects.toThrow(
      'No trace of Tones',
    );
  });
  test('of a trace over time shows each tone at its time', async () => {
    const [x, y] = [BIN_GRID.origin[0], BIN_GRID.origin[1]];
    const gather = await frequencyGather(store, seismic, [x, y], [WEST, ABOVE], {
      method: 'Morlet wavelet',
      windowMs: 100,
      cycles: 6,
    });
    const count = seismic.vertical.count;
    expect(gather.length).toBe(2 * count);
    expect(gather[count + 50]).toBeGreaterThan(95);
    expect(gather[50]).toBeLessThan(25);
    expect(gather[200]).toBeGreaterThan(95);
  });
});

describe('a blend', () => {
  let maps: QuantityMap[];
  beforeAll(async () => {
    maps = [];
    for (const hz of [WEST, ABOVE, EAST]) maps.push((await mapAt(hz)).map);
  });
  const inputs = (more: Record<string, string[]> = {}) => ({
    red: [maps[0].id],
    green: [maps[1].id],
    blue: [maps[2].id],
    ...more,
  });

  test('ends where the data do, or where it is told, and is turned round when that is asked', async () => {
    const [plain] = (await run('attributes.blend', inputs(), {})) as Blend[];
    expect([plain.of, plain.domain, plain.shade]).toEqual(['map', undefined, undefined]);
    expect(plain.red.from).toBeLessThan(plain.red.to);
    const [told] = (await run('attributes.blend', inputs({ shade: [maps[1].id] }), {
      turned: 'green',
      strength: 40,
      ranges: [{ channel: 'red', from: 90, to: 10 }],
    })) as Blend[];
    expect(told.red).toEqual({ from: 90, to: 10 });
    expect(told.green.from).toBeGreaterThan(told.green.to);
    expect(told.strength).toBe(0.4);
    expect(told.shade).toBeDefined();
  });

  test('keeps what a person set when it is made again', async () => {
    const [made] = (await run('attributes.blend', inputs(), {})) as Blend[];
    await store.commit({ put: [{ ...made, red: { from: 5, to: 6 }, axes: 'blue, grey, amber', set: true }] });
    const [again] = (await run(
      'attributes.blend',
      inputs(),
      { clip: '10 %' },
      { replaces: { blend: made.id } },
    )) as Blend[];
    expect([again.id, again.red, again.axes]).toEqual([made.id, { from: 5, to: 6 }, 'blue, grey, amber']);
  });

  test('leaves as a table with the colour of each bin', async () => {
    const [made] = (await run('attributes.blend', inputs(), {
      ranges: [
        { channel: 'red', from: 0, to: 1 },
        { channel: 'green', from: 1e6, to: 2e6 },
        { channel: 'blue', from: 1e6, to: 2e6 },
      ],
    })) as Blend[];
    const text = new TextDecoder().decode(await exportObject(store, made, 'csv', FRAME));
    const rows = text.trim().split('\n');
    expect(rows[0]).toMatch(/^inline,crossline,x_m,y_m,red_envelope.*color$/);
    expect(rows.length).toBe(12 * COLUMNS + 1);
    expect(rows[1]).toMatch(/#ff0000/);
    expect(rows[2 * COLUMNS + 3 + 1]).not.toContain('#');
  });

  test('is of volumes with the same samples as well, and of nothing else', async () => {
    const volumes: EarthObject[] = [];
    for (const hz of [20, 30, 40])
      volumes.push((await run('attributes.frequency', { seismic: [seismic.id] }, { hz }, { live: true }))[0]);
    const [red, green, blue] = volumes.map((v) => [v.id]);
    const [made] = (await run('attributes.blend', { red, green, blue }, {})) as Blend[];
    expect([made.of, made.domain]).toEqual(['volume', 'twt']);
    await expect(run('attributes.blend', { red, green, blue: [maps[0].id] }, {})).rejects.toThrow('is a map');
    await expect(run('attributes.blend', { red, green, blue: [horizon.id] }, {})).rejects.toThrow(
      'a map or volume is needed',
    );
    await expect(run('attributes.blend', inputs(), { turned: 'purple' })).rejects.toThrow('no channel “purple”');
  });
});
