import { beforeEach } from 'vitest';
import type { EarthObject, Logs, Well } from '../earth/objects.ts';
import { curveOf } from '../project/wells/curves.ts';
import { runStep } from '../steps/index.ts';
import { readWhole, writeWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';
import { layeredField } from './layeredField.ts';

/**
 * The layered field with one well, made anew for every test, and what tests of wells do with it: run a step, find what it
 * made, change a curve, add a well.
 */
export function wellWork() {
  const work = {} as { store: Store };
  beforeEach(async () => {
    work.store = (await layeredField(0.02)).store;
  });
  const objects = () => work.store.list();
  const run = (step: string, inputs: Record<string, string[]>, params: Record<string, unknown> = {}, name?: string) =>
    runStep({ step, inputs, params, name }, work.store);
  const W = { wells: ['well-1'] };
  const named = async <T extends EarthObject>(name: string) => (await objects()).find((o) => o.name === name) as T;
  const values = async (name: string) => {
    const held = curveOf(await objects(), 'T-1', name);
    if (!held) throw new Error(`no ${name}`);
    return { logs: held.logs, data: await readWhole(work.store, held.curve.data) };
  };
  const logsNow = async () => (await objects()).find((o): o is Logs => o.id === 'logs-T-1') as Logs;
  /** Put other values into a loaded curve. */
  async function change(cls: string, at: (v: number, n: number) => number) {
    const logs = await logsNow();
    const curves = await Promise.all(
      logs.curves.map(async (c) => {
        if (c.class !== cls) return c;
        const old = await readWhole(work.store, c.data);
        return {
          ...c,
          data: await writeWhole(work.store, `${logs.id}/${c.mnemonic}-2`, [old.length], old.map(at), ['sample']),
        };
      }),
    );
    await work.store.commit({ put: [{ ...logs, revision: `${logs.revision}x`, curves }] });
  }

  /** A second well two hundred metres away, with the same rocks. */
  async function secondWell(name: string, x: number, more: Partial<Well> = {}) {
    const well = (await named<Well>('T-1')) as Well;
    const logs = await logsNow();
    const other: EarthObject[] = [
      { ...well, id: name, name, x, ...more },
      { ...logs, id: `logs-${name}`, name: `${name} logs`, well: name, wellId: undefined },
    ];
    for (const o of await objects())
      if ((o.kind === 'tops' || o.kind === 'checkshots') && o.well === 'T-1')
        other.push({ ...o, id: `${o.kind}-${name}`, name: `${name} ${o.kind}`, well: name, wellId: undefined });
    await work.store.commit({ put: other });
  }

  const tie = (params: Record<string, unknown> = {}, inputs: Record<string, string[]> = {}) =>
    run(
      'tie.well',
      { well: ['well-1'], seismic: ['seismic'], wavelet: ['wavelet'], ...inputs },
      { top: 'Top', ...params },
    );

  async function wavelet(): Promise<void> {
    const [made] = await run('tie.wavelet', { seismic: ['seismic'] }, { method: 'Ricker', peakHz: 28 });
    await work.store.commit({ remove: [made.id], put: [{ ...made, id: 'wavelet' }] });
  }
  return { work, objects, run, named, values, logsNow, change, secondWell, tie, wavelet, W };
}
