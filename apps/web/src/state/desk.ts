import type { SerializedDockview } from 'dockview-react';
import { create } from 'zustand';
import { readDesk } from './readDesk';
import type { Displays } from './views/display';
import type { Link, Look, ViewState } from './views/view';

export interface DeskState {
  layout: SerializedDockview | null;
  /** Name of the saved desk that this one began from. */
  desk: string | null;
  /** Volume of every view that was given none of its own. */
  volume: string | null;
  /** What each view shows, by the id of its panel; one that was never changed is not here. */
  views: Record<string, ViewState>;
  /** Where each group of linked views looks. */
  links: Partial<Record<Link, Look>>;
  /** The view in front, and those that were before it, the last first. */
  active: string | null;
  recent: string[];
  /** How volumes are drawn wherever a view has no colours of its own for them. */
  display: Displays;
  stage: string | null;
  theme: 'light' | 'dark';
}

const initial: DeskState = {
  layout: null,
  desk: null,
  volume: null,
  views: {},
  links: {},
  active: null,
  recent: [],
  display: {},
  stage: 'data',
  theme: 'light',
};

export const useDesk = create<DeskState>(() => initial);

/** Bring back a project's unsaved desk, and keep it from now on. */
export function keepDesk(projectId: string): void {
  const key = `lithagon-desk-${projectId}`;
  const theme = localStorage.getItem('lithagon-theme');
  const dark = theme ? theme === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  let kept: Partial<DeskState> = {};
  try {
    kept = readDesk(JSON.parse(localStorage.getItem(key) ?? '{}'));
  } catch {
    // a desk that cannot be read is begun anew
  }
  useDesk.setState({ ...initial, ...kept, theme: dark ? 'dark' : 'light' });
  let timer: ReturnType<typeof setTimeout> | undefined;
  const save = () => {
    try {
      localStorage.setItem(key, JSON.stringify(useDesk.getState()));
    } catch {
      // where the browser keeps no more, the desk is as it was saved when it is next opened
    }
  };
  useDesk.subscribe((now, before) => {
    clearTimeout(timer);
    timer = setTimeout(save, 250);
    if (now.theme !== before.theme) localStorage.setItem('lithagon-theme', now.theme);
  });
  addEventListener('pagehide', save);
}

/** Begin the desk anew, as a project without one has it. */
export function resetDesk(): void {
  const { theme } = useDesk.getState();
  useDesk.setState({ ...initial, theme });
}
