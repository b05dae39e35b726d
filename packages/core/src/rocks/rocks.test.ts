import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { brine, gas, mixed, mostDissolved, oil } from './fluids.ts';
import { akiRichards, fatti, interceptGradient, shuey, zoeppritz } from './reflect.ts';
import { greenbergCastagna, moduli, mudrockVs } from './shear.ts';
import { dryFrame, hill, saturated, substituted } from './substitute.ts';

const ATM = 101325;
const velocity = (f: { density: number; bulk: number }) => Math.sqrt(f.bulk / f.density);

describe('pore fluids', () => {
  test.each([
    // Del Grosso & Mader (1972), Journal of the Acoustical Society of America 52, 1442–1446
    [20, 1482.34],
    [25, 1496.69],
    [50, 1542.55],
    [75, 1555.12],
  ])('sound in pure water at %d °C and one atmosphere', (t, v) => {
    expect(Math.abs(velocity(brine(ATM, t, 0)) - v)).toBeLessThan(2);
  });
  test.each([
    // Kell (1975), Journal of Chemical and Engineering Data 20, 97–105
    [25, 997.05],
    [60, 983.2],
    [90, 965.32],
  ])('density of pure water at %d °C', (t, rho) => {
    expect(Math.abs(brine(ATM, t, 0).density / rho - 1)).toBeLessThan(0.0025);
  });
  test.each([
    // Fofonoff & Millard (1983), UNESCO Technical Papers in Marine Science 44: check values of the equation of state.
    // Sea salt is a little heavier than the sodium chloride that the formulae are for.
    [0, 5, 0.101325, 999.96675, 0.0005],
    [0, 5, 100, 1044.12802, 0.0005],
    [0.035, 5, 0.101325, 1027.67547, 0.005],
    [0.035, 25, 100, 1062.53817, 0.005],
  ])('density of water with %d of salt at %d °C and %d MPa', (salt, t, p, rho, within) => {
    expect(Math.abs(brine(p * 1e6, t, salt).density / rho - 1)).toBeLessThan(within);
  });
  test.each([
    // CRC Handbook of Chemistry and Physics: concentrative properties of aqueous solutions, sodium chloride
    [0.1, 1070.7],
    [0.2, 1147.8],
  ])('density of brine with %d of sodium chloride at 20 °C and one atmosphere', (salt, rho) => {
    expect(Math.abs(brine(ATM, 20, salt).density / rho - 1)).toBeLessThan(0.003);
  });
  test('sound in salt water at great pressure', () => {
    // the same paper's check value, after Chen & Millero (1977)
    expect(Math.abs(velocity(brine(100e6, 40, 0.04)) / 1731.995 - 1)).toBeLessThan(0.005);
  });
  test('salt makes brine heavier and stiffer', () => {
    const [fresh, salt] = [brine(20e6, 60, 0), brine(20e6, 60, 0.1)];
    expect(salt.density).toBeGreaterThan(fresh.density + 60);
    expect(velocity(salt)).toBeGreaterThan(velocity(fresh) + 60);
  });
  test('methane: density by its compressibility factor 0.846 at 300 K and 10 MPa, to three per cent', () => {
    const ideal = (10e6 * 0.016043) / (8.31446 * 300);
    expect(Math.abs(gas(10e6, 26.85, 0.5537).density / (ideal / 0.846) - 1)).toBeLessThan(0.03);
  });
  test('gas of low pressure is ideal: its isothermal modulus is its pressure, times the ratio of heats', () => {
    const { bulk, density } = gas(1e5, 60, 0.6);
    expect(bulk / 1e5).toBeGreaterThan(1.15);
    expect(bulk / 1e5).toBeLessThan(1.4);
    expect(density).toBeCloseTo((28.8 * 0.6 * 0.1 * 1000) / (8.31441 * 333.15), 1);
  });
  test('oil: at the surface its own density; gas in it makes it lighter and softer, and no more than it can hold', () => {
    expect(oil(ATM, 15.6, 850).density).toBeCloseTo(850, -1);
    const [dead, live] = [oil(20e6, 70, 850), oil(20e6, 70, 850, 100, 0.7)];
    expect(live.density).toBeLessThan(dead.density - 40);
    expect(velocity(live)).toBeLessThan(velocity(dead) - 150);
    expect(mostDissolved(20e6, 70, 850, 0.7)).toBeGreaterThan(mostDissolved(10e6, 70, 850, 0.7));
  });
  test('live oil of 30 °API with 100 volumes of gas at 80 °C and 20 MPa, worked by hand', () => {
    // 141.5/161.5 = 0.87616; B = 0.972 + 0.00038·(240·√(0.6/0.87616) + 97.8)^1.175 = 1.2770;
    // (0.87616 + 0.072)/1.2770 = 0.7425, and pressed 0.7425 + 0.05403·0.4075² + 0.00698 = 0.7585
    const live = oil(20e6, 80, 876.16, 100, 0.6);
    expect(live.density).toBeCloseTo(758.5, 0);
    // pseudo-density 0.87616/1.2770/1.1 = 0.6237: 2096·√(0.6237/1.9763) − 296 + 92.8 + 18.4·(4.12·√0.7316 − 1) = 1020.7
    expect(Math.abs(velocity(live) - 1020.7)).toBeLessThan(1);
  });
  test('a little gas softens Wood’s mixture at once, Brie’s in proportion', () => {
    const parts = (sg: number) => [
      { fluid: brine(15e6, 50, 0.05), saturation: 1 - sg },
      { fluid: gas(15e6, 50, 0.6), saturation: sg, gas: true },
    ];
    const whole = mixed(parts(0), { law: 'wood' }).bulk;
    expect(mixed(parts(0.05), { law: 'wood' }).bulk).toBeLessThan(0.35 * whole);
    expect(mixed(parts(0.05), { law: 'brie', exponent: 1 }).bulk).toBeGreaterThan(0.9 * whole);
    expect(mixed(parts(1), { law: 'brie', exponent: 3 }).bulk).toBeCloseTo(mixed(parts(1), { law: 'wood' }).bulk, 3);
  });
});

const rock = fc.record({
  vp: fc.double({ min: 2200, max: 4500, noNaN: true }),
  ratio: fc.double({ min: 1.6, max: 2.3, noNaN: true }),
  density: fc.double({ min: 2050, max: 2650, noNaN: true }),
});

describe('Gassmann', () => {
  test('a frame filled and emptied again is itself', () => {
    const k = saturated(8e9, 37e9, 2.5e9, 0.25);
    expect(dryFrame(k, 37e9, 2.5e9, 0.25) / 8e9).toBeCloseTo(1, 12);
    expect(saturated(8e9, 37e9, 1e-3, 0.25) / 8e9).toBeCloseTo(1, 9);
  });
  test('substitution there and back is the same rock to a billionth', () => {
    const [a, b] = [
      { density: 1030, bulk: 2.6e9 },
      { density: 140, bulk: 4e7 },
    ];
    fc.assert(
      fc.property(rock, fc.double({ min: 0.05, max: 0.35, noNaN: true }), ({ vp, ratio, density }, porosity) => {
        const first = { vp, vs: vp / ratio, density };
        const there = substituted(first, porosity, 37e9, a, b);
        if (!there) return;
        const back = substituted(there, porosity, 37e9, b, a);
        expect(back).not.toBeNull();
        for (const key of ['vp', 'vs', 'density'] as const) expect((back?.[key] ?? 0) / first[key]).toBeCloseTo(1, 9);
      }),
    );
  });
  test('gas in place of brine slows P, hardly changes S, and a frame that is none is refused', () => {
    const wet = { vp: 2900, vs: 1500, density: 2250 };
    const dry = substituted(wet, 0.28, 37e9, { density: 1030, bulk: 2.6e9 }, { density: 140, bulk: 4e7 });
    expect(dry?.vp).toBeLessThan(2700);
    expect(dry?.vs).toBeGreaterThan(1500);
    expect(
      substituted(
        { vp: 1300, vs: 100, density: 2000 },
        0.3,
        37e9,
        { density: 1030, bulk: 2.6e9 },
        { density: 140, bulk: 4e7 },
      ),
    ).toBeNull();
  });
  test('Hill’s mean lies between its bounds', () => {
    expect(hill(37e9, 21e9, 0.3)).toBeGreaterThan(1 / (0.7 / 37e9 + 0.3 / 21e9));
    expect(hill(37e9, 21e9, 0.3)).toBeLessThan(0.7 * 37e9 + 0.3 * 21e9);
  });
});

describe('shear velocity', () => {
  test('mudrock line: 2 520 m/s of P are 1 000 m/s of S', () => expect(mudrockVs(2520)).toBeCloseTo(1000, 9));
  test('sand and shale trends of Greenberg and Castagna at 3 km/s, and a mix between them', () => {
    expect(greenbergCastagna(3000, { sandstone: 1 })).toBeCloseTo(1000 * (0.80416 * 3 - 0.85588), 6);
    expect(greenbergCastagna(3000, { shale: 1 })).toBeCloseTo(1000 * (0.76969 * 3 - 0.86735), 6);
    const half = greenbergCastagna(3000, { sandstone: 0.5, shale: 0.5 });
    expect(half).toBeGreaterThan(1441.7);
    expect(half).toBeLessThan(1556.6);
  });
  test('moduli of a Poisson solid: Vp² = 3·Vs², λ = μ, ratio a quarter', () => {
    const m = moduli(Math.sqrt(3) * 1500, 1500, 2400);
    expect(m.lambda / m.shear).toBeCloseTo(1, 12);
    expect(m.poisson).toBeCloseTo(0.25, 12);
  });
});

describe('reflection at angles', () => {
  const pair = fc.tuple(rock, rock, fc.double({ min: 0, max: 80, noNaN: true }));
  const of = (r: { vp: number; ratio: number; density: number }) => ({
    vp: r.vp,
    vs: r.vp / r.ratio,
    density: r.density,
  });
  test('energy is conserved to 1e-10, beyond the critical angle too', () => {
    fc.assert(
      fc.property(pair, ([a, b, angle]) => {
        expect(Math.abs(zoeppritz(of(a), of(b), angle).energy - 1)).toBeLessThan(1e-10);
      }),
      { numRuns: 500 },
    );
  });
  test('straight down it is the contrast of impedance', () => {
    const [a, b] = [
      { vp: 2600, vs: 1200, density: 2300 },
      { vp: 3100, vs: 1700, density: 2200 },
    ];
    const [z1, z2] = [a.vp * a.density, b.vp * b.density];
    expect(zoeppritz(a, b, 0).pp.re).toBeCloseTo((z2 - z1) / (z2 + z1), 12);
  });
  test('the linear forms part from the exact one with the square of the contrast', () => {
    const upper = { vp: 2800, vs: 1400, density: 2300 };
    const lower = (e: number) => ({ vp: 2800 * (1 + e), vs: 1400 * (1 + 1.4 * e), density: 2300 * (1 - 0.6 * e) });
    for (const form of [akiRichards, fatti, shuey]) {
      const error = (e: number) => Math.abs(form(upper, lower(e), 25) - zoeppritz(upper, lower(e), 25).pp.re);
      expect(error(0.02)).toBeLessThan(2e-4);
      const order = Math.log2(error(0.02) / error(0.01));
      expect(order).toBeGreaterThan(1.8);
    }
  });
  test('Aki–Richards, Shuey and Fatti are one form written three ways', () => {
    const [a, b] = [
      { vp: 2600, vs: 1200, density: 2300 },
      { vp: 2700, vs: 1350, density: 2250 },
    ];
    for (const angle of [0, 10, 30]) {
      expect(fatti(a, b, angle)).toBeCloseTo(akiRichards(a, b, angle), 12);
      expect(shuey(a, b, angle)).toBeCloseTo(akiRichards(a, b, angle), 12);
    }
  });
  test('gas sand under shale: negative and growing with angle (class III)', () => {
    const { intercept, gradient } = interceptGradient(
      { vp: 2800, vs: 1250, density: 2350 },
      { vp: 2300, vs: 1400, density: 2050 },
    );
    expect(intercept).toBeLessThan(-0.1);
    expect(gradient).toBeLessThan(-0.1);
  });
});
