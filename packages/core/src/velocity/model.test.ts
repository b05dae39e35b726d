import { describe, expect, test } from 'vitest';
import type { BinGrid } from '../earth/binGrid.ts';
import { even } from '../testing/random.ts';
import { velocityOfTime } from './column.ts';
import { corrected, correctionsFor, leftOut, residualsOf, type Spread, type Tie } from './correct.ts';
import { smoothFields } from './field.ts';
import { type ModelParts, modelOf } from './model.ts';
import { between, type Nodes, onNodes, valueAmong } from './nodes.ts';
import { trendsOf } from './spread.ts';
import { type Doubt, realizationOf, scatterOf } from './uncertainty.ts';

const axis = (count: number) => ({ first: 0, step: 1, count });
const binGrid: BinGrid = {
  inline: axis(21),
  crossline: axis(31),
  origin: [0, 0],
  perInline: [0, 200],
  perCrossline: [200, 0],
};
const BINS = 21 * 31;
const mapOf = (at: (x: number, y: number) => number) =>
  Float32Array.from({ length: BINS }, (_, n) => at((n % 31) * 200, Math.floor(n / 31) * 200));

/** Three layers under a dipping sea bed. */
const parts: ModelParts = {
  above: { waterVelocity: 1490 },
  nodes: { binGrid },
  seaBed: mapOf((x) => 80 + 0.003 * x),
  layers: [
    { base: 'A', law: { form: 'v0 + k·z from the datum', v0: 1600, k: 0.6 } },
    { base: 'B', law: { form: 'constant', v0: 2500, k: 0 } },
    { base: 'C', law: { form: 'from top to base', v0: 2600, k: 0, vBase: 2900 } },
  ].map((l, n) => ({
    ...l,
    law: l.law as ModelParts['layers'][number]['law'],
    times: mapOf((x, y) => 500 + 300 * n + 0.01 * x - 0.005 * y),
    v0Map: null,
    corrections: [],
  })),
  cube: null,
};

const WELLS = [
  ['W-1', 1130, 870],
  ['W-2', 3310, 2930],
  ['W-3', 5020, 1240],
] as const;
const spread: Spread = { rangeM: 3000, far: 'the model as it was' };

/** Tops that differ from the model by some metres, in wells that deviate. */
const ties: Tie[] = WELLS.flatMap(([well, x, y], w) =>
  parts.layers.map((_, layer) => {
    const at = [x + 60 * layer, y - 40 * layer] as const;
    const z = modelOf(parts).column(...at)?.boundaries[layer].z ?? 0;
    return { well, layer, x: at[0], y: at[1], z: z + [4, -7, 3][w] + 2 * layer };
  }),
);

describe('a model between its nodes', () => {
  test('is bilinear over bins, held just beyond them and nowhere farther', () => {
    const nodes: Nodes = { binGrid };
    const plane = mapOf((x, y) => 3 + 0.01 * x - 0.02 * y);
    const at = (x: number, y: number) => {
      const where = between(nodes, x, y);
      return where ? valueAmong(plane, where) : null;
    };
    expect(at(1234, 987)).toBeCloseTo(3 + 12.34 - 19.74, 4);
    expect(at(-150, 0)).toBeCloseTo(3, 4);
    expect(at(-250, 0)).toBeNull();
    expect(modelOf(parts).column(-250, 0)).toBeNull();
    expect(modelOf(parts).reaches(-150, 0)).toBe(true);
  });
  test('along a 2D line goes from trace to trace, and knows nothing of what lies aside', () => {
    const path: [number, number][] = Array.from({ length: 40 }, (_, n) => [100 * n, n < 20 ? 0 : 50 * (n - 20)]);
    const values = Float32Array.from(path, (_, n) => 10 * n);
    const where = between({ path }, 1250, 30);
    expect(where && valueAmong(values, where)).toBeCloseTo(125, 4);
    expect(between({ path }, 1250, 900)).toBeNull();
    const on = onNodes(values, { path }, { path: path.slice(5, 9) });
    expect([...on]).toEqual([50, 60, 70, 80]);
  });
});

describe('a correction', () => {
  const { corrections, without } = correctionsFor(parts, ties, spread);
  const after = corrected(parts, corrections);
  test('honours every top exactly, of wells that deviate too', () => {
    expect(without).toEqual([]);
    for (const r of residualsOf(parts, ties)) expect(Math.abs(r.made - r.z)).toBeGreaterThan(1);
    for (const r of residualsOf(after, ties)) expect(Math.abs(r.made - r.z)).toBeLessThan(1e-3);
  });
  test('fades away from wells, and bends nothing between boundaries: one factor from top to base of a layer', () => {
    const [far, was] = [modelOf(after).column(6000, 4000), modelOf(parts).column(6000, 4000)];
    expect(Math.abs((far?.boundaries[2].z ?? 0) - (was?.boundaries[2].z ?? 9))).toBeLessThan(2.5);
    const [x, y] = [3000, 2500];
    const [a, b] = [modelOf(after).column(x, y), modelOf(parts).column(x, y)];
    if (!a || !b) throw new Error('both reach there');
    const factors = [820, 900, 1000].map((t) => velocityOfTime(a, t) / velocityOfTime(b, t));
    for (const f of factors) expect(f).toBeCloseTo(factors[0], 9);
    expect(Math.abs(factors[0] - 1)).toBeGreaterThan(1e-4);
  });
  test('where a well lacks a top, the layers down to its next one take one factor', () => {
    const some = ties.filter((t) => !(t.well === 'W-2' && t.layer === 1));
    const { corrections } = correctionsFor(parts, some, spread);
    const of = (layer: number) => corrections[layer]?.points.find((p) => p.well === 'W-2')?.value;
    expect(of(1)).toBeCloseTo(of(2) ?? 9, 9);
    for (const r of residualsOf(corrected(parts, corrections), some)) expect(Math.abs(r.made - r.z)).toBeLessThan(1e-3);
  });
  test('of a layer that the model has not got at a well leaves that top, and honours the others', () => {
    const thin = {
      ...parts,
      layers: parts.layers.map((l, n) => (n === 1 ? { ...l, times: parts.layers[0].times } : l)),
    };
    const made = correctionsFor(thin, ties, spread);
    expect(made.without.map((t) => t.layer)).toEqual([1, 1, 1]);
    const others = residualsOf(corrected(thin, made.corrections), ties).filter((r) => r.layer !== 1);
    for (const r of others) expect(Math.abs(r.made - r.z)).toBeLessThan(1e-3);
  });
  test('far from wells is their mean where that is wanted', () => {
    const faster = ties.map((t) => {
      const column = modelOf(parts).column(t.x, t.y);
      return { ...t, z: 80 + 1.05 * ((column?.boundaries[t.layer].z ?? 0) - 80) };
    });
    const made = corrected(parts, correctionsFor(parts, faster, { ...spread, far: 'mean of the wells' }).corrections);
    const [now, was] = [made, parts].map((p) => modelOf(p).column(0, 4000)?.boundaries[2].z ?? 0);
    expect(now / was).toBeGreaterThan(1.035);
  });
  test('a well that is left out is told by the others alone', () => {
    const out = leftOut(parts, ties, spread);
    expect(out).toHaveLength(ties.length);
    const without = ties.filter((t) => t.well !== 'W-1');
    const model = corrected(parts, correctionsFor(parts, without, spread).corrections);
    for (const r of residualsOf(
      model,
      ties.filter((t) => t.well === 'W-1'),
    ))
      expect(out.find((o) => o.well === 'W-1' && o.layer === r.layer)?.made).toBeCloseTo(r.made, 6);
  });
});

describe('velocities of wells along a drift', () => {
  const inLayer = (at: (n: number) => { velocity: number; middle: number; seismic: number }) =>
    [0, 1, 2, 3].map((n) => ({ well: `W-${n}`, x: 900 * n, y: 400 * n, ...at(n) }));
  const all = (layer: ReturnType<typeof inLayer>, drift: Parameters<typeof trendsOf>[1]) =>
    trendsOf([layer], drift).trends[0];
  test('by burial give back the straight line that they lie on, by a volume its factor', () => {
    const buried = inLayer((n) => ({
      velocity: 1800 + 0.9 * (600 + 50 * n),
      middle: 600 + 50 * n,
      seismic: Number.NaN,
    }));
    expect(all(buried, 'depth of burial')?.at(900, Number.NaN)).toBeCloseTo(1800 + 810, 3);
    const told = inLayer((n) => ({ velocity: 1.04 * (2000 + 70 * n), middle: 700, seismic: 2000 + 70 * n }));
    const trend = all(told, 'velocity volume');
    expect(trend?.anisotropy?.factor).toBeCloseTo(1.04, 9);
    expect(trend?.anisotropy?.spread).toBeCloseTo(0, 9);
    expect(trend?.at(700, 3000)).toBeCloseTo(3120, 6);
    for (const { value } of trend?.left ?? []) expect(value).toBeCloseTo(0, 9);
  });
  test('of two drifts the one counts more that foretells wells left out', () => {
    const layer = inLayer((n) => ({ velocity: 1.04 * (2000 + 70 * n), middle: 700 - 40 * n, seismic: 2000 + 70 * n }));
    expect(trendsOf([layer, layer], 'burial and volume').volumePart).toBeGreaterThan(0.75);
    const other = inLayer((n) => ({
      velocity: 1500 + 2 * (500 + 60 * n),
      middle: 500 + 60 * n,
      seismic: 2600 - 90 * n,
    }));
    expect(trendsOf([other, other], 'burial and volume').volumePart).toBeLessThan(0.4);
  });
  test('no well, no trend', () => expect(trendsOf([[]], 'none').trends).toEqual([null]));
});

describe('uncertainty', () => {
  const box = { x: [0, 6000] as [number, number], y: [0, 4000] as [number, number] };
  const doubt: Doubt = { timeMs: () => 2, timeRangeM: 1500, velocity: 0.02, topM: 0, spread };
  const honoured = corrected(parts, correctionsFor(parts, ties, spread).corrections);
  test('fields have variance one and do not know of each other', () => {
    const [a, b, both] = [0, 0, 0];
    const sums = { a, b, both };
    for (let r = 0; r < 400; r++) {
      const at = smoothFields(3, r, 2, box, 2000);
      const [u, v] = [at(2310, 1740, 0), at(2310, 1740, 1)];
      sums.a += u * u;
      sums.b += v * v;
      sums.both += u * v;
    }
    expect(sums.a / 400).toBeGreaterThan(0.8);
    expect(sums.a / 400).toBeLessThan(1.2);
    expect(sums.b / 400).toBeGreaterThan(0.8);
    expect(Math.abs(sums.both / 400)).toBeLessThan(0.15);
  });
  test('every realization honours the tops, and grows apart away from them', () => {
    const at: [number, number][] = [
      [1130, 870],
      [2200, 2000],
      [6000, 4000],
    ];
    const squares = [0, 0, 0];
    for (let r = 0; r < 60; r++) {
      const one = realizationOf(honoured, ties, doubt, box, 5, r);
      for (const t of ties.filter((_, n) => n % 3 === 0))
        expect(Math.abs((one.column(t.x, t.y)?.boundaries[t.layer].z ?? 0) - t.z)).toBeLessThan(0.01);
      at.forEach(([x, y], n) => {
        const [z, was] = [one, modelOf(honoured)].map((m) => m.column(x, y)?.boundaries[0].z ?? 0);
        squares[n] += (z - was) ** 2 / 60;
      });
    }
    const [well, middle, corner] = squares.map(Math.sqrt);
    expect(well).toBeLessThan(0.05);
    expect(corner).toBeGreaterThan(middle);
    // about as much as velocity and picking make of the layer where nothing is known: 2 % of some 390 m, and 2 ms of it
    expect(corner).toBeGreaterThan(5);
    expect(corner).toBeLessThan(13);
  });
  test('the deviation covers an earth of its own kind as often as it says', () => {
    // earths are drawn as the errors say, wells are taken from them, and the model is made again
    const random = even(11);
    let inside = 0;
    let count = 0;
    for (let earth = 0; earth < 40; earth++) {
      const truth = modelOf({
        ...parts,
        errors: (() => {
          const time = smoothFields(900 + earth, 1, 3, box, doubt.timeRangeM);
          const velocity = smoothFields(900 + earth, 2, 3, box, spread.rangeM);
          return { time: (x, y, l) => 2 * time(x, y, l), velocity: (x, y, l) => 0.02 * velocity(x, y, l) };
        })(),
      });
      const told = ties.map((t) => ({ ...t, z: truth.column(t.x, t.y)?.boundaries[t.layer].z ?? 0 }));
      const made = corrected(parts, correctionsFor(parts, told, spread).corrections);
      const places = Array.from({ length: 6 }, (): [number, number] => [
        3000 + 3000 * random(),
        2000 + 2000 * random(),
      ]);
      const squares = places.map(() => 0);
      for (let r = 0; r < 16; r++) {
        const one = realizationOf(made, told, doubt, box, earth, r);
        places.forEach(([x, y], n) => {
          squares[n] +=
            ((one.column(x, y)?.boundaries[1].z ?? 0) - (modelOf(made).column(x, y)?.boundaries[1].z ?? 0)) ** 2 / 16;
        });
      }
      places.forEach(([x, y], n) => {
        const off = (truth.column(x, y)?.boundaries[1].z ?? 0) - (modelOf(made).column(x, y)?.boundaries[1].z ?? 0);
        if (Math.abs(off) <= Math.sqrt(squares[n])) inside++;
        count++;
      });
    }
    expect(inside / count).toBeGreaterThan(0.55);
    expect(inside / count).toBeLessThan(0.8);
  });
  test('scatter is found from what wells ask for, and is what is usual where there are none', () => {
    const found = Array.from({ length: 12 }, (_, n) => {
      const many = Array.from({ length: 12 }, (_, w): [string, number, number] => [
        `W${w}`,
        300 + 480 * w,
        300 + ((w * 1370) % 3400),
      ]);
      const velocity = smoothFields(40 + n, 0, 3, box, 1200);
      const truth = modelOf({ ...parts, errors: { time: () => 0, velocity: (x, y, l) => 0.05 * velocity(x, y, l) } });
      const told = many.flatMap(([well, x, y]) =>
        [0, 1, 2].map((layer) => ({ well, layer, x, y, z: truth.column(x, y)?.boundaries[layer].z ?? 0 })),
      );
      return scatterOf(parts, told, { ...spread, rangeM: 1200 }, { timeMs: () => 0.5, topM: 0.5 }).scatter;
    });
    const mean = found.reduce((a, b) => a + b, 0) / found.length;
    expect(mean).toBeGreaterThan(0.04);
    expect(mean).toBeLessThan(0.06);
    const none = scatterOf(
      parts,
      ties.filter((t) => t.well === 'W-1'),
      spread,
      { timeMs: () => 2, topM: 1 },
    );
    expect(none.wells).toBe(0);
    expect(none.scatter).toBeGreaterThan(0.02);
    expect(none.scatter).toBeLessThan(0.045);
  });
});
