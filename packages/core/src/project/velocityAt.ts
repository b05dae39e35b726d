import type { EarthObject, Well } from '../earth/objects.ts';
import { quantile } from '../wells/petrophysics.ts';
import { depthOfTwt } from '../wells/timeDepth.ts';
import { relationOf } from './wells/seeds.ts';

/** Half of the interval that a velocity is taken over, ms of two-way time. */
const HALF = 60;

/** Interval velocity about a two-way time as the wells' time–depth relations have it, m/s: their median, and which wells they are of; null where none reaches it. */
export function velocityAt(objects: EarthObject[], twt: number): { velocity: number; wells: string[] } | null {
  const found = objects
    .filter((o): o is Well => o.kind === 'well')
    .flatMap(({ name }) => {
      const relation = relationOf(objects, name);
      if (!relation) return [];
      const metres = depthOfTwt(relation, twt + HALF) - depthOfTwt(relation, twt - HALF);
      const velocity = metres / (HALF / 1000);
      return velocity > 300 && velocity < 9000 ? [{ name, velocity }] : [];
    });
  if (found.length === 0) return null;
  return {
    velocity: quantile(
      found.map((f) => f.velocity),
      0.5,
    ),
    wells: found.map((f) => f.name),
  };
}
