import { describe, expect, test } from 'vitest';
import { normal, uniform } from '../testing/random.ts';
import { bandAt, densityOf, fitLine, inRing, selected } from './points.ts';
import { trendsFor } from './trends.ts';

const f = (...v: number[]) => Float32Array.from(v);

describe('density of points', () => {
  const points = { x: f(0.5, 0.5, 1.5, 9), y: f(0.5, 0.5, 1.5, 9), color: f(1, 3, Number.NaN, 1) };
  test('each point in one cell, the upper edge first; colours are means of what is known', () => {
    const d = densityOf(points, { x0: 0, x1: 2, y0: 0, y1: 2 }, 2, 2);
    expect([...d.counts]).toEqual([0, 1, 2, 0]);
    expect(d.means?.[2]).toBe(2);
    expect(d.means?.[1]).toBeNaN();
    expect([d.most, d.inside]).toEqual([2, 3]);
  });
  test('where colours are classes, a cell has that of most of its points', () => {
    const x = f(0.5, 0.5, 0.5, 1.5);
    const d = densityOf({ x, y: x, color: f(2, 0, 2, Number.NaN) }, { x0: 0, x1: 2, y0: 0, y1: 2 }, 2, 2, 3);
    expect([...(d.classes ?? [])]).toEqual([-1, -1, 2, -1]);
    expect(d.means).toBeNull();
  });
  test('a million points keep their number', () => {
    const x = Float32Array.from({ length: 1e6 }, (_, n) => (n % 1000) / 1000);
    const y = Float32Array.from({ length: 1e6 }, (_, n) => Math.floor(n / 1000) / 1000);
    const d = densityOf({ x, y, color: null }, { x0: 0, x1: 1, y0: -0.0005, y1: 0.9995 }, 100, 100);
    expect(d.counts.reduce((a, b) => a + b, 0)).toBe(d.inside);
    expect(d.inside).toBe(1e6);
  });
});

describe('selection', () => {
  const triangle: [number, number][] = [
    [0, 0],
    [10, 0],
    [0, 10],
  ];
  test('by crossings: inside, outside, and a ring of two corners holds nothing', () => {
    expect([inRing(triangle, 1, 1), inRing(triangle, 6, 6), inRing(triangle, -1, 1)]).toEqual([true, false, false]);
    expect([...selected({ x: f(1, 6, 3), y: f(1, 6, 3) }, triangle)]).toEqual([1, 0, 1]);
    expect([...selected({ x: f(1), y: f(1) }, triangle.slice(0, 2))]).toEqual([0]);
  });
});

describe('regression', () => {
  test('a line is found exactly, with no band where nothing is left over', () => {
    const x = f(0, 1, 2, 3, 4);
    const fit = fitLine({ x, y: x.map((v) => 3 - 2 * v) });
    expect(fit?.slope).toBeCloseTo(-2, 6);
    expect(fit?.intercept).toBeCloseTo(3, 6);
    expect(fit?.r).toBeCloseTo(-1, 6);
    expect(fit && bandAt(fit, 2)).toBeCloseTo(0, 5);
    expect(fitLine({ x: f(1, 1, 1), y: f(1, 2, 3) })).toBeNull();
  });
  test('the band holds 95 of 100 further points', () => {
    const [place, noise] = [uniform(7), normal(8)];
    const draw = () => {
      const x = 4 * place();
      return [x, 1 + 0.5 * x + 0.3 * noise()];
    };
    let inside = 0;
    for (let t = 0; t < 200; t++) {
      const sample = Array.from({ length: 60 }, draw);
      const fit = fitLine({ x: f(...sample.map((p) => p[0])), y: f(...sample.map((p) => p[1])) });
      if (!fit) throw new Error('no fit');
      for (let k = 0; k < 20; k++) {
        const [x, y] = draw();
        if (Math.abs(y - (fit.intercept + fit.slope * x)) <= bandAt(fit, x)) inside++;
      }
    }
    expect(inside / 4000).toBeGreaterThan(0.93);
    expect(inside / 4000).toBeLessThan(0.965);
  });
});

test('trends of rock physics are found either way round', () => {
  const [there] = trendsFor('sonic', 'density');
  const [back] = trendsFor('density', 'sonic');
  expect(there.name).toBe('Gardner');
  // 3 000 m/s: 310 · 3000^0.25
  const near = there.points.reduce((a, b) => (Math.abs(b[0] - 333.3) < Math.abs(a[0] - 333.3) ? b : a));
  expect(Math.abs(near[1] - 2294)).toBeLessThan(12);
  expect(back.points[0]).toEqual([there.points[0][1], there.points[0][0]]);
  expect(trendsFor('gamma ray', 'density')).toEqual([]);
});
