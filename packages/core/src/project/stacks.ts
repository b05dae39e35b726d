import { sameBins } from '../earth/binGrid.ts';
import { LithagonError } from '../earth/errors.ts';
import type { EarthObject, Volume, Wavelet } from '../earth/objects.ts';
import { loadedRevision } from './make.ts';

/** Angles of incidence that a volume stacks, degrees, and how they are known. */
export interface StackAngles {
  middle: number;
  from?: number;
  to?: number;
  by: 'declared' | 'text header' | 'name';
}

const RANGE = /(\d{1,2}(?:\.\d+)?)\s*(?:-|–|to)\s*(\d{1,2}(?:\.\d+)?)\s*(?:°|deg)/i;
const ONE = /(\d{1,2}(?:\.\d+)?)\s*(?:°|deg)/i;

/** Angles in a text such as “NEAR STACK, 5-15 DEGREES” or “angle 20°”; null where it names none. */
export function anglesInText(text: string): Omit<StackAngles, 'by'> | null {
  const range = RANGE.exec(text);
  if (range) {
    const [from, to] = [Number(range[1]), Number(range[2])];
    return to > from && to <= 80 ? { middle: (from + to) / 2, from, to } : null;
  }
  const one = ONE.exec(text);
  return one && /angle|stack|offset/i.test(text) && Number(one[1]) <= 80 ? { middle: Number(one[1]) } : null;
}

/** Angles of a volume: as declared, else as the header of its file says, else as its name does; null where nothing says. */
export function anglesOf(volume: Volume): StackAngles | null {
  if (volume.angles) return { ...volume.angles, by: 'declared' };
  for (const line of volume.text ?? []) {
    const found = anglesInText(line);
    if (found) return { ...found, by: 'text header' };
  }
  const named = anglesInText(volume.name);
  return named && { ...named, by: 'name' };
}

/** Words by which stacks of part of the angles are called where nothing gives their degrees. */
export const namedLikeStack = ({ name }: Pick<Volume, 'name'>): boolean =>
  /\b(near|mid|middle|far|ultra.?far)\b/i.test(name);

/** A volume of which it is said what angle it stacks: a new revision, so that what was made from it is out of date. */
export const withAngle = (volume: Volume, middle: number): Volume => ({
  ...volume,
  angles: { middle },
  revision: loadedRevision(volume.revision, { middle }),
});

/** A stack of a set with the middle of its angles. */
export interface Stack {
  volume: Volume;
  angle: number;
}

/** Whether a stack takes the place of another of its angle: computed before loaded, then the newer. */
function supersedes(a: Volume, b: Volume): boolean {
  const [aLoaded, bLoaded] = [a, b].map((v) => v.madeBy.file !== undefined);
  return aLoaded === bLoaded ? a.madeBy.started > b.madeBy.started : bLoaded;
}

/**
 * Volumes of one survey that each stack part of the angles, by rising angle; those that take in the angles of two others are no
 * part of it, nor are any but the newest of one angle where several steps made them.
 */
export function stackSetOf(volume: Volume, objects: EarthObject[]): Stack[] {
  const all = objects.flatMap((o): (Stack & { from: number; to: number })[] => {
    if (o.kind !== 'volume' || o.quantity !== 'amplitude' || o.domain !== volume.domain) return [];
    if (!sameBins(o.binGrid, volume.binGrid)) return [];
    const angles = anglesOf(o);
    return angles
      ? [{ volume: o, angle: angles.middle, from: angles.from ?? angles.middle, to: angles.to ?? angles.middle }]
      : [];
  });
  const parts = all.filter(
    (a) => all.filter((b) => b.angle !== a.angle && b.from >= a.from - 1e-6 && b.to <= a.to + 1e-6).length < 2,
  );
  const newest = new Map<number, Stack>();
  for (const { volume: v, angle } of parts) {
    const other = newest.get(angle);
    if (!other || supersedes(v, other.volume)) newest.set(angle, { volume: v, angle });
  }
  return [...newest.values()].sort((a, b) => a.angle - b.angle);
}

/** Chosen stacks by rising angle; refuses what is no set of at least so many angles. */
export function stacksOf(volumes: Volume[], least: number): Stack[] {
  const stacks = volumes.map((volume): Stack => {
    const angles = anglesOf(volume);
    if (!angles)
      throw new LithagonError(
        'stacks',
        `${volume.name} has no angle: neither its header nor its name says which it stacks.`,
        {
          object: volume.name,
          fix: 'Give it its angles in its Sheet, or leave it out. Nothing was changed.',
        },
      );
    return { volume, angle: angles.middle };
  });
  stacks.sort((a, b) => a.angle - b.angle);
  const [first] = stacks;
  for (const { volume } of stacks)
    if (!sameBins(volume.binGrid, first.volume.binGrid))
      throw new LithagonError('stacks', `${volume.name} and ${first.volume.name} do not lie on the same lines.`, {
        object: volume.name,
        fix: 'Put one of them on the bins of the other first. Nothing was changed.',
      });
  for (const [n, { volume, angle }] of stacks.entries())
    if (n > 0 && angle === stacks[n - 1].angle)
      throw new LithagonError('stacks', `${volume.name} and ${stacks[n - 1].volume.name} are both of ${angle}°.`, {
        object: volume.name,
        fix: 'Leave one of them out. Nothing was changed.',
      });
  if (stacks.length < least)
    throw new LithagonError(
      'stacks',
      `That needs ${least} stacks of different angles, and ${stacks.length === 1 ? 'one was' : `${stacks.length} were`} chosen.`,
      {
        fix: 'Choose stacks of more angles. Nothing was changed.',
      },
    );
  return stacks;
}

/** The newest wavelet of each stack's angle; null where a stack has none. */
export const waveletsOf = (stacks: Stack[], wavelets: Wavelet[]): (Wavelet | null)[] =>
  stacks.map(({ angle }) => {
    const own = wavelets.filter((w) => Math.abs((w.angleDeg ?? 0) - angle) < 1);
    return own.sort((a, b) => b.madeBy.started.localeCompare(a.madeBy.started))[0] ?? null;
  });
