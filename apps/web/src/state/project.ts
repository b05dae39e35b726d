import { type EarthObject, outOfDate, type ProjectFacts, type Store, waitingFor } from '@lithagon/core';
import { create } from 'zustand';
import { changesOf, idbStore } from '../storage/idbStore';
import { touchProject } from '../storage/projects';

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
  problem: null,
}));

export async function refreshProject(): Promise<void> {
  const { store } = useProject.getState();
  if (!store) return;
  const [facts, listed] = await Promise.all([store.facts(), store.list()]);
  // in the order in which they came
  const objects = listed.sort(
    (a, b) => a.madeBy.started.localeCompare(b.madeBy.started) || a.name.localeCompare(b.name),
  );
  useProject.setState({
    facts,
    objects,
    byId: new Map(objects.map((o) => [o.id, o])),
    old: outOfDate(objects),
    waiting: waitingFor(objects),
  });
}

/** Open a project of this browser and follow its changes, whichever thread makes them. */
export async function openProject(id: string): Promise<void> {
  try {
    const store = await idbStore(id);
    useProject.setState({ id, store });
    new BroadcastChannel(changesOf(id)).onmessage = () => void refreshProject();
    await refreshProject();
    const { facts } = useProject.getState();
    if (facts) await touchProject(facts);
    void navigator.storage?.persist?.();
  } catch {
    useProject.setState({
      problem: 'This project is not in this browser. It may have been deleted, or opened elsewhere.',
    });
  }
}
