import {
  type Aside,
  asLithagonError,
  type EarthObject,
  LithagonError,
  outOfDate,
  type ProjectFacts,
  type Store,
  waitingFor,
} from '@lithagon/core';
import { create } from 'zustand';
import { writeAs } from '../compute/pool';
import { changesOf, claimProject, idbStore } from '../storage/idbStore';
import { touchProject } from '../storage/projects';
import { useRuns } from './runs';

interface ProjectState {
  id: string;
  store: Store | null;
  facts: ProjectFacts | null;
  objects: EarthObject[];
  byId: Map<string, EarthObject>;
  /** Why each object that is out of date is so. */
  old: Map<string, string>;
  /** What each object that waits, waits for. */
  waiting: Map<string, string>;
  /** What could not be read when the project was opened. */
  aside: Aside[];
  /** Whether this tab may change the project: only one may at a time. */
  writer: boolean;
  problem: string | null;
}

export const useProject = create<ProjectState>(() => ({
  id: '',
  store: null,
  facts: null,
  objects: [],
  byId: new Map(),
  old: new Map(),
  waiting: new Map(),
  aside: [],
  writer: true,
  problem: null,
}));

let asked = 0;
let shown = 0;

/** Read the project's objects anew; of readings that overlap, the one begun last is what counts. */
export async function refreshProject(): Promise<void> {
  const { store } = useProject.getState();
  if (!store) return;
  const turn = ++asked;
  const [facts, listed, aside] = await Promise.all([store.facts(), store.list(), store.aside()]);
  if (turn < shown || store !== useProject.getState().store) return;
  shown = turn;
  // in the order in which they came
  const objects = listed.sort(
    (a, b) => a.madeBy.started.localeCompare(b.madeBy.started) || a.name.localeCompare(b.name),
  );
  useProject.setState({
    facts,
    objects,
    aside,
    byId: new Map(objects.map((o) => [o.id, o])),
    old: outOfDate(objects),
    waiting: waitingFor(objects),
  });
}

/** A store whose changes are refused while another tab holds the project. */
function guarded(store: Store): Store {
  return {
    ...store,
    async commit(change) {
      mayChange();
      await store.commit(change);
    },
  };
}

/** Refuse a change, in a sentence, where another tab holds the project. */
export function mayChange(): void {
  if (!useProject.getState().writer)
    throw new LithagonError('reader', 'The project is open in another tab, which may change it; this one only looks.', {
      fix: 'Choose “Work here instead” above. Nothing was changed.',
    });
}

const lockOf = (id: string) => `lithagon-project-${id}`;
let token: string | null = null;

/** This tab holds the project, or has lost it: runs under way could keep nothing any more. */
function setHeld(held: string | null): void {
  token = held;
  writeAs(held);
  useProject.setState({ writer: held !== null });
  if (held === null) for (const run of useRuns.getState().runs) run.cancel();
}

/** Have the project changed by this tab and its workers alone. */
async function claimed(id: string): Promise<void> {
  const own = crypto.randomUUID();
  await claimProject(id, own);
  setHeld(own);
}

/**
 * Hold the project for this tab, where no other does; losing it to another makes this tab one that looks.
 * @returns once it is known whether this tab holds it
 */
function holdProject(id: string, steal = false): Promise<void> {
  return new Promise((known) => {
    if (!navigator.locks) return known(claimed(id));
    const held = async (lock: Lock | null) => {
      if (lock) await claimed(id);
      else setHeld(null);
      known();
      // held until the tab is closed or another takes over
      return lock ? new Promise<void>(() => undefined) : undefined;
    };
    const request = steal
      ? navigator.locks.request(lockOf(id), { steal: true }, held)
      : navigator.locks.request(lockOf(id), { ifAvailable: true }, held);
    request.catch(() => {
      setHeld(null);
      known();
    });
  });
}

/** Take the project over from the tab that holds it. */
export async function takeOver(): Promise<void> {
  await holdProject(useProject.getState().id, true);
  await refreshProject();
}

/** Throw away what could not be read when the project was opened. */
export async function discardAside(keys: string[]): Promise<void> {
  await useProject.getState().store?.commit({ discard: keys });
  await refreshProject();
}

/** Open a project of this browser and follow its changes, whichever thread makes them. */
export async function openProject(id: string): Promise<void> {
  try {
    const store = await idbStore(id, () => token);
    useProject.setState({ id, store: guarded(store) });
    await holdProject(id);
    new BroadcastChannel(changesOf(id)).onmessage = () => void refreshProject();
    await refreshProject();
    const { facts } = useProject.getState();
    if (facts) await touchProject(facts);
    void navigator.storage?.persist?.();
  } catch (cause) {
    useProject.setState({ problem: asLithagonError(cause).sentence });
  }
}
