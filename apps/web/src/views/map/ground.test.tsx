// @vitest-environment happy-dom
import { type ArrayRef, type Domain, type EarthObject, type Horizon, readWhole } from '@lithagon/core';
import { renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { useDesk } from '../../state/desk';
import { HereProvider } from '../../state/here';
import { useProject } from '../../state/project';
import { changeSettings, goTo } from '../../state/views';
import { fieldOnTheDesk, show } from '../../testing/field';
import { waitFor } from '../../testing/page';
import { placeAt } from '../common/survey';

let field: ReturnType<typeof fieldOnTheDesk>;
const plane = new Float32Array(18 * 24).fill(0.5);
vi.mock('../../compute/planes', async (original) => ({
  ...(await original<object>()),
  readArray: (_: string, __: string, ref: ArrayRef) => readWhole(field.store, ref),
  readFirstLook: async () => null,
  readPlane: async () => plane,
}));
const { useGround } = await import('./ground');

field = fieldOnTheDesk();
const now = (domain: Domain = 'twt') => {
  changeSettings('map', 'map', { domain });
  return renderHook(() => useGround(useProject.getState().objects, field.seismic), {
    wrapper: ({ children }) => <HereProvider value="map">{children}</HereProvider>,
  }).result;
};
const choose = (shows: string | null) => changeSettings('map', 'map', { shows });
const seaBed = () => field.objects.find((o): o is Horizon => o.kind === 'horizon') as Horizon;

beforeEach(() => {
  useProject.setState({ id: `map ${performance.now()}`, old: new Map(), facts: null });
  useDesk.setState({ views: {}, links: {} });
  goTo('map', placeAt(field.seismic, 'slice', 40));
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
  test('is the first horizon of its domain where nothing is chosen, else a slice, and outlines where that is chosen', () => {
    expect(now('depth').current.chosen).toBe(seaBed().id);
    expect(now().current.chosen).toBe('slice');
    choose('gone');
    expect(now('depth').current.chosen).toBe(seaBed().id);
    choose('none');
    expect(now('depth').current).toMatchObject({ ground: null, chosen: 'none', problem: null });
  });
});

describe('a slice', () => {
  test('lies at the time of its sample and is drawn as its volume is', async () => {
    choose('slice');
    const result = now();
    await waitFor(() => expect(result.current.ground).not.toBeNull());
    const { vertical } = field.seismic;
    expect(result.current.ground).toMatchObject({
      values: plane,
      quantity: 'amplitude',
      vertical: vertical.first + 40 * vertical.step,
    });
    expect(result.current.at).toBe(`at ${vertical.first + 40 * vertical.step} ms`);
  });
  test('beyond the volume is its last', () => {
    choose('slice');
    goTo('map', { twt: 1e6 });
    const { vertical } = field.seismic;
    expect(now().current.at).toBe(`at ${vertical.first + (vertical.count - 1) * vertical.step} ms`);
  });
});

describe('a horizon', () => {
  test('is coloured between its ends and contoured at a round interval of the unit that is shown', async () => {
    const range: [number, number] = [80, 143];
    show([...field.objects, { ...seaBed(), id: 'uneven', range }]);
    choose('uneven');
    const result = now('depth');
    await waitFor(() => expect(result.current.ground).not.toBeNull());
    const ground = result.current.ground;
    expect([ground?.look.low, ground?.look.high]).toEqual(range);
    expect(ground?.legend).toMatch(/^Depth \(m\), every (0\.0*)?[125]0*$/);
    expect(ground?.vertical).toBe('values');
  });
  test('that is level has no contours, and says that it is', async () => {
    choose(seaBed().id);
    const result = now('depth');
    await waitFor(() => expect(result.current.ground).toMatchObject({ legend: 'Depth (m), level', interval: null }));
  });
  test('that is out of date says so in its legend', async () => {
    choose(seaBed().id);
    useProject.setState({ old: new Map([[seaBed().id, 'its seismic is newer']]) });
    const result = now('depth');
    await waitFor(() => expect(result.current.ground?.legend).toMatch(/, out of date$/));
  });
});
