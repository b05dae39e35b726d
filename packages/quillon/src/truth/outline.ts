import { type Fault, offFault, planeAt, throwAt } from '../model/faults.ts';
import { columnAt, type Field } from '../model/field.ts';
import { randomFor } from '../model/random.ts';
import { toMap } from '../model/survey.ts';
import { timeColumn, twtAt } from '../seismic/traces.ts';
import { surfaceMet } from '../wells/paths.ts';

/**
 * An interpreter's outline of the Crest accumulation: the oil–water contact on Tolven Top as a hand draws it, now inside
 * and now outside of where it is: within 15 m of a line that itself swings by up to 45 m.
 */
export function crestOutline(field: Field): [x: number, y: number][] {
  const { crest } = field.traps;
  const owc = field.contacts.Crest.owc as number;
  const random = randomFor(field.seed, 'outline');
  const ring: [number, number][] = [];
  const swings = [1, 2, 3, 5].map((n) => ({ n, m: random.between(6, 11.25), phase: random.between(0, 2 * Math.PI) }));
  for (let azimuth = 0; azimuth < 360; azimuth += 5) {
    const c = Math.cos((azimuth * Math.PI) / 180);
    const s = Math.sin((azimuth * Math.PI) / 180);
    let r = 50;
    for (; r < 2500; r += 5) {
      const z = surfaceMet(columnAt(field, crest.topU + r * c, crest.topV + r * s), 5);
      if (!(z < owc)) break;
    }
    for (const { n, m, phase } of swings) r += m * Math.cos((n * azimuth * Math.PI) / 180 + phase);
    r += random.between(-15, 15);
    ring.push(toMap(crest.topU + r * c, crest.topV + r * s));
  }
  ring.push(ring[0]);
  return ring;
}

export interface StickPoint {
  fault: string;
  stick: number;
  x: number;
  y: number;
  twt: number;
}

/** Sticks as an interpreter picks them every 200 m along strike: ±25 m, with a gap where the image was poor. */
export function faultSticks(field: Field, faults: Fault[]): StickPoint[] {
  const out: StickPoint[] = [];
  for (const fault of faults) {
    const random = randomFor(field.seed, `sticks ${fault.name}`);
    const deep = fault.kind === 'reverse';
    const gapAt = fault.tCentre + random.between(-400, 400);
    let stick = 0;
    for (let t = fault.tCentre - fault.halfBack + 120; t < fault.tCentre + fault.halfAhead - 120; t += 200) {
      if (throwAt(fault, deep ? 7 : 5, t) < 6) continue;
      if (fault.throwM > 50 && Math.abs(t - gapAt) < 220) continue;
      const bias = random.between(-12, 12);
      const points: StickPoint[] = [];
      for (let z = deep ? 1180 : 640; z <= (deep ? 1560 : 1480); z += 90) {
        const n = planeAt(fault, z, t) + bias + random.between(-13, 13);
        const [u, v] = offFault(fault, n, t);
        if (u < -100 || u > 5075 || v < -100 || v > 4075) continue;
        const [x, y] = toMap(u, v);
        points.push({ fault: fault.name, stick, x, y, twt: twtAt(timeColumn(field, u, v), z) });
      }
      if (points.length < 3) continue;
      out.push(...points);
      stick++;
    }
  }
  return out;
}
