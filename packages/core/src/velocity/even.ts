import { type BinGrid, toMap } from '../earth/binGrid.ts';
import { LithagonError } from '../earth/errors.ts';
import type { Domain } from '../earth/objects.ts';
import { type Column, depthOfTime, timeOfDepth } from './column.ts';
import type { Model } from './model.ts';

/** How samples are to lie in what is stretched to the other domain; at nothing they go as far as the data. */
export interface Stretching {
  stepM: number;
  deepestM: number;
  stepMs: number;
  latestMs: number;
}

export interface Even {
  first: number;
  step: number;
  count: number;
}

/** Most samples that a trace is given. */
const MOST = 20000;

/**
 * Even positions in the other domain, from the sea (or the datum) down to where data end in any of the columns.
 */
export function evenIn(
  { name, domain, vertical }: { name: string; domain: Domain; vertical: Even },
  columns: (Column | null)[],
  datumM: number,
  p: Stretching,
): Even {
  const last = vertical.first + vertical.step * (vertical.count - 1);
  const known = columns.filter((c) => c !== null);
  if (known.length === 0)
    throw new LithagonError('velocity', `No trace of ${name} lies where the velocities are.`, {
      object: name,
      fix: 'Choose a model or velocity volume of the same place. Nothing was changed.',
    });
  const toDepth = domain === 'twt';
  const step = toDepth ? p.stepM : p.stepMs;
  const typed = toDepth ? p.deepestM : p.latestMs;
  const ends = typed > 0 ? typed : Math.max(...known.map((c) => (toDepth ? depthOfTime : timeOfDepth)(c, last)));
  const first = toDepth ? -Math.ceil(Math.max(0, datumM) / step) * step || 0 : 0;
  // what ends a hair's breadth after a sample ends with it
  const count = Math.ceil((ends - first) / step - 1e-6) + 1;
  if (count > MOST || count < 2)
    throw new LithagonError('params', `Traces of ${name} would have ${count} samples.`, {
      object: name,
      fix: `Choose another sample interval or end; at most ${MOST} samples can be. Nothing was changed.`,
    });
  return { first, step, count };
}

/** Places at which it is asked how deep something goes: along each side of a survey, and along a line. */
const ASKED = { side: 7, line: 40 };

/** Columns at bins spread over a survey. */
export function columnsOver(model: Model, binGrid: BinGrid): (Column | null)[] {
  const { side } = ASKED;
  const at = (n: number, count: number) => Math.round((n / (side - 1)) * (count - 1));
  return Array.from({ length: side * side }, (_, n) =>
    model.column(
      ...toMap(binGrid, at(Math.floor(n / side), binGrid.inline.count), at(n % side, binGrid.crossline.count)),
    ),
  );
}

/** Columns at places spread along a line. */
export function columnsAlong(model: Model, path: [number, number][]): (Column | null)[] {
  const every = Math.max(1, Math.floor(path.length / ASKED.line));
  return path.filter((_, n) => n % every === 0 || n === path.length - 1).map(([x, y]) => model.column(x, y));
}
