import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ageAt, columnAt, emptyPoint, type Field, makeField, pointAt } from './model/field.ts';
import { LAYERS } from './model/rocks.ts';
import { SURVEY, uOf, vOf } from './model/survey.ts';
import { addNoise, blurLaterally, meanOf, rmsAround } from './seismic/image.ts';
import { modelTraces, timeColumn, twtAt } from './seismic/traces.ts';
import { reflection } from './seismic/zoeppritz.ts';
import { crestOutline } from './truth/outline.ts';
import { insideRing, volumesByPoints, volumesOnColumns } from './truth/volumes.ts';
import { drillWells, positionAt, surfaceMet } from './wells/paths.ts';
import { pressuresOf, topsOf } from './wells/tables.ts';
import { toIbm, writeSegy } from './write/segy.ts';

/** Places inside the Crest closure, above its oil–water contact. */
function closure(field: Field, step: number): { u: number; v: number; z: number }[] {
  const out: { u: number; v: number; z: number }[] = [];
  const owc = field.contacts.Crest.owc as number;
  for (let u = 0; u < 4975; u += step)
    for (let v = 0; v < 3975; v += step) {
      const column = columnAt(field, u, v);
      column.blocks.forEach((block, b) => {
        const z = block.surfaces[5];
        if (column.areas[b] === 'Crest' && column.contacts[b]?.owc && z >= block.top && z < block.base && z < owc)
          out.push({ u, v, z });
      });
    }
  return out;
}

/** Best single v(z) = v0 + k·z through depths and times, by least squares over both; rms misfit in metres. */
function bestLinearVelocity(points: { z: number; t: number }[]): number {
  let best = Number.POSITIVE_INFINITY;
  for (let k = 0.1; k <= 1.6; k += 0.05)
    for (let v0 = 1200; v0 <= 2300; v0 += 5) {
      let sum = 0;
      for (const { z, t } of points) sum += ((v0 / k) * (Math.exp((k * t) / 2000) - 1) - z) ** 2;
      best = Math.min(best, sum / points.length);
    }
  return Math.sqrt(best);
}

describe.each([1, 2, 3, 4, 5, 6])('the field of seed %i is not allowed to be easy', (seed) => {
  let field: Field;
  let places: ReturnType<typeof closure>;
  beforeAll(() => {
    field = makeField(seed);
    places = closure(field, 160);
  });
  test('a slow lens delays the crest by 6 to 10 ms', () => {
    const { topU, topV, topM } = field.traps.crest;
    const without: Field = { ...field, structure: { ...field.structure, lens: () => 0 } };
    const delay = twtAt(timeColumn(field, topU, topV), topM) - twtAt(timeColumn(without, topU, topV), topM);
    expect(delay).toBeGreaterThan(6);
    expect(delay).toBeLessThan(10);
  });
  test('the hydrocarbon column of Crest is at least 40 m in the mean, and not filled to spill', () => {
    const owc = field.contacts.Crest.owc as number;
    expect(places.reduce((sum, p) => sum + owc - p.z, 0) / places.length).toBeGreaterThan(40);
    expect(owc).toBeLessThan(field.traps.crest.spillM);
    expect(owc).toBeLessThan(field.traps.northTopM);
    expect(field.contacts.East.owc).toBe(field.traps.leakM);
  });
  test('the best v0 + k·z leaves at least 3 m rms over the closure', () => {
    const points = places.map(({ u, v, z }) => ({ z, t: twtAt(timeColumn(field, u, v), z) }));
    expect(bestLinearVelocity(points)).toBeGreaterThan(3);
  });
  test('layers keep their order, age rises downwards, the unconformity cuts and Tolven pinches out', () => {
    let thin = 0;
    for (let u = 0; u < 4975; u += 310)
      for (let v = 0; v < 3975; v += 305) {
        const column = columnAt(field, u, v);
        for (const block of column.blocks) {
          const s = block.surfaces;
          for (const [above, below] of [
            [0, 1],
            [1, 2],
            [2, 3],
            [3, 5],
            [5, 6],
            [6, 7],
            [7, 8],
          ])
            expect(s[below]).toBeGreaterThanOrEqual(s[above]);
          expect(s[4]).toBeLessThan(s[3]);
          if (s[6] - s[5] < 5) thin++;
        }
        const block = column.blocks[0];
        let before = -1;
        for (let z = 5; z < Math.min(block.base, 1700); z += 7) {
          const age = ageAt(column, z);
          expect(age).toBeGreaterThanOrEqual(before);
          before = age;
        }
      }
    expect(thin).toBeGreaterThan(0);
  });
  test('each well meets what it is named for', () => {
    const wells = drillWells(field);
    const fluidAtTop = (name: string) => {
      const path = wells.find((w) => w.name === name)!;
      const top = topsOf(field, path).find((t) => t.name === 'Tolven Top')!;
      for (let md = top.md + 0.3; md < top.md + 25; md += 0.3) {
        const p = positionAt(path, md);
        const point = pointAt(columnAt(field, p.u, p.v), p.tvdss, emptyPoint());
        if (point.net) return point.fluid;
      }
      return 'none';
    };
    expect(['QN-1', 'QN-2', 'QN-3', 'QN-4', 'QN-5'].map(fluidAtTop)).toEqual(['oil', 'gas', 'brine', 'oil', 'oil']);
    expect(topsOf(field, wells[3]).some((t) => t.name === 'Osmund Fault')).toBe(true);
    // pressures lie on an oil gradient above the contact
    const oil = pressuresOf(field, wells[0]).filter(
      (p) => p.tvdss < (field.contacts.Crest.owc as number) - 2 && p.tvdss > (field.contacts.Crest.goc as number) + 1,
    );
    const slope = (oil[oil.length - 1].pressureBar - oil[0].pressureBar) / (oil[oil.length - 1].tvdss - oil[0].tvdss);
    expect(slope).toBeGreaterThan(0.066);
    expect(slope).toBeLessThan(0.086);
  });
});

describe('the truth of seed 1', () => {
  let field: Field;
  beforeAll(() => {
    field = makeField(1);
  });
  test('volumes by columns and by random points agree within their error, and halving the grid changes little', () => {
    const outline = insideRing(crestOutline(field));
    const coarse = volumesOnColumns(field, outline, 50, 1);
    const fine = volumesOnColumns(field, outline, 25, 0.5);
    for (const area of ['Crest', 'East'] as const) {
      const a = coarse.find((v) => v.area === area)!;
      const b = fine.find((v) => v.area === area)!;
      expect(Math.abs(a.grossRockVolume_m3 / b.grossRockVolume_m3 - 1)).toBeLessThan(0.006);
      const { volume, grossError } = volumesByPoints(field, area, 60000);
      expect(Math.abs(volume.grossRockVolume_m3 - b.grossRockVolume_m3)).toBeLessThan(3.5 * grossError);
      expect(Math.abs(volume.oilInPlace_sm3 / b.oilInPlace_sm3 - 1)).toBeLessThan(0.12);
    }
    expect(fine.find((v) => v.area === 'North')!.grossRockVolume_m3).toBe(0);
  });
  test('signal-to-noise of the full stack is as stated', () => {
    const shape = { lines: 26, traces: 26 };
    const places = new Float64Array(2 * 26 * 26);
    for (let i = 0; i < 26; i++)
      for (let j = 0; j < 26; j++) places.set([uOf(2070 + j), vOf(1050 + i)], 2 * (i * 26 + j));
    const stacks = modelTraces(field, places).stacks.map((s) => blurLaterally(s, shape));
    const clean = meanOf(stacks);
    const tolven = new Float32Array(26 * 26);
    for (let n = 0; n < tolven.length; n++) {
      const [u, v] = [places[2 * n], places[2 * n + 1]];
      const z = surfaceMet(columnAt(field, u, v), 5);
      tolven[n] = twtAt(timeColumn(field, u, v), z);
    }
    addNoise(1, stacks, tolven, shape);
    const noise = meanOf(stacks).map((v, n) => v - clean[n]);
    const ratio = (rmsAround(clean, tolven, 150) / rmsAround(noise, tolven, 150)) ** 2;
    expect(ratio).toBeGreaterThan(5.4);
    expect(ratio).toBeLessThan(6.6);
    const bottom = new Float32Array(tolven.length).fill(1650);
    const deep = (rmsAround(clean, bottom, 150) / rmsAround(noise, bottom, 150)) ** 2;
    expect(deep).toBeGreaterThan(1.8);
    expect(deep).toBeLessThan(2.2);
  });
});

test('reflection coefficients: impedance contrast at normal incidence, total at the critical angle, none without contrast', () => {
  const a = { vp: 2500, vs: 1100, rho: 2300 };
  const b = { vp: 3400, vs: 1700, rho: 2450 };
  expect(reflection(a, b, 0)).toBeCloseTo((b.vp * b.rho - a.vp * a.rho) / (b.vp * b.rho + a.vp * a.rho), 12);
  expect(reflection(a, a, 0.4)).toBeCloseTo(0, 12);
  expect(reflection(b, a, 0)).toBeCloseTo(-reflection(a, b, 0), 12);
  // gas sand under shale: soft, and brighter with angle (class III)
  const shale = { vp: 2700, vs: 1250, rho: 2400 };
  const gas = { vp: 2100, vs: 1300, rho: 1950 };
  expect(reflection(shale, gas, 0.5)).toBeLessThan(reflection(shale, gas, 0.17));
});

test('IBM floats by hand', () => {
  expect(toIbm(-118.625)).toBe(0xc276a000);
  expect(toIbm(1)).toBe(0x41100000);
  expect(toIbm(0)).toBe(0);
});

test('files are the same to the byte for the same input', () => {
  const dir = mkdtempSync(join(tmpdir(), 'quillon-'));
  afterAll(() => rmSync(dir, { recursive: true, force: true }));
  const layout = {
    format: 1,
    littleEndian: false,
    revision: 1,
    inline: 189,
    crossline: 193,
    x: 181,
    y: 185,
    scalar: -100,
    text: ['A'],
    sampleMs: SURVEY.sampleMs,
    samples: 8,
  } as const;
  const write = (name: string) => {
    writeSegy(join(dir, name), { ...layout, text: ['A'] }, [{ inline: 1, crossline: 2, x: 3, y: 4 }], (_, out) =>
      out.fill(1.25),
    );
    return readFileSync(join(dir, name));
  };
  const a = write('a.sgy');
  expect(a.equals(new Uint8Array(write('b.sgy')))).toBe(true);
  expect(a.length).toBe(3600 + 240 + 32);
  expect(LAYERS).toHaveLength(9);
});
