// Faults found in the full stack: how much of them, how much of what is called one is real, how they lie, and their throw; steps and
// parameters are the same for all.
import { join } from 'node:path';
import { agesMusts, measureAges } from './ages.mjs';
import { cli, csv } from './field.mjs';
import { median, must, row } from './score.mjs';

const part = 'structure';
const BIN = 25;
const MS = 4;

function make(work, step, inputs, params, name) {
  const roles = Object.entries(inputs).flatMap(([role, of]) => ['--in', `${role}=${of}`]);
  const set = Object.entries(params).flatMap(([key, value]) => ['--set', `${key}=${value}`]);
  cli('do', step, '--project', work.project, ...roles, ...set, '--name', name);
}

/** Points of a surface every `step` ms down its sticks and half way between neighbours: x, y, ms, dip and azimuth of the plane there. */
export function pointsOf(sticks, step, velocity) {
  const at = (stick, t) => {
    for (let n = 0; n + 1 < stick.length; n++) {
      const [a, b] = [stick[n], stick[n + 1]];
      if (t < a[2] || t > b[2] || b[2] === a[2]) continue;
      const f = (t - a[2]) / (b[2] - a[2]);
      return [a[0] + f * (b[0] - a[0]), a[1] + f * (b[1] - a[1]), t];
    }
    return null;
  };
  const out = [];
  for (let s = 0; s + 1 < sticks.length; s++) {
    const [p, q] = [sticks[s], sticks[s + 1]];
    const top = Math.max(p[0][2], q[0][2]);
    const base = Math.min(p.at(-1)[2], q.at(-1)[2]);
    for (let t = Math.ceil(top / step) * step; t <= base; t += step) {
      const [a, b, down] = [at(p, t), at(q, t), at(p, Math.min(base, t + 40))];
      if (!a || !b) continue;
      const strike = [b[0] - a[0], b[1] - a[1]];
      const length = Math.hypot(...strike);
      if (!(length > 0)) continue;
      let plane = null;
      if (down && down[2] > t + 10) {
        const off = ((down[0] - a[0]) * strike[1] - (down[1] - a[1]) * strike[0]) / length;
        const sign = off < 0 ? -1 : 1;
        plane = {
          dip: (Math.atan2(((down[2] - t) * velocity(t)) / 2000, Math.abs(off)) * 180) / Math.PI,
          azimuth:
            ((Math.atan2((sign * strike[1]) / length, (-sign * strike[0]) / length) * 180) / Math.PI + 360) % 360,
        };
      }
      for (const f of [0, 0.5]) out.push({ x: a[0] + f * strike[0], y: a[1] + f * strike[1], t, plane });
    }
  }
  return out;
}

/** Places by time, so that those near a point are found at once. */
export function byTime(points, step = 2 * MS) {
  const held = new Map();
  for (const p of points) {
    const key = Math.round(p.t / step);
    if (!held.has(key)) held.set(key, []);
    held.get(key).push(p);
  }
  return (x, y, t, within) => {
    let [best, far] = [null, within];
    const key = Math.round(t / step);
    for (const k of [key - 1, key, key + 1])
      for (const p of held.get(k) ?? []) {
        if (Math.abs(p.t - t) > step) continue;
        const d = Math.hypot(p.x - x, p.y - y);
        if (d <= far) [best, far] = [p, d];
      }
    return best;
  };
}

/** The faults of the truth as points eight times as close down the dip and twice along strike. */
export function truthOf(rows) {
  const sticks = [];
  for (const r of rows) {
    const last = sticks.at(-1)?.at(-1);
    if (!last || last.fault !== r.fault || r.depth_m <= last.depth_m) sticks.push([]);
    sticks.at(-1).push(r);
  }
  const between = (a, b, f) => ({
    ...a,
    x: a.x_m + f * (b.x_m - a.x_m),
    y: a.y_m + f * (b.y_m - a.y_m),
    t: a.twt_ms + f * (b.twt_ms - a.twt_ms),
  });
  const out = [];
  sticks.forEach((stick, s) => {
    const next = sticks[s + 1]?.[0].fault === stick[0].fault ? sticks[s + 1] : null;
    const beside = new Map((next ?? []).map((r) => [r.depth_m, r]));
    for (let n = 0; n + 1 < stick.length; n++)
      for (let m = 0; m < 8; m++) {
        const p = between(stick[n], stick[n + 1], m / 8);
        out.push(p);
        const [a, b] = [beside.get(stick[n].depth_m), beside.get(stick[n + 1].depth_m)];
        if (!a || !b) continue;
        const q = between(a, b, m / 8);
        out.push({ ...p, x: (p.x + q.x) / 2, y: (p.y + q.y) / 2, t: (p.t + q.t) / 2 });
      }
  });
  return out;
}

/** Angle from one azimuth to another, without its sign. */
const turned = (a, b) => Math.abs(((a - b + 540) % 360) - 180);

export function findFaults(work) {
  make(work, 'interpret.faultStrength', { volume: 'Full stack' }, {}, 'Fault strength');
  const planes = { dip: 'Dip of the best plane of Full stack', azimuth: 'Azimuth of the best plane of Full stack' };
  make(work, 'interpret.faultRidges', { strength: 'Fault strength', azimuth: planes.azimuth }, {}, 'Fault ridges');
  make(
    work,
    'interpret.faultSurfaces',
    { ridges: 'Fault ridges', strength: 'Fault strength', ...planes },
    { smallest: 0.4, leastMean: 0.3 },
    'Found',
  );
  const found = work.objects().filter((o) => o.kind === 'fault' && o.found);
  return found.filter((o) => o.madeBy.run === found.at(-1).madeBy.run);
}

/** Throw of a fault at its places: map coordinates, ms, throw and match. */
function throwsOf(work, fault) {
  cli('do', 'interpret.throw', '--project', work.project, '--in', `fault=${fault.name}`, '--in', 'seismic=Full stack');
  const made = work.objects().findLast((o) => o.kind === 'fault throw');
  const file = join(work.dir ?? work.project, `throw-${work.seed}.csv`);
  cli('export', `fault throw/${made.name}`, file, '--project', work.project);
  return csv(file).map((r) => ({ x: r.x_m, y: r.y_m, t: r.twt_ms, throw: r.throw_ms, match: r.match }));
}

/** Interval velocity against time, averaged over the volume of the files' own velocities, m/s. */
export function velocityOf(work) {
  const tables = work.table('checkshots.csv');
  const pairs = tables
    .map((r) => [r.twt_ms ?? 2 * r.owt_ms, r.tvdss_m ?? r.md_m])
    .filter(([t, z]) => Number.isFinite(t) && Number.isFinite(z))
    .sort((a, b) => a[0] - b[0]);
  return (t) => {
    const near = pairs.filter(([at]) => Math.abs(at - t) < 120);
    if (near.length < 4) return 2500;
    const mt = near.reduce((a, p) => a + p[0], 0) / near.length;
    const mz = near.reduce((a, p) => a + p[1], 0) / near.length;
    const num = near.reduce((a, p) => a + (p[0] - mt) * (p[1] - mz), 0);
    const den = near.reduce((a, p) => a + (p[0] - mt) ** 2, 0);
    return (2000 * num) / den;
  };
}

export async function measure(work) {
  const say = (measure, value, unit) => row(part, measure, work.seed, value, unit);
  const faults = findFaults(work);
  const rows = work.truth('faults.csv');
  const truth = truthOf(rows);
  const [first, last] = [Math.min(...rows.map((r) => r.twt_ms)), Math.max(...rows.map((r) => r.twt_ms))];
  const velocity = velocityOf(work);
  const called = faults.flatMap((f) => pointsOf(f.sticks, MS, velocity));
  const judged = called.filter((p) => p.t > first + 2 * MS && p.t < last - 2 * MS);
  const nearTruth = byTime(truth);
  const nearCalled = byTime(called);
  const large = rows.filter((r) => r.throw_here_m > 10);
  const found = large.filter((r) => nearCalled(r.x_m, r.y_m, r.twt_ms, BIN)).length;
  let real = 0;
  const [strikes, dips] = [[], []];
  for (const p of judged) {
    const fault = nearTruth(p.x, p.y, p.t, BIN);
    if (!fault) continue;
    real++;
    if (!p.plane || !(fault.throw_here_m > 10)) continue;
    strikes.push(turned(p.plane.azimuth, fault.dip_direction_deg));
    dips.push(Math.abs(p.plane.dip - fault.dip_deg));
  }
  const places = faults.slice(0, 6).flatMap((fault) => throwsOf(work, fault));
  const nearThrow = byTime(places.filter((p) => p.match >= 0.4));
  const errors = large.flatMap((r) => {
    const p = nearThrow(r.x_m, r.y_m, r.twt_ms, BIN);
    return p ? [Math.abs(p.throw - (r.kind === 'reverse' ? -1 : 1) * r.throw_here_ms)] : [];
  });
  return [
    say('throw of faults: median error where its match is 0.4 or more', median(errors), 'ms'),
    say(
      'throw of faults: part of the area with throw over 10 m of which it is known',
      errors.length / large.length,
      '',
    ),
    say('faults found: part of the area with throw over 10 m within one bin', found / large.length, ''),
    say('faults called: part that is real within one bin', real / judged.length, ''),
    say('faults called: how many', faults.length, ''),
    say('strike of faults: median error', median(strikes), 'deg'),
    say('dip of faults: median error', median(dips), 'deg'),
    ...(await measureAges(work)),
  ];
}

export function musts(rows) {
  const of = (measure) => median(rows.filter((r) => r.part === part && r.measure === measure).map((r) => r.value));
  const over = (measure, unit, sense, bound) =>
    must(part, `${measure} (median over seeds)`, of(measure), unit, sense, bound);
  return [
    over('faults found: part of the area with throw over 10 m within one bin', '', 'at least', 0.75),
    over('faults called: part that is real within one bin', '', 'at least', 0.65),
    over('throw of faults: median error where its match is 0.4 or more', 'ms', 'at most', 5),
    over('strike of faults: median error', 'deg', 'at most', 5),
    over('dip of faults: median error', 'deg', 'at most', 5),
    ...agesMusts(rows),
  ];
}
