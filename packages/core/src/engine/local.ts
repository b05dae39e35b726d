import type { BinGrid } from '../earth/binGrid.ts';
import type { Domain, EarthObject, Volume } from '../earth/objects.ts';
import type { Quantity } from '../earth/quantities.ts';
import type { Block, Halo, Region, Shape3 } from '../numerics/block.ts';
import type { Store } from '../storage/store.ts';

/** The inputs of a step by role. */
export type Given = Record<string, EarthObject | EarthObject[] | undefined>;

/** Where the samples of a volume lie. */
export interface VolumeGrid {
  binGrid: BinGrid;
  domain: Domain;
  vertical: Volume['vertical'];
}

export const shapeOfGrid = ({ binGrid, vertical }: VolumeGrid): Shape3 => [
  binGrid.inline.count,
  binGrid.crossline.count,
  vertical.count,
];

/** What a result is, where it is something else than the first input. */
export interface LocalOutput {
  quantity?: Quantity;
  unit?: string;
  polarity?: Volume['polarity'];
  /** Names of classes, from 1 on, where it holds such. */
  classes?: string[];
  /** Angles of incidence that it stacks, where it does. */
  angles?: Volume['angles'];
}

/** The volumes of a step by role, those that were not chosen left out. */
export type Volumes = Record<string, Volume>;

/**
 * How a local step works out its results for any region, from what surrounds it alone: the run of a whole volume, its trial
 * on a line, live volumes and chains of steps all come from this one declaration, and give the same samples.
 */
// biome-ignore lint/suspicious/noExplicitAny: what is prepared is handed back to the step that prepared it
export interface LocalStep<P = any, D = any, X = any> {
  /** Roles of the volumes that it reads; the first gives the grid. Those of an input of many are `role/0`, `role/1` …. */
  volumes: [string, ...string[]];
  /** Whether the others may lie on grids of their own, and are interpolated onto that of the first. */
  otherGrids?: true;
  /**
   * Roles, not the first, that are read down whole traces on samples of their own, in whatever domain; they share the bins of the first.
   */
  own?: string[];
  /** What a region needs around it. */
  halo(params: P, volume: Volume): Halo;
  /** What all regions need beside the volumes and whatever the parameters, such as a horizon; made once, sent to every thread. */
  prepare?(given: Given, work: { store: Store; signal?: AbortSignal; params: P }): Promise<D>;
  /** The parameters on which what is prepared rests; none where this is left out. */
  prepareRestsOn?: (keyof P & string)[];
  /** What each thread makes of that and the parameters before its first region. */
  ready?(prepared: D, params: P, volumes: Volumes): X;
  /** Where the results lie, where that is not the grid of the first volume. */
  grid?(volume: Volume, params: P, ready: X): VolumeGrid;
  /** Domain of the results, where it is another; of what turns time into depth and back it is the other one. */
  domain?: Domain | 'the other';
  /** Which samples of the inputs a region of the results rests on, before the halo, where the results have a grid of their own. */
  needs?(region: Region, ready: X, params: P): Region;
  /** Values by role of the output, `[inline][crossline][sample]` of the region. Samples that the first input has not are left out. */
  evaluate(blocks: Record<string, Block>, params: P, ready: X, region: Region): Record<string, Float32Array>;
  /**
   * Whether it looks by itself, deep in its work, if it is to stop: it is then given regions as large as memory allows, which is for
   * steps whose regions need much around them.
   */
  heeds?: true;
  /** Whether what it prepares takes so long that one line foretells nothing of all of them. */
  longPrepared?: true;
  /** Whether samples that are not there may be given a value. */
  fills?: true;
  /** Roles of its results, where they follow from what goes in; else those that the step declares. */
  roles?(given: Given, params: P): string[];
  /** What the results are, by role; of several that are given for one output by its role alone. */
  outputs?: Record<string, LocalOutput>;
  /** The same where it rests on what goes in; of a trial it is asked before anything is made ready. */
  outputOf?(volume: Volume, params: P, ready?: X, role?: string): LocalOutput;
  /** What is to be said of a run. */
  says?(ready: X): string[];
}

/** A local step of one volume in and one out on the same samples: `evaluate` is given the block and gives the values. */
// biome-ignore lint/suspicious/noExplicitAny: as above
export function oneVolume<P, D = any, X = D>(
  input: string,
  output: string,
  step: Omit<LocalStep<P, D, X>, 'volumes' | 'evaluate' | 'grid' | 'needs' | 'outputs'> &
    LocalOutput & { evaluate(block: Block, params: P, ready: X): Float32Array },
): LocalStep<P, D, X> {
  const { evaluate, quantity, unit, polarity, ...rest } = step;
  return {
    ...rest,
    volumes: [input],
    outputs: { [output]: { quantity, unit, polarity } },
    evaluate: (blocks, params, ready) => ({ [output]: evaluate(blocks[input], params, ready) }),
  };
}
