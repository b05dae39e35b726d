import type { Frame, MadeBy } from '../../earth/objects.ts';
import type { Store } from '../../storage/store.ts';

/** How an object is written, where a format leaves a choice. */
export interface OutOptions {
  /** SEG-Y samples. */
  format?: 'ieee' | 'ibm' | 'compact';
  /** SEG-Y revision. */
  revision?: '1' | '2';
}

/** What writing needs to know besides the object. */
export interface Out {
  store: Store;
  frame: Frame | null;
  options: OutOptions;
  /** Unit of map coordinates in files, and what metres are multiplied by to be in it. */
  map: { unit: 'm' | 'ft' | 'us-ft'; scale: number };
  /** How an object came to be, in words: the step's title and each parameter by its own. */
  told(madeBy: MadeBy): { step: string; params: { title: string; value: string }[] };
  signal?: AbortSignal;
}
