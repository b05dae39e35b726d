// @vitest-environment happy-dom
import { type Domain, type Picks, readPlane, type Volume } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { act, renderHook } from '@testing-library/react';
import { beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { beginFault } from '../../actions/draw';
import { beginPicking } from '../../actions/picking/picks';
import { useCursor } from '../../state/cursor';
import { useDesk } from '../../state/desk';
import { takeTool, useTool } from '../../state/tool';
import { goTo, settingsOf } from '../../state/views';
import { lookIn } from '../../state/views/index';
import { objectsNow, openWith } from '../../testing/field';
import { onPage, screen, waitFor } from '../../testing/page';
import { indexAt, placeAt } from '../common/survey';
import { placeOf, sectionLine, valueAt } from './geometry';
import { LineTools } from './LineTools';
import { alongSame } from './layers/Crossings';
import { SectionMenu } from './SectionMenu';
import { useHands } from './tools/useHands';
import { MARGIN, useWindow } from './useWindow';

const INLINE = 4;
let seismic: Volume;
let data: Float32Array;
beforeAll(async () => {
  const field = await layeredField(0.01);
  seismic = field.seismic;
  data = await readPlane(field.store, seismic, 'inline', INLINE);
});
beforeEach(async () => {
  takeTool(null);
  useCursor.setState({ at: null });
  useDesk.setState({ volume: seismic.id, views: {}, links: {}, active: null, recent: [] });
  goTo('section', { ...placeAt(seismic, 'inline', INLINE), ...placeAt(seismic, 'crossline', 0) });
  await openWith([seismic]);
});

const element = document.createElement('div');
element.setPointerCapture = () => undefined;
const size = { width: 400 + MARGIN.left + MARGIN.right, height: 300 + MARGIN.top + MARGIN.bottom };
const whole = { x0: 0, x1: 23, y0: 0, y1: 1000 };
const along = () => ({ plane: 'inline' as const, line: sectionLine(seismic.binGrid, 'inline', INLINE), joints: [] });
const view = () => renderHook(() => useWindow(element, size, whole, seismic, along()));
const inlineNow = () => indexAt(seismic, 'inline', lookIn(useDesk.getState(), 'section').place);
type View = ReturnType<typeof view>['result'];

/** A pointer over a trace and a time of the whole section. */
const pointer = (trace: number, time: number, more = {}) =>
  ({
    clientX: MARGIN.left + (400 * trace) / 23,
    clientY: MARGIN.top + (300 * time) / 1000,
    button: 0,
    detail: 1,
    pointerId: 1,
    currentTarget: element,
    preventDefault: () => undefined,
    ...more,
  }) as unknown as React.PointerEvent;
const wheel = (trace: number, time: number, change: Partial<WheelEvent>) =>
  act(() => {
    const event = new Event('wheel', { cancelable: true });
    const { clientX, clientY } = pointer(trace, time);
    element.dispatchEvent(Object.assign(event, { clientX, clientY, deltaX: 0, deltaY: 0, ctrlKey: false, ...change }));
  });
const space = (type: 'keydown' | 'keyup') => act(() => void dispatchEvent(new KeyboardEvent(type, { code: 'Space' })));
const pull = (result: View, from: [number, number], to: [number, number]) => {
  let begun = false;
  act(() => {
    begun = result.current.drag.begin(pointer(...from), false);
  });
  act(() => void result.current.drag.move(pointer(...to)));
  act(() => result.current.drag.end());
  return begun;
};

describe('the part of a section in view', () => {
  test('is the whole at first, and the pointer is read in traces and time', () => {
    const { result, unmount } = view();
    expect(result.current.window).toEqual(whole);
    const { clientX, clientY } = pointer(11.5, 250);
    const p = result.current.at(clientX, clientY);
    expect(p.trace).toBeCloseTo(11.5, 6);
    expect(p).toMatchObject({ vertical: 250, inside: true });
    expect(result.current.at(MARGIN.left - 2, clientY).inside).toBe(false);
    unmount();
  });
  test('is drawn nearer about the pointer with Ctrl, never beyond the section or closer than its samples', () => {
    const { result, unmount } = view();
    wheel(6, 400, { ctrlKey: true, deltaY: -200 });
    const { window } = result.current;
    expect(window.x1 - window.x0).toBeLessThan(23);
    expect((6 - window.x0) / (window.x1 - window.x0)).toBeCloseTo(6 / 23, 6);
    expect((400 - window.y0) / (window.y1 - window.y0)).toBeCloseTo(0.4, 6);
    for (let n = 0; n < 30; n++) wheel(6, 400, { ctrlKey: true, deltaY: -200 });
    expect(result.current.window.x1 - result.current.window.x0).toBeGreaterThan(4);
    for (let n = 0; n < 60; n++) wheel(6, 400, { ctrlKey: true, deltaY: 200 });
    expect(result.current.window).toEqual(whole);
    unmount();
  });
  test('steps by lines as the wheel turns', () => {
    const { unmount } = view();
    wheel(6, 400, { deltaY: 40 });
    expect(inlineNow()).toBe(INLINE + 1);
    wheel(6, 400, { deltaY: -40 });
    wheel(6, 400, { deltaY: -40 });
    expect(inlineNow()).toBe(INLINE - 1);
    // a touchpad turns little by little
    for (let n = 0; n < 4; n++) wheel(6, 400, { deltaY: 10 });
    expect(inlineNow()).toBe(INLINE);
    unmount();
  });
  test('is moved with Space, and stays on the section', () => {
    const { result, unmount } = view();
    wheel(11.5, 500, { ctrlKey: true, deltaY: -400 });
    const before = result.current.window;
    // without Space a press moves nothing
    expect(pull(result, [10, 400], [12, 500])).toBe(true);
    expect(result.current.window).toEqual(before);
    space('keydown');
    pull(result, [10, 400], [12, 500]);
    const after = result.current.window;
    expect(after.x0).toBeLessThan(before.x0);
    expect(after.x1 - after.x0).toBeCloseTo(before.x1 - before.x0, 6);
    pull(result, [0, 0], [23, 1000]);
    expect([result.current.window.x0, result.current.window.y0]).toEqual([0, 0]);
    space('keyup');
    act(() => result.current.showWhole());
    expect(result.current.window).toEqual(whole);
    unmount();
  });
  test('leaves a press to what is being drawn', () => {
    const { result, unmount } = view();
    expect(result.current.drag.begin(pointer(3, 300), true)).toBe(false);
    unmount();
  });
});

describe('hands on a section', () => {
  const line = () => sectionLine(seismic.binGrid, 'inline', INLINE);
  const hands = (more: { trial?: boolean; domain?: Domain; coarse?: boolean } = {}) => {
    const { result } = view();
    return renderHook(() =>
      useHands({
        volume: seismic,
        frame: {
          line: line(),
          window: whole,
          box: { left: MARGIN.left, top: MARGIN.top, width: 400, height: 300 },
          domain: more.domain ?? 'twt',
          cuts: [],
          turning: null,
        },
        data: { key: 'k', data, index: INLINE, coarse: more.coarse },
        at: result.current.at,
        trial: more.trial ?? false,
      }),
    ).result;
  };
  const press = (key: string, shiftKey = false) =>
    ({ key, shiftKey, preventDefault: () => undefined, stopPropagation: () => undefined }) as never;
  const picks = () => objectsNow().filter((o): o is Picks => o.kind === 'picks');

  test('read out place, time and value; a first look has no value to read', () => {
    hands().current.move(pointer(7, 400));
    const [x, y] = placeOf(line(), 7);
    const at = useCursor.getState().at;
    expect(at?.vertical).toBeCloseTo(400, 6);
    expect(at).toMatchObject({ x, y, quantity: 'amplitude', from: 'section' });
    expect(at?.value).toBe(valueAt(seismic, data, 7, at?.vertical ?? 0));
    hands({ coarse: true }).current.move(pointer(7, 400));
    expect(useCursor.getState().at?.value).toBeNull();
    hands({ trial: true }).current.move(pointer(7, 400));
    expect(useCursor.getState().at?.quantity).toBe('trial');
    hands().current.move(pointer(7, -200));
    expect(useCursor.getState().at).toBeNull();
  });
  test('pick by a click, and by keys where the cursor is', async () => {
    act(() => beginPicking());
    const result = hands();
    expect(result.current.drawing).toBe(true);
    act(() => result.current.down(pointer(5, 400)));
    act(() => result.current.up(pointer(5, 400)));
    await waitFor(() => expect(picks()[0]?.points).toHaveLength(1));
    act(() => result.current.move(pointer(5, 400)));
    const again = hands();
    act(() => again.current.key(press('ArrowRight', true)));
    expect(useCursor.getState().at?.x).toBeCloseTo(placeOf(line(), 15)[0], 6);
    act(() => again.current.key(press('ArrowDown')));
    expect(useCursor.getState().at?.vertical).toBeCloseTo(400 + seismic.vertical.step, 6);
    act(() => again.current.key(press('p')));
    await waitFor(() => expect(picks()[0]?.points).toHaveLength(2));
    act(() => again.current.turn(pointer(5, picks()[0].points[0][2])));
    await waitFor(() => expect(picks()[0]?.points).toHaveLength(1));
    act(() => again.current.key(press('Escape')));
    expect(useTool.getState().tool).toBeNull();
  });
  test('draw a fault point by point, and take the last one back', () => {
    act(() => beginFault());
    const result = hands();
    act(() => result.current.down(pointer(5, 300)));
    act(() => result.current.down(pointer(6, 500)));
    const stick = () => {
      const { tool } = useTool.getState();
      return tool?.kind === 'fault' ? tool.stick : [];
    };
    expect(stick().map((p) => Math.round(p[2]))).toEqual([300, 500]);
    act(() => result.current.key(press('Backspace')));
    expect(stick().map((p) => Math.round(p[2]))).toEqual([300]);
  });
  test('draw nothing on a trial, nor in depth', () => {
    act(() => beginPicking());
    expect(hands({ trial: true }).current.drawing).toBe(false);
    expect(hands({ domain: 'depth' }).current.drawing).toBe(false);
  });
});

describe('the tools of a line', () => {
  let turned = 0;
  const tools = () => onPage(<LineTools shown={seismic} number={5} onTurn={() => turned++} />);
  test('go to a line by its number, as near as the survey comes', async () => {
    const { hands } = tools();
    const number = screen.getByRole('textbox', { name: 'Line number' });
    await hands.click(number);
    await hands.keyboard('9{Enter}');
    const { first, step, count } = seismic.binGrid.inline;
    expect(first + step * inlineNow()).toBe(9);
    await hands.click(number);
    await hands.keyboard('9999{Enter}');
    expect(inlineNow()).toBe(count - 1);
    await hands.click(number);
    await hands.keyboard('last{Enter}');
    expect(inlineNow()).toBe(count - 1);
  });
  test('turn to crosslines, and step by as many lines as is said, within bounds', async () => {
    const { hands } = tools();
    await hands.selectOptions(screen.getByRole('combobox', { name: 'Line of the section' }), 'Crossline');
    expect(settingsOf('section', 'section').along).toBe('crossline');
    expect(turned).toBe(1);
    onPage(<SectionMenu shown={seismic} onWhole={() => undefined} />);
    const by = screen.getByRole('spinbutton', { name: 'Step by this many lines' });
    await hands.tripleClick(by);
    await hands.paste('2000');
    expect(settingsOf('section', 'section').increment).toBe(1000);
  });
});

test('a section that runs along another crosses it nowhere, whichever way it goes', () => {
  const line = sectionLine(seismic.binGrid, 'inline', INLINE);
  const along: [number, number][] = [line.to, line.place(7), line.from];
  expect(alongSame(line, along)).toBe(true);
  expect(alongSame(line, along.slice(0, 2))).toBe(false);
  const across = sectionLine(seismic.binGrid, 'crossline', 3);
  expect(alongSame(line, [across.from, across.to])).toBe(false);
  const next = sectionLine(seismic.binGrid, 'inline', INLINE + 1);
  expect(alongSame(line, [next.from, next.to])).toBe(false);
});
