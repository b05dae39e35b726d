// @vitest-environment happy-dom
import { type ArrayRef, type EarthObject, type Horizon, readWhole } from '@lithagon/core';
import { renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { fieldOnTheDesk, show } from '../../testing/field';
import { waitFor } from '../../testing/page';

let field: ReturnType<typeof fieldOnTheDesk>;
const plane = new Float32Array(18 * 24).fill(0.5);
vi.mock('../../compute/planes', async (original) => ({
  ...(await original<object>()),
  readArray: (_: string, __: string, ref: ArrayRef) => readWhole(field.store, ref),
  readFirstLook: async () => null,
  readPlane: async () => plane,
}));
const { useMapLayer } = await import('./layer');

field = fieldOnTheDesk();
const now = (domain: 'twt' | 'depth' = 'twt') =>
  renderHook(() => useMapLayer(useProject.getState().objects, field.seismic, domain)).result;
const seaBed = () => field.objects.find((o): o is Horizon => o.kind === 'horizon') as Horizon;

beforeEach(() => {
  useProject.setState({ id: `map ${performance.now()}`, old: new Map(), facts: null });
  useDesk.setState({ mapShows: null, lines: { ...useDesk.getState().lines, slice: 40 } });
});

describe('what a map may show', () => {
  test('is outlines, a slice of the volume, horizons and maps of its domain, and the match of what was tracked', () => {
    const horizon = { ...seaBed(), id: 'tracked', name: 'Tracked', confidence: seaBed().values };
    const map = { kind: 'map', name: 'Thickness', id: 'map' } as unknown as EarthObject;
    show([...field.objects, horizon, map]);
    expect(now('depth').current.options.map((o) => o.label)).toEqual([
      'Outlines only',
      'Sea Bed',
      'Tracked',
      'Thickness',
      'Confidence of Tracked',
    ]);
    // a horizon in depth is not offered where time is shown, nor a slice in time where depth is
    expect(now().current.options.map((o) => o.label)).toEqual(['Outlines only', 'Slice of Seismic', 'Thickness']);
  });
  test('is nothing but outlines where nothing is chosen', () => {
    expect(now().current).toMatchObject({ layer: null, chosen: '', problem: null });
  });
});

describe('a slice', () => {
  test('lies at the time of its sample and is drawn as its volume is', async () => {
    useDesk.setState({ mapShows: 'slice' });
    const result = now();
    await waitFor(() => expect(result.current.layer).not.toBeNull());
    const { vertical } = field.seismic;
    expect(result.current.layer).toMatchObject({
      values: plane,
      quantity: 'amplitude',
      vertical: vertical.first + 40 * vertical.step,
    });
    expect(result.current.at).toBe(`at ${vertical.first + 40 * vertical.step} ms`);
  });
  test('beyond the volume is its last', () => {
    useDesk.setState({ mapShows: 'slice', lines: { ...useDesk.getState().lines, slice: 1e6 } });
    expect(now().current.k).toBe(field.seismic.vertical.count - 1);
  });
});

describe('a horizon', () => {
  test('is coloured between its ends and contoured at a round interval of the unit that is shown', async () => {
    const range: [number, number] = [80, 143];
    show([...field.objects, { ...seaBed(), id: 'uneven', range }]);
    useDesk.setState({ mapShows: 'uneven' });
    const result = now('depth');
    await waitFor(() => expect(result.current.layer).not.toBeNull());
    const layer = result.current.layer;
    expect([layer?.look.low, layer?.look.high]).toEqual(range);
    expect(layer?.legend).toMatch(/^Depth \(m\), every (0\.0*)?[125]0*$/);
    expect(layer?.vertical).toBe('values');
  });
  test('that is level has no contours, and says that it is', async () => {
    useDesk.setState({ mapShows: seaBed().id });
    const result = now('depth');
    await waitFor(() => expect(result.current.layer).toMatchObject({ legend: 'Depth (m), level', interval: null }));
  });
  test('that is out of date says so in its legend', async () => {
    useDesk.setState({ mapShows: seaBed().id });
    useProject.setState({ old: new Map([[seaBed().id, 'its seismic is newer']]) });
    const result = now('depth');
    await waitFor(() => expect(result.current.layer?.legend).toMatch(/, out of date$/));
  });
});
