import type { Store } from '../storage/store.ts';
import { DONE, type Found, type Lane, type LaneJob, NEXT, type PlanSpec, planFrom, STOP, work } from './lanes.ts';
import { type LocalStep, shapeOfGrid } from './local.ts';

/** Lanes that work on one run. */
export interface Session {
  /** Have all lanes do the items of a job. */
  do(job: LaneJob): Promise<Found[]>;
  end(): void;
}

/** Where the parts of a run are worked on: in this thread, by workers of the page, by threads of the command line. */
export interface JobRunner {
  /** How many items are worked on at once. */
  lanes: number;
  /** Most samples of a group of lines that is held at once, where it is to be other than usual. */
  held?: number;
  /** Memory that all lanes see. */
  room(values: number): Float32Array;
  /** @param onDone told of the items of the job under way that are done */
  begin(spec: PlanSpec, store: Store, signal?: AbortSignal, onDone?: (items: number) => void): Promise<Session>;
}

/** The flags that lanes of a session share. */
export const newFlags = (shared: boolean): Int32Array =>
  new Int32Array(shared ? new SharedArrayBuffer(12) : new ArrayBuffer(12));

/** Before a job: nothing is taken and nothing done. */
export function resetFlags(flags: Int32Array): void {
  Atomics.store(flags, NEXT, 0);
  Atomics.store(flags, DONE, 0);
}

/** Everything in the thread that asks. */
export const inThread = (localOf: (step: string) => LocalStep | undefined): JobRunner => ({
  lanes: 1,
  room: (values) => new Float32Array(values),
  async begin(spec, store, signal, onDone) {
    const flags = newFlags(false);
    const tick = () => {
      onDone?.(Atomics.load(flags, DONE));
      if (signal?.aborted) Atomics.store(flags, STOP, 1);
    };
    const lane: Lane = { store, plan: planFrom(spec, localOf), flags, signal, tick };
    return {
      do(job) {
        resetFlags(flags);
        if (signal?.aborted) Atomics.store(flags, STOP, 1);
        return work(lane, job);
      },
      end: () => undefined,
    };
  },
});

/** A worker or thread, as far as lanes need to know. */
export interface LaneThread {
  ask(message: LaneMessage): Promise<Found[]>;
}

export type LaneMessage =
  | { what: 'begin'; session: number; spec: PlanSpec; door: unknown; flags: Int32Array }
  | { what: 'do'; session: number; job: LaneJob }
  | { what: 'end'; session: number };

/** Samples below which one thread does them all. */
const FEW = 3e6;

const samplesOf = ({ volumes }: PlanSpec) =>
  Object.values(volumes).reduce((sum, volume) => sum + shapeOfGrid(volume).reduce((a, n) => a * n, 1), 0);

let sessions = 0;

/** Lanes in threads of their own, which see shared memory and open the store by its door. */
export function inThreads(threads: LaneThread[], alone: JobRunner): JobRunner {
  return {
    lanes: threads.length,
    room: (values) => new Float32Array(new SharedArrayBuffer(4 * values)),
    async begin(spec, store, signal, onDone) {
      // a store that only this thread has, or so little that waking the others takes longer
      if (store.door === undefined || samplesOf(spec) < FEW) return alone.begin(spec, store, signal, onDone);
      const flags = newFlags(true);
      const session = ++sessions;
      const stop = () => void Atomics.store(flags, STOP, 1);
      const all = async (message: LaneMessage): Promise<Found[]> => {
        const settled = await Promise.allSettled(
          threads.map((thread) =>
            thread.ask(message).catch((cause) => {
              // where one fails the others need not go on
              stop();
              throw cause;
            }),
          ),
        );
        const failed = settled.filter((s) => s.status === 'rejected').map((s) => s.reason as Error);
        // what the others say is that they were stopped
        const [cause] = [...failed.filter((e) => e.name !== 'AbortError'), ...failed];
        if (cause) throw cause;
        return settled.flatMap((s) => (s.status === 'fulfilled' ? s.value : []));
      };
      signal?.addEventListener('abort', stop);
      await all({ what: 'begin', session, spec, door: store.door, flags });
      return {
        async do(job) {
          resetFlags(flags);
          const watch = setInterval(() => {
            if (signal?.aborted) stop();
            onDone?.(Atomics.load(flags, DONE));
          }, 50);
          try {
            return await all({ what: 'do', session, job });
          } finally {
            clearInterval(watch);
          }
        },
        end() {
          signal?.removeEventListener('abort', stop);
          void all({ what: 'end', session }).catch(() => undefined);
        },
      };
    },
  };
}

/** The far end of a lane: what a worker or thread does with the messages it is sent. */
export function laneOf(
  openStore: (door: unknown) => Promise<Store>,
  localOf: (step: string) => LocalStep | undefined,
): (message: LaneMessage) => Promise<Found[]> {
  const lanes = new Map<number, Lane>();
  return async (message) => {
    if (message.what === 'begin') {
      const { session, spec, door, flags } = message;
      lanes.set(session, { store: await openStore(door), plan: planFrom(spec, localOf), flags });
      return [];
    }
    const lane = lanes.get(message.session);
    if (message.what === 'end') {
      lanes.delete(message.session);
      await lane?.store.close?.();
      return [];
    }
    // a lane that forgot its run must not pass for one that found nothing to do
    if (!lane) throw new Error('a lane was started anew in the middle of a run');
    return work(lane, message.job);
  };
}
