// @vitest-environment happy-dom
import { type PlotRequest, plotPoints, type Well } from '@lithagon/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { gatherPlot, rasterOf, selectPlot } from '../../compute/plots';
import { PLOT_DESK } from '../../state/plotDesk';
import { usePlotSelection } from '../../state/plotSelection';
import { useProject } from '../../state/project';
import { fieldOnTheDesk, show } from '../../testing/field';
import { waitFor } from '../../testing/page';

/** Gatherings that wait until they are let through; the plot itself is made as the worker makes it. */
let held: (() => void)[] = [];
const rasters: string[] = [];
vi.mock('../../compute/pool', () => ({
  unwrap: (value: unknown) => value,
  forViews: () => ({
    plotGather: async (_: string, request: PlotRequest) => {
      await new Promise<void>((go) => held.push(go));
      return gatherPlot(field.store, useProject.getState().objects, request);
    },
    plotRaster: async (...asked: Parameters<typeof rasterOf>) => {
      rasters.push(asked[0]);
      return rasterOf(...asked);
    },
    plotSelect: async (...asked: Parameters<typeof selectPlot>) => selectPlot(...asked),
  }),
}));
const { lightUp, usePicture, usePlotFacts } = await import('./usePlot');

const field = fieldOnTheDesk();
beforeEach(() => {
  held = [];
  rasters.length = 0;
  usePlotSelection.setState({ now: null });
});
const request = (x: string): PlotRequest => {
  const well = field.objects.find((o): o is Well => o.kind === 'well') as Well;
  return { ...PLOT_DESK, wells: [well.id], x: { of: x, log: false } };
};
const letThrough = () =>
  act(async () => {
    for (const go of held.splice(0)) go();
  });
const follow = () =>
  renderHook(({ of }: { of: PlotRequest | null }) => usePlotFacts(of), { initialProps: { of: request('sonic') } });

describe('points of a crossplot', () => {
  test('come from the worker with their units, window and fit; the last ones stay while others are gathered', async () => {
    const { result, rerender } = follow();
    expect(result.current).toMatchObject({ facts: null, gathering: true });
    await letThrough();
    await waitFor(() => expect(result.current.gathering).toBe(false));
    const { facts } = result.current;
    const points = await plotPoints(field.store, field.objects, request('sonic'));
    expect(facts).toMatchObject({ count: points.x.length, unitX: 'us/m', unitY: 'kg/m3' });
    expect(facts?.window.x0).toBeLessThan(Math.min(...points.x) + 1e-3);
    rerender({ of: request('gamma ray') });
    // until the next are here it says of what these are
    expect(result.current).toMatchObject({ facts, of: { x: { of: 'sonic' } }, gathering: true });
    await letThrough();
    await waitFor(() => expect(result.current.of?.x.of).toBe('gamma ray'));
    expect(result.current.gathering).toBe(false);
  });
  test('that were asked for and are not wanted any more never show', async () => {
    const { result, rerender } = follow();
    rerender({ of: request('gamma ray') });
    const [late, wanted] = held.splice(0);
    await act(async () => wanted());
    await waitFor(() => expect(result.current.of?.x.of).toBe('gamma ray'));
    await act(async () => late());
    expect(result.current.of?.x.of).toBe('gamma ray');
  });
  test('are gathered anew when what is plotted has changed', async () => {
    const { result } = follow();
    await letThrough();
    await waitFor(() => expect(result.current.facts).not.toBeNull());
    const before = result.current.facts?.key;
    act(() => show(field.objects.map((o) => (o.kind === 'logs' ? { ...o, revision: 'edited' } : o))));
    await letThrough();
    await waitFor(() => expect(result.current.facts?.key).not.toBe(before));
  });
});

describe('the raster', () => {
  test('holds every point of the window once', async () => {
    const { result } = follow();
    await letThrough();
    await waitFor(() => expect(result.current.facts).not.toBeNull());
    const facts = result.current.facts;
    if (!facts) throw new Error('there are points');
    const picture = renderHook(() => usePicture(facts, facts.window, [], 120, 80)).result;
    await waitFor(() => expect(picture.current).not.toBeNull());
    const sum = picture.current?.counts.reduce((a, b) => a + b, 0);
    expect(sum).toBe(picture.current?.inside);
    expect(picture.current?.inside).toBeGreaterThan(0.98 * facts.count);
    expect(rasters).toEqual([facts.key]);
  });
  test('is not made for a window too small to see', () => {
    expect(renderHook(() => usePicture(null, null, [], 4, 4)).result.current).toBeNull();
    expect(rasters).toEqual([]);
  });
});

describe('points drawn round', () => {
  test('light up in the wells that they come from, and a line lights up nothing', async () => {
    const { result } = follow();
    await letThrough();
    await waitFor(() => expect(result.current.facts).not.toBeNull());
    const facts = result.current.facts;
    if (!facts) throw new Error('there are points');
    const { x0, x1, y0, y1 } = facts.window;
    const middle = (x0 + x1) / 2;
    const half: [number, number][] = [
      [x0, y0],
      [middle, y0],
      [middle, y1],
      [x0, y1],
    ];
    const count = await lightUp(facts, half, [], '#123456', 'sonic', null);
    const points = await plotPoints(field.store, field.objects, request('sonic'));
    const expected = points.x.filter((x, n) => x > x0 && x < middle && points.y[n] > y0 && points.y[n] < y1).length;
    expect(count).toBe(expected);
    const now = usePlotSelection.getState().now;
    expect([...(now?.wells.keys() ?? [])]).toEqual(['T-1']);
    const metres = (now?.wells.get('T-1') ?? []).reduce((sum, [a, b]) => sum + b - a, 0);
    expect(metres).toBeGreaterThan(0);
    expect(await lightUp(facts, half.slice(0, 2), [], '#123456', 'sonic', null)).toBe(0);
    expect(usePlotSelection.getState().now).toBeNull();
  });
  test('are those within the ranges of further quantities alone', async () => {
    const { result } = renderHook(() => usePlotFacts({ ...request('sonic'), more: ['gamma ray'] }));
    await letThrough();
    await waitFor(() => expect(result.current.facts).not.toBeNull());
    const facts = result.current.facts;
    if (!facts) throw new Error('there are points');
    const [{ range }] = facts.more;
    const { x0, x1, y0, y1 } = facts.window;
    const all: [number, number][] = [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ];
    const count = (least: number) => lightUp(facts, all, [[least, range[1]]], '#123456', 'sonic', null);
    const points = await plotPoints(field.store, field.objects, { ...request('sonic'), more: ['gamma ray'] });
    const middle = (range[0] + range[1]) / 2;
    const inside = (n: number) => points.x[n] > x0 && points.x[n] < x1 && points.y[n] > y0 && points.y[n] < y1;
    const expected = points.more[0].filter((v, n) => v >= middle && v <= range[1] && inside(n)).length;
    expect(expected).toBeGreaterThan(0);
    expect(expected).toBeLessThan(points.x.length);
    expect(await count(middle)).toBe(expected);
  });
});
