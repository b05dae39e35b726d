import { describe, expect, test } from 'vitest';
import type { Logs, ResultTable, WellTable } from '../../earth/objects.ts';
import { readWhole, writeWhole } from '../../storage/arrays.ts';
import { topM, WELL_AT } from '../../testing/layeredField.ts';
import { wellWork } from '../../testing/wellWork.ts';

const { work, run, logsNow, secondWell } = wellWork();

describe('facies and correlated tops', () => {
  const facies = (well: string): WellTable => {
    const top = topM(WELL_AT.i, WELL_AT.j);
    return {
      id: `facies-${well}`,
      kind: 'facies',
      name: `${well} facies`,
      revision: '1',
      stage: 'wells',
      madeBy: {
        step: 'data.load',
        version: 1,
        params: {},
        inputs: {},
        file: 'f.csv',
        started: '',
        tookMs: 0,
        warnings: [],
        engine: '',
      },
      well,
      columns: [],
      rows: [
        [600, top, 'Shale'],
        [top, top + 45, 'Sand'],
        [top + 45, 900, 'Shale'],
      ],
    };
  };
  test('learned in two wells, known in each from the other, predicted in a third, and said to be outside where it is', async () => {
    await secondWell('T-2', 100);
    await secondWell('T-3', 150);
    await work.store.commit({ put: [facies('T-1'), facies('T-2')] });
    const inputs = { trained: ['well-1', 'T-2'], wells: ['T-3'] };
    const made = await run('wells.facies', inputs, { curves: 'gamma ray, density', leastBedM: 2 });
    const table = made.find((o) => o.kind === 'facies') as WellTable;
    expect(table.rows.some((r) => r[2] === 'Sand' && Math.abs(Number(r[0]) - topM(WELL_AT.i, WELL_AT.j)) < 0.6)).toBe(
      true,
    );
    const report = made.find((o) => o.kind === 'result table') as ResultTable;
    expect((report.records?.[0] as { accuracy: number }).accuracy).toBeGreaterThan(0.95);
    const probabilities = made.find((o) => o.kind === 'logs') as Logs;
    expect(probabilities.curves.map((c) => c.mnemonic)).toEqual(['P(Sand)', 'P(Shale)', 'FAR']);
    // rock that nothing was learned from
    const logs = await logsNow();
    const strange = (await readWhole(work.store, logs.curves[1].data)).map((v) => v + 1200);
    await work.store.commit({
      put: [{ ...logs, id: 'logs-T-3', well: 'T-3', wellId: 'T-3', name: 'T-3 logs', curves: logs.curves }],
    });
    const data = await writeWhole(work.store, 'logs-T-3/RHOB', [strange.length], strange, ['sample']);
    await work.store.commit({
      put: [
        {
          ...logs,
          id: 'logs-T-3',
          well: 'T-3',
          wellId: 'T-3',
          name: 'T-3 logs',
          curves: logs.curves.map((c) => (c.class === 'density' ? { ...c, data } : c)),
        },
      ],
    });
    const again = await run('wells.facies', inputs, { curves: 'gamma ray, density' });
    expect(again[0].madeBy.warnings.join()).toMatch(/T-3: 100 % of its samples lie outside/);
    expect((again.find((o) => o.kind === 'facies') as WellTable).rows).toEqual([]);
  });
  test('one described well says nothing of how well facies are known elsewhere', async () => {
    await secondWell('T-2', 100);
    await work.store.commit({ put: [facies('T-1')] });
    const made = await run('wells.facies', { trained: ['well-1'], wells: ['T-2'] }, { curves: 'gamma ray, density' });
    expect(made.some((o) => o.kind === 'result table')).toBe(false);
    expect(made[0].madeBy.warnings.join()).toContain('described in one well only');
    await work.store.commit({ remove: ['facies-T-1'] });
    await expect(run('wells.facies', { trained: ['well-1'], wells: ['T-2'] })).rejects.toThrow(
      'There are samples of no facies',
    );
  });
  test('tops are carried to a well without any, each saying how it came; refused for one that has them', async () => {
    await secondWell('T-2', 100);
    await expect(run('wells.carry', { trusted: ['well-1'], wells: ['well-1'] })).rejects.toThrow(
      'Every well chosen is trusted',
    );
    await work.store.commit({ remove: ['tops-T-2'] });
    const made = (await run(
      'wells.carry',
      { trusted: ['well-1'], wells: ['T-2'] },
      { curves: 'gamma ray, density' },
    )) as WellTable[];
    const row = made[0].rows.find((r) => r[0] === 'Top');
    expect(Math.abs(Number(row?.[1]) - topM(WELL_AT.i, WELL_AT.j))).toBeLessThan(0.6);
    expect(row?.[5]).toContain('correlated from T-1');
    await expect(run('wells.carry', { trusted: ['well-1'], wells: ['T-2'] })).rejects.toThrow(
      'does not have it already',
    );
  });
});
