import { beforeAll, expect, test } from 'vitest';
import type { Fault, Polygon } from '../earth/objects.ts';
import { memoryStore } from '../storage/memory.ts';
import type { Store } from '../storage/store.ts';
import { MADE } from '../testing/objects.ts';
import { runStep } from './index.ts';

let store: Store;
/** Sticks every 100 m northwards, dipping east; each bends a little further. */
const fault = (id: string, from: number, count: number, more: Partial<Fault> = {}): Fault => ({
  id: id.replace(' ', '-').toLowerCase(),
  name: id,
  kind: 'fault',
  revision: '1',
  stage: 'interpret',
  madeBy: MADE,
  domain: 'twt',
  sticks: Array.from({ length: count }, (_, n) =>
    [0, 400, 800].map((t): [number, number, number] => [5000 + 0.5 * t, from + 100 * n, 300 + t]),
  ),
  ...more,
});
const found = (areaM2: number, strength: number) => ({ areaM2, strength, dip: 60, azimuth: 90, joined: [] });

beforeAll(async () => {
  store = memoryStore();
  const area: Polygon = {
    id: 'area',
    name: 'North',
    kind: 'polygon',
    revision: '1',
    stage: 'interpret',
    madeBy: MADE,
    closed: true,
    rings: [
      [
        [4000, 1250],
        [7000, 1250],
        [7000, 9000],
        [4000, 9000],
      ],
    ],
  };
  await store.commit({
    put: [
      fault('South', 1000, 6, { found: found(3e5, 0.4) }),
      fault('North part', 1700, 4, { found: found(1e5, 0.8) }),
      fault('Deep', 1000, 4, { domain: 'depth' }),
      fault('Short', 1000, 2),
      area,
    ],
  });
});

const run = async (step: string, inputs: Record<string, string[]>, params = {}) =>
  (await runStep({ step, inputs, params }, store)) as Fault[];

test('faults are joined along strike, with the reason and what was found of them', async () => {
  // whatever order they are chosen in
  const [joined] = await run('interpret.joinFaults', { faults: ['north-part', 'south'] });
  expect(joined.sticks).toHaveLength(10);
  const norths = joined.sticks.map((s) => s[0][1]);
  expect([...norths].sort((a, b) => a - b)).toEqual(norths[0] < norths[9] ? norths : norths.toReversed());
  expect(joined.found?.areaM2).toBe(4e5);
  expect(joined.found?.strength).toBeCloseTo(0.5, 6);
  expect(joined.found?.joined.join()).toMatch(/South and North part|North part and South/);
  expect(joined.found?.joined.join()).toContain('by hand, 200 m apart, turned by 0°');
  expect(joined.madeBy.warnings?.join()).toContain('200 m apart');
});

test('what cannot be joined is said', async () => {
  await expect(run('interpret.joinFaults', { faults: ['south'] })).rejects.toThrow('Two faults at least');
  await expect(run('interpret.joinFaults', { faults: ['south', 'deep'] })).rejects.toThrow('not in one domain');
});

test('a fault is split at a place along strike or by an area, and both keep the stick at the seam', async () => {
  for (const inputs of [{ fault: ['south'] }, { fault: ['south'], area: ['area'] }]) {
    const [first, second] = await run('interpret.splitFault', inputs as unknown as Record<string, string[]>);
    const keys = (f: Fault) => f.sticks.map((s) => s[0][1]);
    expect([...keys(first), ...keys(second)]).toHaveLength(7);
    expect(keys(first).filter((k) => keys(second).includes(k))).toHaveLength(1);
    expect(new Set([...keys(first), ...keys(second)]).size).toBe(6);
    expect(first.found).toBeUndefined();
  }
  await expect(run('interpret.splitFault', { fault: ['short'] })).rejects.toThrow('cannot be parted there');
});
