import { describe, expect, test } from 'vitest';
import { curvatureOf } from './curvature.ts';

const flat = { p: 0, q: 0, px: 0, py: 0, qx: 0, qy: 0 };

describe('curvature', () => {
  // depth of a dome of radius R grows away from its top: z = (x² + y²) / 2R
  const R = 800;
  const dome = { ...flat, px: 1 / R, qy: 1 / R };
  test('of a dome is one over its radius every way', () => {
    for (const kind of ['most positive', 'most negative', 'mean', 'maximum', 'minimum', 'curvedness'] as const)
      expect(curvatureOf(dome, kind)).toBeCloseTo(1 / R, 9);
    expect(curvatureOf(dome, 'Gaussian')).toBeCloseTo(1 / R ** 2, 12);
    expect(curvatureOf(dome, 'shape index')).toBeCloseTo(1, 6);
  });
  test('of a ridge, a valley, a saddle and a bowl is told by the shape index', () => {
    const index = (px: number, qy: number) => curvatureOf({ ...flat, px, qy }, 'shape index');
    expect(index(0.001, 0)).toBeCloseTo(0.5, 6);
    expect(index(-0.001, 0)).toBeCloseTo(-0.5, 6);
    expect(index(0.001, -0.001)).toBeCloseTo(0, 6);
    expect(index(-0.001, -0.001)).toBeCloseTo(-1, 6);
    expect(curvatureOf({ ...flat, px: 0.001, qy: -0.001 }, 'Gaussian')).toBeLessThan(0);
  });
  test('turns with the axes: a ridge across them is as bent as one along them', () => {
    const across = { ...flat, px: 0.0005, qy: 0.0005, py: 0.0005, qx: 0.0005 };
    expect(curvatureOf(across, 'most positive')).toBeCloseTo(0.001, 9);
    expect(curvatureOf(across, 'most negative')).toBeCloseTo(0, 9);
  });
  test('of a plane is none, and its dip and azimuth are those of its slope', () => {
    const plane = { ...flat, p: 0.3, q: 0.4 };
    expect(curvatureOf(plane, 'mean')).toBe(0);
    expect(curvatureOf(plane, 'dip')).toBeCloseTo((Math.atan(0.5) * 180) / Math.PI, 6);
    expect(curvatureOf({ ...flat, p: 0.1 }, 'azimuth')).toBeCloseTo(90, 6);
    expect(curvatureOf({ ...flat, q: -0.1 }, 'azimuth')).toBeCloseTo(180, 6);
  });
  test('of a steep ridge is that of the circle that it is, not of its parabola', () => {
    // z = −√(R² − x²) at 45°: slope 1, second derivative R² / (R² − x²)^{3/2}
    const x = R / Math.SQRT2;
    const steep = { ...flat, p: 1, px: R ** 2 / (R ** 2 - x ** 2) ** 1.5 };
    expect(curvatureOf(steep, 'maximum')).toBeCloseTo(1 / R, 7);
  });
});
