import { writeFileSync } from 'node:fs';
import { sidesAt } from '../model/earth.ts';
import { type Fault, offFault, planeAt, throwAt } from '../model/faults.ts';
import { ageAt, ageBetween, columnAt, type Field } from '../model/field.ts';
import { SURVEY, toMap, uOf, vOf } from '../model/survey.ts';
import { timeColumn, twtAt } from '../seismic/traces.ts';
import { writeJson } from '../write/text.ts';

export const FAULT_COLUMNS: (string | [string, number])[] = [
  'fault',
  'kind',
  ['x_m', 2],
  ['y_m', 2],
  ['depth_m', 1],
  ['twt_ms', 3],
  ['throw_m', 2],
  ['throw_here_m', 2],
  ['throw_here_ms', 3],
  ['dip_deg', 2],
  ['dip_direction_deg', 2],
];

/** Where the fault plane is met at a depth, in survey coordinates, with the surfaces of one of its sides. */
function onPlane(field: Field, fault: Fault, index: number, z: number, t: number, hanging: boolean) {
  const { structure } = field;
  const [u, v] = offFault(fault, planeAt(fault, z, t), t);
  const others = sidesAt(structure, u, v, z) & ~(1 << index);
  const surfaces = structure.surfaces(u, v, others | (hanging ? 1 << index : 0), new Float64Array(9));
  return { u, v, surfaces };
}

const LONGEST_M = 200;

/**
 * How far apart the two ends of the bed lie whose ends on the plane are centred on a depth: found by halving, as the age of
 * the hanging wall rises downwards.
 */
function throwHere(field: Field, fault: Fault, index: number, z: number, t: number): { metres: number; ms: number } {
  const sign = fault.kind === 'normal' ? 1 : -1;
  const ageOf = (depth: number, hanging: boolean) =>
    ageBetween(onPlane(field, fault, index, depth, t, hanging).surfaces, depth);
  let [low, high] = [0, LONGEST_M];
  for (let n = 0; n < 30; n++) {
    const middle = 0.5 * (low + high);
    const foot = ageOf(z - 0.5 * sign * middle, false);
    const hanging = ageOf(z + 0.5 * sign * middle, true);
    if (sign * (hanging - foot) < 0) low = middle;
    else high = middle;
  }
  const metres = 0.5 * (low + high);
  const timeOf = (depth: number) => {
    const { u, v } = onPlane(field, fault, index, depth, t, false);
    return twtAt(timeColumn(field, u, v), depth);
  };
  return { metres, ms: timeOf(z + 0.5 * metres) - timeOf(z - 0.5 * metres) };
}

/** Slope and direction of the plane at a place, degrees; azimuth clockwise from grid north. */
function orientation(fault: Fault, z: number, t: number): [dip: number, direction: number] {
  const place = (depth: number, strike: number) =>
    toMap(...offFault(fault, planeAt(fault, depth, strike), strike)) as [number, number];
  const [ax, ay] = place(z, t - 5);
  const [bx, by] = place(z, t + 5);
  const [cx, cy] = place(z - 5, t);
  const [dx, dy] = place(z + 5, t);
  const strike = [bx - ax, by - ay];
  const length = Math.hypot(...strike);
  // what goes down the plane without going along it
  const across = ((dx - cx) * strike[1] - (dy - cy) * strike[0]) / length;
  const sign = Math.sign(across) || 1;
  const azimuth = (Math.atan2((sign * strike[1]) / length, (-sign * strike[0]) / length) * 180) / Math.PI;
  return [(Math.atan2(10, Math.abs(across)) * 180) / Math.PI, (azimuth + 360) % 360];
}

/** Places on every fault, with its throw at the reservoir (of the reverse one at Pell) and at the place itself. */
export function faultRows(field: Field): (string | number)[][] {
  const rows: (string | number)[][] = [];
  field.structure.faults.forEach((fault, index) => {
    const k = fault.kind === 'reverse' ? 7 : 5;
    for (let t = fault.tCentre - fault.halfBack; t <= fault.tCentre + fault.halfAhead; t += 50) {
      const amount = throwAt(fault, k, t);
      if (amount <= 0) continue;
      for (let z = 500; z <= 1600; z += 50) {
        const [u, v] = offFault(fault, planeAt(fault, z, t), t);
        if (u < 0 || v < 0 || u > 4975 || v > 3975) continue;
        const here = throwHere(field, fault, index, z, t);
        const twt = twtAt(timeColumn(field, u, v, 1850), z);
        rows.push([
          fault.name,
          fault.kind,
          ...toMap(u, v),
          z,
          twt,
          amount,
          here.metres,
          here.ms,
          ...orientation(fault, z, t),
        ]);
      }
    }
  });
  return rows;
}

/** Every how many lines and traces ages are written. */
const EVERY = 4;

/**
 * Relative age against time on every fourth line and trace: 32-bit floats, little-endian, `[inline][crossline][sample]` in
 * `NAME.f32`, with their places in `NAME.json`.
 */
export function writeAges(path: string, field: Field): void {
  const { inlines, crosslines, samples, sampleMs } = SURVEY;
  const [ni, nj] = [Math.ceil(inlines / EVERY), Math.ceil(crosslines / EVERY)];
  const ages = new Float32Array(ni * nj * samples);
  for (let i = 0; i < ni; i++)
    for (let j = 0; j < nj; j++) {
      const [u, v] = [uOf(2000 + EVERY * j), vOf(1000 + EVERY * i)];
      const column = columnAt(field, u, v);
      const times = timeColumn(field, u, v, 1900);
      let n = 0;
      for (let k = 0; k < samples; k++) {
        const twt = k * sampleMs;
        while (n < times.count - 2 && times.twt[n + 1] < twt) n++;
        const f = (twt - times.twt[n]) / (times.twt[n + 1] - times.twt[n]);
        ages[(i * nj + j) * samples + k] = ageAt(column, (n + f) * times.dz);
      }
    }
  writeJson(`${path}.json`, {
    inline: { first: SURVEY.firstInline, step: EVERY, count: ni },
    crossline: { first: 2000, step: EVERY, count: nj },
    samples: { firstMs: 0, stepMs: sampleMs, count: samples },
  });
  writeFileSync(`${path}.f32`, new Uint8Array(ages.buffer));
}
