import '../../testing/browser';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { useDesk } from '../../state/desk';
import { useHistory } from '../../state/history';
import { useSelection } from '../../state/selection';
import { ACTIONS, onKey, titleNow } from './actions';

let dialog = false;
vi.stubGlobal('document', { querySelector: () => (dialog ? {} : null) });

/** Press a key. @returns whether an action took it */
function press(key: string, more: Partial<KeyboardEvent> = {}, tagName = 'DIV'): boolean {
  const preventDefault = vi.fn();
  const event = {
    key,
    ctrlKey: false,
    metaKey: false,
    shiftKey: false,
    target: { isContentEditable: false, tagName },
    preventDefault,
    ...more,
  };
  onKey(event as unknown as KeyboardEvent);
  return preventDefault.mock.calls.length > 0;
}

beforeEach(() => {
  dialog = false;
  useDesk.setState({ stage: 'data', theme: 'light' });
  useSelection.setState({ paletteOpen: false, helpOpen: false });
  useHistory.setState({ done: [], undone: [] });
});

describe('actions', () => {
  test('have names and ids of their own, and no two share keys', () => {
    expect(new Set(ACTIONS.map((a) => a.id)).size).toBe(ACTIONS.length);
    expect(new Set(ACTIONS.map((a) => a.title)).size).toBe(ACTIONS.length);
    const keys = ACTIONS.map((a) => a.keys).filter(Boolean);
    expect(new Set(keys).size).toBe(keys.length);
  });
  test('select the ten beds by their digits, from the bottom', () => {
    const reached = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'].map((digit) => {
      expect(press(digit)).toBe(true);
      return useDesk.getState().stage;
    });
    expect(new Set(reached).size).toBe(10);
    expect([reached[0], reached[9]]).toEqual(['data', 'volumes']);
  });
  test('say what undo and redo would do', () => {
    const undo = ACTIONS.find((a) => a.id === 'undo');
    const redo = ACTIONS.find((a) => a.id === 'redo');
    if (!undo || !redo) throw new Error('both are actions');
    expect([titleNow(undo), titleNow(redo)]).toEqual(['Undo', 'Redo']);
    const edit = (name: string) => ({ name, before: [], after: [] });
    useHistory.setState({ done: [edit('A'), edit('B')], undone: [edit('C')] });
    expect([titleNow(undo), titleNow(redo)]).toEqual(['Undo: B', 'Redo: C']);
  });
});

describe('keys', () => {
  test('are left to the field that has the focus, but for the palette', () => {
    for (const field of ['INPUT', 'SELECT', 'TEXTAREA']) {
      expect(press('3', {}, field)).toBe(false);
      expect(useDesk.getState().stage).toBe('data');
      expect(press('k', { ctrlKey: true }, field)).toBe(true);
    }
    expect(useSelection.getState().paletteOpen).toBe(true);
  });
  test('are left alone while a dialog is open', () => {
    dialog = true;
    expect(press('3')).toBe(false);
    expect(useDesk.getState().stage).toBe('data');
  });
  test('are one action with Control or the command key, and none for what nothing is bound to', () => {
    expect(press('k', { metaKey: true })).toBe(true);
    expect(useSelection.getState().paletteOpen).toBe(true);
    expect(press('q')).toBe(false);
    // a digit with Control belongs to the browser
    expect(press('3', { ctrlKey: true })).toBe(false);
  });
  test('ask for help as it is typed, with Shift or without', () => {
    expect(press('?', { shiftKey: true })).toBe(true);
    expect(useSelection.getState().helpOpen).toBe(true);
  });
});
