import type { EarthObject, MadeBy } from '../earth/objects.ts';

/** A run of a step: what it was given, what came of it, and what it said. */
export interface Run {
  id: string;
  step: string;
  version: number;
  params: MadeBy['params'];
  /** `id@revision` by role. */
  inputs: MadeBy['inputs'];
  /** Ids of what it made, by role. */
  outputs: Record<string, string>;
  warnings: string[];
  started: string;
  tookMs: number;
  engine: string;
}

/** The runs that made what a project holds, in the order in which they began; what was loaded or drawn has none. */
export function runsOf(objects: EarthObject[]): Run[] {
  const runs = new Map<string, Run>();
  for (const { id: object, madeBy } of objects) {
    const { run: id, output, step, version, params, inputs, warnings, started, tookMs, engine } = madeBy;
    if (!id) continue;
    const run = runs.get(id) ?? {
      ...{ id, step, version, params, inputs: {}, outputs: {}, warnings, started, tookMs, engine },
    };
    runs.set(id, run);
    // an output may rest on fewer of what was at hand than another
    run.inputs = { ...run.inputs, ...inputs };
    if (output) run.outputs[output] = object;
  }
  return [...runs.values()].sort((a, b) => a.started.localeCompare(b.started));
}

/** The run that made an object. */
export function runOf(objects: EarthObject[], { madeBy }: EarthObject): Run | undefined {
  return madeBy.run ? runsOf(objects.filter((o) => o.madeBy.run === madeBy.run))[0] : undefined;
}
