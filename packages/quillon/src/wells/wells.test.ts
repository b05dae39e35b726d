import { describe, expect, test } from 'vitest';
import { columnAt, emptyPoint, makeField } from '../model/field.ts';
import { timeColumn, twtAt } from '../seismic/traces.ts';
import { LOG_STEP, logsOf, pointOnPath } from './logs.ts';
import { drillWells, KB_M, type Path, positionAt, STATION_M, surfaceMet } from './paths.ts';
import { checkshotsOf, coreOf, faciesOf, pressuresOf, topsOf } from './tables.ts';

const field = makeField(3);
const wells = drillWells(field);
const named = (name: string): Path => {
  const found = wells.find((w) => w.name === name);
  if (!found) throw new Error(`${name} is not drilled`);
  return found;
};

/** Minimum curvature between stations (Sawaryn & Thorogood 2005), from inclinations alone: the direction never turns. */
function byStations(path: Path): { away: number; tvd: number }[] {
  const out = [{ away: 0, tvd: 0 }];
  for (let md = STATION_M; md <= path.totalMd; md += STATION_M) {
    const [a, b] = [md - STATION_M, md].map((m) => (positionAt(path, m).inclinationDeg * Math.PI) / 180);
    const turn = b - a;
    const ratio = turn < 1e-9 ? 1 : (2 / turn) * Math.tan(turn / 2);
    const last = out[out.length - 1];
    out.push({
      away: last.away + (STATION_M / 2) * (Math.sin(a) + Math.sin(b)) * ratio,
      tvd: last.tvd + (STATION_M / 2) * (Math.cos(a) + Math.cos(b)) * ratio,
    });
  }
  return out;
}

describe('well paths', () => {
  test('keep the length of their measured depth, and begin at the head below the kelly bushing', () => {
    for (const path of wells) {
      expect(positionAt(path, 0)).toMatchObject({ u: path.headU, v: path.headV, tvdss: -KB_M });
      for (let md = 10; md < path.totalMd; md += 37) {
        const [a, b] = [positionAt(path, md - 0.01), positionAt(path, md + 0.01)];
        const length = Math.hypot(b.u - a.u, b.v - a.v, b.tvdss - a.tvdss);
        expect(length).toBeCloseTo(0.02, 6);
      }
    }
  });
  test('that deviate are what minimum curvature makes of their stations', () => {
    const deviated = wells.filter((w) => w.inclinationDeg > 0);
    expect(deviated.length).toBeGreaterThan(0);
    for (const path of deviated)
      byStations(path).forEach(({ away, tvd }, n) => {
        const p = positionAt(path, n * STATION_M);
        // stations straddle the ends of the build by up to their spacing
        expect(Math.hypot(p.u - path.headU, p.v - path.headV) - away).toBeLessThan(0.6);
        expect(Math.abs(p.tvdss + KB_M - tvd)).toBeLessThan(0.6);
      });
  });
});

describe('tops', () => {
  test('lie on the surfaces of the earth, shallow to deep in the order of the layers', () => {
    const surfaces: Record<string, number> = { 'Lantern Top': 1, 'Brack Top': 2, 'Tolven Top': 5, 'Pell Top': 7 };
    for (const path of wells) {
      const tops = topsOf(field, path);
      expect(tops.map((t) => t.md)).toEqual([...tops].map((t) => t.md).sort((a, b) => a - b));
      for (const { name, md } of tops) {
        const k = surfaces[name];
        if (k === undefined || name === 'Pell Top') continue;
        const p = positionAt(path, md);
        expect(Math.abs(surfaceMet(columnAt(field, p.u, p.v), k) - p.tvdss)).toBeLessThan(0.05);
      }
    }
  });
  test('of the fault stand in the well that crosses it, and in none that does not', () => {
    const cut = (name: string) => topsOf(field, named(name)).filter((t) => t.name === 'Osmund Fault').length;
    expect(cut('QN-4')).toBe(1);
    expect([cut('QN-1'), cut('QN-2')]).toEqual([0, 0]);
  });
});

describe('checkshots', () => {
  test('are the times of the earth with a millisecond of noise, no more and no less', () => {
    const errors = wells.flatMap((path) =>
      checkshotsOf(field, path).map(({ md, tvdss, twt }) => {
        const p = positionAt(path, md);
        expect(tvdss).toBe(p.tvdss);
        return twt - twtAt(timeColumn(field, p.u, p.v), p.tvdss);
      }),
    );
    const rms = Math.sqrt(errors.reduce((s, e) => s + e * e, 0) / errors.length);
    expect(errors.length).toBeGreaterThan(60);
    expect(rms).toBeGreaterThan(0.75);
    expect(rms).toBeLessThan(1.3);
    expect(Math.abs(errors.reduce((s, e) => s + e, 0) / errors.length)).toBeLessThan(0.4);
  });
});

describe('logs', () => {
  test('go down by even steps in their own unit and are null only before a run and in its gaps', () => {
    for (const path of wells) {
      const { depth, depthUnit, curves, nullValue } = logsOf(field, path);
      const step = depthUnit === 'FT' ? LOG_STEP / 0.3048 : LOG_STEP;
      for (let n = 1; n < depth.length; n += 97) expect(depth[n] - depth[n - 1]).toBeCloseTo(step, 6);
      const gamma = curves[0];
      expect(gamma.values.every((v) => v !== nullValue && v > 0 && v < 300)).toBe(true);
      for (const c of curves) expect(c.values.length).toBe(depth.length);
    }
  });
  test('carry the velocity of the earth in the sonic, whatever its unit', () => {
    for (const path of wells) {
      const { depth, depthUnit, curves, nullValue } = logsOf(field, path);
      const [, sonic] = curves;
      const toSpeed = /FT/i.test(sonic.unit) ? 304800 : 1e6;
      const parts: number[] = [];
      const point = emptyPoint();
      for (let n = 0; n < depth.length; n += 29) {
        if (sonic.values[n] === nullValue) continue;
        const md = depthUnit === 'FT' ? depth[n] * 0.3048 : depth[n];
        parts.push(toSpeed / sonic.values[n] / pointOnPath(field, path, md, point).vp - 1);
      }
      parts.sort((a, b) => a - b);
      // washouts and spikes are in the tails
      expect(Math.abs(parts[parts.length >> 1])).toBeLessThan(0.01);
    }
  });
  test('differ in what their curves are called', () => {
    const names = wells.map((path) =>
      logsOf(field, path)
        .curves.map((c) => c.mnemonic)
        .join(),
    );
    expect(new Set(names).size).toBeGreaterThanOrEqual(4);
  });
});

describe('tables of the reservoir', () => {
  test('pressures in oil rise by the weight of oil, in water by that of brine', () => {
    const points = pressuresOf(field, named('QN-1'));
    const { owc } = field.contacts.Crest;
    if (owc === null) throw new Error('Crest has a contact');
    const slope = (list: typeof points) => {
      const [mz, mp] = [
        list.reduce((s, p) => s + p.tvdss, 0) / list.length,
        list.reduce((s, p) => s + p.pressureBar, 0) / list.length,
      ];
      const cross = list.reduce((s, p) => s + (p.tvdss - mz) * (p.pressureBar - mp), 0);
      return (cross / list.reduce((s, p) => s + (p.tvdss - mz) ** 2, 0)) * (1e5 / 9.80665);
    };
    const oil = points.filter((p) => p.tvdss < owc && p.tvdss > (field.contacts.Crest.goc ?? 0));
    expect(oil.length).toBeGreaterThan(4);
    expect(Math.abs(slope(oil) / field.rocks.oil.rho - 1)).toBeLessThan(0.25);
    const water = pressuresOf(field, named('QN-3'));
    if (water.length > 4) expect(Math.abs(slope(water) / field.rocks.brine.rho - 1)).toBeLessThan(0.1);
  });
  test('facies fill the described interval without gap or overlap, and no bed twice in a row', () => {
    for (const path of wells) {
      const rows = faciesOf(field, path);
      for (let n = 1; n < rows.length; n++) {
        expect(rows[n].fromMd).toBeCloseTo(rows[n - 1].toMd, 9);
        expect(rows[n].facies).not.toBe(rows[n - 1].facies);
      }
    }
  });
  test('core is of the reservoir, its porosity that of the rock within the plugs’ error', () => {
    const path = named('QN-1');
    const core = coreOf(field, path);
    const [top, base] = ['Tolven Top', 'Tolven Base'].map(
      (name) => topsOf(field, path).find((t) => t.name === name)?.md,
    );
    expect(core.length).toBeGreaterThan(10);
    const point = emptyPoint();
    for (const { md, porosity } of core) {
      expect(md).toBeGreaterThan((top as number) - 1);
      expect(md).toBeLessThan((base as number) + 1);
      expect(Math.abs(porosity - pointOnPath(field, path, md, point).porosity)).toBeLessThan(0.03);
    }
  });
});
