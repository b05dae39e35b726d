import { describe, expect, test } from 'vitest';
import { type BinGrid, toMap } from '../earth/binGrid.ts';
import type { Fault, FaultThrow } from '../earth/objects.ts';
import { readWhole } from '../storage/arrays.ts';
import { memoryStore } from '../storage/memory.ts';
import type { Store } from '../storage/store.ts';
import { MADE, TURNED } from '../testing/objects.ts';
import { normal } from '../testing/random.ts';
import { madeVolume } from '../testing/volume.ts';
import { runStep } from './index.ts';

const GRID: BinGrid = {
  ...TURNED,
  inline: { first: 1000, step: 1, count: 50 },
  crossline: { first: 2000, step: 1, count: 50 },
};
const [SAMPLES, STEP] = [120, 4];
/** Samples that the fault moves by from a crossline to the next, and where it stands at the first sample. */
const [SLOPE, AT] = [0.12, 18];

/** Beds without a period. */
const beds = (k: number) => {
  let v = 0;
  for (let n = 1; n <= 16; n++) v += Math.sin(0.052 * n * k + 2.3 * n * n) / (1 + 0.03 * n);
  return v;
};

/** A fault that strikes along inlines, with a throw (samples) that a function of inline and sample gives, and the same as sticks. */
async function broken(store: Store, throwOf: (i: number, k: number) => number, name: string): Promise<Fault> {
  const random = normal(5);
  const volume = await madeVolume(
    store,
    (i, j, k) => {
      // the hanging wall lies at greater crosslines: half of the throw is its own, half the footwall's
      const side = j > AT + SLOPE * k ? 0.5 : -0.5;
      return beds(k - side * throwOf(i, k) + 0.2 * i + 0.1 * j) + 0.3 * random();
    },
    { binGrid: GRID, samples: SAMPLES, first: 0, step: STEP, name },
  );
  const fault: Fault = {
    id: `fault-${name}`,
    name: `Fault of ${name}`,
    kind: 'fault',
    revision: '1',
    stage: 'interpret',
    madeBy: MADE,
    domain: 'twt',
    sticks: Array.from({ length: 13 }, (_, n) =>
      [8, 40, 70, 112].map((k): [number, number, number] => [...toMap(GRID, 4 * n, AT + SLOPE * k), k * STEP]),
    ),
  };
  await store.commit({ put: [{ ...volume, quantity: 'amplitude' }, fault] });
  return fault;
}

async function throwOf(store: Store, fault: Fault, params: Record<string, unknown> = {}) {
  const volume = (await store.list()).find((o) => o.kind === 'volume');
  const [made] = (await runStep(
    { step: 'interpret.throw', inputs: { fault: [fault.id], seismic: [volume?.id as string] }, params },
    store,
  )) as FaultThrow[];
  return { made, values: await readWhole(store, made.values), match: await readWhole(store, made.match) };
}

const median = (v: number[]) => v.sort((a, b) => a - b)[v.length >> 1];

describe('throw of a fault', () => {
  test.each([
    ['a normal fault', 9],
    ['a reverse fault', -7],
    ['one that does not move', 0],
  ])('%s of %i samples comes back within half a sample', async (name, samples) => {
    const store = memoryStore();
    const fault = await broken(store, () => samples, name.replace(/ /g, '-'));
    const { values, match, made } = await throwOf(store, fault);
    const [rows, levels] = made.values.shape;
    const off: number[] = [];
    for (let r = 3; r < rows - 3; r++)
      for (let k = 25; k < levels - 25; k++) off.push(Math.abs(values[r * levels + k] - samples * STEP));
    expect(median(off)).toBeLessThan(0.5 * STEP);
    expect(off.filter((v) => v < STEP).length / off.length).toBeGreaterThan(0.9);
    expect(median([...match].filter((v) => !Number.isNaN(v)))).toBeGreaterThan(0.6);
    expect(made.greatest).toBeCloseTo(samples * STEP, -0.8);
  });

  test('that dies out at both ends is told from one that does not', async () => {
    const store = memoryStore();
    const dying = await broken(store, (i) => 11 * Math.max(0, 1 - ((i - 24) / 24) ** 2), 'Dying');
    const { made } = await throwOf(store, dying);
    expect(made.tapers).toEqual([true, true]);
    const whole = memoryStore();
    const open = await broken(whole, (i) => 11 * Math.min(1, i / 30), 'Open');
    const { made: other } = await throwOf(whole, open);
    // rows run along strike one way or the other
    expect([...other.tapers].sort()).toEqual([false, true]);
    expect(other.madeBy.warnings[0]).toContain('does not die out');
  });

  test('two sides that have nothing in common do not match, and a fault elsewhere is refused', async () => {
    const store = memoryStore();
    const random = normal(8);
    const volume = await madeVolume(store, () => random(), {
      binGrid: GRID,
      samples: SAMPLES,
      first: 0,
      step: STEP,
      name: 'Noise',
    });
    const other = memoryStore();
    const fault = await broken(other, () => 0, 'Whole');
    const far: Fault = {
      ...fault,
      id: 'far',
      sticks: fault.sticks.map((s) => s.map(([x, y, z]): [number, number, number] => [x + 1e5, y, z])),
    };
    await store.commit({ put: [{ ...volume, quantity: 'amplitude' }, fault, far] });
    const { match, made } = await throwOf(store, fault, { least: 0.8 });
    expect(median([...match].filter((v) => !Number.isNaN(v)))).toBeLessThan(0.5);
    expect(made.greatest).toBeNull();
    await expect(throwOf(store, far)).rejects.toThrow('lies outside of');
  });
});
