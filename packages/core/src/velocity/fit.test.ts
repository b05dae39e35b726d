import { describe, expect, test } from 'vitest';
import { fitLaw, type LayerPoints, misfitOf, missAtBase } from './fit.ts';
import { LAW_FORMS, type Law, lawInWords, stretchOf, thicknessOf } from './law.ts';

/** A layer in a well as a law has it. */
function wellOf(law: Law, z0: number, t0: number, dt: number, count: number): LayerPoints {
  const at = (t: number) => z0 + thicknessOf(stretchOf(law, z0, dt), t);
  return {
    top: { z: z0, t: t0 },
    points: Array.from({ length: count }, (_, n) => {
      const t = (dt * (n + 1)) / count;
      return { t: t0 + t, z: at(t) };
    }),
  };
}

describe('a law fitted to wells', () => {
  const laws: Law[] = [
    { form: 'constant', v0: 2300, k: 0 },
    { form: 'v0 + k·z from the datum', v0: 1900, k: 0.5 },
    { form: 'v0 + k·z from the top', v0: 2100, k: 0.7 },
    { form: 'v0 + k·t from the top', v0: 2000, k: 600 },
    { form: 'from top to base', v0: 1800, k: 0, vBase: 2150 },
  ];
  test.each(laws)('$form is found again from wells that begin at different depths', (law) => {
    const wells = [
      [350, 420],
      [420, 380],
      [500, 430],
    ].map(([z0, dt]) => wellOf(law, z0, 400, dt, 5));
    const fit = fitLaw(law.form, wells);
    expect(fit?.rms).toBeLessThan(1e-3);
    expect(fit?.law.v0).toBeCloseTo(law.v0, 0);
    expect(fit?.law.k).toBeCloseTo(law.k, law.k > 10 ? 0 : 3);
    if (law.vBase) expect(fit?.law.vBase).toBeCloseTo(law.vBase, 0);
    for (const well of wells) expect(Math.abs(missAtBase(law, well))).toBeLessThan(1e-9);
  });
  test('a well with hundreds of points counts no more than one with a few, and a gradient at its bound is said', () => {
    const form = 'v0 + k·z from the datum';
    const [slow, fast]: Law[] = [
      { form, v0: 2000, k: 0.4 },
      { form, v0: 2200, k: 0.4 },
    ];
    const even = fitLaw(form, [wellOf(slow, 400, 400, 400, 400), wellOf(fast, 400, 400, 400, 400)]);
    const few = fitLaw(form, [wellOf(slow, 400, 400, 400, 400), wellOf(fast, 400, 400, 400, 8)]);
    const reach = (fit: typeof even) => (fit ? thicknessOf(stretchOf(fit.law, 400, 400), 400) : 0);
    // half way between the two, whichever has more points
    expect(Math.abs(reach(even) - reach(few))).toBeLessThan(6);
    expect(even?.atBound).toBe(false);
    expect(fitLaw(form, [wellOf({ form, v0: 1500, k: 2 }, 400, 400, 400, 30)])?.atBound).toBe(true);
    const falling = fitLaw(form, [wellOf({ form, v0: 2500, k: -0.5 }, 400, 400, 400, 30)]);
    expect(falling?.law.k).toBe(0);
    expect(falling?.atBound).toBe(true);
  });
  test('without points there is no law, and a typed one is judged by its misfit', () => {
    expect(fitLaw('constant', [])).toBeNull();
    const law: Law = { form: 'v0 + k·z from the top', v0: 1500, k: 0.8 };
    const well = wellOf(law, 100, 130, 500, 6);
    expect(misfitOf(law, [well])).toBeCloseTo(0, 9);
    expect(misfitOf({ ...law, v0: 1600 }, [well])).toBeGreaterThan(10);
  });
  test('every law says in words where which velocity holds', () => {
    const words = LAW_FORMS.map((form) => lawInWords({ form, v0: 1500, k: 0.5, vBase: 2400 }, (v) => `${v} m/s`));
    expect(new Set(words).size).toBe(LAW_FORMS.length);
    expect(words[4]).toBe(
      '1500 m/s at the layer’s top, rising evenly with depth to 2400 m/s at its base, however thick it is',
    );
    expect(words[1]).toContain('2000 m/s at 1000 m');
  });
});
