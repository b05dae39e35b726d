import { type Picks, readPlane, type Traces, type Volume } from '@lithagon/core';
import { layeredField, topM, twtOf } from '@lithagon/core/testing/layeredField';
import { beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { undo } from '../../state/history';
import { takeTool, useTool } from '../../state/tool';
import { done, objectsNow, openWith } from '../../testing/field';
import { placeOf, reachOf, sectionLine } from '../../views/section/geometry';
import { beginPicking, changePicking, endStretch } from './picks';
import { accept, carriedOver, pickAlong, pickAt, rubOut, sameBlock, unpickAt } from './section';

const INLINE = 4;
let seismic: Volume;
const planes = new Map<number, Float32Array>();
beforeAll(async () => {
  const field = await layeredField(0.01);
  seismic = field.seismic;
  for (const inline of [INLINE, INLINE + 1])
    planes.set(inline, await readPlane(field.store, seismic, 'inline', inline));
});
beforeEach(async () => {
  takeTool(null);
  await openWith([seismic]);
});

const line = (inline = INLINE) => sectionLine(seismic.binGrid, 'inline', inline);
const traces = (data: Float32Array): Traces => ({
  data,
  samples: seismic.vertical.count,
  first: seismic.vertical.first,
  step: seismic.vertical.step,
});
const on = (inline = INLINE, cuts: [number, number, number, number][] = []) => ({
  line: line(inline),
  traces: traces(planes.get(inline) as Float32Array),
  cuts,
});
const tool = () => {
  const { tool: now } = useTool.getState();
  if (now?.kind !== 'pick') throw new Error('picks are being made');
  return now;
};
const pick = (trace: number, time: number, where = on()) => pickAt(tool(), where, trace, time);
const picks = () => objectsNow().filter((o): o is Picks => o.kind === 'picks');
/** TWT of the top of the zone on a trace of the line. */
const topAt = (j: number, inline = INLINE) => twtOf(inline, j, topM(inline, j));

describe('picks', () => {
  test('lie on the event nearest to the click, at the trace’s own place', async () => {
    beginPicking();
    await changePicking(tool(), { event: 'peak' });
    await pick(7.3, topAt(7) + 6);
    const [{ points, event, domain }] = picks();
    expect([event, domain]).toEqual(['peak', 'twt']);
    expect(points).toHaveLength(1);
    const [x, y, t] = points[0];
    expect([x, y]).toEqual(placeOf(line(), 7));
    // the bedding about the top moves its peak a little
    expect(Math.abs(t - topAt(7))).toBeLessThan(5);
  });
  test('of one horizon go into one object, however quickly they are made', async () => {
    beginPicking();
    await changePicking(tool(), { event: 'peak' });
    const first = tool();
    // the view has not been drawn anew between these clicks
    await Promise.all([3, 9, 15].map((j) => pickAt(first, on(), j, topAt(j))));
    expect(picks()).toHaveLength(1);
    expect(picks()[0].points).toHaveLength(3);
    expect(done()).toHaveLength(3);
  });
  test('on a trace that has one move it, and the one nearest to a click is taken off', async () => {
    beginPicking();
    await changePicking(tool(), { event: 'peak' });
    await pick(5, topAt(5));
    await pick(12, topAt(12));
    await pick(5, topAt(5) + 3);
    expect(picks()[0].points).toHaveLength(2);
    await unpickAt(tool(), line(), 12, topAt(12));
    expect(picks()[0].points.map((p) => p.slice(0, 2))).toEqual([placeOf(line(), 5)]);
    // nothing is near enough to this one
    await unpickAt(tool(), line(), 22, topAt(22));
    expect(picks()[0].points).toHaveLength(1);
    await undo();
    expect(picks()[0].points).toHaveLength(2);
  });
  test('are not made where there is no such event, or off the line', async () => {
    beginPicking();
    takeTool({ ...tool(), event: 'peak', snapMs: 2 });
    const quiet = traces(new Float32Array(planes.get(INLINE)?.length ?? 0));
    await pick(5, 700, { ...on(), traces: quiet });
    await pick(-3, 700);
    await pick(line().traces + 2, 700);
    expect(picks()).toEqual([]);
    expect(done()).toEqual([]);
  });
});

describe('picks drawn free-hand', () => {
  test('stand where they were put, and their object says so beside one that was snapped', async () => {
    beginPicking();
    await changePicking(tool(), { how: 'free-hand' });
    await pick(6, 613.7);
    takeTool({ ...tool(), id: null, name: 'Another' });
    await changePicking(tool(), { how: 'snapped', event: 'peak' });
    await pick(6, topAt(6) + 5);
    expect(picks()).toHaveLength(2);
    // two that were begun in one millisecond may be listed either way
    const of = (event: string) => picks().filter((p) => p.event === event);
    const [[free], [snapped]] = [of('free-hand'), of('peak')];
    expect([free.event, free.points[0][2]]).toEqual(['free-hand', 613.7]);
    expect([snapped.name, snapped.event]).toEqual(['Another', 'peak']);
    expect(Math.abs(snapped.points[0][2] - topAt(6))).toBeLessThan(5);
  });
  test('are one on each trace that a stroke passes, and one edit', async () => {
    beginPicking();
    await changePicking(tool(), { how: 'free-hand' });
    await pickAlong(tool(), on(), [
      [3, 500],
      [7.2, 540],
      [5, 560],
    ]);
    // where the stroke turns back the later one holds
    expect(picks()[0].points.map((p) => Math.round(p[2]))).toEqual([500, 510, 560, 551, 542]);
    expect(done()).toEqual(['Draw 5 picks on Picked horizon']);
  });
});

describe('picks that follow an event', () => {
  test('lie on every trace between two clicks, along its top', async () => {
    beginPicking();
    await changePicking(tool(), { how: 'followed', event: 'peak' });
    await pick(3, topAt(3));
    await pick(20, topAt(20));
    const { points } = picks()[0];
    expect(points).toHaveLength(18);
    for (const [n, p] of points.entries()) expect(Math.abs(p[2] - topAt(3 + n))).toBeLessThan(6);
    expect(done().at(-1)).toBe('Follow 18 traces on Picked horizon');
    // the stretch goes on from the last click, until it is ended
    endStretch();
    await pick(22, topAt(22));
    expect(picks()[0].points).toHaveLength(19);
  });
});

describe('picks are carried over', () => {
  test('to the next line as proposals at the event there, and kept when they are accepted', async () => {
    beginPicking();
    await changePicking(tool(), { event: 'peak' });
    for (const j of [4, 9, 14]) await pick(j, topAt(j));
    const next = on(INLINE + 1);
    const apart = 1.2 * Math.hypot(...seismic.binGrid.perInline);
    const proposed = carriedOver(tool(), next, apart);
    expect(proposed.map(([t]) => t)).toEqual([4, 9, 14]);
    for (const [t, time] of proposed) expect(Math.abs(time - topAt(t, INLINE + 1))).toBeLessThan(6);
    expect(picks()[0].points).toHaveLength(3);
    await accept(tool(), next.line, proposed);
    expect(picks()[0].points).toHaveLength(6);
    // what has its own picks is proposed nothing
    expect(carriedOver(tool(), next, apart)).toEqual([]);
    expect(carriedOver(tool(), on(), 1)).toEqual([]);
  });
});

describe('picks are taken away', () => {
  const begin = async () => {
    beginPicking();
    await changePicking(tool(), { how: 'free-hand' });
    for (const j of [2, 6, 10, 14]) await pick(j, 500 + j);
  };
  test('by what is true of them on this section alone, as one edit', async () => {
    await begin();
    await pick(6, 700, on(INLINE + 1));
    await rubOut(tool(), line(), (t) => t > 4 && t < 12);
    expect(picks()[0].points.map((p) => p[2])).toEqual([502, 514, 700]);
    expect(done().at(-1)).toBe('Take 2 picks off Picked horizon');
    await undo();
    expect(picks()[0].points).toHaveLength(5);
  });
  test('between two faults, and not beyond them', async () => {
    const cuts: [number, number, number, number][] = [
      [4, 0, 4, 2000],
      [12, 0, 12, 2000],
    ];
    expect(sameBlock(cuts, [6, 500], [8, 900])).toBe(true);
    expect(sameBlock(cuts, [2, 500], [8, 900])).toBe(false);
    await begin();
    await rubOut(tool(), line(), (t, v) => sameBlock(cuts, [t, v], [8, 600]));
    expect(picks()[0].points.map((p) => p[2])).toEqual([502, 514]);
  });
  test('half a trace off a section none of it is met', () => {
    expect(reachOf(line())).toBeLessThan(Math.hypot(...seismic.binGrid.perCrossline));
  });
});
