import type { BodyRuns } from '../attributes/bodySurface.ts';
import type { Bodies } from '../earth/objects.ts';
import { readWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';

/** Runs of each body, from lists of `line, trace, first, after the last, body`. */
export function byBody(runs: Float32Array): Map<number, BodyRuns> {
  const lists = new Map<number, { i: number[]; j: number[]; from: number[]; to: number[] }>();
  for (let n = 0; n < runs.length; n += 5) {
    const body = runs[n + 4];
    let own = lists.get(body);
    if (!own) {
      own = { i: [], j: [], from: [], to: [] };
      lists.set(body, own);
    }
    own.i.push(runs[n]);
    own.j.push(runs[n + 1]);
    own.from.push(runs[n + 2]);
    own.to.push(runs[n + 3]);
  }
  return new Map([...lists].sort(([a], [b]) => a - b));
}

export const runsOf = async (store: Store, { runs }: Bodies): Promise<Map<number, BodyRuns>> =>
  byBody(await readWhole(store, runs));
