import fc from 'fast-check';
import { expect, test } from 'vitest';
import { placeLabels, type Wish } from './place';

const room = { left: 0, top: 0, width: 400, height: 300 };
const width = (text: string) => 6 * text.length;
const wish = (id: string, at: [number, number][], rank = 1): Wish => ({ id, text: id, color: '#000', at, rank });

test('of two that want one place the higher rank has it, and the other stands elsewhere or nowhere', () => {
  const [first, second] = placeLabels(
    [
      wish('low', [
        [50, 50],
        [50, 80],
      ]),
      wish('high', [[52, 52]], 2),
    ],
    room,
    width,
  );
  expect([first.id, first.x, first.y]).toEqual(['high', 52, 52]);
  expect([second.id, second.x, second.y]).toEqual(['low', 50, 80]);
  expect(placeLabels([wish('low', [[50, 50]]), wish('high', [[52, 52]], 2)], room, width).map((p) => p.id)).toEqual([
    'high',
  ]);
});

test('no label covers another or leaves the picture', () => {
  const place = fc.tuple(fc.integer({ min: -50, max: 450 }), fc.integer({ min: -20, max: 320 }));
  const names = fc.array(fc.record({ text: fc.string({ minLength: 1, maxLength: 20 }), at: fc.array(place) }));
  fc.assert(
    fc.property(names, fc.constantFrom('start' as const, 'middle' as const, 'end' as const), (all, anchor) => {
      const placed = placeLabels(
        all.map(({ text, at }, n) => ({ ...wish(String(n), at, n % 3), text, anchor })),
        room,
        width,
      );
      const boxes = placed.map(({ text, x, y }) => {
        const left = x - { start: 0, middle: width(text) / 2, end: width(text) }[anchor];
        return [left, y - 9, left + width(text), y + 3];
      });
      for (const [n, a] of boxes.entries()) {
        expect(a[0] >= 0 && a[1] >= 0 && a[2] <= 400 && a[3] <= 300).toBe(true);
        for (const b of boxes.slice(n + 1))
          expect(a[0] < b[2] && a[2] > b[0] && a[1] < b[3] && a[3] > b[1]).toBe(false);
      }
    }),
  );
});
