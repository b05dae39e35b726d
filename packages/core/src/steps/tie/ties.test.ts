import { beforeEach, describe, expect, test } from 'vitest';
import type {
  ResultTable,
  SyntheticGather,
  TimeDepthRelation,
  Volume,
  Wavelet,
  Well,
  WellTable,
} from '../../earth/objects.ts';
import { outOfDate } from '../../project/catalogue/staleness.ts';
import { activeRelation } from '../../project/wells/wells.ts';
import { readWhole, writeChunk } from '../../storage/arrays.ts';
import { layeredField, topM, twtOf, WELL_AT } from '../../testing/layeredField.ts';
import { FRAME } from '../../testing/objects.ts';
import { even } from '../../testing/random.ts';
import { wellWork } from '../../testing/wellWork.ts';
import { rebuild } from '../../trail/rebuild.ts';

const { work, objects, run, named, logsNow, change, secondWell, tie, wavelet, W } = wellWork();

describe('ties', () => {
  beforeEach(wavelet);
  test('a good tie stands far above chance, in its own polarity, without a warning', async () => {
    const [made] = (await tie()) as TimeDepthRelation[];
    expect(made.evidence?.chance).toBeLessThan(0.02);
    expect(made.evidence?.asDeclared).toBeGreaterThan(made.evidence?.turnedOver ?? 1);
    expect(made.evidence?.warnings).toEqual([]);
  });
  test('ties are versions: the last is active, an older one can be, and what rests on the other is then out of date', async () => {
    const [first] = await tie();
    const [second] = await tie({ shift: 'typed', shiftMs: 2 });
    expect(activeRelation(await objects(), 'T-1')?.id).toBe(second.id);
    const [horizon] = await run(
      'interpret.track',
      { seismic: ['seismic'], wells: ['well-1'] },
      { top: 'Top', event: 'peak', stack: 1 },
    );
    expect(outOfDate(await objects()).has(horizon.id)).toBe(false);
    await work.store.commit({ put: [{ ...(first as TimeDepthRelation), activated: '2099-01-01T00:00:00Z' }] });
    expect(activeRelation(await objects(), 'T-1')?.id).toBe(first.id);
    expect(outOfDate(await objects()).get(horizon.id)).toContain('is the active tie of T-1');
  });
  test('pins stretch the tie; a velocity out of bounds is refused without a reason, and kept with one', async () => {
    const pins = [
      { twt: 500, shiftMs: 0 },
      { twt: 560, shiftMs: 8 },
    ];
    await expect(tie({ stretch: 'pins', pins })).rejects.toThrow('beyond the bound of 3 %');
    const [made] = (await tie({
      stretch: 'pins',
      pins,
      reason: 'the sonic is washed out there',
    })) as TimeDepthRelation[];
    expect(made.reason).toBe('the sonic is washed out there');
    expect(made.evidence?.warnings.join()).toContain('Velocity is changed by');
    const [small] = (await tie({ stretch: 'pins', pins: [pins[0], { twt: 700, shiftMs: 2 }] })) as TimeDepthRelation[];
    expect(Math.abs(small.evidence?.velocityChange ?? 1)).toBeLessThan(0.03);
  });
  test('automatic stretch stays within its bound and takes nothing away from a tie that is right', async () => {
    const [made] = (await tie({ stretch: 'automatic', mostChange: 2 })) as TimeDepthRelation[];
    expect(Math.abs(made.evidence?.velocityChange ?? 1)).toBeLessThanOrEqual(0.02);
    const { i, j } = WELL_AT;
    const top = made.pairs.reduce((a, b) => (Math.abs(b[0] - topM(i, j)) < Math.abs(a[0] - topM(i, j)) ? b : a));
    expect(Math.abs(top[1] - twtOf(i, j, top[0]))).toBeLessThan(3);
  });
  test('one phase is found from several wells, each says what it found alone, and ties with it need not turn', async () => {
    await secondWell('T-2', 200);
    const inputs = { wells: ['well-1', 'T-2'], seismic: ['seismic'], wavelet: ['wavelet'] };
    const [turned, report] = await run('tie.phase', inputs, { top: 'Top' });
    const rows = (report as ResultTable).rows;
    expect(rows.map((r) => r[0])).toEqual(['T-1', 'T-2', 'All together', '± (90 %)']);
    // the field's wavelet has no phase
    expect(Math.abs(Number(rows[2][1]))).toBeLessThan(Math.max(8, 1.5 * Number(rows[3][1])));
    expect((turned as Wavelet).phaseDeg).toBeCloseTo(Number(rows[2][1]), 0);
    const [tied] = (await run(
      'tie.well',
      { well: ['well-1'], seismic: ['seismic'], wavelet: [turned.id] },
      { top: 'Top', mostPhaseDeg: 0 },
    )) as TimeDepthRelation[];
    expect(tied.phaseDeg).toBe(0);
    expect(tied.correlation).toBeGreaterThan(0.9);
    await expect(run('tie.phase', inputs, { top: 'Nowhere' })).rejects.toThrow('None of the wells can be tied');
  });
  test('what was taken out as spikes is named by log and depth, with what was logged', async () => {
    await change('sonic', (v, n) => (n === 900 ? 3 * v : v));
    const [made] = await tie();
    expect(made.madeBy.warnings.join()).toMatch(/1 sample of the sonic was a spike and taken out, at 525\.0 m MD/);
  });
  test('without checkshots the times of another well are taken, and it is said', async () => {
    await secondWell('T-2', 200);
    const shots = (await objects()).find((o) => o.id === 'checkshots-T-2');
    await work.store.commit({ remove: [shots?.id ?? ''] });
    await expect(tie({}, { well: ['T-2'] })).rejects.toThrow('T-2 has no checkshots');
    const [made] = await tie({ mostShiftMs: 30 }, { well: ['T-2'], like: ['well-1'] });
    expect(made.madeBy.warnings.join()).toContain('its times begin as those of T-1');
    await work.store.commit({ remove: ['checkshots-T-1', made.id] });
    await expect(tie({}, { well: ['T-2'], like: ['well-1'] })).rejects.toThrow('Neither T-2 nor T-1');
  });
  test('a tie whose best match is a cycle away from the truth is not silent: it warns of the other event, of chance, or of the edge', async () => {
    // the seismic is replaced by noise of its own band, so that whatever matches best is wrong
    let warned = 0;
    for (let seed = 1; seed <= 5; seed++) {
      const field = await layeredField(0.02);
      work.store = field.store;
      await wavelet();
      const { layouts } = field.seismic;
      const random = even(seed * 7919);
      const data = await readWhole(work.store, layouts.inline);
      const noisy = new Float32Array(data.length);
      for (let t = 0; t < data.length; t += 301)
        for (let n = 0; n < 40; n++) {
          const at = Math.floor(150.5 * (1 + random()));
          const size = 3000 * random();
          for (let k = -12; k <= 12; k++) {
            const q = ((Math.PI * 28 * 4 * k) / 1000) ** 2;
            if (at + k >= 0 && at + k < 301) noisy[t + at + k] += size * (1 - 2 * q) * Math.exp(-q);
          }
        }
      const chunk = layouts.inline.chunk.reduce((a, b) => a * b, 1);
      for (let c = 0; c * chunk < noisy.length; c++) {
        const piece = new Float32Array(chunk).fill(Number.NaN);
        piece.set(noisy.subarray(c * chunk, (c + 1) * chunk));
        await writeChunk(work.store, layouts.inline, [c, 0, 0], piece);
      }
      const [made] = (await tie({ mostShiftMs: 60 })) as TimeDepthRelation[];
      if ((made.evidence?.warnings.length ?? 0) > 0) warned++;
    }
    expect(warned).toBe(5);
  });

  describe('bad data has its sentence', () => {
    test('a sonic with a long gap', async () => {
      await change('sonic', (v, n) => (n > 800 && n < 900 ? Number.NaN : v));
      const [made] = (await tie()) as TimeDepthRelation[];
      expect(made.evidence?.warnings.join()).toContain('The sonic has a gap of 25 m');
    });
    test('and in feet where the project shows feet', async () => {
      await change('sonic', (v, n) => (n > 800 && n < 900 ? Number.NaN : v));
      await work.store.commit({ facts: { frame: { ...FRAME, display: 'field' } } });
      const [made] = (await tie()) as TimeDepthRelation[];
      expect(made.evidence?.warnings.join()).toContain('The sonic has a gap of 81 ft');
    });
    test('no density', async () => {
      const logs = await logsNow();
      await work.store.commit({ put: [{ ...logs, curves: logs.curves.filter((c) => c.class !== 'density') }] });
      const [made] = await tie();
      expect(made.madeBy.warnings.join()).toContain('T-1 has no density; it was estimated from velocity');
    });
    test('checkshots that go backwards in time', async () => {
      const shots = (await objects()).find((o): o is WellTable => o.id === 'checkshots-T-1') as WellTable;
      const rows = shots.rows.map((r, n) => (n === 6 ? [r[0], r[1], Number(r[2]) - 200] : r));
      await work.store.commit({ put: [{ ...shots, rows }] });
      const [made] = await tie();
      expect(made.madeBy.warnings.join()).toContain('1 checkshots of T-1 go back in time');
    });
    test('logs that start far below the datum are hung from the checkshots above them', async () => {
      const logs = await logsNow();
      await change('sonic', (v, n) => (n < 1000 ? Number.NaN : v));
      expect(logs.depth.firstM).toBe(300);
      const [made] = (await tie()) as TimeDepthRelation[];
      expect(made.correlation).toBeGreaterThan(0.8);
      expect(made.pairs[1][0]).toBeLessThan(300);
    });
    test('a deviated well that leaves the survey', async () => {
      const survey: WellTable = {
        ...((await objects()).find((o) => o.id === 'tops-T-1') as WellTable),
        id: 'survey',
        kind: 'directional surveys',
        name: 'T-1 directional surveys',
        rows: [
          [0, 0, 90],
          [500, 0, 90],
          [760, 62, 90],
          [1400, 62, 90],
        ],
      };
      await work.store.commit({ put: [survey] });
      const outcome = await tie({ windowMs: 400 }).then(
        ([made]) => made.madeBy.warnings.join(),
        (cause: Error) => cause.message,
      );
      expect(outcome).toMatch(/leaves Seismic|outside Seismic/);
    });
    test('a well with one curve', async () => {
      const logs = await logsNow();
      await work.store.commit({ put: [{ ...logs, curves: logs.curves.filter((c) => c.class === 'gamma ray') }] });
      await expect(tie()).rejects.toThrow('T-1 has no sonic log');
    });
    test('two wells on one trace are no independent witnesses of a wavelet', async () => {
      const { x } = (await named<Well>('T-1')) as Well;
      await secondWell('T-2', x + 3);
      const [made] = await run('tie.estimate', { seismic: ['seismic'], wells: ['well-1', 'T-2'] }, { top: 'Top' });
      expect(made.madeBy.warnings.join()).toContain('T-1 and T-2 stand on one trace');
    });
  });
});

describe('wavelets and gathers', () => {
  beforeEach(wavelet);
  test('least squares finds the wavelet that the field was made with', async () => {
    await tie();
    const [made] = (await run(
      'tie.estimate',
      { seismic: ['seismic'], wells: ['well-1'] },
      { top: 'Top' },
    )) as Wavelet[];
    // the field has noise, and reflectors beside the well that its log does not know
    expect(made.estimate?.predictability).toBeGreaterThan(0.8);
    const zero = Math.round(-made.firstMs / made.stepMs);
    const most = made.samples.reduce((a, b) => Math.max(a, Math.abs(b)), 0);
    expect(Math.abs(made.samples.indexOf(Math.max(...made.samples)) - zero)).toBeLessThanOrEqual(2);
    expect(made.samples[zero] / most).toBeGreaterThan(0.95);
    const [mean] = (await run('tie.shape', { wavelets: [made.id] }, { phaseDeg: 90 })) as Wavelet[];
    expect(Math.abs(mean.samples[zero] / most)).toBeLessThan(0.2);
  });
  test('a tie with a wavelet that was estimated by the last one makes nothing out of date, and a rebuild comes to an end', async () => {
    const [first] = await tie();
    const [made] = await run('tie.estimate', { seismic: ['seismic'], wells: ['well-1'] }, { top: 'Top' });
    const inputs = { well: ['well-1'], seismic: ['seismic'], wavelet: [made.id] };
    const [second] = await run('tie.well', inputs, { top: 'Top' });
    expect(activeRelation(await objects(), 'T-1')?.id).toBe(second.id);
    expect([...outOfDate(await objects())]).toEqual([]);
    // a tie that has nothing to do with the wavelet is one that it should be made from
    const [other] = await tie({ shift: 'typed', shiftMs: 1 });
    expect(outOfDate(await objects()).get(made.id)).toContain(`${other.name} is the active tie of T-1`);
    // an older one is made active and the seismic changes: all is made again, and the same tie stays active
    const again = { ...(first as TimeDepthRelation), activated: '2099-01-01T00:00:00Z', note: 'checked' };
    const seismic = { ...(await named<Volume>('Seismic')), revision: 'another' };
    await work.store.commit({ put: [again, seismic] });
    await rebuild(work.store, undefined);
    expect([...outOfDate(await objects())]).toEqual([]);
    expect(activeRelation(await objects(), 'T-1')).toMatchObject({ id: first.id, note: 'checked' });
  });
  test('a gather at angles needs shear; straight down every form is the same trace, with another fluid it is not', async () => {
    await tie();
    const gather = (params: Record<string, unknown>, logs: string[] = []) =>
      run('tie.angles', { well: ['well-1'], wavelet: ['wavelet'], logs }, params) as Promise<SyntheticGather[]>;
    await expect(gather({})).rejects.toThrow('T-1 has no shear log');
    await run('wells.shale', W, { lines: 'typed', clean: 30, shale: 110 });
    await run('wells.porosity', W, { grain: 2650, fluid: 1030 });
    await run('wells.saturation', W, { law: 'Archie', water: 0.06 });
    await run('wells.shear', W);
    const [exact] = await gather({ toDeg: 30, stepDeg: 10 });
    const [linear] = await gather({ toDeg: 30, stepDeg: 10, form: 'Shuey' });
    expect(exact.anglesDeg).toEqual([0, 10, 20, 30]);
    const count = exact.samples.shape[1];
    const [a, b] = [await readWhole(work.store, exact.samples), await readWhole(work.store, linear.samples)];
    const rms = (from: number) => Math.sqrt(a.subarray(from, from + count).reduce((s, v) => s + v * v, 0) / count);
    for (let n = 0; n < count; n++) expect(Math.abs(a[n] - b[n])).toBeLessThan(0.02 * rms(0) + 0.002);
    const [other] = await run('wells.substitute', W, { now: 'oil', instead: 'gas' });
    const [gassy] = await gather({ toDeg: 30, stepDeg: 10 }, [other.id]);
    const c = await readWhole(work.store, gassy.samples);
    expect(Math.max(...c.subarray(0, count).map((v, n) => Math.abs(v - a[n])))).toBeGreaterThan(0.3 * rms(0));
  });
});
