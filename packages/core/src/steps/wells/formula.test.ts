import { beforeAll, describe, expect, test } from 'vitest';
import type { EarthObject, Logs } from '../../earth/objects.ts';
import { readWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { layeredField } from '../../testing/layeredField.ts';
import { runStep } from '../index.ts';
import { formula } from './formula.ts';

let store: Store;
let objects: EarthObject[];
beforeAll(async () => {
  store = (await layeredField(0.02)).store;
  objects = await store.list();
});

const all = (p: Record<string, string>) => formula.params.parse(p);
async function foreseen(p: Record<string, string>, more: EarthObject[] = []) {
  const wells = [...objects, ...more].filter((o) => o.kind === 'well');
  return formula.foresee?.({ inputs: { wells }, objects: [...objects, ...more], params: all(p) });
}

describe('a formula says before it is run', () => {
  test('what its result is measured in', async () => {
    expect(await foreseen({ formula: '1 / sonic', result: 'VP' })).toBe('VP will be in m/s.');
    expect(await foreseen({ formula: '1 / sonic', unit: 'ft/s', result: 'VP' })).toBe('VP will be in ft/s.');
    expect(await foreseen({ formula: 'density / sonic', result: 'AI' })).toBe('AI will be in kg/m²s.');
    expect(await foreseen({ formula: 'density / TVDSS' })).toBe('RESULT will be in kg·m⁻⁴.');
    expect(await foreseen({ formula: 'density > 2300 ? 1 : 0' })).toBe('RESULT will be a plain number.');
  });
  test.each([
    ['density + sonic', 'density and sonic (slowness) cannot be added'],
    ['log(sonic)', 'log takes a plain number, not sonic (slowness)'],
    ['density / NOPE', 'There is no curve “NOPE”'],
    ['density *', 'cannot be read'],
  ])('why “%s” cannot be', async (text, sentence) => {
    await expect(foreseen({ formula: text })).rejects.toThrow(sentence);
  });
  test('which of several wells lack a curve of it', async () => {
    const bare = { ...objects.find((o) => o.kind === 'well'), id: 'bare', name: 'Bare' } as EarthObject;
    expect(await foreseen({ formula: '1 / sonic' }, [bare])).toBe('RESULT will be in m/s; Bare lacks a curve of it.');
  });
  test('and the run gives just that', async () => {
    const request = { formula: '2 / sonic', result: 'TWICE' };
    const [made] = (await runStep(
      { step: formula.id, inputs: { wells: ['well-1'] }, params: request },
      store,
    )) as Logs[];
    expect(made.curves[0].unit).toBe('m/s');
    const sonic = objects.flatMap((o) => (o.kind === 'logs' ? o.curves : [])).find((c) => c.class === 'sonic');
    const [own, from] = [
      await readWhole(store, made.curves[0].data),
      await readWhole(store, (sonic as Logs['curves'][number]).data),
    ];
    expect(own[10] / (2e6 / from[10])).toBeCloseTo(1, 5);
  });
});
