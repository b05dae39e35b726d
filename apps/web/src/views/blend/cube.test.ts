import { describe, expect, test } from 'vitest';
import { cubeView, type InCube, inCube, onCube } from './cube';

const VIEW = cubeView(120, 120);

describe('the colour cube', () => {
  test('gives back what is seen on its front faces, peeled or whole', () => {
    for (const level of [1, 0.6, 0.25])
      for (const s of [0.1, 0.45, 0.9])
        for (const t of [0.15, 0.5, 0.85]) {
          const faces: InCube[] = [
            [s * level, t * level, level],
            [level, s * level, t * level],
            [s * level, level, t * level],
          ];
          for (const place of faces) {
            const found = inCube(...onCube(place, VIEW), VIEW, level);
            for (const n of [0, 1, 2]) expect(found?.[n]).toBeCloseTo(place[n], 6);
          }
        }
  });

  test('is nowhere beside itself, and smaller when it is peeled', () => {
    expect(inCube(2, 2, VIEW, 1)).toBeNull();
    const corner = onCube([1, 0, 0], VIEW);
    expect(inCube(corner[0] + 2, corner[1] - 2, VIEW, 1)).not.toBeNull();
    expect(inCube(corner[0] + 2, corner[1] - 2, VIEW, 0.5)).toBeNull();
  });

  test('stands in its picture whole', () => {
    for (const place of [0, 1].flatMap((a) => [0, 1].flatMap((b) => [0, 1].map((c): InCube => [a, b, c])))) {
      const [x, y] = onCube(place, VIEW);
      expect(x).toBeGreaterThanOrEqual(-1e-6);
      expect(x).toBeLessThanOrEqual(120 + 1e-6);
      expect(y).toBeGreaterThanOrEqual(-1e-6);
      expect(y).toBeLessThanOrEqual(120 + 1e-6);
    }
  });
});
