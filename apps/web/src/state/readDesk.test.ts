import { expect, test } from 'vitest';
import { useDesk } from './desk';
import { readDesk } from './readDesk';

const whole = () => JSON.parse(JSON.stringify(useDesk.getState())) as Record<string, unknown>;

test('a desk as it was kept comes back as it was', () => {
  const { theme: _, ...kept } = whole();
  expect(readDesk(kept)).toEqual(kept);
});

test('what is wrong in one part costs no other part', () => {
  for (const key of Object.keys(whole()).filter((k) => k !== 'theme'))
    for (const wrong of [undefined, 5, 'x', {}, [], { lines: 1 }, [null], Number.NaN]) {
      const { theme: _, ...kept } = { ...whole(), [key]: wrong };
      const read = readDesk(kept) as Record<string, unknown>;
      for (const other of Object.keys(kept).filter((k) => k !== key)) expect(read[other], key).toEqual(kept[other]);
      // what is there of the part can be used
      expect(readDesk(read)).toEqual(read);
    }
});

test('views that there are not, and colours that are none, are left out', () => {
  const view = (contentComponent: string) => ({
    grid: { root: {}, width: 1, height: 1, orientation: 'HORIZONTAL' },
    panels: { a: { id: contentComponent, contentComponent } },
  });
  expect(readDesk({ layout: view('map') }).layout).toBeDefined();
  expect(readDesk({ layout: view('nothing') }).layout).toBeUndefined();
  const style = { from: 0, to: 1, log: false, color: '"/><script>' };
  // a desk of before, and one of now
  for (const desk of [
    { logs: { styles: { GR: style }, spaced: true } },
    { views: { logs: { settings: { styles: { GR: style }, spaced: true } } } },
  ]) {
    const { settings } = readDesk(desk).views?.logs ?? {};
    expect(settings).toMatchObject({ spaced: true });
    expect(settings?.styles).toBeUndefined();
  }
});

test('what is no desk at all gives nothing', () => {
  for (const none of [null, undefined, 5, 'desk', []]) expect(readDesk(none)).toEqual({});
});
