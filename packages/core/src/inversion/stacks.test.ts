import { describe, expect, test } from 'vitest';
import type { EarthObject, Volume, Wavelet } from '../earth/objects.ts';
import {
  anglesInText,
  anglesOf,
  namedLikeStack,
  stackSetOf,
  stacksOf,
  waveletsOf,
  withAngle,
} from '../project/stacks.ts';
import { TURNED } from '../testing/objects.ts';
import { normal } from '../testing/random.ts';
import { aligned, nodesOf, shiftsOf } from './align.ts';
import { angleFit, covarianceOf, fitAngles } from './interceptGradient.ts';
import { angleCurve, backgroundOf, turned, weights } from './rotation.ts';

const stack = (name: string, more: Partial<Volume> = {}): Volume =>
  ({
    id: name,
    kind: 'volume',
    name,
    revision: 'r',
    quantity: 'amplitude',
    domain: 'twt',
    binGrid: TURNED,
    madeBy: { file: 'a.sgy', started: '2020', step: 'data.load', inputs: {}, params: {} },
    ...more,
  }) as unknown as Volume;

describe('angles of stacks', () => {
  test.each([
    ['C 2 NEAR STACK, 5-15 DEGREES', { middle: 10, from: 5, to: 15 }],
    ['Angle stack 12 to 18°', { middle: 15, from: 12, to: 18 }],
    ['angle 22 deg', { middle: 22 }],
    ['INLINE 5-15 OF 200', null],
    ['rotated by 23 degrees', null],
    ['stack 40-20 degrees', null],
  ])('are read of “%s”', (text, wanted) => {
    expect(anglesInText(text)).toEqual(wanted);
  });
  test('are as declared, else as the header says, else as the name does', () => {
    expect(anglesOf(stack('Mid 15-25°'))).toMatchObject({ middle: 20, by: 'name' });
    expect(anglesOf(stack('Mid 15-25°', { text: ['C 1', 'C 2 STACK, 10-20 DEGREES'] }))).toMatchObject({
      middle: 15,
      by: 'text header',
    });
    expect(anglesOf(withAngle(stack('Mid 15-25°'), 18))).toEqual({ middle: 18, by: 'declared' });
    expect(anglesOf(stack('Near'))).toBeNull();
    expect(namedLikeStack({ name: 'QX near stack' })).toBe(true);
    expect(withAngle(stack('Near'), 9).revision).not.toBe('r');
  });
  test('make a set: none that takes in others, and of one angle the newest', () => {
    const near = stack('Near 5-15°');
    const mid = stack('Mid 15-25°');
    const far = stack('Far 25-35°');
    const full = stack('Full 5-35°');
    const again = stack('Aligned far', {
      angles: { middle: 30, from: 25, to: 35 },
      madeBy: { ...far.madeBy, file: undefined, started: '2021' },
    });
    const other = stack('Elsewhere 15-25°', { binGrid: { ...TURNED, inline: { ...TURNED.inline, count: 3 } } });
    const objects: EarthObject[] = [full, far, mid, near, again, other];
    expect(stackSetOf(full, objects).map((s) => s.volume.name)).toEqual(['Near 5-15°', 'Mid 15-25°', 'Aligned far']);
    // of two loaded ones the later, in whichever order they stand
    const later = stack('Mid again 15-25°', { madeBy: { ...mid.madeBy, started: '2022' } });
    for (const two of [
      [mid, later],
      [later, mid],
    ])
      expect(stackSetOf(full, [near, far, ...two]).map((s) => s.volume.name)[1]).toBe('Mid again 15-25°');
  });
  test('that are no set are refused, each with its sentence', () => {
    const near = stack('Near 5-15°');
    expect(() => stacksOf([near, stack('Far')], 2)).toThrow(
      'Far has no angle: neither its header nor its name says which it stacks.',
    );
    const moved = stack('Far 25-35°', { binGrid: { ...TURNED, origin: [0, 0] } });
    expect(() => stacksOf([near, moved], 2)).toThrow('Far 25-35° and Near 5-15° do not lie on the same lines.');
    expect(() => stacksOf([near, stack('Again 5-15°')], 2)).toThrow('are both of 10°');
    expect(() => stacksOf([near], 2)).toThrow('needs 2 stacks of different angles, and one was chosen');
  });
  test('have the newest wavelet of their angle', () => {
    const wavelet = (angleDeg: number, started: string) => ({ angleDeg, madeBy: { started } }) as unknown as Wavelet;
    const [a, b] = [wavelet(10, '1'), wavelet(10, '2')];
    const stacks = stacksOf([stack('Near 5-15°'), stack('Far 25-35°')], 2);
    expect(waveletsOf(stacks, [a, b])).toEqual([b, null]);
  });
});

describe('alignment', () => {
  const nk = 200;
  const [ni, nj] = [5, 6];
  const random = normal(3);
  // smooth noise that can be asked between its samples
  const waves = Array.from({ length: 30 }, () => ({
    a: random(),
    f: 0.02 + 0.05 * Math.abs(random()),
    p: 6 * random(),
  }));
  const at = (k: number, t: number) =>
    waves.reduce((s, w) => s + w.a * Math.sin(2 * Math.PI * w.f * k + w.p + 0.03 * t), 0);
  test('finds shifts that change down the trace, and takes them out', () => {
    const shift = (k: number) => 0.9 * Math.sin((Math.PI * k) / nk);
    const make = (by: (k: number) => number) => ({
      data: Float32Array.from({ length: ni * nj * nk }, (_, n) => at((n % nk) - by(n % nk), Math.floor(n / nk))),
      size: [ni, nj, nk] as const,
    });
    const [first, second] = [make(() => 0), make(shift)];
    const { nodes, shifts } = shiftsOf(first, second, { window: 50, most: 2, radius: 1 });
    expect(nodes).toEqual(nodesOf(nk, 50));
    // at both ends there is no window beyond, and neighbours pull
    for (const [n, k] of nodes.entries())
      for (let t = 0; t < (ni - 2) * (nj - 2); t++)
        expect(Math.abs(shifts[t * nodes.length + n] - shift(k))).toBeLessThan(
          n === 0 || n === nodes.length - 1 ? 0.35 : 0.15,
        );
    const out = aligned(second, 1, nodes, shifts);
    const misfit = (a: Float32Array) => {
      let [sum, size] = [0, 0];
      for (let i = 0; i < ni - 2; i++)
        for (let j = 0; j < nj - 2; j++)
          for (let k = 12; k < nk - 12; k++) {
            const own = first.data[((i + 1) * nj + j + 1) * nk + k];
            sum += (a[(i * (nj - 2) + j) * nk + k] - own) ** 2;
            size += own ** 2;
          }
      return Math.sqrt(sum / size);
    };
    const inner = Float32Array.from({ length: out.length }, (_, n) => {
      const t = Math.floor(n / nk);
      return second.data[((Math.floor(t / (nj - 2)) + 1) * nj + (t % (nj - 2)) + 1) * nk + (n % nk)];
    });
    expect(misfit(out)).toBeLessThan(0.2 * misfit(inner));
  });
});

describe('intercept and gradient', () => {
  const angles = [8, 16, 24, 32];
  const nk = 60;
  const a = Float32Array.from({ length: nk }, (_, k) => Math.sin(k / 3));
  const b = Float32Array.from({ length: nk }, (_, k) => -0.8 * Math.cos(k / 4));
  const made = (noise: number, random = normal(5)) =>
    angles.map((deg) => {
      const s = Math.sin((deg * Math.PI) / 180) ** 2;
      return Float32Array.from({ length: nk }, (_, k) => a[k] + s * b[k] + noise * random());
    });
  test('come back where there is no noise', () => {
    const found = fitAngles(angleFit(angles, 2), made(0), nk, 10);
    for (let k = 0; k < nk; k++) {
      expect(Math.abs(found.intercept[k] - a[k])).toBeLessThan(1e-3);
      expect(Math.abs(found.gradient[k] - b[k])).toBeLessThan(1e-3);
    }
  });
  test('of three terms too', () => {
    const fit = angleFit(angles, 3);
    const stacks = fit.design.map(([, s, c]) => Float32Array.from({ length: nk }, (_, k) => a[k] + s * b[k] + c * 0.3));
    const found = fitAngles(fit, stacks, nk, 10);
    for (let k = 0; k < nk; k++) expect(Math.abs(found.gradient[k] - b[k])).toBeLessThan(2e-3);
  });
  test('have errors that cover the truth as often as they say, and one spike does not carry them off', () => {
    let [inside, all] = [0, 0];
    for (let draw = 0; draw < 60; draw++) {
      const found = fitAngles(angleFit(angles, 2), made(0.1, normal(50 + draw)), nk, 20);
      for (let k = 0; k < nk; k++) {
        all++;
        if (Math.abs(found.gradient[k] - b[k]) < found.gradientError[k]) inside++;
      }
    }
    expect(inside / all).toBeGreaterThan(0.6);
    expect(inside / all).toBeLessThan(0.76);
    const spiked = made(0.01);
    spiked[1][30] += 3;
    const plain = covarianceOf(angleFit(angles, 2)) as number[][];
    const pulled = Math.abs(plain[0][0] + plain[0][1] * Math.sin((16 * Math.PI) / 180) ** 2) * 3;
    const found = fitAngles(angleFit(angles, 2), spiked, nk, 20);
    expect(Math.abs(found.intercept[30] - a[30])).toBeLessThan(0.6 * pulled);
  });
  test('of as many terms as stacks have no errors', () => {
    const found = fitAngles(
      angleFit([8, 30], 2),
      made(0).filter((_, n) => n % 3 === 0),
      nk,
      10,
    );
    expect(found.gradientError.every(Number.isNaN)).toBe(true);
  });
});

describe('rotation', () => {
  const random = normal(9);
  const a = Float32Array.from({ length: 4000 }, () => random());
  const b = a.map((v) => -1.5 * v + 0.3 * random());
  test('by 0° is the intercept, by 90° the gradient, exactly', () => {
    const out = new Float32Array(a.length);
    expect([...turned(a, b, 0, out)]).toEqual([...a]);
    expect([...turned(a, b, 90, out)]).toEqual([...b]);
    expect([...turned(a, b, -90, out)]).toEqual([...b.map((v) => -v)]);
    expect(weights(45)[0]).toBeCloseTo(Math.SQRT1_2, 12);
  });
  test('by the angle of least background washes it out, though some pairs stand off it', () => {
    const odd = b.slice();
    for (let n = 0; n < 200; n++) odd[n] = b[n] - 6;
    const found = backgroundOf(a, odd);
    expect(found?.slope).toBeCloseTo(-1.5, 1);
    const least = turned(a, b, found?.angle ?? 0, new Float32Array(a.length));
    const rms = (v: Float32Array) => Math.sqrt(v.reduce((s, x) => s + x * x, 0) / v.length);
    expect(rms(least)).toBeLessThan(0.25 * rms(a));
  });
  test('fits a log best at the angle that it was made at, with a width that more samples narrow', () => {
    const other = Float32Array.from(a, () => random());
    const log = turned(a, other, 35, new Float32Array(a.length)).map((v) => v + 0.2 * random());
    const found = angleCurve(a, other, log, 400);
    expect(found?.best.angle).toBeGreaterThan(31);
    expect(found?.best.angle).toBeLessThan(39);
    expect(found?.values[found.best.angle + 90]).toBe(found?.best.correlation);
    const few = angleCurve(a, other, log, 10);
    const width = (c: typeof found) => (c ? c.best.to - c.best.from : 0);
    expect(width(few)).toBeGreaterThan(width(found));
  });
});
