import { describe, expect, test } from 'vitest';
import { useDesk } from './desk';
import { setDisplay, setOwnColors } from './displays';
import { defaultDisplay, displayOf } from './views/display';
import { viewIn } from './views/index';
import { readViews } from './views/view';

const volume = { id: 'v', quantity: 'amplitude' };

describe('how volumes are drawn', () => {
  test('is by their quantity until it is changed, and then as one changed it', () => {
    expect(displayOf({}, volume)).toEqual(defaultDisplay('amplitude'));
    setDisplay(volume, { gain: 2 });
    setDisplay(volume, { reverse: true }, 'section-2');
    expect(displayOf(useDesk.getState().display, volume)).toEqual({
      ...defaultDisplay('amplitude'),
      gain: 2,
      reverse: true,
    });
    expect(displayOf(useDesk.getState().display, { id: 'w', quantity: 'variance' }).map).toBe('ink');
  });

  test('may be one view’s own, which begins as it was and is kept with the desk', () => {
    setDisplay(volume, { gain: 3 });
    setOwnColors(volume, 'section-2', true);
    setDisplay(volume, { clip: 90 }, 'section-2');
    setDisplay(volume, { gain: 1 }, 'section');
    const own = () => viewIn(useDesk.getState(), 'section-2').colors.v;
    expect(own()).toMatchObject({ gain: 3, clip: 90 });
    expect(displayOf(useDesk.getState().display, volume)).toMatchObject({ gain: 1, clip: 99 });
    expect(viewIn(useDesk.getState(), 'section').colors).toEqual({});
    const kept = JSON.parse(JSON.stringify(useDesk.getState().views));
    expect(readViews(kept)['section-2'].colors.v).toEqual(own());
    kept['section-2'].colors.v.gain = -1;
    expect(readViews(kept)['section-2'].colors).toEqual({});
    setOwnColors(volume, 'section-2', false);
    expect(own()).toBeUndefined();
  });
});
