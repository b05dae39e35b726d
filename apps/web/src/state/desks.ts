import { type DeskState, useDesk } from './desk';
import { arrangeAs } from './dock';
import { refreshProject, useProject } from './project';
import { readDesk } from './readDesk';

/** What of the desk belongs to a saved one; which bed is open and the theme are a person's own. */
const KEPT = ['layout', 'volume', 'views', 'links', 'display'] as const satisfies (keyof DeskState)[];

const WORDS: Record<(typeof KEPT)[number], string> = {
  layout: 'the views',
  volume: 'the volume shown',
  views: 'what views show',
  links: 'the lines and parts in view',
  display: 'colours',
};

type Kept = Pick<DeskState, (typeof KEPT)[number]>;

function keptOf(state: DeskState): Kept {
  return Object.fromEntries(KEPT.map((key) => [key, state[key]])) as Kept;
}

/** Which group has the focus, and sizes to a few pixels, are no change of an arrangement. */
function comparable(key: string, value: unknown): string {
  return JSON.stringify(value, (name, each) =>
    key === 'layout' &&
    ['activeGroup', 'activePanel', 'activeView', 'maximizedNode', 'size', 'width', 'height'].includes(name)
      ? undefined
      : each,
  );
}

export const savedDesks = () => useProject.getState().facts?.desks ?? [];

/** What differs between the desk as it stands and as it was saved, in words. */
export function differences(state: DeskState, saved: Record<string, unknown>): string[] {
  return KEPT.filter((key) => comparable(key, state[key] ?? null) !== comparable(key, saved[key] ?? null)).map(
    (key) => WORDS[key],
  );
}

async function keep(desks: { name: string; state: Record<string, unknown> }[]): Promise<void> {
  await useProject.getState().store?.commit({ facts: { desks } });
  await refreshProject();
}

/** Save the desk under a name; one of the same name is replaced. */
export async function saveDesk(name: string): Promise<void> {
  const state = JSON.parse(JSON.stringify(keptOf(useDesk.getState()))) as Record<string, unknown>;
  const desks = savedDesks();
  const at = desks.findIndex((d) => d.name === name);
  await keep(at < 0 ? [...desks, { name, state }] : desks.map((d, n) => (n === at ? { name, state } : d)));
  useDesk.setState({ desk: name });
}

/** Put the desk as it was saved under a name. */
export function openDesk(name: string): void {
  const saved = savedDesks().find((d) => d.name === name);
  if (!saved) return;
  // it may come from a parcel or another version: what of it cannot be used stays as it is
  const state = readDesk(saved.state);
  const usable = Object.fromEntries(KEPT.filter((key) => key in state).map((key) => [key, state[key]]));
  useDesk.setState({ ...usable, desk: name });
  if (state.layout) arrangeAs(state.layout);
}

export async function deleteDesk(name: string): Promise<void> {
  await keep(savedDesks().filter((d) => d.name !== name));
  if (useDesk.getState().desk === name) useDesk.setState({ desk: null });
}

export async function renameDesk(name: string, to: string): Promise<void> {
  if (savedDesks().some((d) => d.name === to)) return;
  await keep(savedDesks().map((d) => (d.name === name ? { ...d, name: to } : d)));
  if (useDesk.getState().desk === name) useDesk.setState({ desk: to });
}
