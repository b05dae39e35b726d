import {
  balanceOf,
  checkParams,
  type EarthObject,
  LithagonError,
  type ObjectOf,
  type PayParams,
  payWork,
  stacksOf,
  stepOf,
} from '@lithagon/core';
import { outcome, storeOf, withCancel } from './task';

/** What is measured of a bed at every bin, as it crosses to the page. */
export type PayFound = Awaited<ReturnType<typeof payFor>>;

async function payFor(
  projectId: string,
  ids: Record<string, string[]>,
  given: Record<string, unknown>,
  signal: AbortSignal,
) {
  const store = await storeOf(projectId);
  const step = stepOf('invert.netPay');
  if (!step) throw new Error('there is no step invert.netPay');
  const params = checkParams(step, given) as PayParams;
  const one = async <K extends EarthObject['kind']>(role: string, kind: K): Promise<ObjectOf<K> | undefined> => {
    const object = ids[role]?.[0] ? await store.get(ids[role][0]) : null;
    return object?.kind === kind ? (object as ObjectOf<K>) : undefined;
  };
  const [impedance, top, base, area] = [
    await one('impedance', 'volume'),
    await one('top', 'horizon'),
    await one('base', 'horizon'),
    await one('area', 'polygon'),
  ];
  if (!impedance || !top || !base)
    throw new LithagonError('input', 'Net pay needs relative impedance, a top and a base.', {
      fix: 'Choose all three in the Sheet.',
    });
  const wells = (await store.list()).filter(
    (o): o is ObjectOf<'well'> => o.kind === 'well' && (ids.wells ?? []).includes(o.id),
  );
  const { measures, ...rest } = await payWork(store, { impedance, top, base, wells, area }, params, { signal });
  return {
    apparentMs: Float32Array.from(measures.lobes, (l) => l?.apparentMs ?? Number.NaN),
    average: Float32Array.from(measures.lobes, (l) => l?.average ?? Number.NaN),
    wedge: measures.wedge,
    crossed: measures.crossed,
    binGrid: top.binGrid,
    ...rest,
  };
}

/** What views of inversions ask for as they are worked in. */
export const inversionJobs = {
  /** Beds, wells and the wedge of net pay, as its parameters stand; nothing is kept. */
  pay: (task: number, projectId: string, ids: Record<string, string[]>, params: Record<string, unknown>) =>
    withCancel(task, (signal) => payFor(projectId, ids, params, signal)),

  /** How stacks compare by time: amplitudes and shifts. */
  balance: (projectId: string, ids: string[]) =>
    outcome(async () => {
      const store = await storeOf(projectId);
      const volumes = (await store.list()).filter(
        (o): o is ObjectOf<'volume'> => o.kind === 'volume' && ids.includes(o.id),
      );
      return balanceOf(store, stacksOf(volumes, 2), 240, 8);
    }),
};
