import { describe, expect, test } from 'vitest';
import { makeBedding } from './bedding.ts';
import { along, depthOfPlane, displacement, drawFaults, isFaulted, offFault, planeAt, throwAt } from './faults.ts';
import { randomFor } from './random.ts';
import { drawRocks, gammaOf, LAYERS, porosityOf, type Rock, rockOf, sandOf } from './rocks.ts';
import { bump, ramp, softPlus, wavyField } from './shapes.ts';
import { extentOf, fromMap, SURVEY, toMap, uOf, vOf } from './survey.ts';

describe('random numbers', () => {
  test('are the same for a seed and a name, and others for another', () => {
    const draw = (seed: number, name: string) => {
      const random = randomFor(seed, name);
      return Array.from({ length: 20 }, () => random());
    };
    expect(draw(3, 'faults')).toEqual(draw(3, 'faults'));
    expect(draw(3, 'faults')).not.toEqual(draw(4, 'faults'));
    expect(draw(3, 'faults')).not.toEqual(draw(3, 'wells'));
  });
  test('are even between 0 and 1, and normal with unit spread', () => {
    const random = randomFor(1, 'test');
    const n = 40_000;
    const even = Array.from({ length: n }, () => random());
    expect(Math.min(...even.slice(0, 5000))).toBeGreaterThanOrEqual(0);
    expect(Math.max(...even.slice(0, 5000))).toBeLessThan(1);
    expect(even.reduce((a, b) => a + b, 0) / n).toBeCloseTo(0.5, 1);
    const tenths = new Array(10).fill(0);
    for (const v of even) tenths[Math.floor(10 * v)]++;
    // five standard deviations of a count of n/10
    for (const count of tenths) expect(Math.abs(count - n / 10)).toBeLessThan(5 * Math.sqrt(0.09 * n));
    const normal = Array.from({ length: n }, () => random.normal());
    const mean = normal.reduce((a, b) => a + b, 0) / n;
    expect(Math.abs(mean)).toBeLessThan(5 / Math.sqrt(n));
    expect(normal.reduce((a, b) => a + b * b, 0) / n).toBeCloseTo(1, 1);
    expect(normal.filter((v) => Math.abs(v) < 1).length / n).toBeCloseTo(0.683, 1);
  });
});

describe('where the survey lies', () => {
  test('map and survey coordinates turn into each other, and keep lengths', () => {
    for (const [u, v] of [
      [0, 0],
      [4975, 3975],
      [-1200, 2350.5],
    ]) {
      const back = fromMap(...toMap(u, v));
      expect(back[0]).toBeCloseTo(u, 6);
      expect(back[1]).toBeCloseTo(v, 6);
    }
    const [a, b] = [toMap(0, 0), toMap(300, 400)];
    expect(Math.hypot(b[0] - a[0], b[1] - a[1])).toBeCloseTo(500, 6);
    expect(a).toEqual([SURVEY.cornerX, SURVEY.cornerY]);
  });
  test('line numbers are a bin apart, and inlines rise to the left of where crosslines rise', () => {
    expect([uOf(2000), uOf(2001), vOf(1000), vOf(1010)]).toEqual([0, 25, 0, 250]);
    const [o, x, y] = [toMap(0, 0), toMap(1, 0), toMap(0, 1)];
    expect((x[0] - o[0]) * (y[1] - o[1]) - (x[1] - o[1]) * (y[0] - o[0])).toBeCloseTo(1, 6);
  });
  test('the small extent is a quarter of the whole around the crest, wherever the crest is', () => {
    const full = extentOf('full');
    for (const [u, v] of [
      [2150, 1600],
      [0, 0],
      [9999, 9999],
    ]) {
      const small = extentOf('small', u, v);
      expect(4 * small.inlines * small.crosslines).toBe(full.inlines * full.crosslines);
      expect(small.inline0).toBeGreaterThanOrEqual(full.inline0);
      expect(small.inline0 + small.inlines).toBeLessThanOrEqual(full.inline0 + full.inlines);
      expect(small.crossline0).toBeGreaterThanOrEqual(full.crossline0);
      expect(small.crossline0 + small.crosslines).toBeLessThanOrEqual(full.crossline0 + full.crosslines);
    }
  });
});

describe('shapes', () => {
  test('a wavy field spreads as it is asked to, and has no step', () => {
    const field = wavyField(randomFor(2, 'waves'), 12, 800, 2500);
    const values: number[] = [];
    for (let u = 0; u < 40_000; u += 180) for (let v = 0; v < 40_000; v += 900) values.push(field(u, v));
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    const spread = Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / values.length);
    expect(Math.abs(mean)).toBeLessThan(2);
    expect(spread).toBeGreaterThan(10);
    expect(spread).toBeLessThan(14);
    // steepest: all waves of the shortest length in phase
    const steepest = 12 * Math.sqrt(2 / 7) * 7 * ((2 * Math.PI) / 800);
    for (let u = 0; u < 3000; u += 10)
      expect(Math.abs(field(u + 1, 500) - field(u, 500))).toBeLessThanOrEqual(steepest);
  });
  test('bump, ramp and rounded corner have the values of their ends', () => {
    expect(bump(0, 0, 3, 4)).toBe(1);
    expect(bump(3, 0, 3, 4)).toBeCloseTo(Math.exp(-0.5), 12);
    expect([ramp(-1, 0, 2), ramp(0, 0, 2), ramp(1, 0, 2), ramp(2, 0, 2), ramp(9, 0, 2)]).toEqual([0, 0, 0.5, 1, 1]);
    expect(softPlus(-400, 10)).toBeCloseTo(0, 9);
    expect(softPlus(0, 10)).toBeCloseTo(10 * Math.LN2, 9);
    expect(softPlus(301, 10)).toBe(301);
  });
});

describe.each([1, 2, 3, 4, 5, 6])('the faults of seed %i', (seed) => {
  const faults = drawFaults(randomFor(seed, 'faults'));
  test('are five, each with a name of its own, and one of them is reverse', () => {
    expect(new Set(faults.map((f) => f.name)).size).toBe(5);
    expect(faults.filter((f) => f.kind === 'reverse')).toHaveLength(1);
  });
  test('places along and across them turn back into places', () => {
    for (const fault of faults) {
      const [n, t] = along(fault, 1234, 2345);
      const [u, v] = offFault(fault, n, t);
      expect(u).toBeCloseTo(1234, 6);
      expect(v).toBeCloseTo(2345, 6);
    }
  });
  test('the depth at which one is met is where its surface lies, and it dips one way', () => {
    for (const fault of faults) {
      let before = Number.NEGATIVE_INFINITY;
      for (let z = 200; z < 1800; z += 100) {
        const n = planeAt(fault, z, fault.tCentre);
        expect(depthOfPlane(fault, n, fault.tCentre)).toBeCloseTo(z, 3);
        expect(n).toBeGreaterThan(before);
        before = n;
      }
    }
  });
  test('throw is full at the middle, nil at the tips and beyond', () => {
    for (const fault of faults) {
      const k = fault.share.indexOf(Math.max(...fault.share));
      expect(throwAt(fault, k, fault.tCentre)).toBeCloseTo(fault.throwM * fault.share[k], 9);
      for (const t of [fault.tCentre + fault.halfAhead, fault.tCentre - fault.halfBack]) {
        expect(throwAt(fault, k, t)).toBe(0);
        expect(isFaulted(fault, t + Math.sign(t - fault.tCentre))).toBe(false);
      }
    }
  });
  test('both sides together are moved by the throw at the fault, and less and less away from it', () => {
    for (const fault of faults) {
      const t = fault.tCentre;
      const k = 5;
      if (fault.share[k] === 0) continue;
      const at = planeAt(fault, 1090, t);
      const sign = fault.kind === 'normal' ? 1 : -1;
      const apart = (d: number) => displacement(fault, k, at + d, t, true) - displacement(fault, k, at - d, t, false);
      // what reaches into both sides fades from a rounded corner on
      expect(sign * apart(0)).toBeGreaterThan(0.9 * throwAt(fault, k, t));
      expect(sign * apart(0)).toBeLessThanOrEqual(throwAt(fault, k, t));
      for (let d = 100; d < 2000; d += 100) expect(sign * apart(d)).toBeLessThan(sign * apart(d - 100));
    }
  });
});

describe('bedding', () => {
  const bedding = makeBedding(randomFor(5, 'bedding'), 400);
  const series = (w: number[]) => Array.from({ length: 1500 }, (_, n) => bedding.at(0.25 * n, w));
  const moment = (a: number[], b: number[]) => a.reduce((sum, v, n) => sum + v * b[n], 0) / a.length;
  test('has unit spread, whatever three logs are blended into', () => {
    for (const w of [
      [1, 0, 0],
      [0, 0.6, 0.8],
      [Math.sqrt(1 / 3), Math.sqrt(1 / 3), Math.sqrt(1 / 3)],
    ]) {
      const log = series(w);
      expect(moment(log, log)).toBeGreaterThan(0.6);
      expect(moment(log, log)).toBeLessThan(1.5);
    }
  });
  test('its three logs have little to do with each other, so that places of other blends differ', () => {
    const [a, b] = [series([1, 0, 0]), series([0, 1, 0])];
    expect(Math.abs(moment(a, b)) / Math.sqrt(moment(a, a) * moment(b, b))).toBeLessThan(0.4);
  });
  test('ranks are even, and constant within a bed', () => {
    const ranks = Array.from({ length: 1500 }, (_, n) => bedding.bedRank(0.25 * n, [1, 0, 0]));
    expect(Math.min(...ranks)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...ranks)).toBeLessThanOrEqual(1);
    expect(ranks.reduce((a, b) => a + b, 0) / ranks.length).toBeGreaterThan(0.4);
    expect(ranks.reduce((a, b) => a + b, 0) / ranks.length).toBeLessThan(0.6);
    const changes = ranks.filter((r, n) => n > 0 && r !== ranks[n - 1]).length;
    // beds of 0.5 m and more
    expect(changes).toBeLessThan(1500 / 2);
    expect(changes).toBeGreaterThan(1500 / 16);
  });
});

describe('rocks', () => {
  const rocks = drawRocks(1);
  const rock = (): Rock => ({ vp: 0, vs: 0, rho: 0 });
  test('lose porosity and gain speed with burial, each layer by its own law', () => {
    for (let layer = 1; layer < LAYERS.length; layer++) {
      if (LAYERS[layer] === 'Tolven Sandstone') continue;
      let [phi, vp] = [1, 0];
      for (const burial of [0, 300, 800, 1500]) {
        const next = porosityOf(rocks, layer, burial);
        const { vp: faster, vs } = rockOf(rocks, layer, burial, 0, 0, rock());
        expect(next).toBeLessThan(phi);
        expect(faster).toBeGreaterThan(vp);
        expect(vs).toBeLessThan(faster / Math.SQRT2);
        [phi, vp] = [next, faster];
      }
      expect(gammaOf(rocks, layer)).toBeGreaterThan(0);
    }
    // the middle's compaction is 1900 m, and no seed is more than some per cent off it
    expect(porosityOf(rocks, 1, 1900) / porosityOf(rocks, 1, 0)).toBeCloseTo(1 / Math.E, 1);
  });
  test('a change of velocity is of that part, and sea water is sea water', () => {
    const [plain, slow] = [rockOf(rocks, 4, 700, 0, 0, rock()), rockOf(rocks, 4, 700, -0.04, 0, rock())];
    expect(slow.vp / plain.vp).toBeCloseTo(0.96, 9);
    expect(rockOf(rocks, 0, 0, 0.1, 0.1, rock())).toEqual(rocks.seaWater);
  });
  test('sand: gas and oil make it slower and lighter than brine, and leave its rigidity', () => {
    const of = (water: number, fluid: 'oil' | 'gas' | 'brine') => sandOf(rocks, 0.27, 1000, water, fluid, 0, rock());
    const [brine, oil, gas] = [of(1, 'brine'), of(0.2, 'oil'), of(0.15, 'gas')];
    expect(gas.vp).toBeLessThan(oil.vp);
    expect(oil.vp).toBeLessThan(brine.vp);
    expect(gas.rho).toBeLessThan(oil.rho);
    expect(oil.rho).toBeLessThan(brine.rho);
    const rigidity = (r: Rock) => r.rho * r.vs * r.vs;
    expect(rigidity(gas) / rigidity(brine)).toBeCloseTo(1, 9);
    expect(rigidity(oil) / rigidity(brine)).toBeCloseTo(1, 9);
    // full of water is full of water, whatever else it might hold
    expect(of(1, 'gas')).toEqual(brine);
  });
  test('are another rock for every seed, and never that of a handbook', () => {
    const numbers = (seed: number) => {
      const { seaWater, brine, oil, gas, sandGrain, sandBulk, brie, electric } = drawRocks(seed);
      return [
        seaWater.vp,
        brine.rho,
        oil.rho,
        gas.rho,
        sandGrain,
        sandBulk,
        brie,
        electric.m,
        electric.n,
        electric.brine,
      ];
    };
    const usual = [1500, 1030, 776, 118, 2650, 36.6e9, 3, 2, 2, 0.055];
    const seeds = [1, 2, 3, 4, 5, 6].map(numbers);
    for (let n = 0; n < usual.length; n++) {
      expect(new Set(seeds.map((s) => s[n])).size).toBe(seeds.length);
      for (const s of seeds) {
        expect(Math.abs(s[n] / usual[n] - 1)).toBeGreaterThan(5e-4);
        expect(Math.abs(s[n] / usual[n] - 1)).toBeLessThan(0.6);
      }
    }
    expect(drawRocks(4)).toEqual(drawRocks(4));
  });
});
