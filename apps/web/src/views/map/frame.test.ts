import type { EarthObject } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { farOff, fitAll, scaleBar, toEarth, toScreen } from './frame';

const size = { width: 640, height: 480 };

describe('the frame of a map', () => {
  test('puts positions on the screen and back, north up', () => {
    const number = fc.double({ min: -1e6, max: 1e6, noNaN: true });
    fc.assert(
      fc.property(number, number, fc.double({ min: 0.5, max: 500, noNaN: true }), (x, y, perPixel) => {
        const frame = { x: 512000, y: 7640000, perPixel };
        const [px, py] = toScreen(frame, size, 512000 + x, 7640000 + y);
        const back = toEarth(frame, size, px, py);
        expect(back[0]).toBeCloseTo(512000 + x, 3);
        expect(back[1]).toBeCloseTo(7640000 + y, 3);
        expect(toScreen(frame, size, 512000 + x, 7640000 + y + 10 * perPixel)[1]).toBeCloseTo(py - 10, 3);
      }),
      { seed: 9 },
    );
  });
  test('that fits all holds every corner of surveys and every well, with room around', async () => {
    const { store, well } = await layeredField();
    const objects = await store.list();
    const far = { ...well, id: 'far', x: 5000, y: -3000 };
    const frame = fitAll([...objects, far], size);
    if (!frame) throw new Error('there is something to fit');
    for (const [x, y] of [
      [0, 0],
      [23 * 25, 17 * 25],
      [5000, -3000],
    ]) {
      const [px, py] = toScreen(frame, size, x, y);
      expect(px).toBeGreaterThan(20);
      expect(px).toBeLessThan(size.width - 20);
      expect(py).toBeGreaterThan(20);
      expect(py).toBeLessThan(size.height - 20);
    }
  });
  test('is not made small for one well that lies far off, which is named with its distance', async () => {
    const { store, well } = await layeredField();
    const objects = await store.list();
    const lost = { ...well, id: 'lost', name: 'Lost', x: 300_000, y: 0 };
    const near = fitAll(objects, size);
    expect(farOff([...objects, lost])).toEqual([
      { id: 'lost', name: 'Lost', why: expect.stringMatching(/^lies 299 km/) },
    ]);
    expect(fitAll([...objects, lost], size)).toEqual(near);
    // wells without a survey: most of them lie together
    const alone = [0, 900, 2000, 400_000].map((x) => ({ ...well, id: `w${x}`, name: `W${x}`, x, y: x / 2 }));
    expect(farOff(alone).map((w) => w.name)).toEqual(['W400000']);
    expect(farOff(alone.slice(0, 3))).toEqual([]);
    // of two alone none is more lost than the other, and a regional project is no mistake
    expect(farOff([alone[0], alone[3]])).toEqual([]);
    const region = [0, 60, 130, 200, 280].map((km) => ({ ...well, id: `r${km}`, x: 1000 * km }));
    expect(farOff(region)).toEqual([]);
  });
  test('is none where there is nothing, and takes outlines where there is nothing else', () => {
    expect(fitAll([], size)).toBeNull();
    const area = {
      kind: 'polygon',
      rings: [
        [
          [0, 0],
          [100, 0],
          [100, 50],
        ],
      ],
    } as unknown as EarthObject;
    expect(fitAll([area], size)).toMatchObject({ x: 50, y: 25 });
  });
});

describe('the scale bar', () => {
  test('is a round length of about a quarter of the width, as long on the screen as it says', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 2000, noNaN: true }), fc.boolean(), (perPixel, feet) => {
        const bar = scaleBar({ x: 0, y: 0, perPixel }, size, feet);
        expect(bar.pixels).toBeGreaterThan(0.08 * size.width);
        expect(bar.pixels).toBeLessThan(0.23 * size.width);
        expect(bar.pixels * perPixel).toBeCloseTo(bar.metres, 6);
        expect(bar.label).toMatch(feet ? /^[125]0* ft$/ : /^[125]0* (m|km)$/);
      }),
      { seed: 10 },
    );
  });
});
