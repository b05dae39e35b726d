import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject, Fault, Picks } from '../../earth/objects.ts';
import { readModel } from '../../project/velocityModel.ts';
import { type Turn, turnerOf } from '../../velocity/turn.ts';
import { type Draft, defineStep, eachRole } from '../define.ts';
import { modelInput } from './earth.ts';
import { otherDomain } from './otherDomain.ts';

type Point = [number, number, number];

/** Points in the other domain; those that the model does not reach are left out. */
const turned = (points: Point[], turn: Turn): Point[] =>
  points.flatMap(([x, y, v]): Point[] => {
    const other = turn(x, y, v);
    return Number.isNaN(other) ? [] : [[x, y, other]];
  });

/** A step that takes points of several objects to the other domain. */
async function turnEach<O extends Fault | Picks>(
  objects: O[],
  work: {
    model: Parameters<typeof readModel>[1];
    store: Parameters<typeof readModel>[0];
    signal?: AbortSignal;
    warn(s: string): void;
  },
  make: (object: O, turn: (points: Point[]) => Point[]) => Omit<O, keyof Named> | null,
): Promise<Record<string, Draft>> {
  const model = await readModel(work.store, work.model, { signal: work.signal, say: work.warn });
  const out: Record<string, Draft> = {};
  for (const object of objects) {
    const turn = turnerOf(model, otherDomain(object));
    let [before, after] = [0, 0];
    const made = make(object, (points) => {
      const kept = turned(points, turn);
      before += points.length;
      after += kept.length;
      return kept;
    });
    if (before > after)
      work.warn(
        `${before - after} of ${before} points of ${object.name} lie where there is no velocity: they were left out.`,
      );
    if (!made || after === 0)
      throw new LithagonError('velocity', `No point of ${object.name} lies where there is a velocity.`, {
        object: object.name,
        fix: 'Choose a model of the same place. Nothing was changed.',
      });
    out[eachRole('converted', object.id)] = made as unknown as Draft;
  }
  return out;
}

type Named = Pick<EarthObject, 'id' | 'revision' | 'madeBy' | 'stage' | 'name'>;

const FACTS = {
  version: 1,
  stage: 'depth',
  formula: 'z = z(t) or t = t(z) at every point.',
  source: 'Closed form for v0 + k·z: Slotnick (1936), Geophysics 1, 9–22',
  reach: 'global',
  params: z.object({}),
} as const;

export const depthFaults = defineStep({
  ...FACTS,
  id: 'depth.faults',
  title: 'Faults to depth or time',
  summary: 'Takes the sticks of faults from time to depth, or back, point by point.',
  avoid: 'Where a layer changes across the fault: points lie on the side that the map has there.',
  inputs: { faults: { kind: 'fault', title: 'Faults', many: true }, model: modelInput },
  outputs: { converted: { kind: 'fault', title: 'Converted', each: 'faults' } },
  run: ({ inputs, store, signal, warn }) =>
    turnEach(inputs.faults, { model: inputs.model, store, signal, warn }, (fault, turn) => ({
      kind: 'fault' as const,
      domain: otherDomain(fault),
      sticks: fault.sticks.map(turn).filter((stick) => stick.length > 0),
    })),
});

export const depthPicks = defineStep({
  ...FACTS,
  id: 'depth.picks',
  title: 'Picks to depth or time',
  summary: 'Takes picks from time to depth, or back, point by point.',
  avoid: 'To track on in the other domain: track where the data were recorded, and convert the horizon.',
  inputs: { picks: { kind: 'picks', title: 'Picks', many: true }, model: modelInput },
  outputs: { converted: { kind: 'picks', title: 'Converted', each: 'picks' } },
  run: ({ inputs, store, signal, warn }) =>
    turnEach(inputs.picks, { model: inputs.model, store, signal, warn }, (picks, turn) => ({
      kind: 'picks' as const,
      domain: otherDomain(picks),
      event: 'free-hand' as const,
      points: turn(picks.points),
      erased: picks.erased,
    })),
});
