import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { Fault } from '../../earth/objects.ts';
import { planeOfFault } from '../../faults/plane.ts';
import { inOrder } from '../../faults/surface.ts';
import { insideRings } from '../../numerics/rings.ts';
import { defineStep, number } from '../define.ts';

type Stick = Fault['sticks'][number];

const middleOf = (stick: Stick) => stick[stick.length >> 1];

/** Metres on the map between the nearest points of two faults. */
function apart(a: Fault, b: Fault): number {
  let near = Number.POSITIVE_INFINITY;
  for (const p of a.sticks.flat())
    for (const q of b.sticks.flat()) near = Math.min(near, Math.hypot(p[0] - q[0], p[1] - q[1]));
  return near;
}

/** Degrees between the strikes of two faults. */
function turned(a: Fault, b: Fault, velocity: number): number {
  const [p, q] = [planeOfFault(a, velocity), planeOfFault(b, velocity)];
  return p && q ? Math.abs(((p.azimuth - q.azimuth + 540) % 360) - 180) : Number.NaN;
}

const velocity = number(
  { title: 'Velocity', description: 'Turns time into depth, for how faults lie.', unit: 'm/s' },
  { min: 300, max: 8000, step: 50, initial: 2500 },
);

export const joinFaults = defineStep({
  id: 'interpret.joinFaults',
  version: 1,
  stage: 'interpret',
  purpose: 'Faults found',
  title: 'Join faults',
  summary:
    'Puts the sticks of several faults together to one surface, and keeps by how much they were apart and turned.',
  formula: 'Sticks of all, in order along the direction in which they spread most.',
  avoid: 'Of faults that cross, or that lie beside each other: their sticks would be threaded in turn.',
  source: 'Walsh & Watterson (1988), J. Struct. Geol. 10, 239–247, for what a single fault’s displacement is like',
  reach: 'global',
  inputs: { faults: { kind: 'fault', title: 'Faults', many: true, begins: false } },
  params: z.object({ velocity }),
  outputs: { joined: { kind: 'fault', title: 'Joined fault' } },
  async run({ inputs: { faults }, params: p, warn }) {
    if (faults.length < 2)
      throw new LithagonError('input', 'Two faults at least are needed to join them.', {
        fix: 'Choose another one. Nothing was changed.',
      });
    const [first] = faults;
    const other = faults.find((f) => f.domain !== first.domain);
    if (other)
      throw new LithagonError('domain', `${other.name} and ${first.name} are not in one domain.`, {
        object: other.name,
        fix: 'Convert one of them. Nothing was changed.',
      });
    // along strike, as the sticks run
    const sticks = inOrder(faults.flatMap((f) => f.sticks.filter((s) => s.length > 0)));
    const place = new Map(sticks.map((s, n) => [s, n]));
    const mean = (f: Fault) => f.sticks.reduce((sum, s) => sum + (place.get(s) ?? 0), 0) / f.sticks.length;
    const ordered = [...faults].sort((a, b) => mean(a) - mean(b));
    const reasons = ordered.slice(1).map((b, n) => {
      const a = ordered[n];
      const angle = turned(a, b, p.velocity);
      return `${a.name} and ${b.name}: by hand, ${apart(a, b).toFixed(0)} m apart${Number.isNaN(angle) ? '' : `, turned by ${angle.toFixed(0)}°`}`;
    });
    for (const reason of reasons) warn(`Joined ${reason}.`);
    const found = ordered.every((f) => f.found) ? ordered.flatMap((f) => f.found ?? []) : [];
    const area = found.reduce((sum, f) => sum + f.areaM2, 0);
    const plane = planeOfFault({ sticks, domain: first.domain }, p.velocity);
    return {
      joined: {
        kind: 'fault' as const,
        domain: first.domain,
        sticks,
        ...(area > 0 && plane
          ? {
              found: {
                areaM2: area,
                strength: found.reduce((sum, f) => sum + f.areaM2 * f.strength, 0) / area,
                dip: plane.dip,
                azimuth: plane.azimuth,
                joined: [...found.flatMap((f) => f.joined), ...reasons],
              },
            }
          : {}),
      },
    };
  },
});

export const splitFault = defineStep({
  id: 'interpret.splitFault',
  version: 1,
  stage: 'interpret',
  purpose: 'Faults found',
  title: 'Split a fault',
  summary: 'Parts a fault in two, at a place along its strike or by an area: at the seam both keep the stick.',
  formula: 'Sticks up to the seam, and from it on.',
  avoid: 'To hide a part for a while: hide the fault in the view.',
  source: 'Shimrat (1962), Communications of the ACM 5, 434, for what lies inside a ring',
  reach: 'global',
  inputs: {
    fault: { kind: 'fault', title: 'Fault' },
    area: { kind: 'polygon', title: 'Along the area', optional: true },
  },
  params: z.object({
    at: number(
      { title: 'At', description: 'Part of the way along its strike; not used where an area is given.' },
      { min: 0.02, max: 0.98, step: 0.01, initial: 0.5 },
    ),
  }),
  outputs: { first: { kind: 'fault', title: 'First part' }, second: { kind: 'fault', title: 'Second part' } },
  async run({ inputs: { fault, area }, params: p }) {
    const sticks = inOrder(fault.sticks.filter((s) => s.length > 1));
    const parts: [Stick[], Stick[]] = [[], []];
    if (area) {
      const within = insideRings(area.rings);
      const inside = sticks.map((s) => within(middleOf(s)[0], middleOf(s)[1]));
      // a stick of the other part beside one of its own closes the seam
      for (const [n, stick] of sticks.entries()) {
        parts[inside[n] ? 0 : 1].push(stick);
        if (n > 0 && inside[n] !== inside[n - 1]) parts[inside[n] ? 0 : 1].splice(-1, 0, sticks[n - 1]);
      }
    } else {
      const along = [0];
      for (let n = 1; n < sticks.length; n++) {
        const [a, b] = [middleOf(sticks[n - 1]), middleOf(sticks[n])];
        along.push(along[n - 1] + Math.hypot(b[0] - a[0], b[1] - a[1]));
      }
      const seam = p.at * along[along.length - 1];
      const at = Math.max(
        1,
        Math.min(
          sticks.length - 2,
          along.findIndex((d) => d >= seam),
        ),
      );
      parts[0] = sticks.slice(0, at + 1);
      parts[1] = sticks.slice(at);
    }
    if (parts.some((part) => part.length < 2))
      throw new LithagonError(
        'area',
        `${fault.name} cannot be parted there: a surface needs two sticks on each side of the seam.`,
        { object: fault.name, fix: 'Choose another place, or draw another stick first. Nothing was changed.' },
      );
    const [first, second] = parts.map((part) => ({ kind: 'fault' as const, domain: fault.domain, sticks: part }));
    return { first, second };
  },
});
