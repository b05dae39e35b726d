// @vitest-environment happy-dom
import { type EarthObject, type Proposal, topsOf, type Well, type WellTable } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { useCursor } from '../../state/cursor';
import { useDesk } from '../../state/desk';
import { LOGS_DESK } from '../../state/logsTemplate';
import { settingsOf } from '../../state/views';
import { done, objectsNow, openWith } from '../../testing/field';
import { waitFor } from '../../testing/page';
import { axisOf, type WellColumn } from './columns';
import { layOut, wholeWindow } from './layout';
import { useHands } from './useHands';

const WELL = 'T-1';
const size = { width: 600, height: 692 };
const nudged: [Proposal, number][] = [];
const carry = { nudge: (one: Proposal, md: number) => nudged.push([one, md]) };

/** The panel of the field's well as it stands now. */
function panelNow() {
  const objects = objectsNow();
  const well = objects.find((o): o is Well => o.kind === 'well') as Well;
  const { axisAt, mdAt, deepest } = axisOf(objects, well, 'TVDSS');
  const tops = topsOf(objects, WELL);
  const curves: WellColumn['curves'] = new Map([
    [
      'gamma ray',
      { unit: 'gAPI', firstM: 0, stepM: 1, values: Float32Array.from({ length: 2000 }, (_, n) => n) } as never,
    ],
  ]);
  const rest = { facies: undefined, core: [], checkshots: [], first: 0, last: deepest };
  const columns: WellColumn[] = [{ well, curves, tops, axisAt, mdAt, ...rest }];
  const window: [number, number] = [400, 1000];
  const panel = layOut(columns, { ...LOGS_DESK, zones: true }, size, window, []);
  return { objects, columns, panel, window, whole: wholeWindow(columns, null) };
}

const element = document.createElement('div');
element.setPointerCapture = () => undefined;
const hands = () =>
  renderHook(() => useHands({ element, size, ...panelNow(), carry: carry as never, setScroll: () => undefined }));
type Hook = ReturnType<typeof hands>['result'];

/** A pointer at a depth of the well, with a button pressed. */
function at(md: number, more = {}) {
  const [well] = panelNow().panel.wells;
  return {
    clientX: well.tracks[0].box.left + 5,
    clientY: well.y(md),
    button: 0,
    pointerId: 1,
    currentTarget: element,
    stopPropagation: () => undefined,
    ...more,
  } as unknown as React.PointerEvent;
}
const key = (name: string, shiftKey = false) => ({ key: name, shiftKey, preventDefault: vi.fn() }) as never;
const kb = () => panelNow().columns[0].well.kbM;
const mdOf = (name: string) => topsOf(objectsNow(), WELL).find((t) => t.name === name)?.md ?? Number.NaN;

beforeEach(async () => {
  nudged.length = 0;
  useDesk.setState({ views: {}, active: null, recent: [] });
  useCursor.setState({ at: null });
  await openWith(await (await layeredField()).store.list());
});

describe('a top', () => {
  test('is picked where the pointer is pressed, and is the chosen one then', async () => {
    const { result, rerender } = hands();
    act(() => {
      result.current.setMode('pick');
      result.current.setTopName('Marker');
    });
    act(() => result.current.on.onPointerDown(at(600)));
    await waitFor(() => expect(mdOf('Marker')).toBeCloseTo(600, 1));
    rerender();
    await waitFor(() => expect(result.current.chosen).toMatchObject({ well: WELL, name: 'Marker' }));
    expect(topsOf(objectsNow(), WELL).find((t) => t.name === 'Marker')?.how).toBe('picked');
  });
  /** Drag a top of the well to a depth. */
  function drag(result: Hook, name: string, to: number) {
    const top = topsOf(objectsNow(), WELL).find((t) => t.name === name);
    if (!top) throw new Error(`there is no ${name}`);
    act(() => result.current.grip(at(top.md), WELL, top));
    act(() => result.current.on.onPointerMove(at(to)));
    expect(result.current.drag?.md).toBeCloseTo(to, 1);
    act(() => result.current.on.onPointerUp());
    expect(result.current.drag).toBeNull();
  }
  test('is dragged to another depth as one edit, and one that comes back to its place is none', async () => {
    const { result } = hands();
    const before = mdOf('Top');
    drag(result, 'Top', before);
    drag(result, 'Top', before - 7);
    await waitFor(() => expect(mdOf('Top')).toBeCloseTo(before - 7, 1));
    expect(done()).toEqual(['Move Top in T-1']);
  });
  test('is moved by keys, in fine steps or with Shift in coarse ones, and deleted', async () => {
    const { result, rerender } = hands();
    const before = mdOf('Top');
    drag(result, 'Top', before - 10);
    await waitFor(() => expect(result.current.chosen?.md).toBeCloseTo(before - 10, 1));
    rerender();
    act(() => result.current.on.onKeyDown(key('ArrowDown')));
    await waitFor(() => expect(result.current.chosen?.md).toBeCloseTo(before - 9.5, 1));
    rerender();
    act(() => result.current.on.onKeyDown(key('ArrowUp', true)));
    await waitFor(() => expect(result.current.chosen?.md).toBeCloseTo(before - 14.5, 1));
    rerender();
    act(() => result.current.on.onKeyDown(key('Delete')));
    await waitFor(() => expect(mdOf('Top')).toBeNaN());
    expect(result.current.chosen).toBeNull();
  });
  test('that is only proposed is nudged, which changes nothing of the well', () => {
    const { result } = hands();
    const proposal = { well: WELL, name: 'Carried', md: 620 } as Proposal;
    const top = { name: 'Carried', md: 620, confidence: null, kind: 'top' as const, missingM: null, how: '' };
    act(() => result.current.grip(at(620), WELL, top, proposal));
    act(() => result.current.on.onPointerMove(at(628)));
    act(() => result.current.on.onPointerUp());
    expect(nudged.map(([p, md]) => [p.name, Math.round(md)])).toEqual([['Carried', 628]]);
    expect(done()).toEqual([]);
  });
});

test('facies are painted from where the pointer is pressed to where it is let go; a mere click paints nothing', async () => {
  const { result } = hands();
  act(() => {
    result.current.setMode('paint');
    result.current.setFacies('Sand');
  });
  act(() => result.current.on.onPointerDown(at(650)));
  act(() => result.current.on.onPointerUp());
  act(() => result.current.on.onPointerDown(at(700)));
  act(() => result.current.on.onPointerMove(at(660)));
  act(() => result.current.on.onPointerUp());
  const painted = () => objectsNow().flatMap((o: EarthObject) => (o.kind === 'facies' ? (o as WellTable).rows : []));
  await waitFor(() => expect(painted()).toHaveLength(1));
  const [[from, to, name]] = painted();
  expect([Math.round(Number(from)), Math.round(Number(to)), name]).toEqual([660, 700, 'Sand']);
  expect(done()).toEqual(['Paint Sand in T-1']);
});

test('the pointer is read out: where it is in the earth, and the value of the first curve there', () => {
  const { result } = hands();
  act(() => result.current.on.onPointerMove(at(640)));
  expect(useCursor.getState().at).toMatchObject({ domain: 'depth', value: 640, quantity: 'gamma ray', unit: 'gAPI' });
  expect(useCursor.getState().at?.vertical).toBeCloseTo(640 - kb(), 0);
  // beside all wells there is nothing
  act(() => result.current.on.onPointerMove(at(640, { clientX: 590 })));
  expect(useCursor.getState().at).toBeNull();
});

describe('the wheel', () => {
  // a mouse event that scrolls: what a wheel gives beside its place is not taken from the page's own
  const wheel = (change: Partial<WheelEvent>, md = 700) =>
    act(() => {
      const event = new Event('wheel', { cancelable: true });
      const { clientX, clientY } = at(md);
      Object.assign(event, { clientX, clientY, deltaX: 0, deltaY: 0, ctrlKey: false, shiftKey: false, ...change });
      element.dispatchEvent(event);
    });
  const window = () => settingsOf('logs', 'logs').window as [number, number];
  test('scrolls, and with Ctrl draws nearer about the pointer', () => {
    const { unmount } = hands();
    wheel({ deltaY: 60 });
    expect(window()[1] - window()[0]).toBeCloseTo(600, 6);
    expect(window()[0]).toBeCloseTo(400 + (60 / panelNow().panel.height) * 600, 6);
    wheel({ deltaY: -50, ctrlKey: true });
    const [a, b] = window();
    expect(b - a).toBeLessThan(600);
    // what was under the pointer stays there
    const depth = 700 - kb();
    expect((depth - a) / (b - a)).toBeCloseTo((depth - 400) / 600, 6);
    unmount();
  });
});
